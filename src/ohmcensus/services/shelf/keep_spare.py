"""The shelf of spares: shown, kept, measured in the hand."""

from __future__ import annotations

from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ohmcensus.core.errors import InputError, NotFoundError, UnknownNameError
from ohmcensus.core.event import Changed, Intervention
from ohmcensus.core.judgement import choose_use
from ohmcensus.core.quantity import with_scale
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.shelf import (
    AcceptanceReading,
    Soundness,
    Spare,
    acceptance,
    acceptance_tests,
    whereabouts,
)
from ohmcensus.core.shelf.spare import Mark, Origin
from ohmcensus.core.text.trimmed import Caption
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.settings import Settings, known_meters, settings_in
from ohmcensus.services.at_hand.sheets import chosen, sheets_in
from ohmcensus.services.shelf.view import ShelfView, part_choices, spare_view, terms_on_shelf
from ohmcensus.storage import shelf


class NewSpare(BaseModel):
    """A piece as it is written down; its readings come one by one.

    Attributes
    ----------
    revision
        That the writer had seen, nought for a new piece.
    """

    model_config = ConfigDict(extra="forbid")

    revision: int = Field(default=0, ge=0, strict=True)
    sheet: str = Field(max_length=40)
    part: str = Field(max_length=60)
    type_number: Caption = ""
    variant: Caption = ""
    origin: Origin = Origin.NEW
    salvaged_from: Caption = ""
    tested: str = Field(default="", max_length=300)
    mark: Mark = Mark.SPARE_1
    place: Caption = ""
    words: str = Field(default="", max_length=300)
    is_scrapped: bool = Field(default=False, strict=True)


class NewAcceptance(BaseModel):
    """A reading of a piece in the hand."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    test: str = Field(max_length=60)
    text: str = Field(min_length=1, max_length=60)


def show_shelf(context: Context) -> ShelfView:
    """Return the shelf."""
    with context.store.read() as session:
        return shelf_view(session)


def shelf_view(session: Session) -> ShelfView:
    """Return the shelf as a session sees it."""
    sheets, settings = sheets_in(session), settings_in(session)
    where = whereabouts(shelf.fittings(session))
    rows = [
        spare_view(spare_id, revision, spare, sheets[spare.sheet], settings, where.get(spare_id))
        for spare_id, (revision, spare) in shelf.spares(session).items()
        if spare.sheet in sheets
    ]
    rows.sort(key=lambda row: (row.spare.is_scrapped, row.sheet_title, row.title, row.mark, row.id))
    return ShelfView(
        spares=rows,
        sheets=[Choice(id=sheet.id, words=f"{sheet.title} ({sheet.id})") for sheet in sheets.values()],
        parts={sheet.id: part_choices(sheet) for sheet in sheets.values()},
        marks=[Choice(id=mark, words=mark.words) for mark in Mark],
    )


def keep_spare(context: Context, spare_id: UUID, new: NewSpare) -> ShelfView:
    """Keep a piece and return the shelf; sent twice it is kept once.

    Raises
    ------
    UnknownNameError
        If there is no such machine type or part.
    InputError
        If a salvaged piece does not say from which machine.
    StaleRevisionError
        If somebody else wrote it meanwhile.
    """
    with context.store.write() as session:
        sheet = chosen(sheets_in(session), new.sheet)
        sheet.known_part(new.part)
        if new.origin is Origin.SALVAGED and not new.salvaged_from:
            what = "a salvaged piece does not say from which machine"
            raise InputError(what=what, remedy="name the machine", field="salvaged_from")
        known = shelf.spares(session).get(str(spare_id))
        spare = Spare(**new.model_dump(exclude={"revision"}), readings=known[1].readings if known else ())
        if known is None or known[1] != spare:
            shelf.keep_spare(session, str(spare_id), new.revision, spare)
        return shelf_view(session)


def measure_spare(context: Context, spare_id: UUID, new: NewAcceptance) -> ShelfView:
    """Keep an acceptance reading and return the shelf; sent twice it is kept once.

    Raises
    ------
    NotFoundError
        If there is no such piece.
    UnknownNameError
        If the piece has no such test in the hand.
    InputError
        If the text is no reading, or no meter in the bag could have shown it.
    """
    with context.store.write() as session:
        revision, spare = known_spare(session, str(spare_id))
        if any(row.id == str(new.id) for row in spare.readings):
            return shelf_view(session)
        settings = settings_in(session)
        reading = _reading(session, spare, new, settings, context.now())
        after = spare.model_copy(update={"readings": (*spare.readings, reading)})
        shelf.keep_spare(session, str(spare_id), revision, after)
        return shelf_view(session)


def known_spare(session: Session, spare_id: str) -> tuple[int, Spare]:
    """Return a piece with its revision.

    Raises
    ------
    NotFoundError
        If there is none.
    """
    found = shelf.spares(session).get(spare_id)
    if found is None:
        raise NotFoundError(what="no such piece on the shelf", remedy="write it down in Shelf first", field="spare")
    return found


def fitted_from_shelf(session: Session, sheet: Sheet, body: Changed) -> Changed:
    """Return a change whose piece comes from the shelf, with the piece in words.

    Raises
    ------
    NotFoundError
        If there is no such piece.
    InputError
        If it is of another kind of part, scrapped, reads outside, or sits in a machine already.
    """
    _, spare = known_spare(session, body.spare)
    own = sheets_in(session).get(spare.sheet)
    part = own.part(spare.part) if own else None
    if body.intervention is not Intervention.REPLACED:
        raise InputError(what="a piece of the shelf is fitted", remedy="say: another one fitted", field="intervention")
    if part is None or own is None or part.kind != sheet.known_part(body.part).kind:
        what = f"the piece is not a {sheet.known_part(body.part).title.lower()}"
        raise InputError(what=what, remedy="choose one of the same kind", field="spare")
    settings = settings_in(session)
    soundness = acceptance(spare, terms_on_shelf(own, settings), settings.ambient_celsius).soundness
    if spare.is_scrapped or soundness is Soundness.BAD:
        what = f"{part.title}, {spare.mark.words}: {'scrapped' if spare.is_scrapped else soundness.words}"
        raise InputError(what=what, remedy="take another piece, or measure it again", field="spare")
    found = whereabouts(shelf.fittings(session)).get(body.spare)
    if found is not None and found.is_in:
        what = f"{part.title}, {spare.mark.words} sits in {found.fitting.machine_title}"
        raise InputError(what=what, remedy="note there what was fitted instead", field="spare")
    return body if body.fitted else body.model_copy(update={"fitted": f"{spare.mark.words}, {soundness.words}"})


def _reading(session: Session, spare: Spare, new: NewAcceptance, settings: Settings, at: str) -> AcceptanceReading:
    sheet = chosen(sheets_in(session), spare.sheet)
    tests = {test.name: test for test in acceptance_tests(sheet, spare.part, settings.ambient_celsius)}
    if new.test not in tests:
        what = f"no test '{new.test[:40]}' of this piece in the hand"
        raise UnknownNameError(what=what, remedy=f"its tests are {', '.join(tests) or 'none'}", field="test")
    meters = {meter.id: meter for meter in known_meters(session)}
    bag = [meters[name] for name in settings.bag if name in meters]
    use = choose_use(new.text, tests[new.test], bag, function=tests[new.test].function)
    return AcceptanceReading(
        id=str(new.id),
        test=new.test,
        text=with_scale(new.text, tests[new.test].function.scale, use.meter.over_range_texts),
        meter=use.meter,
        celsius=settings.ambient_celsius,
        at=at,
        who=settings.technician,
    )
