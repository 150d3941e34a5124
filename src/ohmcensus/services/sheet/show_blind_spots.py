"""What the tests of a sheet cannot see."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.machine.netlist import PartFault
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.sheet.edit_sheet import sheet_in
from ohmcensus.storage.dictionaries import kept_dictionary


class BlindPart(BaseModel):
    """Faults of one part that no listed test sees, in words."""

    part: str
    faults: list[str]


class BlindSpots(BaseModel):
    """What no listed test sees, and pairs of faults that none tells apart, as PART:MODE."""

    unseen: list[BlindPart]
    inseparable: list[list[str]]


def show_blind_spots(context: Context, sheet_id: str) -> BlindSpots:
    """Return what the tests of a sheet cannot see, from its fault dictionary.

    Raises
    ------
    NotFoundError
        If there is no such sheet.
    """
    from ohmcensus.core.machine.separable import fault_names, inseparable, unseen  # noqa: PLC0415 - loads scipy

    with context.store.read() as session:
        sheet = sheet_in(session, sheet_id)
    if not sheet.nets:
        return BlindSpots(unseen=[], inseparable=[])
    found = kept_dictionary(context.store.folder, sheet)
    names = fault_names(found.faults)
    pairs = [[names[a], names[b]] for a, b in inseparable(sheet, found)]
    hidden = [found.faults[place] for place in unseen(sheet, found)]
    parts = [
        BlindPart(part=part.title, faults=_in_words([fault for fault in hidden if fault.part == part.id]))
        for part in sheet.parts
    ]
    return BlindSpots(unseen=[part for part in parts if part.faults], inseparable=pairs)


def _in_words(faults: list[PartFault]) -> list[str]:
    """Return each mode once, with the elements that may have it: "a bad joint (relay, pump)"."""
    found: dict[str, list[str]] = {}
    for fault in faults:
        found.setdefault(fault.mode.words, []).append(fault.element.removeprefix("out_").replace("_", " "))
    return [f"{mode} ({', '.join(elements)})" for mode, elements in found.items()]
