"""What the disk and the database can do to us, told apart: full, busy, not to be written, damaged."""

from __future__ import annotations

import errno
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from sqlalchemy.exc import DBAPIError, IntegrityError

from ohmcensus.core.errors import StoreError, Trouble

_OF_SIGN = {
    errno.ENOSPC: Trouble.FULL,
    errno.EDQUOT: Trouble.FULL,
    errno.EROFS: Trouble.READ_ONLY,
    errno.EACCES: Trouble.READ_ONLY,
    errno.EPERM: Trouble.READ_ONLY,
}
_OF_WORDS = (
    ("disk is full", Trouble.FULL),
    ("locked", Trouble.BUSY),
    ("readonly", Trouble.READ_ONLY),
    ("unable to open", Trouble.READ_ONLY),
    ("disk i/o error", Trouble.READ_ONLY),
    ("malformed", Trouble.DAMAGED),
    ("not a database", Trouble.DAMAGED),
    ("corrupt", Trouble.DAMAGED),
)
_SAID = {
    Trouble.FULL: ("the disk is full, nothing was written", "make room, then do it again; nothing typed is lost"),
    Trouble.BUSY: ("the data are being written by somebody else", "try again in a moment; nothing typed is lost"),
    Trouble.READ_ONLY: ("the data directory cannot be written", "give this account the right to write there"),
    Trouble.DAMAGED: (
        "the database is damaged",
        "stop the server, run 'ohmcensus check', then 'ohmcensus restore --aside' with the last good backup",
    ),
}


def trouble_of(error: BaseException) -> Trouble | None:
    """Return what kind of trouble an error of the disk or the database is, None where it is none of them."""
    if isinstance(error, DBAPIError):
        return None if isinstance(error, IntegrityError) else _by_words(str(error.orig))
    if isinstance(error, sqlite3.DatabaseError):
        return None if isinstance(error, sqlite3.IntegrityError) else _by_words(str(error))
    return _OF_SIGN.get(error.errno or 0) if isinstance(error, OSError) else None


@contextmanager
def told(folder: Path) -> Iterator[None]:
    """Tell of trouble with a data directory in one sentence.

    Raises
    ------
    StoreError
        For what the disk or the database refuses.
    """
    try:
        yield
    except (DBAPIError, sqlite3.DatabaseError, OSError) as error:
        trouble = trouble_of(error)
        if trouble is None:
            raise
        what, remedy = _SAID[trouble]
        raise StoreError(what=f"{what} ({folder})", remedy=remedy, trouble=trouble) from error


def _by_words(said: str) -> Trouble | None:
    return next((trouble for words, trouble in _OF_WORDS if words in said.lower()), None)
