"""Courses that are worked out when they are asked for."""

from pendrum_core.results.place import PlaceCourses, humidity_lines, place_courses, shading_day, surface_day
from pendrum_core.room.outcome.together import group_day_w

__all__ = ["PlaceCourses", "group_day_w", "humidity_lines", "place_courses", "shading_day", "surface_day"]
