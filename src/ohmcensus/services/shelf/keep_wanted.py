"""Parts that a job wants: shown with the pieces of the shelf that fit, kept, taken back."""

from __future__ import annotations

from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ohmcensus.core.errors import InputError, NotFoundError
from ohmcensus.core.sheet import Part
from ohmcensus.core.shelf import OrderState, PartOffer, WantedPart, misfits, parse_price
from ohmcensus.core.text.trimmed import Caption
from ohmcensus.core.worth import Condition
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.described import Described
from ohmcensus.services.at_hand.job import JobAtHand, take
from ohmcensus.services.at_hand.sheets import sheets_in
from ohmcensus.services.job.view import JobView, job_view
from ohmcensus.services.shelf.keep_spare import shelf_view
from ohmcensus.services.shelf.view import SpareView
from ohmcensus.storage import shelf

MOST_DAYS = 365


class NewOffer(BaseModel):
    """An offer as it is typed: price and days in figures."""

    model_config = ConfigDict(extra="forbid")

    source: Caption = Field(min_length=1)
    condition: Condition = Condition.NEW
    price: str = Field(max_length=40)
    days: str = Field(default="", max_length=40)


class NewWanted(BaseModel):
    """A part as it is wanted; ``revision`` that the writer had seen, nought for a new one."""

    model_config = ConfigDict(extra="forbid")

    revision: int = Field(default=0, ge=0, strict=True)
    part: str = Field(max_length=60)
    type_number: Caption = ""
    variant: Caption = ""
    offers: list[NewOffer] = Field(default_factory=list, max_length=10)
    chosen: int | None = Field(default=None, ge=0, le=9, strict=True)
    state: OrderState = OrderState.WANTED
    words: str = Field(default="", max_length=300)


class FittingSpare(BaseModel):
    """A piece of the shelf for a part that is wanted, and why it is not surely the one."""

    spare: SpareView
    misfits: list[str]


class WantedView(BaseModel):
    """A part that is wanted.

    Attributes
    ----------
    title, state_words
        In print.
    price, days
        Of the offer that was taken, in print; empty while none is.
    spares
        Pieces of the same kind, those that fit first.
    """

    id: str
    revision: int
    wanted: WantedPart
    title: str
    state_words: str
    price: str
    days: str
    spares: list[FittingSpare]


class PartsView(Described):
    """Parts that a job wants.

    Attributes
    ----------
    type_number, variant
        As the plate of the machine says: what a new wish begins with.
    """

    job: JobView
    wanted: list[WantedView]
    parts: list[Choice]
    states: list[Choice]
    conditions: list[Choice]
    type_number: str
    variant: str


def show_wanted(context: Context, job_id: str) -> PartsView:
    """Return what a job wants.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        return _view(context, session, take(context, session, job_id))


def keep_wanted(context: Context, job_id: str, wanted_id: UUID, new: NewWanted) -> PartsView:
    """Keep what a job wants; an order may go on after the job has ended.

    Raises
    ------
    UnknownNameError
        If the machine has no such part.
    InputError
        If a price or the days are no figures, or the chosen offer is none of them.
    StaleRevisionError
        If somebody else wrote it meanwhile.
    """
    with context.store.write() as session:
        job = take(context, session, job_id)
        wanted = _wanted(job.case.sheet.known_part(new.part), new)
        known = shelf.wanted_parts(session, job_id).get(str(wanted_id))
        if known is None or known[1] != wanted:
            shelf.keep_wanted(session, str(wanted_id), job_id, new.revision, wanted)
        return _view(context, session, job)


def remove_wanted(context: Context, job_id: str, wanted_id: UUID) -> PartsView:
    """Take a wish back.

    Raises
    ------
    NotFoundError
        If the job has no such wish.
    """
    with context.store.write() as session:
        job = take(context, session, job_id)
        if not shelf.remove_wanted(session, str(wanted_id), job_id):
            raise NotFoundError(what="no such part is wanted on this job", remedy="look again", field="part")
        return _view(context, session, job)


def _wanted(part: Part, new: NewWanted) -> WantedPart:
    offers = tuple(
        PartOffer(
            source=offer.source,
            condition=offer.condition,
            price=parse_price(offer.price, f"offers.{at}.price"),
            days=_days(offer.days, f"offers.{at}.days"),
        )
        for at, offer in enumerate(new.offers)
    )
    if new.chosen is not None and new.chosen >= len(offers):
        raise InputError(what="the chosen offer is none of them", remedy="choose one that is there", field="chosen")
    return WantedPart(
        part=part.id,
        type_number=new.type_number,
        variant=new.variant,
        offers=offers,
        chosen=new.chosen,
        state=new.state,
        words=new.words,
    )


def _days(text: str, field: str) -> float:
    said = text.strip().replace(",", ".")
    if not said:
        return 0.0
    try:
        days = float(said)
    except ValueError:
        days = -1.0
    if not 0 <= days <= MOST_DAYS:
        what = f"'{text[:40]}' is not a number of days"
        raise InputError(what=what, remedy="type it in figures, e.g. 2", field=field)
    return days


def _view(context: Context, session: Session, job: JobAtHand) -> PartsView:
    sheet, plate = job.case.sheet, job.case.plate
    stored = shelf.wanted_parts(session, job.stored.id)
    pieces = [row for row in shelf_view(session).spares if not row.spare.is_scrapped] if stored else []
    kinds = {(sheet_id, part.id): part.kind for sheet_id, row in sheets_in(session).items() for part in row.parts}
    return PartsView(
        job=job_view(job, context.clock()),
        wanted=[
            _wanted_view(
                wanted_id,
                revision,
                wanted,
                sheet.known_part(wanted.part),
                _of_kind(pieces, kinds, sheet.known_part(wanted.part)),
            )
            for wanted_id, (revision, wanted) in stored.items()
            if sheet.part(wanted.part)
        ],
        parts=[Choice(id=part.id, words=part.title) for part in sheet.parts],
        states=[Choice(id=state, words=state.words) for state in OrderState],
        conditions=[Choice(id=row, words=row.words) for row in Condition],
        type_number=plate.type_number,
        variant=plate.variants,
    )


class PieceList(Described):
    """Pieces of the shelf of the kind of a part of a job, what fits its plate first, with what does not fit."""

    job: JobView
    pieces: list[FittingSpare]


def show_pieces(context: Context, job_id: str, part_id: str) -> PieceList:
    """Return the pieces of the shelf that a part of a job may be replaced by; none that sits in a machine.

    Raises
    ------
    NotFoundError
        If there is no such job.
    UnknownNameError
        If the machine has no such part.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
        part, plate = job.case.sheet.known_part(part_id), job.case.plate
        wanted = WantedPart(part=part.id, type_number=plate.type_number, variant=plate.variants)
        pieces = [row for row in shelf_view(session).spares if not row.spare.is_scrapped and not row.is_in]
        kinds = {(sheet_id, row.id): row.kind for sheet_id, sheet in sheets_in(session).items() for row in sheet.parts}
    found = [FittingSpare(spare=row, misfits=list(misfits(row.spare, wanted))) for row in _of_kind(pieces, kinds, part)]
    return PieceList(job=job_view(job, context.clock()), pieces=sorted(found, key=lambda row: len(row.misfits)))


def _of_kind(pieces: list[SpareView], kinds: dict[tuple[str, str], str], part: Part) -> list[SpareView]:
    return [row for row in pieces if kinds.get((row.spare.sheet, row.spare.part)) == part.kind]


def _wanted_view(wanted_id: str, revision: int, wanted: WantedPart, part: Part, pieces: list[SpareView]) -> WantedView:
    found = [FittingSpare(spare=row, misfits=list(misfits(row.spare, wanted))) for row in pieces]
    found.sort(key=lambda row: (len(row.misfits), row.spare.is_in))
    taken = wanted.taken
    return WantedView(
        id=wanted_id,
        revision=revision,
        wanted=wanted,
        title=part.title,
        state_words=wanted.state.words,
        price=f"{taken.price:.2f}" if taken else "",
        days=f"{taken.days:g} days" if taken and taken.days else "",
        spares=found,
    )
