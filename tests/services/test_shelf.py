"""Parts wanted and the shelf, on a store: fitting a piece is a change of the job, and tells where the piece is."""

from __future__ import annotations

from typing import Any
from uuid import UUID, uuid4

import pytest
from tests.working import happened, undone

from ohmcensus.core.errors import InputError, NotFoundError, StaleRevisionError, UnknownNameError
from ohmcensus.core.event import Changed, Intervention
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.repair.show_repair import show_repair
from ohmcensus.services.shelf.keep_spare import NewAcceptance, NewSpare, keep_spare, measure_spare, show_shelf
from ohmcensus.services.shelf.keep_wanted import NewOffer, NewWanted, keep_wanted, remove_wanted, show_wanted
from ohmcensus.services.shelf.view import SpareView


@pytest.fixture
def job(context: Context) -> str:
    return new_job(context, "Machine 9")


def new_job(context: Context, machine: str) -> str:
    return open_job(context, NewJob(id=uuid4(), machine=machine, place="Pier", sheet="fl7-u")).id


def spare(context: Context, **more: Any) -> UUID:
    found = uuid4()
    given = {"sheet": "fl7-u", "part": "heater", "type_number": "FL7-U/2", "variant": "two tags", "place": "Tray 3"}
    keep_spare(context, found, NewSpare(**{**given, **more}))
    return found


def measure(context: Context, piece: UUID, test: str, text: str) -> SpareView:
    view = measure_spare(context, piece, NewAcceptance(id=uuid4(), test=test, text=text))
    return next(row for row in view.spares if row.id == str(piece))


def fit(piece: UUID, part: str = "heater") -> Changed:
    return Changed(part=part, intervention=Intervention.REPLACED, spare=str(piece))


def one(context: Context, piece: UUID) -> SpareView:
    return next(row for row in show_shelf(context).spares if row.id == str(piece))


def test_a_fitted_piece_is_in_the_change_log_and_its_place_follows(context: Context, job: str) -> None:
    piece = spare(context)
    assert (one(context, piece).where, one(context, piece).soundness) == ("Tray 3", "unknown")
    measure(context, piece, "element", "26.4")
    assert measure(context, piece, "pe", "299M").soundness == "good"
    happened(context, job, fit(piece))
    assert "another one fitted, spare 1, measured, every reading inside" in show_repair(context, job).steps[0].words
    assert one(context, piece).where == "fitted in Machine 9 since 2026-06-01"
    happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED, fitted="new"))
    assert one(context, piece).where == "Tray 3; was in Machine 9"


def test_what_cannot_be_fitted_is_refused_with_the_reason(context: Context, job: str) -> None:
    pump, leaky, busy = spare(context, part="pump"), spare(context), spare(context, mark="spare_2")
    measure(context, leaky, "pe", "47k")
    happened(context, new_job(context, "Machine 10"), fit(busy))
    for body, said in (
        (fit(uuid4()), "no such piece on the shelf"),
        (fit(pump), "the piece is not a heater: choose one of the same kind"),
        (fit(leaky), "Heater, spare 1: reads outside: not to be fitted"),
        (fit(busy), "Heater, spare 2 sits in Machine 10: note there what was fitted instead"),
        (fit(busy).model_copy(update={"intervention": Intervention.MENDED}), "a piece of the shelf is fitted"),
    ):
        with pytest.raises((InputError, NotFoundError), match=said):
            happened(context, job, body)
    assert show_repair(context, job).steps == []


def test_a_wish_shows_which_pieces_fit_and_which_plug_differs(context: Context, job: str) -> None:
    other, right = spare(context, variant="grey plug"), spare(context)
    offers = [NewOffer(source="Quay store", price="38,50", days="2"), NewOffer(source="Post", price="24")]
    new = NewWanted(part="heater", type_number="FL7-U/2", variant="two tags", offers=offers, chosen=0)
    wish = uuid4()
    for _ in range(2):
        view = keep_wanted(context, job, wish, new)
    row = view.wanted[0]
    assert (row.price, row.days, row.state_words, row.revision) == ("38.50", "2 days", "wanted, not ordered", 1)
    assert [UUID(found.spare.id) for found in row.spares] == [right, other]
    assert row.spares[1].misfits == ["plug form differs: the piece is for 'grey plug', wanted is 'two tags'"]
    ordered = keep_wanted(context, job, wish, new.model_copy(update={"revision": 1, "state": "ordered"}))
    assert ordered.wanted[0].state_words == "ordered"
    with pytest.raises(StaleRevisionError):
        keep_wanted(context, job, wish, new.model_copy(update={"revision": 1}))
    assert remove_wanted(context, job, wish).wanted == []
    with pytest.raises(NotFoundError):
        remove_wanted(context, job, wish)


@pytest.mark.parametrize(
    ("new", "said"),
    [
        ({"part": "sail"}, "no 'sail' on this sheet"),
        ({"part": "heater", "offers": [NewOffer(source="Post", price="forty")]}, "'forty' is not a price"),
        (
            {"part": "heater", "offers": [NewOffer(source="Post", price="4", days="soon")]},
            "'soon' is not a number of days",
        ),
        ({"part": "heater", "chosen": 0}, "the chosen offer is none of them"),
    ],
    ids=["part", "price", "days", "chosen"],
)
def test_a_wish_that_cannot_be_is_refused_and_not_kept(context: Context, job: str, new: Any, said: str) -> None:
    with pytest.raises((InputError, UnknownNameError), match=said):
        keep_wanted(context, job, uuid4(), NewWanted(**new))
    assert show_wanted(context, job).wanted == []


@pytest.mark.parametrize(
    ("new", "said"),
    [
        ({"part": "sail"}, "no 'sail' on this sheet"),
        ({"sheet": "zz"}, "no machine sheet 'zz'"),
        ({"origin": "salvaged"}, "a salvaged piece does not say from which machine"),
    ],
    ids=["part", "sheet", "salvaged from nowhere"],
)
def test_a_piece_that_cannot_be_is_refused(context: Context, new: Any, said: str) -> None:
    with pytest.raises((InputError, UnknownNameError), match=said):
        spare(context, **new)
    assert show_shelf(context).spares == []


def test_an_acceptance_reading_is_kept_once_and_only_of_a_test_in_the_hand(context: Context) -> None:
    piece = spare(context)
    new = NewAcceptance(id=uuid4(), test="element", text="26.4")
    for _ in range(2):
        measure_spare(context, piece, new)
    assert len(one(context, piece).spare.readings) == 1
    for bad, said in (("pe_live", "no test 'pe_live' of this piece in the hand: its tests are element, pe"),):
        with pytest.raises(UnknownNameError, match=said):
            measure(context, piece, bad, "1")
    with pytest.raises(InputError):
        measure(context, piece, "element", "fine")


def test_a_wish_of_another_job_cannot_be_taken_over(context: Context, job: str) -> None:
    other, wish = new_job(context, "Machine 10"), uuid4()
    keep_wanted(context, other, wish, NewWanted(part="heater"))
    with pytest.raises(InputError, match="belongs to another job's part: send a new id"):
        keep_wanted(context, job, wish, NewWanted(part="pump", revision=1))
    assert [row.title for row in show_wanted(context, other).wanted] == ["Heater"]


def test_a_piece_whose_fitting_is_taken_back_lies_on_the_shelf_again(context: Context, job: str) -> None:
    piece = spare(context)
    measure(context, piece, "element", "26.4")
    measure(context, piece, "pe", "299M")
    happened(context, job, fit(piece))
    undone(context, job)
    assert one(context, piece).where == "Tray 3"
    assert show_repair(context, job).steps == []
    happened(context, job, fit(piece))
