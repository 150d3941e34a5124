"""Any history of a job against SAFETY's tables, written out the long way."""

from __future__ import annotations

from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.histories import ACTS, READINGS, History
from tests.core.longhand import SERIES

from ohmcensus.core.safety import safety_at, walk_of
from ohmcensus.core.sheet import Sheet

things = st.one_of(
    st.sampled_from(sorted(ACTS)),
    st.sampled_from(READINGS),
    st.sampled_from(READINGS).map(lambda text: f"!{text}"),
    st.sampled_from([*sorted(ACTS), *READINGS]).map(lambda act: f"{act}@phone"),
    st.just("withdraw"),
    st.integers(1, 700),
    st.just(SERIES),
    st.just(("isolated", *SERIES)),
    st.just(("isolated@phone", *(f"{text}@phone" for text in SERIES))),
    st.just(("cord pe 0.08", "cord insulation 50M")),
    st.just(("cord pe >20", "cord pe 0.08", 61, "cord pe 0.08", 61, "cord pe 0.08")),
    st.just(("outlet 231", "outlet le 231", "outlet ne 0.4")),
)
Thing = str | int | tuple[str | int, ...]


def told(sheet: Sheet, done: list[Thing]) -> History:
    history = History(sheet)
    for thing in done:
        for each in thing if isinstance(thing, tuple) else [thing]:
            if isinstance(each, int):
                history.wait(each)
            else:
                act, _, device = each.removeprefix("!").partition("@")
                history.tell(act, override=each.startswith("!"), device=device)
    return history


@settings(max_examples=300)
@given(st.lists(things, max_size=16))
def test_what_is_taken_and_what_stands_is_what_the_definition_says(fl7: Sheet, done: list[Thing]) -> None:
    assert told(fl7, done).differs() == "", done


@given(st.lists(things, max_size=16))
def test_a_log_read_step_by_step_is_the_log_read_at_once(fl7: Sheet, done: list[Thing]) -> None:
    history = told(fl7, done)
    assert walk_of(history.case) == history.walk


@given(st.lists(things, max_size=14), st.integers(601, 90_000))
def test_nothing_stays_dead_or_live_by_itself(fl7: Sheet, done: list[Thing], seconds: int) -> None:
    history = told(fl7, done)
    history.wait(seconds)
    assert safety_at(history.case, history.log.now).state in {"not_proved", "under_voltage"}
