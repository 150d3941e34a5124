"""A sheet put to use: its tests with their windows, and what a typed line means on it."""

from ohmcensus.core.machine.dead_tests import dead_tests, is_proof, stored_charges
from ohmcensus.core.machine.quick_line import Line, read_line
from ohmcensus.core.machine.tests import MachineTest, machine_tests

__all__ = ["Line", "MachineTest", "dead_tests", "is_proof", "machine_tests", "read_line", "stored_charges"]
