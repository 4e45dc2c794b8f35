"""Design days and times of day as text."""

MONTHS = (
    "January",
    "February",
    "March",
    "April",
    "May",
    "June",
    "July",
    "August",
    "September",
    "October",
    "November",
    "December",
    "Dehumidification day",
)


def clock(step: int, steps: int = 144) -> str:
    """Start of a step as hh:mm."""
    minutes = step * 1440 // steps
    return f"{minutes // 60:02d}:{minutes % 60:02d}"
