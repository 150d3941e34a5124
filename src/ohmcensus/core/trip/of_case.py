"""The isolation of a case: which of its parts may leak, what its runs read, and how the machine stands."""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.case import Case
from ohmcensus.core.event import Event, Opened, RunDoubted, RunMade
from ohmcensus.core.machine import MachineTest, machine_tests
from ohmcensus.core.machine.netlist import part_modes
from ohmcensus.core.meter import Meter
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Proves
from ohmcensus.core.quantity import Indication, Interval
from ohmcensus.core.sheet import Part
from ohmcensus.core.trip.problem import Method, Polarity, Problem, Run, Suspect, conductance_us, run_indication

# Their plugs come off before 500 V is applied; what hangs on them alone is not asked (common practice, no source).
OFF_BEFORE_500_V = frozenset(
    {"ntc", "rotor_position_sensor", "motor_control_board", "interface_board", "level_sensor", "flow_meter"}
)
# Least insulation in MΩ: EN 50678 class I with and without heating elements, class II (from memory).
HEATING = frozenset({"heater", "steam_heater", "dryer_heater"})
HEATING_MEGOHM, CLASS_I_MEGOHM, CLASS_II_MEGOHM = 0.3, 1.0, 2.0
# A part over this much is not healthy: whole healthy machines read 0.1 to 0.7 mA (common practice, no source).
LIMIT_MA = 0.75
# A part that does not touch the chassis leaks when it is wet: never excluded, seldom (common practice, no source).
LEAST_WEIGHT, PLASTIC_SHARE, UNSTATED_PRIOR = 0.02, 0.2, 0.1
PLUG_MINUTES = 1.0
MEGOHM, MILLIAMPERES = 1e6, 1e3
# More than this between neutral and earth at the outlet is no voltage drop (ours).
FLOATING_V = 20.0


@dataclass(frozen=True, slots=True)
class RunRecord:
    """A run as it was made, with the meter as it then was and the event that holds it."""

    event: Event
    body: RunMade
    meter: Meter
    indication: Indication
    is_doubtful: bool


def suspects(case: Case, method: Method) -> tuple[Part, ...]:
    """Return the parts that may leak, those left out that hang on plugs which come off before 500 V."""
    return tuple(
        part
        for part in case.sheet.parts
        if part.kind != "outlet"
        and FaultMode.LEAK in part_modes(case.sheet, part.id)
        and not (method is Method.INSULATION and part.kind in OFF_BEFORE_500_V)
    )


def off_before_test(case: Case) -> tuple[Part, ...]:
    """Return the parts whose plugs come off before 500 V: they are not asked, never cleared."""
    return tuple(part for part in case.sheet.parts if part.kind in OFF_BEFORE_500_V)


def run_records(case: Case, method: Method) -> tuple[RunRecord, ...]:
    """Return the runs of one method, oldest first."""
    doubts = {event.body.run: event.body.is_doubtful for event in case.events if isinstance(event.body, RunDoubted)}
    return tuple(
        RunRecord(
            event,
            event.body,
            event.body.instrument,
            run_indication(event.body.text, method, event.body.instrument.over_range_texts),
            doubts.get(event.id, False),
        )
        for event in case.events
        if isinstance(event.body, RunMade) and event.body.method == method.value and event.body.instrument
    )


def problem_of(case: Case, method: Method) -> Problem:
    """Return the isolation of a case by one method.

    Parameters
    ----------
    case
        Sheet and everything observed.
    method
        Runs of an insulation tester, or of a leakage tester.
    """
    parts = suspects(case, method)
    names = {part.id for part in parts}
    runs = tuple(
        Run(
            id=record.event.id,
            connected=frozenset(record.body.connected) & names,
            interval=_proved(record, method),
            maybe=frozenset(record.body.maybe) & names,
            is_doubtful=record.is_doubtful,
            is_intermittent=record.body.is_intermittent,
            polarity=Polarity(record.body.polarity) if record.body.polarity else None,
        )
        for record in run_records(case, method)
    )
    opened = {event.body.panel for event in case.events if isinstance(event.body, Opened)}
    return Problem(
        method=method,
        parts=tuple(_suspect(case, part, method, names) for part in parts),
        runs=tuple(run for run in runs if run.connected or run.maybe),
        panels={name: panel.minutes for name, panel in case.sheet.panels.items()},
        open_panels=frozenset(opened),
        is_earth_ok=not earth_failed(case),
        is_neutral_earthed=not neutral_floats(case),
    )


def earth_failed(case: Case) -> bool:
    """Tell whether the last reading of the protective conductor lies outside its window with its whole error."""
    tests = [test for test in machine_tests(case.sheet, case.celsius) if test.proves is Proves.EARTH]
    return any(_is_outside(case, test) for test in tests)


def neutral_floats(case: Case) -> bool:
    """Tell whether the outlet's last readings show a neutral that is not earthed: volts between N and earth.

    On an isolated supply or with two live poles N stands far from earth; a few volts are the drop of a load.
    """
    rows = [reading for reading in case.standing if reading.test == "outlet.ne"]
    volts = rows[-1].indication.value if rows else None
    return volts is not None and volts > FLOATING_V


def _is_outside(case: Case, test: MachineTest) -> bool:
    rows = [reading for reading in case.standing if reading.test == test.id]
    if not rows:
        return False
    interval = rows[-1].meter.interval_of(rows[-1].indication, rows[-1].function)
    return interval.lo > test.window.interval.hi


def _suspect(case: Case, part: Part, method: Method, names: set[str]) -> Suspect:
    kind = part.part_kind
    prior = kind.priors.get(FaultMode.LEAK, UNSTATED_PRIOR) * (1.0 if part.chassis else PLASTIC_SHARE)
    rides = names - {part.id, "cord", "filter"} if part.kind == "harness" else set()
    return Suspect(
        id=part.id,
        limit=LIMIT_MA if method is Method.LEAKAGE else 1 / _least_megohm(case, part),
        weight=max(LEAST_WEIGHT, prior),
        minutes=PLUG_MINUTES,
        behind=part.behind,
        rides_with=frozenset(rides),
    )


def _least_megohm(case: Case, part: Part) -> float:
    if case.sheet.protection_class == "II":
        return CLASS_II_MEGOHM
    return HEATING_MEGOHM if part.kind in HEATING else CLASS_I_MEGOHM


def _proved(record: RunRecord, method: Method) -> Interval:
    """Return what a run proves of all connected parts, with its meter's whole error: µS or mA."""
    interval = record.meter.interval_of(record.indication, record.body.function)
    if method is Method.LEAKAGE:
        return Interval(max(0.0, interval.lo), interval.hi).scaled(MILLIAMPERES)
    return conductance_us(interval.scaled(1 / MEGOHM), 0.0)
