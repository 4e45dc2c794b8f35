"""What thermostats make of the days, step by step."""
