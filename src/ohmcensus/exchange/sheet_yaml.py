"""Machine sheets as YAML: reading with the line of every fault, and writing."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import yaml

from ohmcensus.core.errors import SheetError
from ohmcensus.core.sheet import Sheet, SheetFaultsError, sheet_from

LARGEST_SHEET = 512_000
_DEEPEST = 12
_TOO_DEEP = "nested too deep: a sheet has a few levels"

Path = tuple[str | int, ...]
# The same loader in C where the library was built with it: ten times as fast.
_LOADER = getattr(yaml, "CSafeLoader", yaml.SafeLoader)


@dataclass(frozen=True, slots=True)
class LineFault:
    """A fault with the line it stands on, counted from 1."""

    line: int
    path: str
    message: str


class SheetTextError(SheetError):
    """Faults of a sheet's text, each with its line."""

    def __init__(self, name: str, faults: list[LineFault]) -> None:
        super().__init__(what="; ".join(f"{name}, line {f.line}, {f.path or 'sheet'}: {f.message}" for f in faults))
        self.faults = faults


def read_sheet(text: str, name: str) -> Sheet:
    """Read a sheet.

    Parameters
    ----------
    text
        YAML.
    name
        What the file is called, for messages.

    Raises
    ------
    SheetTextError
        With file, line and remedy of every fault.
    """
    raw, lines = read_plain(text, name)
    try:
        return sheet_from(raw)
    except SheetFaultsError as error:
        faults = [at_line(fault.path, fault.message, lines) for fault in error.faults]
        raise SheetTextError(name, sorted(faults, key=lambda f: f.line)) from None


def read_plain(text: str, name: str) -> tuple[Any, dict[Path, int]]:
    """Return the plain data of a sheet's text, YAML or JSON, and the line of every path.

    Raises
    ------
    SheetTextError
        If it is no YAML, too large, or nested as no sheet is.
    """
    lines: dict[Path, int] = {}
    return _plain(_composed(text, name), (), lines, name), lines


def at_line(path: Path, message: str, lines: dict[Path, int]) -> LineFault:
    """Return a fault with the line of its path."""
    return LineFault(_line_of(path, lines), ".".join(map(str, path)), message)


def plain_sheet(sheet: Sheet) -> dict[str, Any]:
    """Return a sheet as plain data, what is not stated left out."""
    entries = sheet.model_dump(mode="json", exclude_none=True, exclude={"parts"})
    entries["parts"] = [
        {
            **part.model_dump(mode="json", exclude_none=True),
            "ratings": part.ratings.model_dump(mode="json", exclude_none=True),
        }
        for part in sheet.parts
    ]
    return entries


def write_sheet(sheet: Sheet) -> str:
    """Return a sheet as YAML that reads back to the same sheet."""
    return yaml.safe_dump(plain_sheet(sheet), sort_keys=False, allow_unicode=True, width=110)


def _composed(text: str, name: str) -> yaml.Node | None:
    """Return the node tree of the text, refusing what is too large or no YAML."""
    if len(text) > LARGEST_SHEET:
        raise SheetTextError(name, [LineFault(1, "", f"over {LARGEST_SHEET // 1000} kB: a sheet is far smaller")])
    try:
        _refuse_odd_events(text, name)
        return yaml.compose(text, Loader=_LOADER)
    except yaml.YAMLError as error:
        mark = getattr(error, "problem_mark", None)
        message = f"no YAML: {getattr(error, 'problem', None) or 'unreadable'}; check indent and quotes"
        raise SheetTextError(name, [LineFault(mark.line + 1 if mark else 1, "", message)]) from None
    except RecursionError:
        raise SheetTextError(name, [LineFault(1, "", _TOO_DEEP)]) from None


def _refuse_odd_events(text: str, name: str) -> None:
    """Refuse aliases and endless nesting before anything is composed: the loader in C has no floor of its own."""
    depth = 0
    for event in yaml.parse(text, Loader=_LOADER):
        line = event.start_mark.line + 1 if event.start_mark else 1
        depth += isinstance(event, yaml.CollectionStartEvent) - isinstance(event, yaml.CollectionEndEvent)
        if depth > _DEEPEST:
            raise SheetTextError(name, [LineFault(line, "", _TOO_DEEP)])
        if isinstance(event, yaml.AliasEvent):
            message = "aliases (*name) are not read: write the value out"
            raise SheetTextError(name, [LineFault(line, "", message)])


def _plain(node: yaml.Node | None, path: Path, lines: dict[Path, int], name: str) -> Any:
    """Return plain data of a node, writing down the line of every path."""
    if node is None:
        return None
    line = node.start_mark.line + 1
    lines.setdefault(path, line)
    if len(path) > _DEEPEST:
        raise SheetTextError(name, [LineFault(line, "", _TOO_DEEP)])
    if isinstance(node, yaml.MappingNode):
        return _mapping(node, path, lines, name)
    if isinstance(node, yaml.SequenceNode):
        return [_plain(child, (*path, index), lines, name) for index, child in enumerate(node.value)]
    try:
        return yaml.SafeLoader("").construct_object(node)
    except (yaml.YAMLError, ValueError):
        message = f"'{str(node.value)[:40]}' cannot be read as a value: put it in quotes"
        raise SheetTextError(name, [LineFault(line, ".".join(map(str, path)), message)]) from None


def _mapping(node: yaml.MappingNode, path: Path, lines: dict[Path, int], name: str) -> dict[str, Any]:
    """Return a mapping, refusing a key that stands twice."""
    found: dict[str, Any] = {}
    for key_node, value_node in node.value:
        key = str(key_node.value)
        line = key_node.start_mark.line + 1
        if key in found:
            message = f"'{key}' stands twice: keep one"
            raise SheetTextError(name, [LineFault(line, ".".join(map(str, path)), message)])
        lines[(*path, key)] = line
        found[key] = _plain(value_node, (*path, key), lines, name)
    return found


def _line_of(path: Path, lines: dict[Path, int]) -> int:
    """Return the line of a path, or of the nearest thing around it."""
    while path and path not in lines:
        path = path[:-1]
    return lines.get(path, 1)
