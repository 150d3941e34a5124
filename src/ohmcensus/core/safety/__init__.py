"""What may be measured and switched on now, and the way to a machine that is proved dead."""

from ohmcensus.core.machine.discharge import Discharge, discharge_of
from ohmcensus.core.safety.admission import Admission, admitted, admitted_leak_test
from ohmcensus.core.safety.clock import next_change, settles_at
from ohmcensus.core.safety.rules import May, may, refuse_event
from ohmcensus.core.safety.state import Danger, Safety, safety_at, stepped, walk_of
from ohmcensus.core.safety.steps import SafeStep, safe_steps
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.words import DangerId, Forbidden, SafetyState

__all__ = [
    "Admission",
    "Danger",
    "DangerId",
    "Discharge",
    "Forbidden",
    "May",
    "SafeStep",
    "Safety",
    "SafetyState",
    "Walk",
    "admitted",
    "admitted_leak_test",
    "discharge_of",
    "may",
    "next_change",
    "refuse_event",
    "safe_steps",
    "safety_at",
    "settles_at",
    "stepped",
    "walk_of",
]
