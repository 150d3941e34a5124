"""The job sheet as it is signed: all that it says is kept with the signature, and printed from there ever after."""

from __future__ import annotations

import hashlib
import json
from dataclasses import dataclass, replace
from datetime import timedelta
from importlib.metadata import version

from pydantic import TypeAdapter
from sqlmodel import Session

from ohmcensus.core.event import Event
from ohmcensus.core.proof import proofs
from ohmcensus.core.proof.label import is_labelled
from ohmcensus.core.safety import Safety
from ohmcensus.core.text.moment import day_words, local
from ohmcensus.exchange.report import Label, Report
from ohmcensus.exchange.sheet_yaml import plain_sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.outcome_tables import table_of
from ohmcensus.services.sheet_out.compose import composed
from ohmcensus.services.sheet_out.customer_page import unsafe_words
from ohmcensus.services.sheet_out.given import given_in
from ohmcensus.storage import photos, signed_sheets
from ohmcensus.storage.tables import SignedSheetRow

# After so long a proof is made again (common practice, no source).
NEXT_AFTER = timedelta(days=365)
RECONSTRUCTED = "Signed before sheets were kept: put together from the records later, with the limits of its day."


@dataclass(frozen=True, slots=True)
class SignedSheet:
    """What was signed.

    Parameters
    ----------
    report, label
        What sheet and label say; no label where nothing was proved and the machine is not labelled unsafe.
    limits, whose
        Id of the limits that held, and whose they are.
    sheet, sheet_digest, program
        The machine sheet by id and hash of its content; the version of Ohmcensus.
    photos
        Pictures of the job, by the hash of their content.
    """

    report: Report
    label: Label | None
    limits: str
    whose: str
    sheet: str
    sheet_digest: str
    program: str
    photos: tuple[str, ...]


_BODY = TypeAdapter(SignedSheet)


def sign(context: Context, session: Session, job: JobAtHand) -> None:
    """Keep the sheet of a job that ends with its newest event, in the transaction that ends it."""
    end = job.case.ended
    if end is not None:
        _keep(session, job, end, _signed(context, session, job), is_reconstructed=False)


def prepare_to_sign(context: Context, job_id: str) -> None:
    """Have at hand what a sheet needs and takes seconds to work out, before anybody waits for the signature."""
    with context.store.read() as session:
        sheet = take(context, session, job_id).case.sheet
    table_of(context.store.folder, sheet)


def signed_sheet(context: Context, job_id: str, revision: int) -> SignedSheetRow:
    """Return the sheet that was signed at a revision; one from before sheets were kept is reconstructed, and kept.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        row = signed_sheets.get(session, job_id, revision)
        if row is not None:
            return row
        sheet = take(context, session, job_id).case.sheet
    table_of(context.store.folder, sheet)
    with context.store.write() as session:
        job = take(context, session, job_id).as_of(revision)
        end = job.case.ended
        assert end is not None  # noqa: S101 - only what was ended is asked for
        body = _signed(context, session, job)
        facts = (*body.report.facts, ("Note", RECONSTRUCTED))
        body = replace(body, report=replace(body.report, facts=facts))
        return _keep(session, job, end, body, is_reconstructed=True)


def signed_body(row: SignedSheetRow) -> SignedSheet:
    """Return what a kept sheet says."""
    return _BODY.validate_json(row.body)


def photos_on_signed_sheets(session: Session) -> set[str]:
    """Return the pictures that belong to what was signed, by the hash of their content."""
    return {content for body in signed_sheets.bodies(session) for content in json.loads(body)["photos"]}


def _keep(session: Session, job: JobAtHand, end: Event, body: SignedSheet, *, is_reconstructed: bool) -> SignedSheetRow:
    row = SignedSheetRow(
        job_id=job.stored.id,
        revision=end.order,
        body=_BODY.dump_json(body).decode(),
        at=end.at,
        who=end.who,
        is_reconstructed=is_reconstructed,
    )
    signed_sheets.append(session, row)
    return row


def _signed(context: Context, session: Session, job: JobAtHand) -> SignedSheet:
    case = job.case
    sheet = json.dumps(plain_sheet(case.sheet), sort_keys=True, default=str)
    return SignedSheet(
        report=composed(context, job, given_in(session, job.stored.id, case)),
        label=_label(job, job.safety(context.clock())),
        limits=case.limits.id,
        whose=case.terms.whose,
        sheet=case.sheet.id,
        sheet_digest=hashlib.sha256(sheet.encode()).hexdigest(),
        program=version("ohmcensus"),
        photos=tuple(row.content for row in photos.of_job(session, job.stored.id)),
    )


def _label(job: JobAtHand, safety: Safety) -> Label | None:
    """Return what the label says, None where there is none."""
    end = job.case.ended
    if end is None or not is_labelled(job.case, safety):
        return None
    is_unsafe = end.body.is_labelled_unsafe
    rows = proofs(job.case, safety)
    made = next((row.event for row in reversed(rows) if row.event and row.event.serial), None)
    day = local(end.at, job.settings.firm.clock).date()
    return Label(
        machine=job.stored.machine,
        job_id=job.stored.id,
        date=day_words(day),
        next_date="" if is_unsafe else day_words(day + NEXT_AFTER),
        tester=f"Tester {made.serial}, calibrated {made.calibrated or 'not stated'}" if made else "",
        limits="" if is_unsafe else job.case.terms.whose,
        is_unsafe=is_unsafe,
        why=" ".join(unsafe_words(job.case, safety)),
    )
