"""Circuits that another circuit feeds: flows and temperatures by heat balances of the joints, duties and courses that add up."""

import unittest
from dataclasses import replace
from math import exp

import numpy as np

from core.tests.rooms import CLIMATE, DAY
from core.tests.test_air_system import building
from core.tests.test_year import always, swinging
from pendrum_core.checks.results import result_snags
from pendrum_core.model.building import Building
from pendrum_core.model.plant import PlantUnit
from pendrum_core.model.systems import DIRECT, EXCHANGER, MIXED, REFRIGERANT, Circuit, Section
from pendrum_core.model.year import YearCourse, YearGain, YearRoom
from pendrum_core.results.kit import kit_list
from pendrum_core.run import calculate
from pendrum_core.water.feeds import fed_first, feed_of, mixed_return_c, return_to_source_c
from pendrum_core.water.properties import density_kg_m3, specific_heat_j_kgk
from pendrum_core.working.explain import explain
from pendrum_core.year.energy import building_year
from pendrum_core.year.sky import YearSky

BOILER = PlantUnit("b", "Boiler", "boiler", None, 1.0, 1.04, 0.97, 1.08, 0.98)


def circuit(flow_c: float, return_c: float, **more: object) -> Circuit:
    return Circuit(
        **{"id": "x", "name": "X", "kind": "heating", "sections": (), "flow_c": flow_c, "return_c": return_c, **more}
    )  # type: ignore[arg-type]


def plant_of(connection: str = MIXED, piped: bool = True, **source: object) -> Building:
    """The heating circuit of three rooms and a coil at 45/35 °C, fed by boilers at 70 °C."""
    base = building()
    chilled, heating = base.circuits
    fed = replace(heating, flow_c=45.0, return_c=35.0, source="p", connection=connection, approach_k=5.0)
    pipe = (Section("pm", "To the rooms", None, 6.0, 4.0, end="h"),) if piped else ()
    boilers = circuit(70.0, 50.0, id="p", name="Boilers", sections=pipe, units=(BOILER,), **source)
    return replace(base, circuits=(boilers, chilled, fed))


class Joints(unittest.TestCase):
    def test_mixing_closes_in_heat_and_mass(self) -> None:
        source, own = circuit(70.0, 50.0, id="s"), circuit(45.0, 35.0, source="s", connection=MIXED)
        feed = feed_of(own, source, 20e3)
        self.assertAlmostEqual(feed.share, 10.0 / 35.0)
        self.assertAlmostEqual(feed.share * 70.0 + (1.0 - feed.share) * 35.0, 45.0)
        mean = (70.0 + 35.0) / 2.0
        by_hand = 20e3 / (density_kg_m3(mean) * specific_heat_j_kgk(mean) * 35.0)
        self.assertAlmostEqual(feed.source_flow_m3_s, by_hand)
        # In mass, with one specific heat, the source brings that share of the flow.
        ratio = feed.source_flow_m3_s * density_kg_m3(mean) / (feed.own_flow_m3_s * density_kg_m3(40.0))
        self.assertAlmostEqual(ratio, feed.share, delta=0.002)

    def test_an_exchanger_by_effectiveness(self) -> None:
        """UA by the logarithmic mean, held against effectiveness and transfer units of counterflow."""
        source, own = circuit(70.0, 50.0, id="s"), circuit(60.0, 45.0, source="s", connection=EXCHANGER, approach_k=5.0)
        feed = feed_of(own, source, 100e3)
        self.assertAlmostEqual(feed.return_c, 50.0)
        hot, cold = 100e3 / (70.0 - 50.0), 100e3 / (60.0 - 45.0)
        least, ratio = min(hot, cold), min(hot, cold) / max(hot, cold)
        units = feed.ua_w_k / least
        gone = exp(-units * (1.0 - ratio))
        effectiveness = (1.0 - gone) / (1.0 - ratio * gone)
        self.assertAlmostEqual(effectiveness * least * (70.0 - 45.0), 100e3, delta=1.0)

    def test_equal_differences_have_a_mean(self) -> None:
        source, own = circuit(70.0, 50.0, id="s"), circuit(65.0, 45.0, source="s", connection=EXCHANGER, approach_k=5.0)
        self.assertAlmostEqual(feed_of(own, source, 50e3).mean_k, 5.0)

    def test_chilled_circuits_the_other_way_round(self) -> None:
        source = circuit(6.0, 12.0, id="s", kind="chilled")
        own = circuit(14.0, 18.0, kind="chilled", source="s", connection=EXCHANGER, approach_k=2.0)
        feed = feed_of(own, source, 30e3)
        self.assertAlmostEqual(feed.return_c, 16.0)
        mixed = feed_of(replace(own, connection=MIXED), source, 30e3)
        self.assertAlmostEqual(mixed.share * 6.0 + (1.0 - mixed.share) * 18.0, 14.0)

    def test_what_cannot_be_is_refused_by_name(self) -> None:
        source = circuit(55.0, 45.0, id="s", name="Boilers")
        for more, words in (
            ({"flow_c": 60.0}, "55 °C of Boilers"),
            ({"flow_c": 53.0, "connection": EXCHANGER, "approach_k": 4.0}, "4 K or more below"),
            ({"flow_c": 50.0, "connection": DIRECT}, "fed directly"),
            ({"kind": "chilled", "flow_c": 6.0, "return_c": 12.0}, "for chilled"),
            ({"medium": REFRIGERANT}, "carry water"),
            ({"connection": "tied"}, "'tied'"),
            ({"flow_c": 51.5, "return_c": 51.0, "connection": EXCHANGER, "approach_k": 4.0}, "4 K or more"),
        ):
            with self.subTest(words), self.assertRaisesRegex(ValueError, words):
                return_to_source_c(circuit(**{"flow_c": 45.0, "return_c": 35.0, "source": "s", **more}), source)  # type: ignore[arg-type]

    def test_returns_mix_by_their_flows(self) -> None:
        """10 kW back at 30 °C and 10 kW back at 50 °C of 70 °C water: 0.25 and 0.5 kW/K, together 70 − 20/0.75 °C."""
        found = mixed_return_c(circuit(70.0, 50.0), [(10e3, 30.0), (10e3, 50.0)])
        self.assertAlmostEqual(found, 70.0 - 20e3 / 750.0)
        self.assertAlmostEqual(mixed_return_c(circuit(70.0, 50.0), []), 50.0)

    def test_fed_ones_stand_first_and_circles_aside(self) -> None:
        one, two, three = (circuit(50.0, 40.0, id=i, source=s) for i, s in (("1", "2"), ("2", None), ("3", "1")))
        ordered, circle = fed_first([one, two, three])
        self.assertEqual([c.id for c in ordered], ["3", "1", "2"])
        self.assertEqual(circle, [])
        _, circle = fed_first([replace(two, source="1"), one])
        self.assertEqual({c.id for c in circle}, {"1", "2"})


class OfABuilding(unittest.TestCase):
    def test_the_boilers_carry_what_the_fed_circuit_asks(self) -> None:
        for connection in (MIXED, EXCHANGER):
            results = calculate(plant_of(connection))
            self.assertEqual(results.failures, ())
            self.assertNotIn("h", results.plants)
            own = calculate(replace(b := plant_of(connection), circuits=(
                b.circuits[1], replace(b.circuits[2], source=None, units=(BOILER,)),
            )))  # fmt: skip
            np.testing.assert_allclose(results.plants["p"].course.winter_w, own.plants["h"].course.winter_w, rtol=1e-12)
            np.testing.assert_allclose(results.plants["p"].course.summer_w, own.plants["h"].course.summer_w, rtol=1e-12)

    def test_pipes_and_pump_of_the_source_carry_its_flow(self) -> None:
        results = calculate(plant_of(MIXED))
        feed, source = results.feeds["h"], results.circuits["p"]
        self.assertAlmostEqual(source.sections["pm"].flow_m3_s, feed.source_flow_m3_s)
        self.assertAlmostEqual(source.pump.flow_m3_s, feed.source_flow_m3_s)
        self.assertAlmostEqual(results.plants["p"].difference_k, 35.0)
        self.assertLess(feed.source_flow_m3_s, results.circuits["h"].pump.flow_m3_s)

    def test_losses_count_once_on_each_way(self) -> None:
        plain = calculate(plant_of())
        base = plant_of()
        lossy = calculate(
            replace(
                base,
                circuits=(
                    replace(base.circuits[0], loss_share=0.05),
                    base.circuits[1],
                    replace(base.circuits[2], loss_share=0.1),
                ),
            )
        )
        ratio = lossy.plants["p"].course.peak[0] / plain.plants["p"].course.peak[0]
        self.assertAlmostEqual(ratio, 1.1 * 1.05, places=9)

    def test_a_header_has_no_pipes_of_its_own(self) -> None:
        results = calculate(plant_of(piped=False))
        self.assertEqual(results.failures, ())
        self.assertNotIn("p", results.circuits)
        self.assertGreater(results.plants["p"].design_w, 1000.0)
        self.assertNotIn("fed_without_pipe", {snag.code for snag in result_snags(results, {})})

    def test_what_is_wrong_falls_alone_or_is_a_snag(self) -> None:
        base = plant_of()
        boilers, chilled, fed = base.circuits

        def failing(*circuits: Circuit) -> tuple[set[str], set[str]]:
            results = calculate(replace(base, circuits=(*circuits, chilled)))
            return {f.id for f in results.failures}, {snag.code for snag in result_snags(results, {})}

        self.assertEqual(failing(boilers, replace(fed, flow_c=75.0, return_c=60.0))[0], {"h"})
        self.assertEqual(failing(boilers, replace(fed, units=(BOILER,)))[0], {"h"})
        self.assertEqual(failing(replace(boilers, source="h"), fed)[0], {"p", "h"})
        elsewhere = replace(boilers, sections=(Section("q", "Q", None, 1.0, 0.0, end="c"),))
        self.assertLessEqual({"pipe_to_unfed", "fed_without_pipe"}, failing(elsewhere, fed)[1])
        reset = replace(boilers, flow_rule="outdoors", flow_mild_c=35.0, reset_cold_c=-10.0, reset_mild_c=15.0)
        self.assertIn("source_reset_too_far", failing(reset, fed)[1])
        both = replace(fed, flow_rule="outdoors", flow_mild_c=30.0, reset_cold_c=-10.0, reset_mild_c=15.0)
        self.assertNotIn("source_reset_too_far", failing(reset, both)[1])

    def test_working_and_kit_tell_the_joint(self) -> None:
        for connection, tag in ((MIXED, "Heating MV"), (EXCHANGER, "Heating HX")):
            results = calculate(plant_of(connection))
            tree = explain(results, "circuit_feed", "h")
            self.assertAlmostEqual(tree.value or 0.0, results.feeds["h"].source_flow_m3_s)
            line = {item.tag: item for item in kit_list(results)}[tag]
            self.assertEqual(line.duties[-1].wanted, results.feeds["h"].source_flow_m3_s)
        with self.assertRaises(KeyError):
            explain(calculate(building()), "circuit_feed", "h")

    def test_a_year_of_a_fed_circuit(self) -> None:
        """The boiler gives over the year what one on the circuit itself would; nothing is heat without a plant."""
        day = YearCourse((DAY,), (0,) * 365)
        found = {}
        for name, of in (("fed", plant_of()), ("own", building())):
            if name == "own":
                chilled, heating = of.circuits
                of = replace(of, circuits=(chilled, replace(heating, flow_c=45.0, return_c=35.0, units=(BOILER,))))
            results = calculate(of)
            years = [
                YearRoom(r, (YearGain("lights", 160.0, 0.5, day),), always(20.0), always(24.0), people=day)
                for r in results.building.rooms
            ]
            found[name] = building_year(results, years, YearSky.of(swinging(), CLIMATE), {}, {})
        self.assertNotIn(("heating", "heat without a plant"), found["fed"].energy_w)
        given = [
            float(found[n].output_w[key].sum(dtype=float)) for n, key in (("fed", ("p", "b")), ("own", ("h", "b")))
        ]
        self.assertGreater(given[0], 1e6)
        self.assertAlmostEqual(given[0] / given[1], 1.0, places=6)


if __name__ == "__main__":
    unittest.main()
