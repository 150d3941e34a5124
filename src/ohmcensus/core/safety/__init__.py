"""What may be measured and switched on now, and the way to a machine that is proved dead.

``walk``           the log read from its beginning: state, evidence of each line, dangers
``series``         the proof of dead: which meter showed its source, which points it read
``evidence``       what a reading or a leak test says of a line
``danger``         what opens a danger
``lifting``        what lifts it
``after_reading``, ``after_event``   one record more
``state``          where a job stands at a moment
``admission``      which readings are admitted, and which are refused
``rules``          which events are refused, and why
``discharge``      how long, through which resistor
``steps``          making this machine safe, in order
"""

from ohmcensus.core.machine.discharge import Discharge, discharge_of
from ohmcensus.core.safety.admission import Admission, admitted, admitted_leak_test
from ohmcensus.core.safety.rules import May, may, refuse_event
from ohmcensus.core.safety.state import Danger, Safety, safety_at, stepped, walk_of
from ohmcensus.core.safety.steps import SafeStep, safe_steps
from ohmcensus.core.safety.walk import Walk, next_change, settles_at
from ohmcensus.core.safety.words import Act, DangerId, SafetyState

__all__ = [
    "Act",
    "Admission",
    "Danger",
    "DangerId",
    "Discharge",
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
