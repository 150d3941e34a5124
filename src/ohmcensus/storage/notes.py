"""Notes on lines: appended; the newest of a line stands."""

from __future__ import annotations

from sqlmodel import Session, col, select

from ohmcensus.storage.tables import NoteRow


def append(session: Session, note: NoteRow) -> None:
    """Write one note."""
    session.add(note)


def get(session: Session, note_id: str) -> NoteRow | None:
    """Return a note by its id, so that a retry is recognised; None where there is none."""
    return session.get(NoteRow, note_id)


def of_job(session: Session, job_id: str, *, after: int = 0) -> list[NoteRow]:
    """Return all notes of a job written after a revision, oldest first."""
    rows = session.exec(
        select(NoteRow).where(NoteRow.job_id == job_id, col(NoteRow.revision) > after).order_by(col(NoteRow.revision))
    )
    return list(rows.all())


def standing(notes: list[NoteRow]) -> dict[str, NoteRow]:
    """Return the note that stands on each line, empty ones left out."""
    newest = {note.line: note for note in notes}
    return {line: note for line, note in newest.items() if note.text}
