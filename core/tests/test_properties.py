"""Properties of coils, moist air, trees, sizes, walls and the sun, for any input."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from core.tests.rooms import CLIMATE, WALL, room
from pendrum_core import moist_air as psy
from pendrum_core.air.coil import coil_to_temperature, mix
from pendrum_core.duct.network import air
from pendrum_core.duct.shapes import ROUND_SIZES_M
from pendrum_core.fabric.layers import Layer, total_resistance, transfer_matrix
from pendrum_core.network.friction import friction, round_area_m2, smallest_size
from pendrum_core.network.tree import build_tree, path_losses, sum_upwards
from pendrum_core.room.balance.harmonics import OMEGA_RAD_S, spread, step_response, to_harmonics, to_steps
from pendrum_core.room.balance.outdoors import outdoors, sky_view
from pendrum_core.room.outcome.chunk import calculate_chunk
from pendrum_core.room.outcome.detail import room_detail
from pendrum_core.sun.irradiance import on_plane

PRESSURE = 98_500.0
temperature = st.floats(-15.0, 45.0)
relative = st.floats(0.05, 0.99)


class MoistAir(unittest.TestCase):
    @given(temperature, relative)
    def test_round_trips(self, t: float, rh: float) -> None:
        w = float(psy.humidity_ratio_from_relative(t, rh, PRESSURE))
        self.assertAlmostEqual(float(psy.relative_humidity(t, w, PRESSURE)), rh, places=9)
        self.assertAlmostEqual(float(psy.dry_bulb_from_enthalpy_c(psy.enthalpy_j_kg(t, w), w)), t, places=8)
        dew = float(psy.dew_point_c(w, PRESSURE))
        self.assertAlmostEqual(float(psy.saturation_humidity_ratio(dew, PRESSURE)), w, delta=1e-8)
        wet = float(psy.wet_bulb_c(t, w, PRESSURE))
        self.assertLessEqual(dew - 1e-3, wet + 0.4 * (wet < 0))  # over ice the two scales part a little
        self.assertLessEqual(wet, t + 1e-6)

    @given(st.floats(0, 1), temperature, relative, temperature, relative)
    def test_mixing_keeps_enthalpy_and_water(self, x: float, t1: float, r1: float, t2: float, r2: float) -> None:
        w1, w2 = (float(psy.humidity_ratio_from_relative(t, r, PRESSURE)) for t, r in ((t1, r1), (t2, r2)))
        t, w = mix(x, t1, w1, t2, w2)
        h = x * psy.enthalpy_j_kg(t1, w1) + (1 - x) * psy.enthalpy_j_kg(t2, w2)
        self.assertAlmostEqual(float(psy.enthalpy_j_kg(t, w)), float(h), delta=1e-6 * (1 + abs(float(h))))
        self.assertAlmostEqual(float(w), x * w1 + (1 - x) * w2, places=12)


class Coils(unittest.TestCase):
    @given(st.floats(18, 38), st.floats(0.2, 0.95), st.floats(9, 17), st.floats(0.02, 0.3))
    def test_any_coil(self, t: float, rh: float, target: float, bypass: float) -> None:
        w = float(psy.humidity_ratio_from_relative(t, rh, PRESSURE))
        coil = coil_to_temperature(t, w, target, bypass, PRESSURE)
        assume(np.isnan(coil.apparatus_dew_point_c) or coil.apparatus_dew_point_c > -5)
        self.assertAlmostEqual(float(coil.leaving_c), target, places=9)
        self.assertLessEqual(float(coil.leaving_w), w + 1e-12)
        self.assertGreaterEqual(float(coil.total_j_kg), float(coil.sensible_j_kg) - 1e-6)
        self.assertAlmostEqual(float(coil.condensate_kg_kg), w - float(coil.leaving_w), places=12)
        adp = float(coil.apparatus_dew_point_c)
        if not np.isnan(adp):
            # Leaving, saturated and entering states lie on one line, in h and in w, split by the bypass factor.
            w_adp = float(psy.saturation_humidity_ratio(adp, PRESSURE))
            self.assertAlmostEqual((float(coil.leaving_w) - w_adp) / (w - w_adp), bypass, places=6)
            h, h_adp = float(psy.enthalpy_j_kg(t, w)), float(psy.enthalpy_j_kg(adp, w_adp))
            h_out = float(psy.enthalpy_j_kg(coil.leaving_c, coil.leaving_w))
            self.assertAlmostEqual((h_out - h_adp) / (h - h_adp), bypass, places=4)

    @given(st.floats(22, 35), st.floats(0.3, 0.8), st.floats(10, 15))
    def test_colder_leaving_air_costs_more(self, t: float, rh: float, target: float) -> None:
        w = float(psy.humidity_ratio_from_relative(t, rh, PRESSURE))
        warm = coil_to_temperature(t, w, target, 0.1, PRESSURE)
        cold = coil_to_temperature(t, w, target - 1.0, 0.1, PRESSURE)
        self.assertGreater(float(cold.total_j_kg), float(warm.total_j_kg))


@st.composite
def trees(draw: st.DrawFn) -> dict[str, str | None]:
    """Any tree of up to 25 sections."""
    count = draw(st.integers(1, 25))
    return {f"s{i}": None if i == 0 else f"s{draw(st.integers(0, i - 1))}" for i in range(count)}


class Trees(unittest.TestCase):
    @given(trees(), st.randoms())
    def test_flow_is_what_ends_take_and_paths_balance(self, parents: dict[str, str | None], random: object) -> None:
        shuffled = list(parents.items())
        random.shuffle(shuffled)
        tree = build_tree(dict(shuffled))
        taken = {end: 0.01 * (1 + i) for i, end in enumerate(tree.ends)}
        flows = sum_upwards(tree, taken)
        self.assertAlmostEqual(flows["s0"], sum(taken.values()), places=12)
        for section in tree.order:
            below = sum(flows[child] for child in tree.children[section])
            self.assertAlmostEqual(flows[section], below + taken.get(section, 0.0), places=12)
        losses = {section: 3.0 + int(section[1:]) % 7 for section in tree.order}
        paths = path_losses(tree, losses, tree.ends)
        for end in tree.ends:
            along = sum(losses[section] for section in tree.path(end))
            self.assertAlmostEqual(paths.loss_pa[end], along)
            self.assertAlmostEqual(along + paths.balancing_pa[end], paths.index_loss_pa)
        self.assertEqual(paths.balancing_pa[paths.index], 0.0)

    @given(st.floats(0.005, 8.0), st.floats(0.2, 3.0), st.floats(2.0, 12.0))
    def test_smallest_size_is_the_smallest(self, flow: float, rate: float, speed: float) -> None:
        fluid = air(15.0, PRESSURE)
        index = smallest_size(flow, ROUND_SIZES_M, 9e-5, fluid, rate, speed)

        def fits(d: float) -> bool:
            f = friction(flow, round_area_m2(d), d, 9e-5, fluid)
            return f.rate_pa_m <= rate and f.velocity_m_s <= speed

        plain = next((i for i, d in enumerate(ROUND_SIZES_M) if fits(d)), None)
        self.assertEqual(index, plain)


class Walls(unittest.TestCase):
    @given(
        st.lists(st.tuples(st.floats(0.005, 0.3), st.floats(0.03, 2.5), st.floats(20, 2500)), min_size=1, max_size=5)
    )
    def test_transfer_matrix_has_determinant_one_and_the_steady_resistance(
        self, rows: list[tuple[float, float, float]]
    ) -> None:
        layers = tuple(Layer(f"l{i}", d, k, rho, 1000.0) for i, (d, k, rho) in enumerate(rows))
        m = transfer_matrix(layers, np.array([0.0, 2 * np.pi / 86_400]))
        scale = np.exp(2 * m.log_scale)
        determinant = (m.a * m.d - m.b * m.c) * scale
        assume(np.abs(m.a[1] * m.d[1]) * scale[1] < 1e10)
        self.assertLess(np.abs(determinant - 1).max(), 1e-4)
        self.assertAlmostEqual(m.b[0].real / total_resistance(layers), 1.0, places=9)

    def test_order_of_layers_matters_to_the_swing_not_to_the_mean(self) -> None:
        found = [
            calculate_chunk([replace_walls(room(), layers)], outdoors(CLIMATE))[0] for layers in (WALL, WALL[::-1])
        ]
        self.assertAlmostEqual(found[0].heating.load_w / found[1].heating.load_w, 1.0, places=9)
        self.assertGreater(abs(found[0].total.max() - found[1].total.max()), 1.0)


def replace_walls(subject, layers):
    elements = tuple(replace(e, layers=layers) if e.category == "walls" else e for e in subject.elements)
    return replace(subject, elements=elements)


class Harmonics(unittest.TestCase):
    def test_a_system_without_memory_passes_any_signal(self) -> None:
        signal = np.random.default_rng(3).normal(size=144)
        same = to_steps(to_harmonics(signal) * step_response(np.ones(len(OMEGA_RAD_S), dtype=complex)))
        self.assertLess(np.abs(same - signal).max(), 1e-12)

    def test_a_first_order_lag_against_its_closed_form(self) -> None:
        """1/(1 + j omega tau), driven by one step a day: the average over each step, summed over all days before."""
        tau, signal = 5400.0, np.zeros(144)
        signal[40] = 1.0
        found = to_steps(to_harmonics(signal) * step_response(1.0 / (1.0 + 1j * OMEGA_RAD_S * tau)))
        a = np.exp(-600.0 / tau)
        after = (1 - a) * (1 - a) * tau / 600.0 * a ** np.arange(144) / (1 - a**144)
        want = np.zeros(144)
        for k in range(144):
            want[(41 + k) % 144] += after[k]
        want[40] += 1.0 - tau / 600.0 * (1 - a)
        self.assertLess(np.abs(found - want).max(), 2e-3)

    def test_folding_and_spreading_belong_together(self) -> None:
        signal = to_harmonics(np.random.default_rng(5).normal(size=144))
        response = 1.0 / (1.0 + 1j * OMEGA_RAD_S * 900.0)
        self.assertLess(np.abs(step_response(response * spread(signal)) - step_response(response) * signal).max(), 1e-9)


class Sun(unittest.TestCase):
    def test_a_horizontal_plane_receives_the_horizontal_sky(self) -> None:
        out = outdoors(CLIMATE)
        flat = on_plane(out.sun, out.sky, 0.0, 123.0, 0.2)
        self.assertLess(np.abs(flat.sky_diffuse - out.sky.diffuse_horizontal).max(), 1e-9)
        self.assertEqual(flat.ground_reflected.max(), 0.0)

    @settings(deadline=None)
    @given(st.floats(0, 180), st.floats(0, 359))
    def test_no_plane_gets_more_beam_than_facing_the_sun(self, tilt: float, azimuth: float) -> None:
        out = outdoors(CLIMATE)
        plane = on_plane(out.sun, out.sky, tilt, azimuth, 0.2)
        self.assertLessEqual((plane.beam - out.sky.beam_normal).max(), 1e-9)
        self.assertGreaterEqual(plane.total.min(), 0.0)
        self.assertEqual(plane.total[out.sun.elevation_deg <= 0].max(), 0.0)

    def test_view_of_the_sky(self) -> None:
        self.assertEqual([round(sky_view(t), 12) for t in (0.0, 90.0, 180.0)], [1.0, 0.5, 0.0])


class Details(unittest.TestCase):
    def test_elements_and_windows_add_up_to_the_categories(self) -> None:
        subject = room()
        loads = calculate_chunk([subject], outdoors(CLIMATE))[0]
        detail = room_detail(subject, outdoors(CLIMATE))
        for name in ("walls", "floors", "windows", "neighbours"):
            rows = [i for i, e in enumerate(subject.elements) if e.category == name]
            from pendrum_core.model.rooms import CATEGORIES

            off = detail.conduction_w[rows].sum(axis=0) - loads.parts[CATEGORIES.index(name)]
            self.assertLess(np.abs(off).max(), 1e-6, name)
        self.assertLess(np.abs(detail.sun_w.sum(axis=0) - loads.parts[0]).max(), 1e-6)

    def test_sun_arrives_whole_over_a_day_in_a_closed_room(self) -> None:
        """Delayed, not lost: with every face but the glass adiabatic only the glass gives some of it back."""
        subject = room()
        closed = replace(
            subject,
            elements=tuple(
                e
                if e.category == "windows"
                else replace(e, boundary=replace(e.boundary, kind="adiabatic"), category="neighbours")
                for e in subject.elements
            ),
        )
        detail = room_detail(closed, outdoors(CLIMATE))
        arrived, entered = detail.sun_w.sum(), detail.sun_entering_w.sum()
        self.assertLess(arrived, entered)
        self.assertGreater(arrived, 0.9 * entered)
