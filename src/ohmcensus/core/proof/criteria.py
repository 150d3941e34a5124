"""What a repaired machine has to show, in the order in which it is shown.

Order, methods and limits as in EN 50678 and EN 50699, from memory; 120 V practice where the supply is of that world.
Each part of the order protects the next: no voltage on a machine whose earth is not proved.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.event import Changed
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.mains_plug import is_plug_turned_freely
from ohmcensus.core.judgement import limited
from ohmcensus.core.judgement.passes import earth_line_of, insulation_lines_of, named_test
from ohmcensus.core.judgement.whole import hidden_from_plug
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.asked import steps
from ohmcensus.core.parts.kind import Heats, Proves
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.safety import Safety
from ohmcensus.core.sheet import Sheet


class ShownBy(StrEnum):
    """How a criterion is shown."""

    SEEN = "seen"
    READING = "reading"
    CURRENT = "current"
    RUN = "run"
    HEAT = "heat"
    GFCI = "gfci"


@dataclass(frozen=True, slots=True)
class Criterion:
    """One thing to show.

    Parameters
    ----------
    id, title, how
        Its name, what it is, what to do.
    kind
        Seen, a reading of the quick line, a current with its method, a watched run, the warming timed in one, or a run
        that held on a GFCI.
    window
        What it has to read, None where it is seen.
    test
        Test of the sheet whose reading shows it, empty for all others.
    caution
        What can hurt here.
    is_optional
        Whether it blocks nothing while it is not shown; shown and bad it does.
    """

    id: str
    title: str
    how: str
    kind: ShownBy
    window: Window | None = None
    test: str = ""
    caution: str = ""
    is_optional: bool = False

    @property
    def named(self) -> str:
        """Its title within a sentence: "insulation at 500 V"; what is written in capitals stays so."""
        return self.title if self.title[:2].isupper() else f"{self.title[:1].lower()}{self.title[1:]}"


class Asked(StrEnum):
    """How much a machine has to show, by what was done to it."""

    NOTHING = "nothing"
    SEEN = "seen"
    CLOSED = "closed"
    WHOLE = "whole"


def asked(safety: Safety) -> Asked:
    """Return how much is asked.

    All of it where a part was changed or had its earth off, or where a shock, a trip, a smell or water stood; where
    plugs were pulled, seen, earth, insulation and one run; where covers came off alone, seen.
    """
    marks = safety.walk.marks
    if marks.change or marks.earth or marks.hazard:
        return Asked.WHOLE
    return Asked.CLOSED if marks.plug else Asked.SEEN if marks.cover else Asked.NOTHING


_CLOSED = frozenset({"visual", "protective_conductor", "insulation", "function"})


def criteria(case: Case, safety: Safety) -> tuple[Criterion, ...]:
    """Return what the machine of a case has to show, in order; all of it where nothing is asked yet."""
    every, much = every_criterion(case, safety), asked(safety)
    if much is Asked.SEEN:
        strap = {EARTH} if safety.walk.marks.strap else set[str]()
        return tuple(row for row in every if row.id in {"visual", *strap})
    if much is Asked.CLOSED:
        return tuple(row for row in every if row.id in _CLOSED or row.id.startswith((OWN_INSULATION, OWN_EARTH)))
    return every


def every_criterion(case: Case, safety: Safety) -> tuple[Criterion, ...]:
    """Return all that a machine of this kind can be asked, in order, whether it is asked now or not."""
    return tuple(_criteria(case, safety))


def tub_heater_watts(sheet: Sheet) -> float:
    """Return the stamped power of what heats the tub, nought where nothing does."""
    return sum(float(getattr(part.ratings, "watts", 0.0)) for part in sheet.parts if part.traits.heats is Heats.TUB)


def _is_heating_touched(case: Case) -> bool:
    """Tell whether a part was changed that the heating hangs on."""
    changed = {event.body.part for event in case.of(Changed) if isinstance(event.body, Changed)}
    return any(part.id in changed and part.traits.governs_heat for part in case.sheet.parts)


def _criteria(case: Case, safety: Safety) -> Iterator[Criterion]:
    yield Criterion("visual", "Looked at", "Cord, plug, covers, seals, earth tags: whole and in place.", ShownBy.SEEN)
    drum = "Turned by hand, the machine unplugged: no knock, no scrape."
    yield Criterion("drum", "Drum turns free", drum, ShownBy.SEEN)
    is_barred = is_insulation_barred(safety)
    yield from _dead(case, safety, is_barred=is_barred)
    yield from _currents(case, is_barred=is_barred)
    yield Criterion("function", "Runs through", _whole_run(case.sheet), ShownBy.RUN)
    if tub_heater_watts(case.sheet) and _is_heating_touched(case):
        how = "Time the heating: litres, temperature by thermometer before and after. Dry heat: stop at once."
        yield Criterion("heat", "Water warms as computed", how, ShownBy.HEAT, is_optional=True)
    yield Criterion("joints", "No leak", "Every joint that was disturbed is dry after the run.", ShownBy.SEEN)
    if case.sheet.service.schemes:
        yield Criterion("codes", "Codes cleared and read again", "None is stored after the run.", ShownBy.SEEN)


def _whole_run(sheet: Sheet) -> str:
    """Return what has to be seen in a run: each step of this machine's programme."""
    own = [_SEEN_AS.get(step, step.replace("_", " ")) for step in steps(sheet)]
    if not own:
        return "Every step of a programme, to its end."
    words = ", ".join([*own, *(("unlock",) if "lock" in own else ())])
    return f"{words[0].upper()}{words[1:]}."


# Where the name of a step alone leaves out what to look for.
_SEEN_AS = {"turn": "turn both ways"}


def _dead(case: Case, safety: Safety, *, is_barred: bool) -> Iterator[Criterion]:
    """Yield earth and insulation: readings of the quick line, machine proved dead or its plug in the hand."""
    terms = case.terms
    words = {
        Proves.EARTH: (EARTH, "Protective conductor", "From the plug's earth pin, cord flexed."),
        Proves.INSULATION: ("insulation", "Insulation at 500 V", "L and N joined against earth, switched on."),
    }
    for test in machine_tests(case.sheet, None):
        if test.proves is None or (test.proves is Proves.EARTH and terms.is_class_ii):
            continue
        if test.proves is Proves.INSULATION and is_barred:
            continue
        name, title, how = words[test.proves]
        window = limited(test, terms).window
        caution = _CAUTION if test.proves is Proves.INSULATION else ""
        yield Criterion(name, title, how, ShownBy.READING, window, test.id, caution)
        if test.proves is Proves.EARTH:
            yield from _own_earths(terms, safety)
    if not is_barred:
        yield from _hidden(terms)


def _own_earths(terms: Terms, safety: Safety) -> Iterator[Criterion]:
    """Yield the earth of each part that was worked on or unplugged: a tag left off is not seen from elsewhere."""
    for part in terms.sheet.parts:
        test = named_test(earth_line_of(part.id), terms)
        if part.id in safety.walk.marks.own and part.is_earthed and test is not None:
            title = f"Earth of the {part.title.lower()}"
            how = "From the plug's earth pin to its body: it was off, or worked on."
            yield Criterion(f"{OWN_EARTH}{part.id}", title, how, ShownBy.READING, test.window, test.id)


_CAUTION = "Hands off while it drives 500 V; discharge after."
OWN_INSULATION, OWN_EARTH, EARTH = "insulation_", "earth_", "protective_conductor"


def _hidden(terms: Terms) -> Iterator[Criterion]:
    """Yield the insulation of each part that the plug does not see."""
    for part in hidden_from_plug(terms):
        lines = insulation_lines_of(part, terms)
        test = named_test(lines[0], terms) if lines else None
        if test is not None:
            title = f"Insulation of the {test.part_title.lower()}"
            how = f"At its own tags: the plug does not see it. {test.advice}"
            yield Criterion(f"{OWN_INSULATION}{part}", title, how, ShownBy.READING, test.window, test.id, _CAUTION)


def is_insulation_barred(safety: Safety) -> bool:
    """Tell whether insulation may not be tested: the current with heat on is mandatory then."""
    return safety.walk.when("insulation barred") >= 0


def _currents(case: Case, *, is_barred: bool) -> Iterator[Criterion]:
    live = "Under power, panels shut: touch nothing but the tester."
    terms = case.terms
    if case.limits.is_held_on_gfci and not is_barred:
        how = "One full run on a GFCI, the house's or one brought along: it must hold. Else the current, measured."
        yield Criterion("current", "Held on a GFCI", how, ShownBy.GFCI, caution=live)
    elif not terms.is_class_ii:
        window = _at_most(terms.conductor_a, terms)
        heat = ", heat on" if is_barred else ""
        ways = [("current", f"Machine running{heat}."), ("current_turned", f"The same{heat}, plug turned.")]
        for name, how in ways if is_plug_turned_freely(case) else ways[:1]:
            turned = ", plug turned" if name == "current_turned" else ""
            yield Criterion(name, f"Protective conductor current{turned}", how, ShownBy.CURRENT, window, caution=live)
    else:
        yield Criterion(
            "touch",
            "Touch current",
            "Every metal part that can be touched and is not earthed.",
            ShownBy.CURRENT,
            _at_most(terms.touch_a, terms),
            caution=live,
        )


def _at_most(ampere: float, terms: Terms) -> Window:
    return Window(Interval(-math.inf, ampere), Unit.AMPERE, Source.COMMON, terms.basis)
