"""Standard motors.

Source: preferred ratings of IEC 60072-1; efficiency classes of IEC 60034-30-1.
"""

from bisect import bisect_right
from collections.abc import Mapping, Sequence

# Rated outputs of IEC 60072-1 [kW], with the fractional series below 0.75.
MOTOR_OUTPUTS_KW = (
    0.06, 0.09, 0.12, 0.18, 0.25, 0.37, 0.55, 0.75, 1.1, 1.5, 2.2, 3.0, 4.0, 5.5, 7.5, 11.0, 15.0, 18.5,
    22.0, 30.0, 37.0, 45.0, 55.0, 75.0, 90.0, 110.0, 132.0, 160.0, 200.0, 250.0, 315.0,
)  # fmt: skip


def next_motor_w(shaft_power_w: float, margin: float, sold_w: Sequence[float] = ()) -> float | None:
    """Smallest standard motor, or of those that are sold [W], with `margin` [-] over the shaft power; None above the series."""
    need = shaft_power_w * (1.0 + margin)
    return next((one for one in sold_w or (kw * 1000.0 for kw in MOTOR_OUTPUTS_KW) if one >= need), None)


# Full-load efficiency [%] of four-pole motors at 50 Hz by rated output [kW]. Source: IEC 60034-30-1:2014, tables 5, 7 and 9.
_RATED_KW = (
    0.12, 0.18, 0.25, 0.37, 0.55, 0.75, 1.1, 1.5, 2.2, 3.0, 4.0, 5.5, 7.5, 11.0, 15.0, 18.5, 22.0, 30.0, 37.0, 45.0, 55.0, 75.0, 90.0,
    110.0, 132.0, 160.0, 200.0,
)  # fmt: skip
MOTOR_CLASSES: Mapping[str, tuple[float, ...]] = {
    "IE2": (59.1, 64.7, 68.5, 72.7, 77.1, 79.6, 81.4, 82.8, 84.3, 85.5, 86.6, 87.7, 88.7, 89.8, 90.6, 91.2, 91.6, 92.3, 92.7, 93.1, 93.5,
            94.0, 94.2, 94.5, 94.7, 94.9, 95.1),
    "IE3": (64.8, 69.9, 73.5, 77.3, 80.8, 82.5, 84.1, 85.3, 86.7, 87.7, 88.6, 89.6, 90.4, 91.4, 92.1, 92.6, 93.0, 93.6, 93.9, 94.2, 94.6,
            95.0, 95.2, 95.4, 95.6, 95.8, 96.0),
    "IE4": (69.8, 74.7, 77.9, 81.1, 83.9, 85.7, 87.2, 88.2, 89.5, 90.4, 91.1, 91.9, 92.6, 93.3, 93.9, 94.2, 94.5, 94.9, 95.2, 95.4, 95.7,
            96.0, 96.1, 96.3, 96.4, 96.6, 96.7),
}  # fmt: skip


def motor_efficiency(motor_class: str, rated_w: float) -> float:
    """Full-load efficiency of a class [-]: of the next smaller rating of the table, the smallest below it, the largest above.

    Raises:
        ValueError: no such class.
    """
    if motor_class not in MOTOR_CLASSES:
        raise ValueError(f"{motor_class!r} is none of {', '.join(MOTOR_CLASSES)}")
    at = max(0, bisect_right(_RATED_KW, rated_w / 1000.0 + 1e-9) - 1)
    return MOTOR_CLASSES[motor_class][at] / 100.0
