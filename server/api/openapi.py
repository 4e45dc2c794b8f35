"""The OpenAPI description, with the document's kinds among its schemas so that the browser's types follow them."""

from typing import Any

from pydantic import BaseModel

from api.routes import api
from api.schemas import ProblemOut
from projects.kinds import KINDS


def openapi() -> dict[str, Any]:
    """The whole description as plain data."""
    description: dict[str, Any] = dict(api.get_openapi_schema())
    schemas = description["components"]["schemas"]
    models: list[type[BaseModel]] = [ProblemOut, *(kind.schema for kind in KINDS.values())]
    for model in models:
        schema = model.model_json_schema(mode="serialization", ref_template="#/components/schemas/{model}")
        schemas |= schema.pop("$defs", {})
        schemas[model.__name__] = schema
    return description
