"""Errors as RFC 9457 problem answers, mapped by type."""

from __future__ import annotations

from flask import Flask, Response, request
from pydantic import ValidationError
from pydantic_core import ErrorDetails
from werkzeug.exceptions import HTTPException

from ohmcensus.core.errors import (
    InputError,
    NotFoundError,
    OhmcensusError,
    SafetyRefusalError,
    StaleRevisionError,
    StoreError,
    Trouble,
)
from ohmcensus.services.at_hand.described import Described
from ohmcensus.services.at_hand.ways_on import WayOnView, act_view

MIMETYPE = "application/problem+json"
INPUT_TITLE = "Cannot be taken as it stands"
_STATUS: tuple[tuple[type[OhmcensusError], int, str, str], ...] = (
    (StaleRevisionError, 409, "stale-revision", "The job has moved on"),
    (SafetyRefusalError, 403, "safety", "Refused for safety"),
    (NotFoundError, 404, "not-found", "Not found"),
    (InputError, 422, "input", INPUT_TITLE),
    (OhmcensusError, 422, "input", INPUT_TITLE),
)


class Problem(Described):
    """A problem answer (RFC 9457) with the field at fault.

    Attributes
    ----------
    revision
        For a stale writer the stored revision.
    acts
        The ways on, the one thing to do first; never empty where safety refuses.
    """

    type: str
    title: str
    status: int
    detail: str
    field: str = ""
    revision: int | None = None
    acts: tuple[WayOnView, ...] = ()


def answer(problem: Problem) -> Response:
    """Return a problem as a response."""
    return Response(problem.model_dump_json(exclude_none=True, by_alias=True), status=problem.status, mimetype=MIMETYPE)


_OF_TROUBLE: dict[Trouble, tuple[int, str]] = {
    Trouble.FULL: (507, "The disk is full"),
    Trouble.READ_ONLY: (507, "The data cannot be written"),
    Trouble.BUSY: (503, "Busy"),
    Trouble.DAMAGED: (500, "The data are damaged"),
}
RETRY_AFTER_S = 2


def of_trouble(error: StoreError) -> Response:
    """Tell what keeps the data from being read or written, and when to try again."""
    status, title = _OF_TROUBLE[error.trouble]
    kind = f"/problems/store-{error.trouble.value.replace('_', '-')}"
    response = answer(Problem(type=kind, title=title, status=status, detail=str(error), field=error.field))
    if error.trouble is Trouble.BUSY:
        response.headers["Retry-After"] = str(RETRY_AFTER_S)
    return response


def of_error(error: OhmcensusError) -> Response:
    """Map one of our errors by its type."""
    for kind, status, slug, title in _STATUS:
        if isinstance(error, kind):
            revision = error.current if isinstance(error, StaleRevisionError) else None
            return answer(
                Problem(
                    type=f"/problems/{slug}",
                    title=title,
                    status=status,
                    detail=str(error),
                    field=error.field,
                    revision=revision,
                    acts=[act_view(act) for act in error.acts],
                )
            )
    raise error


# What a person types too short or too long, and what to do about it: nobody counts signs.
_TYPED = {"string_too_short": "too short, say it in a few words", "string_too_long": "too long, shorten it"}


def _said(row: ErrorDetails) -> str:
    """Say what does not fit: to whoever typed it in plain words, to a program by the path of the field."""
    typed = str(row["ctx"]["error"]) if row["type"] == "value_error" else _TYPED.get(row["type"], "")
    if typed:
        name = next((part.replace("_", " ") for part in reversed(row["loc"]) if isinstance(part, str)), "")
        return f"{name}: {typed}" if name else typed
    return f"{'.'.join(map(str, row['loc'])) or 'body'}: {row['msg'].lower()}"


def of_validation(error: ValidationError) -> Response:
    """Name each field of a body or query that does not fit."""
    rows = error.errors(include_url=False)
    detail = "; ".join(map(_said, rows[:5]))
    field = str(rows[0]["loc"][0]) if rows and rows[0]["loc"] else ""
    return answer(Problem(type="/problems/input", title=INPUT_TITLE, status=422, detail=detail, field=field))


def of_http(error: HTTPException) -> Response:
    """Give the web's own errors the same form."""
    status = error.code or 500
    response = answer(
        Problem(type="about:blank", title=error.name, status=status, detail=(error.description or error.name)[:300])
    )
    for name, value in error.get_headers(request.environ):
        if name.lower() == "allow":
            response.headers[name] = value
    return response


def of_overflow(error: Exception) -> Response:
    """Refuse what is well-formed and still cannot be kept: numbers, depths and signs beyond all that is."""
    what = {OverflowError: "a number", RecursionError: "a nesting"}.get(type(error), "a sign")
    detail = f"{what} in it is beyond what can be kept: send what a person would type"
    return answer(Problem(type="/problems/input", title=INPUT_TITLE, status=422, detail=detail))


def install(app: Flask) -> None:
    """Install the mapping."""
    app.register_error_handler(OhmcensusError, of_error)
    app.register_error_handler(StoreError, of_trouble)
    app.register_error_handler(HTTPException, of_http)
    app.register_error_handler(OverflowError, of_overflow)
    app.register_error_handler(RecursionError, of_overflow)
    app.register_error_handler(UnicodeEncodeError, of_overflow)
