"""Standard motors.

Source: preferred ratings of IEC 60072-1.
"""

# Rated outputs of IEC 60072-1 [kW], with the fractional series below 0.75.
MOTOR_OUTPUTS_KW = (
    0.06, 0.09, 0.12, 0.18, 0.25, 0.37, 0.55, 0.75, 1.1, 1.5, 2.2, 3.0, 4.0, 5.5, 7.5, 11.0, 15.0, 18.5,
    22.0, 30.0, 37.0, 45.0, 55.0, 75.0, 90.0, 110.0, 132.0, 160.0, 200.0, 250.0, 315.0,
)  # fmt: skip


def next_motor_w(shaft_power_w: float, margin: float) -> float | None:
    """Smallest standard motor [W] with `margin` [-] over the shaft power; None above the series."""
    need = shaft_power_w * (1.0 + margin)
    return next((kw * 1000.0 for kw in MOTOR_OUTPUTS_KW if kw * 1000.0 >= need), None)
