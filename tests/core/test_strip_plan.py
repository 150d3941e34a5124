"""How a part comes out: its cover, its plugs, itself; and no cover goes on over what is still off beneath it."""

from __future__ import annotations

import pytest
from tests.core.case_of import Log

from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import Body, Event, Intervention, Opened, Shut, StripBack, StripStep
from ohmcensus.core.event.change import usual_intervention
from ohmcensus.core.job.strip_down import beneath, strip_down
from ohmcensus.core.job.strip_plan import strip_plan
from ohmcensus.core.safety import refuse_event
from ohmcensus.core.safety.named import with_known_names
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.sheets import find_sheet

ALL = ("fl7-u", "wd8-h", "tl4-c", "tl6-s", "dd8-r", "fl9-t")
BACK = StripStep(words="Back panel off", fasteners=6, head="cross", size="M4 x 12", kept="blue lid", panel="back")
TAGS = StripStep(words="Both heater tags off", plugs=("heater_tags",))
OUT = StripStep(words="Heater out", fasteners=1, head="hex nut", size="11 mm", plugs=("heater_tags",), part="heater")


def words(log: Log, part: str, *earlier: StripStep) -> list[tuple[str, bool, int]]:
    rows = [Event(f"step {place}", row, "2026-06-01T12:00:00Z") for place, row in enumerate(earlier)]
    found = strip_plan(log.case, log.case.sheet.known_part(part), rows)
    return [(row.proposal.words, row.is_off, row.proposal.fasteners) for row in found]


@pytest.mark.parametrize("sheet_id", ALL)
def test_every_part_of_every_type_has_a_plan_that_ends_with_itself(sheet_id: str) -> None:
    log = Log(find_sheet(sheet_id))
    for part in log.case.sheet.parts:
        plan = strip_plan(log.case, part)
        assert plan[-1].proposal.part == part.id
        assert not any(row.is_off or row.told for row in plan)
        for row in plan:
            assert with_known_names(log.case, row.proposal) == row.proposal


def test_a_machine_that_is_tipped_is_not_said_to_be_off() -> None:
    assert words(Log(find_sheet("tl4-c")), "capacitor")[0][0] == "Machine tipped back"


def test_it_is_ticked_by_whatever_record_says_so(fl7: Sheet) -> None:
    log = Log(fl7)
    assert words(log, "heater") == [
        ("Back panel off", False, 0),
        ("Both heater tags off", False, 0),
        ("Heater out", False, 0),
    ]
    log.did(Opened(panel="back"))
    assert words(log, "heater")[0] == ("Back panel off", True, 0)
    log.did(OUT)
    assert [row[1] for row in words(log, "heater")] == [True, True, True]
    log.did(StripBack(step=strip_down(log.case)[0].event.id, fasteners=1, plugs=("heater_tags",)))
    assert [row[1] for row in words(log, "heater")] == [True, False, False]


def test_fasteners_are_proposed_from_the_newest_job_and_those_of_a_part_are_not_its_plugs(fl7: Sheet) -> None:
    older = BACK.model_copy(update={"fasteners": 4})
    assert words(Log(fl7), "heater", OUT, BACK, older) == [
        ("Back panel off", False, 6),
        ("Both heater tags off", False, 0),
        ("Heater out", False, 1),
    ]


@pytest.mark.parametrize(
    ("done", "panel", "first"),
    [
        ((BACK, TAGS, OUT), "back", ("Heater out", "Both heater tags off")),
        ((BACK, TAGS), "front", ()),
        ((BACK, StripStep(words="insulation mat")), "back", ("insulation mat",)),
        ((StripStep(words="lid of the tray"), BACK), "back", ()),
        ((BACK, StripStep(words="Front panel off", panel="front"), StripStep(words="mat")), "back", ()),
        ((BACK, StripStep(words="Front panel off", panel="front"), StripStep(words="mat")), "front", ("mat",)),
    ],
    ids=["known parts", "another cover", "a word beneath", "before the cover", "two covers", "the last of two"],
)
def test_what_is_off_beneath_a_cover_goes_back_first(
    fl7: Sheet, done: tuple[StripStep, ...], panel: str, first: tuple[str, ...]
) -> None:
    log = Log(fl7).did(*done)
    assert beneath(log.case, panel) == first
    cover = next((row.event.id for row in strip_down(log.case) if row.step.panel == panel), None)
    ways: list[Body] = [StripBack(step=cover, fasteners=0)] if cover else []
    ways += [Shut(panel=panel)] if panel in log.safety.walk.covers else []
    for body in ways:
        if first:
            with pytest.raises(SafetyRefusalError, match=f"still off beneath it: {first[0]}"):
                refuse_event(log.case, body, log.safety)
        else:
            refuse_event(log.case, body, log.safety)


def test_a_part_that_the_machine_does_not_have_cannot_come_out(fl7: Sheet) -> None:
    with pytest.raises(InputError, match="boiler"):
        with_known_names(Log(fl7).case, StripStep(words="Boiler out", part="boiler"))


@pytest.mark.parametrize(
    ("repair", "intervention"),
    [
        ("replace the heater", Intervention.REPLACED),
        ("new brushes, or another motor", Intervention.REPLACED),
        ("reseat the link at both ends and look at its pins; only then another board", Intervention.RESEATED),
        ("clear or replace the pump", Intervention.CLEANED),
        ("mend the lead", Intervention.MENDED),
        ("find why it blew, then a fuse of the same rating", Intervention.REPLACED),
    ],
)
def test_the_usual_repair_is_noted_as_what_it_is(repair: str, intervention: Intervention) -> None:
    assert usual_intervention(repair) is intervention
