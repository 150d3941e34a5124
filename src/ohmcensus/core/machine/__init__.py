"""A sheet put to use: its tests with their windows, and what a typed line means on it.

``netlist``     a sheet in a configuration as branches and wires, with faults
``probe``       what a meter between two points must show
``coverage``    what a test reaches, and what it is blind to
``tests``       every test of a sheet, with the window that holds at a temperature
``dead_tests``  the readings that prove the machine dead, and its stored charges
``quick_line``  one typed line to a test or two points, and a reading
"""

from ohmcensus.core.machine.dead_tests import dead_tests, is_proof, stored_charges
from ohmcensus.core.machine.quick_line import Line, read_line
from ohmcensus.core.machine.tests import MachineTest, machine_tests

__all__ = ["Line", "MachineTest", "dead_tests", "is_proof", "machine_tests", "read_line", "stored_charges"]
