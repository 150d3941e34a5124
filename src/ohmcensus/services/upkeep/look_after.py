"""What the server does for the data by itself: a check at the start, a backup a day, a sweep, and warnings."""

from __future__ import annotations

import shutil
from datetime import datetime, timedelta
from functools import partial
from pathlib import Path

from pydantic import BaseModel
from sqlmodel import col, select

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.files.whole_file import sweep_left
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.outcome_tables import work_out
from ohmcensus.services.at_hand.sheets import sheets_in
from ohmcensus.services.job.list_jobs import keep_card, version_of
from ohmcensus.services.sheet_out.keep_signed import photos_on_signed_sheets, signed_sheet
from ohmcensus.storage import photos, settings, signed_sheets, summaries
from ohmcensus.storage.backup import write_backup
from ohmcensus.storage.check import damage_of, missing_pictures
from ohmcensus.storage.database import FILE_NAME
from ohmcensus.storage.summaries import Wanted
from ohmcensus.storage.tables import EventRow, PhotoRow

BACKUPS = "backups"
# One a day, so many kept (ours); a removed photo can be asked back for a month.
EVERY, KEPT = timedelta(days=1), 7
PHOTOS_KEPT = timedelta(days=31)
LEAST_FREE_BYTES = 500_000_000
_HOUR_S = 3600.0


class Health(BaseModel):
    """The server answers; what is wrong with the data or the disk, a sentence each."""

    ok: bool
    warnings: list[str]


def look_after(context: Context) -> None:
    """Have the data looked after beside the answers, from now on."""
    context.later("check", lambda: _check(context))
    context.later("cards", lambda: _fill_in(context), after_s=1.0)
    context.later("day", lambda: _day(context), after_s=5.0)


def show_health(context: Context) -> Health:
    """Return whether the data are well, as far as that is known without touching them."""
    with context.lock:
        warnings = [words for words in context.warnings.values() if words]
    return Health(ok=not warnings, warnings=[*warnings, *_of_disk(context.store.folder), *_of_backup(context)])


def _check(context: Context) -> None:
    """Look whether the database is whole and the pictures are there."""
    photos.sweep(context.store.folder)
    sweep_left(context.store.folder, ".import-*", ".imports/*", "backups/.ohmcensus-*")
    damage = damage_of(context.store.folder / FILE_NAME, is_quick=True)
    said = (
        f"The database is damaged ({damage}). Stop, run 'ohmcensus check', then 'ohmcensus restore --aside' with the "
        "last good backup."
        if damage
        else ""
    )
    lacking = [] if damage else missing_pictures(context.store.folder, is_quick=True)
    with context.lock:
        context.warnings["database"] = said
        context.warnings["photos"] = f"{len(lacking)} photos are missing: run 'ohmcensus check'." if lacking else ""


def _fill_in(context: Context) -> None:
    """Keep what was signed before sheets were kept; work out cards and fault tables of what goes on."""
    with context.store.read() as session:
        setup = settings.revision(session)
        ends = session.exec(select(EventRow.job_id, EventRow.revision).where(EventRow.kind == "ended")).all()
        unsigned = [row for row in ends if signed_sheets.get(session, *row) is None]
        going = summaries.page(session, Wanted(is_ended=False, most=10_000))
        over = summaries.page(session, Wanted(is_ended=True))
        stale = [row.job_id for row in (*going, *over) if row.version != version_of(row.revision, setup)]
        sheets = sheets_in(session)
        used = summaries.sheets_of(session, [row.job_id for row in going])
    for job_id, revision in unsigned:
        context.later(("signed", job_id, revision), partial(signed_sheet, context, job_id, revision))
    for sheet_id in used:
        if sheet_id in sheets:
            context.later(("table", sheet_id), partial(work_out, context, sheets[sheet_id]))
    for job_id in stale:
        context.later(("card", job_id), partial(keep_card, context, job_id))


def _day(context: Context) -> None:
    """Write the backup of the day, take away what nobody asks back, and come again in an hour."""
    try:
        purge_photos(context)
        newest = newest_backup(context.store.folder)
        if newest is None or context.clock() - newest[1] >= EVERY:
            back_up(context)
    except OhmcensusError as error:
        with context.lock:
            context.warnings["backup"] = f"The backup of the day failed: {error}."
    finally:
        context.later("day", lambda: _day(context), after_s=_HOUR_S)


def back_up(context: Context) -> Path:
    """Write a backup into the data directory's own folder, and keep the newest ones only.

    Raises
    ------
    InputError
        If the database is damaged, or there is no room; the former backups are kept then.
    """
    folder = context.store.folder / BACKUPS
    folder.mkdir(mode=0o700, exist_ok=True)
    file = folder / f"ohmcensus-{context.clock():%Y%m%d-%H%M%S}.zip"
    write_backup(context.store.folder, file, at=context.now())
    for older in sorted(folder.glob("ohmcensus-*.zip"))[:-KEPT]:
        older.unlink()
    with context.lock:
        context.warnings["backup"] = ""
    return file


def newest_backup(folder: Path) -> tuple[Path, datetime] | None:
    """Return the newest backup of a data directory that was checked when it was written, and when; None for none."""
    found = [path for path in (folder / BACKUPS).glob("ohmcensus-*.zip") if path.is_file()]
    if not found:
        return None
    newest = max(found, key=lambda path: path.stat().st_mtime)
    return newest, datetime.fromtimestamp(newest.stat().st_mtime).astimezone()


def purge_photos(context: Context) -> int:
    """Take away the pictures of photos that were removed a month ago and that nothing signed shows; return how many."""
    with context.store.write() as session:
        gone = session.exec(select(PhotoRow).where(col(PhotoRow.is_removed).is_(True))).all()
        if not gone:
            return 0
        signed = photos_on_signed_sheets(session)
        shown = set(session.exec(select(PhotoRow.content).where(col(PhotoRow.is_removed).is_(False))).all())
        limit = (context.clock() - PHOTOS_KEPT).isoformat()
        old = [row for row in gone if (row.removed_at or row.at) < limit and row.content not in signed]
        for row in old:
            session.delete(row)
        kept = shown | {row.content for row in gone if row not in old}
    contents = {row.content for row in old} - kept
    for content in contents:
        photos.forget_picture(context.store.folder, content)
    return len(contents)


def _of_disk(folder: Path) -> list[str]:
    free = shutil.disk_usage(folder).free
    return [f"The disk is nearly full: {free / 1e6:.0f} MB are free. Make room."] if free < LEAST_FREE_BYTES else []


def _of_backup(context: Context) -> list[str]:
    """Return a reminder where the last backup is old; a directory of the first day has none yet."""
    newest = newest_backup(context.store.folder)
    if newest is None or context.clock() - newest[1] < 3 * EVERY:
        return []
    return [f"The last backup is of {newest[1]:%Y-%m-%d}. Run 'ohmcensus backup FILE' onto another disk."]
