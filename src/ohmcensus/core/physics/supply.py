"""The mains as it is supplied."""

from __future__ import annotations

# IEC 60038, from memory: what the voltage of the supply may differ from the rated one.
SUPPLY_TOLERANCE = 0.10
# Under this the supply is of the 120 V world, whose plugs are polarised.
LOW_VOLTS = 180.0
