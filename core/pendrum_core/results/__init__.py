"""Frozen results with named, unit-bearing fields."""
