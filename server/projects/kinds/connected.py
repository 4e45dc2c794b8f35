"""What takes electricity and belongs to no room."""

from typing import Annotated, ClassVar

from projects.fields import Name
from projects.kinds.declare import About, Kind, Ref, called, link, number, options


class ConnectedLoadFields(Kind):
    """A lift, outdoor lighting, or anything else that counts in the year's energy and heats no room."""

    about: ClassVar[About] = About(most=200)

    name: Annotated[Name, called("Name")]
    use: Annotated[str, options("For", ["lifts", "outdoor lighting", "other loads"])] = "other loads"
    power_w: Annotated[float, number("Power when all of it runs", "load", 0, 1e7)] = 0.0
    schedule: Annotated[Ref, link("Runs by", "schedule")] = None
