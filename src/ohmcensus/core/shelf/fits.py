"""Whether a piece is the one that is wanted: the type number exactly, and the form of its plug."""

from __future__ import annotations

from collections.abc import Iterator

from ohmcensus.core.shelf.spare import Spare
from ohmcensus.core.shelf.wanted import WantedPart


def misfits(spare: Spare, wanted: WantedPart) -> tuple[str, ...]:
    """Return why a piece of the same kind is not surely the one, a sentence each; none where it fits."""
    return tuple(_misfits(spare, wanted))


def _misfits(spare: Spare, wanted: WantedPart) -> Iterator[str]:
    for what, has, asked in (
        ("type number", spare.type_number, wanted.type_number),
        ("plug form", spare.variant, wanted.variant),
    ):
        if not asked:
            yield f"the {what} that is wanted is not noted: read it off the machine"
        elif not has:
            yield f"the {what} of the piece is not noted: compare it with '{asked}'"
        elif _same(has) != _same(asked):
            yield f"{what} differs: the piece is for '{has}', wanted is '{asked}'"


def _same(text: str) -> str:
    return " ".join(text.casefold().split())
