"""An isolation in words: what it wants next, what each leak test proved, whose leak it is and by which reading."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from ohmcensus.core.job.case import Case
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.trip.advice import Advice, AdviceKind
from ohmcensus.core.trip.isolate import Isolation, State
from ohmcensus.core.trip.of_case import MEGOHM, MILLIAMPERES, RunRecord, leaky_parts, limit_of
from ohmcensus.core.trip.planner import Pull
from ohmcensus.core.trip.problem import Method, Problem
from ohmcensus.core.trip.story import RunStep


def next_words(sheet: Sheet, pull: Pull, problem: Problem) -> str:
    """Say the next run the way one says it at the machine."""
    titles = {part.id: part.title for part in sheet.parts}
    minutes = f"{pull.minutes:g} min" if pull.minutes < 1 else f"{round(pull.minutes * 2) / 2:g} min"
    if not problem.runs or problem.is_whole_untested:
        return f"The whole machine first, everything connected; {minutes}."
    if problem.is_changed:
        return f"The whole machine again: a second leak may stand behind the first. Put everything back; {minutes}."
    if pull.is_at_part:
        return f"Test {titles[pull.connected[0]]} alone, at its own tags, its earth on; {minutes}."
    off = _listed([_plug_of(sheet, part) for part in pull.pull])
    back = _listed([titles[part] for part in pull.refit])
    said = [f"pull {off}, earths stay on" if off else "", f"put back {back}" if back else ""]
    words = f"{'; '.join(filter(None, said))}; keep everything else as it is; {minutes}."
    return words[0].upper() + words[1:]


def advice_words(sheet: Sheet, told: Advice, found: Isolation, problem: Problem) -> str:
    """Say what there is to do; empty where nothing is."""
    titles = {part.id: part.title for part in sheet.parts}
    names = _listed([titles[part] for part in told.parts if part in titles])
    if told.kind is AdviceKind.TEST and found.next is not None:
        return next_words(sheet, found.next, problem)
    is_all = all(row.state is not State.OPEN for part, row in found.parts.items() if part not in problem.former)
    rest = "" if is_all else ": the rest cannot be asked before that"
    return {
        AdviceKind.AS_IT_STANDS: f"Test all the rest together, {names} still off: nothing more to pull.",
        AdviceKind.REPLACE: f"{names}: mend or replace it in Repair{rest}. Then the whole machine again.",
        AdviceKind.CONFIRM: f"{names}: only lines say that it leaks. Test it alone, or read it once more in Trace.",
        AdviceKind.TURN_PLUG: "Turn the plug and read the same parts again: one way round clears nothing.",
        AdviceKind.INSULATION: "This plug goes in one way only, and a current read one way clears no part: use the "
        "insulation tester.",
        AdviceKind.DRY: f"{names}: keeps the limit and is not healthy. Dry it or warm it, then read it again.",
        AdviceKind.SOUND: "No part leaks over its limit. What trips only hot, wet or at random is asked so.",
    }.get(told.kind, "")


def _plug_of(sheet: Sheet, part: str) -> str:
    """Return what one pulls to take a part out: the title of the plug that names it, else the part's own."""
    house = {row.id for row in sheet.with_role(Role.OUTLET)}
    before_plugs = {row.id for row in sheet.with_role(Role.CORD, Role.FILTER)}
    named = [plug.title for plug in sheet.plugs.values() if part in plug.parts and plug.parts[0] not in house]
    own = next((row.title for row in sheet.parts if row.id == part), part)
    return named[-1].lower() if named and part not in before_plugs else own.lower()


def _listed(names: list[str]) -> str:
    unique = list(dict.fromkeys(names))
    return unique[0] if len(unique) == 1 else f"{', '.join(unique[:-1])} and {unique[-1]}" if unique else ""


def conflict_words(found: Isolation) -> str:
    """Say that runs contradict each other, empty where none do."""
    if not found.conflict:
        return ""
    return f"{len(found.conflict)} runs contradict each other: nothing is proved. Repeat the marked run."


def bounds_words(bounds: Interval, method: Method) -> str:
    """Say what is proved in the unit of the instrument: a leak of at least, at most."""
    if method is Method.LEAKAGE:
        lo, hi = (show_value(end / MILLIAMPERES, Unit.AMPERE, figures=2) for end in (bounds.lo, bounds.finite_hi or 0))
        least, most = bounds.lo > 0, bounds.finite_hi is not None
    else:
        least, most = bounds.finite_hi is not None and bounds.hi > 0, bounds.lo > 0
        lo = show_value(MEGOHM / bounds.hi, Unit.OHM, figures=2) if least else ""
        hi = show_value(MEGOHM / bounds.lo, Unit.OHM, figures=2) if most else ""
    if least and most:
        return f"{lo} to {hi}"
    return f"at least {lo}" if least else f"at most {hi}" if most else "nothing proved"


def limit_words(limit: float, method: Method) -> str:
    """Say what a part may leak at most, or must insulate at least."""
    if method is Method.LEAKAGE:
        return f"at most {show_value(limit / MILLIAMPERES, Unit.AMPERE, figures=2)}"
    return f"at least {show_value(MEGOHM / limit, Unit.OHM, figures=2)}"


def story_words(step: RunStep, titles: dict[str, str]) -> str:
    """Say what one leak test proved."""
    if step.record.is_doubtful:
        return "Doubted: not counted."
    if step.is_conflict:
        return "Contradicts the runs before it: nothing is proved."
    named = ((step.guilty, "guilty"), (step.cleared, "cleared"), (step.reopened, "open again"))
    said = [f"{', '.join(titles[part] for part in parts)}: {word}" for parts, word in named if parts]
    return f"{'; '.join(said)}." if said else "Narrows the bounds, settles no part yet."


def connected_words(sheet: Sheet, names: Collection[str], method: Method) -> str:
    """Say what was connected: "the whole machine", "Heater alone", "all but Heater and Motor"."""
    every = {part.id: part.title for part in leaky_parts(sheet, method)}
    off = [title for name, title in every.items() if name not in names]
    on = [title for name, title in every.items() if name in names]
    if not off:
        return "the whole machine"
    if len(on) == 1:
        return f"{on[0]} alone"
    return f"all but {_listed(off)}" if len(off) < len(on) else _listed(on)


def guilty_words(case: Case, found: Isolation, records: Sequence[RunRecord], method: Method) -> str:
    """Say whose leak is proved and by which reading, its limit, and what the rest of the machine reads."""
    guilty = {part.id for part in leaky_parts(case.sheet, method) if found.parts[part.id].state is State.GUILTY}
    counted = [row for row in records if not row.is_doubtful and not row.body.maybe]
    said = []
    for part in sorted(guilty):
        alone = [row.shows for row in counted if {*row.body.connected} == {part}]
        bounds = bounds_words(found.parts[part].bounds, method)
        reads = f"alone reads {alone[-1]} to earth" if alone else f"leaks to earth by itself: {bounds}"
        limit = limit_words(limit_of(case, part, method), method)
        said.append(f"{case.sheet.known_part(part).title} {reads}; its limit is {limit}")
    rest = [row for row in counted if not guilty & {*row.body.connected}]
    most = max(rest, key=lambda row: (len(row.body.connected), row.event.order), default=None)
    if most is not None:
        is_all = {part.id for part in leaky_parts(case.sheet, method)} - guilty <= {*most.body.connected}
        what = "the rest of the machine" if is_all else connected_words(case.sheet, most.body.connected, method)
        said.append(f"{what} reads {most.shows}")
    return "; ".join(said)


def cleared_words(sheet: Sheet, cleared: Collection[str]) -> str:
    """Say whom leak tests have cleared; from six on how many."""
    titles = [part.title for part in sheet.parts if part.id in cleared]
    most = 5
    return f"Leak tests clear {_listed(titles) if len(titles) <= most else f'{len(titles)} parts'}"
