"""Any sequence of logging, correcting, undoing, noting and stating safety, against a model of a few lines."""

from __future__ import annotations

import tempfile
from dataclasses import replace
from pathlib import Path
from uuid import uuid4

import pytest
from hypothesis import HealthCheck, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule
from tests.core.case_of import PROOF
from tests.noon import NOON
from tests.seeded import new_store
from tests.working import happened, prove_dead

from ohmcensus.core.errors import SafetyRefusalError, StaleRevisionError
from ohmcensus.core.event import LiveBegun, PluggedIn
from ohmcensus.core.safety import SafetyState
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_changes import show_changes
from ohmcensus.services.reading.log_reading import NewReading, Withdrawal, log_reading, withdraw_reading
from ohmcensus.services.reading.show_trace import show_trace
from ohmcensus.services.reading.write_note import NewNote, write_note
from ohmcensus.services.transfer.export_job import job_file

LINES = {
    "heater 25.9": "heater.element",
    "heater pe >299M": "heater.pe",
    "pump OL": "pump.coil",
    "field 2k2": "motor.field",
    "between heater.a pump.b 12": "heater.a pump.b",
}


class History(RuleBasedStateMachine):
    """A job beside a model of it: what stands on each line, newest last, as a stack of corrections."""

    @initialize()
    def open(self) -> None:
        self.folder = tempfile.TemporaryDirectory()
        self.context = Context(new_store(Path(self.folder.name)), clock=lambda: NOON)
        new = NewJob(id=uuid4(), machine="M", place="P", sheet="fl7-u")
        self.job_id = open_job(self.context, new).id
        self.revision = prove_dead(self.context, self.job_id)
        self.standing: list[tuple[str, list[str]]] = []  # (line, [reading ids, oldest first])
        self.rows = 0
        self.notes: dict[str, str] = {}
        self.safety = SafetyState.DEAD
        self.before, self.power = 1 + len(PROOF), 0

    def written(self, revision: int) -> None:
        assert revision == self.revision + 1
        self.revision = revision

    @rule(text=st.sampled_from(sorted(LINES)))
    def log(self, text: str) -> None:
        new = NewReading(id=uuid4(), revision=self.revision, text=text)
        if self.safety is not SafetyState.DEAD:
            with pytest.raises(SafetyRefusalError):
                log_reading(self.context, self.job_id, new)
            return
        self.written(log_reading(self.context, self.job_id, new).job.revision)
        self.standing.append((LINES[text], [str(new.id)]))
        self.rows += 1

    @precondition(lambda self: self.standing and self.safety is SafetyState.DEAD)
    @rule(data=st.data())
    def correct(self, data: st.DataObject) -> None:
        index = data.draw(st.integers(0, len(self.standing) - 1))
        line, ids = self.standing.pop(index)
        text = next(text for text, key in LINES.items() if key == line)
        new = NewReading.model_validate({"id": uuid4(), "revision": self.revision, "text": text, "supersedes": ids[-1]})
        self.written(log_reading(self.context, self.job_id, new).job.revision)
        self.standing.append((line, [*ids, str(new.id)]))
        self.rows += 1

    @precondition(lambda self: self.standing)
    @rule(data=st.data())
    def take_back(self, data: st.DataObject) -> None:
        index = data.draw(st.integers(0, len(self.standing) - 1))
        line, ids = self.standing.pop(index)
        new = Withdrawal(id=uuid4(), revision=self.revision)
        self.written(withdraw_reading(self.context, self.job_id, ids[-1], new).job.revision)
        if ids[:-1]:
            self.standing.append((line, ids[:-1]))
        self.rows += 1

    @rule(line=st.sampled_from(["heater.pe", "pump.coil"]), text=st.sampled_from(["", "wet", "=1+1"]))
    def note(self, line: str, text: str) -> None:
        new = NewNote(id=uuid4(), revision=self.revision, line=line, text=text)
        self.written(write_note(self.context, self.job_id, new).job.revision)
        self.notes[line] = text

    @rule()
    def work_live(self) -> None:
        self.written(happened(self.context, self.job_id, LiveBegun(reason="outlet volts")).revision)
        self.safety, self.power = SafetyState.LIVE, self.power + 1

    @precondition(lambda self: self.safety is not SafetyState.LIVE)
    @rule()
    def leave_it(self) -> None:
        self.written(happened(self.context, self.job_id, PluggedIn()).revision)
        self.safety, self.power = SafetyState.UNDER_VOLTAGE, self.power + 1

    @rule()
    def prove_it_dead(self) -> None:
        self.revision = prove_dead(self.context, self.job_id)
        self.before += 1 + len(PROOF)
        self.safety = SafetyState.DEAD

    @rule()
    def write_from_an_older_state(self) -> None:
        stale = NewNote(id=uuid4(), revision=self.revision + 1, line="pump.coil", text="x")
        with pytest.raises(StaleRevisionError):
            write_note(self.context, self.job_id, stale)

    @invariant()
    def what_is_shown_is_what_stands(self) -> None:
        trace = show_trace(self.context, self.job_id)
        shown = {row.id for line in trace.lines for row in line.history if row.stands}
        assert shown == {ids[-1] for _, ids in self.standing}
        assert {line.key: line.note for line in trace.lines if line.note} == {k: v for k, v in self.notes.items() if v}
        assert (trace.job.revision, trace.job.safety) == (self.revision, self.safety)

    @invariant()
    def a_fresh_reader_sees_the_same(self) -> None:
        fresh = replace(self.context, at_hand={})
        assert show_trace(fresh, self.job_id) == show_trace(self.context, self.job_id)

    @invariant()
    def nothing_is_ever_erased(self) -> None:
        job = job_file(self.context, self.job_id)
        assert len(job.history) + len(job.events) == self.rows + self.before + self.power
        changes = show_changes(self.context, self.job_id, 0).changes
        assert [change.revision for change in changes] == sorted({change.revision for change in changes})

    def teardown(self) -> None:
        if hasattr(self, "context"):
            self.context.store.close()
            self.folder.cleanup()


TestHistory = History.TestCase
TestHistory.settings = settings(
    max_examples=15, stateful_step_count=12, deadline=None, suppress_health_check=list(HealthCheck)
)
