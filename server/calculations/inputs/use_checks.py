"""Snags of uses: what their schedules contradict."""

from calculations.inputs.schedules import design_patterns
from calculations.lookups import Lookups
from pendrum_core.checks.snag import DOUBTFUL, Snag
from pendrum_core.model.schedules import step_averages

_MONTHS = (0, 6)


def use_snags(look: Lookups, identity: str) -> list[Snag]:
    """What is contradictory in the set-points of a use."""
    use = look.existing("use", identity)
    found = []
    away = [what for what in ("heating", "cooling") if use[f"{what}_away"] != "hold"]
    if away and use["setpoint_schedule"] is None:
        found.append(Snag(
            DOUBTFUL, "no_set_point_hours", "use", identity, "uses",
            f"{use['name']}: {' and '.join(away)} should change outside the hours of its set-points, but no schedule says "
            "which hours these are; they are held day and night.", "choose when the set-points apply",
        ))  # fmt: skip
    if away and use["setpoint_schedule"] is not None and use["people_schedule"] is not None:
        held = design_patterns(look, use["setpoint_schedule"], "highest").by_month
        there = design_patterns(look, use["people_schedule"]).by_month
        missed = max(
            float(((step_averages(there[m]) > 0.1) & (step_averages(held[m]) < 0.5)).sum()) / 6.0 for m in _MONTHS
        )
        if missed > 0.5:
            found.append(Snag(
                DOUBTFUL, "people_while_away", "use", identity, "uses",
                f"{use['name']}: more than a tenth of its people are there for {missed:.1f} h of the day outside the hours of "
                "its set-points.", "widen the hours, or change the schedule of people",
            ))  # fmt: skip
    return found
