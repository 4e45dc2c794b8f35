"""Every bounded field of every kind refuses what lies outside, and names itself, the value and the range."""

from typing import Any

from django.test import SimpleTestCase

from projects.errors import Refused
from projects.kinds import KINDS
from projects.plan import plan_changes
from projects.rows import Document
from tests.base import ApiTest, Small, create

_SMALLEST: dict[str, dict[str, Any]] = {
    "material": {"name": "M", "conductivity_w_mk": 1.0},
    "assembly": {"name": "A", "element": "wall"},
    "layer": {"assembly": "a", "position": 0, "material": "m", "thickness_m": 0.1},
    "glazing": {"name": "G", "u_value": 1.4, "g_value": 0.5},
    "kit": {"name": "K"},
    "schedule": {"name": "S", "patterns": [{"id": "a", "name": "A", "steps": [[1440, 1.0]]}], "base": "a"},
    "shading": {"name": "S"},
    "use_item": {"use": "u", "name": "Kiln"},
    "use": {"name": "U"},
    "level": {"name": "L"},
    "zone": {"name": "Z"},
    "room": {"number": "1", "name": "R"},
    "extract": {"room": "r", "name": "Hood", "flow_m3_s": 0.1},
    "transfer": {"room": "r", "source": "q"},
    "tariff": {"name": "T"},
    "price": {"item": "Radiator"},
    "connected_load": {"name": "Lift"},
    "kit_note": {"piece": "a/P"},
    "catalogue_row": {"item": "boiler", "name": "n", "output_w": 1000.0},
    "plant_unit": {"circuit": "c", "name": "Boiler"},
    "surface": {"room": "r", "name": "W", "role": "outer_wall", "boundary": "outdoors", "area_m2": 10},
    "opening": {"surface": "s", "name": "O", "width_m": 1, "height_m": 1},
    "air_system": {"name": "AHU"},
    "duct_section": {"air_system": "x", "name": "D", "length_m": 5},
    "circuit": {"name": "C", "kind": "heating", "flow_c": 55, "return_c": 45},
    "hot_water": {"name": "Store"},
    "pipe_section": {"circuit": "c", "name": "P", "length_m": 5},
    "site": {
        "name": "S", "latitude": 45, "longitude": 10, "utc_offset_h": 1, "elevation_m": 100,
        "ground_temperature_c": 12, "winter_dry_bulb_c": -5,
    },
    "design_month": {"month": 7, "dry_bulb_c": 30, "wet_bulb_c": 20, "range_k": 10, "tau_b": 0.4, "tau_d": 2.1},
    "project": {"name": "P"},
}  # fmt: skip
_BOUNDS = (("minimum", -1e-3), ("exclusiveMinimum", 0.0), ("maximum", 1e-3), ("exclusiveMaximum", 0.0))


def outside(schema: dict[str, Any]) -> list[float]:
    """Values just beyond a field's bounds."""
    found = []
    for option in [schema, *schema.get("anyOf", [])]:
        for key, step in _BOUNDS:
            if key in option:
                beyond = -1 if "inimum" in key else 1
                found.append(option[key] + (beyond if option.get("type") == "integer" and step else step))
    return found


class Ranges(SimpleTestCase):
    def document(self, kind: str) -> Document:
        """A document with everything the smallest row of a kind points at, and that row."""
        rows: dict[str, dict[str, Any]] = {name: {} for name in KINDS}
        targets = dict(KINDS[kind].references.items())
        for column, target in targets.items():
            value = _SMALLEST[kind].get(column)
            if value is not None:
                rows[target][value] = {"id": value, **dict.fromkeys(KINDS[target].columns)}
        plain = KINDS[kind].schema.model_validate(_SMALLEST[kind]).model_dump(mode="json")
        rows[kind]["it"] = {"id": "it", **plain}
        return Document("p", 1, rows)

    def test_each_kind_has_a_smallest_row(self) -> None:
        self.assertEqual(set(_SMALLEST), set(KINDS))

    def test_just_outside_is_refused_by_name(self) -> None:
        tried = 0
        for kind, info in KINDS.items():
            document = self.document(kind)
            for field, schema in info.schema.model_json_schema()["properties"].items():
                for value in outside(schema):
                    change = {"op": "set", "kind": kind, "id": "it", "fields": {field: value}}
                    with self.assertRaises(Refused, msg=f"{kind}.{field} = {value}") as caught:
                        plan_changes(document, [change])
                    fault = caught.exception.faults[0]
                    self.assertEqual(caught.exception.code, "invalid")
                    self.assertEqual(fault.field, field)
                    self.assertEqual(fault.value, value)
                    self.assertTrue(fault.allowed, f"{kind}.{field}")
                    self.assertIn(f"{value!r}", caught.exception.sentence)
                    tried += 1
        self.assertGreater(tried, 120)

    def test_words_and_lists_for_numbers_are_refused(self) -> None:
        for kind, info in KINDS.items():
            document = self.document(kind)
            for field, schema in info.schema.model_json_schema()["properties"].items():
                kinds = {option.get("type") for option in [schema, *schema.get("anyOf", [])]}
                if not kinds & {"number", "integer", "boolean"}:
                    continue
                for value in ("plenty", [], {}, "NaN", float("nan"), float("inf")):
                    change = {"op": "set", "kind": kind, "id": "it", "fields": {field: value}}
                    with self.assertRaises(Refused, msg=f"{kind}.{field} = {value!r}"):
                        plan_changes(document, [change])

    def test_planning_leaves_the_document_alone(self) -> None:
        document = self.document("room")
        before = {kind: dict(rows) for kind, rows in document.rows.items()}
        plan_changes(document, [{"op": "set", "kind": "room", "id": "it", "fields": {"name": "Other"}}])
        plan_changes(document, [{"op": "delete", "kind": "room", "id": "it"}])
        self.assertEqual(document.rows, before)


class Inverses(ApiTest):
    """The inverse of a change set gives the tables back, whatever it held."""

    def test_of_every_kind(self) -> None:
        small = Small(self)
        from projects.document import load_document
        from projects.models import Project

        document = load_document(Project.objects.get(pk=small.project))
        i = small.ids
        sets: list[list[dict[str, Any]]] = [
            [{"op": "delete", "kind": "room", "id": i["room"]}],
            [{"op": "delete", "kind": "air_system", "id": i["system"]}],
            [{"op": "delete", "kind": "circuit", "id": i["circuit"]}],
            [{"op": "delete", "kind": "surface", "id": i["surface"]}],
            [
                create("room", "new", number="2", name="New"),
                {"op": "set", "kind": "room", "id": "new", "fields": {"name": "N"}},
            ],
            [create("room", "new", number="2", name="New"), {"op": "delete", "kind": "room", "id": "new"}],
            [
                {"op": "set", "kind": "room", "id": i["room"], "fields": {"use": None}},
                {"op": "delete", "kind": "use", "id": i["use"]},
            ],
            [
                {"op": "delete", "kind": "duct_section", "id": i["duct"]},
                {"op": "delete", "kind": "pipe_section", "id": i["pipe"]},
            ],
        ]
        for changes in sets:
            rows, inverse, _ = plan_changes(document, changes)
            back, again, _ = plan_changes(Document(document.project, 2, rows), inverse)
            self.assertEqual(back, document.rows, changes)
            forth, _, _ = plan_changes(Document(document.project, 3, back), again)
            self.assertEqual(forth, rows, changes)


class Extremes(ApiTest):
    """Every allowed extreme of every number of a room is worked through: an answer or a snag, never a failure."""

    def test_both_ends_of_every_range(self) -> None:
        small = Small(self)
        names = {
            "room": "room", "surface": "surface", "opening": "opening", "use": "use", "glazing": "glass", "layer": "layer",
            "air_system": "system", "duct_section": "duct", "circuit": "circuit", "pipe_section": "pipe",
        }  # fmt: skip
        tried = 0
        for kind, name in names.items():
            for field, schema in KINDS[kind].schema.model_json_schema()["properties"].items():
                for option in [schema, *schema.get("anyOf", [])]:
                    for key in ("minimum", "maximum"):
                        if key not in option:
                            continue
                        version = self.document(small.project)["version"]
                        answer = self.set(small.project, kind, small.ids[name], **{field: option[key]})
                        # Refused only where it clashes with a value beside it.
                        self.assertIn(
                            answer.status_code, (200, 422), f"{kind}.{field} {option[key]} {answer.content!r}"
                        )
                        if answer.status_code == 200 and answer.json()["version"] > version:
                            tried += 1
                            self.post(f"/projects/{small.project}/undo?base_version={answer.json()['version']}")
        self.assertGreater(tried, 80)
