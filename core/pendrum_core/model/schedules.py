"""Schedules as inputs, for callers outside the core."""

from pendrum_core.schedule.pattern import CONSTANT_ONE, DayPattern

__all__ = ["CONSTANT_ONE", "DayPattern"]
