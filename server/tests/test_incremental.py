"""Whatever is edited in whatever order, what is kept from before gives the same results as working all out anew."""

import math
import random
from typing import Any

from calculations import service
from projects import document
from projects.starter import weekly
from tests.base import ApiTest, Small, create

_DAY_ON = [[480, 0.0], [1080, 1.0], [1440, 0.0]]
_DAY = [[480, 0.0], [1080, 0.8], [1440, 0.1]]


def same(one: Any, other: Any, place: str = "") -> list[str]:
    """Places where two answers differ by more than rounding."""
    if isinstance(one, dict) and isinstance(other, dict):
        keys = set(one) ^ set(other)
        found = [f"{place}/{key} is only in one" for key in keys]
        return found + [text for key in set(one) & set(other) for text in same(one[key], other[key], f"{place}/{key}")]
    if isinstance(one, list) and isinstance(other, list):
        if len(one) != len(other):
            return [f"{place}: {len(one)} and {len(other)}"]
        return [text for i, (a, b) in enumerate(zip(one, other, strict=True)) for text in same(a, b, f"{place}/{i}")]
    if isinstance(one, float) and isinstance(other, float):
        return [] if math.isclose(one, other, rel_tol=1e-9, abs_tol=1e-7) else [f"{place}: {one} and {other}"]
    return [] if one == other else [f"{place}: {one!r} and {other!r}"]


class Incremental(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        i = self.small.ids
        floor = create("surface", "floor", room=i["room"], name="Floor", role="ground_floor", boundary="ground",
                       area_m2=20, tilt_deg=180, assembly="slab", exposed_perimeter_m=6)  # fmt: skip
        patterns = [{"id": "a", "name": "Day", "steps": [[720, 14], [1440, 18]]}]
        answer = self.commit(
            self.small.project,
            [
                create("schedule", "plan", name="Plan", **weekly(_DAY, [[1440, 0.0]])),
                create("schedule", "attic", name="Attic", kind="temperature", patterns=patterns, base="a"),
                create("schedule", "open", name="Open", kind="on_off", **weekly(_DAY_ON, [[1440, 0.0]])),
                create("schedule", "warm", name="Warm", kind="temperature", base="a",
                       patterns=[{"id": "a", "name": "Day", "steps": [[720, 25], [1440, 27]]}]),
                create("zone", "z", name="Zone"),
                create("shading", "over", name="Overhang", overhang_m=0.5),
                create("assembly", "slab", name="Slab", element="floor", ground_procedure="slab", ground_area_m2=80,
                       ground_perimeter_m=36),
                create("layer", "slab1", assembly="slab", position=0, thickness_m=0.1, material=self.material("Mineral wool")),
                create("use", "shop", name="Shop", people_value=0.2, lights_value=14, people_schedule="plan"),
                create("use_item", "till", use="shop", name="Till", value=200, schedule="plan"),
                floor,
                create("room", "r2", number="2", name="Store", use="shop", floor_area_m2=30, height_m=3.2,
                       air_system=i["system"]),
                create("surface", "s2", room="r2", name="West", role="outer_wall", boundary="outdoors", area_m2=16,
                       azimuth_deg=270),
                create("opening", "o2", surface="s2", name="Shop window", width_m=2.2, height_m=1.6),
                create("surface", "n2", room="r2", name="Attic", role="inner_floor", boundary="scheduled", area_m2=30,
                       tilt_deg=0, temperature_schedule="attic", assembly=i["wall"]),
            ],
        )  # fmt: skip
        self.assertEqual(answer.status_code, 200, answer.content)

    def material(self, name: str) -> str:
        return next(m["id"] for m in self.document(self.small.project)["objects"]["material"] if m["name"] == name)

    def edits(self) -> list[tuple[str, str, dict[str, Any]]]:
        """One edit of every sort: what is edited and the fields, each with a value that differs from the last."""
        i, objects = self.small.ids, self.document(self.small.project)["objects"]
        site, july = objects["site"][0]["id"], next(m["id"] for m in objects["design_month"] if m["month"] == 7)
        n = random.uniform(0.8, 1.2)
        return [
            ("use", "shop", {"lights_value": 14 * n}),
            ("use", "shop", {"people_basis": random.choice(["per_m2", "count"]), "people_value": 3 * n}),
            ("use", "shop", {"cooled": random.random() < 0.7}),
            ("use", i["use"], {"cooling_setpoint_c": 24 * n}),
            ("use", i["use"], {"activity": random.choice([None, "athletics", "light bench work"])}),
            ("use", i["use"], {"infiltration_basis": random.choice(["air_changes", "leakage", "envelope"])}),
            ("use", "shop", {"setpoint_schedule": random.choice([None, "open"]), "heating_away": "setback",
                             "cooling_away": random.choice(["off", "setup"]), "warm_up_h": 2 * n}),
            ("use", "shop", {"heating_setback_c": 15 * n, "sensing": random.choice(["air", "operative"])}),
            ("use", "shop", {"drawn_air": random.choice(["none", "windows", "extract"]), "drawn_air_ach": 5 * n}),
            ("use", "shop", {"humidity_low": 0.3 * n, "humidity_high": random.choice([None, 0.5 * n])}),
            ("use", "shop", {"cooling_programme": random.choice([None, "warm"])}),
            ("schedule", "open", weekly([[480 + round(20 * n), 0.0], [1080, 1.0], [1440, 0.0]], [[1440, 0.0]])),
            ("room", "r2", {"cooling_capacity_w": random.choice([None, 900 * n])}),
            ("room", "r2", {"sensor_room": random.choice([None, i["room"]])}),
            ("room", "r2", {"zone": random.choice([None, "z"]), "heating_margin": random.choice([None, 0.1 * n])}),
            ("zone", "z", {"heating_setpoint_c": random.choice([None, 18 * n]), "sensor_room": random.choice([None, i["room"]])}),
            ("use", "shop", {"heating_radiant_share": 0.4 * n}),
            ("air_system", i["system"], {"cooling_margin": random.choice([None, 0.2 * n])}),
            ("project", self.small.project, {"winter_gains_share": random.choice([0.0, 0.3 * n])}),
            ("use_item", "till", {"value": 200 * n, "vented_share": 0.3 * n}),
            ("schedule", "plan", weekly([[480, 0.0], [1020, min(1.0, 0.7 * n)], [1440, 0.0]], [[1440, 0.0]])),
            ("schedule", "attic", {"patterns": [{"id": "a", "name": "Day", "steps": [[720, 14 * n], [1440, 18]]}]}),
            ("layer", i["layer"], {"thickness_m": 0.1 * n}),
            ("layer", "slab1", {"thickness_m": 0.12 * n}),
            ("material", self.material("Mineral wool"), {"conductivity_w_mk": 0.037 * n}),
            ("assembly", i["wall"], {"solar_absorptance": 0.6 * n, "extra_u_value": 0.02 * n}),
            ("assembly", "slab", {"ground_perimeter_m": 36 * n}),
            ("assembly", "slab", {"ground_procedure": random.choice(["slab", "declared", "basement_floor"]),
                                  "ground_depth_m": 2 * n}),
            ("glazing", i["glass"], {"g_value": 0.5 * n}),
            ("glazing", i["glass"], {"blind": random.choice(["none", "inside", "outside"])}),
            ("opening", "o2", {"shading": random.choice([None, "over"])}),
            ("shading", "over", {"overhang_m": 0.5 * n}),
            ("surface", "s2", {"azimuth_deg": 200 * n}),
            ("surface", "s2", {"boundary": random.choice(["outdoors", "adiabatic"])}),
            ("room", i["room"], {"floor_area_m2": 20 * n}),
            ("room", "r2", {"lights_w_m2": random.choice([None, 9 * n])}),
            ("room", "r2", {"air_system": random.choice([None, i["system"]])}),
            ("room", "r2", {"offset_m3_s": 0.002 * n}),
            ("project", self.small.project, {"infiltration_ach": 0.4 * n, "height_m": 3 * n}),
            ("use", i["use"], {"infiltration_ach": random.choice([None, 0.3 * n])}),
            ("kit", self.small.kit, {"window": random.choice([None, i["glass"]])}),
            ("site", site, {"winter_dry_bulb_c": -10 * n, "ground_temperature_c": 12 * n}),
            ("site", site, {"skyline": random.choice([[], [{"from_deg": 90, "to_deg": 300, "height_m": 15 * n, "distance_m": 20}]])}),
            ("site", site, {"saving_from": random.choice([None, "03-28"]), "saving_to": "10-31"}),
            ("design_month", july, {"dry_bulb_c": 32 * n}),
            ("project", self.small.project, {"cooling_margin": random.random() / 4, "ventilation": random.choice(["sum", "62.1 full", "62.1 simplified"])}),
            ("project", self.small.project, {"holidays": random.choice([[], [{"date": "07-21"}]])}),
            ("air_system", i["system"], {"supply_c": 14 * n}),
        ]  # fmt: skip

    def answers(self) -> dict[str, Any]:
        found = self.get(f"/projects/{self.small.project}/results").json()["changed"]
        for room in found["room"]:
            for month in (1, 7, 8):
                day = self.get(f"/projects/{self.small.project}/day", kind="room", subject=room, month=month).json()
                found["room"][room][f"day {month}"] = day["parts"] | {"latent": day["latent_w"]}
        return found

    def test_any_edits_in_any_order(self) -> None:
        for seed in range(6):
            random.seed(seed)
            for turn in range(22):
                kind, identity, fields = random.choice(self.edits())
                answer = self.set(self.small.project, kind, identity, **fields)
                self.assertIn(answer.status_code, (200, 422), answer.content)
                if turn % 3 == 0:
                    self.get(f"/projects/{self.small.project}/results")
                if turn % 7 == 6 and random.random() < 0.5:
                    version = self.document(self.small.project)["version"]
                    self.post(f"/projects/{self.small.project}/undo?base_version={version}")
            kept = self.answers()
            service.forget_all()
            document.forget_all()
            fresh = self.answers()
            self.assertEqual(same(kept, fresh)[:5], [], f"seed {seed}")

    def test_every_edit_on_its_own_and_undone(self) -> None:
        random.seed(1)
        before = self.answers()
        for number in range(len(self.edits())):
            kind, identity, fields = self.edits()[number]
            answer = self.set(self.small.project, kind, identity, **fields)
            if answer.status_code == 422:
                continue
            version = answer.json()["version"]
            kept = self.answers()
            service.forget_all()
            self.assertEqual(same(kept, self.answers())[:5], [], f"{kind} {fields}")
            if answer.json()["objects"]["changed"]:
                self.post(f"/projects/{self.small.project}/undo?base_version={version}")
            self.assertEqual(same(before, self.answers())[:5], [], f"undone {kind} {fields}")
