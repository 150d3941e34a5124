"""Coordinates of the drawings; whoever draws only strokes them."""

from ohmcensus.core.layout.ohm_ruler import OhmRuler, ohm_ruler
from ohmcensus.core.layout.short_ruler import ShortRuler, short_ruler

__all__ = ["OhmRuler", "ShortRuler", "ohm_ruler", "short_ruler"]
