"""Several rooms marched together as one network, their walls in common, under thermostats: the rule of the core by plain means.

The plant's power is constant over a step of 10 minutes and keeps what is sensed between the set-points at the step's
end; where a set-point jumps, it is met at once (`thrust`). Within a step the network goes in small steps of backward
Euler, put together beforehand, so that a day is a few hundred products of a matrix.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from core.tests.plain_march import PlainRoom
from pendrum_core.model.rooms import Room
from pendrum_core.room.balance.outdoors import Outdoors


@dataclass(frozen=True)
class Course:
    """One room's last day: plant power, mean air, air and sensed temperature at the ends, mean of the surfaces; (144,)."""

    plant_w: np.ndarray
    air_c: np.ndarray
    end_c: np.ndarray
    sensed_c: np.ndarray
    surfaces_c: np.ndarray


@dataclass(frozen=True)
class Keep:
    """Set-points (144,) and how they are kept."""

    low: np.ndarray
    high: np.ndarray
    radiant_weight: float = 0.0
    most_w: float = np.inf
    thrust: bool = True
    # Room whose plant this one's follows, and how much of its power.
    follows: tuple[str, float] | None = None


class Network:
    """Rooms with walls in common: an element to another room is one wall with the element there that names this room."""

    def __init__(self, rooms: Sequence[Room], outside: Outdoors, seconds: float = 20.0) -> None:
        self.outside = outside
        self.shared = self._pairs(rooms)
        faces_only = {other for _, other in self.shared}
        self.rooms = [
            PlainRoom(
                replace(
                    room,
                    elements=tuple(
                        replace(e, layers=()) if (room.id, i) in faces_only else e for i, e in enumerate(room.elements)
                    ),
                ),
                outside,
                seconds,
            )
            for room in rooms
        ]
        self.offsets = np.cumsum([0, *(len(room.heat) for room in self.rooms)])
        size = self.offsets[-1]
        matrix, heat = np.zeros((size, size)), np.concatenate([room.heat for room in self.rooms])
        for room, start in zip(self.rooms, self.offsets, strict=False):
            matrix[start : start + len(room.heat), start : start + len(room.heat)] = room.matrix
        index = {room.subject.id: i for i, room in enumerate(self.rooms)}
        for (one, i), (other, j) in self.shared:
            first, second = self.rooms[index[one]], self.rooms[index[other]]
            cell = self.offsets[index[one]] + first.starts[i]
            face = self.offsets[index[other]] + second.size + j
            # Per area of the first room's element on either side.
            g, share = 2.0 / first.nodes[first.starts[i]][0], first.area[i] / second.area[j]
            matrix[cell, cell] += g
            matrix[cell, face] -= g
            matrix[face, face] += g * share
            matrix[face, cell] -= g * share
        steps = round(600.0 / seconds)
        inverse = np.linalg.inv(matrix + np.diag(heat / seconds))
        once = inverse * (heat / seconds)
        self.over, self.driven, self.mean_over, self.mean_driven = np.eye(size), np.zeros((size, size)), 0.0, 0.0
        for _ in range(steps):
            self.driven = once @ self.driven + inverse
            self.over = once @ self.over
            self.mean_over = self.mean_over + self.over / steps
            self.mean_driven = self.mean_driven + self.driven / steps
        self.heat, self.matrix = heat, matrix

    def _at_once(self, air: int, weights: np.ndarray) -> float:
        """What is sensed of a kelvin of the air before anything with mass has moved."""
        light = np.flatnonzero(self.heat == 0.0)
        follows = np.linalg.solve(self.matrix[np.ix_(light, light)], -self.matrix[light, air])
        return float(weights[air] + weights[light] @ follows)

    @staticmethod
    def _pairs(rooms: Sequence[Room]) -> list[tuple[tuple[str, int], tuple[str, int]]]:
        by_room = {
            room.id: [(i, e.boundary.neighbour) for i, e in enumerate(room.elements) if e.boundary.kind == "room"]
            for room in rooms
        }
        found, taken = [], set()
        for room in rooms:
            for i, neighbour in by_room[room.id]:
                if (room.id, i) in taken:
                    continue
                j = next(k for k, back in by_room[neighbour] if back == room.id and (neighbour, k) not in taken)
                taken |= {(room.id, i), (neighbour, j)}
                found.append(((room.id, i), (neighbour, j)))
        return found

    def run(self, keeps: Mapping[str, Keep], month: int = 0, days: int = 40, winter: bool = False) -> dict[str, Course]:
        """The last of some days under thermostats; rooms that are not named float."""
        count, size = len(self.rooms), len(self.heat)
        names = [room.subject.id for room in self.rooms]
        weights, air_at, drives = np.zeros((count, size)), [], np.zeros((144, size))
        surfaces = np.zeros((count, size))
        for k, room in enumerate(self.rooms):
            start = self.offsets[k]
            air_at.append(start + len(room.heat) - 1)
            keep = keeps.get(room.subject.id)
            share = keep.radiant_weight if keep else 0.0
            surfaces[k, start + room.size : air_at[-1]] = room.area / room.area.sum()
            weights[k] = share * surfaces[k]
            weights[k, air_at[-1]] = 1.0 - share
            for step in range(144):
                drives[step, start : air_at[-1] + 1] = room._drive(month, step, winter)
        at_once = [self._at_once(air, weight) for air, weight in zip(air_at, weights, strict=True)]
        to_end = weights @ self.driven[:, air_at]
        temperature = np.concatenate(
            [
                np.full(len(room.heat), room.subject.heating_setpoint_c if winter else room.subject.cooling_setpoint_c)
                for room in self.rooms
            ]
        )
        out = np.zeros((5, count, 144))
        for _ in range(days):
            for step in range(144):
                power, thrust = np.zeros(count), np.zeros(count)
                for k, room in enumerate(self.rooms):
                    keep = keeps.get(room.subject.id)
                    if keep is None or not keep.thrust or keep.follows:
                        continue
                    low, high = keep.low, keep.high
                    if low[step] > low[step - 1] or high[step] < high[step - 1]:
                        now = weights[k] @ temperature
                        wanted = (min(max(now, low[step]), high[step]) - now) / at_once[k]
                        temperature[air_at[k]] += wanted
                        thrust[k] = wanted * self.heat[air_at[k]] / 600.0
                free = self.over @ temperature + self.driven @ drives[step]
                sensed = weights @ free
                for _ in range(3):
                    for k, room in enumerate(self.rooms):
                        keep = keeps.get(room.subject.id)
                        if keep is None:
                            continue
                        if keep.follows:
                            leader = names.index(keep.follows[0])
                            power[k] = keep.follows[1] * (power[leader] + thrust[leader])
                            continue
                        rest = sensed[k] + to_end[k] @ power - to_end[k, k] * power[k]
                        wanted = (min(max(rest, keep.low[step]), keep.high[step]) - rest) / to_end[k, k]
                        power[k] = min(max(wanted, -keep.most_w), keep.most_w)
                drive = drives[step].copy()
                drive[air_at] += power
                mean = self.mean_over @ temperature + self.mean_driven @ drive
                temperature = self.over @ temperature + self.driven @ drive
                out[0, :, step] = power + thrust
                out[1, :, step], out[2, :, step] = mean[air_at], temperature[air_at]
                out[3, :, step], out[4, :, step] = weights @ temperature, surfaces @ mean
        return {room.subject.id: Course(*out[:, k]) for k, room in enumerate(self.rooms)}
