"""The reference sheet of a machine type: which parts it holds, where they sit, what is printed on them."""

from ohmcensus.core.sheet.check import SheetFault, SheetFaultsError, sheet_from
from ohmcensus.core.sheet.model import EARTH_PIN, Expected, Handling, Panel, Part, Plug, Service, Sheet, Terminals

__all__ = [
    "EARTH_PIN",
    "Expected",
    "Handling",
    "Panel",
    "Part",
    "Plug",
    "Service",
    "Sheet",
    "SheetFault",
    "SheetFaultsError",
    "Terminals",
    "sheet_from",
]
