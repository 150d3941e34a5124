"""A log that comes in from outside goes through the same admissions as one that is written here."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.event import Ended, Event, RecordWithdrawn
from ohmcensus.core.job.case import Case, Frame
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.proof.sign_off import refuse_sign_off
from ohmcensus.core.safety import admitted, refuse_event, safety_at, stepped, walk_of
from ohmcensus.core.safety.clock import moment
from ohmcensus.core.safety.state import framed
from ohmcensus.core.safety.walk import Walk, log_of


def with_refusals(case: Case, signed: frozenset[int] = frozenset()) -> Case:
    """Return a log whose records carry why each would have been refused here, empty for what would have been taken.

    Parameters
    ----------
    case
        The log; what it says of refusals already stays.
    signed
        Revisions of endings whose signed sheets came along: those stand, whatever the rules are by now.

    Notes
    -----
    What a refused record tells of power, voltage or danger counts all the same; it lifts, proves, cuts off and ends
    nothing (SAFETY, *imported logs*).
    """
    told = replace(case, readings=(), events=(), frames=())
    walk = Walk()
    for item in log_of(case):
        if isinstance(item, Frame):
            told = replace(told, frames=(*told.frames, item))
            walk = framed(walk, item)
            continue
        marked = replace(item, refused=item.refused or _why(told, item, walk, signed))
        told = _with(told, marked)
        is_back = isinstance(marked, Event) and isinstance(marked.body, RecordWithdrawn) and not marked.refused
        walk = walk_of(told) if is_back else stepped(walk, marked)
    return replace(case, readings=told.readings, events=told.events)


def _with(case: Case, item: Reading | Event) -> Case:
    if isinstance(item, Reading):
        return replace(case, readings=(*case.readings, item))
    return replace(case, events=(*case.events, item))


def _why(case: Case, item: Reading | Event, walk: Walk, signed: frozenset[int]) -> str:
    """Return why a record would have been refused at its moment, empty where it would have been taken."""
    frame = walk.frame
    if frame is not None:
        case = replace(case, sheet=frame.sheet, complaint=frame.complaint, plate=frame.plate, profile=frame.profile)
    try:
        safety = safety_at(case, moment(item.at), walk)
        if isinstance(item, Reading):
            if not item.withdrawn:
                admitted(item, safety)
            return ""
        refuse_event(case, item.body, safety, item.device)
        if isinstance(item.body, Ended) and item.order not in signed:
            refuse_sign_off(case, item.body, safety)
    except OhmcensusError as error:
        return error.what
    return ""
