"""A typed line on its way to a reading: understood, taken by a meter at hand, admitted, judged; once, in this order."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import PluggedIn, When
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement import Judgement, choose_use, held_on, judge
from ohmcensus.core.machine import Line, machine_tests, read_line
from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.safety.admission import admitted
from ohmcensus.core.safety.power import POWERED
from ohmcensus.core.safety.powered import shows_power
from ohmcensus.core.safety.rules import refuse_event
from ohmcensus.core.safety.state import Safety
from ohmcensus.core.sheet import Sheet

_UNIT_LETTERS = {"v": Function.VOLTS_AC, "a": Function.AMPERE, "f": Function.CAPACITANCE}
_EARTHS = frozenset({"pe", "plug_pe", "end_pe", "chassis"})
_LOW_OHM = Function.CONTINUITY


@dataclass(frozen=True, slots=True)
class Taken:
    """A line that can be stored: its reading, still without id, moment, name and place, and what it says.

    ``is_found`` tells whether it would put a machine under voltage that was thought to have none.
    """

    line: Line
    reading: Reading
    judgement: Judgement
    is_found: bool = False


def taken(  # noqa: PLR0913 - what is typed, and what is chosen beside it
    text: str,
    case: Case,
    meters: Sequence[Meter],
    safety: Safety,
    *,
    function: Function | None = None,
    override: str = "",
    device: str = "",
    loose: bool = False,
    was: str = "",
    says: Mapping[str, str] | None = None,
) -> Taken:
    """Return the reading that a line is.

    Parameters
    ----------
    text
        As typed.
    case, safety
        The job, and where it stands now.
    meters
        Instruments to consider, the preferred one first; just one where it was named.
    function
        What the meter did between two points that no test names; None lets the reading tell.
    override
        Why it is read although the machine is not proved dead; kept only where nothing else lets it through.
    device
        The device that it was typed on.
    loose
        Whether the part lies loose, where the line does not say so itself.
    was
        Of a reading that only a powered machine gives: ``now`` or ``before``; empty where nobody said.
    says
        How ``door`` stood, and in which ``step`` of the programme, where that was asked beside the line.

    Raises
    ------
    OhmcensusError
        If the line cannot be understood, no meter can have shown it, or safety forbids it; with what to do.
    """
    line, did = _did(_at_door(read_line(text, case.sheet), says or {}, case.sheet), text, meters, function)
    use = choose_use(line.reading, line.test, meters, function=did)
    reading = Reading(
        id="",
        between=line.between,
        test=line.test.id if line.test else None,
        function=use.function,
        meter=use.meter,
        indication=use.indication,
        text=text.strip(),
        celsius=REFERENCE_CELSIUS if line.celsius is None else line.celsius,
        is_celsius_stated=line.celsius is not None,
        alone=line.alone or loose,
        loose=line.loose or loose,
        inhand=line.inhand,
        condition=line.condition,
        device=device,
        override=override,
        was=was,
        door=line.door,
        step=line.step,
    )
    if was == When.NOW and safety.state not in POWERED and shows_power(reading, case.terms):
        refuse_event(case, PluggedIn(), safety, device)
    admission = admitted(reading, safety)
    reading = reading if admission.is_overridden else replace(reading, override="")
    return Taken(line, reading, judge(use, held_on(line.test, case) if line.test else None), admission.is_found)


def _at_door(line: Line, says: Mapping[str, str], sheet: Sheet) -> Line:
    """Return a line with what is said beside it, and as the test that the door makes of it.

    A contact that was read as *unlocked* with the door said to be locked is a reading of *locked*, and the other way
    round; a line that says nothing counts as its name says.
    """
    line = replace(line, door=says.get("door") or line.door, step=says.get("step") or line.step)
    part = sheet.part(line.test.part) if line.test is not None else None
    lock = part.part_kind.interlock if part is not None else None
    if line.test is None or lock is None or not line.door or line.test.name not in {lock.at_rest, lock.held}:
        return line
    meant = lock.held if line.door in lock.closed_at else lock.at_rest
    test = next((row for row in machine_tests(sheet, line.celsius) if row.id == f"{line.test.part}.{meant}"), None)
    return line if test is None else replace(line, test=test, between=test.between)


def _did(line: Line, text: str, meters: Sequence[Meter], stated: Function | None) -> tuple[Line, Function]:
    """Return what was done between the points: the test's own, or what the unit of the reading tells.

    Volts between two points that a test of ohms names are volts all the same, and no answer to that test.
    """
    is_direct, reading = _direct(line.reading)
    is_pair = text.strip().casefold().startswith("between")
    told = _UNIT_LETTERS.get(reading.strip().casefold()[-1:]) if is_pair or line.test is None else None
    if line.test is not None and (told is None or told.unit is line.test.function.unit):
        return line, line.test.function
    line = replace(line, test=None, reading=reading)
    if is_direct or stated is not None:
        return line, Function.VOLTS_DC if is_direct else stated or Function.OHM
    return line, _between(line, meters)


def _direct(reading: str) -> tuple[bool, str]:
    """Tell whether a reading names direct current, and return it without the word: "40V dc" is 40 V."""
    words = reading.strip()
    for ending in ("dc", "DC", "ac", "AC"):
        if words.endswith(ending):
            return ending.casefold() == "dc", words.removesuffix(ending).strip()
    return False, reading


def _between(line: Line, meters: Sequence[Meter]) -> Function:
    """Return what is measured between two points: between two earths with a low-ohm range, where one is at hand."""
    function = _by_unit(line.reading)
    is_earth = all(point.rpartition(".")[2] in _EARTHS for point in line.between)
    if function is Function.OHM and is_earth and any(row.measures(_LOW_OHM) for row in meters):
        return _LOW_OHM
    return function


def _by_unit(reading: str) -> Function:
    """Return the function that a typed unit points at, ohms where it names none."""
    if not reading:
        raise InputError(what="no reading typed", remedy="type what the meter shows, e.g. 25.9 or OL", field="line")
    last = reading.strip().casefold()[-1]
    if reading.casefold().endswith("hz"):
        return Function.HERTZ
    return _UNIT_LETTERS.get(last, Function.OHM)
