"""Ordinary room uses.

Outdoor air: ANSI/ASHRAE 62.1-2019, table 6-1 (people rate Rp, area rate Ra), with its default density of people. Lights
and equipment are Pendrum's own round figures, to be replaced by the design's.
"""

from typing import Any

SOURCE = "Ventilation and people: ANSI/ASHRAE 62.1-2019, table 6-1; other figures Pendrum's own"

# name: Rp [L/s person], Ra [L/s m2], people per 100 m2, lights and equipment [W/m2], activity, schedules of people,
# lights, equipment, ordinary range of cooling [W/m2]
_USES: dict[str, tuple[float, float, float, float, float, str, str, str, str, tuple[float, float]]] = {
    "Office": (2.5, 0.3, 5, 8, 10, "moderately active office work", "Office, people", "Office, lights", "Office, equipment", (30, 110)),
    "Meeting room": (2.5, 0.3, 50, 10, 5, "seated, very light work", "Meeting room", "Office, lights", "Meeting room", (50, 180)),
    "Reception": (2.5, 0.3, 30, 9, 5, "standing, light work, walking", "Office, people", "Office, lights", "Office, equipment", (40, 140)),
    "Entrance lobby": (2.5, 0.3, 10, 9, 0, "standing, light work, walking", "Office, people", "Corridor lights", "Never", (20, 150)),
    "Class room, 9 years and older": (5.0, 0.6, 35, 8, 4, "seated, very light work", "School room", "School room", "School room", (50, 160)),
    "Lecture class room": (3.8, 0.3, 65, 9, 3, "seated in an audience", "Lecture hall", "Lecture hall", "Lecture hall", (70, 200)),
    "Art class room": (5.0, 0.9, 20, 10, 5, "standing, light work, walking", "School room", "School room", "School room", (40, 150)),
    "Computer room for classes": (5.0, 0.6, 25, 8, 30, "seated, very light work", "School room", "School room", "School room", (60, 180)),
    "Science laboratory for classes": (5.0, 0.9, 25, 10, 15, "standing, light work, walking", "School room", "School room", "School room", (60, 200)),
    "Wood or metal workshop": (5.0, 0.9, 20, 10, 20, "light bench work", "Workshop", "Workshop", "Workshop", (40, 180)),
    "Music, theatre or dance room": (5.0, 0.3, 35, 10, 3, "moderate dancing", "Evening hall", "Evening hall", "Evening hall", (60, 220)),
    "Assembly hall": (3.8, 0.3, 100, 9, 2, "seated in an audience", "Evening hall", "Evening hall", "Evening hall", (80, 260)),
    "Library": (2.5, 0.6, 10, 9, 5, "seated, very light work", "Office, people", "Office, lights", "Office, equipment", (25, 110)),
    "Museum or gallery": (3.8, 0.3, 40, 12, 2, "walking and standing", "Gallery", "Gallery", "Gallery", (50, 190)),
    "Restaurant": (3.8, 0.9, 70, 9, 5, "sedentary work, eating", "Restaurant", "Restaurant", "Restaurant", (80, 280)),
    "Cafeteria": (3.8, 0.9, 100, 9, 8, "sedentary work, eating", "Restaurant", "Restaurant", "Restaurant", (90, 320)),
    "Kitchen": (3.8, 0.6, 20, 11, 60, "light bench work", "Kitchen", "Kitchen", "Kitchen", (100, 450)),
    "Shop": (3.8, 0.6, 15, 12, 3, "standing, light work, walking", "Shop", "Shop", "Shop", (35, 140)),
    "Corridor": (0.0, 0.3, 0, 5, 0, "standing, light work, walking", "Never", "Corridor lights", "Never", (5, 60)),
    "Bedroom": (2.5, 0.3, 10, 5, 3, "seated, very light work", "Bedroom", "Living room", "Living room", (15, 80)),
    "Exercise room": (10.0, 0.3, 10, 9, 5, "athletics", "Evening hall", "Evening hall", "Evening hall", (50, 200)),
}  # fmt: skip


def uses() -> list[dict[str, Any]]:
    """The shelf as fields of uses; `schedules` names what they refer to, to be taken along."""
    result = []
    for name, (rp, ra, density, lights, equipment, activity, people, lit, running, usual) in _USES.items():
        fields = {
            "name": name, "people_basis": "per_m2", "people_value": density / 100.0, "activity": activity,
            "lights_value": lights, "equipment_value": equipment, "air_per_person_m3_s": rp / 1000.0,
            "air_per_area_m3_s_m2": ra / 1000.0, "yardstick_low_w_m2": usual[0], "yardstick_high_w_m2": usual[1],
            "source": SOURCE,
        }  # fmt: skip
        schedules = {"people_schedule": people, "lights_schedule": lit, "equipment_schedule": running}
        result.append({"fields": fields, "schedules": schedules})
    return result
