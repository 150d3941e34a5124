"""From plain data to the typed sheet; every fault is told with the path to its place."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import BaseModel, ValidationError

from ohmcensus.core.codes import meanings_from
from ohmcensus.core.errors import InputError, SheetError
from ohmcensus.core.meter import Function
from ohmcensus.core.parts import part_kinds
from ohmcensus.core.parts.element import CHASSIS
from ohmcensus.core.parts.kind import PartKind
from ohmcensus.core.sheet.model import FORMAT, Expected, Sheet
from ohmcensus.core.text.names import nearest

Path = tuple[str | int, ...]


@dataclass(frozen=True, slots=True)
class SheetFault:
    """One fault: the keys that lead to it, and what to do about it."""

    path: Path
    message: str


class SheetFaultsError(SheetError):
    """All faults of one sheet."""

    def __init__(self, faults: list[SheetFault]) -> None:
        lines = "; ".join(f"{'.'.join(map(str, f.path)) or 'sheet'}: {f.message}" for f in faults)
        super().__init__(what=lines)
        self.faults = faults


def sheet_from(raw: object) -> Sheet:
    """Return the typed sheet of plain data.

    Raises
    ------
    SheetFaultsError
        With every fault that was found.
    """
    if not isinstance(raw, Mapping):
        raise SheetFaultsError([SheetFault((), "a sheet is a mapping of names to values: start with 'format:'")])
    _refuse_other_format(raw.get("format"))
    parts = raw.get("parts")
    entries = parts if isinstance(parts, list) else []
    faults: list[SheetFault] = []
    typed_parts: list[object] = []
    for index, entry in enumerate(entries):
        typed, found = _typed_part(entry, ("parts", index))
        typed_parts.append(typed)
        faults += found
    try:
        sheet = Sheet.model_validate({**raw, "parts": typed_parts} if isinstance(parts, list) else raw)
    except ValidationError as error:
        told = {fault.path[:2] for fault in faults}
        faults += [fault for fault in _pydantic_faults(error, ()) if fault.path[:2] not in told]
        raise SheetFaultsError(faults) from None
    if not any(fault.path[-1:] == ("kind",) for fault in faults):
        faults += _cross_faults(sheet)
    if faults:
        raise SheetFaultsError(faults)
    return sheet


def _refuse_other_format(stated: object) -> None:
    """Refuse what is no sheet, or one of a newer form than this."""
    if stated == FORMAT:
        return
    message = f"this is not a sheet: its first line must be 'format: {FORMAT}'"
    if isinstance(stated, str) and stated.startswith("ohmcensus-sheet/"):
        message = f"format {stated} is newer than {FORMAT}: update Ohmcensus to read it"
    raise SheetFaultsError([SheetFault(("format",), message)])


def _typed_part(entry: object, path: Path) -> tuple[object, list[SheetFault]]:
    """Return the entry with its ratings typed by its kind, and the faults met on the way."""
    if not isinstance(entry, Mapping):
        return entry, [SheetFault(path, "a part is a mapping: give it id, kind and ratings")]
    kinds = part_kinds()
    kind = kinds.get(str(entry.get("kind")))
    if kind is None:
        close = nearest(str(entry.get("kind")), kinds)
        hint = f"did you mean '{close}'?" if close else f"known are {', '.join(kinds)}"
        return entry, [SheetFault((*path, "kind"), f"no kind of part '{entry.get('kind')}': {hint}")]
    try:
        ratings = kind.ratings.model_validate(entry.get("ratings") or {})
    except ValidationError as error:
        return entry, _pydantic_faults(error, (*path, "ratings"))
    return {"title": kind.title, **entry, "ratings": ratings}, []


def _pydantic_faults(error: ValidationError, before: Path) -> list[SheetFault]:
    """Return the faults that a model found."""
    faults = []
    for row in error.errors(include_url=False):
        message = row["msg"].removeprefix("Value error, ")
        if row["type"] == "extra_forbidden":
            message = "this key is not known here: remove it or correct its spelling"
        elif row["type"] == "missing":
            message = "this key is missing: add it"
        elif row["type"] in {"float_type", "float_parsing", "int_type"}:
            message = f"{str(row['input'])[:40]!r} is not a number: give one"
        elif isinstance(row["input"], str | int | float) and row["type"] != "value_error":
            message = f"{row['input']!r}: {message[0].lower()}{message[1:]}"
        faults.append(SheetFault((*before, *row["loc"]), message))
    return faults


def _cross_faults(sheet: Sheet) -> Iterator[SheetFault]:
    """Yield faults between entries: doubled names, references to nothing."""
    seen: set[str] = set()
    for index, part in enumerate(sheet.parts):
        if part.id in seen:
            yield SheetFault(("parts", index, "id"), f"'{part.id}' stands twice: give each part its own id")
        seen.add(part.id)
        if part.id in _RESERVED:
            yield SheetFault(("parts", index, "id"), f"'{part.id}' is a word of the quick line: choose another id")
        if part.behind is not None and part.behind not in sheet.panels:
            known = ", ".join(sheet.panels) or "none"
            yield SheetFault(("parts", index, "behind"), f"no panel '{part.behind}': panels are {known}")
        yield from _expects_faults(part.part_kind, part.ratings, part.expects, ("parts", index, "expects"))
    yield from _wiring_faults(sheet)
    yield from _service_faults(sheet)
    for name, plug in sheet.plugs.items():
        for part_id in plug.parts:
            if part_id not in seen:
                close = nearest(part_id, seen)
                hint = f"did you mean '{close}'?" if close else "name a part of this sheet"
                yield SheetFault(("plugs", name, "parts"), f"no part '{part_id}': {hint}")


_RESERVED = frozenset({"dead", "source", "between"})


def _wiring_faults(sheet: Sheet) -> Iterator[SheetFault]:
    """Yield faults of nets and plugs: points that no part has, nets and plugs that do nothing."""
    known = {*sheet.points, CHASSIS}
    listed: list[tuple[Path, str]] = [(("nets", name), point) for name, pins in sheet.nets.items() for point in pins]
    listed += [(("plugs", name, "pins"), point) for name, plug in sheet.plugs.items() for point in plug.pins]
    for path, point in listed:
        if point not in known:
            close = nearest(point, known)
            hint = f"did you mean '{close}'?" if close else "write it part.pin"
            yield SheetFault(path, f"no point '{point}': {hint}")
    net_of: dict[str, str] = {}
    for name, pins in sheet.nets.items():
        if len(set(pins)) < 2:  # noqa: PLR2004 - a wire has two ends
            yield SheetFault(("nets", name), "this net joins nothing: name at least two points, or remove it")
        for pin in pins:
            if pin in net_of:
                message = f"'{pin}' stands in {net_of[pin]} already: a point is in one net, so join the two or keep one"
                yield SheetFault(("nets", name), message)
            net_of[pin] = name
    for name in sheet.plugs if sheet.nets else ():
        if not sheet.plug_points(name) & net_of.keys():
            yield SheetFault(("plugs", name), "this plug cuts nothing: none of its points is in a net")


def _service_faults(sheet: Sheet) -> Iterator[SheetFault]:
    """Yield faults of the terminals, and of schemes, cycles and meanings that name nothing."""
    for core, point in (sheet.terminals.model_dump() if sheet.terminals else {}).items():
        if point not in sheet.points:
            close = nearest(point, sheet.points)
            hint = f"did you mean '{close}'?" if close else "write it part.pin"
            yield SheetFault(("terminals", core), f"no point '{point}': {hint}")
    service, parts = sheet.service, {part.id for part in sheet.parts}
    for index, cycle in enumerate(service.cycles):
        if cycle.scheme is not None and service.scheme(cycle.scheme) is None:
            yield SheetFault(("service", "cycles", index, "scheme"), f"no scheme '{cycle.scheme}': add it or leave out")
        for place, step in enumerate(cycle.steps):
            for part in set(step.parts) - parts:
                message = f"no part '{part}': name a part of this sheet"
                yield SheetFault(("service", "cycles", index, "steps", place, "parts"), message)
    for name, rows in service.meanings.items():
        scheme = service.scheme(name)
        if scheme is None:
            yield SheetFault(("service", "meanings", name), f"no scheme '{name}': add it to schemes")
            continue
        try:
            meanings_from(rows, scheme, parts)
        except InputError as error:
            yield SheetFault(("service", "meanings", name), str(error))


def _expects_faults(
    kind: PartKind[Any], ratings: BaseModel, expects: Mapping[str, Expected], path: Path
) -> Iterator[SheetFault]:
    """Yield a fault for each own figure whose test the part does not have, or that nothing can read."""
    known = {test.name: test for test in kind.tests(ratings)}
    for name, own in expects.items():
        if name not in known:
            yield SheetFault((*path, name), f"no test '{name}' on this part: tests are {', '.join(known)}")
        elif known[name].function in _POSITIVE:
            for end, value in (("nominal", own.nominal), ("hi", own.hi)):
                if value is not None and value <= 0:
                    yield SheetFault((*path, name, end), f"{value:g} is not a reading of this test: give more than 0")


_POSITIVE = frozenset({Function.OHM, Function.CONTINUITY, Function.INSULATION, Function.CAPACITANCE, Function.HERTZ})
