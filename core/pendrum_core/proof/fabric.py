"""Proof of walls and windows: U-values, ISO 13786 quantities, periodic fluxes, the worked example of ISO 13370."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.fabric.layers import Layer
from pendrum_core.fabric.periodic import dynamic_values
from pendrum_core.fabric.steady import steady_values
from pendrum_core.proof.cases import Case, layers_of
from pendrum_core.proof.entry import Entry
from pendrum_core.room.balance.harmonics import step_response, to_harmonics, to_steps
from pendrum_core.room.balance.stack import admittance

_CHAPTER = "Walls"
_BY_HAND = "ISO 6946:2017, worked apart from the program"
_APART = "ISO 13786:2017, worked apart from the program with transfer matrices"


def u_value_entries(case: Case) -> Iterator[Entry]:
    """Steady walls."""
    for element, want in zip(case["inputs"]["elements"], case["expected"], strict=True):
        found = steady_values(layers_of(element["layers"]), element["Rsi_m2K_W"], element["Rse_m2K_W"]).u_value
        u = want["U_W_m2K"]
        yield Entry(
            _CHAPTER,
            f"U-value, {element['name']}",
            expected=u,
            found=found,
            quantity="u_value",
            within=0.001 * u,
            source=_BY_HAND,
        )


def periodic_entries(case: Case) -> Iterator[Entry]:
    """A wall under a periodic temperature outside."""
    layers = layers_of(case["inputs"]["layers"])
    wanted = case["expected"]["iso_13786_24h"]["with_surface_resistances"]
    values = dynamic_values(layers, 0.13, 0.04)
    for name, want, value, quantity in (
        ("periodic transmittance", wanted["periodic_transmittance_W_m2K"], values.periodic_transmittance, "u_value"),
        ("decrement factor", wanted["decrement_factor"], values.decrement_factor, "ratio"),
        ("internal admittance", wanted["internal_admittance_W_m2K"], values.internal_admittance, "u_value"),
        ("time lag", wanted["time_lag_h"], values.time_lag_h, "time"),
    ):
        yield Entry(
            _CHAPTER,
            f"{case['title']}: {name}",
            expected=want,
            found=value,
            quantity=quantity,
            within=0.002 * abs(want),
            source=_APART,
        )
    inside = Layer("film", plain_resistance_m2k_w=case["inputs"]["Rsi_m2K_W"])
    wall = admittance((*layers, inside), case["inputs"]["Rse_m2K_W"])
    for profile in ("sinusoid", "square"):
        outside = np.array(case["inputs"]["outside_temperature_C"][profile]) - 24.0
        flux = to_steps(to_harmonics(outside) * step_response(wall.across))
        course = np.array(case["expected"][profile]["inside_flux_W_m2"])
        swing = float(np.abs(course - course.mean()).max())
        yield Entry(
            _CHAPTER,
            f"{case['title']}: largest flux, {profile}",
            expected=float(course.max()),
            found=float(flux.max()),
            quantity="power_per_area",
            within=0.005 * swing,
            source="finite volumes in time, worked apart from the program",
        )
