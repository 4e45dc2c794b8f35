"""Moist air, coils, fans and the air path of a system."""
