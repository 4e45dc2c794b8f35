"""A tree of sections from one root (fan or pump) to its ends.

Source: mass balance at every joint.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray


class TreeError(ValueError):
    """A section list that is not a tree."""


@dataclass(frozen=True)
class Tree:
    """Sections in an order in which every parent comes before its children.

    Attributes:
        order: section ids, parents first.
        parent: parent id of each section, None for roots.
        children: ids below each section.
    """

    order: tuple[str, ...]
    parent: Mapping[str, str | None]
    children: Mapping[str, tuple[str, ...]]

    @property
    def ends(self) -> tuple[str, ...]:
        """Sections with nothing below them."""
        return tuple(section for section in self.order if not self.children[section])

    def path(self, section: str) -> tuple[str, ...]:
        """From the root to a section."""
        chain: list[str] = []
        at: str | None = section
        while at is not None:
            chain.append(at)
            at = self.parent[at]
        return tuple(reversed(chain))


def build_tree(parents: Mapping[str, str | None]) -> Tree:
    """Order sections from the root.

    Raises:
        TreeError: a parent that is not there, or a circle.
    """
    children: dict[str, list[str]] = {section: [] for section in parents}
    for section, parent in parents.items():
        if parent is not None:
            if parent not in children:
                raise TreeError(f"section {section} hangs on {parent}, which is not there")
            children[parent].append(section)
    order: list[str] = []
    waiting = [section for section, parent in parents.items() if parent is None]
    while waiting:
        section = waiting.pop()
        order.append(section)
        waiting.extend(reversed(children[section]))
    if len(order) != len(parents):
        lost = sorted(set(parents) - set(order))
        raise TreeError(f"sections {', '.join(lost)} hang on each other in a circle")
    return Tree(tuple(order), dict(parents), {section: tuple(below) for section, below in children.items()})


def largest_at_one_time(
    tree: Tree, design: Mapping[str, float], courses: Mapping[str, NDArray[np.float64]]
) -> dict[str, float]:
    """Flow that every section is sized for: the largest sum at one step of what is taken beyond it, and no less than any
    section beyond it carries [as given].

    `design` is the flow by section that takes some, `courses` the same over the steps, all of one shape.
    """
    course: dict[str, NDArray[np.float64]] = {}
    flow: dict[str, float] = {}
    for section in reversed(tree.order):
        below = [child for child in tree.children[section] if child in course]
        parts = [course[child] for child in below]
        if section in courses:
            parts.append(courses[section])
        largest = max([design.get(section, 0.0), *(flow[child] for child in tree.children[section])])
        if parts:
            course[section] = parts[0] if len(parts) == 1 else np.sum(parts, axis=0)
            if len(parts) > 1:
                largest = max(largest, float(course[section].max()))
        flow[section] = largest
        for child in below:
            del course[child]
    return flow


def sum_upwards(tree: Tree, at_section: Mapping[str, float]) -> dict[str, float]:
    """Flow of every section: what is taken at it plus all below it [as given]."""
    total = {section: at_section.get(section, 0.0) for section in tree.order}
    for section in reversed(tree.order):
        parent = tree.parent[section]
        if parent is not None:
            total[parent] += total[section]
    return total


@dataclass(frozen=True)
class Paths:
    """Losses from the root to each end [Pa].

    Attributes:
        loss_pa: per end.
        balancing_pa: what a damper or valve at each end has to take, up to the index run.
        index: end of the run with the largest loss.
    """

    loss_pa: Mapping[str, float]
    balancing_pa: Mapping[str, float]
    index: str

    @property
    def index_loss_pa(self) -> float:
        """Loss of the index run [Pa]."""
        return self.loss_pa[self.index]


def path_losses(tree: Tree, section_loss_pa: Mapping[str, float], ends: Sequence[str]) -> Paths:
    """Add section losses along every path to `ends` and find the index run."""
    down: dict[str, float] = {}
    for section in tree.order:
        parent = tree.parent[section]
        down[section] = section_loss_pa[section] + (down[parent] if parent is not None else 0.0)
    losses = {end: down[end] for end in ends}
    index = max(losses, key=lambda end: losses[end])
    return Paths(losses, {end: losses[index] - loss for end, loss in losses.items()}, index)
