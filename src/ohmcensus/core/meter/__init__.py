"""Instruments: what they measure, over which ranges, how far off they may be, how they show over-range.

``instrument``  functions, ranges and the error of one indication
``catalogue``   three generic instruments that every store starts with
"""

from ohmcensus.core.meter.catalogue import GENERIC_METERS, generic_meter
from ohmcensus.core.meter.instrument import Function, Meter, Range

__all__ = ["GENERIC_METERS", "Function", "Meter", "Range", "generic_meter"]
