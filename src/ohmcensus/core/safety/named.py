"""Events that name what the machine does not have are refused."""

from __future__ import annotations

from collections.abc import Collection

from ohmcensus.core.errors import UnknownNameError
from ohmcensus.core.event import (
    Body,
    Changed,
    Checked,
    CodesRead,
    ConnectorNoted,
    ConnectorTicked,
    CycleBegun,
    CycleTicked,
    EarthLifted,
    EarthRefitted,
    EntryTried,
    Opened,
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
)
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.connector import refuse_ticks
from ohmcensus.core.job.first_look import EYE_CHECKS
from ohmcensus.core.job.strip_down import refuse_strip
from ohmcensus.core.machine.asked import RUN, looks, run_outcomes
from ohmcensus.core.safety.steps import step_ids
from ohmcensus.core.text.names import nearest


def with_known_names(case: Case, body: Body) -> Body:
    """Return the event with its codes as the scheme writes them; refuse names that the machine does not have."""
    service = case.sheet.service
    match body:
        case Opened() | Shut():
            _refuse_unknown_cover(case, body)
        case StepTicked():
            _refuse_unknown(body.step, step_ids(case), "step")
        case Checked():
            _refuse_unknown(body.check, [*(check.id for check in EYE_CHECKS), *looks(case.sheet)], "check")
        case EntryTried():
            _refuse_unknown(body.sequence, [row.id for row in service.sequences], "sequence")
        case CycleBegun():
            _refuse_unknown(body.cycle, [row.id for row in service.cycles], "cycle")
        case CycleTicked():
            _refuse_unknown(body.cycle, [row.id for row in service.cycles], "cycle")
            cycle = service.cycle(body.cycle)
            _refuse_unknown(body.step, [step.id for step in cycle.steps] if cycle else (), "step")
        case CodesRead():
            _refuse_unknown(body.scheme, [row.id for row in service.schemes], "scheme")
            scheme = service.scheme(body.scheme)
            codes = tuple(scheme.decode(scheme.encode(code)) for code in body.codes) if scheme else ()
            return body.model_copy(update={"codes": codes})
        case RunDoubted() | RunWithdrawn():
            runs = [event.id for event in case.of(RunMade)]
            _refuse_unknown(body.run, runs, "run")
        case Changed() | EarthLifted() | EarthRefitted() | Stamped():
            _refuse_unknown(body.part, [part.id for part in case.sheet.parts], "part")
        case _:
            _refuse_unknown_answer(case, body)
    return body


def _refuse_unknown_cover(case: Case, body: Opened | Shut) -> None:
    """Refuse a cover that the machine does not have, and a part that stays off beneath it and is none of it."""
    _refuse_unknown(body.panel, case.sheet.panels, "panel")
    if isinstance(body, Shut) and body.over is not None:
        _refuse_unknown(body.over.part, [part.id for part in case.sheet.parts], "part")


def _refuse_unknown_strip(case: Case, body: StripStep | StripBack) -> None:
    """Refuse a cover or a plug that the machine does not have, and what never came off."""
    if isinstance(body, StripStep) and body.panel:
        _refuse_unknown(body.panel, case.sheet.panels, "panel")
    if isinstance(body, StripStep) and body.part:
        _refuse_unknown(body.part, [part.id for part in case.sheet.parts], "part")
    if isinstance(body, StripBack) and body.over is not None:
        _refuse_unknown(body.over.part, [part.id for part in case.sheet.parts], "part")
    for plug in body.plugs:
        _refuse_unknown(plug, case.sheet.plugs, "plug")
    refuse_strip(case, body)


def _refuse_unknown_answer(case: Case, body: Body) -> None:
    """Refuse a question, an outcome, or what came off, that the machine does not have."""
    if isinstance(body, Skipped):
        tests = [f"{part.id}.{spec.name}" for part in case.sheet.parts for spec in part.tests()]
        plates = [f"{part.id}.{rating}" for part in case.sheet.parts for rating in part.ratings.model_dump()]
        _refuse_unknown(body.test, [*tests, *plates, *looks(case.sheet), RUN], "test")
    if isinstance(body, StripStep | StripBack):
        _refuse_unknown_strip(case, body)
    if isinstance(body, ConnectorNoted) and body.plug:
        _refuse_unknown(body.plug, case.sheet.plugs, "plug")
    if isinstance(body, ConnectorTicked):
        refuse_ticks(case, body)
    if isinstance(body, RunWatched):
        _refuse_unknown(body.outcome, run_outcomes(case.sheet), "outcome of a run")


def _refuse_unknown(name: str, known: Collection[str], what: str) -> None:
    if name in known:
        return
    close = nearest(name, known)
    remedy = f"did you mean '{close}'?" if close else f"known are {', '.join(sorted(known)) or 'none'}"
    raise UnknownNameError(what=f"no {what} '{name[:40]}' on this machine", remedy=remedy, field=what)
