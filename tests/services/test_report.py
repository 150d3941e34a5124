"""The job sheet as PDF: what it says can be copied out, and says what was read, done and proved."""

from __future__ import annotations

import io
from contextlib import suppress
from pathlib import Path
from uuid import uuid4

import pytest
from pypdf import PdfReader
from tests.working import happened, logged, prove_dead

from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.errors import InputError, NotFoundError, OhmcensusError, SafetyRefusalError
from ohmcensus.core.event import (
    Changed,
    CostsNoted,
    Ended,
    Hazard,
    HazardFound,
    HeatRise,
    Intervention,
    Isolated,
    PluggedIn,
    ProofMade,
    Reopened,
    RunWatched,
    Stamped,
    StripBack,
    StripStep,
    Way,
    When,
)
from ohmcensus.core.judgement import Verdict
from ohmcensus.core.machine import MachineTest, machine_tests
from ohmcensus.core.parts.kind import MachineState
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.proof.show_proof import show_proof
from ohmcensus.services.reading.show_trace import show_trace
from ohmcensus.services.repair.show_repair import show_repair
from ohmcensus.services.sheet_out.write_report import label_pdf, report_pdf
from ohmcensus.services.shelf.keep_wanted import NewOffer, NewWanted, keep_wanted
from ohmcensus.services.suspects.show_suspects import SuspectsQuery, show_suspects
from ohmcensus.services.transfer.export_job import export_job

OFFER = NewOffer(source="Quay store", price="38.50")


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


def text_of(document: bytes) -> str:
    """Return the text by an outside reader, its spaces made single (pypdf)."""
    return " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(document)).pages).split())


def repaired(context: Context, job: str, *found: str) -> None:
    happened(context, job, RunWatched(outcome="heat", was=When.NOW))
    prove_dead(context, job)
    logged(context, job, "heater OL")
    logged(context, job, "heater OL")
    logged(context, job, "pump 148")
    for line in found:
        logged(context, job, line)
    happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare 1"))
    logged(context, job, "heater 26")
    for criterion in ("visual", "drum"):
        happened(context, job, ProofMade(criterion=criterion, is_good=True))
    logged(context, job, "heater earth 0.07")
    logged(context, job, "cord pe 0.07")
    logged(context, job, "cord insulation >299M")


def good(test: MachineTest) -> str:
    """Return what a good part reads, with the unit of its test."""
    window = test.window.interval
    value = test.window.nominal or (2 * window.lo if window.finite_hi is None else window.hi / 2)
    return f"{value:.6g}{'' if test.function.unit.value == 'ohm' else test.function.unit.notation.symbol}"


def measured(context: Context, job: str) -> None:
    happened(context, job, PluggedIn())
    for criterion in ("current", "current_turned"):
        made = ProofMade(
            criterion=criterion, text="0.41 mA", way=Way.DIFFERENTIAL, serial="OC-T7", calibrated="2026-03-01"
        )
        happened(context, job, made)
    warmed = HeatRise(litres=10.0, from_celsius=15.0, to_celsius=40.0, minutes=9.5)
    happened(context, job, RunWatched(outcome="through", heat=warmed))
    for criterion in ("joints", "codes"):
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
    with pytest.raises(SafetyRefusalError, match="was this now, or before"):
        happened(context, job, ProofMade(criterion="current", text="0.4 mA", way=Way.DIRECT))
    happened(context, job, ProofMade(criterion="current", text="0.4 mA", way=Way.DIRECT, was=When.BEFORE))
    with pytest.raises(SafetyRefusalError, match="protective conductor current is not shown"):
        happened(context, job, Ended(why="New heater fitted."))
    measured(context, job)
    assert show_proof(context, job).blocking == []
    happened(context, job, HazardFound(hazard=Hazard.BYPASS, words="lid wires joined"))
    with pytest.raises(SafetyRefusalError, match="lid wires joined"):
        happened(context, job, Ended(why="New heater fitted."))
    happened(context, job, Isolated())
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
    happened(context, third, Isolated())
    happened(context, third, Ended(why="Left as it is.", is_labelled_unsafe=True))
    said = text_of(label_pdf(context, third))
    assert "UNSAFE Not to be used" in said
    assert "Next" not in said


def test_a_sheet_of_an_unfinished_job_says_so(context: Context, job: str) -> None:
    said = text_of(report_pdf(context, job))
    assert "not ended yet" in said
    assert "Nothing was changed" in said


def test_the_paper_and_trace_say_the_same_of_a_part_whose_stamp_was_read(context: Context, job: str) -> None:
    prove_dead(context, job)
    for _ in range(2):
        logged(context, job, "heater 38")
    asked = show_suspects(context, job, SuspectsQuery())
    assert asked.standing is Standing.ANOTHER_VARIANT
    happened(context, job, Stamped(part="heater", rating="watts", value=2000.0))
    stamped = show_suspects(context, job, SuspectsQuery())
    assert stamped.standing is Standing.NAMED
    assert stamped.sentence in text_of(report_pdf(context, job))


def test_a_job_is_exported_as_pdf_by_the_ending(context: Context, job: str, tmp_path: Path) -> None:
    export_job(context, job, tmp_path / "sheet.pdf")
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")
    with pytest.raises(InputError, match=r"no format '\.doc'"):
        export_job(context, job, tmp_path / "sheet.doc")


def test_a_job_that_was_reopened_keeps_the_sheet_that_was_signed(context: Context, job: str) -> None:
    repaired(context, job)
    measured(context, job)
    signed = happened(context, job, Ended(why="New heater fitted.")).revision
    happened(context, job, Reopened())
    logged(context, job, "outlet 226")
    happened(context, job, CostsNoted(minutes=30.0, hour=60.0, call_out=35.0))
    again = happened(context, job, Ended(why="Looked at the outlet too.")).revision
    first, second = text_of(report_pdf(context, job, signed)), text_of(report_pdf(context, job, again))
    assert "New heater fitted." in first
    assert f"revision {signed}." in first
    assert "226 V" not in first
    assert "65.00" not in first
    assert "Looked at the outlet too." in second
    assert "226 V" in second
    assert "Total 65.00" in second
    with pytest.raises(NotFoundError, match="this job was not signed off at revision 2"):
        report_pdf(context, job, 2)


def test_the_sheet_shows_what_the_machine_did_before_beside_what_it_does_now(context: Context, job: str) -> None:
    repaired(context, job, "cord insulation 0.12M")
    measured(context, job)
    before = {row.id: row.before for row in show_proof(context, job).criteria}
    assert (before["insulation"], before["function"]) == ("120 kΩ", "fails at heat")
    said = text_of(report_pdf(context, job))
    assert "Insulation at 500 V > 300 kΩ 120 kΩ > 299 MΩ good" in said
    assert "Runs through fails at heat good" in said


def test_what_came_off_and_what_is_wanted_stand_on_the_sheet(context: Context, job: str) -> None:
    happened(context, job, StripStep(words="back panel", fasteners=4, head="cross", size="M4", kept="blue lid"))
    wish = NewWanted(part="heater", type_number="FL7-U/2", variant="two tags", offers=[OFFER])
    keep_wanted(context, job, uuid4(), wish)
    said = text_of(report_pdf(context, job))
    assert "back panel (4 × cross M4, blue lid)" in said
    assert "Heater for FL7-U/2, two tags: wanted, not ordered, 38.50 from Quay store" in said


def test_a_sheet_of_everything_keeps_to_three_pages(context: Context, job: str) -> None:
    """Every line of the sheet read but the cord's, eight steps off, a proof, costs: the most that one visit brings.

    The cord's ends and cores are read one by one where the cord itself is at fault: then nothing else is.
    """
    prove_dead(context, job)
    for test in machine_tests(find_sheet("fl7-u"), 20.0):
        of_cord = test.part == "cord" and test.name not in {"pe", "insulation"}
        if test.state is not MachineState.LIVE and test.part != "outlet" and not of_cord:
            with suppress(OhmcensusError):
                logged(context, job, f"{test.part} {test.name} {good(test)}")
    for number in range(8):
        happened(context, job, StripStep(words=f"cover number {number}", fasteners=4, head="cross", size="M4 x 12"))
    for step in show_repair(context, job).strip.steps:
        happened(context, job, StripBack(step=step.id, fasteners=4))
    repaired(context, job)
    measured(context, job)
    happened(context, job, CostsNoted(minutes=95.0, hour=60.0, call_out=35.0))
    document = PdfReader(io.BytesIO(report_pdf(context, job)))
    assert sum(bool(line.reads) for line in show_trace(context, job).lines) > 45
    assert len(document.pages) <= 3
