"""Core inputs made from rows, one module for each part of a building."""
