"""What the rooms say of one machine at one moment is the same: Jobs, Trace, Repair, Sheet-out, and the replay of it."""

from __future__ import annotations

from uuid import uuid4

import pytest
from tests.stories.told import proof, read
from tests.working import every_job, happened, logged, prove_dead, read_what_is_missing

from ohmcensus.core.course.outlook import named_words
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.event import Changed, Intervention, PluggedIn, RunMade, RunWatched
from ohmcensus.core.symptom import Symptom
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method
from ohmcensus.exchange.report import Report
from ohmcensus.exchange.story_file import Story
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.at_hand.outlook import outlook_of
from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.job.list_jobs import keep_card
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_outlook import show_outlook
from ohmcensus.services.proof.show_proof import show_proof
from ohmcensus.services.reading.show_trace import show_trace
from ohmcensus.services.repair.show_repair import show_repair
from ohmcensus.services.sheet_out.compose import composed
from ohmcensus.services.sheet_out.customer_page import NO_CAUSE
from ohmcensus.services.suspects.show_suspects import SuspectsQuery, show_suspects
from ohmcensus.services.transfer.replay import OutlookAnswer, replay
from ohmcensus.services.trip.show_story import show_trip_story
from ohmcensus.services.trip.show_trip import TripQuery, show_trip


@pytest.fixture
def job(context: Context) -> str:
    job_id = open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id
    with context.store.read() as session:
        stored = take(context, session, job_id)
    complaint = stored.case.complaint.model_copy(update={"symptoms": (Symptom.NO_HEAT, Symptom.STOPS)})
    new = NewIntake(
        intake_revision=stored.stored.intake_revision,
        machine="Machine 9",
        place="Pier",
        sheet="fl7-u",
        complaint=complaint,
        plate=stored.case.plate,
    )
    keep_intake(context, job_id, new)
    return job_id


def found_of(told: Report) -> tuple[str, ...]:
    """Return what the customer reads of what was found."""
    return next(row.sentences for row in told.customer if row.title == "What we found")


def rooms_agree(context: Context, job_id: str) -> tuple[Standing, list[str]]:
    """Compare what the rooms print; return how far Trace says it is, and who is named."""
    keep_card(context, job_id)
    with context.store.read() as session:
        job = take(context, session, job_id)
    found = outlook_of(context, job)
    trace = show_suspects(context, job_id, SuspectsQuery())
    card = next(row for row in every_job(context) if row.id == job_id)
    told = composed(context, job)
    named = [row.id for row in trace.named]
    assert (trace.standing, named, trace.sentence) == (found.standing, list(found.named), found.sentence)
    assert card.named == named_words(found, job.case.sheet)
    shared = show_outlook(context, job_id)
    assert (shared.standing, [row.id for row in shared.named]) == (trace.standing, named)
    assert card.next_step == shared.next_step
    if trace.act is not None and trace.act.kind == "repair":
        assert show_repair(context, job_id).leader == trace.act.part
    if found.named and not job.case.of(Changed):
        assert told.found == found.sentence
        assert f"We found the {card.named.lower()} to be at fault." in found_of(told)
    if not found.named and not job.case.of(Changed):
        assert told.found.startswith(NO_CAUSE) or found.standing is Standing.NOTHING_FOUND
        assert NO_CAUSE in found_of(told)
    assert " of " not in found_of(told)[0]
    return trace.standing, named


def test_every_room_says_the_same_after_every_step(context: Context, job: str) -> None:
    assert rooms_agree(context, job) == (Standing.UNDECIDED, [])
    prove_dead(context, job)
    logged(context, job, "heater OL")
    assert rooms_agree(context, job)[1] == []
    logged(context, job, "heater OL")
    assert rooms_agree(context, job) == (Standing.NAMED, ["heater"])
    logged(context, job, "lock locked 38")
    lock = [row for row in show_suspects(context, job, SuspectsQuery()).suspects if row.part == "lock"]
    assert all(row.words != "ruled out" for row in lock)
    for line in ("lock locked 0.4", "lock locked 38", "lock locked 39"):
        logged(context, job, line)
        rooms_agree(context, job)
    assert rooms_agree(context, job) == (Standing.TWO_NAMED, ["heater", "lock"])
    happened(context, job, Changed(part="lock", intervention=Intervention.REPLACED, fitted="spare"))
    rooms_agree(context, job)
    logged(context, job, "lock locked 0.2")
    happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare"))
    logged(context, job, "heater 26")
    read_what_is_missing(context, job)
    happened(context, job, PluggedIn())
    happened(context, job, RunWatched(outcome="through"))
    rooms_agree(context, job)
    with context.store.read() as session:
        readings = composed(context, take(context, session, job)).readings
    assert any(row.verdict.startswith("former piece") for row in readings) is False
    assert all("OL" not in row.reads for row in readings if row.what == "Heater, element")


def test_lines_alone_convict_nobody_and_a_leak_test_does(context: Context, job: str) -> None:
    """Trip says of whom only lines tell that it leaks, and no more than the others do."""
    prove_dead(context, job)
    logged(context, job, "cord insulation 50k")
    logged(context, job, "heater pe 50k")
    with context.store.read() as session:
        names = [part.id for part in leaky_parts(take(context, session, job).case.sheet, Method.INSULATION)]
    rest = tuple(name for name in names if name != "heater")
    happened(context, job, RunMade(method="insulation", connected=rest, text=">299M"))
    trip = show_trip(context, job, TripQuery())
    assert all(part.state != "guilty" for part in trip.parts)
    assert trip.advice == "Heater: only lines say that it leaks. Test it alone, or read it once more in Trace."
    assert trip.next is not None
    assert (trip.next.connected, trip.leads_to) == (["heater"], "")
    assert rooms_agree(context, job)[1] == []
    told = [step.words for step in show_trip_story(context, job, TripQuery()).steps]
    assert not any("guilty" in words for words in told)
    happened(context, job, RunMade(method="insulation", connected=("heater",), text="0.05M"))
    assert "Heater: guilty" in show_trip_story(context, job, TripQuery()).steps[-1].words
    guilty = [part.id for part in show_trip(context, job, TripQuery()).parts if part.state == "guilty"]
    assert rooms_agree(context, job) == (Standing.NAMED, guilty)
    assert guilty == ["heater"]


def test_trip_goes_on_by_the_method_of_the_last_leak_test(context: Context, job: str) -> None:
    assert show_trip(context, job, TripQuery()).method == "insulation"
    prove_dead(context, job)
    read_what_is_missing(context, job)
    happened(context, job, PluggedIn())
    with context.store.read() as session:
        names = tuple(part.id for part in leaky_parts(take(context, session, job).case.sheet, Method.LEAKAGE))
    happened(context, job, RunMade(method="leakage", connected=names, text="9 mA", polarity="normal"))
    rooms_agree(context, job)
    assert show_trip(context, job, TripQuery()).method == "leakage"


def test_a_leak_under_isolation_is_next_in_every_room_until_it_is_proved(context: Context, job: str) -> None:
    prove_dead(context, job)
    with context.store.read() as session:
        names = tuple(part.id for part in leaky_parts(take(context, session, job).case.sheet, Method.INSULATION))
    happened(context, job, RunMade(method="insulation", connected=names, text="0.05M"))
    rooms_agree(context, job)
    shared, trip = show_outlook(context, job), show_trip(context, job, TripQuery())
    trace = show_suspects(context, job, SuspectsQuery())
    assert (shared.standing, shared.next_step.stage) == (Standing.UNDECIDED, "trip")
    assert trip.next is not None
    assert shared.next_step.words == f"Leak test. {trip.next.words}"
    assert trace.act is not None
    assert (trace.act.kind, trace.ask, trace.act.words) == ("leak_test", [], shared.next_step.words)
    off = "heater"
    happened(context, job, RunMade(method="insulation", connected=tuple(set(names) - {off}), text=">299M"))
    happened(context, job, RunMade(method="insulation", connected=(off,), text="0.05M"))
    assert rooms_agree(context, job) == (Standing.NAMED, [off])
    with context.store.read() as session:
        told = composed(context, take(context, session, job))
    assert told.found.startswith(
        "Heater alone reads 50 kΩ to earth; its limit is at least 300 kΩ; the rest of the machine reads > 299 MΩ."
    )
    assert [(row.connected, row.reads) for row in told.leak_tests] == [
        ("the whole machine", "50 kΩ"),
        ("all but Heater", "> 299 MΩ"),
        ("Heater alone", "50 kΩ"),
    ]
    assert show_repair(context, job).leader == off


def test_a_second_leak_behind_the_first_is_named_by_its_own_tests(context: Context, job: str) -> None:
    prove_dead(context, job)
    with context.store.read() as session:
        names = {part.id for part in leaky_parts(take(context, session, job).case.sheet, Method.INSULATION)}

    def read(text: str, inside: set[str]) -> None:
        happened(context, job, RunMade(method="insulation", connected=tuple(sorted(inside)), text=text))

    read("0.05M", names)
    read("0.05M", {"heater"})
    happened(context, job, Changed(part="heater", intervention=Intervention.REPLACED, fitted="spare"))
    assert show_outlook(context, job).next_step.words == "Measure: Heater, to earth"
    logged(context, job, "heater pe >299M")
    assert show_outlook(context, job).next_step.words.startswith("Leak test. The whole machine again")
    read("0.2M", names)
    read("0.2M", {"motor"})
    read(">299M", names - {"motor"})
    shared = show_outlook(context, job)
    assert shared.sentence.startswith("Motor alone reads 200 kΩ to earth; its limit is at least 1 MΩ")
    assert "1 before" not in shared.sentence
    rooms_agree(context, job)


def test_what_counts_no_more_says_by_what(context: Context, job: str) -> None:
    prove_dead(context, job)
    logged(context, job, "heater 26")
    happened(context, job, Changed(part="heater", intervention=Intervention.MENDED))
    line = next(row for row in show_trace(context, job).lines if row.key == "heater.element")
    assert (line.voided, line.remark) == ("Heater: mended", "read before a change")
    read_what_is_missing(context, job)
    shown = {row.id: row for row in show_proof(context, job).criteria}
    assert (shown["insulation"].state, shown["insulation"].voided) == ("good", "")
    happened(context, job, Changed(part="valve", intervention=Intervention.MENDED))
    again = {row.id: row for row in show_proof(context, job).criteria}["insulation"]
    assert (again.state, again.voided) == ("not_shown", "Main valve: mended")
    logged(context, job, "heater 26")
    line = next(row for row in show_trace(context, job).lines if row.key == "heater.element")
    assert line.voided == ""


def test_nothing_goes_out_by_a_bare_chance(context: Context, job: str) -> None:
    with context.store.read() as session:
        told = composed(context, take(context, session, job))
    assert told.found == NO_CAUSE
    assert found_of(told)[0] == NO_CAUSE


def test_a_story_tells_who_is_named_and_what_is_next() -> None:
    steps = [*proof(), *read("heater OL", "heater OL")]
    story = Story.model_validate(
        {
            "format": "ohmcensus-story/1",
            "sheet": "fl7-u",
            "complaint": {"symptoms": ["no_heat"]},
            "at": "2026-01-05T08:00:00Z",
            "steps": steps,
        }
    )
    rows = replay(story, with_next=True).steps
    last = rows[-1]
    assert isinstance(last, OutlookAnswer)
    assert (last.standing, last.named) == (Standing.NAMED, ["heater"])
    assert last.next is not None
    assert (last.next["kind"], last.next["part"]) == ("repair", "heater")
    told = replay(story).model_dump()["steps"][-1]
    assert "named" not in told
    assert {"named", "standing", "next"} <= replay(story, with_next=True).model_dump()["steps"][-1].keys()
