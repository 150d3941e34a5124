"""The editor of machine sheets: drafts that lose nothing, faults that refuse, files in and out."""

from __future__ import annotations

import copy
import json
from typing import Any
from uuid import uuid4

import pytest
from tests.working import logged, prove_dead

from ohmcensus.core.errors import InputError, NotFoundError, StaleRevisionError
from ohmcensus.core.judgement import Verdict
from ohmcensus.core.sheet import SheetFaultsError
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import sheets_in
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.reading.show_trace import show_trace
from ohmcensus.services.sheet.copy_sheet import SheetCopy, copy_sheet
from ohmcensus.services.sheet.edit_sheet import DraftRevision, SheetDraft, drop_draft, keep_draft, show_sheet, use_draft
from ohmcensus.services.sheet.import_sheet import export_sheet, import_sheet
from ohmcensus.services.sheet.list_kinds import list_kinds
from ohmcensus.services.sheet.list_sheets import list_sheets
from ohmcensus.services.sheet.show_blind_spots import show_blind_spots
from ohmcensus.services.sheet.view import SheetView


@pytest.fixture
def own(context: Context) -> str:
    return copy_sheet(context, SheetCopy(of="fl7-u", title="Quay machine")).id


def changed(view: SheetView, part: str, **values: Any) -> SheetDraft:
    raw = copy.deepcopy(view.raw)
    entry = next(row for row in raw["parts"] if row["id"] == part)
    entry["ratings"] = {**entry["ratings"], **values}
    return SheetDraft(raw=raw, revision=view.revision)


def in_use(context: Context, sheet_id: str) -> Any:
    with context.store.read() as session:
        return sheets_in(session)[sheet_id]


@pytest.mark.parametrize(
    ("part", "name", "typed", "held"),
    [
        ("heater", "watts", "1k8", 1800.0),
        ("heater", "watts", "1,9k", 1900.0),
        ("filter", "y_farad", "4n7", 4.7e-9),
        ("filter", "x_farad", "0.47 µF", 0.47e-6),
        ("filter", "bleed_ohm", "680k", 680e3),
        ("cord", "length_m", "2.5", 2.5),
    ],
)
def test_figures_are_typed_as_in_the_trade(
    context: Context, own: str, part: str, name: str, typed: str, held: float
) -> None:
    view = keep_draft(context, own, changed(show_sheet(context, own), part, **{name: typed}))
    entry = next(row for row in view.raw["parts"] if row["id"] == part)
    assert entry["ratings"][name] == pytest.approx(held)
    assert not [remark for remark in view.remarks if remark.refused]


def test_a_draft_is_kept_with_its_faults_and_the_sheet_in_use_stands(context: Context, own: str) -> None:
    view = keep_draft(context, own, changed(show_sheet(context, own), "heater", watts="plenty"))
    (fault,) = [remark for remark in view.remarks if remark.refused]
    assert fault.path == ["parts", 5, "ratings", "watts"]
    assert view.ladder is None
    assert any(point.name == "pump.a" for point in view.points)
    again = show_sheet(context, own)
    assert next(row for row in again.raw["parts"] if row["id"] == "heater")["ratings"]["watts"] == "plenty"
    assert next(row for row in list_sheets(context) if row.id == own).has_draft
    with pytest.raises(SheetFaultsError, match="watts"):
        use_draft(context, own, DraftRevision(revision=1))
    assert in_use(context, own).part("heater").ratings.watts == 2000


def test_a_draft_without_faults_is_put_into_use_or_dropped(context: Context, own: str) -> None:
    view = keep_draft(context, own, changed(show_sheet(context, own), "heater", watts=1800.0))
    assert in_use(context, own).part("heater").ratings.watts == 2000
    with pytest.raises(StaleRevisionError):
        use_draft(context, own, DraftRevision(revision=view.revision + 1))
    assert (
        use_draft(context, own, DraftRevision(revision=view.revision)).revision,
        in_use(context, own).part("heater").ratings.watts,
    ) == (0, 1800)
    keep_draft(context, own, changed(show_sheet(context, own), "heater", watts=900.0))
    dropped = drop_draft(context, own)
    assert (dropped.revision, in_use(context, own).part("heater").ratings.watts) == (0, 1800)
    with pytest.raises(InputError, match="no draft"):
        use_draft(context, own, DraftRevision(revision=1))
    assert view.ladder is not None


def test_a_second_editor_is_told(context: Context, own: str) -> None:
    first = show_sheet(context, own)
    keep_draft(context, own, changed(first, "heater", watts=1800.0))
    with pytest.raises(StaleRevisionError, match="this sheet has moved on"):
        keep_draft(context, own, changed(first, "heater", watts=1500.0))


@pytest.mark.parametrize(
    "raw",
    [{}, {"parts": 7}, {"parts": [7, None, {"kind": "heater"}]}, {"nets": {"x": 5}}, {"title": ["x"]}],
    ids=["nothing", "parts a number", "parts of anything", "a net of a number", "a title of words"],
)
def test_any_draft_is_kept_and_said_to_be_faulty(context: Context, own: str, raw: dict[str, Any]) -> None:
    view = keep_draft(context, own, SheetDraft(raw=raw, revision=0))
    assert any(remark.refused for remark in view.remarks)
    assert show_sheet(context, own).raw == raw


def test_built_in_sheets_are_copied_not_changed(context: Context) -> None:
    view = show_sheet(context, "fl7-u")
    assert not view.is_own
    assert view.remarks == []
    with pytest.raises(InputError, match="copy it"):
        keep_draft(context, "fl7-u", SheetDraft(raw=view.raw, revision=0))
    with pytest.raises(NotFoundError):
        show_sheet(context, "none")


@pytest.mark.parametrize("form", ["yaml", "json"])
def test_a_file_that_went_out_comes_back_the_same(context: Context, own: str, form: str) -> None:
    text = export_sheet(context, own, form)
    with pytest.raises(InputError, match="here already"):
        import_sheet(context, text.encode())
    renamed = text.replace("quay-machine", "quay-two")
    taken = import_sheet(context, renamed.encode())
    assert taken.id == "quay-two"
    assert in_use(context, "quay-two").parts == in_use(context, own).parts


@pytest.mark.parametrize(
    ("body", "says"),
    [
        (b"\xff\xfe\x00", "not text"),
        (b"", "mapping"),
        (b"a: [" * 5000, "nested too deep"),
        (b"a: &a [x]\nb: [*a, *a]", "aliases"),
        (b"format: ohmcensus-sheet/9\n", "newer"),
        (b"x" * 5_000_000, "over 512 kB"),
        (b'{"format": "ohmcensus-sheet/1", "id": ', "line 2"),
    ],
    ids=["bytes", "empty", "deep", "bomb", "newer", "five megabytes", "cut"],
)
def test_files_that_are_no_sheet_are_refused_whole(context: Context, body: bytes, says: str) -> None:
    before = len(list_sheets(context))
    with pytest.raises(InputError, match=says):
        import_sheet(context, body)
    assert len(list_sheets(context)) == before


def test_blind_spots_come_from_the_dictionary(context: Context) -> None:
    spots = show_blind_spots(context, "tl4-c")
    pump = next(row for row in spots.unseen if row.part == "Drain pump")
    assert "a few shorted turns (coil)" in pump.faults
    assert spots.inseparable == []
    assert json.loads(spots.model_dump_json())


def test_every_kind_says_how_its_ratings_are_entered() -> None:
    kinds = {kind.kind: kind for kind in list_kinds().kinds}
    heater = {field.name: field for field in kinds["heater"].fields}
    assert (heater["watts"].entry, heater["watts"].required) == ("figure", True)
    assert heater["plate"].choices == ["element", "machine"]
    assert {field.entry for field in kinds["control_board"].fields} == {"structure", "figure", "choice"}
    assert next(row.choices for row in kinds["mains_filter"].fields if row.name == "arrester") == ["yes", "no"]


def test_a_reading_judged_otherwise_since_the_sheet_was_changed_says_so(context: Context, own: str) -> None:
    job = open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet=own)).id
    prove_dead(context, job)
    line = next(row for row in logged(context, job, "heater 26.4").lines if row.key == "heater.element")
    assert (line.verdict, line.rejudged) == (Verdict.INSIDE, "")
    view = keep_draft(context, own, changed(show_sheet(context, own), "heater", watts="1000"))
    use_draft(context, own, DraftRevision(revision=view.revision))
    line = next(row for row in show_trace(context, job).lines if row.key == "heater.element")
    assert line.verdict is Verdict.OUTSIDE_LOW
    assert line.rejudged.startswith("Told as inside when it was logged.")
