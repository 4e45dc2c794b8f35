"""Machines: motors."""
