"""The ways on that a refusal offers: those that lead somewhere, and of the others only what the rules take now."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from datetime import datetime
from typing import Any

from pydantic import BaseModel, Field, TypeAdapter, ValidationError

from ohmcensus.core.acts import Act, ActId, How
from ohmcensus.core.errors import OhmcensusError
from ohmcensus.core.event import Body
from ohmcensus.core.safety import refuse_event
from ohmcensus.core.safety.named import with_known_names
from ohmcensus.core.safety.rules import LABEL
from ohmcensus.services.at_hand.job import JobAtHand

_BODY: TypeAdapter[Body] = TypeAdapter(Body)


class Where(BaseModel):
    """A place on a page: the room, and the id of an element; empty for the page itself."""

    room: str
    at: str = ""


class WayOnView(BaseModel):
    """One way on, as the page shows it.

    Attributes
    ----------
    id, label, how
        Which, what stands on its button, and how it is done: by going somewhere, by sending an event, by sending the
        refused request again.
    where
        Of one that goes somewhere.
    event, then
        Of one that sends: the body of the event; ``again`` where the refused request follows it by itself.
    merges
        Of one that sends again: fields that are merged into the refused request, ``with`` in JSON.
    asks
        The field that a person fills first, empty where none is.
    """

    model_config = {"populate_by_name": True}

    id: ActId
    label: str
    how: How
    where: Where | None = None
    event: dict[str, Any] | None = None
    then: str = ""
    merges: dict[str, Any] | None = Field(default=None, alias="with")
    asks: str = ""


def act_view(act: Act) -> WayOnView:
    """Return a way on as it is shown."""
    return WayOnView(
        id=act.id,
        label=act.label,
        how=act.how,
        where=Where(room=act.room, at=act.at) if act.how is How.GO else None,
        event=dict(act.event) if act.how is How.SEND else None,
        then="again" if act.is_again else "",
        merges=dict(act.more) if act.how is How.AGAIN else None,
        asks=act.asks,
    )


Again = Callable[[Mapping[str, Any]], object]


def offered(error: OhmcensusError, job: JobAtHand, now: datetime, device: str, again: Again) -> OhmcensusError:
    """Return a refusal with those of its ways on that lead on now; the unsafe label where no other is left.

    That it was now is said also where power is refused then: the next answer says why, with its own ways.

    Parameters
    ----------
    error
        The refusal.
    job, now, device
        Where it was raised, when, and on which device.
    again
        Tries the refused request with some fields more in it; raises where the rules refuse that too.
    """
    safety = job.safety(now)

    def goes(act: Act) -> bool:
        if act.how is How.GO or act.asks:
            return True
        try:
            if act.how is How.SEND:
                refuse_event(
                    job.case, with_known_names(job.case, _BODY.validate_python(dict(act.event))), safety, device
                )
            else:
                again(act.more)
        except OhmcensusError as next_one:
            return act.id is ActId.WAS_NOW and str(next_one) != str(error)
        except ValidationError:
            return False
        return True

    acts = tuple(act for act in dict.fromkeys(error.acts) if goes(act)) if error.acts else ()
    error.acts = acts or ((LABEL,) if error.acts else ())
    return error
