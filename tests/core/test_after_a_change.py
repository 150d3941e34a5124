"""What was read before a change is of the machine as it was; what is read with parts out is of the rest."""

from __future__ import annotations

from tests.core.case_of import Log

from ohmcensus.core.event import Changed, Intervention, StripBack, StripStep
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
