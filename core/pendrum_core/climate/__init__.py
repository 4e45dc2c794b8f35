"""Outdoor air: standard atmosphere and design days."""
