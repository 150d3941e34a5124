"""All that can be said of a machine sheet that someone wrote: faults, notices, faults that no test tells apart."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from ohmcensus.core.errors import InputError
from ohmcensus.core.machine.lint import lint
from ohmcensus.core.sheet import Sheet, SheetFaultsError, sheet_from
from ohmcensus.exchange.sheet_yaml import LARGEST_SHEET, LineFault, SheetTextError, at_line, read_plain


@dataclass(frozen=True, slots=True)
class Remark:
    """A fault, which keeps the sheet from being used, or a notice, which does not."""

    line: int
    path: str
    message: str
    refused: bool


@dataclass(frozen=True, slots=True)
class SheetCheck:
    """What was found; the sheet where it can be used."""

    sheet: Sheet | None
    remarks: tuple[Remark, ...]
    inseparable: tuple[tuple[str, str], ...]


def check_sheet_file(file: Path) -> SheetCheck:
    """Return what is to be said of a file.

    Raises
    ------
    InputError
        If the file cannot be read at all.
    """
    try:
        with file.open("rb") as opened:
            text = opened.read(4 * LARGEST_SHEET).decode("utf-8")
    except OSError as error:
        what = f"{file} cannot be read ({error.strerror})"
        raise InputError(what=what, remedy="name a file that exists", field="file") from None
    except UnicodeDecodeError:
        raise InputError(what=f"{file} is not text", remedy="name a sheet in YAML or JSON", field="file") from None
    return check_sheet_text(text, file.name)


def check_sheet_text(text: str, name: str) -> SheetCheck:
    """Return what is to be said of a sheet's text."""
    try:
        raw, lines = read_plain(text, name)
    except SheetTextError as error:
        return SheetCheck(None, tuple(_remark(fault, refused=True) for fault in error.faults), ())
    try:
        sheet = sheet_from(raw)
    except SheetFaultsError as error:
        faults = [at_line(fault.path, fault.message, lines) for fault in error.faults]
        return SheetCheck(
            None, tuple(_remark(fault, refused=True) for fault in sorted(faults, key=lambda f: f.line)), ()
        )
    from ohmcensus.core.machine.dictionary import dictionary  # noqa: PLC0415 - commands load only what they need
    from ohmcensus.core.machine.separable import fault_names, inseparable  # noqa: PLC0415

    found = dictionary(sheet) if sheet.nets else None
    notices = [at_line(notice.path, notice.message, lines) for notice in lint(sheet, found)]
    names = fault_names(found.faults) if found else ()
    pairs = tuple((names[a], names[b]) for a, b in inseparable(sheet, found)) if found else ()
    return SheetCheck(sheet, tuple(_remark(notice, refused=False) for notice in notices), pairs)


def _remark(fault: LineFault, *, refused: bool) -> Remark:
    return Remark(fault.line, fault.path, fault.message, refused)
