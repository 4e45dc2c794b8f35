"""Layered walls, glazing: steady and periodic."""
