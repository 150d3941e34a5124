"""Fault dictionaries, kept in the data directory under the hash of their sheet and of the code that made them."""

from __future__ import annotations

import hashlib
import secrets
import zipfile
from pathlib import Path
from typing import TYPE_CHECKING

from ohmcensus.core.machine.netlist import PartFault
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.sheet import Sheet
from ohmcensus.storage.code_digest import code_digest

if TYPE_CHECKING:
    from ohmcensus.core.machine.dictionary import Dictionary

FOLDER = "dictionaries"
# What decides what a dictionary holds, besides its sheet (a test holds it against what the code imports).
DEPENDS_ON = (
    "core/circuit",
    "core/machine",
    "core/meter",
    "core/parts",
    "core/physics",
    "core/quantity",
    "core/sheet",
    "core/limits",
)


def has_dictionary(folder: Path, sheet: Sheet) -> bool:
    """Tell whether the dictionary of a sheet is kept, so that it is at hand in no time."""
    return _file(folder, sheet).exists()


def kept_dictionary(folder: Path, sheet: Sheet) -> Dictionary:
    """Return the dictionary of a sheet, computing it where the data directory holds none that fits.

    What cannot be read or written is computed each time: the folder is a cache and nothing else.
    """
    import numpy as np  # noqa: PLC0415 - commands load only what they need

    from ohmcensus.core.machine.dictionary import Dictionary, dictionary  # noqa: PLC0415

    file = _file(folder, sheet)
    try:
        with file.open("rb") as opened, np.load(opened, allow_pickle=False) as kept:
            faults = tuple(PartFault(part, FaultMode(mode), element=element) for part, mode, element in kept["faults"])
            return Dictionary(tuple(kept["tests"].tolist()), faults, kept["healthy"], kept["faulty"])
    except (OSError, EOFError, ValueError, KeyError, zipfile.BadZipFile):
        pass
    made = dictionary(sheet)
    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        for older in file.parent.glob(f"{sheet.id}-*.npz"):
            older.unlink(missing_ok=True)
        partial = file.with_suffix(f".{secrets.token_hex(4)}.part")
        with partial.open("wb") as out:
            np.savez(
                out,
                tests=np.array(made.tests),
                faults=np.array([(fault.part, fault.mode.value, fault.element) for fault in made.faults]),
                healthy=made.healthy,
                faulty=made.faulty,
            )
        partial.replace(file)
    except OSError:
        pass
    return made


def _file(folder: Path, sheet: Sheet) -> Path:
    return folder / FOLDER / f"{sheet.id}-{_digest(sheet)}.npz"


def _digest(sheet: Sheet) -> str:
    """Return the hash of a sheet's content together with the code's."""
    return hashlib.sha256(repr(sheet).encode() + code_digest(*DEPENDS_ON).encode()).hexdigest()[:24]
