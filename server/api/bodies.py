"""Bodies of requests: JSON that is not nested deeper than anything here is."""

from typing import Any

import orjson
from django.http import HttpRequest
from ninja.errors import HttpError
from ninja.parser import Parser

from projects.errors import Refused

DEEPEST = 30


def depth_of(value: Any) -> int:
    """How deep lists and objects are nested, counted no further than is of interest."""
    level, depth = [value], 0
    while level and depth <= DEEPEST:
        inner: list[Any] = []
        for item in level:
            if isinstance(item, dict):
                inner.extend(item.values())
            elif isinstance(item, list):
                inner.extend(item)
        if not any(isinstance(item, dict | list) for item in level):
            break
        level, depth = inner, depth + 1
    return depth


def refuse_deep(value: Any) -> None:
    """Refuse what is nested deeper than it may be.

    Raises:
        Refused: it is.
    """
    if depth_of(value) > DEEPEST:
        raise Refused("invalid", f"The content is nested more than {DEEPEST} deep.")


class Bodies(Parser):
    """Reads JSON bodies."""

    def parse_body(self, request: HttpRequest) -> Any:
        """The body as plain values."""
        try:
            found = orjson.loads(request.body)
        except orjson.JSONDecodeError as error:
            raise HttpError(400, f"This is no JSON that can be read: {error}.") from None
        refuse_deep(found)
        return found
