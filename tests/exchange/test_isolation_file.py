"""The isolation file: what is taken, what is refused, and the answer's form."""

from __future__ import annotations

import copy
import json
from collections.abc import Callable
from contextlib import suppress
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ohmcensus.core.errors import InputError
from ohmcensus.core.trip.isolate import isolate
from ohmcensus.exchange.isolation_file import answer_of, read_isolation

FILE: dict[str, Any] = {
    "format": "ohmcensus-isolation/1",
    "parts": [{"id": name, "limit_us": 0.5, "weight": 0.25, "minutes": 0.8, "behind": "back"} for name in "CFHM"],
    "panels": {"back": 4},
    "instrument": {"kind": "insulation", "percent": 3, "digits": 2, "resolution": 0.01, "full_scale": 299},
    "runs": [
        {"id": "A", "connected": ["C", "F", "H", "M"], "maybe": [], "reading": "0.50"},
        {"id": "B", "connected": ["C", "F", "M"], "reading": "20.0"},
    ],
}
LEAKAGE: dict[str, Any] = {
    "format": "ohmcensus-isolation/1",
    "parts": [{"id": "H", "limit_ma": 0.5}, {"id": "F", "limit_ma": 0.5}],
    "instrument": {"kind": "leakage", "full_scale": 10},
    "runs": [{"id": "A", "connected": ["H", "F"], "reading": "5"}, {"id": "B", "connected": ["F"], "reading": "4"}],
}


OVER = 1 / (299 * 0.97 - 0.02)


def answer(raw: dict[str, Any]) -> dict[str, Any]:
    problem = read_isolation(json.dumps(raw))
    found = answer_of(problem, isolate(problem))
    json.dumps(found, allow_nan=False)
    return found


def test_the_worked_example_as_a_file() -> None:
    found = answer(FILE)
    assert found["parts"]["H"]["state"] == "guilty"
    assert found["parts"]["H"]["lower_us"] == pytest.approx(1.8176, abs=5e-5)
    assert found["parts"]["H"]["upper_us"] == pytest.approx(2.1020, abs=5e-5)
    assert (found["conflict"], found["explanations"], found["spread"], found["next"]) == (None, [["H"]], False, None)


def test_leakage_answers_in_milliamperes() -> None:
    part = answer(LEAKAGE)["parts"]["H"]
    assert (part["lower_ma"], part["upper_ma"]) == pytest.approx((1.0, 3.0))


def test_a_conflict_has_no_bounds_and_no_next() -> None:
    raw = copy.deepcopy(FILE)
    raw["runs"] = [
        {"id": "A", "connected": ["C", "F", "H", "M"], "reading": "5.00"},
        {"id": "B", "connected": ["H"], "reading": "1.00"},
        {"id": "C", "connected": ["M"], "reading": ">299"},
        {"id": "D", "connected": ["H", "M"], "reading": "0.99"},
    ]
    found = answer(raw)
    assert (found["repeat"], found["next"]) == (["A"], None)
    assert set(found["conflict"]) < {"A", "B", "C", "D"}
    assert {(row["lower_us"], row["upper_us"], row["state"]) for row in found["parts"].values()} == {
        (None, None, "open")
    }


def test_a_first_run_is_asked_for_where_there_is_none() -> None:
    found = answer({**FILE, "runs": []})
    assert found["next"] == {"connected": ["C", "F", "H", "M"], "pull": [], "refit": [], "minutes": 1.5}
    assert found["parts"]["C"] == {"lower_us": 0.0, "upper_us": None, "state": "open", "presumed": False}


def test_the_identical_run_counts_once_and_an_earth_that_fails_forbids_a_verdict() -> None:
    doubled = copy.deepcopy(FILE)
    doubled["runs"].append({**doubled["runs"][0], "id": "A again"})
    assert answer(doubled)["parts"] == answer(FILE)["parts"]
    refused = answer({**FILE, "earth_ok": False})
    assert "refused" in refused
    assert {row["state"] for row in refused["parts"].values()} == {"open"}


@pytest.mark.parametrize(
    ("reading", "lower", "upper"),
    [
        ("0.00", 50.0, None),
        ("OL", 0.0, 1 / (299 * 0.97 - 0.02)),
        (">299", 0.0, 1 / (299 * 0.97 - 0.02)),
        ("0,50", 1.8692, 2.1505),
    ],
    ids=["dead short", "OL", "over-range", "decimal comma"],
)
def test_readings_as_testers_show_them(reading: str, lower: float, upper: float | None) -> None:
    raw = copy.deepcopy(FILE)
    raw["runs"] = [{"id": "A", "connected": ["H"], "reading": reading}]
    part = answer(raw)["parts"]["H"]
    assert part["lower_us"] == pytest.approx(lower, abs=5e-5)
    assert part["upper_us"] == (None if upper is None else pytest.approx(upper, abs=5e-5))


Edit = Callable[[dict[str, Any]], object]
REFUSED: list[tuple[str, Edit, str]] = [
    ("another format", lambda r: r.update(format="ohmcensus-isolation/2"), "update Ohmcensus"),
    ("no format", lambda r: r.pop("format"), "begin with"),
    ("no part in a run", lambda r: r["runs"][0].update(connected=[]), "names no part"),
    ("an unknown part", lambda r: r["runs"][0].update(connected=["C", "X"]), "no part 'X'"),
    ("two runs of one name", lambda r: r["runs"][1].update(id="A"), "stands twice"),
    ("two parts of one name", lambda r: r["parts"][1].update(id="C"), "stands twice"),
    ("a negative reading", lambda r: r["runs"][0].update(reading="-0.5"), "negative"),
    ("words", lambda r: r["runs"][0].update(reading="fine"), "run A"),
    ("beyond the scale", lambda r: r["runs"][0].update(reading="5000"), "beyond the tester's scale"),
    ("no limit", lambda r: r["parts"][0].pop("limit_us"), "no limit_us"),
    ("a limit of nothing", lambda r: r["parts"][0].update(limit_us=0), "greater than 0"),
    ("no parts", lambda r: r.update(parts=[]), "parts"),
    ("a panel that is none", lambda r: r["parts"][0].update(behind="lid"), "is not a panel"),
    (
        "OL without a scale",
        lambda r: (r["instrument"].pop("full_scale"), r["runs"][0].update(reading="OL")),
        "full_scale",
    ),
]


@pytest.mark.parametrize(("edit", "says"), [row[1:] for row in REFUSED], ids=[row[0] for row in REFUSED])
def test_what_cannot_be_is_refused_with_a_remedy(edit: Edit, says: str) -> None:
    raw = copy.deepcopy(FILE)
    edit(raw)
    with pytest.raises(InputError, match=says):
        read_isolation(json.dumps(raw))


@pytest.mark.parametrize("text", ["", "[]", "{", "7", "[" * 100_000, "x" * 1_000_001], ids=range(6))
def test_what_is_no_isolation_is_refused(text: str) -> None:
    with pytest.raises(InputError):
        read_isolation(text)


@pytest.mark.parametrize(
    ("change", "says"),
    [({"supply": "split_phase"}, "can cancel"), ({"supply": "isolated"}, "each pole by itself")],
)
def test_currents_of_two_live_poles_are_refused(change: dict[str, str], says: str) -> None:
    with pytest.raises(InputError, match=says):
        read_isolation(json.dumps({**LEAKAGE, **change}))
    raw = copy.deepcopy(LEAKAGE)
    raw["runs"][0]["reading"] = "4000"
    with pytest.raises(InputError, match="was it µA"):
        read_isolation(json.dumps(raw))


@given(
    st.lists(
        st.tuples(
            st.sets(st.sampled_from("CFHM"), min_size=1),
            st.sets(st.sampled_from("CFHM")),
            st.sampled_from(["0", "0.00", "0.5", "1e9", "299", ">299", "OL", "<0.01", "1e-9", "20,0", "0.5M", "50k"]),
            st.booleans(),
        ),
        max_size=6,
    ),
    st.sampled_from([{}, {"percent": 3, "digits": 2, "resolution": 0.01}, {"percent": 100}, {"full_scale": 299}]),
    st.sampled_from(["insulation", "leakage"]),
)
def test_any_file_is_answered_in_numbers_or_refused_in_words(
    runs: list[tuple[set[str], set[str], str, bool]], instrument: dict[str, float], kind: str
) -> None:
    """Never a traceback, never a NaN."""
    parts = [{"id": name, "limit_us": 0.5, "limit_ma": 0.5} for name in "CFHM"]
    entries = [
        {"id": str(i), "connected": sorted(c), "maybe": sorted(m), "reading": r, "intermittent": comes}
        for i, (c, m, r, comes) in enumerate(runs)
    ]
    with suppress(InputError):
        answer({**FILE, "parts": parts, "instrument": {"kind": kind, **instrument}, "runs": entries})
