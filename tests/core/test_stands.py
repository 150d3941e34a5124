"""How the machine has to stand for what is to be shown: the words say what the refusal goes by."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from tests.core.case_of import Log, proof_of

from ohmcensus.core.event import Body, Changed, CutOff, Intervention, Isolated, Opened, PluggedIn, Way
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.proof.criteria import Criterion, ShownBy, criteria
from ohmcensus.core.proof.stands import Stand, needed, needed_by, stands
from ohmcensus.core.proof.state import ways
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import find_sheet

CHANGED = Changed(part="pump", intervention=Intervention.MENDED)


def every(log: Log) -> Iterator[Criterion]:
    yield from criteria(log.case, log.safety)


def test_each_criterion_of_each_type_says_how_the_machine_stands(any_sheet: Sheet) -> None:
    log = Log(any_sheet).did(CHANGED)
    found = {row.id: needed(row) for row in every(log)}
    assert found["drum"] is Stand.CUT_OFF
    assert found["visual"] is Stand.ANY
    for row in every(log):
        if row.kind is ShownBy.READING:
            assert found[row.id] is Stand.PROVED_DEAD
        if row.kind in {ShownBy.CURRENT, ShownBy.GFCI, ShownBy.RUN, ShownBy.HEAT}:
            assert found[row.id] is Stand.POWERED
    assert all(row.words for row in Stand if row is not Stand.ANY)


@pytest.mark.parametrize(
    ("machine", "run"),
    [
        ("tl4-c", "Fill, wash, drain, spin."),
        ("tl6-s", "Lock, fill, wash, shift, drain, spin, unlock."),
        ("wd8-h", "Lock, fill, heat, turn both ways, drain, spin, dry, unlock."),
    ],
)
def test_the_run_asks_for_what_the_machine_has(machine: str, run: str) -> None:
    sheet = find_sheet(machine)
    bare = sheet.model_copy(update={"states": {}})
    assert [row.how for row in every(Log(sheet).did(CHANGED)) if row.id == "function"] == [run]
    assert next(row.how for row in every(Log(bare)) if row.id == "function").startswith("Every step")


@pytest.mark.parametrize(
    ("done", "unplugged", "powered"),
    [
        ((), False, False),
        ((Isolated(),), True, False),
        ((PluggedIn(),), False, True),
        ((Opened(panel="back"), PluggedIn()), False, False),
    ],
    ids=["nothing said", "cut off", "plugged in", "plugged in with a panel off"],
)
def test_it_stands_so_or_not(fl7: Sheet, done: tuple[Body, ...], unplugged: bool, powered: bool) -> None:
    log = Log(fl7).did(CHANGED, *done)
    for row in every(log):
        wanted = {
            Stand.CUT_OFF: unplugged,
            Stand.PROVED_DEAD: False,
            Stand.POWERED: powered,
            Stand.ANY: True,
        }[needed(row)]
        assert stands(needed(row), log.safety) is wanted, row.id


def test_a_machine_proved_dead_takes_readings_and_turns_by_hand(fl7: Sheet) -> None:
    log = Log(fl7).did(CHANGED, Isolated()).read(*proof_of(fl7))
    assert all(stands(needed(row), log.safety) for row in every(log) if needed(row) is not Stand.POWERED)


def test_the_plug_in_the_hand_takes_readings_too(fl7: Sheet) -> None:
    log = Log(fl7).did(CHANGED, Isolated(how=CutOff.PLUG_IN_HAND))
    assert all(stands(needed(row), log.safety) for row in every(log) if needed(row) is Stand.PROVED_DEAD)


def test_a_method_that_drives_its_own_voltage_wants_the_machine_dead_and_no_relay(any_sheet: Sheet) -> None:
    """What is offered is what is taken: no method that is refused the moment it is sent."""
    log = Log(any_sheet).did(CHANGED, Isolated()).read(*proof_of(any_sheet))
    offered = ways(log.case, log.safety)
    assert offered[:2] == (Way.DIRECT, Way.DIFFERENTIAL)
    assert (Way.ALTERNATIVE in offered) is not any(any_sheet.with_role(Role.BOARD))
    assert [needed_by(way) for way in Way] == [Stand.POWERED, Stand.POWERED, Stand.DEAD]
    assert stands(Stand.DEAD, log.safety)
    assert not stands(Stand.POWERED, log.safety)
    assert not stands(Stand.DEAD, log.did(PluggedIn()).safety)
