"""The heat balance of rooms, one frequency at a time: stack, sources, elimination, and a check by another route."""
