"""What routes answer, as types: a field's unit is the end of its name and in its description, values are SI."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field


class Told(BaseModel):
    """An answer that has its fields and no others."""

    model_config = ConfigDict(extra="forbid")


Watts = Annotated[float, Field(description="W")]
Celsius = Annotated[float, Field(description="°C")]
KilowattHours = Annotated[float, Field(description="kWh")]
Months = Annotated[list[float], Field(description="kWh of each month", min_length=12, max_length=12)]
Course = Annotated[list[float], Field(description="One value for each step of the day.")]
WattsCourse = Annotated[list[float], Field(description="W at each step of the day")]
CelsiusCourse = Annotated[list[float], Field(description="°C at each step of the day")]
KgPerSecondCourse = Annotated[list[float], Field(description="kg/s at each step of the day")]
HumidityCourse = Annotated[list[float], Field(description="kg of water per kg of dry air at each step of the day")]
