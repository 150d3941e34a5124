"""One typed line to a run.

Grammar::

    line    := ["run"] [("only" | "whole") part* | ("-" part | "?" part | "+" part)*] reading ["turned"]
    reading := a number with its unit, >number for over-range, "trips" or "holds"

Without ``only`` everything is connected that is not named with a minus; a question mark is *perhaps*. Parts go by
id, title, alias or the beginning of one. A current makes it a leakage run, ohms an insulation run.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from ohmcensus.core.errors import InputError, UnknownNameError
from ohmcensus.core.event import HOLDS, TRIPS
from ohmcensus.core.sheet import Part
from ohmcensus.core.text.names import find, folded, nearest
from ohmcensus.core.trip.problem import Method, Polarity

LONGEST_LINE = 200
_AMPERE = re.compile(r"(?:[mµμu]?a|µa|milliamp\w*)$", re.IGNORECASE)
_OHM = re.compile(r"(?:ohms?|Ω|Ω|[kmgMG])$")


@dataclass(frozen=True, slots=True)
class RunLine:
    """What a line was understood to say: the run, its reading empty where none was typed yet."""

    method: Method
    connected: tuple[str, ...]
    maybe: tuple[str, ...]
    text: str
    polarity: Polarity


def read_run_line(line: str, parts: Sequence[Part], method: Method) -> RunLine:
    """Understand a line.

    Parameters
    ----------
    line
        As typed.
    parts
        Those that may leak, in the order of the sheet.
    method
        Where the reading does not tell.

    Raises
    ------
    InputError
        If the line is endless, connects nothing, or names no such part; the message says what it may mean.
    """
    if len(line) > LONGEST_LINE:
        what = "the line is far too long"
        raise InputError(what=what, remedy="name the parts that are off, and the reading", field="line")
    words = [word for word in line.replace(",-", " -").split() if word.casefold() not in {"run", "whole", "all"}]
    is_only = bool(words) and words[0].casefold() == "only"
    is_turned = bool(words) and words[-1].casefold() in {"turned", "reversed"}
    words = words[1 if is_only else 0 : -1 if is_turned else None]
    named: dict[str, list[str]] = {"-": [], "?": [], "+": []}
    rest: list[str] = []
    for word in words:
        sign = word[0] if word[0] in named and not word[1:2].isdigit() and len(word) > 1 else "+" if is_only else ""
        if rest or not sign or _is_reading(word):
            rest.append(word)
        else:
            named[sign].append(_part(word.removeprefix(sign), parts))
    maybe = tuple(part.id for part in parts if part.id in named["?"])
    off = {*named["-"], *maybe}
    inside = set(named["+"]) if is_only else {part.id for part in parts} | {*named["+"]}
    connected = tuple(part.id for part in parts if part.id in inside - off)
    if not connected and not maybe:
        raise InputError(what="nothing is connected in this run", remedy="leave at least one part on", field="line")
    text = " ".join(rest).casefold() if rest[:1] and rest[0].casefold() in {TRIPS, HOLDS} else " ".join(rest)
    polarity = Polarity.REVERSED if is_turned else Polarity.NORMAL
    return RunLine(_method(text, method), connected, maybe, text, polarity)


def _method(text: str, otherwise: Method) -> Method:
    """Return the method that the unit of a reading tells."""
    if text in {TRIPS, HOLDS} or _AMPERE.search(text):
        return Method.LEAKAGE
    return Method.INSULATION if _OHM.search(text) else otherwise


def _is_reading(word: str) -> bool:
    return word.casefold() in {TRIPS, HOLDS, "ol", "over"} or bool(re.match(r"[<>≥≤]|-?[.,]?\d", word))


def _part(typed: str, parts: Sequence[Part]) -> str:
    """Return the part meant."""
    names = {folded(part.id): part.id for part in parts}
    for part in parts:
        for name in (part.title, *part.aliases):
            names.setdefault(folded(name), part.id)
    if folded(typed) in names:
        return names[folded(typed)]
    found = list(dict.fromkeys(find(typed, names)))
    if len(found) == 1:
        return found[0]
    close = nearest(typed, names)
    hint = f"{' or '.join(found[:4])}?" if found else f"{names[close]}?" if close else f"parts are {', '.join(names)}"
    what = f"'{typed[:40]}' may be more than one part" if found else f"no part '{typed[:40]}' that may leak"
    raise UnknownNameError(what=what, remedy=hint, field="line")
