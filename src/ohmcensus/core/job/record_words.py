"""Every record in a few words: for the list of what was done, the log, and what says by what something was voided."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from ohmcensus.core.codes.scheme import NOTHING_STORED
from ohmcensus.core.event import (
    Attended,
    Body,
    BypassRemoved,
    Changed,
    Checked,
    CheckOutcome,
    CircuitNoted,
    CodesRead,
    ConnectorNoted,
    ConnectorTicked,
    CostsNoted,
    CycleBegun,
    CycleTicked,
    EarthLifted,
    EarthRefitted,
    Ended,
    EntryTried,
    FoundPowered,
    HandsOff,
    HazardFound,
    InsulationNotAllowed,
    InterlockTried,
    Isolated,
    LiveBegun,
    LiveEnded,
    NotedInError,
    Opened,
    OutletNamed,
    Over,
    PhotosChosen,
    PlaceNoted,
    PluggedIn,
    ProofMade,
    Reclosed,
    RecordWithdrawn,
    Reopened,
    RunDoubted,
    RunMade,
    RunWatched,
    RunWithdrawn,
    Shut,
    Skipped,
    Stamped,
    StepTicked,
    StripBack,
    StripStep,
    Tripped,
)
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine.asked import asked_words, looks, run_words


def record_words(case: Case, body: Body) -> str:
    """Say a record in a few words, parts and covers by their titles."""
    return _WORDS[type(body)](case, body)


def _part(case: Case, name: str) -> str:
    part = case.sheet.part(name)
    return part.title if part else name


def _cover(case: Case, name: str) -> str:
    panel = case.sheet.panels.get(name)
    return panel.title if panel else name


def _step(case: Case, row: str) -> str:
    """Return the words of a step of the strip-down."""
    return next((event.body.words for event in case.of(StripStep) if event.id == row), "a step")


def _over(case: Case, over: Over | None) -> str:
    return f", over the {_part(case, over.part).lower()}, its wires insulated and tied away" if over else ""


def _stamp(body: Stamped) -> str:
    if body.rating == "arrester":
        return "a surge arrester goes to earth on it"
    return f"{_spaced(body.rating)} {body.value:g} stamped on it"


def _spaced(name: str) -> str:
    return re.sub(r"(?<=[a-z])(?=\d)", " ", name.replace("_", " "))


def _codes(_case: Case, body: CodesRead) -> str:
    codes = [code for code in body.codes if code != NOTHING_STORED]
    return f"codes read: {', '.join(codes) or 'none stored'}"


def _noted_in_error(_case: Case, body: NotedInError) -> str:
    return f"noted in error: {_spaced(body.danger)}, because {body.because}"


def _checked(case: Case, body: Checked) -> str:
    said = {CheckOutcome.GOOD: "good", CheckOutcome.BAD: "bad", CheckOutcome.NOT_SEEN: "not looked at"}[body.outcome]
    name = asked_words(body.check, case.sheet) if body.check in looks(case.sheet) else _spaced(body.check)
    return f"{name}: {said}{f', {body.words}' if body.words else ''}"


def _tripped(_case: Case, body: Tripped) -> str:
    device = "" if body.device.value == "unknown" else f" the {body.device.words}"
    return f"it tripped{device}{', the machine unplugged' if body.machine == 'out' else ''}"


def _undone(case: Case, body: RecordWithdrawn) -> str:
    event = next((row for row in case.events if row.id == body.record), None)
    return f"undone: {record_words(case, event.body)}" if event is not None else "undone"


_WORDS: dict[type[Any], Callable[[Case, Any], str]] = {
    Isolated: lambda _, body: str(body.how.words),
    PluggedIn: lambda *_: "plugged in, panels shut",
    LiveBegun: lambda _, body: f"live: {body.reason}",
    LiveEnded: lambda *_: "live mode left",
    Opened: lambda case, body: f"{_cover(case, body.panel)}: off",
    Shut: lambda case, body: f"{_cover(case, body.panel)}: back on{_over(case, body.over)}",
    FoundPowered: lambda _, body: f"was under voltage{f': {body.words}' if body.words else ''}",
    HandsOff: lambda *_: "hands off it",
    StepTicked: lambda _, body: f"{_spaced(body.step)}: {'done' if body.is_done else 'not done'}",
    Attended: lambda *_: "still here",
    HazardFound: lambda _, body: f"danger: {body.words or body.hazard.words}",
    PlaceNoted: lambda _, body: f"{body.hazard.words}, where it was: {body.words}",
    NotedInError: _noted_in_error,
    OutletNamed: lambda _, body: f"another outlet: {body.words}",
    Stamped: lambda case, body: f"{_part(case, body.part)}: {_stamp(body)}",
    InterlockTried: lambda _, body: f"interlock tried, {body.open} open: {body.outcome.words}",
    BypassRemoved: lambda _, body: f"bypass taken out: {body.words}",
    EarthLifted: lambda case, body: f"{_part(case, body.part)}: earth {'found off' if body.found else 'off'}",
    EarthRefitted: lambda case, body: f"{_part(case, body.part)}: earth back",
    Checked: _checked,
    CodesRead: _codes,
    EntryTried: lambda _, body: f"service mode {'entered' if body.is_in else 'not entered'}",
    CycleBegun: lambda *_: "test cycle begun",
    CycleTicked: lambda _, body: f"test cycle, {_spaced(body.step)}: {_spaced(body.outcome.value)}",
    CircuitNoted: lambda *_: "circuit of the house noted",
    Tripped: _tripped,
    Reclosed: lambda _, body: f"closed again{', the machine unplugged' if body.machine == 'out' else ''}",
    RunMade: lambda _, body: f"leak test: {body.text}",
    RunDoubted: lambda _, body: "leak test doubted" if body.is_doubtful else "leak test counted again",
    RunWithdrawn: lambda *_: "leak test removed",
    ProofMade: lambda _, body: f"proof, {_spaced(body.criterion)}: {body.text or ('good' if body.is_good else 'bad')}",
    InsulationNotAllowed: lambda _, body: f"insulation may not be tested: {body.words}",
    StripStep: lambda _, body: f"taken off: {body.words}",
    StripBack: lambda case, body: f"back again: {_step(case, body.step)}{_over(case, body.over)}",
    ConnectorNoted: lambda _, body: f"connector: {body.words}",
    ConnectorTicked: lambda *_: "connector held against its photo",
    Changed: lambda case, body: f"{_part(case, body.part)}: {body.intervention.words}",
    Skipped: lambda case, body: f"left out: {asked_words(body.test, case.sheet)}",
    RunWatched: lambda case, body: f"run: {run_words(case.sheet).get(body.outcome, body.outcome)}",
    CostsNoted: lambda *_: "costs noted",
    PhotosChosen: lambda _, body: f"photos for the sheet: {len(body.photos) or 'none'}",
    RecordWithdrawn: _undone,
    Ended: lambda _, body: f"ended: {body.why}",
    Reopened: lambda *_: "reopened",
}
