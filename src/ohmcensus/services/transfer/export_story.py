"""A job written as a story: for training, and for whoever is asked why it was refused."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ohmcensus.core.event import Event, ProofMade
from ohmcensus.core.job.case import Case, Frame
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import parse_indication, with_scale
from ohmcensus.core.safety.walk import log_of
from ohmcensus.exchange.story_file import FORMAT, NAMES_RECORD
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take

# What the store fills in or knows by an id of its own, and what names a picture: a story does not carry it.
_FILLED = frozenset({"instrument", "device", "spare"})
_PICTURES = frozenset({"connector_noted", "connector_ticked"})


def story_of(context: Context, job_id: str) -> dict[str, Any]:
    """Return a job as a story: everything that was accepted, at the moment at which it was.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    case = job.case
    first = case.frames[0] if case.frames else case.present
    return {
        "format": FORMAT,
        "sheet": first.sheet.id,
        "limits": first.profile.id,
        "complaint": first.complaint.model_dump(mode="json", exclude_defaults=True),
        **({"former": {"ended_unsafe": list(first.former)}} if first.former else {}),
        "at": job.stored.opened_at,
        "steps": list(_steps(case, first)),
    }


def _steps(case: Case, first: Frame) -> Iterator[dict[str, Any]]:
    """Yield the steps; each record goes by its place among them."""
    place_of: dict[str, int] = {}
    place, before = 0, first
    for item in log_of(case):
        if isinstance(item, Frame):
            for step in _changed(before, item):
                yield step
                place += 1
            before = item
            continue
        if isinstance(item, Event) and item.body.kind in _PICTURES:
            continue
        place_of[item.id] = place
        yield _reading(item, place_of) if isinstance(item, Reading) else _event(item, place_of)
        place += 1


def _changed(before: Frame, now: Frame) -> Iterator[dict[str, Any]]:
    if now.complaint != before.complaint:
        yield {"intake": now.complaint.model_dump(mode="json", exclude_defaults=True), "minutes": 0}
    if now.profile != before.profile:
        yield {"limits": now.profile.id, "minutes": 0}


def _reading(row: Reading, place_of: dict[str, int]) -> dict[str, Any]:
    stamped = {"at": row.at, **_said(row.device, row.who)}
    if row.withdrawn:
        return {"withdraw": place_of.get(row.supersedes or "", 0), **stamped}
    corrects = {"correct": place_of[row.supersedes]} if row.supersedes in place_of else {}
    override = {"override": row.override} if row.override else {}
    return {"read": _with_unit(row), "meter": row.meter.id, **override, **corrects, **stamped}


def _with_unit(row: Reading) -> str:
    """Return a line as it was typed; with its unit where a bare figure was read otherwise than it would be now."""
    figure = row.text.rpartition(" ")[2]
    scaled = with_scale(figure, row.function.scale, row.meter.over_range_texts)
    if scaled == figure or row.indication.value is None:
        return row.text
    read = parse_indication(scaled, row.indication.unit, over_range_texts=row.meter.over_range_texts)
    return row.text if read.value == row.indication.value else f"{row.text}{row.indication.unit.symbol}"


def _event(event: Event, place_of: dict[str, int]) -> dict[str, Any]:
    body = event.body.model_dump(mode="json", exclude_defaults=True, exclude=set(_FILLED))
    if isinstance(event.body, ProofMade) and with_scale(event.body.text, Function.LEAKAGE.scale) != event.body.text:
        body["text"] = f"{event.body.text} A"
    body["kind"] = event.body.kind
    name = NAMES_RECORD.get(event.body.kind)
    if name is not None:
        body[name] = place_of.get(body[name], 0)
    return {"do": body, "at": event.at, **_said(event.device, event.who)}


def _said(device: str, who: str) -> dict[str, str]:
    return {name: value for name, value in (("device", device), ("who", who)) if value}
