"""Branches between pins, joined by wires to nets, and the voltages that follow. Knows no washer."""

from ohmcensus.core.circuit.branch import Branch

__all__ = ["Branch"]
