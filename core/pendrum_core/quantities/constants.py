"""Physical constants and the grid of a design day. SI throughout."""

STEPS_PER_DAY = 144
STEP_S = 600.0
DAY_S = 86_400.0

STANDARD_PRESSURE_PA = 101_325.0
KELVIN = 273.15
GRAVITY_M_S2 = 9.80665

R_DRY_AIR = 287.042  # [J/kg K], ASHRAE Handbook Fundamentals 2017, ch. 1
CP_DRY_AIR = 1006.0  # [J/kg K]
CP_VAPOUR = 1860.0  # [J/kg K]
H_VAPORISATION_0C = 2_501_000.0  # [J/kg]
CP_WATER = 4186.0  # [J/kg K], condensate
