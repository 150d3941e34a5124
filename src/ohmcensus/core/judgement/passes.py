"""Does this reading pass? The one answer, for safety, trip, proof, shelf and screen alike.

A limit is kept only where the whole interval of the reading keeps it, and broken only where the whole interval
breaks it; between the two nothing is said.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache

from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.limited import limited
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import MachineTest, dead_tests, is_proof, machine_tests
from ohmcensus.core.machine.net import PLUG_PE, Crossing, is_whole, nets_of
from ohmcensus.core.machine.quick_line import AT_250_V
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Proves, Role
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window

# Names of lines that stand for more than one way to read them.
EARTH_LINE, WHOLE_LINE = "cord.pe", "cord.insulation"
_OHMS = frozenset({Function.OHM, Function.CONTINUITY, Function.INSULATION})


class Pass(StrEnum):
    """Whether a reading keeps its limit."""

    GOOD = "good"
    BAD = "bad"
    UNSURE = "unsure"


@dataclass(frozen=True, slots=True)
class Held:
    """A limit that a line is held to.

    Parameters
    ----------
    window
        What it may read.
    crossing
        What lies between its points.
    proper
        What the instrument must do to pass; it may fail by another one.
    """

    window: Window
    crossing: Crossing
    proper: frozenset[Function]


def passes(reading: Reading, terms: Terms) -> Pass:
    """Tell whether a reading keeps the limit of its line, on the terms that hold.

    Parameters
    ----------
    reading
        Of a test, or between two points that no test names.
    terms
        Sheet, class and limits.

    Returns
    -------
    Pass
        *unsure* as well where no limit is known, and where a lesser instrument shows what only a proper one proves.
    """
    held = held_to(reading, terms)
    if held is None:
        return Pass.UNSURE
    is_proper = reading.function in held.proper and not (held.crossing is Crossing.INSULATION and is_mild(reading))
    return kept(interval_of(reading), held.window.interval, is_proper=is_proper)


def is_mild(reading: Reading) -> bool:
    """Tell whether insulation was read at 250 V: it can fail so, and proves nothing of 500 V."""
    return reading.function is Function.INSULATION and AT_250_V in reading.condition


def kept(interval: Interval, limit: Interval, *, is_proper: bool = True) -> Pass:
    """Tell whether an interval keeps a limit; only the proper instrument can keep it.

    Parameters
    ----------
    interval
        What a reading proves, in the unit of the limit.
    limit
        What it is held to.
    is_proper
        Whether the proper instrument read it: a lesser one can only fail.
    """
    if limit.contains(interval):
        return Pass.GOOD if is_proper else Pass.UNSURE
    return Pass.BAD if interval.lo > limit.hi or interval.hi < limit.lo else Pass.UNSURE


def interval_of(reading: Reading) -> Interval:
    """Return all values that a reading may stand for."""
    return reading.meter.interval_of(reading.indication, reading.function)


def held_to(reading: Reading, terms: Terms) -> Held | None:
    """Return the limit that a reading is held to, None where none is known."""
    crossing = nets_of(terms.sheet).crossing(reading.between)
    if is_current(reading.function):
        return Held(_at_most(terms.conductor_a, terms), crossing, frozenset({reading.function}))
    test = named_test(reading.test, terms, reading.stated_celsius)
    if test is not None:
        proper = {test.function}
        if test.weaker is not None and not test.weaker.proves_nothing and not test.weaker.blind_to:
            proper |= {test.weaker.function}
        if reading.function not in proper and not _may_fail_by(reading, test):
            return None
        return Held(test.window, crossing, frozenset(proper))
    return _held_between(reading.between, reading.function, crossing, terms)


def is_current(function: Function) -> bool:
    """Tell whether an instrument reads a current to earth."""
    return function is Function.LEAKAGE


def named_test(name: str | None, terms: Terms, celsius: float | None = None) -> MachineTest | None:
    """Return a test of the sheet with the limit that holds in its window, None where there is none of that name.

    Parameters
    ----------
    name
        "heater.pe".
    terms
        Sheet, class and limits.
    celsius
        Temperature of the part, None where nobody stated it.
    """
    return _tests(terms, celsius).get(name or "")


@lru_cache(maxsize=256)
def _tests(terms: Terms, celsius: float | None) -> dict[str, MachineTest]:
    """Return every test by its id, held to the limits; those of the proof of dead among them."""
    held = {test.id: limited(test, terms) for test in machine_tests(terms.sheet, celsius)}
    return held | {test.id: test for test in dead_tests(terms.sheet)}


def line_of(reading: Reading, terms: Terms) -> str:
    """Return the line that a reading belongs to: its test, or both points; one name for one pair of points."""
    if reading.test and is_proof(reading.test):
        return reading.test
    return line_between(reading.between, reading.test, terms)


def line_between(between: tuple[str, str], test: str | None, terms: Terms) -> str:
    """Return the name of a line; earth from the plug's pin goes by what it ends on.

    Parameters
    ----------
    between
        Two points.
    test
        The test that was meant, None where none was.
    terms
        Sheet, class and limits.
    """
    nets = nets_of(terms.sheet)
    if nets.crossing(between) is Crossing.EARTH:
        ends = set(between) - {PLUG_PE}
        if len(ends) == 1 and PLUG_PE in between:
            end = ends.pop()
            part, _, pin = end.rpartition(".")
            return f"{part}.earth" if pin == "pe" and part not in {"cord", "outlet"} else _plain_earth(end)
    return test or " ".join(sorted(between))


def _plain_earth(end: str) -> str:
    """Return the name of the protective conductor's line, or of both points where it ends on something else."""
    return EARTH_LINE if end in {"cord.end_pe", "chassis"} else " ".join(sorted((PLUG_PE, end)))


def part_of(line: str, terms: Terms) -> str | None:
    """Return the part whose line it is, None for the whole machine's and for what lies before it."""
    test = named_test(line, terms)
    between = test.between if test else tuple(line.split(" "))
    if nets_of(terms.sheet).crossing((between[0], between[-1])) is Crossing.INSULATION and any(map(is_whole, between)):
        return None
    nets = nets_of(terms.sheet)
    owners = [test.part] if test else [point.partition(".")[0] for point in between if point not in nets.earth]
    owners += [point.partition(".")[0] for point in between]
    return next((part for part in owners if _is_inside(part, terms)), None)


def _is_inside(name: str, terms: Terms) -> bool:
    """Tell whether a name is that of a part of the machine, and not of the house."""
    part = terms.sheet.part(name)
    return part is not None and part.traits.role is not Role.OUTLET


def earth_line_of(part: str) -> str:
    """Return the name of a part's own earth line."""
    return f"{part}.earth"


@lru_cache(maxsize=512)
def insulation_lines_of(part: str, terms: Terms) -> tuple[str, ...]:
    """Return the insulation tests of a part by itself; those before the machine are the whole's."""
    return tuple(
        test.id
        for test in machine_tests(terms.sheet, 20.0)
        if test.part == part and test.function is Function.INSULATION and not is_whole(test.between[0])
    )


def whole_lines(terms: Terms, proves: Proves) -> tuple[str, ...]:
    """Return the tests that prove something of the whole machine."""
    return tuple(test.id for test in machine_tests(terms.sheet, 20.0) if test.proves is proves)


def _held_between(between: tuple[str, str], function: Function, crossing: Crossing, terms: Terms) -> Held | None:
    """Return the limit between two points that no test names."""
    if function not in _OHMS:
        return None
    if crossing is Crossing.INSULATION:
        point = next(point for point in between if point in nets_of(terms.sheet).mains)
        least = terms.least_ohm(None if is_whole(point) else point.partition(".")[0])
        window = Window(Interval(least), Unit.OHM, Source.COMMON, terms.basis)
        return Held(window, crossing, frozenset({Function.INSULATION}))
    if crossing is Crossing.EARTH:
        cord = named_test(EARTH_LINE, terms)
        if cord is not None:
            return Held(cord.window, crossing, frozenset({Function.CONTINUITY}))
    return None


def _may_fail_by(reading: Reading, test: MachineTest) -> bool:
    """Tell whether a lesser instrument can show that a line is bad: ohms where insulation is asked."""
    return test.function in _OHMS and reading.function in _OHMS


def _at_most(ampere: float, terms: Terms) -> Window:
    return Window(Interval(-math.inf, ampere), Unit.AMPERE, Source.COMMON, terms.basis)


def all_pass(found: Iterable[Pass]) -> bool:
    """Tell whether every one of some readings is good."""
    return all(each is Pass.GOOD for each in found)
