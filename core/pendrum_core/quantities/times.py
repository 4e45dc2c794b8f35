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


def design_day(number: int | None) -> str:
    """A design day within a sentence, by the number of its month; None: the winter day."""
    if number is None:
        return "the winter day"
    return "the dehumidification day" if number == len(MONTHS) else f"{MONTHS[number - 1]}'s design day"


def clock(step: int, steps: int = 144) -> str:
    """Start of a step as hh:mm."""
    minutes = step * 1440 // steps
    return f"{minutes // 60:02d}:{minutes % 60:02d}"
