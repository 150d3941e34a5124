"""How a part comes out, as a plan: its cover, its plugs, itself; what earlier jobs on the type told of fasteners."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ohmcensus.core.event import Event, StripStep
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_down import Stripped, open_panels, strip_down
from ohmcensus.core.sheet import Part

MAINS_PLUG = "mains_plug"


@dataclass(frozen=True, slots=True)
class PlannedStep:
    """One thing that comes off on the way to a part.

    Parameters
    ----------
    proposal
        The record that ticking it writes: fasteners, head, size and place as an earlier job on this type had them.
    minutes
        What it takes, 0 where nobody knows.
    told
        Whether an earlier job told of it.
    done
        What was written of it on this job, None while it was not.
    is_off
        Whether it is off now, by whatever record.
    before
        Records of the same step on earlier jobs, the newest first.
    """

    proposal: StripStep
    minutes: float
    told: bool
    done: Stripped | None
    is_off: bool
    before: tuple[str, ...] = ()


def strip_plan(case: Case, part: Part, earlier: Sequence[Event[StripStep]] = ()) -> tuple[PlannedStep, ...]:
    """Return what comes off, in order, until a part is out: the cover it lies behind, its plugs, the part.

    Parameters
    ----------
    case
        Sheet and everything observed.
    part
        The part that is to come out.
    earlier
        Steps of earlier jobs on the same type, the newest first.
    """
    rows = strip_down(case)
    wanted = list(_wanted(case, part))
    found = []
    for step in wanted:
        done = next((row for row in reversed(rows) if _is_same(row.step, step)), None)
        same = [row for row in earlier if _is_same(row.body, step)]
        before = next((row.body for row in same if not _is_more(row.body, step)), None)
        is_off = (done is not None and not done.is_back) or step.panel in open_panels(case)
        held = {} if before is None else {name: getattr(before, name) for name in ("fasteners", "head", "size", "kept")}
        minutes = case.cover_minutes.get(step.panel, 0.0) if step.panel else (before and before.minutes) or 0.0
        records = tuple(row.id for row in same)
        found.append(PlannedStep(step.model_copy(update=held), minutes, before is not None, done, is_off, records))
    return tuple(found)


def _wanted(case: Case, part: Part) -> Sequence[StripStep]:
    """Return the steps as the sheet has them."""
    steps = []
    panel = case.sheet.panels.get(part.behind or "")
    if panel is not None and part.behind:
        steps.append(StripStep(words=panel.off_words, panel=part.behind))
    for name, plug in case.sheet.plugs.items():
        if name != MAINS_PLUG and part.id in plug.parts:
            steps.append(StripStep(words=f"{plug.title} off", plugs=(name,)))
    steps.append(StripStep(words=f"{part.title} out", part=part.id))
    return steps


def _is_more(row: StripStep, planned: StripStep) -> bool:
    """Tell whether a record is of more than a plug: what held it held that."""
    return bool(planned.plugs) and row.words.casefold() != planned.words.casefold()


def _is_same(row: StripStep, planned: StripStep) -> bool:
    """Tell whether a record is of a planned step; one that was typed by hand may be several at once."""
    if planned.panel:
        return row.panel == planned.panel
    if planned.part:
        return row.part == planned.part or row.words.casefold() == planned.words.casefold()
    return set(planned.plugs) <= set(row.plugs)
