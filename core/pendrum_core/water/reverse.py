"""Reverse return: supply and return mains as two chains with flows of their own.

A main is a chain of sections, each carried on by one other; what branches off at its end is taken there. The water that the first branch
takes comes back last: it runs on beside the supply to the end of the main, and from there all of it comes back at one flow.
A path is its part of the supply, its branch, and its part of the return.

Source: mass balance at every joint.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from pendrum_core.network.tree import Tree


@dataclass(frozen=True)
class Chain:
    """A main from where it starts to where it ends: sections in order, and what the return beside each carries.

    Attributes:
        sections: ids, as the supply runs.
        return_flow: beside each section, from the joint before it to the one behind; nought beside the first [as given].
        whole_flow: of the first section, and of the way back from the end.
    """

    sections: tuple[str, ...]
    return_flow: tuple[float, ...]
    whole_flow: float


def chains(tree: Tree, flow: Mapping[str, float]) -> list[Chain]:
    """The mains of a tree: every section that carries others, in chains of those that one other carries on."""
    carrying = {section for section in tree.order if tree.children[section]}
    found: list[Chain] = []
    taken: set[str] = set()
    for section in tree.order:
        if section not in carrying or section in taken:
            continue
        chain = [section]
        while len(on := [child for child in tree.children[chain[-1]] if child in carrying]) == 1:
            chain.append(on[0])
        taken.update(chain)
        whole = flow[section]
        found.append(Chain(tuple(chain), tuple(whole - flow[one] for one in chain), whole))
    return found
