"""The isolation of a case: which of its parts may leak, what its runs read, and how the machine stands."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from ohmcensus.core.event import Changed, Event, RunDoubted, RunMade
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_down import uncovered
from ohmcensus.core.job.work_time import PLUG_MINUTES
from ohmcensus.core.judgement.parts_out import without
from ohmcensus.core.judgement.passes import EARTH_LINE, WHOLE_LINE, Pass, is_mild, line_of, named_test, passes
from ohmcensus.core.machine.coverage import LOAD_OHM, Driven, driven
from ohmcensus.core.machine.likely import LEAST_WEIGHT, usual_weight
from ohmcensus.core.machine.netlist import Configuration, part_modes
from ohmcensus.core.machine.seen import reaches
from ohmcensus.core.machine.tests import HEALTHY_SHARE
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.quantity import Interval, show_indication
from ohmcensus.core.sheet import Part, Sheet
from ohmcensus.core.symptom import Moment
from ohmcensus.core.trip.house import circuit_of, proved_by_device
from ohmcensus.core.trip.problem import LeakyPart, Method, Polarity, Problem, Run, conductance_us, run_indication
from ohmcensus.core.trip.triage import last_trip

MEGOHM, MILLIAMPERES = 1e6, 1e3
# More than this between neutral and earth at the outlet is no voltage drop (ours).
FLOATING_V = 20.0


@dataclass(frozen=True, slots=True)
class RunRecord:
    """A run as it was made, with the meter or device as it then was and the event that holds it.

    Parameters
    ----------
    event, body
        The record.
    shows
        As it was shown, in print.
    interval
        What it proves of all connected parts, with the whole error: µS or mA.
    is_doubtful
        Whether it is left out of the computation.
    driven
        How far the poles came; None for a part tested at its own tags.
    is_line
        Whether it was typed as a line of the census sheet and not as a leak test.
    """

    event: Event
    body: RunMade
    shows: str
    interval: Interval
    is_doubtful: bool
    driven: Driven | None
    is_line: bool = False

    @property
    def not_reached(self) -> frozenset[str]:
        """Parts that were connected and to which no pole came."""
        return frozenset() if self.driven is None else frozenset(self.driven.not_reached)


def suspects(case: Case, method: Method) -> tuple[Part, ...]:
    """Return the parts that may leak, those left out that hang on plugs which come off before 500 V."""
    return leaky_parts(case.sheet, method)


@lru_cache(maxsize=64)
def leaky_parts(sheet: Sheet, method: Method) -> tuple[Part, ...]:
    """Return the parts of a sheet that a leak test by a method can ask."""
    return tuple(
        part
        for part in sheet.parts
        if part.traits.role is not Role.OUTLET
        and FaultMode.LEAK in part_modes(sheet, part.id)
        and not (method is Method.INSULATION and part.traits.off_before_500_v)
    )


def off_before_test(case: Case) -> tuple[Part, ...]:
    """Return the parts whose plugs come off before 500 V: they are not asked, never cleared."""
    return tuple(part for part in case.sheet.parts if part.traits.off_before_500_v)


def last_run(case: Case) -> Event[RunMade] | None:
    """Return the newest leak test that was not taken back, None where there is none."""
    return next((event for event in reversed(case.of(RunMade)) if event.id not in case.withdrawn_runs), None)


def run_records(case: Case, method: Method, *, with_lines: bool = True) -> tuple[RunRecord, ...]:
    """Return the runs of one method that stand, oldest first.

    Parameters
    ----------
    case
        Sheet and everything observed.
    method
        By which instrument.
    with_lines
        Whether insulation that was typed as a line counts too: ``cord insulation`` is a test of the whole machine.
    """
    doubts = {event.body.run: event.body.is_doubtful for event in case.of(RunDoubted)}
    withdrawn = case.withdrawn_runs
    made = [
        event
        for event in case.of(RunMade)
        if event.body.method == method.value
        and event.id not in withdrawn
        and (event.body.instrument or event.body.device)
    ]
    typed = _typed_as_lines(case, made) if with_lines and method is Method.INSULATION else []
    lines = {event.id for event in typed}
    return tuple(
        RunRecord(
            event,
            event.body,
            _shown(event.body, method),
            _proved(event.body, method),
            doubts.get(event.id, False),
            driven_in(case, event.body),
            event.id in lines,
        )
        for event in sorted((*made, *typed), key=lambda event: event.order)
    )


def _typed_as_lines(case: Case, made: Sequence[Event[RunMade]]) -> list[Event[RunMade]]:
    """Return the insulation that was typed as lines, as the leak tests that it is; one that was made twice is left out.

    The whole machine's is a test of everything that is not off; a part's own, of what its test reaches.
    """
    names = [part.id for part in leaky_parts(case.sheet, Method.INSULATION)]
    known = {(frozenset(event.body.connected), event.body.text) for event in made}
    found = []
    for row in case.standing:
        is_asked = row.test is not None and row.function is Function.INSULATION and not (row.loose or row.override)
        if not is_asked or row.test is None or is_mild(row) or row.indication.has_moved:
            continue
        if named_test(row.test, case.terms) is None:
            # Read on the sheet that held then: the parts of this one are not told by it.
            continue
        part, _, test = row.test.partition(".")
        inside = set(names) - without(row, case) if row.test == WHOLE_LINE else set(reaches(case.sheet, part, test))
        connected = tuple(name for name in names if name in inside)
        text = show_indication(row.indication)
        if connected and (frozenset(connected), text) not in known:
            body = RunMade(method="insulation", connected=connected, text=text, instrument=row.meter)
            found.append(Event(row.id, body, row.at, row.who, row.order))
    return found


def convicted(case: Case, method: Method, guilty: Collection[str], records: Sequence[RunRecord]) -> frozenset[str]:
    """Return those of some parts of which leak tests prove a leak.

    Insulation that was typed as a line tells whose it is too, where a leak test reads the same leak; lines alone name
    nobody: each is one reading, and what it reaches may be more than its part.

    Parameters
    ----------
    case, method
        Whose limits.
    guilty
        Parts that leak by all the records.
    records
        Leak tests and lines.
    """
    return frozenset(
        name
        for name in guilty
        if any(
            not run.is_line and name in run.body.connected and run.interval.lo > limit_of(case, name, method)
            for run in records
        )
    )


def driven_in(case: Case, run: RunMade) -> Driven | None:
    """Return how far the poles come in a run, through loads too; None for a part tested at its own tags."""
    inside = {*run.connected, *run.maybe}
    if len(inside) == 1:
        return None
    leaky = {part.id for part in case.sheet.parts if FaultMode.LEAK in part_modes(case.sheet, part.id)}
    loose = frozenset(leaky - inside)
    configuration = Configuration(states=run.states)
    wires = driven(case.sheet, configuration, without=loose)
    reached = driven(case.sheet, configuration, without=loose, below_ohm=LOAD_OHM)
    return Driven(wires.from_line, wires.only_from_neutral, reached.not_reached)


def problem_of(
    case: Case, method: Method, *, until: float = math.inf, records: Sequence[RunRecord] | None = None
) -> Problem:
    """Return the isolation of a case by one method.

    A part to which no pole came in a run is perhaps connected: a pass never clears it. A part that was changed is
    another part from then on; what it was before stands among the former ones, so that runs made with it still say
    what they say of all others.

    Parameters
    ----------
    case
        Sheet and everything observed.
    method
        Runs of an insulation tester, or of a leakage tester.
    until
        Order of the last record that counts.
    records
        All runs of the method, where they are at hand.
    """
    parts = suspects(case, method)
    every = run_records(case, method) if records is None else records
    counted = [record for record in every if record.event.order <= until]
    orders = _changes(case, until)
    rows = tuple(row for record in counted if (row := _run(record, {part.id for part in parts}, orders)))
    former = {name for row in rows for name in row.connected | row.maybe} - {part.id for part in parts}
    last_whole = max((r.event.order for r in counted if {part.id for part in parts} <= {*r.body.connected}), default=0)
    return Problem(
        method=method,
        parts=(
            *(_suspect(case, part, method, {part.id for part in parts}) for part in parts),
            *(LeakyPart(name, math.inf) for name in sorted(former)),
        ),
        runs=rows,
        panels=dict(case.cover_minutes),
        open_panels=uncovered(case),
        is_earth_ok=not earth_failed(case),
        is_neutral_earthed=not neutral_floats(case),
        former=frozenset(former),
        is_whole_untested=bool(counted) and all(row.is_line and len(row.body.connected) == 1 for row in counted),
        is_changed=bool(counted) and any(order > last_whole for row in orders.values() for order in row),
    )


def _changes(case: Case, until: float) -> dict[str, tuple[int, ...]]:
    """Return for every part when it was changed."""
    found: dict[str, tuple[int, ...]] = {}
    for event in case.of(Changed):
        if event.order <= until:
            found[event.body.part] = (*found.get(event.body.part, ()), event.order)
    return found


def _run(record: RunRecord, names: set[str], changes: Mapping[str, tuple[int, ...]]) -> Run | None:
    """Return a run of the parts as they were when it was made; None where it asked none of them."""

    def as_it_was(part: str) -> str:
        later = sum(order > record.event.order for order in changes.get(part, ()))
        return f"{part} {later} before" if later else part

    body, unreached = record.body, record.not_reached
    connected = frozenset(as_it_was(part) for part in body.connected if part in names and part not in unreached)
    perhaps = {*body.maybe, *(unreached & {*body.connected})} & names
    if not connected and not perhaps:
        return None
    return Run(
        id=record.event.id,
        connected=connected,
        interval=record.interval,
        maybe=frozenset(as_it_was(part) for part in perhaps),
        is_doubtful=record.is_doubtful,
        is_intermittent=body.is_intermittent,
        polarity=Polarity(body.polarity) if body.polarity else None,
    )


def earth_failed(case: Case) -> bool:
    """Tell whether the last reading of the protective conductor lies outside its window with its whole error."""
    rows = [reading for reading in case.standing if line_of(reading, case.terms) == EARTH_LINE and not reading.loose]
    return bool(rows) and passes(rows[-1], case.terms) is Pass.BAD


def neutral_floats(case: Case) -> bool:
    """Tell whether the neutral is not earthed: by what is noted of the circuit, or volts between N and earth.

    On an isolated supply or with two live poles N stands far from earth; a few volts are the drop of a load.
    """
    if not circuit_of(case).supply.is_neutral_earthed:
        return True
    rows = [reading for reading in case.standing if reading.test == "outlet.ne"]
    volts = rows[-1].indication.value if rows else None
    return volts is not None and volts > FLOATING_V


def _suspect(case: Case, part: Part, method: Method, names: set[str]) -> LeakyPart:
    prior = usual_weight(part, FaultMode.LEAK)
    rides = names - {part.id, *_before_harness(case.sheet)} if part.traits.role is Role.HARNESS else set()
    is_insulation = method is Method.INSULATION
    return LeakyPart(
        id=part.id,
        limit=limit_of(case, part.id, method),
        weight=max(LEAST_WEIGHT, prior * _at_plugging_in(case, part)),
        minutes=2 * PLUG_MINUTES,
        behind=part.behind,
        healthy=MEGOHM / (HEALTHY_SHARE * part.traits.healthy_insulation_ohm) if is_insulation else math.inf,
        rides_with=frozenset(rides),
    )


# What goes on plugging in is before the first switch, this many times as often as behind it (ours).
BEFORE_THE_SWITCH = 6.0


def goes_on_plugging_in(case: Case) -> bool:
    """Tell whether it trips as soon as it is plugged in, as it was told last."""
    return last_trip(case)[1] is Moment.PLUGGING_IN


def _at_plugging_in(case: Case, part: Part) -> float:
    """Return how much likelier a part leaks since it trips on plugging in, at which cord and filter stand."""
    is_before = part.traits.role in {Role.CORD, Role.FILTER}
    return BEFORE_THE_SWITCH if is_before and goes_on_plugging_in(case) else 1.0


def _before_harness(sheet: Sheet) -> set[str]:
    """Return the parts that the leads hang on, and not the other way round."""
    return {part.id for part in sheet.with_role(Role.CORD, Role.FILTER)}


def limit_of(case: Case, part: str, method: Method) -> float:
    """Return the least leak that counts as a fault: mA or µS."""
    if method is Method.LEAKAGE:
        return case.limits.part_ma
    return MEGOHM / case.terms.least_ohm(part)


def _proved(body: RunMade, method: Method) -> Interval:
    """Return what a run proves of all connected parts, with its meter's whole error: µS or mA."""
    if body.device is not None:
        return proved_by_device(body.device, tripped=bool(body.has_tripped)).scaled(MILLIAMPERES)
    assert body.instrument is not None  # noqa: S101 - filled in when a run is taken
    shown = run_indication(body.text, method, body.instrument.over_range_texts)
    interval = body.instrument.interval_of(shown, body.function)
    if method is Method.LEAKAGE:
        return Interval(max(0.0, interval.lo), interval.hi).scaled(MILLIAMPERES)
    return conductance_us(interval.scaled(1 / MEGOHM), 0.0)


def _shown(body: RunMade, method: Method) -> str:
    if body.instrument is None:
        return body.text
    return show_indication(run_indication(body.text, method, body.instrument.over_range_texts))
