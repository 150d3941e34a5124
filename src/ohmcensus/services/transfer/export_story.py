"""A job written as a story: for training, and for whoever is asked why it was refused."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ohmcensus.core.event import Event, ProofMade, RunMade
from ohmcensus.core.job.case import Case, Frame
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import parse_indication, with_scale
from ohmcensus.core.safety.walk import log_of
from ohmcensus.exchange.device_digest import device_digest
from ohmcensus.exchange.story_file import FORMAT, NAMES_RECORD
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take

# What the store fills in or knows by an id of its own, and what names a picture: a story does not carry it.
_FILLED = frozenset({"instrument", "spare"})
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
        **({"former": {"ended_unsafe": sorted({row.id for row in first.former})}} if first.former else {}),
        "at": job.stored.opened_at,
        "steps": list(_steps(case, first, job_id)),
    }


def _steps(case: Case, first: Frame, job_id: str) -> Iterator[dict[str, Any]]:
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
        step = _reading(item, place_of) if isinstance(item, Reading) else _event(item, place_of)
        yield step | _by(device_digest(job_id, item.device), item.who)
        place += 1


def _changed(before: Frame, now: Frame) -> Iterator[dict[str, Any]]:
    if now.sheet.id != before.sheet.id:
        yield {"sheet": now.sheet.id, "minutes": 0}
    if now.plate != before.plate:
        yield {"plate": now.plate.model_dump(mode="json", exclude_defaults=True), "minutes": 0}
    if now.complaint != before.complaint:
        yield {"intake": now.complaint.model_dump(mode="json", exclude_defaults=True), "minutes": 0}
    if now.profile != before.profile:
        yield {"limits": now.profile.id, "minutes": 0}


def _reading(row: Reading, place_of: dict[str, int]) -> dict[str, Any]:
    if row.withdrawn:
        return {"withdraw": place_of.get(row.supersedes or "", 0), "at": row.at}
    corrects = {"correct": place_of[row.supersedes]} if row.supersedes in place_of else {}
    override = {"override": row.override} if row.override else {}
    beside = {name: value for name, value in (("door", row.door), ("step", row.step)) if value}
    said = {**({"was": row.was} if row.was else {}), **({"says": beside} if beside else {})}
    return {"read": _with_unit(row), "meter": row.meter.id, **override, **corrects, **said, "at": row.at}


def _with_unit(row: Reading) -> str:
    """Return a line as it was typed; with its unit where a bare figure was read otherwise than it would be now."""
    figure = row.text.rpartition(" ")[2]
    scaled = with_scale(figure, row.function.scale, row.meter.over_range_texts)
    if scaled == figure or row.indication.value is None:
        return row.text
    read = parse_indication(scaled, row.indication.unit, over_range_texts=row.meter.over_range_texts)
    return row.text if read.value == row.indication.value else f"{row.text}{row.indication.unit.symbol}"


def _event(event: Event, place_of: dict[str, int]) -> dict[str, Any]:
    filled = _FILLED | ({"device"} if isinstance(event.body, RunMade) else set())
    body = event.body.model_dump(mode="json", exclude_defaults=True, exclude=set(filled))
    if isinstance(event.body, ProofMade) and with_scale(event.body.text, Function.LEAKAGE.scale) != event.body.text:
        body["text"] = f"{event.body.text} A"
    body["kind"] = event.body.kind
    name = NAMES_RECORD.get(event.body.kind)
    if name is not None:
        body[name] = place_of.get(body[name], 0)
    return {"do": body, "at": event.at}


def _by(device: str, who: str) -> dict[str, str]:
    return {name: value for name, value in (("device", device), ("who", who)) if value}
