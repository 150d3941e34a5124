"""Job sheets as they were signed: written once, printed from here ever after."""

from __future__ import annotations

from sqlmodel import Session, col, select

from ohmcensus.storage.tables import SignedSheetRow


def get(session: Session, job_id: str, revision: int) -> SignedSheetRow | None:
    """Return the sheet that was signed at a revision, None where none is kept."""
    return session.get(SignedSheetRow, (job_id, revision))


def of_job(session: Session, job_id: str) -> list[SignedSheetRow]:
    """Return every signed sheet of a job, oldest first."""
    rows = select(SignedSheetRow).where(SignedSheetRow.job_id == job_id).order_by(col(SignedSheetRow.revision))
    return list(session.exec(rows).all())


def append(session: Session, row: SignedSheetRow) -> None:
    """Keep a sheet."""
    session.add(row)
    session.flush()


def bodies(session: Session) -> list[str]:
    """Return what every signed sheet says, as JSON."""
    return list(session.exec(select(SignedSheetRow.body)).all())
