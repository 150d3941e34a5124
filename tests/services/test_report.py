"""The job sheet as PDF: what it says can be copied out, and says what was read, done and proved."""

from __future__ import annotations

import io
from pathlib import Path
from uuid import uuid4

import pytest
from pypdf import PdfReader
from tests.working import happened, logged, prove_dead

from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Changed,
    Ended,
    Hazard,
    HazardFound,
    HeatRise,
    Intervention,
    LiveBegun,
    ProofMade,
    RunWatched,
    Way,
)
from ohmcensus.core.judgement import Verdict
from ohmcensus.services.context import Context
from ohmcensus.services.export_job import export_job
from ohmcensus.services.open_job import NewJob, open_job
from ohmcensus.services.show_proof import show_proof
from ohmcensus.services.show_trace import show_trace
from ohmcensus.services.write_report import label_pdf, report_pdf


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


def text_of(document: bytes) -> str:
    """Return the text by an outside reader, its spaces made single (pypdf)."""
    return " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(document)).pages).split())


def repaired(context: Context, job: str) -> None:
    prove_dead(context, job)
    logged(context, job, "heater OL")
    logged(context, job, "heater OL")
    logged(context, job, "pump 148")
    happened(context, job, RunWatched(outcome="heat"))
    happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare 1"))
    happened(context, job, ProofMade(criterion="visual", is_good=True))
    prove_dead(context, job)
    logged(context, job, "cord pe 0.07")
    logged(context, job, "cord insulation >299M")


def measured(context: Context, job: str) -> None:
    happened(context, job, LiveBegun(reason="current after repair"))
    for criterion in ("current", "current_turned"):
        made = ProofMade(
            criterion=criterion, text="0.41 mA", way=Way.DIFFERENTIAL, serial="OC-T7", calibrated="2026-03-01"
        )
        happened(context, job, made)
    warmed = HeatRise(litres=10.0, from_celsius=15.0, to_celsius=40.0, minutes=9.5)
    happened(context, job, RunWatched(outcome="through", heat=warmed))
    for criterion in ("joints", "drum", "codes"):
        happened(context, job, ProofMade(criterion=criterion, is_good=True))


def test_the_sheet_says_what_was_read_done_and_proved(context: Context, job: str) -> None:
    repaired(context, job)
    measured(context, job)
    happened(context, job, Ended(why="New heater fitted."))
    document = report_pdf(context, job)
    said = text_of(document)
    for line in show_trace(context, job).lines:
        if line.verdict is Verdict.INSIDE and line.part != "cord":
            assert line.reads in said
    for words in ("OL", "25.2–29.4 Ω", "another one fitted, spare 1", "Conclusive", "0.41 mA", "OC-T7", "2026-03-01"):
        assert words in said
    assert "New heater fitted." in said
    assert "UNSAFE" not in said
    meta = PdfReader(io.BytesIO(document)).metadata
    assert meta is not None
    assert meta.title == "Job sheet · Machine 9"


def test_a_job_is_not_signed_off_before_its_proof_whoever_asks(context: Context, job: str) -> None:
    repaired(context, job)
    with pytest.raises(SafetyRefusalError, match="protective conductor current is not shown"):
        happened(context, job, Ended(why="New heater fitted."))
    with pytest.raises(SafetyRefusalError, match="under power"):
        happened(context, job, ProofMade(criterion="current", text="0.4 mA", way=Way.DIRECT))
    measured(context, job)
    assert show_proof(context, job).blocking == []
    happened(context, job, HazardFound(hazard=Hazard.BYPASS, words="lid wires joined"))
    with pytest.raises(SafetyRefusalError, match="lid wires joined"):
        happened(context, job, Ended(why="New heater fitted."))
    happened(context, job, Ended(why="Customer keeps the bypass.", is_labelled_unsafe=True))
    assert "UNSAFE: not to be used" in text_of(report_pdf(context, job))


def test_a_label_is_printed_of_what_was_proved_or_is_unsafe_and_of_nothing_else(context: Context, job: str) -> None:
    with pytest.raises(InputError, match="has not ended"):
        label_pdf(context, job)
    repaired(context, job)
    measured(context, job)
    happened(context, job, Ended(why="New heater fitted."))
    said = text_of(label_pdf(context, job))
    assert "Proved" in said
    assert "Tester OC-T7, calibrated 2026-03-01" in said
    assert "Next " in said
    other = open_job(context, NewJob(id=uuid4(), machine="Machine 8", place="Pier", sheet="fl7-u")).id
    happened(context, other, Ended(why="The socket was dead."))
    with pytest.raises(InputError, match="nothing was proved"):
        label_pdf(context, other)
    third = open_job(context, NewJob(id=uuid4(), machine="Machine 7", place="Pier", sheet="fl7-u")).id
    happened(context, third, Ended(why="Left as it is.", is_labelled_unsafe=True))
    said = text_of(label_pdf(context, third))
    assert "UNSAFE Not to be used" in said
    assert "Next" not in said


def test_a_sheet_of_an_unfinished_job_says_so(context: Context, job: str) -> None:
    said = text_of(report_pdf(context, job))
    assert "not ended yet" in said
    assert "Nothing was changed" in said


def test_a_job_is_exported_as_pdf_by_the_ending(context: Context, job: str, tmp_path: Path) -> None:
    export_job(context, job, tmp_path / "sheet.pdf")
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")
    with pytest.raises(InputError, match=r"no format '\.doc'"):
        export_job(context, job, tmp_path / "sheet.doc")
