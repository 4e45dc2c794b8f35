"""How a field of a kind is declared: once, with its label, quantity, range, words of its choices and what it points at.

    warm_limit_c: Annotated[float, number("Too warm above", "temperature", 15, 60)] = 28.0

Database column (`columns.py`), validation, OpenAPI, the schema of project files, the browser's types, labels, editors and
ranges, the labels of changes and refusals, and what is inherited all follow from that line.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache
from types import NoneType, UnionType
from typing import Annotated, Any, ClassVar, Literal, Union, cast, get_args, get_origin

from pydantic import BaseModel, ConfigDict, GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.fields import FieldInfo
from pydantic_core import CoreSchema, PydanticUndefined, core_schema

from projects.fields import Id

# How stored figures end -> their unit, for readers of the API and of project files; the longest that fits counts.
_UNITS = {
    "_m3_s_m2": "m³/s per m²",
    "_w_m3_s": "W per m³/s",
    "_m3_s": "m³/s",
    "_cm2_m2": "cm²/m²",
    "_j_kgk": "J/(kg K)",
    "_w_m2k": "W/(m² K)",
    "_w_mk": "W/(m K)",
    "_m2k_w": "m² K/W",
    "_kg_m3": "kg/m³",
    "_w_m2": "W/m²",
    "_per_m2": "1/m²",
    "_l_person_day": "l per person and day",
    "_l_m2_day": "l per m² and day",
    "_l_day": "l per day",
    "_pa_m": "Pa/m",
    "_m_s": "m/s",
    "_m3_h": "m³/h at 1 bar",
    "_j_kg": "J/kg",
    "_kg_kwh": "kg/kWh",
    "_kw_month": "per kW and month",
    "_kwh": "per kWh",
    "_day": "per day",
    "_m3": "m³",
    "_m2": "m²",
    "_pa": "Pa",
    "_kg": "kg",
    "_deg": "°",
    "_ach": "1/h",
    "_mm": "mm",
    "_w": "W",
    "_m": "m",
    "_c": "°C",
    "_k": "K",
    "_h": "h",
    "u_value": "W/(m² K)",
}


def stored_unit(name: str) -> str:
    """Unit of a stored figure, by the end of its field's name; empty for bare numbers."""
    ends = [end for end in _UNITS if name.endswith(end)]
    return _UNITS[max(ends, key=len)] if ends else ""


@dataclass(frozen=True)
class Says:
    """What is declared of a field beside its type.

    Attributes:
        label: what it is called on screens, in messages and reports.
        quantity: of the unit table, for numbers ("" for counts and bare numbers).
        low, high: allowed range in stored units; `open_low`, `open_high` leave the ends out.
        words: choices and what they are called.
        to: kind of thing that it points at; `empties` whether it is emptied when that thing goes (else that may not go).
        help: one sentence for who wonders.
        sheet: set of the room sheet that shows it, for fields that rooms inherit.
        short: its name where there is little room.
    """

    label: str
    quantity: str = ""
    low: float | None = None
    high: float | None = None
    open_low: bool = False
    open_high: bool = False
    words: Mapping[Any, str] | None = field(default=None, hash=False)
    to: str = ""
    empties: bool = False
    help: str = ""
    sheet: str = ""
    short: str = ""

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        if self.words is not None:
            return core_schema.literal_schema(list(self.words))
        schema = handler(source)
        if schema["type"] in ("float", "int"):
            bounds = {("gt" if self.open_low else "ge"): self.low, ("lt" if self.open_high else "le"): self.high}
            known: dict[str, Any] = {key: value for key, value in bounds.items() if value is not None}
            if schema["type"] == "float":
                known["allow_inf_nan"] = False
            return cast(CoreSchema, {**schema, **known})
        return schema


def number(
    label: str,
    quantity: str,
    low: float | None,
    high: float | None,
    *,
    open_low: bool = False,
    open_high: bool = False,
    hint: str = "",
    sheet: str = "",
    short: str = "",
) -> Says:
    """A figure of a quantity, with its range in stored units."""
    return Says(label, quantity, low, high, open_low, open_high, help=hint, sheet=sheet, short=short)


def whole(label: str, low: int, high: int, quantity: str = "count", *, hint: str = "") -> Says:
    """A whole number."""
    return Says(label, quantity, low, high, help=hint)


def options(label: str, words: Mapping[Any, str] | list[str], *, hint: str = "") -> Says:
    """One of a few choices, each with what it is called."""
    return Says(label, words=words if isinstance(words, Mapping) else {word: word for word in words}, help=hint)


def link(label: str, to: str, *, empties: bool = False, hint: str = "") -> Says:
    """The id of another thing."""
    return Says(label, to=to, empties=empties, help=hint)


def called(label: str, *, hint: str = "") -> Says:
    """Anything else: texts, yes and no, lists."""
    return Says(label, help=hint)


Ref = Id | None


@dataclass(frozen=True)
class About:
    """How a kind hangs together with others.

    Attributes:
        owner: field naming the thing it is part of; it goes when that goes.
        alike: fields that a row of a tree shares with the one it hangs on, beside its owner.
        rehang: field that, when its target goes, takes the target's own value (trees).
        unique: field that no two things of the kind may share.
        single: one per project, made with it, never created or deleted by edits.
        most: how many a project may have.
    """

    owner: str | None = None
    rehang: str | None = None
    alike: tuple[str, ...] = ()
    unique: str | None = None
    single: bool = False
    most: int = 2_000


class Kind(BaseModel):
    """Base of all kinds and of the parts of their lists: unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")
    about: ClassVar[About] = About()

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        made = handler.resolve_ref_schema(handler(schema))
        for name, fact in facts_of(cls).items():
            shown = made["properties"][name]
            shown["title"] = fact.says.label
            unit = stored_unit(name) if fact.type in ("number", "integer") else ""
            text = " ".join(
                part for part in (f"{fact.says.label}{f' [{unit}]' if unit else ''}.", fact.says.help) if part
            )
            shown["description"] = text
        return made


Sort = Literal["number", "integer", "yesno", "choice", "link", "text", "list"]


@dataclass(frozen=True)
class Fact:
    """A declared field as others read it: what it says, its sort, default and whether it may be empty."""

    says: Says
    type: Sort
    nullable: bool
    required: bool
    default: Any
    shortest: int = 0
    longest: int | None = None
    owner: bool = False

    @property
    def allowed(self) -> str:
        """What it may be, in words and stored units."""
        says = self.says
        if says.words is not None:
            return "one of " + ", ".join(str(value) for value in says.words)
        if self.type in ("text", "list") and self.longest is not None:
            return f"{self.shortest} to {self.longest} {'characters' if self.type == 'text' else 'entries'}"
        low = [] if says.low is None else [f"{'more than' if says.open_low else 'at least'} {says.low:.12g}"]
        high = [] if says.high is None else [f"{'less than' if says.open_high else 'at most'} {says.high:.12g}"]
        plain = {"number": "a number", "integer": "a whole number", "yesno": "true or false"}.get(self.type, "")
        return " and ".join(low + high) or plain


def _parted(annotation: Any) -> tuple[Any, bool, list[Any]]:
    """The type inside, whether None is allowed, and all that is noted beside it."""
    notes: list[Any] = []
    nullable = False
    while True:
        origin = get_origin(annotation)
        if origin is Annotated:
            annotation, *more = get_args(annotation)
            notes += more
        elif origin in (Union, UnionType) and NoneType in get_args(annotation):
            nullable = True
            (annotation,) = [one for one in get_args(annotation) if one is not NoneType]
        else:
            return annotation, nullable, notes


def _length(notes: list[Any], end: str) -> int | None:
    """The least or greatest length among the notes."""
    inside = [part for note in notes for part in (note, *getattr(note, "metadata", ()))]
    return next((getattr(part, end) for part in inside if getattr(part, end, None) is not None), None)


def _stored(value: Any) -> Any:
    """A default as rows hold it: parts of lists as they are stored."""
    if isinstance(value, list):
        return [one.model_dump(mode="json") if isinstance(one, BaseModel) else one for one in value]
    return value


def _fact(name: str, info: FieldInfo, owner: str | None) -> Fact:
    inner, nullable, notes = _parted(info.annotation)
    notes = [*info.metadata, *notes]
    said = [note for note in notes if isinstance(note, Says)]
    says = said[0] if said else Says(re.sub(r"_", " ", name).capitalize())
    sorts: dict[Any, Sort] = {float: "number", int: "integer", bool: "yesno", str: "text"}
    sort: Sort = "choice" if says.words else "link" if says.to else sorts.get(inner, "list")
    required = info.default is PydanticUndefined
    return Fact(
        says,
        sort,
        nullable=nullable,
        required=required,
        default=None if required else _stored(info.default),
        shortest=_length(notes, "min_length") or 0,
        longest=_length(notes, "max_length"),
        owner=name == owner,
    )


@cache
def facts_of(kind: type[Kind]) -> dict[str, Fact]:
    """The declared fields of a kind, in their order."""
    return {name: _fact(name, info, kind.about.owner) for name, info in kind.model_fields.items()}
