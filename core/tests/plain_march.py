"""A room marched through time in small steps: finite volumes, backward Euler. Slow, plain, and apart from the core's way.

It takes from the core only boundary data (sun on a plane, sol-air and outdoor temperature, day patterns).
"""

from collections.abc import Callable

import numpy as np

from pendrum_core.model.rooms import Room
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.schedule.pattern import DayPattern, step_averages

CELLS = 12
# Thin cells at the faces of a layer, where changes within minutes take place.
SHARES = np.diff(0.5 - 0.5 * np.cos(np.linspace(0.0, np.pi, CELLS + 1)))


class PlainRoom:
    """Cells of all layers, inner faces, and the air as the last node."""

    def __init__(self, subject: Room, outside: Outdoors, seconds: float = 100.0) -> None:
        self.subject, self.outside, self.dt = subject, outside, seconds
        self.courses: dict[DayPattern, np.ndarray] = {}
        c = outside.climate.coefficients
        nodes: list[tuple[float, float]] = []
        self.starts = []
        for e in subject.elements:
            self.starts.append(len(nodes))
            for layer in e.layers:
                shares = SHARES if layer.capacity_j_m2k > 0 else np.ones(1)
                nodes += [(layer.resistance_m2k_w * share, layer.capacity_j_m2k * share) for share in shares]
        self.nodes, self.size = nodes, len(nodes)
        self.area = area = np.array([e.area_m2 for e in subject.elements])
        self.convection = np.array([e.convection_w_m2k for e in subject.elements])
        count = len(area)
        total = self.size + count + 1
        matrix = np.zeros((total, total))
        self.heat = np.array([capacity for _, capacity in nodes] + [0.0] * count + [subject.capacity_j_k])
        for i, e in enumerate(subject.elements):
            first = self.starts[i]
            last = (self.starts[i + 1] if i + 1 < count else self.size) - 1
            for k in range(first, last):
                g = 1.0 / (nodes[k][0] / 2 + nodes[k + 1][0] / 2)
                matrix[k, k] += g
                matrix[k + 1, k + 1] += g
                matrix[k, k + 1] -= g
                matrix[k + 1, k] -= g
            face = self.size + i
            matrix[face, face] += e.convection_w_m2k + c.radiation_inside
            if e.layers:
                g = 2.0 / nodes[last][0]
                matrix[last, last] += g
                matrix[last, face] -= g
                matrix[face, face] += g
                matrix[face, last] -= g
            matrix[face, self.size : -1] -= c.radiation_inside * area / area.sum()
            matrix[face, -1] -= e.convection_w_m2k
            matrix[-1, -1] += e.area_m2 * e.convection_w_m2k
            matrix[-1, face] -= e.area_m2 * e.convection_w_m2k
            if e.boundary.kind not in ("adiabatic", "room"):
                outer = 1.0 / c.outside if e.boundary.kind == "outdoors" else e.boundary.extra_resistance_m2k_w
                matrix[first, first] += 1.0 / (outer + nodes[first][0] / 2)
        self.leak_w_k = (subject.infiltration_m3_s + subject.direct_outdoor_air_m3_s) * outside.air_heat_j_m3k
        matrix[-1, -1] += self.leak_w_k
        self.matrix = matrix

    def _drive(self, month: int, step: int, winter: bool) -> np.ndarray:
        """What comes from outside and from sources at a step, without plant."""
        subject, outside, c = self.subject, self.outside, self.outside.climate.coefficients
        reference = subject.heating_setpoint_c if winter else subject.cooling_setpoint_c
        out = outside.climate.winter_dry_bulb_c if winter else outside.dry_bulb_c[month, step]
        sun = 0.0
        if not winter:
            for w in subject.windows:
                share = w.area_m2 * (1.0 - w.glazing.frame_share) * w.glazing.g_value
                courses = outside.window_sun(w)
                sun += share * (courses.radiant_w_m2 + courses.convective_w_m2)[month, step]
        running = [(g, 0.0 if winter else step_averages(g.pattern)[step]) for g in subject.gains]
        radiant = 0.9 * sun + sum(g.sensible_w * g.radiant_share * f for g, f in running)
        air = 0.1 * sun + sum(g.sensible_w * (1 - g.radiant_share) * f for g, f in running)
        drive = np.zeros(len(self.heat))
        drive[self.size : -1] += radiant / self.area.sum()
        drive[-1] = air + self.leak_w_k * out
        for i, e in enumerate(subject.elements):
            b = e.boundary
            if b.kind in ("adiabatic", "room"):
                continue
            difference = -b.heating_difference_k if winter else b.cooling_difference_k
            te = {"temperature": b.temperature_c, "difference": reference + difference}.get(b.kind)
            if b.kind == "pattern":
                te = float(self._course(b.winter_pattern if winter else b.patterns[0])[step])
            outer = 1.0 / c.outside if te is None else b.extra_resistance_m2k_w
            if te is None and winter:
                te = out - 0.5 * (1 + np.cos(np.radians(b.tilt_deg))) * c.radiation_outside * 11.0 / c.outside
            elif te is None:
                te = outside.sol_air_c(b.tilt_deg, b.azimuth_deg, b.solar_absorptance)[month, step]
            drive[self.starts[i]] += te / (outer + self.nodes[self.starts[i]][0] / 2)
        return drive

    def _course(self, pattern: DayPattern) -> np.ndarray:
        if pattern not in self.courses:
            self.courses[pattern] = step_averages(pattern)
        return self.courses[pattern]

    def held(self, month: int, days: int = 40) -> np.ndarray:
        """Load at held air, as step averages of the last day [W]."""
        held = self.subject.cooling_setpoint_c
        plant, _, _ = self.run(month, lambda _, sensed, answer: (held - sensed) / answer, days)
        return -plant

    def run(
        self,
        month: int,
        plant: Callable[[int, float, float], float],
        days: int = 40,
        winter: bool = False,
        radiant_weight: float = 0.0,
        drawn: Callable[[int, float], float] = lambda _, air_c: 0.0,
        radiant_plant: float = 0.0,
    ) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """The last of some days: plant power, mean and last air temperature of every step, (144,) each.

        `plant(step, sensed, answer)` is told the sensed temperature without plant and what one watt adds to it;
        `drawn(step, air_c)` gives the heat of drawn-in air at the air temperature before; `radiant_plant` is the share
        of the plant's heat that falls onto the faces.
        """
        inverse = np.linalg.inv(self.matrix + np.diag(self.heat / self.dt))
        weights = np.zeros(len(self.heat))
        weights[-1] = 1.0 - radiant_weight
        weights[self.size : -1] = radiant_weight * self.area / self.area.sum()
        watt = np.zeros(len(self.heat))
        watt[-1] = 1.0 - radiant_plant
        watt[self.size : -1] = radiant_plant / self.area.sum()
        to_plant = inverse @ watt
        answer = float(weights @ to_plant)
        start = self.subject.heating_setpoint_c if winter else self.subject.cooling_setpoint_c
        temperature = np.full(len(self.heat), start)
        powers, means, ends = np.zeros(144), np.zeros(144), np.zeros(144)
        per_step = round(600.0 / self.dt)
        for _ in range(days):
            for step in range(144):
                drive = self._drive(month, step, winter)
                power, mean = 0.0, 0.0
                for _ in range(per_step):
                    now = drive.copy()
                    now[-1] += drawn(step, temperature[-1])
                    free = inverse @ (now + self.heat / self.dt * temperature)
                    given = plant(step, float(weights @ free), answer)
                    temperature = free + to_plant * given
                    power += given / per_step
                    mean += temperature[-1] / per_step
                powers[step], means[step], ends[step] = power, mean, temperature[-1]
        return powers, means, ends
