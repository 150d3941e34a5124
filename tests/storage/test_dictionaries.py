"""Dictionaries in the data directory: a cache that may be lost, spoilt or read-only."""

from __future__ import annotations

import time
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from pathlib import Path
from uuid import uuid4

import grimp
import numpy as np
import pytest

from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.beside import Beside
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.outcome_tables import table_of
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.sheet.copy_sheet import SheetCopy, copy_sheet
from ohmcensus.services.suspects.show_suspects import SuspectsQuery, show_suspects
from ohmcensus.storage.code_digest import code_digest
from ohmcensus.storage.dictionaries import DEPENDS_ON, FOLDER, kept_dictionary


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


def test_its_key_holds_every_source_that_decides_it() -> None:
    graph = grimp.build_graph("ohmcensus")
    used = graph.find_upstream_modules("ohmcensus.core.machine.dictionary")
    # Words, names and errors decide no figure.
    free = {"acts", "codes", "errors", "text", "symptom"}
    told = {name.removesuffix(".py").removeprefix("core/") for name in DEPENDS_ON}
    missing = {module.split(".")[2] for module in used} - told - free
    assert missing == set()
    assert code_digest(*DEPENDS_ON) != code_digest("core/safety")


def test_six_who_ask_at_once_have_it_made_once(tmp_path: Path, small: Sheet) -> None:
    edited = small.model_copy(update={"title": "asked by six"})
    with ThreadPoolExecutor(6) as pool:
        tables = list(pool.map(lambda _: table_of(tmp_path, edited), range(6)))
    assert len({id(table) for table in tables}) == 1
    assert len(list((tmp_path / FOLDER).iterdir())) == 1


def test_while_it_is_made_the_screen_is_told_and_then_has_its_suspects(context: Context) -> None:
    sheet = copy_sheet(context, SheetCopy(of="tl4-c", title="Never seen before")).id
    beside = replace(context, beside=Beside())
    job = open_job(beside, NewJob(id=uuid4(), machine="New", place="Pier", sheet=sheet)).id
    first = show_suspects(beside, job, SuspectsQuery())
    assert (first.preparing != "", first.suspects) == (True, [])
    for _ in range(200):
        time.sleep(0.1)
        if not show_suspects(beside, job, SuspectsQuery()).preparing:
            break
    assert show_suspects(beside, job, SuspectsQuery()).suspects
    assert beside.beside is not None
    beside.beside.stop()
