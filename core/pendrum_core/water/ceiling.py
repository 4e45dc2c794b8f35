"""Chilled ceilings and beams: what an area or a length of them takes out of a room, and how much of it a duty needs.

Source: EN 14240:2004 (chilled ceilings) and EN 14518:2005 (passive beams): capacity = rating × (difference/8 K)^n.
"""

from dataclasses import dataclass

from pendrum_core.model.plant import CeilingBuild

RATED_K = 8.0  # mean difference of room and water at which both standards rate


@dataclass(frozen=True)
class CeilingResult:
    """A room's chilled ceiling or beams.

    Attributes:
        kind: "ceilings" or "beams".
        duty_w: what the room asks and its supply air leaves.
        difference_k: of the room's cooling set-point and the mean of the water.
        capacity: at that difference: of an area [W/m²] or a length [W/m].
        needed: area [m²] or length [m] that gives the duty; `most` what the room has place for; infinite of beams.
        gives_w: what the needed one gives, as far as there is place.
    """

    kind: str
    duty_w: float
    difference_k: float
    capacity: float
    needed: float
    most: float
    gives_w: float

    @property
    def short_w(self) -> float:
        """Of the duty, not given [W]. Source: difference."""
        return max(0.0, self.duty_w - self.gives_w)


def size_ceiling(
    duty_w: float, floor_area_m2: float, room_c: float, flow_c: float, return_c: float, build: CeilingBuild
) -> CeilingResult:
    """Area or length for a duty at the water's temperatures.

    Source: EN 14240:2004, EN 14518:2005; arithmetic mean of the water.

    Raises:
        ValueError: the water is not colder than the room.
    """
    if not flow_c < return_c < room_c:
        raise ValueError(f"flow {flow_c:g}, return {return_c:g} and room {room_c:g} °C must rise in this order")
    difference = room_c - (flow_c + return_c) / 2.0
    beams = build.kind == "beams"
    rated = build.rating_w_m if beams else build.rating_w_m2
    capacity = rated * (difference / RATED_K) ** build.exponent
    needed = duty_w / capacity
    most = float("inf") if beams else floor_area_m2 * build.area_share
    return CeilingResult(
        build.kind,
        duty_w,
        difference_k=difference,
        capacity=capacity,
        needed=needed,
        most=most,
        gives_w=min(needed, most) * capacity,
    )
