"""Finding a name among many as a person types it: exact, by its beginning, or by a near miss."""

from __future__ import annotations

import difflib
from collections.abc import Iterable, Mapping
from typing import TypeVar

T = TypeVar("T")


def folded(name: str) -> str:
    """Return a name in the form in which names are compared."""
    return " ".join(name.casefold().replace("_", " ").replace("-", " ").split())


def find(typed: str, known: Mapping[str, T]) -> list[T]:
    """Return what a typed name may mean, best first: one entry when it is certain.

    Parameters
    ----------
    typed
        What was typed, in any case.
    known
        Folded names and aliases to the thing that they name.

    Returns
    -------
    list
        The exact match alone, else everything whose name begins so (no thing twice), else nothing.
    """
    wanted = folded(typed)
    if wanted in known:
        return [known[wanted]]
    found: list[T] = []
    for name, thing in known.items():
        if wanted and name.startswith(wanted) and thing not in found:
            found.append(thing)
    return found


def nearest(typed: str, known: Iterable[str]) -> str | None:
    """Return the known name most like the typed one, or None where nothing is like it."""
    close = difflib.get_close_matches(folded(typed), list(known), n=1, cutoff=0.6)
    return close[0] if close else None
