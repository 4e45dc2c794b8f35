"""What thermostats sense and whom they tell, over the year: against steady networks solved here, and by definition."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE, room
from core.tests.test_thermostat import thermostat
from core.tests.test_year import HOURS, always, bare, swinging, weather
from pendrum_core.model.building import Building
from pendrum_core.model.rooms import Room
from pendrum_core.model.year import YearRoom
from pendrum_core.run import calculate
from pendrum_core.year.energy import building_year
from pendrum_core.year.sky import YearSky
from pendrum_core.year.together import rooms_year


def felt(of: Room, outdoor_c: float, kept_c: float, weight: float, radiant: float) -> tuple[float, float]:
    """Heat of a plant that keeps (1 − w) air + w faces, a share of it radiant, and the air then: faces, their mean, air and heat [W, °C]."""
    c, faces = CLIMATE.coefficients, of.elements
    pull = 0.5 * c.radiation_outside * c.sky_depression_k / c.outside
    area, n = sum(e.area_m2 for e in faces), len(faces)
    left, right = np.zeros((n + 3, n + 3)), np.zeros(n + 3)
    for row, e in enumerate(faces):
        u, there = 0.0, 0.0
        if e.boundary.kind == "outdoors":
            u, there = 1.0 / (sum(layer.resistance_m2k_w for layer in e.layers) + 1.0 / c.outside), outdoor_c - pull
        elif e.boundary.kind != "adiabatic":
            u = 1.0 / (sum(layer.resistance_m2k_w for layer in e.layers) + e.boundary.extra_resistance_m2k_w)
            there = (
                e.boundary.temperature_c
                if e.boundary.kind == "temperature"
                else of.heating_setpoint_c - e.boundary.heating_difference_k
            )
        hc = e.convection_w_m2k
        left[row, row] = hc + c.radiation_inside + u
        left[row, n : n + 3] = -c.radiation_inside, -hc, -radiant / area
        right[row] = u * there
        left[n, row] = -e.area_m2 / area
        left[n + 1, row], left[n + 1, n + 1] = -e.area_m2 * hc, left[n + 1, n + 1] + e.area_m2 * hc
    leak = of.infiltration_m3_s * YearSky.of(weather(np.zeros(24)), CLIMATE).air_heat_j_m3k
    left[n, n] = 1.0
    left[n + 1, n + 1] += leak
    left[n + 1, n + 2] = -(1.0 - radiant)
    right[n + 1] = leak * outdoor_c
    left[n + 2, n : n + 2] = weight, 1.0 - weight
    right[n + 2] = kept_c
    found = np.linalg.solve(left, right)
    return float(found[n + 2]), float(found[n + 1])


class Sensed(unittest.TestCase):
    def test_steady_weather_gives_the_networks_heat(self) -> None:
        sky = YearSky.of(weather(np.full(HOURS, -9.0)), CLIMATE)
        for weight, radiant in ((0.0, 0.0), (0.5, 0.0), (0.0, 0.4), (0.5, 0.4)):
            with self.subTest(weight=weight, radiant=radiant):
                subject = replace(room(), thermostat=thermostat(radiant_weight=weight), heating_radiant_share=radiant)
                found = rooms_year([bare(room=subject)], sky)["r"]
                heat, air = felt(subject, -9.0, 20.0, weight, radiant)
                self.assertAlmostEqual(float(found.heating_w[5000]), heat, delta=1e-3 * heat)
                self.assertAlmostEqual(float(found.air_c[5000]), air, delta=0.01)
                self.assertEqual(found.unmet_heating_h, 0)
                through = sum(abs(value) for value in found.balance_kwh.values())
                self.assertLess(abs(found.open_kwh), 1e-3 * through)

    def test_what_is_sensed_stays_between_the_set_points(self) -> None:
        sky = YearSky.of(swinging(), CLIMATE)
        subject = replace(room(), thermostat=thermostat(radiant_weight=0.5), heating_radiant_share=0.3)
        found = rooms_year([bare(room=subject, cooling=always(25.0))], sky)["r"]
        sensed = 0.5 * (found.air_c.astype(float) + found.surface_c)
        self.assertGreater(float(sensed.min()), 20.0 - 0.05)
        self.assertLess(float(sensed.max()), 25.0 + 0.05)
        # An hour's mean is off it where heating begins or ends within the hour.
        off = np.abs(sensed[found.heating_w > 100.0] - 20.0)
        self.assertLess(float(np.median(off)), 1e-3)
        self.assertLess(float(off.max()), 0.15)


class Led(unittest.TestCase):
    def year(self, outdoor: YearSky, follower: Room) -> tuple[dict[str, tuple[float, float]], dict[str, object]]:
        leader = replace(room("north", 0.0), thermostat=thermostat())
        results = calculate(Building(CLIMATE, (leader, follower)))
        years = [YearRoom(r, (), always(20.0), always(25.0)) for r in results.building.rooms]
        found = building_year(results, years, outdoor, {}, {})
        cold = results.rooms["north"].cooling
        assert cold is not None
        return {"north": (results.rooms["north"].heating.load_w, cold.sensible_w)}, dict(found.asked)

    def test_a_follower_gives_the_leaders_share_of_its_own_plant(self) -> None:
        limits = {"heating_capacity_w": 700.0, "cooling_capacity_w": 300.0}
        follower = replace(room("west", 260.0), thermostat=thermostat(leader="north", **limits))
        capacity, found = self.year(YearSky.of(swinging(), CLIMATE), follower)
        north, west = found["north"], found["west"]
        heating, cooling = capacity["north"]
        np.testing.assert_allclose(west.heating_w, north.heating_w / heating * 700.0, rtol=1e-4, atol=0.05)
        np.testing.assert_allclose(west.cooling_w, north.cooling_w / cooling * 300.0, rtol=1e-4, atol=0.05)
        self.assertGreater(float(north.heating_w.sum()), 1e5)
        # It is another room: what is right for the leader is not right for it.
        self.assertGreater(west.unmet_heating_h + west.unmet_cooling_h, 100)
        self.assertEqual(north.unmet_heating_h, 0)

    def test_one_of_no_leader_keeps_its_own_sensor(self) -> None:
        alone = replace(room("west", 260.0), thermostat=thermostat(leader="nowhere"))
        _, found = self.year(YearSky.of(swinging(), CLIMATE), alone)
        self.assertEqual((found["west"].unmet_heating_h, found["west"].unmet_cooling_h), (0, 0))


if __name__ == "__main__":
    unittest.main()
