"""Sheets as YAML: every fault with its line, and back again."""

from __future__ import annotations

from importlib import resources

import pytest

from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.sheet_yaml import SheetTextError, read_sheet, write_sheet

BUILT_IN = (resources.files("ohmcensus") / "sheets" / "fl7-u.yaml").read_text(encoding="utf-8")


def line_of(text: str) -> int:
    return next(number for number, line in enumerate(BUILT_IN.splitlines(), 1) if text in line)


def test_a_sheet_written_reads_back_the_same(fl7: Sheet) -> None:
    assert read_sheet(write_sheet(fl7), "again.yaml") == fl7


@pytest.mark.parametrize(
    ("old", "new", "says"),
    [
        (
            "lo: 120.0, hi: 190.0",
            "lo: 190.0, hi: 120.0",
            "parts.10.expects.coil: lo 190 is above hi 120: swap the ends",
        ),
        ("kind: ntc", "kind: ntcc", "parts.6.kind: no kind of part 'ntcc': did you mean 'ntc'?"),
        ("watts: 2000.0", "wats: 2000.0", "parts.5.ratings.wats: this key is not known here"),
        ("volts: 230\n", "volts: none\n", "volts: 'none' is not a number: give one"),
        ("minutes: 6", "minutes: 0", "panels.front.minutes: 0: input should be greater than 0"),
    ],
)
def test_a_fault_is_told_with_file_line_and_remedy(old: str, new: str, says: str) -> None:
    with pytest.raises(SheetTextError) as caught:
        read_sheet(BUILT_IN.replace(old, new, 1), "mine.yaml")
    first = caught.value.faults[0]
    assert abs(first.line - line_of(old.strip())) <= 1
    assert f"mine.yaml, line {first.line}, {says}" in str(caught.value)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "a sheet is a mapping"),
        ("just words", "a sheet is a mapping"),
        ("format: [unclosed", "no YAML"),
        ("a: &x 1\nb: *x\n", "line 2, sheet: aliases"),
        ("format: ohmcensus-sheet/1\nid: a\nid: b\n", "line 3, sheet: 'id' stands twice"),
        ("a: !!python/object/apply:os.system ['true']\n", "line 1"),
        ("x" * 600_000, "over 512 kB"),
        ("a: " + "[" * 40 + "]" * 40, "nested too deep"),
        ("- " * 100_000, "nested too deep"),
        ("[" * 200_000, "nested too deep"),
        ("a: 2026-13-45\n", "cannot be read as a value"),
        ("\x00", "no YAML"),
    ],
    ids=[
        "empty",
        "prose",
        "broken",
        "alias",
        "twice",
        "python tag",
        "huge",
        "deep",
        "deep list",
        "deep flow",
        "impossible date",
        "control",
    ],
)
def test_what_is_no_sheet_is_refused_in_one_line(text: str, says: str) -> None:
    with pytest.raises(SheetTextError) as caught:
        read_sheet(text, "odd.yaml")
    assert says in str(caught.value)
    assert str(caught.value).startswith("odd.yaml, line ")
