"""Snags of uses: what their schedules contradict."""

from calculations.inputs.schedules import design_patterns
from calculations.lookups import Lookups
from pendrum_core.checks.snag import DOUBTFUL, Snag
from pendrum_core.model.schedules import step_averages
from projects.rows import Row

_MONTHS = (0, 6)


def use_snags(look: Lookups, identity: str) -> list[Snag]:
    """What is contradictory in the set-points of a use."""
    use = look.existing("use", identity)
    found = []
    away = [what for what in ("heating", "cooling") if use[f"{what}_away"] != "hold"]
    if away and use["setpoint_schedule"] is None:
        found.append(
            Snag(
                DOUBTFUL,
                "no_set_point_hours",
                kind="use",
                id=identity,
                stage="uses",
                sentence=f"{use['name']}: {' and '.join(away)} should change outside the hours of its set-points, but no schedule says "
                "which hours these are; they are held day and night.",
                way_out="choose when the set-points apply",
            )
        )
    if away and use["setpoint_schedule"] is not None and use["people_schedule"] is not None:
        held = design_patterns(look, use["setpoint_schedule"], "highest").by_month
        there = design_patterns(look, use["people_schedule"]).by_month
        missed = max(
            float(((step_averages(there[m]) > 0.1) & (step_averages(held[m]) < 0.5)).sum()) / 6.0 for m in _MONTHS
        )
        if missed > 0.5:
            found.append(
                Snag(
                    DOUBTFUL,
                    "people_while_away",
                    kind="use",
                    id=identity,
                    stage="uses",
                    sentence=f"{use['name']}: more than a tenth of its people are there for {missed:.1f} h of the day outside the hours of "
                    "its set-points.",
                    way_out="widen the hours, or change the schedule of people",
                )
            )
    if use["setpoint_schedule"] is not None:
        found += _never_away(look, use, away)
    return found


def _never_away(look: Lookups, use: Row, away: list[str]) -> list[Snag]:
    """A setback that is asked for and never comes: the set-points apply at every hour of every design day."""
    held = design_patterns(look, use["setpoint_schedule"], "highest")
    always = {
        "heating": bool((step_averages(held.winter) > 0.0).all()),
        "cooling": all((step_averages(day) > 0.0).all() for day in held.by_month),
    }
    return [
        Snag(
            DOUBTFUL,
            f"{what}_never_away",
            kind="use",
            id=use["id"],
            stage="uses",
            sentence=f"{use['name']}: {what} should change outside the hours of its set-points, but they apply all day.",
            way_out="choose a schedule with hours off, or hold the set-point",
        )
        for what in away
        if always[what]
    ]
