"""What a meter shows: units, one-sided values, the grammar of what people type, and how it is written back."""

from ohmcensus.core.quantity.indication import Bound, Indication
from ohmcensus.core.quantity.interval import Interval
from ohmcensus.core.quantity.parse import parse_indication, with_scale
from ohmcensus.core.quantity.show import show_indication, show_range, show_value
from ohmcensus.core.quantity.unit import Unit

__all__ = [
    "Bound",
    "Indication",
    "Interval",
    "Unit",
    "parse_indication",
    "show_indication",
    "show_range",
    "show_value",
    "with_scale",
]
