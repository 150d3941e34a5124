"""What was signed is printed as it was signed, whatever changes later."""

from __future__ import annotations

import pytest
from sqlmodel import select
from tests.seeded import with_demo
from tests.services.test_report import text_of
from tests.working import happened, job_on

from ohmcensus.core.event import Reopened
from ohmcensus.core.limits.profile import BUILT_IN
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.setup.change_settings import ChangedSettings, change_settings, show_settings
from ohmcensus.services.sheet_out.keep_signed import RECONSTRUCTED, signed_body
from ohmcensus.services.sheet_out.show_sheet_out import show_sheet_out
from ohmcensus.services.sheet_out.write_report import label_pdf, report_pdf
from ohmcensus.storage import signed_sheets
from ohmcensus.storage.tables import SignedSheetRow


@pytest.fixture
def signed(context: Context) -> str:
    """The demo's job that was signed off."""
    with_demo(context)
    return job_on(context, "Machine 2")


def other_limits(context: Context) -> None:
    stricter = BUILT_IN[0].model_copy(update={"id": "ours", "title": "Ours", "earth_ohm": 0.123})
    revision = show_settings(context).revision
    change_settings(context, ChangedSettings(revision=revision, profile="ours", own_profiles=[stricter]))


def kept(context: Context, job_id: str) -> list[SignedSheetRow]:
    with context.store.read() as session:
        return signed_sheets.of_job(session, job_id)


def test_another_limit_changes_nothing_that_was_signed(context: Context, signed: str) -> None:
    before = report_pdf(context, signed), label_pdf(context, signed), show_sheet_out(context, signed).proved
    other_limits(context)
    revision = show_sheet_out(context, signed).revisions[0].revision
    assert (report_pdf(context, signed), label_pdf(context, signed)) == before[:2]
    assert report_pdf(context, signed, revision) == before[0]
    assert "0.123" not in text_of(before[0])
    assert show_sheet_out(context, signed).proved == before[2]


def test_values_limits_sheet_program_and_pictures_are_kept_with_the_signature(context: Context, signed: str) -> None:
    (row,) = kept(context, signed)
    body = signed_body(row)
    assert (row.who, row.is_reconstructed, body.sheet) == ("Duty technician", False, "fl7-u")
    assert len(body.sheet_digest) == 64
    assert (bool(body.limits), bool(body.program), body.label is not None) == (True, True, True)
    assert body.report.proofs


def test_each_signature_keeps_its_own_sheet(context: Context, signed: str) -> None:
    first = report_pdf(context, signed)
    happened(context, signed, Reopened())
    other_limits(context)
    now = text_of(report_pdf(context, signed))
    revision = kept(context, signed)[0].revision
    assert report_pdf(context, signed, revision) == first
    assert "Signed off by" not in now


def test_what_was_signed_before_sheets_were_kept_is_put_together_with_the_limits_of_its_day(
    context: Context, signed: str
) -> None:
    with context.store.write() as session:
        for row in session.exec(select(SignedSheetRow)):
            session.delete(row)
    other_limits(context)
    said = text_of(report_pdf(context, signed))
    assert "0.123" not in said
    assert RECONSTRUCTED.split(":")[0] in " ".join(said.split())
    assert [row.is_reconstructed for row in kept(context, signed)] == [True]
