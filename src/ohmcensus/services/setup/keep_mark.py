"""The firm's mark: one small picture that stands at the head of what goes out."""

from __future__ import annotations

from base64 import b64decode, b64encode

from ohmcensus.core.errors import NotFoundError
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.settings import MARK, mark_in, mark_name
from ohmcensus.storage import settings


def show_mark(context: Context, name: str) -> bytes:
    """Return the mark as JPEG.

    Parameters
    ----------
    context, name
        Where, and what the settings call it.

    Raises
    ------
    NotFoundError
        If the firm has none, or another one since.
    """
    with context.store.read() as session:
        found = mark_in(session)
    if not found or mark_name(found) != name:
        raise NotFoundError(what="the firm has no such mark", remedy="look at Setup again", field="mark")
    return b64decode(found)


def keep_mark(context: Context, name: str, body: bytes) -> None:
    """Keep a picture as the firm's mark, made small.

    Parameters
    ----------
    context
        Where.
    name, body
        Name of the file, for messages, and its content in any usual picture format.

    Raises
    ------
    InputError
        If it is no picture that can be read; nothing is stored.
    """
    from ohmcensus.exchange.photo import small_mark  # noqa: PLC0415 - nothing else here needs the picture library

    with context.picturing:
        picture = small_mark(body, name)
    with context.store.write() as session:
        settings.keep_text(session, MARK, b64encode(picture).decode())


def remove_mark(context: Context) -> None:
    """Take the firm's mark out."""
    with context.store.write() as session:
        settings.keep_text(session, MARK, "")
