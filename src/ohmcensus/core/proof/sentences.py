"""Sentences that a job ends with, out of what was written down: what was done, why the machine is not safe."""

from __future__ import annotations

from ohmcensus.core.event import BypassRemoved, Changed
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.record_words import record_words
from ohmcensus.core.safety import Safety

# As long as the sentence of an ending may be.
MOST_SIGNS = 300


def done_words(case: Case) -> str:
    """Say what was done: "Heater: another one fitted, spare 1."; empty where nothing was.

    Of a part that was worked on more than once, what was done last.
    """
    last = {event.body.part: event.body for event in case.of(Changed)}
    said = [record_words(case, event.body) for event in case.of(BypassRemoved)]
    said += [f"{record_words(case, body)}{f', {body.fitted}' if body.fitted else ''}" for body in last.values()]
    return _sentence(said)


def unsafe_words(safety: Safety) -> str:
    """Say why a machine is not safe now, by the dangers that stand; empty where none does."""
    return _sentence([row.words for row in safety.dangers])


def _sentence(said: list[str]) -> str:
    text = "; ".join(said)[: MOST_SIGNS - 1].rstrip(" .;,")
    return f"{text[:1].upper()}{text[1:]}." if text else ""
