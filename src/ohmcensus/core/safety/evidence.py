"""What a reading or a leak test says of a line, and whether it keeps the limit on any terms."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from enum import StrEnum

from ohmcensus.core.event import Event, ProofMade, RunMade
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import (
    WHOLE_LINE,
    Pass,
    held_to,
    insulation_lines_of,
    is_mild,
    kept,
    line_of,
    named_test,
    passes,
)
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.meter import Function
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.quantity import Interval, Unit, parse_indication, show_indication
from ohmcensus.core.trip.of_case import leaky_parts, run_records
from ohmcensus.core.trip.problem import Method, run_indication
from ohmcensus.core.trip.words import connected_words


class Weight(StrEnum):
    """What an answer does to those before it: it is one more good one, takes them away, or says nothing of them."""

    GOOD = "good"
    TAKES = "takes"
    NOTHING = "nothing"


LEAK_TEST = "leak test"
_IN_MA = " mA"
# Lines of the currents that a proof measures under power.
PROOF_LINE = "proof."
TOUCH = "touch"
# Good answers in a row that settle what came and went, each so long after the one before (SAFETY).
ROWS_THAT_SETTLE, APART = 3, timedelta(minutes=1)


@dataclass(frozen=True, slots=True)
class Evidence:
    """One answer to one line.

    Parameters
    ----------
    id, order, at
        The record, its place in the log, its moment.
    line
        What it asked.
    reading
        The reading, None of a leak test and of a current of the proof.
    interval
        What it may stand for, in ohms or amperes.
    shows
        As it was shown.
    connected
        Parts that a leak test asked.
    is_touch
        Whether it is a touch current.
    without
        Parts that were off as the whole machine was read: it says nothing of them, and nothing of the whole.
    is_shut
        Whether every cover was on.
    is_by_arrester, is_lead_off
        Whether 250 V are enough, since a surge arrester goes to earth; whether its earth lead was off.
    weight
        What it does to the answers before it.
    """

    id: str
    order: int
    at: str
    line: str
    interval: Interval
    shows: str
    reading: Reading | None = None
    connected: frozenset[str] = frozenset()
    is_touch: bool = False
    without: frozenset[str] = frozenset()
    is_shut: bool = True
    is_by_arrester: bool = False
    is_lead_off: bool = False
    weight: Weight = Weight.NOTHING

    @property
    def is_blind(self) -> bool:
        """Whether it was read past something that is off and says nothing of its line: it can only fail."""
        return bool(self.without) and not self.connected

    def result(self, terms: Terms) -> Pass:
        """Tell whether it keeps the limit of its line on some terms."""
        if self.reading is not None and not self.connected:
            held = held_to(self.reading, terms) if self.is_by_arrester else None
            return passes(self.reading, terms) if held is None else kept(self.interval, held.window.interval)
        if self.line.startswith(PROOF_LINE):
            return kept(self.interval, Interval(hi=terms.touch_a if self.is_touch else terms.conductor_a))
        if self.line.endswith(" mA"):
            return kept(self.interval, Interval(hi=terms.conductor_a))
        part = next(iter(self.connected)) if len(self.connected) == 1 else None
        is_proper = self.reading is None or not is_mild(self.reading)
        return kept(self.interval, Interval(terms.least_ohm(part)), is_proper=is_proper)

    def is_kept_by_a_lesser(self, terms: Terms) -> bool:
        """Tell whether it keeps its limit and only the instrument is the lesser one: that takes nothing away."""
        held = held_to(self.reading, terms) if self.reading is not None else None
        return held is not None and held.window.interval.contains(self.interval)

    def limit(self, terms: Terms) -> str:
        """Return the limit of its line in print, empty where none is known."""
        held = held_to(self.reading, terms) if self.reading is not None else None
        return held.window.shown if held else ""


def standing_good(rows: tuple[Evidence, ...]) -> tuple[Evidence, ...]:
    """Return the good answers since the last one that took away what was shown, oldest first."""
    taken = max((place for place, row in enumerate(rows) if row.weight is Weight.TAKES), default=-1)
    return tuple(row for row in rows[taken + 1 :] if row.weight is Weight.GOOD)


def is_settled_by(rows: Iterable[Evidence]) -> bool:
    """Tell whether good answers in a row settle what came and went: three, each a minute or more after the last."""
    many, last = 0, None
    for row in rows:
        at = datetime.fromisoformat(row.at)
        if last is None or at - last >= APART:
            many, last = many + 1, at
    return many >= ROWS_THAT_SETTLE


def of_reading(reading: Reading, terms: Terms) -> Evidence:
    """Return what a reading says of its line."""
    interval = reading.meter.interval_of(reading.indication, reading.function)
    line = line_of(reading, terms)
    return Evidence(reading.id, reading.order, reading.at, line, interval, show_indication(reading.indication), reading)


def of_leak_test_without(row: Evidence, terms: Terms) -> Evidence:
    """Return a reading of the whole machine as the leak test without the parts that were off; other lines as they are.

    Only 500 V on the whole are such a test: neutral alone, or ohms from pole to pole, keep their line and only fail.
    """
    if row.line != WHOLE_LINE or row.reading is None or row.reading.function is not Function.INSULATION:
        return row
    inside = frozenset(part.id for part in leaky_parts(terms.sheet, Method.INSULATION)) - row.without
    line = line_of_leak_test(inside, is_sure=False, method=Method.INSULATION, terms=terms)
    return replace(row, line=line, connected=inside)


def of_leak_test(event: Event, body: RunMade, terms: Terms) -> Evidence | None:
    """Return what a leak test says of the parts in it; None where a protective device answered."""
    if body.instrument is None:
        return None
    method = Method(body.method)
    shown = run_indication(body.text, method, body.instrument.over_range_texts)
    interval = body.instrument.interval_of(shown, body.function)
    inside = frozenset({*body.connected, *body.maybe})
    line = line_of_leak_test(inside, is_sure=not body.maybe and not body.is_intermittent, method=method, terms=terms)
    return Evidence(event.id, event.order, event.at, line, interval, show_indication(shown), connected=inside)


def leak_tests_as_lines(case: Case) -> tuple[Reading, ...]:
    """Return the leak tests that are a test of the sheet as readings of it: the whole machine's, a part's own.

    One that was typed as that line too is left out; a doubted one and one that comes and goes says nothing there.
    """
    typed = {(row.test, show_indication(row.indication)) for row in case.standing}
    found = []
    for record in run_records(case, Method.INSULATION, with_lines=False):
        evidence = of_leak_test(record.event, record.body, case.terms)
        test = named_test(evidence.line, case.terms) if evidence is not None else None
        if test is None or record.is_doubtful or record.body.is_intermittent or record.body.instrument is None:
            continue
        if (test.id, record.shows) in typed:
            continue
        body = record.body
        found.append(
            Reading(
                id=record.event.id,
                between=test.between,
                test=test.id,
                function=body.function,
                meter=record.body.instrument,
                indication=run_indication(body.text, Method.INSULATION, record.body.instrument.over_range_texts),
                text=body.text,
                celsius=REFERENCE_CELSIUS,
                is_celsius_stated=False,
                at=record.event.at,
                who=record.event.who,
                order=record.event.order,
            )
        )
    return tuple(found)


def is_leak_test(line: str) -> bool:
    """Tell whether a line is that of a leak test of several parts, and not one of the sheet's."""
    return line.startswith(f"{LEAK_TEST} ")


def leak_test_title(line: str, terms: Terms) -> str:
    """Return the line of a leak test in print: "leak test of all but Heater"."""
    method = Method.LEAKAGE if line.endswith(_IN_MA) else Method.INSULATION
    names = line.removeprefix(f"{LEAK_TEST} ").removesuffix(_IN_MA).split()
    return f"{LEAK_TEST} of {connected_words(terms.sheet, names, method)}"


def line_of_leak_test(connected: frozenset[str], *, is_sure: bool, method: Method, terms: Terms) -> str:
    """Return the line that a leak test answers: the whole machine's, a part's own, or that of its set alone."""
    names = " ".join(sorted(connected))
    if method is Method.LEAKAGE:
        return f"{LEAK_TEST} {names}{_IN_MA}"
    if is_sure and connected >= {part.id for part in leaky_parts(terms.sheet, method)}:
        return WHOLE_LINE
    own = insulation_lines_of(names, terms) if len(connected) == 1 else ()
    return own[0] if own and is_sure else f"{LEAK_TEST} {names}"


def of_proof(event: Event, body: ProofMade) -> Evidence | None:
    """Return what a current of the proof says, None of what was only seen."""
    if body.instrument is None:
        return None
    shown = parse_indication(body.text, Unit.AMPERE, over_range_texts=body.instrument.over_range_texts)
    interval = body.instrument.interval_of(shown, Function.LEAKAGE)
    line = f"{PROOF_LINE}{body.criterion}"
    is_touch = body.criterion == TOUCH
    return Evidence(event.id, event.order, event.at, line, interval, show_indication(shown), is_touch=is_touch)
