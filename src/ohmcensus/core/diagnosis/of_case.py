"""What is believed of a case, and where its machine stands for the next question."""

from __future__ import annotations

from collections import Counter

from ohmcensus.core.diagnosis.effort import Place, efforts
from ohmcensus.core.diagnosis.evidence import observations
from ohmcensus.core.diagnosis.outcomes import OutcomeTable
from ohmcensus.core.diagnosis.posterior import Diagnosis, diagnose
from ohmcensus.core.diagnosis.question import Reach
from ohmcensus.core.event import Changed, Checked, RecordWithdrawn, RunWatched, Skipped, Stamped
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.mains_plug import is_plug_turned_freely
from ohmcensus.core.job.strip_down import uncovered
from ohmcensus.core.judgement import CensusLine
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.asked import RUN, held_by_voltage
from ohmcensus.core.safety import Safety
from ohmcensus.core.safety.measured import AMPS
from ohmcensus.core.safety.power import power_bars, power_needs
from ohmcensus.core.safety.words import Forbidden
from ohmcensus.core.sheet import Sheet

# What was read twice is read: two that disagree are a finding, and no third one is asked.
OFTEN_ENOUGH = 2


def diagnosed(case: Case, lines: tuple[CensusLine, ...], table: OutcomeTable) -> Diagnosis:
    """Return what is believed of a case.

    Parameters
    ----------
    case
        Sheet and everything observed.
    lines
        Its census lines, judged.
    table
        What every test reads under every fault, of the same sheet.
    """
    return diagnose(table, observations(case, lines, table))


def reach_of(case: Case, lines: tuple[CensusLine, ...], safety: Safety) -> Reach:
    """Return where the machine stands: covers off, what was asked or left out, whether there may be power.

    Parameters
    ----------
    case
        Sheet and everything observed.
    lines
        Its census lines, judged.
    safety
        Where it stands now.
    """
    skipped = {event.body.test for event in case.of(Skipped)}
    if not is_plug_turned_freely(case):
        skipped |= {test.id for test in machine_tests(case.sheet, None) if test.is_reversed}
    # A lesser instrument is not the test: after OL by ohmmeter the 500 V are still to come.
    asked = {
        line.test.id
        for line in lines
        if line.test and any(row.reading.function is line.test.function for row in line.answers)
    }
    looked = {event.body.check for event in case.of(Checked)}
    ran = {RUN} if case.of(RunWatched) else set()
    skipped |= held_by_voltage(case.sheet) | forbidden_steps(case.sheet, safety)
    needed = (need.typed.strip().replace(" ", ".") for need in power_needs(safety))
    return Reach(
        open_panels=uncovered(case),
        cover_minutes=case.cover_minutes,
        left_out=frozenset(skipped | asked | looked | ran),
        barred=frozenset(skipped | _asked_often(case, lines)),
        stamped=frozenset(event.body.part for event in case.of(Stamped)),
        place=_place(case),
        has_power=next(power_bars(safety), None) is None,
        before_power=tuple(needed),
    )


def forbidden_steps(sheet: Sheet, safety: Safety) -> frozenset[str]:
    """Return what only a machine shows that runs through its steps, where a danger forbids that."""
    if not any(Forbidden.CYCLE in row.forbids for row in safety.dangers):
        return frozenset()
    return frozenset({RUN, *(test.id for test in machine_tests(sheet, None) if test.name.startswith(AMPS))})


def _asked_often(case: Case, lines: tuple[CensusLine, ...]) -> set[str]:
    """Return tests and looks that were made so often on the piece that is there that once more tells nothing."""
    changed = {event.body.part: event.order for event in case.of(Changed)}
    often = {
        line.test.id
        for line in lines
        if line.test
        and sum(row.reading.order > changed.get(line.test.part, -1) for row in line.answers) >= OFTEN_ENOUGH
    }
    looked = Counter(event.body.check for event in case.of(Checked))
    return often | {check for check, count in looked.items() if count >= OFTEN_ENOUGH}


def _place(case: Case) -> Place | None:
    """Return where the last test was made, None where anything else was done since."""
    last = max(case.standing, key=lambda row: row.order, default=None)
    if last is None or last.test not in efforts(case.sheet):
        return None
    after = (event for event in case.events if event.order > last.order and event.id not in case.withdrawn)
    moved = any(not isinstance(event.body, _STAYS) for event in after)
    return None if moved else efforts(case.sheet)[last.test].place


_STAYS = (Skipped, Stamped, RecordWithdrawn)
