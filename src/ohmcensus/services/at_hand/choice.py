"""What can be chosen, with its words: one model for every list of choices."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Protocol

from pydantic import BaseModel


class Choice(BaseModel):
    """Something that can be chosen, with its words."""

    id: str
    words: str


class _Worded(Protocol):
    @property
    def words(self) -> str: ...


def choices(known: Mapping[str, str]) -> list[Choice]:
    """Return choices from words by id."""
    return [Choice(id=name, words=words) for name, words in known.items()]


def choices_of(rows: Iterable[_Worded]) -> list[Choice]:
    """Return choices from the members of an enum that has words."""
    return [Choice(id=str(row), words=row.words) for row in rows]
