"""What may be measured and switched on now, and the way to a machine that is proved dead.

``state``      not proved, dead or live, worked out from everything that was logged
``hazards``    dangers that are open, and those that forbid power
``rules``      what is refused, and why
``discharge``  how long, through which resistor
``steps``      making this machine safe, in order
"""

from ohmcensus.core.safety.discharge import Discharge, discharge_of
from ohmcensus.core.safety.hazards import OpenHazard, open_hazards, power_hazards
from ohmcensus.core.safety.rules import refuse_event, refuse_unsafe
from ohmcensus.core.safety.state import Safety, SafetyState, safety_at
from ohmcensus.core.safety.steps import SafeStep, safe_steps

__all__ = [
    "Discharge",
    "OpenHazard",
    "SafeStep",
    "Safety",
    "SafetyState",
    "discharge_of",
    "open_hazards",
    "power_hazards",
    "refuse_event",
    "refuse_unsafe",
    "safe_steps",
    "safety_at",
]
