"""Rooms that feel each other: through walls, by moving air, by a common sensor."""
