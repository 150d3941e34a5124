"""Teaching the product a part takes one file: found there, in the tests, the ladder, Trip, the suspects, the editor."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from tests.tables import dictionary_of, table

from ohmcensus.core import parts
from ohmcensus.core.diagnosis.of_case import diagnosed
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.ladder import ladder
from ohmcensus.core.parts import part_kinds
from ohmcensus.core.sheet import Sheet, sheet_from
from ohmcensus.core.symptom import Symptom
from ohmcensus.core.trip.house import house_of
from ohmcensus.core.trip.of_case import off_before_test, suspects
from ohmcensus.core.trip.problem import Method
from ohmcensus.exchange.sheet_yaml import plain_sheet
from ohmcensus.services.sheet.list_kinds import leaking_kinds, list_kinds

FOLDER = Path(__file__).parent / "new_kind"


@pytest.fixture
def taught(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    monkeypatch.setattr(parts, "__path__", [*parts.__path__, str(FOLDER)])
    part_kinds.cache_clear()
    yield
    part_kinds.cache_clear()


@pytest.fixture
def sheet(taught: None, fl7: Sheet) -> Sheet:  # noqa: ARG001
    """A front-loader with a lamp across its pump's output."""
    raw = plain_sheet(fl7)
    raw["id"] = "lit"
    raw["parts"].append({"id": "lamp", "kind": "drum_lamp", "title": "Drum lamp"})
    for name, pins in raw["nets"].items():
        for tag, of in (("a", "pump.a"), ("b", "pump.b")):
            if of in pins:
                raw["nets"][name] = [*pins, f"lamp.{tag}"]
    return sheet_from(raw)


def test_it_has_its_tests_its_rung_and_its_place_among_the_faults(sheet: Sheet) -> None:
    assert {"lamp.lamp", "lamp.pe"} <= {test.id for test in machine_tests(sheet, 20.0)}
    assert "lamp" in {rail.part for way in ladder(sheet).ways for rail in way.items}
    assert {fault.part for fault in dictionary_of(sheet).faults} >= {"lamp"}


def test_it_is_off_before_500_v_and_tells_the_device_what_it_must_understand(sheet: Sheet) -> None:
    case = Case(sheet)
    assert "lamp" in {part.id for part in off_before_test(case)}
    assert "lamp" not in {part.id for part in suspects(case, Method.INSULATION)}
    assert "lamp" in {part.id for part in suspects(case, Method.LEAKAGE)}
    assert len(house_of(case, None).blind_to) > 0


def test_it_is_suspected_and_told_as_any_other(sheet: Sheet) -> None:
    case = Case(sheet)
    case = Case(sheet, complaint=case.complaint.model_copy(update={"symptoms": (Symptom.STOPS,)}))
    known = diagnosed(case, census_lines(case), table(sheet))
    assert known.table.parts[int(known.of_part.argmax())] == "lamp"


@pytest.mark.usefixtures("taught")
def test_the_editor_offers_it() -> None:
    assert "drum_lamp" in {kind.kind for kind in list_kinds().kinds}
    assert leaking_kinds()["drum_lamp"] == "Drum lamp"
