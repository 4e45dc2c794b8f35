"""The account of every piece on the kit list: what is asked and when, margins, pins, what is chosen and left over."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.test_air_system import building
from core.tests.test_feeds import BOILER
from pendrum_core.model.catalogue import PUMP, RADIATOR, CatalogueRow
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit import KitItem, kit_list
from pendrum_core.results.kit_item import NONE_COVERS, Duty
from pendrum_core.run import calculate


def items_of(results: BuildingResults) -> dict[str, KitItem]:
    return {item.tag: item for item in kit_list(results)}


def lines_of(item: KitItem) -> list[tuple[str, float]]:
    return [(line.role, line.value) for line in item.account()]


class Account(unittest.TestCase):
    def test_margin_pin_and_what_is_left_stand_on_lines_of_their_own(self) -> None:
        def account(duty: Duty) -> list[tuple[str, float]]:
            return lines_of(KitItem(1, "c", "P", "C P", "Pump", "C", (duty,)))

        self.assertEqual(account(Duty("Head", 30_000.0, "head")), [("asked", 30_000.0)])
        with_margin = Duty("Head", 30_000.0, "head", margin=0.1, chosen=40_000.0)
        expected = [("asked", 30_000.0), ("margin", 3000.0), ("chosen", 40_000.0), ("left over", 7000.0)]
        for (role, value), (told, right) in zip(account(with_margin), expected, strict=True):
            self.assertEqual(role, told)
            self.assertAlmostEqual(value, right)
        # A pin that is too small is short by the difference, whatever it is ordered with.
        short = account(replace(with_margin, pinned=20_000.0, chosen=None))
        self.assertEqual([role for role, _ in short], ["asked", "margin", "pinned", "left over"])
        self.assertAlmostEqual(short[-1][1], -13_000.0)

    def test_no_two_pieces_have_one_key(self) -> None:
        keys = [item.key for item in kit_list(calculate(building()))]
        self.assertEqual(len(keys), len(set(keys)))

    def test_keys_stay_where_names_change(self) -> None:
        base = building()
        renamed = replace(base, circuits=tuple(replace(one, name=f"New {one.name}") for one in base.circuits))
        before, after = (list(kit_list(calculate(one))) for one in (base, renamed))
        self.assertEqual([item.key for item in before], [item.key for item in after])
        self.assertNotEqual([item.tag for item in before], [item.tag for item in after])

    def test_a_pump_keeps_its_key_where_another_one_waits_beside_it(self) -> None:
        base = building()
        chilled, heating = base.circuits
        more = replace(base, circuits=(chilled, replace(heating, pump_standby=1)))
        one, two = (items_of(calculate(of)) for of in (base, more))
        self.assertEqual(one["Heating P"].key, two["Heating P1"].key)
        self.assertNotIn("Heating P", two)

    def test_a_rectangular_and_an_oval_duct_of_one_size_are_two_lines(self) -> None:
        base = building()
        system = base.systems[0]
        pin = {"pinned_width_m": 0.4, "pinned_height_m": 0.2}
        shapes = iter(("rectangular", "flat oval", "rectangular", "rectangular"))
        sections = tuple(replace(section, shape=next(shapes), **pin) for section in system.sections)  # type: ignore[arg-type]
        results = calculate(replace(base, systems=(replace(system, sections=sections),)))
        ducts = [item for item in kit_list(results) if "duct, length and sheet" in item.item]
        self.assertEqual(len({item.key for item in ducts}), len(ducts))
        metres = sum(item.duties[0].value for item in ducts)
        self.assertAlmostEqual(metres, sum(section.length_m for section in sections))
        self.assertEqual(len(ducts), 2)


class Times(unittest.TestCase):
    def test_a_cooling_coil_has_three_largest_at_their_own_times(self) -> None:
        results = calculate(building())
        unit = results.systems["s"]
        total, sensible, condensate = items_of(results)["S CC"].duties
        months = results.building.climate.months
        for duty, course in (
            (total, unit.coil_total_w),
            (sensible, unit.coil_sensible_w),
            (condensate, unit.condensate_kg_s),
        ):
            month, step = np.unravel_index(int(course.argmax()), course.shape)
            self.assertAlmostEqual(duty.value, float(course.max()))
            self.assertEqual(duty.when, f"{MONTHS[months[int(month)].month - 1]} {clock(int(step))}")

    def test_a_boiler_by_the_time_of_the_largest_load_with_its_margin_apart(self) -> None:
        base = building()
        chilled, heating = base.circuits
        margins = replace(base.margins, heating=0.2)
        two = (replace(BOILER, id="b1", share=0.6), replace(BOILER, id="b2", share=0.4, capacity_w=500.0))
        results = calculate(replace(base, margins=margins, circuits=(chilled, replace(heating, units=two))))
        peak_w, month, _ = results.plants["h"].course.peak
        self.assertIsNone(month)
        first, second = (item.duties[0] for item in kit_list(results) if item.owner in ("b1", "b2"))
        self.assertAlmostEqual(first.value, 0.6 * peak_w)
        self.assertAlmostEqual(first.calculated, 0.6 * 1.2 * peak_w)
        self.assertAlmostEqual(first.wanted, results.plants["h"].capacity_w[0])
        self.assertTrue(first.when.startswith("Winter day"))
        # The second is pinned; both values stand there.
        self.assertEqual((second.wanted, second.pinned), (500.0, 500.0))
        self.assertAlmostEqual(second.left or 0.0, 500.0 - 0.4 * 1.2 * peak_w)

    def test_a_radiator_has_its_rooms_margin_apart(self) -> None:
        base = building()
        plain = items_of(calculate(base))["R r1"]
        more = items_of(calculate(replace(base, margins=replace(base.margins, heating=0.15))))["R r1"]
        self.assertAlmostEqual(plain.duties[0].value, more.duties[0].value, delta=0.5)
        self.assertAlmostEqual(more.duties[0].wanted, 1.15 * plain.duties[0].wanted, delta=0.6)
        rating = plain.duties[1]
        assert rating.left is not None and rating.chosen is not None
        self.assertGreaterEqual(rating.left, 0.0)
        self.assertAlmostEqual(rating.left, rating.chosen - rating.value)


class Chosen(unittest.TestCase):
    ROWS = (
        CatalogueRow(PUMP, "Small", flow_m3_s=1e-6, pressure_pa=1e3, weight_kg=3.0),
        CatalogueRow(PUMP, "Large", flow_m3_s=1.0, pressure_pa=1e6, weight_kg=41.0),
        CatalogueRow(RADIATOR, "Only", output_w=10.0),
    )

    def test_the_row_tells_why_what_is_left_and_what_it_weighs(self) -> None:
        items = items_of(calculate(replace(building(), catalogue=self.ROWS)))
        pump = items["Heating P"]
        self.assertEqual((pump.size, pump.weight_kg), ("Large", 41.0))
        self.assertIn("smallest of 2", pump.why)
        flow, head = pump.duties[:2]
        self.assertAlmostEqual(flow.left or 0.0, 1.0 - flow.value)
        self.assertAlmostEqual(head.left or 0.0, 1e6 - head.calculated)
        radiator = items["R r1"]
        self.assertEqual((radiator.size, radiator.weight_kg), (NONE_COVERS, None))

    def test_without_a_catalogue_motors_have_what_is_left(self) -> None:
        items = items_of(calculate(building()))
        for tag in ("S SF", "Heating P"):
            shaft = items[tag].duties[2]
            assert shaft.left is not None and shaft.chosen is not None
            self.assertGreaterEqual(shaft.left, 0.0)
            self.assertAlmostEqual(shaft.left, shaft.chosen - 1.15 * shaft.value)

    def test_ducts_weigh_what_their_sheet_does(self) -> None:
        results = calculate(building())
        ducts = results.systems["s"].ducts
        assert ducts is not None
        weights = [item.weight_kg for item in kit_list(results) if item.item.startswith("Round duct")]
        self.assertAlmostEqual(sum(w or 0.0 for w in weights), sum(s.sheet_kg for s in ducts.sections.values()))
