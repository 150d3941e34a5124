"""Branches between pins, joined by wires to nets, and the voltages that follow. Knows no washer.

``branch``   one primitive: resistance with inductance, or with capacitance, between two pins
``network``  branches and wires to nets; nodal solve, DC real and AC complex (loads numpy, so it is imported by name)
"""

from ohmcensus.core.circuit.branch import Branch

__all__ = ["Branch"]
