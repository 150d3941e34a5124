"""Lamp schemes, entry sequences, test cycles and tables of meanings."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from ohmcensus.core.codes import (
    BlinkCount,
    Click,
    Cycle,
    CycleStep,
    EntrySequence,
    Hint,
    LampRow,
    Meaning,
    Outcome,
    SequenceStep,
    TwoFrames,
    follow,
    meanings_from,
    track,
)
from ohmcensus.core.errors import InputError

ROW = LampRow(id="row", title="Row", weights=(128, 64, 32, 16, 8, 4, 2, 1))
FRAMES = TwoFrames(id="frames", title="Frames", marker="Marker", weights=(8, 4, 2, 1))
BLINKS = BlinkCount(id="blinks", title="Blinks")


@given(st.lists(st.integers(1, 60), min_size=1, max_size=9), st.data())
def test_any_row_shows_the_sum_of_its_lit_lamps_and_the_reverse_gives_that_sum(
    weights: list[int], data: st.DataObject
) -> None:
    row = LampRow(id="row", title="Row", weights=tuple(weights))
    lit = "".join(data.draw(st.lists(st.sampled_from("01"), min_size=len(weights), max_size=len(weights))))
    code = row.decode(lit)
    assert int(code) == sum(weight for weight, sign in zip(weights, lit, strict=True) if sign == "1")
    assert row.decode(row.encode(code)) == code


@pytest.mark.parametrize(
    ("scheme", "pattern", "says"),
    [
        (ROW, "0101100", "give 8 lamps from left to right"),
        (ROW, "0101102X", "give 8 lamps from left to right"),
        (FRAMES, "0110", "has not two halves"),
        (FRAMES, "0110/100", "give 4 lamps"),
        (FRAMES, "0110/1001/0000", "has not two halves"),
        (BLINKS, "3", "has 1 counts, this scheme has 2"),
        (BLINKS, "0-4", "each group has 1 to 20"),
        (BLINKS, "three-four", "is not a code"),
    ],
)
def test_a_pattern_that_the_scheme_cannot_show_is_refused(
    scheme: LampRow | TwoFrames | BlinkCount, pattern: str, says: str
) -> None:
    with pytest.raises(InputError, match=says):
        scheme.decode(pattern)


@pytest.mark.parametrize(
    ("scheme", "code", "says"),
    [
        (ROW, "256", "cannot be shown by lamps"),
        (ROW, "-1", "is not a code"),
        (ROW, "9" * 40, "is not a code"),
        (LampRow(id="odd", title="Odd", weights=(5, 3)), "4", "cannot be shown by lamps of 5, 3"),
        (FRAMES, "16/1", "the highest is 15"),
        (FRAMES, "6", "has not two halves"),
    ],
)
def test_a_code_that_no_lamps_add_up_to_is_refused(scheme: LampRow | TwoFrames, code: str, says: str) -> None:
    with pytest.raises(InputError, match=says):
        scheme.encode(code)


def test_the_marker_alone_says_that_nothing_is_stored() -> None:
    assert FRAMES.decode("0000/0000") == "none"
    assert FRAMES.encode("none") == "0000/0000"
    assert FRAMES.decode("0000/0001") == "0/1"
    assert BLINKS.decode(" 3-2 ") == BLINKS.encode("3-2") == "3-2"


def test_lamps_and_weights_that_do_not_match_are_no_scheme() -> None:
    with pytest.raises(ValidationError, match="2 lamps are named but 4 have a weight"):
        TwoFrames(id="f", title="F", marker="M", weights=(8, 4, 2, 1), lamps=("a", "b"))


FIVE = EntrySequence(
    id="five",
    title="Five clicks",
    steps=(SequenceStep(direction="right", count=3), SequenceStep(direction="left", count=2)),
    window_s=6.0,
    settle_s=0.0,
    gap_s=1.2,
    fastest_gap_s=0.3,
    leave_hold_s=0.0,
    erases_on_leaving=True,
    success="All flash.",
)
WAYS = FIVE.clicks


def clicks(*times: float, ways: tuple[str, ...] = WAYS) -> list[Click]:
    return [Click.model_validate({"direction": way, "at_s": at}) for way, at in zip(ways, times, strict=False)]


@pytest.mark.parametrize(
    ("made", "hint", "says"),
    [
        ((), Hint.START, "Click 1 of 5: to the right"),
        ((0.0, 0.9), Hint.RIGHT, "Click 3 of 5: to the right"),
        ((0.0, 0.9, 1.8), Hint.RIGHT, "Click 4 of 5: to the left"),
        ((0.0, 0.9, 1.8, 2.7, 3.6), Hint.DONE, "All 5 clicks in time. All flash."),
        ((0.0, 0.9, 2.2), Hint.FASTER, "Click 3 came after 1.3 s, at most 1.2 s: faster. Begin again."),
        ((0.0, 0.2), Hint.SLOWER, "Click 2 came after 0.20 s, the board misses it: slower. Begin again."),
    ],
)
def test_an_attempt_is_followed_click_by_click(made: tuple[float, ...], hint: Hint, says: str) -> None:
    attempt = follow(FIVE, clicks(*made))
    assert (attempt.hint, attempt.sentence) == (hint, says)
    assert attempt.is_over == (hint not in {Hint.START, Hint.RIGHT})


def test_the_window_holds_as_well_as_the_gap() -> None:
    slow = FIVE.model_copy(update={"window_s": 4.0})
    assert follow(slow, clicks(0, 1.1, 2.2, 3.3, 4.4)).hint is Hint.FASTER
    assert follow(FIVE, clicks(0, 1.1, 2.2, 3.3, 4.4)).time_left_s == pytest.approx(1.6)


def test_the_wrong_way_too_many_and_clicks_out_of_time_order() -> None:
    assert follow(FIVE, clicks(0, 0.9, ways=("right", "left"))).hint is Hint.OTHER_WAY
    six = (*WAYS, "left")
    assert follow(FIVE, clicks(0, 0.9, 1.8, 2.7, 3.6, 4.5, ways=six)).hint is Hint.TOO_MANY
    with pytest.raises(InputError, match="click 2 comes before click 1"):
        follow(FIVE, clicks(5.0, 4.0))
    with pytest.raises(InputError, match="61 clicks"):
        follow(FIVE, [Click(direction="right", at_s=0.0)] * 61)


@given(st.floats(0.3, 1.19), st.integers(1, 9))
def test_the_beat_always_leads_there(gap: float, many: int) -> None:
    steps = (SequenceStep(direction="right", count=many),)
    sequence = FIVE.model_copy(update={"steps": steps, "gap_s": gap + 0.01, "window_s": max(0.4, many * 0.35)})
    times = [index * sequence.beat_s for index in range(many)]
    assert follow(sequence, clicks(*times, ways=("right",) * many)).hint is Hint.DONE


def test_a_sequence_that_nobody_can_do_is_refused() -> None:
    for change in ({"gap_s": 0.3}, {"window_s": 1.0}):
        with pytest.raises(ValidationError):
            EntrySequence.model_validate(FIVE.model_dump() | change)


CYCLE = Cycle(
    id="test",
    title="Test",
    steps=(
        CycleStep(id="lock", title="Locks", seconds=(2, 8), parts=("lock", "board")),
        CycleStep(id="fill", title="Fills", seconds=(30, 60), parts=("valve", "level")),
        CycleStep(id="turn", title="Turns", seconds=(20, 40), parts=("motor", "board")),
        CycleStep(id="drain", title="Drains", seconds=(20, 40), parts=("pump", "level")),
    ),
)


def test_the_first_failed_step_points_at_what_the_passed_ones_have_not_used() -> None:
    tracked = track(
        CYCLE, {"lock": Outcome.PASSED, "fill": Outcome.PASSED, "turn": Outcome.ABSENT, "x": Outcome.FAILED}
    )
    assert tracked.failed == CYCLE.steps[2]
    assert tracked.points_at == ("motor",)
    assert tracked.shown_to_work == ("lock", "board", "valve", "level")
    assert tracked.next_step == CYCLE.steps[3]
    assert track(CYCLE, {}).next_step == CYCLE.steps[0]
    everything = dict.fromkeys(("lock", "fill", "turn", "drain"), Outcome.PASSED)
    assert (track(CYCLE, everything).failed, track(CYCLE, everything).next_step) == (None, None)
    shared = track(CYCLE, everything | {"drain": Outcome.FAILED, "turn": Outcome.FAILED, "fill": Outcome.FAILED})
    assert shared.points_at == ("valve", "level")


@pytest.mark.parametrize(
    ("rows", "says"),
    [
        ([("5", "a", {}), ("5", "b", {})], "row 2: code 5 stands twice"),
        ([("05", "a", {}), ("5", "b", {})], "row 2: code 5 stands twice"),
        ([("300", "a", {})], "row 1: code 300 cannot be shown"),
        ([("5", "a", {"heeter": 0.5})], "row 1: no part 'heeter' on this sheet: did you mean 'heater'"),
    ],
)
def test_a_table_that_contradicts_itself_scheme_or_sheet_is_refused(
    rows: list[tuple[str, str, dict[str, float]]], says: str
) -> None:
    table = [Meaning(code=code, words=words, suspects=suspects) for code, words, suspects in rows]
    with pytest.raises(InputError, match=says):
        meanings_from(table, ROW, ["heater", "ntc"])
