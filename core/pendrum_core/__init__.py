"""Pendrum's computation core: room loads, air and water systems. No Django, no input or output."""
