"""What the definition side brings into the room balance: blinds, shading, skyline, months, ground, procedures."""

import unittest
from dataclasses import replace

import numpy as np

from core.tests.rooms import CLIMATE, DAY, MONTHS, SLAB, WALL, room
from pendrum_core.fabric.glazing import angular_curve
from pendrum_core.fabric.layers import total_resistance
from pendrum_core.model.climate import SummerMonth, day_number
from pendrum_core.model.rooms import CATEGORIES, Blind, Boundary, Element, SunWindow
from pendrum_core.moist_air import humidity_ratio_from_relative
from pendrum_core.results.envelope import Envelopes
from pendrum_core.room.balance.outdoors import outdoors
from pendrum_core.room.outcome.chunk import calculate_chunk
from pendrum_core.schedule.pattern import DayPattern, constant
from pendrum_core.sun.shading import Shading, diffuse_shares
from pendrum_core.sun.skyline import Obstruction

OUTSIDE = outdoors(CLIMATE)
SUN = CATEGORIES.index("sun")


def sun_sum(subject, outside=OUTSIDE, month: int = 6) -> float:
    return float(calculate_chunk([subject], outside)[0].parts[SUN, month].sum())


def through(window: SunWindow) -> np.ndarray:
    """All the sun through a window [W/m2]."""
    sun = OUTSIDE.window_sun(window)
    return sun.radiant_w_m2 + sun.convective_w_m2


class Sun(unittest.TestCase):
    def test_a_blind_always_drawn_scales_the_sun(self) -> None:
        plain = room()
        blind = Blind(0.4, 0.1, "always")
        shaded = replace(plain, windows=(replace(plain.windows[0], blind=blind),))
        self.assertAlmostEqual(sun_sum(shaded) / sun_sum(plain), 0.4, places=9)

    def test_what_goes_straight_to_the_air_arrives_at_once(self) -> None:
        plain = room()
        window = replace(plain.windows[0], blind=Blind(1.0, 1.0, "always"))
        found = calculate_chunk([replace(plain, windows=(window,))], OUTSIDE)[0]
        sun = OUTSIDE.window_sun(window)
        self.assertEqual(float(np.abs(sun.radiant_w_m2).max()), 0.0)
        np.testing.assert_allclose(found.parts[SUN], sun.convective_w_m2 * 4.0 * 0.8 * 0.5, atol=1e-9)

    def test_rules_of_drawing(self) -> None:
        window = room().windows[0]
        falls = OUTSIDE.plane(window.tilt_deg, window.azimuth_deg).total
        bare = through(window)
        ruled = through(replace(window, blind=Blind(0.5, 0.1, "irradiance", 300.0)))
        np.testing.assert_allclose(ruled, np.where(falls > 300.0, 0.5, 1.0) * bare)
        noon = DayPattern(((720, 0.0), (1440, 1.0)))
        by_time = through(replace(window, blind=Blind(0.5, 0.1, "schedule", patterns=(noon,) * 12)))
        np.testing.assert_allclose(by_time[:, :72], bare[:, :72])
        np.testing.assert_allclose(by_time[:, 72:], 0.5 * bare[:, 72:])

    def test_shading_takes_beam_by_the_profile_angle(self) -> None:
        shading = Shading(overhang_m=0.6, overhang_beyond_m=9000.0)
        window = replace(room(azimuth=180.0).windows[0], azimuth_deg=180.0, width_m=2.0, height_m=1.5, shading=shading)
        plane, curve = OUTSIDE.plane(90.0, 180.0), angular_curve(2)
        off = np.radians(OUTSIDE.sun.azimuth_deg - 180.0)
        profile = np.tan(np.radians(OUTSIDE.sun.elevation_deg)) / np.cos(off)
        lit = 1.0 - np.clip(0.6 * profile, 0.0, 1.5) / 1.5
        sky, ground = diffuse_shares(shading, 2.0, 1.5, 90.0)
        wanted = curve.at(plane.incidence_cosine) * plane.beam * lit
        wanted += curve.hemispherical * (plane.sky_diffuse * sky + plane.ground_reflected * ground)
        np.testing.assert_allclose(through(window), wanted, atol=1e-6)

    def test_a_block_in_the_south_leaves_the_north_alone(self) -> None:
        block = (Obstruction(100.0, 260.0, 200.0, 20.0),)
        hidden = outdoors(replace(CLIMATE, site=replace(CLIMATE.site, skyline=block)))
        self.assertEqual(float(hidden.plane(90.0, 180.0).beam[0].max()), 0.0)
        np.testing.assert_allclose(hidden.plane(90.0, 0.0).beam, OUTSIDE.plane(90.0, 0.0).beam)
        self.assertLess(sun_sum(room(azimuth=180.0), hidden, 0), 0.5 * sun_sum(room(azimuth=180.0), OUTSIDE, 0))
        # Above the block nothing is hidden.
        np.testing.assert_allclose(hidden.plane(90.0, 180.0, 200.0).beam, OUTSIDE.plane(90.0, 180.0).beam)

    def test_reflectance_of_a_month(self) -> None:
        snow = tuple(replace(m, ground_reflectance=0.7) if m.month == 1 else m for m in MONTHS)
        bright = outdoors(replace(CLIMATE, months=snow))
        ratio = bright.plane(90.0, 180.0).ground_reflected / np.maximum(
            OUTSIDE.plane(90.0, 180.0).ground_reflected, 1e-9
        )
        self.assertAlmostEqual(float(ratio[0, 72]), 3.5, places=9)
        self.assertAlmostEqual(float(ratio[1, 72]), 1.0, places=9)


class Months(unittest.TestCase):
    def test_patterns_by_month(self) -> None:
        empty = DayPattern(((1440, 0.0),))
        subject = room()
        people = replace(subject.gains[0], by_month=tuple(DAY if m != 8 else empty for m in range(1, 13)))
        found = calculate_chunk([replace(subject, gains=(people, *subject.gains[1:]))], OUTSIDE)[0]
        plain = calculate_chunk([subject], OUTSIDE)[0]
        row = CATEGORIES.index("people")
        np.testing.assert_allclose(found.parts[row, 6], plain.parts[row, 6])
        self.assertLess(float(np.abs(found.parts[row, 7]).max()), 1e-9)
        self.assertEqual(float(found.latent_w[7].max()), 30.0 * max(v for _, v in DAY.steps))
        self.assertLess(found.split_error, 1e-6)

    def test_the_dehumidification_day_is_a_thirteenth(self) -> None:
        extra = SummerMonth(8, 27.0, 24.0, 9.0, 0.4, 2.1, dew_point_c=23.0)
        outside = outdoors(replace(CLIMATE, months=(*MONTHS, extra)))
        self.assertEqual([day_number(m) for m in outside.climate.months], [*range(1, 13), 13])
        # Dew point 23 °C at 99.5 kPa: partial pressure 2810.5 Pa (steam tables), w = 0.622 p/(P - p).
        pressure = outside.pressure_pa
        self.assertAlmostEqual(
            float(outside.humidity_ratio[12].max()), 0.62198 * 2810.5 / (pressure - 2810.5), delta=2e-5
        )
        self.assertLessEqual(
            float(outside.humidity_ratio[12].max()), float(humidity_ratio_from_relative(27.0, 1.0, pressure))
        )
        found = calculate_chunk([room()], outside)[0]
        self.assertEqual(found.total.shape, (13, 144))
        np.testing.assert_allclose(found.total[:12], calculate_chunk([room()], OUTSIDE)[0].total, atol=1e-9)


def with_floor(boundary: Boundary):
    plain = room()
    return replace(
        plain, elements=tuple(replace(e, boundary=boundary) if e.id == "floor" else e for e in plain.elements)
    )


class Beyond(unittest.TestCase):
    def test_gains_count_in_winter_by_their_share(self) -> None:
        """Gains that go straight to the air: at rest the heating falls by exactly their share."""
        gains = tuple(replace(gain, radiant_share=0.0, winter=constant(0.5)) for gain in room().gains)
        plain = replace(room(), gains=gains)
        half = 0.5 * sum(gain.sensible_w for gain in gains)
        none = calculate_chunk([plain], OUTSIDE)[0].heating.load_w
        for share in (0.25, 0.6):
            counted = outdoors(replace(CLIMATE, winter_gains_share=share))
            some = calculate_chunk([plain], counted)[0].heating.load_w
            self.assertAlmostEqual(none - some, share * half, delta=1e-6 * none)

    def test_ground_by_month_is_the_fixed_one_of_that_month(self) -> None:
        by_month = tuple(10.0 + m for m in range(12))
        monthly = with_floor(
            Boundary("temperature", 180.0, extra_resistance_m2k_w=2.0, by_month_c=by_month, winter_c=5.0)
        )
        found = calculate_chunk([monthly], OUTSIDE)[0]
        for month in (0, 6, 11):
            fixed = with_floor(
                Boundary("temperature", 180.0, extra_resistance_m2k_w=2.0, temperature_c=by_month[month])
            )
            np.testing.assert_allclose(found.total[month], calculate_chunk([fixed], OUTSIDE)[0].total[month], atol=1e-6)
        cold = with_floor(Boundary("temperature", 180.0, extra_resistance_m2k_w=2.0, temperature_c=5.0))
        self.assertAlmostEqual(found.heating.load_w, calculate_chunk([cold], OUTSIDE)[0].heating.load_w, places=9)

    def test_a_constant_pattern_is_a_fixed_temperature(self) -> None:
        steady = DayPattern(((1440, 16.0),))
        scheduled = with_floor(
            Boundary("pattern", 180.0, extra_resistance_m2k_w=0.13, patterns=(steady,) * 12, winter_pattern=steady)
        )
        fixed = with_floor(Boundary("temperature", 180.0, extra_resistance_m2k_w=0.13, temperature_c=16.0))
        one, two = calculate_chunk([scheduled], OUTSIDE)[0], calculate_chunk([fixed], OUTSIDE)[0]
        np.testing.assert_allclose(one.total, two.total, atol=1e-6)
        self.assertAlmostEqual(one.heating.load_w, two.heating.load_w, places=9)
        warm = DayPattern(((720, 12.0), (1440, 20.0)))
        swinging = with_floor(
            Boundary("pattern", 180.0, extra_resistance_m2k_w=0.13, patterns=(warm,) * 12, winter_pattern=warm)
        )
        mean = calculate_chunk([swinging], OUTSIDE)[0].total.mean(axis=1)
        np.testing.assert_allclose(mean, two.total.mean(axis=1), atol=1e-6)


class Heating(unittest.TestCase):
    def test_simplified_procedure_by_hand(self) -> None:
        """EN 12831-1 with ISO 6946 films: sum of U A dT and the leak."""
        outside = outdoors(replace(CLIMATE, heating_procedure="u_values"))
        subject = replace(room(), winter_infiltration_m3_s=0.01)
        wanted = 0.0
        for element in subject.elements:
            b = element.boundary
            film = {5.0: 0.10, 0.7: 0.17}.get(element.convection_w_m2k, 0.13)
            beyond = 0.04 if b.kind == "outdoors" else b.extra_resistance_m2k_w
            kelvin = {"outdoors": 29.0, "temperature": 8.0, "difference": 8.0}.get(b.kind, 0.0)
            if kelvin:
                wanted += element.area_m2 * kelvin / (film + total_resistance(element.layers) + beyond)
        wanted += 0.01 * outside.air_heat_j_m3k * 29.0
        self.assertAlmostEqual(calculate_chunk([subject], outside)[0].heating.load_w, wanted, places=6)


class Envelope(unittest.TestCase):
    def test_sums_by_hand(self) -> None:
        subject = room()
        found = Envelopes().of([subject, room("b", scale=2.0)], 1200.0)
        u_wall = 1 / (0.13 + total_resistance(WALL) + 0.04)
        walls = next(line for line in found.lines if line.category == "walls")
        self.assertAlmostEqual(walls.area_m2, 66.0)
        self.assertAlmostEqual(walls.u_value, u_wall, places=12)
        u_window, u_floor = 1.4, 1 / (0.17 + total_resistance(SLAB) + 2.0)
        total = 3 * (22.0 * u_wall + 4.0 * u_window + 20.0 * u_floor)
        self.assertAlmostEqual(found.transmission_w_k, total, places=9)
        self.assertAlmostEqual(found.air_w_k, 3 * 0.006 * 1200.0)
        self.assertAlmostEqual(found.time_constant_h, found.capacity_j_k / (total + found.air_w_k) / 3600.0)

    def test_untreated_outdoor_air_is_lost_heat_like_a_leak(self) -> None:
        aired = replace(room(), direct_outdoor_air_m3_s=0.05)
        self.assertAlmostEqual(Envelopes().of([aired], 1200.0).air_w_k, (0.006 + 0.05) * 1200.0)

    def test_a_plain_slab_s_capacity(self) -> None:
        """A thick bare slab stores what ISO 13786 says for a half-infinite body: sqrt(lambda rho c T/(2 pi))."""
        thick = Element(
            "s", "slab", "neighbours", 1.0, (replace(SLAB[0], thickness_m=1.5),), 0.7, Boundary("adiabatic")
        )
        found = Envelopes().of([replace(room(), elements=(thick,), capacity_j_k=0.0)], 1200.0)
        want = np.sqrt(2.1 * 2400.0 * 1000.0 * 86_400.0 / (2 * np.pi))
        self.assertAlmostEqual(found.capacity_j_k / want, 1.0, delta=0.01)
