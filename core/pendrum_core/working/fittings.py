"""Working of the fittings of a duct or pipe section."""

from pendrum_core.model.systems import Fitted, Section
from pendrum_core.network.fittings import FITTINGS, coefficient, sum_of_coefficients
from pendrum_core.working.node import Node


def _each(fitted: Fitted, diameter_m: float, ref: str) -> Node:
    found = FITTINGS.get(fitted.kind)
    each = coefficient(fitted, diameter_m)
    own = fitted.coefficient is not None
    return Node(
        found.title if found else "Fitting of its own",
        fitted.count * each,
        "ratio",
        formula="count × coefficient",
        numbers=f"{fitted.count} × {each:.3g}",
        source="entered" if own or found is None else found.source,
        note=""
        if own or found is None or not found.multiple
        else f"{found.multiple:g} times the turbulent friction factor of this diameter",
        ref=ref,
    )


def fittings_node(kind: str, section: Section, diameter_m: float) -> Node:
    """Sum of a section's coefficients: what was entered as a sum, and every kind of fitting with its figure and source."""
    own = Node("Entered as a sum", section.loss_coefficient, "ratio", ref=f"{kind}/{section.id}/loss_coefficient")
    if not section.fittings:
        return Node("Fittings' coefficient", section.loss_coefficient, "ratio", "C", ref=own.ref)
    ref = f"{kind}/{section.id}/fittings"
    return Node(
        "Fittings' coefficient",
        sum_of_coefficients(section.loss_coefficient, section.fittings, diameter_m),
        "ratio",
        "C",
        formula="what is entered as a sum and every fitting by kind",
        inputs=(own, *(_each(fitted, diameter_m, ref) for fitted in section.fittings)),
    )
