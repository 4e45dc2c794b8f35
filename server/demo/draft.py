"""Collects a change set while a building is described in code."""

from typing import Any

from projects.plan import Change
from projects.starter import new_id


class Draft:
    """Creations in order, with names for ids."""

    def __init__(self) -> None:
        self.changes: list[Change] = []

    def add(self, kind: str, /, **fields: Any) -> str:
        """Create a thing and return its id."""
        identity = new_id()
        self.changes.append({"op": "create", "kind": kind, "id": identity, "fields": fields})
        return identity

    def set(self, kind: str, identity: str, /, **fields: Any) -> None:
        """Set fields of something that is there."""
        self.changes.append({"op": "set", "kind": kind, "id": identity, "fields": fields})


def assembly(draft: Draft, name: str, element: str, layers: list[tuple[str, float | None]], **fields: Any) -> str:
    """An assembly with its layers, (material id, thickness), outermost first."""
    identity = draft.add("assembly", name=name, element=element, **fields)
    for position, (material, thickness) in enumerate(layers):
        draft.add("layer", assembly=identity, position=position, material=material, thickness_m=thickness)
    return identity


def lay_louvre(draft: Draft, system: str, network: str, length_m: float) -> None:
    """A duct between the unit and outdoors, with its louvre."""
    draft.add(
        "duct_section", air_system=system, network=network, position=0, name="Duct to the louvre", length_m=length_m,
        loss_coefficient=1.8, end_drop_pa=25.0,
    )  # fmt: skip


def lay_ducts(
    draft: Draft, system: str, levels: list[list[tuple[str, str, float]]], main_m: float, network: str = "supply"
) -> None:
    """A riser with one main per level and a branch to every room.

    `levels` lists (room id, room number, branch length) per level in order along the main.
    """
    position = 0
    parent: str | None = None
    for storey, rooms in enumerate(levels):
        if not rooms:
            continue
        parent_here = draft.add(
            "duct_section", air_system=system, network=network, parent=parent, position=position, name=f"Riser {storey}",
            length_m=main_m, loss_coefficient=0.45,
        )  # fmt: skip
        parent, position = parent_here, position + 1
        for index, (room, number, branch) in enumerate(rooms):
            if index and len(rooms) - index >= 1:
                parent_here = draft.add(
                    "duct_section", air_system=system, network=network, parent=parent_here, position=position,
                    name=f"Main {storey}.{index}", length_m=6.0, loss_coefficient=0.15,
                )  # fmt: skip
                position += 1
            draft.add(
                "duct_section", air_system=system, network=network, parent=parent_here, position=position, name=f"Branch {number}",
                room=room, length_m=branch, loss_coefficient=1.1, end_drop_pa=30.0,
            )  # fmt: skip
            position += 1


def lay_pipes(draft: Draft, circuit: str, levels: list[list[tuple[str, str]]], coils: list[tuple[str, str]]) -> None:
    """A riser with one pair of mains per level, a branch to every room's radiator, and one to every coil."""
    position = 0
    root = draft.add("pipe_section", circuit=circuit, position=0, name="Plant", length_m=8.0, loss_coefficient=4.0)
    for coil, name in coils:
        position += 1
        draft.add("pipe_section", circuit=circuit, parent=root, position=position, name=f"To {name}", air_system=coil,
                  length_m=6.0, loss_coefficient=6.0, end_drop_pa=12_000.0)  # fmt: skip
    parent = root
    for storey, rooms in enumerate(levels):
        for index, (room, number) in enumerate(rooms):
            position += 1
            if index == 0:
                name, length = f"Riser {storey}", 5.0
            else:
                name, length = f"Main {storey}.{index}", 5.0
            here = draft.add("pipe_section", circuit=circuit, parent=parent if index else root, position=position,
                             name=name, length_m=length, loss_coefficient=1.0)  # fmt: skip
            parent = here
            position += 1
            draft.add("pipe_section", circuit=circuit, parent=here, position=position, name=f"Branch {number}",
                      room=room, length_m=3.0, loss_coefficient=4.0, end_drop_pa=3_000.0)  # fmt: skip
