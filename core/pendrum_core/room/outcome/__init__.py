"""Rooms worked out: days and thermostats put together, their results, sums over rooms."""
