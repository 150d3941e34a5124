"""The shelf: a piece fits only by its exact type and plug, and is known good only when all of it was measured."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ohmcensus.core.errors import InputError
from ohmcensus.core.limits.profile import BUILT_IN
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.meter import GENERIC_METERS
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.shelf import (
    AcceptanceReading,
    Fitting,
    PartOffer,
    Soundness,
    Spare,
    WantedPart,
    acceptance,
    acceptance_tests,
    misfits,
    parse_price,
    whereabouts,
)

HEATER = Spare(sheet="fl7-u", part="heater", type_number="FL7-U/2", variant="two tags")


def measured(**readings: str) -> Spare:
    meter = {
        "element": GENERIC_METERS[0],
        "element_": GENERIC_METERS[0],
        "pe": GENERIC_METERS[2],
        "pe__": GENERIC_METERS[0],
    }
    rows = [
        AcceptanceReading(id=f"{at}", test=name.rstrip("_"), text=text, meter=meter[name], celsius=20, at="")
        for at, (name, text) in enumerate(readings.items())
    ]
    return HEATER.model_copy(update={"readings": tuple(rows)})


def test_a_bare_figure_that_was_stored_keeps_the_value_of_then(fl7: Sheet) -> None:
    """Before, 0.4 typed for insulation was 0.4 Ω; what is typed now is stored with its scale."""
    terms = Terms(fl7, BUILT_IN[0])
    for text, soundness in (("0.4", Soundness.BAD), ("0.4M", Soundness.GOOD)):
        assert acceptance(measured(element="26.4", pe=text), terms, 20.0).soundness is soundness


@pytest.mark.parametrize(
    ("readings", "soundness"),
    [
        ({}, Soundness.UNKNOWN),
        ({"element": "26.4"}, Soundness.PARTLY),
        ({"element": "26.4", "pe": "299M"}, Soundness.GOOD),
        ({"element": "26.4", "pe": "47k"}, Soundness.BAD),
        ({"element": "OL", "pe": "299M"}, Soundness.BAD),
        ({"element": "OL", "pe": "299M", "element_": "26.4"}, Soundness.GOOD),
        ({"element": "25.2", "pe": "299M"}, Soundness.PARTLY),
        ({"element": "26.4", "pe__": "OL"}, Soundness.PARTLY),
    ],
    ids=["unmeasured", "ohms alone", "both", "leaks", "open", "read again", "on the edge", "OL on an ohmmeter"],
)
def test_ohms_alone_never_make_a_heater_good(fl7: Sheet, readings: dict[str, str], soundness: Soundness) -> None:
    assert acceptance(measured(**readings), Terms(fl7, BUILT_IN[0]), 20.0).soundness is soundness


def test_a_piece_in_the_hand_is_put_to_no_test_that_needs_power(any_sheet: Sheet) -> None:
    for part in any_sheet.parts:
        assert all(test.function.needs_dead_circuit for test in acceptance_tests(any_sheet, part.id, 20.0))


@pytest.mark.parametrize(
    ("piece", "wanted", "said"),
    [
        ({}, {"type_number": "fl7-u/2 ", "variant": "Two  tags"}, ()),
        ({}, {"type_number": "FL7-U/2", "variant": "grey plug"}, ("plug form differs",)),
        ({}, {"type_number": "FL7-U/3", "variant": "two tags"}, ("type number differs",)),
        ({"variant": ""}, {"type_number": "FL7-U/2", "variant": "two tags"}, ("plug form of the piece is not noted",)),
        ({}, {}, ("type number that is wanted is not noted", "plug form that is wanted is not noted")),
    ],
    ids=["fits", "other plug", "other type", "piece not noted", "wish not noted"],
)
def test_the_same_look_is_not_the_same_plug(
    piece: dict[str, str], wanted: dict[str, str], said: tuple[str, ...]
) -> None:
    found = misfits(HEATER.model_copy(update=piece), WantedPart.model_validate({"part": "heater", **wanted}))
    assert len(found) == len(said)
    assert all(words in row for words, row in zip(said, found, strict=True))


@pytest.mark.parametrize(("text", "price"), [("38", 38.0), (" 38,50 ", 38.5), ("0", 0.0), ("100000", 1e5)])
def test_a_price_is_read_with_point_or_comma(text: str, price: float) -> None:
    assert parse_price(text) == price


@pytest.mark.parametrize("text", ["forty", "38 euros", "-3", "1e3", "", "nan", "1.234,50", "100000.01"])
def test_a_price_in_words_is_refused(text: str) -> None:
    with pytest.raises(InputError, match=r"is not a price: type it in figures, e\.g\. 38\.50"):
        parse_price(text)


def test_the_only_offer_is_the_one_that_is_taken() -> None:
    one, two = PartOffer(source="Quay store", price=38), PartOffer(source="Post", price=24, days=3)
    assert WantedPart(part="heater", offers=(one,)).taken == one
    assert WantedPart(part="heater", offers=(one, two)).taken is None
    assert WantedPart(part="heater", offers=(one, two), chosen=1).taken == two


def fitted(machine: str, spare: str, part: str = "heater") -> Fitting:
    return Fitting("job", machine, machine.title(), part, spare, "2026-06-01T12:00:00Z")


def test_a_piece_sits_where_it_was_fitted_last_until_another_takes_its_place() -> None:
    found = whereabouts([fitted("one", "a"), fitted("two", "b"), fitted("one", "")])
    assert [(name, row.fitting.machine, row.is_in) for name, row in found.items()] == [
        ("a", "one", False),
        ("b", "two", True),
    ]
    moved = whereabouts([fitted("one", "a"), fitted("one", "b"), fitted("two", "a")])
    assert [(row.fitting.machine, row.is_in) for row in moved.values()] == [("two", True), ("one", True)]


@given(st.lists(st.tuples(st.sampled_from("xyz"), st.sampled_from(["", "a", "b"])), max_size=12))
def test_no_place_holds_two_pieces_and_no_piece_is_in_two_places(rows: list[tuple[str, str]]) -> None:
    found = whereabouts(fitted(machine, spare) for machine, spare in rows)
    places = [row.fitting.machine for row in found.values() if row.is_in]
    assert len(places) == len(set(places))
    last = dict(rows)
    assert all(last[row.fitting.machine] == name for name, row in found.items() if row.is_in)
