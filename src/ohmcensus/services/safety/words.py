"""Safe in sentences."""

from __future__ import annotations

from ohmcensus.core.event import CutOff
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine import dead_tests
from ohmcensus.core.safety import Safety, SafetyState


def safe_sentence(case: Case, safety: Safety) -> str:
    """Say how things stand, and what is next."""
    titles = {test.id: test.title for test in dead_tests(case.sheet)}
    voltage = ", ".join(titles[name] for name in safety.bad)
    connected = f"the earth always, {safety.stays_connected}" if safety.stays_connected else "the earth always"
    stands = (
        (safety.state is SafetyState.DEAD, "Proved dead at the terminals. Ten minutes unattended clear it."),
        (safety.state is SafetyState.LIVE, f"LIVE: {safety.reason}. Stays connected: {connected}."),
        (bool(safety.shout), f"Hands off: {safety.shout}. Cut it off, find why, discharge."),
        (safety.state is SafetyState.UNDER_VOLTAGE, f"Under voltage: {safety.reason}. Unplug it, then note it here."),
        (bool(safety.bad), f"Not dead: voltage at {voltage}. Stop, find why, discharge."),
        (bool(safety.lapsed), f"No longer proved dead: {safety.lapsed}."),
        (
            safety.cut is CutOff.PLUG_IN_HAND,
            "Plug in the hand, covers on: only the tests at its pins. For all others, covers off and the whole series.",
        ),
        (not safety.isolated, "Cut it off first; the readings count from then on."),
        (safety.source_before is None, "Show the meter a known source: the outlet, or a proving unit."),
    )
    return next((words for holds, words in stands if holds), "All with this one meter, then the known source again.")
