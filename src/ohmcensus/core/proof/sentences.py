"""Sentences that a job ends with, out of what was written down: what was done, why the machine is not safe."""

from __future__ import annotations

from ohmcensus.core.event import BypassRemoved, Changed
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.record_words import record_words
from ohmcensus.core.safety import Safety
from ohmcensus.core.safety.danger_rows import open_rows

# As long as the sentence of an ending may be.
MOST_SIGNS = 300


def done_words(case: Case) -> str:
    """Say what was done: "Heater: another one fitted, spare 1."; empty where nothing was.

    Of a part that was worked on more than once, what was done last.
    """
    last = {event.body.part: event.body for event in case.of(Changed)}
    said = [record_words(case, event.body) for event in case.of(BypassRemoved)]
    said += [f"{record_words(case, body)}{f', {body.fitted}' if body.fitted else ''}" for body in last.values()]
    text = "; ".join(said)
    return _short(f"{text[:1].upper()}{text[1:]}.") if text else ""


def standing_words(safety: Safety) -> str:
    """Say which dangers stand, as the sheet says them; empty where none does."""
    return _short(" ".join(open_rows(safety)))


def _short(text: str) -> str:
    """Return a sentence as short as an ending takes it."""
    return text if len(text) <= MOST_SIGNS else f"{text[: MOST_SIGNS - 1].rstrip(' .;,')}."
