"""Heat gain from people by activity. Source: ASHRAE Handbook Fundamentals 2017, ch. 18, table 1 (adjusted mix)."""

from dataclasses import dataclass

REFERENCE_C = 24.0
_WARMER_C, _LESS = 26.7, 0.20  # table 1, note: at 26.7 °C the sensible part is about a fifth less, the total the same


@dataclass(frozen=True)
class PersonHeat:
    """Sensible and latent heat of one person [W]."""

    sensible_w: float
    latent_w: float


ACTIVITIES = {
    "seated in an audience": PersonHeat(70.0, 35.0),
    "seated, very light work": PersonHeat(70.0, 45.0),
    "moderately active office work": PersonHeat(75.0, 55.0),
    "standing, light work, walking": PersonHeat(75.0, 55.0),
    "walking and standing": PersonHeat(75.0, 70.0),
    "sedentary work, eating": PersonHeat(80.0, 80.0),
    "light bench work": PersonHeat(80.0, 140.0),
    "moderate dancing": PersonHeat(90.0, 160.0),
    "light machine work": PersonHeat(110.0, 185.0),
    "heavy work": PersonHeat(170.0, 255.0),
    "heavy machine work, lifting": PersonHeat(185.0, 285.0),
    "athletics": PersonHeat(210.0, 315.0),
}


def person_heat(activity: str, room_c: float) -> PersonHeat:
    """Heat of a person at a room temperature; straight between 24 and 26.7 °C, and held beyond them."""
    table = ACTIVITIES[activity]
    share = min(1.0, max(0.0, (room_c - REFERENCE_C) / (_WARMER_C - REFERENCE_C))) * _LESS
    moved = table.sensible_w * share
    return PersonHeat(table.sensible_w - moved, table.latent_w + moved)
