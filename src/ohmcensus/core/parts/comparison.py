"""Tests of one part whose readings are held against one another."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum


class Relation(StrEnum):
    """How readings are held against one another."""

    ALIKE = "alike"
    ASCENDING = "ascending"
    SUM = "sum"


@dataclass(frozen=True, slots=True)
class Comparison:
    """Tests of one part whose readings say something together.

    Parameters
    ----------
    name, title
        "alike", "windings alike".
    tests
        By their names, in the order of the rule.
    relation
        What they must be.
    within
        Share by which they may differ from their mean, or from their sum.
    whole
        Two pins between which the sum is read, None for every other rule.
    """

    name: str
    title: str
    tests: tuple[str, ...]
    relation: Relation
    within: float = 0.0
    whole: tuple[str, str] | None = None
