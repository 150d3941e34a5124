"""Use cases on a real store: logging, correcting, undoing, notes, safety, meters, settings."""

from __future__ import annotations

from dataclasses import replace
from uuid import UUID, uuid4

import pytest
from pydantic import ValidationError
from tests.working import every_job, happened, prove_dead

from ohmcensus.core.errors import (
    InputError,
    NotFoundError,
    OhmcensusError,
    SafetyRefusalError,
    StaleRevisionError,
    UnknownNameError,
)
from ohmcensus.core.event import Attended, Body, Ended, Isolated, LiveBegun, LiveEnded
from ohmcensus.core.meter import GENERIC_METERS, generic_meter
from ohmcensus.core.safety import SafetyState
from ohmcensus.demo.seed import seed_demo
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.at_hand.settings import Settings
from ohmcensus.services.at_hand.sheets import sheets_in
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_changes import show_changes
from ohmcensus.services.job.show_outlook import show_outlook
from ohmcensus.services.reading.log_reading import NewReading, Withdrawal, log_reading, withdraw_reading
from ohmcensus.services.reading.preview_line import TypedLine, preview_line
from ohmcensus.services.reading.show_trace import show_trace
from ohmcensus.services.reading.view import LineView, TraceView
from ohmcensus.services.reading.write_note import NewNote, write_note
from ohmcensus.services.setup.change_settings import keep_settings, show_settings
from ohmcensus.services.setup.keep_meter import NewMeter, keep_meter, remove_meter, show_meters


class Bench:
    """A job at hand, with the writer's view of its revision."""

    def __init__(self, context: Context) -> None:
        self.context = context
        job = NewJob(id=uuid4(), machine="Machine 9", place="Wash house", sheet="fl7-u")
        self.job_id = open_job(context, job).id
        prove_dead(context, self.job_id)
        self.trace: TraceView = show_trace(context, self.job_id)
        self.first = self.trace.job.revision

    def log(self, text: str, **more: object) -> LineView | None:
        row_id = uuid4()
        new = NewReading.model_validate({"id": row_id, "revision": self.trace.job.revision, "text": text} | more)
        self.keep(log_reading(self.context, self.job_id, new))
        return next((line for line in self.trace.lines if line.reading_id == str(row_id)), None)

    def keep(self, after: TraceView) -> None:
        """Look at what a change answers with, as the interface does."""
        self.trace = after

    def line(self, key: str) -> LineView:
        return next(line for line in self.trace.lines if line.key == key)

    def undo(self) -> None:
        assert self.trace.last_reading
        new = Withdrawal(id=uuid4(), revision=self.trace.job.revision)
        self.keep(withdraw_reading(self.context, self.job_id, self.trace.last_reading, new))

    def happens(self, body: Body) -> None:
        happened(self.context, self.job_id, body)
        self.trace = show_trace(self.context, self.job_id)


@pytest.fixture
def bench(context: Context) -> Bench:
    return Bench(context)


def test_a_reading_is_stored_judged_and_found_again(bench: Bench) -> None:
    line = bench.log("heater 25.9")
    assert line is not None
    assert (line.key, line.reads, line.verdict) == ("heater.element", "25.9 Ω", "inside")
    assert show_trace(bench.context, bench.job_id) == bench.trace
    assert bench.trace.job.revision == bench.first + 1
    assert bench.trace.next_line == "heater.pe"


def test_a_correction_keeps_the_old_reading_in_the_history(bench: Bench) -> None:
    wrong = bench.log("heater 259")
    assert wrong is not None
    bench.log("heater 25.9", supersedes=wrong.reading_id)
    line = bench.line("heater.element")
    assert [(row.reads, row.stands) for row in line.history] == [("25.9 Ω", True), ("259 Ω", False)]
    bench.undo()
    assert bench.line("heater.element").reads == "259 Ω"
    bench.undo()
    assert bench.line("heater.element").verdict is None
    assert len(bench.line("heater.element").history) == 4


def test_a_correction_stays_on_its_line_and_only_once(bench: Bench) -> None:
    wrong = bench.log("heater 259")
    assert wrong is not None
    with pytest.raises(InputError, match="is another line than the reading it corrects"):
        bench.log("pump 148", supersedes=wrong.reading_id)
    bench.log("heater 25.9", supersedes=wrong.reading_id)
    with pytest.raises(NotFoundError, match="does not stand any more"):
        bench.log("heater 26", supersedes=wrong.reading_id)


def test_a_retry_never_doubles_and_never_needs_the_newest_revision(bench: Bench) -> None:
    row_id = uuid4()
    new = NewReading(id=row_id, revision=bench.first, text="pump 148")
    first = log_reading(bench.context, bench.job_id, new)
    again = log_reading(bench.context, bench.job_id, new)
    assert again == show_trace(bench.context, bench.job_id)
    assert [line.key for line in first.lines if line.reading_id] == ["pump.coil"]
    assert len(next(line for line in again.lines if line.key == "pump.coil").history) == 1
    with pytest.raises(InputError, match="belongs to another reading"):
        log_reading(bench.context, bench.job_id, NewReading(id=row_id, revision=2, text="pump 150"))


def test_a_stale_writer_is_told_and_nothing_is_stored(bench: Bench) -> None:
    bench.log("pump 148")
    with pytest.raises(StaleRevisionError, match="this job has moved on") as caught:
        log_reading(bench.context, bench.job_id, NewReading(id=uuid4(), revision=bench.first, text="heater 25.9"))
    assert (caught.value.stated, caught.value.current) == (bench.first, bench.first + 1)
    assert show_trace(bench.context, bench.job_id).job.asked == 1


BAD_LINES = ["", "abc", "heater abc", "heater 12..3", "heater 1e999", "heater NaN", "heater 230V", "heater -3"]


@pytest.mark.parametrize("text", [*BAD_LINES, "heeter 25", "heater", "x" * 10_240], ids=lambda t: t[:14] or "empty")
def test_bad_lines_are_refused_and_nothing_is_stored(bench: Bench, text: str) -> None:
    with pytest.raises(OhmcensusError) as caught:
        bench.log(text)
    shown = preview_line(bench.context, bench.job_id, TypedLine(text=text))
    assert shown.problem == str(caught.value)
    after = show_trace(bench.context, bench.job_id)
    assert (after.job.revision, after.job.asked) == (bench.first, 0)


def test_the_preview_says_what_logging_will_say(bench: Bench) -> None:
    shown = preview_line(bench.context, bench.job_id, TypedLine(text="heater pe alone 0.044M"))
    assert (shown.heading, shown.reads, shown.error_text) == ("Heater · to earth, alone", "44 kΩ", "± 21 kΩ")
    line = bench.log("heater pe alone 0.044M")
    assert line is not None
    assert (line.sentence, line.verdict) == (shown.sentence, shown.verdict)
    assert line.history[0].alone


def test_a_bare_reading_is_kept_with_the_line_that_it_belongs_to(bench: Bench) -> None:
    shown = preview_line(bench.context, bench.job_id, TypedLine(text="26", line="heater.element"))
    assert (shown.line, shown.reads) == ("heater.element", "26 Ω")
    line = bench.log("26", line="heater.element")
    assert line is not None
    assert (line.key, line.typed) == ("heater.element", "heater element 26")
    with pytest.raises(OhmcensusError, match="no '26'"):
        bench.log("26")


def test_two_points_take_the_function_that_was_chosen_or_the_unit_that_was_typed(bench: Bench) -> None:
    bench.log("between heater.a pump.b 12.3")
    bench.log("between outlet.l motor.pe 3.1V")
    bench.log("between heater.b pump.a 40M", function="insulation")
    assert bench.line("heater.a pump.b").function == "ohm"
    assert bench.line("outlet.l motor.pe").function == "volts_ac"
    assert bench.line("heater.b pump.a").function == "insulation"
    assert bench.line("heater.b pump.a").verdict == "not_judged"


def test_live_mode_needs_a_reason_and_refuses_ohms(bench: Bench) -> None:
    with pytest.raises(ValidationError, match="at least 3 characters"):
        LiveBegun(reason=" ")
    bench.happens(LiveBegun(reason="volts at the outlet"))
    assert (bench.trace.job.safety, bench.trace.job.safety_reason) == (SafetyState.LIVE, "volts at the outlet")
    for text in ("heater 25.9", "cord pe 0.1", "heater pe >299M", "filter x 0.47u", "between heater.a pump.a 3"):
        with pytest.raises(SafetyRefusalError, match="live mode"):
            bench.log(text)
    assert bench.log("outlet 231") is not None
    bench.happens(LiveEnded())
    with pytest.raises(SafetyRefusalError, match="UNDER VOLTAGE"):
        bench.log("heater 25.9", override="heater out on the bench, said too late")
    bench.happens(Isolated())
    with pytest.raises(SafetyRefusalError, match="not proved dead"):
        bench.log("heater 25.9")
    line = bench.log("heater 25.9", override="heater out on the bench, said too late")
    assert line is not None
    assert line.history[0].override == "heater out on the bench, said too late"
    line = bench.log("heater loose 25.8")
    assert line is not None
    assert (line.history[0].loose, line.history[0].alone, line.history[0].override) == (True, True, "")


def test_the_newest_note_stands_and_an_empty_one_takes_it_back(bench: Bench) -> None:
    for text in ("green tag", "green tag, cleaned", ""):
        note = NewNote(id=uuid4(), revision=bench.trace.job.revision, line="pump.coil", text=text)
        bench.keep(write_note(bench.context, bench.job_id, note))
        assert bench.line("pump.coil").note == text
        assert write_note(bench.context, bench.job_id, note) == bench.trace == show_trace(bench.context, bench.job_id)
    with pytest.raises(UnknownNameError, match=r"no line 'pump\.glow'"):
        write_note(bench.context, bench.job_id, NewNote(id=uuid4(), revision=4, line="pump.glow", text="x"))


def test_changes_after_a_revision_are_told_in_order(bench: Bench) -> None:
    bench.log("pump 148")
    bench.happens(Attended())
    bench.log("heater 25.9")
    bench.undo()
    changes = show_changes(bench.context, bench.job_id, bench.first + 1)
    assert changes.revision == bench.first + 4
    assert [(c.revision - bench.first, c.what, c.line) for c in changes.changes] == [
        (2, "attended", ""),
        (3, "reading", "heater.element"),
        (4, "withdrawal", "heater.element"),
    ]


def test_a_temperature_that_nobody_stated_is_kept_as_such(bench: Bench) -> None:
    keep_settings(bench.context, Settings(technician="  A. Tester ", ambient_celsius=60.0))
    unstated = bench.log("ntc 10.0k")
    assert unstated is not None
    assert (unstated.verdict, unstated.history[0].is_celsius_stated, unstated.history[0].who) == (
        "inside",
        False,
        "A. Tester",
    )
    assert "fits 25 °C" in unstated.sentence
    stated = bench.log("ntc 2.49k at 60C")
    assert stated is not None
    assert (stated.history[0].celsius, stated.history[0].is_celsius_stated) == (60.0, True)


def test_an_own_meter_judges_by_its_leaflet_and_readings_keep_it(bench: Bench) -> None:
    poor = generic_meter("multimeter-2000").model_copy(update={"id": "own-1", "title": "Old one"})
    keep_meter(bench.context, NewMeter(**poor.model_dump()))
    assert show_settings(bench.context).bag[0] == "own-1"
    line = bench.log("pump 1")
    assert line is not None
    assert (line.verdict, line.history[0].meter) == ("open", "Old one")
    remove_meter(bench.context, "own-1")
    assert "own-1" not in show_settings(bench.context).bag
    after = show_trace(bench.context, bench.job_id)
    assert [meter.id for meter in after.meters] == ["multimeter-6000", "appliance-tester"]
    assert after.lines == bench.trace.lines
    assert bench.line("pump.coil").verdict == "open"


def test_generic_meters_are_not_overwritten_or_removed(context: Context) -> None:
    with pytest.raises(InputError, match="is a generic meter"):
        keep_meter(context, NewMeter(**generic_meter("multimeter-6000").model_dump()))
    with pytest.raises(NotFoundError, match="generic meters stay"):
        remove_meter(context, "multimeter-6000")
    with pytest.raises(InputError, match="no meter 'wand'"):
        keep_settings(context, Settings(bag=["wand"]))
    assert len(show_meters(context)) == len(GENERIC_METERS)


def test_opening_a_job_twice_is_one_job(context: Context) -> None:
    new = NewJob(id=UUID(int=7), machine="M", place="P", sheet="fl7-u")
    assert open_job(context, new) == open_job(context, new)
    assert len(every_job(context)) == 1
    with pytest.raises(InputError, match="belongs to another job"):
        open_job(context, new.model_copy(update={"machine": "N"}))
    with pytest.raises(UnknownNameError, match="did you mean fl7-u"):
        open_job(context, NewJob(id=uuid4(), machine="M", place="P", sheet="fl7"))


def test_the_demo_is_seeded_once(context: Context) -> None:
    seed_demo(context)
    jobs = every_job(context)
    seed_demo(context)
    assert every_job(context) == jobs
    with context.store.read() as session:
        told = [take(context, session, job.id) for job in jobs]
        built_in = set(sheets_in(session))
    assert {row.stored.sheet_id for row in told} == built_in, "a job on each type"
    assert any(len(show_outlook(context, job.id).named) > 1 for job in jobs), "one with two faults"
    endings = [event.body for row in told for event in row.case.of(Ended)]
    assert any(ending.is_labelled_unsafe for ending in endings), "an unsafe ending"


def test_what_is_at_hand_is_never_older_than_what_another_process_wrote(bench: Bench) -> None:
    bench.log("pump 148")
    other = replace(bench.context, at_hand={})
    keep_settings(other, Settings(technician="Other", ambient_celsius=40.0))
    log_reading(other, bench.job_id, NewReading(id=uuid4(), revision=bench.first + 1, text="heater 25.9"))
    fresh, mine = show_trace(replace(other, at_hand={}), bench.job_id), show_trace(bench.context, bench.job_id)
    assert fresh == mine
    assert (mine.celsius, mine.job.asked) == (40.0, 2)


def test_a_refused_reading_leaves_nothing_at_hand(bench: Bench) -> None:
    with pytest.raises(StaleRevisionError):
        log_reading(bench.context, bench.job_id, NewReading(id=uuid4(), revision=9, text="pump 148"))
    assert show_trace(bench.context, bench.job_id) == show_trace(replace(bench.context, at_hand={}), bench.job_id)
