"""The demo: a small marina with its wash house, the boats moored there and a lock cottage, on shore power.

Everything is made up. Seeding goes through the same use cases as a person's work.
"""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from uuid import NAMESPACE_URL, uuid5

from ohmcensus.core.safety import SafetyState
from ohmcensus.services.context import Context
from ohmcensus.services.keep_settings import Settings, keep_settings
from ohmcensus.services.log_reading import NewReading, log_reading
from ohmcensus.services.open_job import NewJob, list_jobs, open_job
from ohmcensus.services.state_safety import SafetyStatement, state_safety
from ohmcensus.services.write_note import NewNote, write_note

# Each job: machine, place, complaint, serial, minutes ago, proved dead, lines typed, notes by line.
_JOBS: tuple[tuple[str, str, str, str, int, bool, tuple[str, ...], dict[str, str]], ...] = (
    (
        "Lock cottage washer",
        "Lock cottage, upper gate",
        "Washed fine for years, now the door will not open after the rinse.",
        "OC-0417",
        60 * 26,
        True,
        (
            "cord pe 0.08",
            "filter l 0.4",
            "filter n 0.4",
            "lock 1.31k",
            "lock unlocked 0.3",
            "lock locked 0.3",
            "pump OL",
        ),
        {"pump.coil": "One tag was off and green. Read again on bright metal: still OL."},
    ),
    (
        "Galley washer",
        "Narrowboat Heron's Rest, berth 14",
        "Stops a minute into every wash on shore power. Runs on the boat's own inverter.",
        "OC-0388",
        95,
        False,
        ("outlet 221", "outlet le 218", "outlet ne 3.1"),
        {},
    ),
    (
        "Machine 1",
        "Wash house, Reedmere Marina",
        "Cold water only. The quayside heater ran at the same time.",
        "OC-0112",
        48,
        True,
        ("heater OL", "ntc 10.9k at 23C", "board relay OL", "board coil 271", "harness heater 0.2"),
        {"heater.element": "Both tags bright, connector not burnt."},
    ),
    (
        "Machine 3",
        "Wash house, Reedmere Marina",
        "Trips the RCD about ten minutes into a hot wash, cold washes run through.",
        "OC-0114",
        23,
        True,
        (
            "cord l 0.04",
            "cord n 0.03",
            "cord pe 0.07",
            "filter l 0.4",
            "filter n 0.5",
            "filter across 684k",
            "filter x 0.466u",
            "lock 1.12k",
            "heater pe 47k",
            "ntc 10.4k at 24C",
            "motor field 1.9",
            "motor armature 4.9",
            "tacho 71",
            "brush 1 19mm",
            "between heater.pe motor.pe 0.3",
        ),
        {"motor.armature": "Steady while turned."},
    ),
)


def seed_demo(context: Context) -> None:
    """Fill an empty data directory with the demo; one that holds jobs is left as it is."""
    if list_jobs(context):
        return
    keep_settings(context, Settings(technician="Duty technician", ambient_celsius=21.0))
    start = context.clock()
    for machine, place, complaint, serial, minutes_ago, proved, typed, noted in _JOBS:
        opened = start - timedelta(minutes=minutes_ago)
        job_id = uuid5(NAMESPACE_URL, f"ohmcensus-demo/{serial}")
        new = NewJob(id=job_id, machine=machine, place=place, sheet="fl7-u", complaint=complaint, serial=serial)
        revision = open_job(_at(context, opened), new).revision
        if proved:
            said = SafetyStatement(revision=revision, state=SafetyState.DEAD)
            revision = state_safety(_at(context, opened + timedelta(minutes=4)), str(job_id), said).job.revision
        for index, text in enumerate(typed):
            when = opened + timedelta(minutes=5 + index)
            row = NewReading(id=uuid5(job_id, f"{index} {text}"), revision=revision, text=text)
            revision = log_reading(_at(context, when), str(job_id), row).job.revision
        for line, text in noted.items():
            note = NewNote(id=uuid5(job_id, f"note {line}"), revision=revision, line=line, text=text)
            when = opened + timedelta(minutes=6 + len(typed))
            revision = write_note(_at(context, when), str(job_id), note).job.revision


def _at(context: Context, moment: datetime) -> Context:
    """Return the context at another moment."""
    return replace(context, clock=lambda: moment.astimezone(UTC))
