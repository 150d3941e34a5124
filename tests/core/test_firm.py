"""The firm of the setup, its clock, what a bill comes to, and a signature."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from ohmcensus.core.event import CostLine, CostsNoted, Signature
from ohmcensus.core.firm import Firm
from ohmcensus.core.text.moment import clock_words, moment_words

POINT = st.tuples(st.integers(0, 1000), st.integers(0, 300))
STROKES = st.lists(st.lists(POINT, min_size=1, max_size=20), min_size=1, max_size=9)


@pytest.mark.parametrize(
    ("zone", "moment", "words"),
    [
        ("", "2026-06-01T10:10:00Z", "1 Jun 2026, 10:10 UTC"),
        ("Europe/Lisbon", "2026-06-01T10:10:00Z", "1 Jun 2026, 11:10 WEST"),
        ("Europe/Lisbon", "2026-12-31T23:59:00Z", "31 Dec 2026, 23:59 WET"),
        ("Asia/Kolkata", "2026-12-31T23:59:00Z", "1 Jan 2027, 05:29 IST"),
        ("America/St_Johns", "2026-01-01T01:00:00Z", "31 Dec 2025, 21:30 NST"),
    ],
)
def test_a_moment_is_told_by_the_clock_of_the_firm(zone: str, moment: str, words: str) -> None:
    clock = Firm(zone=zone).clock
    assert moment_words(moment, clock) == words
    assert clock_words(moment, clock) == words.split()[-2]


@pytest.mark.parametrize("zone", ["Europe/Atlantis", "CET+1", "../etc/passwd", "/etc/localtime"])
def test_a_zone_that_nobody_knows_is_refused_with_what_to_type(zone: str) -> None:
    with pytest.raises(ValidationError, match=r"no time zone .* is known; type one such as"):
        Firm(zone=zone)


@pytest.mark.parametrize(("percent", "tax", "total"), [(0.0, 0.0, 133.33), (19.0, 25.33, 158.66), (7.7, 10.27, 143.60)])
def test_tax_comes_on_top_to_the_cent(percent: float, tax: float, total: float) -> None:
    costs = CostsNoted(minutes=50.0, hour=100.0, call_out=50.0, tax_percent=percent)
    assert (costs.net, costs.tax, costs.total) == (133.33, tax, total)


@given(st.lists(st.integers(0, 90000), max_size=8), st.floats(0, 60))
def test_what_is_printed_adds_up(cents: list[int], percent: float) -> None:
    lines = tuple(CostLine(words="a part", amount=row / 100) for row in cents)
    costs = CostsNoted(minutes=0.0, hour=0.0, call_out=0.0, lines=lines, tax_percent=percent)
    printed = [float(f"{value:.2f}") for value in (costs.net, costs.tax, costs.total)]
    assert printed[0] + printed[1] == pytest.approx(printed[2], abs=1e-9)


@given(
    st.text("abcd ", min_size=1, max_size=80),
    st.lists(st.lists(POINT, min_size=1, max_size=20), min_size=1, max_size=9),
)
def test_a_signature_comes_back_as_it_was_drawn(name: str, strokes: list[list[tuple[int, int]]]) -> None:
    if not name.strip():
        return
    drawn = Signature.model_validate({"name": name, "strokes": strokes})
    assert Signature.model_validate_json(drawn.model_dump_json()) == drawn
    assert [list(stroke) for stroke in drawn.strokes] == strokes


@pytest.mark.parametrize(
    "odd",
    [
        {"name": " ", "strokes": [[[1, 1]]]},
        {"name": "A", "strokes": []},
        {"name": "A", "strokes": [[]]},
        {"name": "A", "strokes": [[[1001, 1]]]},
        {"name": "A", "strokes": [[[1, -1]]]},
        {"name": "A", "strokes": [[[1.5, 1]]]},
        {"name": "A", "strokes": [[[1, 1]] * 601]},
    ],
    ids=["no name", "nothing drawn", "an empty stroke", "beside it", "above it", "between steps", "endless"],
)
def test_what_is_no_signature_is_refused(odd: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        Signature.model_validate(odd)
