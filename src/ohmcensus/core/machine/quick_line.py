"""One typed line to a test, or to two points, and a reading.

Grammar::

    line   := subject ["alone" | "loose" | "inhand"] reading [condition*] [door] [step] ["at" temperature]
    door   := ("door" | "lid") ("open" | "shut" | "locked")
    step   := "step" name
    condition := "dried" | "wet" | "hot" | "at 250V"
    subject:= part [test] | test | "between" point point

Parts and tests go by id, title, alias or the beginning of one; a test alone where only one part has it.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import TypedDict

from ohmcensus.core.errors import InputError, ReadingTextError, UnknownNameError
from ohmcensus.core.machine.dead_tests import dead_tests
from ohmcensus.core.machine.tests import MachineTest, machine_tests
from ohmcensus.core.machine.uncalled import UNCALLED
from ohmcensus.core.parts.element import CHASSIS
from ohmcensus.core.quantity import Unit, parse_indication
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.text.names import find, folded, nearest

LONGEST_LINE = 160
CONDITIONS = ("dried", "wet", "hot")
AT_250_V = "at 250 V"
_AT_250_V = re.compile(r"\s+at\s+250\s*V\b", re.IGNORECASE)
_LONGEST_NAME_WORDS = 6
_DOOR = re.compile(r"\s+(?:door|lid)\s+(open|shut|locked)\s*$", re.IGNORECASE)
_STEP = re.compile(r"\s+(?:in\s+)?step\s+([a-z][a-z0-9_]{0,29})\s*$", re.IGNORECASE)
_TEMPERATURE = re.compile(r"\s+at\s+(\S+(?:\s*(?:°?[CF]))?)\s*$", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Line:
    """What a line was understood to say.

    Parameters
    ----------
    test
        The test meant, None for a reading between two points that no test names.
    between
        The two points.
    reading
        The part of the text that is the reading, empty where none was typed yet.
    alone, loose
        Whether the part was measured off its plugs; whether it lay loose, in the hand or on the bench.
    celsius
        Temperature stated in the line, None where none was.
    inhand
        Whether the pulled plug is in the hand of whoever measures.
    condition
        State of the part besides its temperature, in the words of a ``Reading``.
    door, step
        How door or lid stood, and in which step of the programme; empty where nothing is said.
    """

    test: MachineTest | None
    between: tuple[str, str]
    reading: str
    alone: bool = False
    loose: bool = False
    celsius: float | None = None
    inhand: bool = False
    condition: str = ""
    door: str = ""
    step: str = ""


def read_line(text: str, sheet: Sheet) -> Line:
    """Understand a line on a machine.

    Parameters
    ----------
    text
        As typed.
    sheet
        The machine's type.

    Raises
    ------
    InputError
        If the line is empty, endless, or names nothing on this sheet; the message says what it may mean.
    """
    if len(text) > LONGEST_LINE:
        what = "the line is far too long"
        raise InputError(what=what, remedy="type one part and one reading", field="line")
    stood, door, step = _split_states(text.strip())
    spoken, at_250_v = _split_voltage(stood)
    body, stated = _split_temperature(spoken)
    _refuse_unknown_step(step, sheet)
    words = body.split()
    if not words:
        raise InputError(what="nothing typed", remedy="type a part and a reading, e.g. heater 25.9", field="line")
    if words[0].casefold() == "between":
        tests = machine_tests(sheet, stated)
        first, second, rest = _points(words[1:], sheet)
        asked = (test for test in tests if test.name != UNCALLED and first != second)
        named = next((test for test in asked if set(test.between) == {first, second}), None)
        return Line(named, (first, second), **_said(rest, at_250_v), celsius=stated, door=door, step=step)
    test, rest = _names(sheet, stated).subject(words)
    return Line(test, test.between, **_said(rest, at_250_v), celsius=stated, door=door, step=step)


# What a line that names no part begins with: a figure, a sign before one, or over-range.
_BARE_READING = re.compile(r"\s*(?:[<>≤≥+\-−~]\s*)?(?:[\d.,]|ol\b)", re.IGNORECASE)


def with_line(text: str, line: str) -> str:
    """Return a typed line with the name of the line in question before it, where only a reading was typed.

    Parameters
    ----------
    text
        As typed.
    line
        Name of the line in question: "heater.element", or both points; empty where none is.
    """
    if not line or not _BARE_READING.match(text):
        return text
    named = f"between {line}" if " " in line else line.replace(".", " ")
    return f"{named} {text.strip()}"


def completions(text: str, sheet: Sheet, *, most: int = 6) -> list[str]:
    """Return whole lines that the typed beginning may become, best first.

    Parameters
    ----------
    text
        As typed so far.
    sheet
        The machine's type.
    most
        How many at most.
    """
    words = text.split()
    tests = (*machine_tests(sheet, None), *dead_tests(sheet))
    if not words:
        return []
    parts = find(words[0], _part_names(sheet))
    if len(words) == 1 and not text.endswith(" "):
        return [f"{part} " for part in parts][:most]
    if len(parts) == 1 and len(words) <= 2:  # noqa: PLR2004 - a part and the beginning of a test
        typed = words[1] if len(words) > 1 else ""
        own = [test for test in tests if test.part == parts[0]]
        return [f"{parts[0]} {test.name} " for test in own if test.name.startswith(folded(typed).replace(" ", "_"))][
            :most
        ]
    return []


def _split_states(text: str) -> tuple[str, str, str]:
    """Split what is said of door and step from the end of a line, behind its reading; in either order."""
    said = {"door": "", "step": ""}
    for _ in said:
        for name, pattern in (("door", _DOOR), ("step", _STEP)):
            match = pattern.search(text)
            if match is not None and not said[name] and _ends_in_reading(text[: match.start()]):
                text, said[name] = text[: match.start()], match[1].casefold()
    return text, said["door"], said["step"]


def _ends_in_reading(text: str) -> bool:
    """Tell whether a line ends in a reading: a title like "current in the step lock" has none before its step."""
    words = text.casefold().split()[1:]
    return any(any(sign.isdigit() for sign in word) or word in {"ol", "open", "none"} for word in words)


def _refuse_unknown_step(step: str, sheet: Sheet) -> None:
    known = sheet.states.get("programme", ())
    if step and step not in known:
        what = f"no step '{step}' in the programme of this machine"
        raise UnknownNameError(what=what, remedy=f"its steps are {', '.join(known) or 'not known'}", field="step")


def _split_voltage(text: str) -> tuple[str, str]:
    """Split "at 250V" from the line: insulation where 500 V would be too much."""
    match = _AT_250_V.search(f" {text}")
    return (text, "") if match is None else (_AT_250_V.sub("", f" {text}").strip(), AT_250_V)


def _split_temperature(text: str) -> tuple[str, float | None]:
    """Split a trailing "at 21C" from the line."""
    match = _TEMPERATURE.search(f" {text}")
    if match is None:
        return text, None
    try:
        stated = parse_indication(match[1], Unit.CELSIUS)
    except ReadingTextError as error:
        raise InputError(what=f"the temperature {error.what}", remedy=error.remedy, field="celsius") from None
    return f" {text}"[: match.start()].strip(), stated.value


class _Said(TypedDict):
    reading: str
    condition: str
    alone: bool
    loose: bool
    inhand: bool


def _said(words: list[str], at_250_v: str) -> _Said:
    """Take "alone", "loose", "inhand" and the condition out of what is left; what lies loose is off its plugs too."""
    said = {word.casefold() for word in words} & {"alone", "loose", "inhand", *CONDITIONS}
    if {"loose", "inhand"} <= said:
        what = "a part lies loose, or the machine's plug is in the hand: not both"
        raise InputError(what=what, remedy="leave one of the two words out", field="line")
    rest = [word for word in words if word.casefold() not in {"alone", "loose", "inhand", *CONDITIONS}]
    conditions = [word for word in CONDITIONS if word in said]
    return _Said(
        reading=" ".join(rest),
        condition=", ".join([*conditions, at_250_v] if at_250_v else conditions),
        alone=bool(said & {"alone", "loose"}),
        loose="loose" in said,
        inhand="inhand" in said,
    )


def _points(words: list[str], sheet: Sheet) -> tuple[str, str, list[str]]:
    """Return two points and the words behind them."""
    if len(words) < 2:  # noqa: PLR2004 - two points
        raise InputError(
            what="'between' needs two points", remedy="type e.g. between heater.a pump.a 12.3", field="line"
        )
    known = {folded(pin): pin for pin in (*sheet.points, CHASSIS)}
    return _point(words[0], known), _point(words[1], known), words[2:]


def _point(typed: str, known: dict[str, str]) -> str:
    """Return the point meant."""
    found = find(typed, known)
    if len(found) == 1:
        return found[0]
    close = [known[name] for name in [nearest(typed, known)] if name] or found[:3]
    hint = f"did you mean {' or '.join(close)}?" if close else "points are written part.pin, e.g. heater.a"
    raise UnknownNameError(what=f"no single point '{typed}' on this sheet", remedy=hint, field="line")


@lru_cache(maxsize=64)
def _names(sheet: Sheet, celsius: float | None) -> _Names:
    return _Names(sheet, (*machine_tests(sheet, celsius), *dead_tests(sheet)))


class _Names:
    """All names that the beginning of a line may have on one machine."""

    def __init__(self, sheet: Sheet, tests: tuple[MachineTest, ...]) -> None:
        self._tests = tests
        self._parts = dict(_part_names(sheet)) | {test.part: test.part for test in dead_tests(sheet)}
        self._by_test = _test_names(tests)
        self._looked_at = {folded(part.id): part for part in sheet.parts if not part.tests()}

    def subject(self, words: list[str]) -> tuple[MachineTest, list[str]]:
        """Return the test that the first words name, and the words behind them."""
        for many in range(min(_LONGEST_NAME_WORDS, len(words)), 0, -1):
            typed = folded(" ".join(words[:many]))
            if typed in self._parts:
                return self._on_part(self._parts[typed], words[many:])
            if typed in self._by_test:
                return self._by_test[typed], words[many:]
        parts, tests = find(words[0], self._parts), find(words[0], self._by_test)
        if len(parts) == 1:
            return self._on_part(parts[0], words[1:])
        if not parts and len(tests) == 1:
            return tests[0], words[1:]
        raise self._unknown(words[0], parts, tests)

    def _on_part(self, part: str, words: list[str]) -> tuple[MachineTest, list[str]]:
        """Return the test named behind a part, the part's first where none is."""
        own = tuple(test for test in self._tests if test.part == part)
        names = _test_names(own)
        for many in range(min(_LONGEST_NAME_WORDS, len(words)), 0, -1):
            typed = " ".join(words[:many])
            found = find(typed, names)
            if found and (folded(typed) in names or not _is_reading(words[0])):
                return _single(words[0], found), words[many:]
        if words and words[0][:1].isalpha() and not _is_reading(words[0]):
            close = nearest(words[0], names)
            hint = f"{names[close].name}?" if close else f"its tests are {', '.join(t.name for t in own)}"
            what = f"no test '{words[0][:40]}' on {own[0].part_title.lower()}"
            raise UnknownNameError(what=what, remedy=hint, field="line")
        return own[0], words

    def _unknown(self, typed: str, parts: list[str], tests: list[MachineTest]) -> UnknownNameError:
        """Build the error for a name that is nowhere, or in more than one place."""
        shown = typed[:40]
        part = self._looked_at.get(folded(typed))
        if part is not None and not tests:
            what = f"nothing is measured on the {part.title.lower()}"
            return UnknownNameError(what=what, remedy="look at it, and note what you see", field="line")
        candidates = parts or [test.id.replace(".", " ") for test in tests]
        if candidates:
            what = f"'{shown}' may be more than one thing on this sheet"
            return UnknownNameError(what=what, remedy=f"{' or '.join(candidates[:4])}?", field="line")
        close = nearest(typed, [*self._parts, *self._by_test])
        known = ", ".join(dict.fromkeys(self._parts.values()))
        hint = f"{self._parts.get(close, close)}?" if close else f"its parts are {known}"
        return UnknownNameError(what=f"no '{shown}' on this sheet", remedy=hint, field="line")


def _single(typed: str, found: list[MachineTest]) -> MachineTest:
    """Return the one test found, or ask which."""
    if len(found) > 1:
        names = " or ".join(test.name for test in found)
        raise UnknownNameError(what=f"'{typed[:40]}' may be more than one test", remedy=f"{names}?", field="line")
    return found[0]


def _is_reading(word: str) -> bool:
    """Tell whether a word that starts with a letter is a reading: OL, R47, "over"."""
    return bool(
        re.fullmatch(
            r"[oO]\.?[lL]|[a-zA-Zμµ]?\d+|over\S*|under|below|above|alone|loose|inhand|dried|wet|hot|infinite|none", word
        )
    )


@lru_cache(maxsize=64)
def _part_names(sheet: Sheet) -> Mapping[str, str]:
    """Return every name of every part that is measured, folded, to its id; ids win over titles, titles over aliases."""
    measured = [part for part in sheet.parts if part.tests()]
    names = {folded(part.id): part.id for part in measured}
    for part in measured:
        for name in (part.title, *part.aliases):
            names.setdefault(folded(name), part.id)
    return names


def _test_names(tests: tuple[MachineTest, ...]) -> dict[str, MachineTest]:
    """Return the names of tests to the first that has it; names of more than one part's are left out."""
    owners: dict[str, list[MachineTest]] = {}
    for test in tests:
        for name in dict.fromkeys(folded(n) for n in (test.name, *test.aliases, test.title)):
            owners.setdefault(name, []).append(test)
    return {name: found[0] for name, found in owners.items() if len(found) == 1}
