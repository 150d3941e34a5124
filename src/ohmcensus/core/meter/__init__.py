"""Instruments: what they measure, over which ranges, how far off they may be, how they show over-range."""

from ohmcensus.core.meter.catalogue import GENERIC_METERS, generic_meter
from ohmcensus.core.meter.instrument import Function, Meter, Range

__all__ = ["GENERIC_METERS", "Function", "Meter", "Range", "generic_meter"]
