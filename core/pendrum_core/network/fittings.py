"""Published loss coefficients of fittings in ducts and pipes, at the velocity of the section they stand in.

Ducts: SMACNA HVAC Systems Duct Design (1990), ch. 14; Idelchik, Handbook of Hydraulic Resistance, 3rd ed. (1994), ch. 7;
Borda and Carnot for sudden changes. Pipes: Crane, Technical Paper 410 (2009): multiples of the friction factor of clean steel
pipe at full turbulence, by the fluids library, so that a fitting's coefficient follows the pipe's diameter.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from math import cos, radians
from typing import Literal

from pendrum_core.model.systems import Fitted

_SMACNA = "SMACNA HVAC Systems Duct Design (1990), table 14-"
_BRANCH = "Idelchik (1994), ch. 7: (1 + r² − 2 r cos α)/r², r branch over main velocity before it"
_THROUGH = "Idelchik (1994), ch. 7: 0.4 (1 − s)²/s², s main velocity behind over before it"
_BORDA = "Borda and Carnot: (1 − A1/A2)², at the smaller area's velocity"
_CRANE = "Crane TP-410 (2009), A-27 to A-30"


@dataclass(frozen=True)
class Fitting:
    """A fitting of the table.

    Attributes:
        title: what it is, with the condition that its figure is for.
        of: "duct" or "pipe".
        coefficient: C at the section's velocity [-]; of a pipe's fitting None, then `multiple` counts.
        multiple: of the turbulent friction factor, which is the fitting's equivalent length over the diameter [-].
        source: where the figure is published.
    """

    title: str
    of: Literal["duct", "pipe"]
    coefficient: float | None
    source: str
    multiple: float = 0.0


def _duct(title: str, coefficient: float, source: str) -> Fitting:
    return Fitting(title, "duct", round(coefficient, 3), source)


def _pipe(title: str, multiple: float) -> Fitting:
    return Fitting(title, "pipe", None, _CRANE, multiple)


def _branch(angle_deg: float, ratio: float) -> float:
    return (1.0 + ratio**2 - 2.0 * ratio * cos(radians(angle_deg))) / ratio**2


def _through(ratio: float) -> float:
    return 0.4 * (1.0 - ratio) ** 2 / ratio**2


FITTINGS: Mapping[str, Fitting] = {
    # Bends of round ducts; r is the radius of the centre line, D the diameter.
    "round_bend_90_r05": _duct("Round bend 90°, smooth, r = 0.5 D", 0.71, _SMACNA + "10"),
    "round_bend_90_r075": _duct("Round bend 90°, smooth, r = 0.75 D", 0.33, _SMACNA + "10"),
    "round_bend_90_r1": _duct("Round bend 90°, smooth, r = 1 D", 0.22, _SMACNA + "10"),
    "round_bend_90_r15": _duct("Round bend 90°, smooth, r = 1.5 D", 0.15, _SMACNA + "10"),
    "round_bend_90_r2": _duct("Round bend 90°, smooth, r = 2 D", 0.13, _SMACNA + "10"),
    "round_bend_60_r1": _duct("Round bend 60°, smooth, r = 1 D", 0.22 * 0.78, _SMACNA + "10, times 0.78 for 60°"),
    "round_bend_45_r1": _duct("Round bend 45°, smooth, r = 1 D", 0.22 * 0.60, _SMACNA + "10, times 0.60 for 45°"),
    "round_bend_30_r1": _duct("Round bend 30°, smooth, r = 1 D", 0.22 * 0.45, _SMACNA + "10, times 0.45 for 30°"),
    "round_bend_5_pieces_r1": _duct("Round bend 90°, five pieces, r = 1 D", 0.33, _SMACNA + "10"),
    "round_bend_5_pieces_r15": _duct("Round bend 90°, five pieces, r = 1.5 D", 0.24, _SMACNA + "10"),
    "round_bend_4_pieces_r1": _duct("Round bend 90°, four pieces, r = 1 D", 0.37, _SMACNA + "10"),
    "round_bend_3_pieces_r1": _duct("Round bend 90°, three pieces, r = 1 D", 0.42, _SMACNA + "10"),
    "round_mitre_90": _duct("Round mitre 90°", 1.2, _SMACNA + "10"),
    "round_mitre_60": _duct("Round mitre 60°", 0.55, _SMACNA + "10"),
    "round_mitre_45": _duct("Round mitre 45°", 0.34, _SMACNA + "10"),
    # Bends of rectangular ducts as high as wide; W is the width in the plane of the bend.
    "bend_90_r05": _duct("Rectangular bend 90°, smooth, r = 0.5 W", 1.2, _SMACNA + "10"),
    "bend_90_r075": _duct("Rectangular bend 90°, smooth, r = 0.75 W", 0.44, _SMACNA + "10"),
    "bend_90_r1": _duct("Rectangular bend 90°, smooth, r = 1 W", 0.21, _SMACNA + "10"),
    "bend_90_r15": _duct("Rectangular bend 90°, smooth, r = 1.5 W", 0.17, _SMACNA + "10"),
    "mitre_90": _duct("Rectangular mitre 90°, without vanes", 1.2, _SMACNA + "10"),
    "mitre_90_vanes": _duct("Rectangular mitre 90°, single vanes, 50 mm radius", 0.12, _SMACNA + "10"),
    "mitre_90_large_vanes": _duct("Rectangular mitre 90°, single vanes, 115 mm radius", 0.15, _SMACNA + "10"),
    # Where air divides.
    "branch_90_as_fast": _duct("Branch 90°, as fast as the main before it", _branch(90, 1.0), _BRANCH),
    "branch_90_slower": _duct("Branch 90°, at 0.7 of the main's velocity", _branch(90, 0.7), _BRANCH),
    "branch_60_as_fast": _duct("Branch 60°, as fast as the main before it", _branch(60, 1.0), _BRANCH),
    "branch_45_as_fast": _duct("Branch 45°, as fast as the main before it", _branch(45, 1.0), _BRANCH),
    "branch_45_slower": _duct("Branch 45°, at 0.7 of the main's velocity", _branch(45, 0.7), _BRANCH),
    "through_as_fast": _duct("Straight on past a branch, at 0.9 of the velocity before", _through(0.9), _THROUGH),
    "through_slower": _duct("Straight on past a branch, at 0.7 of the velocity before", _through(0.7), _THROUGH),
    "through_half": _duct("Straight on past a branch, at half the velocity before", _through(0.5), _THROUGH),
    # Changes of section.
    "reducer_gradual": _duct("Reducer to half the area, 15 to 40°", 0.05, _SMACNA + "12"),
    "reducer_sudden": _duct("Reducer to half the area, sudden", 0.26, _SMACNA + "12"),
    "reducer_quarter_gradual": _duct("Reducer to a quarter of the area, 15 to 40°", 0.04, _SMACNA + "12"),
    "expander_sudden": _duct("Sudden widening behind it to twice the area", (1.0 - 1.0 / 2.0) ** 2, _BORDA),
    "expander_quarter_sudden": _duct(
        "Sudden widening behind it to four times the area", (1.0 - 1.0 / 4.0) ** 2, _BORDA
    ),
    # Ends, dampers and screens.
    "inlet_free": _duct("Inlet, free duct end", 1.0, _SMACNA + "15"),
    "inlet_flush": _duct("Inlet, flush with a wall", 0.5, _SMACNA + "15"),
    "inlet_bellmouth": _duct("Inlet, bellmouth r ≥ 0.2 D", 0.03, _SMACNA + "15"),
    "outlet_free": _duct("Outlet into the open", 1.0, "by definition: the dynamic pressure is lost"),
    "plenum_outlet": _duct("Plenum into a duct, flush", 0.5, _SMACNA + "15"),
    "damper_butterfly": _duct("Butterfly damper, round, open", 0.20, _SMACNA + "18"),
    "damper_butterfly_20": _duct("Butterfly damper, round, closed by 20°", 1.5, _SMACNA + "18"),
    "damper_blades": _duct("Multi-blade damper, open", 0.52, _SMACNA + "18"),
    "screen_70": _duct("Screen, 70 % free", 0.58, _SMACNA + "17"),
    "screen_80": _duct("Screen, 80 % free", 0.32, _SMACNA + "17"),
    # Pipes.
    "pipe_elbow_90": _pipe("Elbow 90°, standard", 30.0),
    "pipe_elbow_45": _pipe("Elbow 45°, standard", 16.0),
    "pipe_bend_90_r1": _pipe("Bend 90°, r = 1 d", 20.0),
    "pipe_bend_90_r15": _pipe("Bend 90°, r = 1.5 d", 14.0),
    "pipe_bend_90_r3": _pipe("Bend 90°, r = 3 d", 12.0),
    "pipe_mitre_90": _pipe("Mitre 90°", 60.0),
    "pipe_return_bend": _pipe("Return bend 180°", 50.0),
    "pipe_tee_run": _pipe("Tee, straight on", 20.0),
    "pipe_tee_branch": _pipe("Tee, into or out of the branch", 60.0),
    "pipe_gate_valve": _pipe("Gate valve, open", 8.0),
    "pipe_ball_valve": _pipe("Ball valve, open, full bore", 3.0),
    "pipe_plug_valve": _pipe("Plug valve, straightway, open", 18.0),
    "pipe_globe_valve": _pipe("Globe valve, open", 340.0),
    "pipe_angle_valve": _pipe("Angle valve, open", 150.0),
    "pipe_butterfly_valve": _pipe("Butterfly valve, open, DN 50 to 200", 45.0),
    "pipe_swing_check": _pipe("Swing check valve", 100.0),
    "pipe_lift_check": _pipe("Lift check valve", 600.0),
    "pipe_inlet_flush": Fitting("Out of a vessel, flush", "pipe", 0.5, _CRANE),
    "pipe_inlet_inward": Fitting("Out of a vessel, pipe reaching in", "pipe", 0.78, _CRANE),
    "pipe_outlet": Fitting("Into a vessel", "pipe", 1.0, _CRANE),
}


@lru_cache(maxsize=4096)
def turbulent_factor(diameter_m: float) -> float:
    """Friction factor of clean steel pipe at full turbulence [-]. Source: Crane TP-410 (2009), by the fluids library."""
    from fluids import ft_Crane

    return float(ft_Crane(diameter_m))


def coefficient(fitted: Fitted, diameter_m: float) -> float:
    """C of one such fitting in a duct or pipe of a diameter [-]: the engineer's own, or the table's.

    Raises:
        KeyError: the table has no such fitting.
    """
    if fitted.coefficient is not None:
        return fitted.coefficient
    found = FITTINGS[fitted.kind]
    return found.multiple * turbulent_factor(diameter_m) if found.coefficient is None else found.coefficient


def sum_of_coefficients(own: float, fittings: Iterable[Fitted], diameter_m: float) -> float:
    """Sum of a section's coefficients [-]: what was entered as a sum, and its fittings by kind and count.

    Source: superposition of losses, ASHRAE Handbook Fundamentals 2017, ch. 21.
    """
    return own + sum(fitted.count * coefficient(fitted, diameter_m) for fitted in fittings)
