"""Jobs in short, and the search over everything that was written on them.

The summary of a job is written in the transaction of each change; the full-text table has a row of the same number.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from sqlalchemy import text
from sqlmodel import Session

SEARCHED = (
    "CREATE VIRTUAL TABLE IF NOT EXISTS job_search USING fts5(head, log, tokenize='unicode61 remove_diacritics 2')"
)
TABLE = "job_search"


@dataclass(frozen=True, slots=True)
class Summary:
    """A job in short.

    Parameters
    ----------
    job_id, changed_at, revision
        Which job, and as of when.
    asked, outside
        Lines with a reading, and those that are surely outside.
    card, version
        What the list shows, as JSON, and what that was worked out from; empty where it never was.
    """

    job_id: str
    changed_at: str
    revision: int
    asked: int
    outside: int
    card: str
    version: str


@dataclass(frozen=True, slots=True)
class Wanted:
    """Which jobs a page shows.

    Parameters
    ----------
    is_ended
        Those that are over, or those that go on.
    words, sheets
        Words that a job must hold, each with the sheets whose title holds it.
    before
        Moment and id of the last job of the page before; empty for the first.
    most
        How many.
    """

    is_ended: bool
    words: tuple[str, ...] = ()
    sheets: tuple[tuple[str, ...], ...] = ()
    before: tuple[str, str] = ("", "")
    most: int = 50


# Statements are built once: building one takes longer than running it.
_BEGIN = text("INSERT INTO job_summary (job_id, asked, outside, card, version) VALUES (:job, 0, 0, '', '')")
_BEGIN_SEARCH = text("INSERT INTO job_search (rowid, head, log) VALUES (last_insert_rowid(), '', '')")
_COUNT = text("UPDATE job_summary SET asked = :asked, outside = :outside WHERE job_id = :job")
_OF = "(SELECT number FROM job_summary WHERE job_id = :job)"
_HEAD = text(f"UPDATE job_search SET head = :head WHERE rowid = {_OF}")  # noqa: S608 - no value in it
_LOG = text(f"UPDATE job_search SET log = log || ' ' || :log WHERE rowid = {_OF}")  # noqa: S608 - no value in it
_CARD = text("UPDATE job_summary SET card = :card, version = :version WHERE job_id = :job")
_AT_PLACE = text(
    "SELECT job.id FROM job JOIN machine ON machine.id = job.machine_id JOIN address ON address.id = machine.place_id"
    " WHERE address.id = :id OR address.customer_id = :id"
)
_SHEETS = text("SELECT job.id, machine.sheet_id FROM job JOIN machine ON machine.id = job.machine_id")
_COLUMNS = "job.id, job.changed_at, job.revision, job_summary.asked, job_summary.outside, card, version"
_SUMMARY = "job_summary ON job_summary.job_id = job.id"
_JOINED = f"job JOIN {_SUMMARY}"
_AFTER = " AND (job.changed_at, job.id) < (:moment, :id)"
_ORDER = " ORDER BY job.changed_at DESC, job.id DESC"


def begin(session: Session, job_id: str) -> None:
    """Write the summary of a new job."""
    connection = session.connection()
    connection.execute(_BEGIN, {"job": job_id})
    connection.execute(_BEGIN_SEARCH)


def write(session: Session, job_id: str, asked: int, outside: int, words: str) -> None:
    """Write how many lines have a reading, how many are outside, and add what was written to what it is found by."""
    session.connection().execute(_COUNT, {"job": job_id, "asked": asked, "outside": outside})
    if words.strip():
        session.connection().execute(_LOG, {"job": job_id, "log": words})


def head(session: Session, job_id: str, words: str) -> None:
    """Write what a job can be found by: names, complaint, plate; in the place of what was there."""
    session.connection().execute(_HEAD, {"job": job_id, "head": words})


def keep_card(session: Session, job_id: str, card: str, version: str) -> None:
    """Keep what the list shows of a job."""
    session.connection().execute(_CARD, {"job": job_id, "card": card, "version": version})


def jobs_at(session: Session, address_id: str) -> list[str]:
    """Return the jobs at a place, or of a customer."""
    return list(session.connection().execute(_AT_PLACE, {"id": address_id}).scalars())


def sheets_of(session: Session, job_ids: Sequence[str]) -> set[str]:
    """Return the machine sheets of some jobs."""
    rows = session.connection().execute(_SHEETS)
    wanted = set(job_ids)
    return {sheet for job, sheet in rows if job in wanted}


def page(session: Session, wanted: Wanted) -> list[Summary]:
    """Return one page of jobs, the last changed one first.

    Which jobs they are is settled first: sorted are their ids alone, not what is shown of all that were found.
    """
    hits, source, told = _found(wanted)
    where = "job.is_ended = :ended"
    told |= {"ended": wanted.is_ended, "most": wanted.most}
    if wanted.before[1]:
        where, told = where + _AFTER, told | {"moment": wanted.before[0], "id": wanted.before[1]}
    tables = f"{hits}, " if hits else "WITH "
    chosen = f"chosen AS (SELECT job.id AS chosen_id FROM {source} WHERE {where}{_ORDER} LIMIT :most)"  # noqa: S608
    shown = f"SELECT {_COLUMNS} FROM chosen JOIN job ON job.id = chosen_id JOIN {_SUMMARY}{_ORDER}"  # noqa: S608
    statement = f"{tables}{chosen} {shown}"
    return [Summary(*row) for row in session.connection().execute(text(statement), told)]


def numbers_of(session: Session, wanted: Wanted) -> tuple[int, int]:
    """Return how many jobs there are on all pages that go on, and that have ended."""
    if not wanted.words:
        found = session.connection().execute(_ALL).all()
    else:
        hits, source, told = _found(wanted)
        statement = f"{hits} SELECT job.is_ended, count(*) FROM {source} GROUP BY job.is_ended"  # noqa: S608 - as above
        found = session.connection().execute(text(statement), told).all()
    counted = {bool(is_ended): int(number) for is_ended, number in found}
    return counted.get(False, 0), counted.get(True, 0)


def _found(wanted: Wanted) -> tuple[str, str, dict[str, object]]:
    """Return the hits as tables, what they are joined to, and their values.

    Words that no title of a sheet holds are looked up together; each of the others by itself. Hits are found once:
    asked for each job they would be looked up again and again.
    """
    pairs = list(zip(wanted.words, wanted.sheets, strict=True))
    plain = " ".join(matching(word) for word, sheets in pairs if not sheets)
    found: list[tuple[str, tuple[str, ...]]] = [(plain, ())] if plain else []
    found += [(matching(word), sheets) for word, sheets in pairs if sheets]
    said, source, told = list[str](), _JOINED, dict[str, object]()
    for at, (query, sheets) in enumerate(found):
        told[f"word{at}"] = query
        hit = f"SELECT rowid AS number FROM job_search WHERE job_search MATCH :word{at}"  # noqa: S608 - bound
        if sheets:
            of_word = {f"sheet{at}_{place}": sheet for place, sheet in enumerate(sheets)}
            told |= of_word
            hit += f" UNION {_OF_SHEET.format(names=', '.join(f':{name}' for name in of_word))}"
        said.append(f"hit{at} AS MATERIALIZED ({hit})")
        source += f" JOIN hit{at} ON hit{at}.number = job_summary.number"
    return f"WITH {', '.join(said)}" if said else "", source, told


_ALL = text("SELECT is_ended, count(*) FROM job GROUP BY is_ended")
_OF_SHEET = (
    "SELECT job_summary.number FROM machine JOIN job ON job.machine_id = machine.id"
    " JOIN job_summary ON job_summary.job_id = job.id WHERE machine.sheet_id IN ({names})"
)


def matching(word: str) -> str:
    """Return the full-text query for a word and all that begins with it."""
    signs = " ".join(re.findall(r"\w+", word))
    return f'"{signs}"*'


def searchable(words: Iterable[str]) -> Sequence[str]:
    """Return the words that can be searched for: those with a letter or a figure in them."""
    return [word for word in words if re.search(r"[^\W_]", word)]
