"""Ordinary materials, schedules and uses to take from: published values and patterns of our own."""
