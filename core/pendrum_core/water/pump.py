"""Pumps of a circuit: head, powers, control, and what they do at part load.

Without a maker's curve a pump is taken to have 1.25 of its duty head at no flow, falling with the square of the flow through the
duty, and an efficiency that is a parabola in the flow with its top at the duty. With another speed both move by the affinity laws:
flow as the speed, head as its square. Source: affinity laws and quadratic curves, Karassik et al., Pump Handbook, 4th ed., ch. 2;
proportional pressure with half the head at no flow as the reference control of Regulation (EU) 622/2012; motors by
IEC 60034-30-1:2014, four poles, 50 Hz.
"""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.systems import Circuit
from pendrum_core.plant.motors import MOTOR_CLASSES, motor_efficiency, next_motor_w

Array = NDArray[np.float64]
NO_FLOW_HEAD = 1.25  # over the duty head
HALF_AT_NO_FLOW = 0.5
PART_LOADS = (0.25, 0.5, 0.75, 1.0)
CONTROLS = ("constant speed", "constant pressure", "proportional pressure")


@dataclass(frozen=True)
class PumpResult:
    """The pumps of a circuit.

    Attributes:
        flow_m3_s: of the circuit at design; each of `count` pumps gives its share of it.
        network_head_pa: index run plus source.
        calculated_head_pa: that with the margin; `head_pa` is the pinned one where there is a pin.
        hydraulic_w, shaft_w, electrical_w: powers of all pumps on duty.
        motor_w: next standard motor of one pump; None above the series.
        efficiency, motor_efficiency: of the pump, and of its motor with its drive, at the duty [-].
        count, standby: pumps on duty together, and pumps that wait.
        diversity: of its flow over the sum of what its ends take, each at its largest [-].
        open_share: flow without throttling, where the pump's curve meets the network's, over the design flow [-].
    """

    flow_m3_s: float
    network_head_pa: float
    calculated_head_pa: float
    head_pa: float
    hydraulic_w: float
    shaft_w: float
    electrical_w: float
    motor_w: float | None
    efficiency: float
    motor_efficiency: float
    count: int = 1
    standby: int = 0
    control: str = "constant speed"
    open_share: float = 1.0
    diversity: float = 1.0


@dataclass(frozen=True)
class PumpPoint:
    """Pumps at a share of the design flow; head [Pa], efficiency of the pump [-], powers of all on duty [W]."""

    share: float
    head_pa: float
    efficiency: float
    hydraulic_w: float
    shaft_w: float
    electrical_w: float


def size_pump(circuit: Circuit, flow_m3_s: float, index_loss_pa: float) -> PumpResult:
    """The pumps of a circuit for a flow and the loss of its index run.

    Raises:
        ValueError: no such class of motors.
    """
    network = index_loss_pa + circuit.source_drop_pa
    calculated = network * (1.0 + circuit.pump_margin)
    head = calculated if circuit.pinned_head_pa is None else circuit.pinned_head_pa
    hydraulic = flow_m3_s * head
    shaft = hydraulic / circuit.pump_efficiency
    motor = next_motor_w(shaft / circuit.pump_count, circuit.motor_margin, circuit.sizes.motors_w)
    own = circuit.motor_efficiency
    if circuit.motor_class in MOTOR_CLASSES and motor is not None:
        own = motor_efficiency(circuit.motor_class, motor)
    over = network + (NO_FLOW_HEAD - 1.0) * head
    return PumpResult(
        flow_m3_s,
        network,
        calculated,
        head,
        hydraulic_w=hydraulic,
        shaft_w=shaft,
        electrical_w=shaft / own,
        motor_w=motor,
        efficiency=circuit.pump_efficiency,
        motor_efficiency=own,
        count=circuit.pump_count,
        standby=circuit.pump_standby,
        control=circuit.pump_control,
        open_share=float(np.sqrt(NO_FLOW_HEAD * head / over)) if over > 0.0 else 1.0,
    )


def other_pump(circuit: Circuit, pump: PumpResult) -> PumpResult | None:
    """Another pump of the same duty, with the efficiencies and the control that the engineer asks about; None where none is asked.

    Raises:
        ValueError: its control is none of CONTROLS.
    """
    efficiency, motor = circuit.other_pump_efficiency, circuit.other_motor_efficiency
    if efficiency is None and motor is None and not circuit.other_pump_control:
        return None
    control = circuit.other_pump_control or pump.control
    if control not in CONTROLS:
        raise ValueError(f"{control!r} is none of {', '.join(CONTROLS)}")
    efficiency, motor = efficiency or pump.efficiency, motor or pump.motor_efficiency
    shaft_w = pump.hydraulic_w / efficiency
    return replace(
        pump,
        shaft_w=shaft_w,
        electrical_w=shaft_w / motor,
        efficiency=efficiency,
        motor_efficiency=motor,
        control=control,
    )


def curve_head(share: Array) -> Array:
    """Head at full speed over the duty's [-], by the flow over the duty's."""
    return np.asarray(NO_FLOW_HEAD - (NO_FLOW_HEAD - 1.0) * share**2)


def held_head(control: str, share: Array) -> Array:
    """Head that a control holds, over the duty's [-].

    Raises:
        ValueError: no such control.
    """
    if control == "constant speed":
        return curve_head(share)
    if control == "constant pressure":
        return np.ones_like(share)
    if control == "proportional pressure":
        return np.asarray(HALF_AT_NO_FLOW + (1.0 - HALF_AT_NO_FLOW) * share)
    raise ValueError(f"{control!r} is none of {', '.join(CONTROLS)}")


def shaft_share(control: str, share: Array) -> Array:
    """Power at the shaft over the duty's [-], for shares 0 to 1 of the design flow.

    The speed is that at which the pump's curve passes through the held head; at it the flow stands at share over speed of
    its own duty, which decides on the efficiency. At no flow it tends to half the held head times the speed.
    """
    head = held_head(control, share)
    speed = np.sqrt((head + (NO_FLOW_HEAD - 1.0) * share**2) / NO_FLOW_HEAD)
    at = np.clip(share / speed, 0.0, 1.0)
    # share × head over (2 at − at²), with share = at × speed
    return np.asarray(speed * head / (2.0 - at))


def electrical_w(pump: PumpResult, share: Array) -> Array:
    """Electricity of the pumps on duty at shares of the design flow [W]; the motor's efficiency is that at the duty."""
    return pump.electrical_w * shaft_share(pump.control, np.asarray(share, dtype=float))


def part_loads(pump: PumpResult) -> tuple[PumpPoint, ...]:
    """The pumps at a quarter, half, three quarters and all of the design flow."""
    shares = np.array(PART_LOADS)
    heads, shafts = held_head(pump.control, shares), shaft_share(pump.control, shares)
    return tuple(
        PumpPoint(
            share,
            head_pa=pump.head_pa * head,
            efficiency=pump.efficiency * share * head / shaft,
            hydraulic_w=pump.hydraulic_w * share * head,
            shaft_w=pump.shaft_w * shaft,
            electrical_w=pump.electrical_w * shaft,
        )
        for share, head, shaft in zip(PART_LOADS, heads.tolist(), shafts.tolist(), strict=True)
    )
