"""Database columns of a kind, from the declaration of its fields."""

import copy
from collections.abc import Callable
from typing import Any

from django.db import models

from projects.kinds.declare import Fact, Kind, facts_of

_LONGEST_CHOICE = 40


def _column(fact: Fact, own_kind: str) -> models.Field:
    rest: dict[str, Any] = {"null": fact.nullable}
    if not fact.required and fact.default is not None:
        # A list's first content is given with the thing that is made, not by its column.
        rest["default"] = list if fact.type == "list" else copy.copy(fact.default)
    if fact.type == "link":
        target = "".join(part.capitalize() for part in fact.says.to.split("_"))
        goes = models.CASCADE if fact.owner else models.SET_NULL if fact.says.empties else models.PROTECT
        return models.ForeignKey("self" if target == own_kind else target, on_delete=goes, related_name="+", **rest)
    if fact.type == "choice":
        kind = models.PositiveSmallIntegerField if isinstance(next(iter(fact.says.words or ())), int) else None
        return kind(**rest) if kind else models.CharField(max_length=_LONGEST_CHOICE, **rest)
    if fact.type == "text":
        return models.CharField(max_length=fact.longest, blank=fact.default == "", **rest)
    return {
        "number": models.FloatField,
        "integer": models.PositiveSmallIntegerField,
        "yesno": models.BooleanField,
        "list": models.JSONField,
    }[fact.type](**rest)


def declared(schema: type[Kind]) -> Callable[[type[models.Model]], type[models.Model]]:
    """Give a model the columns that a kind declares; constraints stay with the model.

    Raises:
        ValueError: the model is not named as the kind is.
    """

    def with_columns(model: type[models.Model]) -> type[models.Model]:
        if f"{model.__name__}Fields" != schema.__name__:
            raise ValueError(f"{model.__name__} is not the table of {schema.__name__}")
        for name, fact in facts_of(schema).items():
            _column(fact, model.__name__).contribute_to_class(model, name)
        return model

    return with_columns
