"""Dictionaries in the data directory: a cache that may be lost, spoilt or read-only."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest

from ohmcensus.core.sheet import Sheet
from ohmcensus.services.find_sheet import find_sheet
from ohmcensus.storage.dictionaries import FOLDER, kept_dictionary


@pytest.fixture
def small() -> Sheet:
    """Return the smallest machine with a few parts left, so that a dictionary is quick."""
    return find_sheet("tl4-c")


def test_it_is_kept_and_read_back_whole(tmp_path: Path, small: Sheet) -> None:
    made, again = kept_dictionary(tmp_path, small), kept_dictionary(tmp_path, small)
    assert (again.tests, again.faults) == (made.tests, made.faults)
    np.testing.assert_array_equal(again.faulty, made.faulty)
    assert len(list((tmp_path / FOLDER).iterdir())) == 1


@pytest.mark.parametrize("spoilt", [b"", b"PK\x03\x04 not an archive", b"\x00" * 5000], ids=["empty", "cut", "noise"])
def test_a_spoilt_file_is_made_again(tmp_path: Path, small: Sheet, spoilt: bytes) -> None:
    made = kept_dictionary(tmp_path, small)
    (file,) = (tmp_path / FOLDER).iterdir()
    file.write_bytes(spoilt)
    np.testing.assert_array_equal(kept_dictionary(tmp_path, small).healthy, made.healthy)


def test_an_edited_sheet_gets_its_own_and_the_old_one_goes(tmp_path: Path, small: Sheet) -> None:
    kept_dictionary(tmp_path, small)
    without_pump = tuple(part for part in small.parts if part.id != "pump")
    edited = small.model_copy(update={"parts": without_pump, "nets": _without("pump", small)})
    assert not any(test.startswith("pump.") for test in kept_dictionary(tmp_path, edited).tests)
    assert len(list((tmp_path / FOLDER).iterdir())) == 1


def test_a_folder_that_cannot_be_written_costs_time_only(tmp_path: Path, small: Sheet) -> None:
    (tmp_path / FOLDER).write_text("a file where the folder should be")
    assert kept_dictionary(tmp_path, small).tests


def _without(part: str, sheet: Sheet) -> dict[str, tuple[str, ...]]:
    return {name: tuple(p for p in pins if not p.startswith(f"{part}.")) for name, pins in sheet.nets.items()}
