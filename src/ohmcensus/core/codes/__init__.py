"""Listening to a machine that has no display: lamp schemes, entry sequences, test cycles.

A scheme is arithmetic, a sequence a rhythm, a cycle a list of steps: none of them knows a machine, so
that a sheet can be built of them. What a code means is the technician's own table.
"""

from ohmcensus.core.codes.cycle import Cycle, CycleStep, Outcome, TrackedCycle, track
from ohmcensus.core.codes.meaning import Meaning, meanings_from
from ohmcensus.core.codes.scheme import BlinkCount, LampRow, Scheme, TwoFrames
from ohmcensus.core.codes.sequence import Attempt, Click, EntrySequence, Hint, SequenceStep, follow

__all__ = [
    "Attempt",
    "BlinkCount",
    "Click",
    "Cycle",
    "CycleStep",
    "EntrySequence",
    "Hint",
    "LampRow",
    "Meaning",
    "Outcome",
    "Scheme",
    "SequenceStep",
    "TrackedCycle",
    "TwoFrames",
    "follow",
    "meanings_from",
    "track",
]
