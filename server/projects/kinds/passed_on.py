"""What rooms inherit: a field declared here is there for the building, levels, uses, zones and rooms, in all their forms."""

from typing import Annotated, Self

from pydantic import model_validator

from projects.kinds.declare import Kind, number

AirChanges = Annotated[float, number("Infiltration", "air_changes", 0, 30, sheet="air")]
LeastAirChanges = Annotated[float, number("Least air changes", "air_changes", 0, 100, sheet="air", short="At least")]
HeatedTo = Annotated[float, number("Heating set-point", "temperature", -30, 40, sheet="use", short="Heated to")]
CooledTo = Annotated[float, number("Cooling set-point", "temperature", -30, 50, sheet="use", short="Cooled to")]
SetBackTo = Annotated[float, number("Heating setback", "temperature", -30, 40, sheet="thermostat", short="Set back to")]
SetUpTo = Annotated[float, number("Cooling set-up", "temperature", -30, 50, sheet="thermostat", short="Set up to")]
WarmUp = Annotated[float, number("Time to warm up", "time", 0, 12, sheet="thermostat", short="Warm-up")]
PullDown = Annotated[float, number("Time to pull down", "minutes", 0, 12, sheet="thermostat", short="Pull-down")]
HeatingMargin = Annotated[float, number("Heating margin", "percent", 0, 1, sheet="use")]
CoolingMargin = Annotated[float, number("Cooling margin", "percent", 0, 1, sheet="use")]


class MarginFields(Kind):
    """What a room or an air system adds to loads in place of the project's margins."""

    heating_margin: HeatingMargin | None = None
    cooling_margin: CoolingMargin | None = None


class SharedFields(Kind):
    """What the building, a level, a use and a zone may each say for the rooms below them; the nearest that says it counts."""

    infiltration_ach: AirChanges | None = None
    minimum_air_changes: LeastAirChanges | None = None
    heating_setpoint_c: HeatedTo | None = None
    cooling_setpoint_c: CooledTo | None = None
    heating_setback_c: SetBackTo | None = None
    cooling_setup_c: SetUpTo | None = None
    warm_up_h: WarmUp | None = None
    pull_down_h: PullDown | None = None

    @model_validator(mode="after")
    def setpoints(self) -> Self:
        low, high = self.heating_setpoint_c, self.cooling_setpoint_c
        if low is not None and high is not None and low > high:
            raise ValueError(f"heating_setpoint_c {low} is above cooling_setpoint_c {high}")
        return self


class BuildingFields(SharedFields):
    """What the building says where nothing nearer does: it always says something."""

    infiltration_ach: AirChanges = 0.3
    minimum_air_changes: LeastAirChanges = 0.0
    heating_setpoint_c: HeatedTo = 20.0
    cooling_setpoint_c: CooledTo = 26.0
    heating_setback_c: SetBackTo = 16.0
    cooling_setup_c: SetUpTo = 30.0
    warm_up_h: WarmUp = 2.0
    pull_down_h: PullDown = 1.0
