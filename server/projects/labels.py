"""Messages without names of columns in them."""

import re

from projects.kinds import KindInfo


def in_words(message: str, kind: KindInfo) -> str:
    """A message with the names of a kind's fields in it replaced by their labels."""
    labels = kind.part_labels | {field: kind.label(field) for field in kind.columns}
    for field in sorted(labels, key=len, reverse=True):
        if "_" in field:
            message = re.sub(rf"\b{re.escape(field)}\b", f"“{labels[field]}”", message)
    return message
