"""Hourly weather: reading, checking, design conditions."""
