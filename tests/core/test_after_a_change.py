"""What was read before a change is of the machine as it was; what is read with parts out is of the rest."""

from __future__ import annotations

from tests.core.case_of import Log, proof_of

from ohmcensus.core.course.following import NextKind
from ohmcensus.core.course.way_back import way_back
from ohmcensus.core.course.what_next import what_next
from ohmcensus.core.event import Changed, Intervention, Isolated, RecordWithdrawn, StripBack, StripStep
from ohmcensus.core.judgement import CensusLine, census_lines
from ohmcensus.core.judgement.parts_out import parts_out
from ohmcensus.core.trip.of_case import run_records
from ohmcensus.core.trip.problem import Method
from ohmcensus.services.at_hand.sheets import find_sheet

SHEET = find_sheet("fl7-u")
REPLACED = Changed(part="heater", intervention=Intervention.REPLACED)
TAGS_OFF = StripStep(words="heater tags off", plugs=("heater_tags",))


def line(log: Log, name: str) -> CensusLine:
    return next(row for row in census_lines(log.case) if row.test is not None and row.test.id == name)


def test_the_whole_read_bad_and_good_after_a_change_does_not_come_and_go() -> None:
    log = Log(SHEET).read("cord insulation 0.08M").did(REPLACED).read("cord insulation >299M")
    assert not line(log, "cord.insulation").comes_and_goes
    assert line(log, "cord.insulation").reads == "> 299 MΩ"


def test_with_nothing_changed_it_does() -> None:
    log = Log(SHEET).read("cord insulation 0.08M", "cord insulation >299M")
    assert line(log, "cord.insulation").comes_and_goes


def test_a_line_that_the_changed_part_does_not_move_still_does() -> None:
    log = Log(SHEET).read("pump coil OL").did(REPLACED).read("pump coil 148")
    assert line(log, "pump.coil").comes_and_goes


def test_the_whole_with_a_part_off_is_a_leak_test_of_the_rest() -> None:
    log = Log(SHEET).read("cord insulation 0.08M").did(TAGS_OFF).read("cord insulation >299M")
    whole = line(log, "cord.insulation")
    assert whole.reads == "80 kΩ"
    assert not whole.comes_and_goes
    assert [row.reading.text for row in whole.of_rest] == ["cord insulation >299M"]
    connected = [set(row.body.connected) for row in run_records(log.case, Method.INSULATION)]
    assert "heater" in connected[0]
    assert connected[0] - connected[1] == {"heater"}


def test_what_is_back_is_not_off_and_a_plug_that_is_bid_off_never_was() -> None:
    log = Log(SHEET).did(TAGS_OFF, StripStep(words="heater out", part="heater"))
    assert parts_out(log.case, 99) == {"heater"}
    log.did(StripBack(step="e2"))
    assert parts_out(log.case, 99) == {"heater"}
    log.did(StripBack(step="e1", plugs=("heater_tags",)))
    assert parts_out(log.case, 99) == set()
    bid_off = next(
        name
        for name, plug in SHEET.plugs.items()
        for part in plug.parts
        if SHEET.known_part(part).traits.off_before_500_v
    )
    assert parts_out(log.did(StripStep(words="off", plugs=(bid_off,))).case, 99) == set()


def rows(log: Log) -> list[tuple[str, bool]]:
    found = way_back(log.case, log.safety, census_lines(log.case))
    return [(row.test or row.words, row.is_done) for row in found]


def stripped() -> Log:
    """Return a job on which a heater that leaks is out and another one is in the hand."""
    log = Log(SHEET).did(Isolated()).read(*proof_of(SHEET)).read("cord pe 0.1", "heater pe 0.08M", "heater pe 0.08M")
    log.did(StripStep(words="Back panel off", panel="back", fasteners=6), TAGS_OFF)
    return log.did(StripStep(words="Heater out", part="heater", fasteners=1), REPLACED)


def off(log: Log, words: str) -> str:
    return next(row.id for row in log.case.of(StripStep) if row.body.words == words)


def test_the_way_back_is_read_in_reverse_and_whole_and_what_is_done_keeps_its_place() -> None:
    log = stripped()
    order = ["heater.pe", "Heater back in", "Both heater tags on", "heater.earth", "Back panel on", "cord.insulation"]
    assert rows(log) == [(name, False) for name in order]
    log.read("heater pe >299M").did(StripBack(step=off(log, "Heater out"), fasteners=1))
    assert rows(log) == [(name, at < 2) for at, name in enumerate(order)]
    log.did(StripBack(step=off(log, "heater tags off"), plugs=("heater_tags",))).read("heater earth 0.1")
    log.did(StripBack(step=off(log, "Back panel off"), fasteners=6)).read("cord insulation >299M")
    assert [name for name, is_done in rows(log) if not is_done] == []


def test_one_fastener_lost_holds_the_way_back_up_until_it_is_told_why() -> None:
    log = stripped().read("heater pe >299M")
    log.did(StripBack(step=off(log, "Heater out"), fasteners=0))
    assert ("Heater back in", False) in rows(log)
    log.did(StripBack(step=off(log, "Heater out"), fasteners=0, because="the clip holds it"))
    assert ("Heater back in", True) in rows(log)


def test_a_piece_that_reads_outside_twice_is_replaced_too_and_the_former_one_reads_as_it_did() -> None:
    log = stripped().read("heater pe 0.09M")
    assert what_next(log.case, log.safety, census_lines(log.case)).kind is NextKind.TEST
    log.read("heater pe 0.09M")
    following = what_next(log.case, log.safety, census_lines(log.case))
    assert (following.kind, following.part, following.do) == (NextKind.REPAIR, "heater", REPLACED)
    log.did(REPLACED)
    assert rows(log)[0] == ("heater.pe", False)
    log.did(Changed(part="heater", intervention=Intervention.REPLACED, fitted="original"))
    assert rows(log)[0] == ("Heater back in", False)


def test_a_change_on_the_wrong_part_that_is_taken_back_asks_nothing() -> None:
    log = Log(SHEET).read("pump coil OL").did(Changed(part="valve", intervention=Intervention.REPLACED))
    assert rows(log)[0] == ("valve.coil", False)
    wrong = log.case.of(Changed)[0]
    log.did(RecordWithdrawn(record=wrong.id), Changed(part="pump", intervention=Intervention.REPLACED))
    assert "valve.coil" not in dict(rows(log))
    assert rows(log)[0] == ("pump.coil", False)
