"""The year: 8,760 hours of rooms, in 10-minute steps."""
