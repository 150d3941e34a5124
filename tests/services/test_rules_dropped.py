"""Each rule of safety left out makes a story come out wrong: none of them is there for nothing."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from tests.stories.corners import CORNERS
from tests.stories.guard import GUARD
from tests.stories.lifts import LIFTS
from tests.stories.table import TABLE
from tests.stories.told import Told

from ohmcensus.core.machine.net import nets_of
from ohmcensus.core.safety import (
    admission,
    after_event,
    after_power,
    after_reading,
    clock,
    lifted_by,
    lifting,
    needs,
    opening,
    override,
    power,
    proof_points,
    rules,
    series,
    state,
    typed_line,
)
from ohmcensus.services.transfer.replay import replay

STORIES = {told.name: told for told in (*TABLE, *LIFTS, *GUARD, *CORNERS)}


def nothing(*_args: Any, **_more: Any) -> None:
    return None


def none(*_args: Any, **_more: Any) -> tuple[()]:
    return ()


def no(*_args: Any, **_more: Any) -> bool:
    return False


def yes(*_args: Any, **_more: Any) -> bool:
    return True


def same(walk: Any, *_args: Any, **_more: Any) -> Any:
    return walk


A_BODY = "the body of a heater that hangs behind one"
ONE_WAY = "its plug is noted as one that goes one way"
LTF = "under voltage although forbidden"
A_PART_OFF = "a part that fails is taken off, the rest is tested, and there is power until its plug is back"
RULES: list[tuple[Any, str, Callable[..., Any], str]] = [
    (after_reading, "shows_power", no, "volts of a powered board end the proof"),
    (after_reading, "measured", nothing, "two free points to earth open a danger"),
    (after_reading, "outlet_found", nothing, "two readings of an outlet without earth"),
    (after_reading, "_superseded", lambda walk, _row: (walk, False), "a good reading taken back takes its power along"),
    (proof_points, "is_over", no, "voltage at a point: only the whole series helps"),
    (after_event, "seen", nothing, "a cord cut to the copper"),
    (after_power, "is_power_forbidden", no, "power that stood all the same is written down"),
    (series, "is_dangerous", no, "a link without a DC source proves nothing"),
    (needs, "hidden_from_plug", none, "a motor behind an inverter is read at its own tags"),
    (lifted_by, "held_open", none, "a breaker at heating asks the heater that a relay holds open"),
    (lifted_by, "_short_needs", none, "a breaker asks line to neutral"),
    (lifted_by, "outlet_needs", none, "a shock asks earth, insulation and the outlet"),
    (lifting, "_is_settled", yes, "an earth that reads bad and good again comes and goes"),
    (needs, "is_part_off", no, A_PART_OFF),
    (needs, "parts_off", none, A_PART_OFF),
    (admission, "touchable_earth", lambda sheet: nets_of(sheet).earth, "with the covers on nobody touches " + A_BODY),
    (after_event, "after_outlet", same, "an outlet that was read turned is told as soon as " + ONE_WAY),
    (
        state,
        "forbidden_anew",
        lambda _before, walk: walk,
        "the leak test of the rest taken back under voltage is " + LTF,
    ),
    (
        needs,
        "_asked_by",
        lambda _: {"heater"},
        "a leak in the rest of the machine does not let it run without its heater",
    ),
    (clock, "_set_back", same, "a clock going back ends the proof"),
    (power, "is_run", no, "an interlock that held and then started is tried again once it reads open"),
    (lifted_by, "_removal_needs", none, "a heater that was replaced takes no bypass out"),
    (
        lifted_by,
        "held_line",
        lambda found, _: found.line,
        "a line that another sheet has not is settled by three of the whole",
    ),
    (
        proof_points,
        "begun_by",
        lambda walk, *_: walk,
        "cut off again by a device whose proof it is not, it is not proved",
    ),
    (admission, "_refuse_loose", nothing, "loose is one part's"),
    (admission, "_refuse_in_hand", nothing, "inhand is said of the plug alone"),
    (admission, "_refuse_unproved_plug", nothing, "plug in hand asks a source first"),
    (admission, "is_plugs_test", yes, "plug in hand admits nothing inside"),
    (admission, "_refuse_joined", nothing, "a fixed cord that is locked off waits for its ends"),
    (admission, "refuse_override", nothing, "an override of three letters is none"),
    (admission, "_refuse_live_though_forbidden", nothing, "a shock in live mode ends it"),
    (override, "_refuse_insulation", nothing, "no reason helps at 500 V"),
    (override, "unread_charges", none, "no reason helps at a link that was not read"),
    (override, "_refuse_absence", nothing, "a reason holds for ten attended minutes"),
    (override, "is_reason", yes, "one word over and over is no reason"),
    (power, "_refuse_while_off", nothing, "a cover off gives no power"),
    (power, "_refuse_earth_off", nothing, "an earth tag that is off gives no power"),
    (power, "_refuse_another_device", nothing, "another person powers it only with the hands off"),
    (power, "_refuse_cycle", nothing, "a bypass out is tried before a run"),
    (power, "_refuse_trial", nothing, "an interlock is tried once open reads open"),
    (power, "power_bars", none, "loose readings lift no shock"),
    (power, "changed_needs", none, "a part that was changed is read before power"),
    (power, "outlet_pending", nothing, "half of an outlet asks for the other half"),
    (rules, "_refuse_reclose", nothing, "one re-close a trip"),
    (rules, "_refuse_barring", nothing, "insulation that failed is not left out"),
    (rules, "_refuse_in_error", nothing, "what was told in error is closed with a reason, what was measured never"),
    (rules, "is_prover", yes, "another device never says hands off for somebody"),
    (state, "is_lifted_on", yes, "a shock lifted without an earth comes back as the plate says class one"),
    (state, "_with_sheet", same, "dead ends as another sheet asks a point that was not read"),
    (state, "former", none, "a third job on a machine that was left unsafe"),
    (state, "struck", same, "a change that is taken back ten minutes later stays asked"),
    (state, "relifted", same, "a shock asks earth, insulation and the outlet"),
    (clock, "_unattended", same, "switched off without a lock lasts ten minutes in all"),
    (needs, "parts_off", lambda *_: frozenset(), "a cover is shut over a part that leaks, its wires tied away"),
    (opening, "is_power_forbidden", no, "live mode ends as a danger comes back"),
    (typed_line, "refuse_event", nothing, "a typed current of now is refused as power is"),
    (state, "points", none, "after a lapse a sheet with a capacitor that was never read asks the whole series"),
    (
        rules,
        "beneath",
        none,
        "over a part that leaks and is off a cover waits for the rest to be measured, and says so",
    ),
    (
        lifting,
        "answering_lines",
        lambda found, _: (found.line,),
        "three good readings of the whole settle a leak of its rest that came and went",
    ),
    (state, "stretched", same, "what was seen under power counts after unplugging"),
]


def comes_out_right(told: Told) -> bool:
    """Tell whether a story comes to what it should."""
    steps = replay(told.story).steps
    refused = {place % len(steps) for place in told.refused}
    if any(row.accepted == (place in refused) for place, row in enumerate(steps)):
        return False
    last = steps[-1]
    allowed = last.may.model_dump()
    is_said = not told.says or any(told.says in steps[place].why for place in refused)
    is_state = not told.state or last.state == told.state
    is_may = all(allowed[name] == value for name, value in told.may.items())
    return is_said and is_state and is_may and tuple(row.id for row in last.dangers) == told.dangers


_IDS = [f"{room.__name__.rpartition('.')[2]}.{name}" for room, name, _, _ in RULES]


@pytest.mark.parametrize(("room", "rule", "instead", "story"), RULES, ids=_IDS)
def test_a_rule_left_out_is_missed(
    monkeypatch: pytest.MonkeyPatch, room: Any, rule: str, instead: Callable[..., Any], story: str
) -> None:
    assert comes_out_right(STORIES[story])
    monkeypatch.setattr(room, rule, instead)
    try:
        is_right = comes_out_right(STORIES[story])
    except (AttributeError, TypeError, AssertionError):
        is_right = False
    assert not is_right, f"nothing misses {rule}"
