"""Fan power and temperature rise."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.plant.motors import next_motor_w

Array = NDArray[np.float64]
PART_LOADS = (0.25, 0.5, 0.75, 1.0)


@dataclass(frozen=True)
class FanResult:
    """A fan with motor and drive in the air stream.

    Attributes:
        flow_m3_s: at the fan inlet.
        total_pa, static_pa: pressures.
        shaft_w, electrical_w: powers; shaft = V p_total / efficiency.
        motor_w: next standard motor; None above the series.
        rise_k: temperature rise of the air, all electrical power heats it.
        specific_fan_power_w_m3_s: electrical power per flow.
    """

    flow_m3_s: float
    total_pa: float
    static_pa: float
    shaft_w: float
    electrical_w: float
    motor_w: float | None
    rise_k: float
    specific_fan_power_w_m3_s: float


def size_fan(
    flow_m3_s: float,
    heat_capacity_w_k: float,
    total_pa: float,
    static_pa: float,
    efficiency: float,
    motor_efficiency: float,
    motor_margin: float,
    motors_w: tuple[float, ...] = (),
) -> FanResult:
    """Size a fan for a flow [m3/s] whose heat capacity rate is m cp [W/K]; `motors_w` are those that are sold, in place of standard ones.

    Raises:
        ValueError: an efficiency outside 0 to 1, or no flow.
    """
    if not (0.0 < efficiency <= 1.0 and 0.0 < motor_efficiency <= 1.0):
        raise ValueError(f"fan efficiency {efficiency} and motor efficiency {motor_efficiency} lie between 0 and 1")
    if flow_m3_s <= 0.0:
        raise ValueError(f"flow_m3_s {flow_m3_s} must be above 0")
    shaft = flow_m3_s * total_pa / efficiency
    electrical = shaft / motor_efficiency
    return FanResult(
        flow_m3_s=flow_m3_s,
        total_pa=total_pa,
        static_pa=static_pa,
        shaft_w=shaft,
        electrical_w=electrical,
        motor_w=next_motor_w(shaft, motor_margin, motors_w),
        rise_k=electrical / heat_capacity_w_k,
        specific_fan_power_w_m3_s=electrical / flow_m3_s,
    )


@dataclass(frozen=True)
class FanCurve:
    """A fan at part flow: p = p_held + (p_design - p_held)(V/V_design)^2, efficiencies constant; all power heats the air.

    Attributes:
        held_pa: pressure that a control holds at the end of the network; 0 where the whole follows the square.
    """

    design_m3_s: float
    design_pa: float
    held_pa: float
    efficiency: float
    motor_efficiency: float

    def pressure_pa(self, flow_m3_s: Array) -> Array:
        """Total pressure at a flow at the fan's inlet [Pa]."""
        share = flow_m3_s / self.design_m3_s
        return np.asarray(self.held_pa + (self.design_pa - self.held_pa) * share**2)

    def electrical_w(self, flow_m3_s: Array) -> Array:
        """Electrical power at a flow at the fan's inlet [W]."""
        return np.asarray(flow_m3_s * self.pressure_pa(flow_m3_s) / (self.efficiency * self.motor_efficiency))

    def points(self) -> "tuple[FanPoint, ...]":
        """The fan at a quarter, half, three quarters and all of its design flow. Source: as the class."""
        flows = self.design_m3_s * np.array(PART_LOADS)
        pressures, powers = self.pressure_pa(flows), self.electrical_w(flows)
        return tuple(
            FanPoint(share, flow, pressure, power)
            for share, flow, pressure, power in zip(
                PART_LOADS, flows.tolist(), pressures.tolist(), powers.tolist(), strict=True
            )
        )


@dataclass(frozen=True)
class FanPoint:
    """A fan at a share of its design flow [-]: flow, total pressure, electricity."""

    share: float
    flow_m3_s: float
    total_pa: float
    electrical_w: float
