"""Rules of the definition side, each against a table, a worked case or a hand calculation."""

import unittest
from math import cos, pi, radians, tan

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from core.tests.rooms import WALL
from pendrum_core.air.infiltration import leakage_flow_m3_s, local_wind_m_s
from pendrum_core.air.outdoor_air import system_outdoor_air
from pendrum_core.climate.ground import ground_temperature_c
from pendrum_core.fabric.bridged import Bridged, bridged_resistance, equivalent_layers, with_allowance
from pendrum_core.fabric.condensation import dew_point_of_pressure_c, section_line
from pendrum_core.fabric.declared import MASS_CLASSES, MASS_PLACES, declared_layers
from pendrum_core.fabric.ground import (
    SOILS,
    GroundContact,
    edge_psi_w_mk,
    ground_u_value,
    periodic_conductance_w_k,
    virtual_temperatures_c,
)
from pendrum_core.fabric.layers import Layer, total_capacity_j_m2k, total_resistance
from pendrum_core.fabric.panes import Gap, centre_u_value, window_u_value
from pendrum_core.people.activity import person_heat
from pendrum_core.sun.shading import Shading, diffuse_shares, in_plane, shadow_corners, sunlit_share
from pendrum_core.sun.skyline import Obstruction, horizon_deg, sky_share
from pendrum_core.water.hot_water import daily_heat_j


class BridgedLayers(unittest.TestCase):
    """A timber frame wall: 140 mm of wool between studs over 15 %, boards on both sides."""

    BOARD = Layer("board", 0.0125, 0.25, 900, 1000)
    WOOL, STUD = Layer("wool", 0.14, 0.035, 30, 1030), Layer("stud", 0.14, 0.13, 500, 1600)
    WALL = (Bridged(BOARD), Bridged(WOOL, STUD, 0.15), Bridged(BOARD))

    def test_limits_by_hand(self) -> None:
        found = bridged_resistance(self.WALL, 0.17)
        boards = 0.17 + 2 * 0.05
        upper = 1 / (0.85 / (boards + 4.0) + 0.15 / (boards + 0.14 / 0.13))
        lower = boards + 1 / (0.85 / 4.0 + 0.15 / (0.14 / 0.13))
        self.assertAlmostEqual(found.upper, upper, places=12)
        self.assertAlmostEqual(found.lower, lower, places=12)
        self.assertAlmostEqual(found.total, (upper + lower) / 2, places=12)

    def test_equivalent_layers_keep_resistance_and_capacity(self) -> None:
        layers = equivalent_layers(self.WALL, 0.17)
        self.assertAlmostEqual(total_resistance(layers) + 0.17, bridged_resistance(self.WALL, 0.17).total, places=12)
        mixed = 2 * self.BOARD.capacity_j_m2k + 0.85 * self.WOOL.capacity_j_m2k + 0.15 * self.STUD.capacity_j_m2k
        self.assertAlmostEqual(total_capacity_j_m2k(layers), mixed, places=6)

    @given(share=st.floats(0.01, 0.9), inner=st.floats(0.02, 3.0), bridge=st.floats(0.02, 3.0))
    def test_upper_limit_is_never_below_the_lower(self, share: float, inner: float, bridge: float) -> None:
        layer, other = Layer("a", 0.1, inner, 100, 1000), Layer("b", 0.1, bridge, 100, 1000)
        found = bridged_resistance((Bridged(self.BOARD), Bridged(layer, other, share)), 0.17)
        self.assertGreaterEqual(found.upper, found.lower - 1e-12)

    def test_allowance_for_thermal_bridges_adds_to_u(self) -> None:
        plain = 1 / (total_resistance(WALL) + 0.17)
        raised = with_allowance(WALL, 0.17, 0.05)
        self.assertAlmostEqual(1 / (total_resistance(raised) + 0.17), plain + 0.05, places=12)
        with self.assertRaisesRegex(ValueError, "more than wool can give"):
            with_allowance(WALL, 0.17, 5.0)


class DeclaredElements(unittest.TestCase):
    def test_every_class_and_place_keeps_u_and_mass(self) -> None:
        for mass, capacity in MASS_CLASSES.items():
            for place in MASS_PLACES:
                layers = declared_layers(0.4, 0.17, mass, place)
                self.assertAlmostEqual(1 / (total_resistance(layers) + 0.17), 0.4, places=12)
                self.assertAlmostEqual(total_capacity_j_m2k(layers), capacity, places=6)

    def test_an_impossible_u_value_is_refused_with_the_largest(self) -> None:
        with self.assertRaisesRegex(ValueError, r"above the 4\.29"):
            declared_layers(4.9, 0.17, "heavy", "inside")


class Ground(unittest.TestCase):
    def contact(self, **changes: float | str | bool) -> GroundContact:
        values = {"part": "slab", "area_m2": 100.0, "perimeter_m": 40.0, "wall_thickness_m": 0.3,
                  "floor_resistance_m2k_w": 2.5, "soil": SOILS["sand"]} | changes  # fmt: skip
        return GroundContact(**values)  # type: ignore[arg-type]

    def test_slab_by_hand(self) -> None:
        """B' = 5 m, d = 0.3 + 2 (0.17 + R + 0.04); both branches of the formula."""
        uninsulated = self.contact(floor_resistance_m2k_w=0.0)
        d = 0.3 + 2 * 0.21
        self.assertAlmostEqual(ground_u_value(uninsulated), 4 / (5 * pi + d) * np.log(5 * pi / d + 1), places=12)
        thick = self.contact()
        self.assertAlmostEqual(ground_u_value(thick), 2 / (0.457 * 5 + 0.3 + 2 * 2.71), places=12)

    def test_edge_insulation_by_hand(self) -> None:
        with_edge = self.contact(floor_resistance_m2k_w=0.0, edge_resistance_m2k_w=1.5, edge_width_m=0.6)
        d, extra = 0.3 + 2 * 0.21, 1.5 * 2.0
        psi = -2 / pi * (np.log(0.6 / d + 1) - np.log(0.6 / (d + extra) + 1))
        self.assertAlmostEqual(edge_psi_w_mk(with_edge), psi, places=12)
        plain = ground_u_value(self.contact(floor_resistance_m2k_w=0.0))
        self.assertAlmostEqual(ground_u_value(with_edge), plain + 2 * psi / 5, places=12)
        deep = self.contact(floor_resistance_m2k_w=0.0, edge_resistance_m2k_w=1.5, edge_width_m=0.6, edge_vertical=True)
        self.assertLess(ground_u_value(deep), ground_u_value(with_edge))

    def test_basement_by_hand(self) -> None:
        wall = self.contact(part="basement_wall", depth_m=2.4, wall_resistance_m2k_w=1.0, floor_resistance_m2k_w=1.0)
        dw, d = 2 * (0.13 + 1.0 + 0.04), 0.3 + 2 * (0.17 + 1.0 + 0.04)
        floor = min(d, dw)
        want = 4 / (pi * 2.4) * (1 + 0.5 * floor / (floor + 2.4)) * np.log(2.4 / dw + 1)
        self.assertAlmostEqual(ground_u_value(wall), want, places=12)
        deep = self.contact(part="basement_floor", depth_m=2.4, floor_resistance_m2k_w=0.0)
        thick = 0.3 + 2 * 0.21 + 1.2
        self.assertAlmostEqual(ground_u_value(deep), 4 / (5 * pi + thick) * np.log(5 * pi / thick + 1), places=12)

    def test_penetration_depths_of_the_standard(self) -> None:
        """Annex C tabulates 2.2, 3.2 and 4.2 m."""
        for soil, depth in (("clay", 2.2), ("sand", 3.2), ("rock", 4.2)):
            self.assertAlmostEqual(SOILS[soil].periodic_depth_m, depth, delta=0.06)

    def test_virtual_temperatures_give_back_the_month_s_heat_flow(self) -> None:
        contact = self.contact()
        months = virtual_temperatures_c(contact, 10.0, 9.0, 1)
        steady = 100.0 * ground_u_value(contact)
        for month in (1, 2, 6, 10):
            flow = steady * (20.0 - 10.0) + periodic_conductance_w_k(contact) * 9.0 * cos(2 * pi * (month - 2) / 12)
            self.assertAlmostEqual(steady * (20.0 - months[month - 1]), flow, places=9)
        self.assertEqual(int(np.argmin(months)) + 1, 2)  # a month after the coldest
        self.assertAlmostEqual(float(np.mean(months)), 10.0, places=9)

    def test_what_is_missing_is_refused(self) -> None:
        with self.assertRaisesRegex(ValueError, "area and an exposed perimeter"):
            self.contact(perimeter_m=0.0)
        with self.assertRaisesRegex(ValueError, "depth"):
            self.contact(part="basement_wall")

    def test_undisturbed_ground(self) -> None:
        """Kusuda: the surface follows the air; deep down the mean stays; in between the swing fades by exp(-z k)."""
        alpha = 1e-6
        surface = ground_temperature_c(10.0, 8.0, 1, 0.0, alpha)
        self.assertAlmostEqual(surface[0], 2.0, places=6)
        self.assertAlmostEqual(max(surface), 18.0, delta=0.05)
        deep = ground_temperature_c(10.0, 8.0, 1, 20.0, alpha)
        self.assertLess(max(abs(t - 10.0) for t in deep), 0.02)
        k = np.sqrt(pi / (365 * 86_400 * alpha))
        year = np.array(ground_temperature_c(10.0, 8.0, 1, 2.0, alpha))
        # The monthly values sample a sinusoid of that amplitude.
        self.assertLessEqual(np.abs(year - 10.0).max(), 8.0 * np.exp(-2.0 * k) + 1e-9)
        self.assertGreater(np.abs(year - 10.0).max(), 0.96 * 8.0 * np.exp(-2.0 * k))
        # A quarter of a turn deep, winter arrives a quarter of a year late: coldest in April, warmest in October.
        quarter = np.array(ground_temperature_c(10.0, 8.0, 1, float(pi / 2 / k), alpha))
        self.assertEqual((int(np.argmin(quarter)) + 1, int(np.argmax(quarter)) + 1), (4, 10))


class Condensation(unittest.TestCase):
    def test_lines_by_hand(self) -> None:
        """Two layers: 100 mm brick (mu 16) outside, 100 mm wool (mu 1) inside."""
        layers = (Layer("brick", 0.1, 0.8, 1700, 900), Layer("wool", 0.1, 0.04, 30, 1000))
        line = section_line(layers, (16.0, 1.0), (0.13, 0.04), (-5.0, 0.8), (20.0, 0.5))
        total = 0.04 + 0.125 + 2.5 + 0.13
        at_middle = -5.0 + 25.0 * (0.04 + 0.125) / total
        self.assertAlmostEqual(line.temperature_c[1], at_middle, places=9)
        low, high = line.vapour_pa[0], line.vapour_pa[2]
        self.assertAlmostEqual(line.vapour_pa[1], low + (high - low) * 1.6 / 1.7, places=6)
        self.assertEqual(line.wet, (1,))  # vapour meets the cold brick
        # Saturation at 20 °C is 2339 Pa (steam tables).
        self.assertAlmostEqual(high, 0.5 * 2339.0, delta=2.0)

    def test_tight_layer_inside_keeps_it_dry(self) -> None:
        layers = (Layer("brick", 0.1, 0.8), Layer("wool", 0.1, 0.04), Layer("sheet", 0.0002, 0.33))
        open_wall = section_line(layers[:2], (16.0, 1.0), (0.13, 0.04), (-5.0, 0.8), (20.0, 0.5))
        tight = section_line(layers, (16.0, 1.0, 100_000.0), (0.13, 0.04), (-5.0, 0.8), (20.0, 0.5))
        self.assertTrue(open_wall.wet)
        self.assertFalse(tight.wet)

    @given(st.floats(-20.0, 35.0))
    def test_dew_point_of_saturated_air_is_its_temperature(self, temperature: float) -> None:
        b, c = (17.269, 237.3) if temperature >= 0 else (21.875, 265.5)
        self.assertAlmostEqual(
            dew_point_of_pressure_c(610.5 * np.exp(b * temperature / (c + temperature))), temperature
        )

    def test_dry_air_has_a_finite_dew_point_below_all_others(self) -> None:
        found = [dew_point_of_pressure_c(pressure) for pressure in (0.0, 1e-300, 1e-9, 1.0, 610.5)]
        self.assertTrue(np.isfinite(found).all())
        self.assertEqual(found, sorted(found))


class Windows(unittest.TestCase):
    def test_published_centre_values(self) -> None:
        """Glass makers' EN 673 figures: single 5.8, clear air double 2.9, coated argon double 1.1, triple 0.7 or less."""
        self.assertAlmostEqual(centre_u_value([0.004], []), 5.8, delta=0.05)
        clear = [Gap(0.012, "air", 0.837, 0.837)]
        self.assertAlmostEqual(centre_u_value([0.004, 0.004], clear), 2.85, delta=0.06)
        coated = [Gap(0.016, "argon", 0.837, 0.03)]
        self.assertAlmostEqual(centre_u_value([0.004, 0.004], coated), 1.1, delta=0.05)
        triple = [Gap(0.012, "argon", 0.03, 0.837), Gap(0.012, "argon", 0.837, 0.03)]
        self.assertAlmostEqual(centre_u_value([0.004] * 3, triple), 0.72, delta=0.05)
        with self.assertRaisesRegex(ValueError, "2 panes have 1 gaps"):
            centre_u_value([0.004, 0.004], [])

    def test_window_from_its_parts_by_hand(self) -> None:
        """ISO 10077-1: 1.23 by 1.48 m, 30 % frame."""
        edge = 2 * (1.23 + 1.48) * 0.7**0.5
        want = 0.7 * 1.1 + 0.3 * 1.4 + edge * 0.06 / (1.23 * 1.48)
        self.assertAlmostEqual(window_u_value(1.1, 1.4, 0.06, 0.3, 1.23, 1.48), want, places=12)


def toward(elevation: float, off: float) -> np.ndarray:
    """Direction to the sun before a wall: elevation, and azimuth off its normal to the right."""
    return in_plane(np.array([elevation]), np.array([180.0 - off]), 90.0, 180.0)


class ShadingOfOpenings(unittest.TestCase):
    def test_long_overhang_by_the_profile_angle(self) -> None:
        shading = Shading(overhang_m=0.8, overhang_gap_m=0.2, overhang_beyond_m=20.0)
        for elevation, off in ((30.0, 0.0), (50.0, 25.0), (60.0, -40.0), (20.0, 60.0)):
            profile = tan(radians(elevation)) / cos(radians(off))
            dark = min(1.5, max(0.0, 0.8 * profile - 0.2))
            found = sunlit_share(shading, 2.0, 1.5, toward(elevation, off))[0]
            self.assertAlmostEqual(found, 1.0 - dark / 1.5, places=9)

    def test_tall_fin_by_the_wall_azimuth(self) -> None:
        shading = Shading(right_fin_m=0.5, fin_beyond_m=20.0)
        for off in (10.0, 45.0, 70.0):
            dark = min(2.0, 0.5 * tan(radians(off)))
            found = sunlit_share(shading, 2.0, 1.5, toward(30.0, off))[0]
            self.assertAlmostEqual(found, 1.0 - dark / 2.0, places=9)
            # The fin at the right does nothing while the sun stands at the left.
            self.assertAlmostEqual(sunlit_share(shading, 2.0, 1.5, toward(30.0, -off))[0], 1.0, places=9)

    def test_reveal_by_hand(self) -> None:
        found = sunlit_share(Shading(reveal_m=0.2), 1.0, 1.2, toward(40.0, 30.0))[0]
        side, head = 0.2 * tan(radians(30.0)), 0.2 * tan(radians(40.0)) / cos(radians(30.0))
        self.assertAlmostEqual(found, (1.0 - side) * (1.2 - head) / 1.2, places=9)

    @settings(max_examples=40, deadline=None)
    @given(
        over=st.floats(0, 2), gap=st.floats(0, 0.5), beyond=st.floats(0, 1), left=st.floats(0, 1), right=st.floats(0, 1),
        reveal=st.floats(0, 0.4), elevation=st.floats(2, 85), off=st.floats(-85, 85),
    )  # fmt: skip
    def test_any_shading_against_rays(
        self,
        over: float,
        gap: float,
        beyond: float,
        left: float,
        right: float,
        reveal: float,
        elevation: float,
        off: float,
    ) -> None:
        """Rays from a grid of points of the opening towards the sun, tried against every plate."""
        shading = Shading(over, gap, beyond, left, right, 0.1, 0.3, reveal)
        sun = toward(elevation, off)
        found = sunlit_share(shading, 1.6, 1.3, sun)[0]
        x, y = np.meshgrid((np.arange(160) + 0.5) / 100, (np.arange(130) + 0.5) / 100)
        sx, sy, sz = sun[0]
        dark = np.zeros_like(x, dtype=bool)
        for level, at, start, end, depth in (
            (True, 1.3 + gap, -beyond, 1.6 + beyond, over), (False, -0.1, -0.3, 1.6, left), (False, 1.7, -0.3, 1.6, right),
            (True, 1.3, 0, 1.6, reveal), (False, 0.0, 0, 1.3, reveal), (False, 1.6, 0, 1.3, reveal),
        ):  # fmt: skip
            along, across, s_along, s_across = (y, x, sy, sx) if level else (x, y, sx, sy)
            if abs(s_along) < 1e-12 or depth <= 0:
                continue
            t = (at - along) / s_along
            place = across + t * s_across
            dark |= (t >= 0) & (t * sz <= depth) & (place >= start) & (place <= end)
        self.assertAlmostEqual(found, 1.0 - dark.mean(), delta=0.02)

    def test_no_shading_and_sun_behind(self) -> None:
        self.assertEqual(sunlit_share(Shading(), 1.0, 1.0, toward(30.0, 0.0))[0], 1.0)
        behind = in_plane(np.array([30.0]), np.array([0.0]), 90.0, 180.0)
        self.assertEqual(sunlit_share(Shading(overhang_m=1.0), 1.0, 1.0, behind)[0], 0.0)
        self.assertEqual(shadow_corners(Shading(overhang_m=1.0), 1.0, 1.0, behind[0]), [])

    def test_diffuse_of_a_long_overhang_by_its_view_factor(self) -> None:
        """A very long overhang over a narrow opening is a case of two dimensions."""
        sky, ground = diffuse_shares(
            Shading(overhang_m=1.0, overhang_gap_m=0.0, overhang_beyond_m=200.0), 0.02, 1.0, 90.0
        )
        below = (np.arange(4000) + 0.5) / 4000
        self.assertAlmostEqual(sky, _strip(below), delta=0.02)
        self.assertAlmostEqual(ground, 1.0, places=6)

    def test_drawn_corners_are_the_shadow_s(self) -> None:
        corners = shadow_corners(Shading(overhang_m=1.0), 2.0, 1.5, toward(45.0, 0.0)[0])[0]
        self.assertEqual(corners[:2], [(0.0, 1.5), (2.0, 1.5)])
        self.assertAlmostEqual(corners[2][1], 0.5, places=9)


def _strip(below: np.ndarray) -> float:
    """Share of the sky's light on a wall that passes a long plate one metre deep, `below` under it.

    In two dimensions the sky from the horizon up to an angle e gives sin e of the whole quarter; the plate's edge is
    seen at tan e = below/1.
    """
    return float(np.mean(np.sin(np.arctan(below))))


class SkylineOfTheSite(unittest.TestCase):
    SKYLINE = (Obstruction(135.0, 225.0, 21.5, 20.0), Obstruction(350.0, 10.0, 11.5, 10.0))

    def test_elevation_by_direction(self) -> None:
        seen = horizon_deg(self.SKYLINE, np.array([90.0, 135.0, 180.0, 226.0, 355.0, 5.0, 11.0]), 1.5)
        self.assertEqual([round(float(v), 6) for v in seen], [0.0, 45.0, 45.0, 0.0, 45.0, 45.0, 0.0])

    def test_higher_up_it_sinks(self) -> None:
        self.assertEqual(float(horizon_deg(self.SKYLINE, np.array([180.0]), 21.5)[0]), 0.0)

    def test_an_even_wall_all_round_leaves_cos_squared_to_a_roof(self) -> None:
        """Sky above elevation e gives cos² e of an even sky's light on a level plane."""
        ring = (Obstruction(0.0, 359.999, 1.5 + 10.0 * tan(radians(30.0)), 10.0),)
        self.assertAlmostEqual(sky_share(ring, 0.0, 0.0, 1.5), cos(radians(30.0)) ** 2, delta=0.01)
        self.assertEqual(sky_share((), 90.0, 180.0, 0.0), 1.0)


class Air(unittest.TestCase):
    def test_leakage_area_by_hand(self) -> None:
        """77 in² behind heavy shelter, two storeys: Q = A/1000 (Cs dT + Cw U²)^0.5."""
        found = leakage_flow_m3_s(500.0, 30.0, 6.7, 4, 2)
        self.assertAlmostEqual(found, 0.5 * (0.000290 * 30.0 + 0.000137 * 6.7**2) ** 0.5, places=12)
        self.assertAlmostEqual(leakage_flow_m3_s(500.0, -30.0, 6.7, 4, 2), found, places=12)
        self.assertEqual(leakage_flow_m3_s(500.0, 10.0, 2.0, 3, 9), leakage_flow_m3_s(500.0, 10.0, 2.0, 3, 3))

    def test_wind_over_the_station_s_own_terrain_is_its_own(self) -> None:
        self.assertAlmostEqual(local_wind_m_s(5.0, "open country"), 5.0, places=12)
        self.assertLess(local_wind_m_s(5.0, "city"), local_wind_m_s(5.0, "suburb"))
        # ASHRAE Fundamentals 2017, ch. 24, table 1 and eq. 4, written out.
        for terrain, exponent, layer in (("city", 0.33, 460), ("suburb", 0.22, 370), ("open country", 0.14, 270), ("open water", 0.10, 210)):  # fmt: skip
            by_hand = 5.0 * (270 / 10) ** 0.14 * (12.0 / layer) ** exponent
            self.assertAlmostEqual(local_wind_m_s(5.0, terrain, 12.0), by_hand, places=9)

    def test_procedures_of_outdoor_air(self) -> None:
        breathing, zone, supply = {"a": 0.05, "b": 0.03}, {"a": 0.05, "b": 0.0375}, {"a": 0.2, "b": 0.3}
        full = system_outdoor_air(breathing, zone, supply)
        self.assertAlmostEqual(full.intake_m3_s, 0.08 / (1 + 0.08 / 0.5 - 0.05 / 0.2), places=12)
        self.assertAlmostEqual(system_outdoor_air(breathing, zone, supply, "62.1 simplified").intake_m3_s, 0.08 / 0.75)
        self.assertAlmostEqual(system_outdoor_air(breathing, zone, supply, "sum").intake_m3_s, 0.0875)


class People(unittest.TestCase):
    def test_table_and_warmer_rooms(self) -> None:
        cool, warm = (
            person_heat("moderately active office work", 24.0),
            person_heat("moderately active office work", 26.7),
        )
        self.assertEqual((cool.sensible_w, cool.latent_w), (75.0, 55.0))
        self.assertAlmostEqual(warm.sensible_w, 60.0)
        self.assertAlmostEqual(warm.sensible_w + warm.latent_w, 130.0)

    @given(st.floats(10, 40))
    def test_the_total_never_changes(self, room_c: float) -> None:
        found = person_heat("athletics", room_c)
        self.assertAlmostEqual(found.sensible_w + found.latent_w, 525.0)

    def test_hot_water_by_hand(self) -> None:
        """100 L from 10 to 55 °C: about 988 kg/m3 mean density near 33 °C 994.7, cp 4.180 kJ/kgK."""
        self.assertAlmostEqual(daily_heat_j(100.0, 55.0, 10.0), 99.48 * 4180.0 * 45.0, delta=5e4)
        self.assertEqual(daily_heat_j(100.0, 30.0, 30.0), 0.0)
