"""What is still missing before a danger is lifted: kind by kind, in the order in which it is done."""

from __future__ import annotations

from collections.abc import Iterator

from ohmcensus.core.acts import ActId, go
from ohmcensus.core.event import Hazard
from ohmcensus.core.judgement.passes import EARTH_LINE, WHOLE_LINE, insulation_lines_of, named_test
from ohmcensus.core.judgement.whole import LoadHeldOpen, held_open, least_across_ohm
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.asked import THROUGH, looks
from ohmcensus.core.machine.dead_tests import charges_by_point
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Interlock, Role
from ohmcensus.core.quantity import Unit, show_value
from ohmcensus.core.safety.danger import CORD_CHECK, OUTLET_LINE, Found, title_of
from ohmcensus.core.safety.evidence import Evidence, is_leak_test
from ohmcensus.core.safety.measured import AMPS, is_contact_line
from ohmcensus.core.safety.needs import (
    Need,
    arrester_needs,
    cord_needs,
    earth_needs,
    insulation_needs,
    is_class_ii,
    is_good,
    is_known,
    is_whole_line_of_arrester,
    need_of,
    outlet_needs,
    part_title,
)
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.words import DangerId
from ohmcensus.core.symptom import Device

ACROSS_LINE = "cord.across"
_LEAKS_ONLY = frozenset({Device.RCD, Device.GFCI})
AFCI_LOOKS = ("look_cord", "look_commutator", "look_chafe")
WARM_C = 40.0


def needs(found: Found, walk: Walk) -> tuple[Need, ...]:
    """Return what is still missing before a danger is lifted, in the order in which it is done."""
    return tuple(_NEEDS[found.id](found, walk))


def is_of_current(line: str) -> bool:
    """Tell whether a line is a current to earth, of a test, a leak test or the proof."""
    return line.endswith((" mA", "leakage", "leakage_turned")) or line.startswith("proof.")


def _of_shock(found: Found, walk: Walk) -> Iterator[Need]:
    yield from earth_needs(found.since, walk, found.then)
    yield from insulation_needs(found.since, walk, found.then)
    if not is_class_ii(walk, found.then):
        yield from outlet_needs(found.since, walk)


def _of_trip(found: Found, walk: Walk) -> Iterator[Need]:
    if found.is_again and not _is_as_it_went(found, walk):
        words = "change what is at fault, or measure the lines hot or wet, as it went: the same trip came back"
        yield Need(words, go(ActId.MEASURE, "Measure it as it went", "trace"))
    is_leak = found.device in _LEAKS_ONLY
    yield from earth_needs(found.since, walk, found.then)
    yield from insulation_needs(found.since, walk, found.then, without=is_leak)
    if is_leak:
        return
    yield from _short_needs(found, walk)
    if found.device is Device.AFCI:
        yield from _look_needs(found, walk)


def _is_as_it_went(found: Found, walk: Walk) -> bool:
    """Tell whether something was changed since, or the insulation was read warm."""
    is_hot = any(row.order > found.since and _is_warm(row) for row in walk.goods(WHOLE_LINE))
    return walk.marks.last_mended > found.since or is_hot


def _is_warm(row: Evidence) -> bool:
    if row.reading is None:
        return False
    return row.reading.celsius >= WARM_C or any(word in row.reading.condition for word in ("hot", "wet"))


def _short_needs(found: Found, walk: Walk) -> Iterator[Need]:
    """Yield line to neutral at the plug, and each load that a relay holds open, where they were not read."""
    least = least_across_ohm(walk.terms.sheet, found.moment)
    rows = walk.rows.get(ACROSS_LINE, ())
    if not any(row.order > found.since and _is_over(row, least) for row in rows[-1:]):
        over = show_value(least, Unit.OHM, figures=2)
        words = f"measure line to neutral at the plug, door shut, switched on: over {over}"
        yield Need(words, go(ActId.MEASURE, "Measure: line to neutral", "trace", ACROSS_LINE), "cord across ")
    for load in held_open(walk.terms.sheet, found.moment):
        if not _is_load_read(load, found.since, walk):
            over = show_value(load.least_ohm, Unit.OHM, figures=2)
            words = f"measure {load.title}, which a relay holds open, from its output: over {over}"
            act = go(ActId.MEASURE, f"Measure: {load.title}", "trace", load.lines[0][0])
            yield Need(words, act, load.typed)


def _is_over(row: Evidence, least: float) -> bool:
    is_ohms = row.reading is not None and row.reading.function in {Function.OHM, Function.CONTINUITY}
    is_fresh = row.reading is not None and row.reading.supersedes is None and not row.reading.refused
    is_machine = row.reading is not None and not row.reading.override and is_fresh and not row.without
    return is_ohms and is_machine and row.interval.lo >= least


def _is_load_read(load: LoadHeldOpen, since: int, walk: Walk) -> bool:
    for lines in load.lines:
        rows = [walk.latest(line) for line in lines]
        if all(row is not None and row.order > since and _is_over(row, load.least_of(row.line)) for row in rows):
            return True
    return False


def _look_needs(found: Found, walk: Walk) -> Iterator[Need]:
    """Yield what is looked at after an arc: cord, brushes, tags."""
    for name, (_, check) in looks(walk.terms.sheet).items():
        is_wanted = name.partition(".")[2] in AFCI_LOOKS
        seen = max(walk.when(f"seen {name}"), walk.when("seen cord") if name.endswith("look_cord") else -1)
        if is_wanted and seen <= found.since:
            act = go(ActId.MEASURE, f"Look: {check.title}", "safe", "dangers")
            yield Need(f"look at it: {check.title.lower()}", act, look=name)


_NOTE = go(ActId.NOTE_PLACE, "Note the place", "safe", "dangers")


def _of_smell(found: Found, walk: Walk) -> Iterator[Need]:
    if walk.when(f"place {Hazard.BURNT_SMELL}") <= found.since:
        yield Need("find the place that smells, and note it", _NOTE)
    yield from earth_needs(found.since, walk, found.then)
    yield from insulation_needs(found.since, walk, found.then)


def _of_water(found: Found, walk: Walk) -> Iterator[Need]:
    if walk.when(f"place {Hazard.WATER_INSIDE}") <= found.since:
        yield Need("dry it, and note where the water came from", _NOTE)
    yield from insulation_needs(found.since, walk, found.then)


def held_line(found: Found, walk: Walk) -> str:
    """Return the line that a measured danger hangs on: the whole line of its kind, where the sheet has not its own."""
    whole = {DangerId.EARTH: EARTH_LINE, DangerId.INSULATION: WHOLE_LINE}.get(found.id, found.line)
    return found.line if is_known(found.line, walk.terms) else whole


def answering_lines(found: Found, walk: Walk) -> tuple[str, ...]:
    """Return the lines each of which answers a danger that was measured: of a part of a machine the whole one too."""
    line = held_line(found, walk)
    return (line, WHOLE_LINE) if is_leak_test(line) and not is_of_current(line) else (line,)


def _of_earth(found: Found, walk: Walk) -> Iterator[Need]:
    if found.line == OUTLET_LINE:
        yield from outlet_needs(found.since, walk)
        return
    part, since = found.part, found.since
    if not found.is_measured and part is not None:
        off, back = walk.earths.get(part, (found.since, None))
        if back is None:
            words = f"put the earth back on the {part_title(part, walk.terms)}"
            yield Need(words, go(ActId.REFIT, "Put the earth back", "safe", "dangers"))
        since = off if back is None else back
    line = held_line(found, walk)
    if not is_good(line, since, walk, found.then):
        yield need_of(line, walk.terms)


def _of_insulation(found: Found, walk: Walk) -> Iterator[Need]:
    line = held_line(found, walk)
    if any(is_good(each, found.since, walk, found.then) for each in answering_lines(found, walk)):
        return
    if is_whole_line_of_arrester(line, walk):
        yield from arrester_needs(found.since, walk, found.then)
        return
    part = found.part
    if part is not None and walk.marks.mended.get(part, 0) > found.since:
        own, changed = insulation_lines_of(part, walk.terms), walk.marks.mended[part]
        if any(is_good(each, changed, walk, found.then) for each in own):
            return
        if own:
            yield need_of(own[0], walk.terms)
            return
    yield _again(line, walk)


def arrester_missing(found: Found, walk: Walk) -> tuple[Need, ...]:
    """Return what is still missing before a leak of the whole is done with, where a surge arrester goes to earth."""
    line = held_line(found, walk)
    if found.id is not DangerId.INSULATION or not is_whole_line_of_arrester(line, walk):
        return ()
    return tuple(arrester_needs(found.since, walk, found.then))


def _again(line: str, walk: Walk) -> Need:
    """Return the same line once more: in Prove, in Trip, or on the sheet."""
    title = title_of(line, walk.terms)
    if line.startswith("proof."):
        return Need(f"measure the {title} again", go(ActId.MEASURE, f"Measure: {title}", "prove", line[6:]))
    if is_leak_test(line):
        act = go(ActId.MEASURE, "Make the leak test", "trip", "leak-test")
        return Need(f"make the same {title} again, until it is inside its limit", act)
    return need_of(line, walk.terms)


def _is_slip_put_right(found: Found, walk: Walk) -> bool:
    """Tell whether a reading that was corrected within two minutes was followed by a good one of the same line."""
    if not found.is_corrected or found.is_former:
        return False
    read = found.reads or found.line
    return walk.when(f"fine {read}") > found.since or is_good(read, found.since, walk, found.then)


def _of_cord(found: Found, walk: Walk) -> Iterator[Need]:
    if _is_slip_put_right(found, walk):
        return
    changed = max((at for part, at in walk.marks.mended.items() if _is_cord(part, walk)), default=0)
    since = max(found.since, changed)
    is_seen_good = found.is_former and walk.when(f"good {CORD_CHECK}") > found.since
    if changed <= found.since and not is_seen_good:
        words = "look at the cord, or replace it" if found.is_former else "mend or replace the cord, and note it"
        look = CORD_CHECK if found.is_former else ""
        yield Need(words, go(ActId.REFIT, "Note the change", "repair", "change"), look=look)
    yield from cord_needs(since, walk, found.then)
    if not is_good(WHOLE_LINE, since, walk, found.then):
        yield need_of(WHOLE_LINE, walk.terms)
    if found.line.endswith("_joint") and not is_good(found.line, since, walk, found.then):
        yield need_of(found.line, walk.terms)


def _is_cord(part: str, walk: Walk) -> bool:
    known = walk.terms.sheet.part(part)
    return known is not None and known.traits.role is Role.CORD


def _of_bypass(found: Found, walk: Walk) -> Iterator[Need]:
    if _is_slip_put_right(found, walk):
        return
    yield from _removal_needs(found, walk)
    since = _out_since(found, walk)
    for line in _open_lines(found, walk):
        if not is_good(line, since, walk, found.then):
            yield need_of(line, walk.terms)
    if _is_held_shown(found, walk):
        return
    tried = walk.when("interlock holds")
    if tried <= since:
        yield Need("try the interlock: it must not start open", go(ActId.TRY_INTERLOCK, "Try it", "safe", "interlock"))
    elif not _ran_after(tried, walk):
        yield Need("watch one run through, door shut", go(ActId.MEASURE, "Watch a run", "prove", "function"))


def _removal_needs(found: Found, walk: Walk) -> Iterator[Need]:
    """Yield that a bypass which was told, found or seen comes out, or its part is changed."""
    if found.is_measured or found.is_former:
        return
    if _out_since(found, walk) <= found.since:
        words = "take the bypass out or change the part, and note it"
        yield Need(words, go(ActId.REFIT, "Bypass taken out", "safe", "dangers"))


def _out_since(found: Found, walk: Walk) -> int:
    """Return from when on readings count: from its removal or the change of its part, where one was to be taken out."""
    if found.is_measured or found.is_former:
        return found.since
    parts = {name for name, _ in _interlocks(found, walk)}
    changed = max((at for part, at in walk.marks.mended.items() if part in parts), default=0)
    return max(found.since, walk.when("bypass out"), changed)


def _open_lines(found: Found, walk: Walk) -> tuple[str, ...]:
    return tuple(f"{name}.{lock.at_rest}" for name, lock in _interlocks(found, walk))


def _is_held_shown(found: Found, walk: Walk) -> bool:
    """Tell whether *shut reads shut* stands for the trial: where the contact can be held so without voltage."""
    rows = _interlocks(found, walk)
    since = _out_since(found, walk)
    return bool(rows) and all(
        lock.by_hand and is_good(f"{name}.{lock.held}", since, walk, found.then) for name, lock in rows
    )


def _interlocks(found: Found, walk: Walk) -> list[tuple[str, Interlock]]:
    rows = [(row.id, row.part_kind.interlock) for row in walk.terms.sheet.parts]
    known = [(name, lock) for name, lock in rows if lock is not None]
    return [row for row in known if row[0] == found.part] or known


def _ran_after(order: int, walk: Walk) -> bool:
    return walk.watched is not None and walk.watched.order > order and walk.watched.body.outcome == THROUGH


def is_tried_only(found: Found, walk: Walk) -> bool:
    """Tell whether an interlock was tried and held, and only the run through is missing: it may run, and not go out."""
    if found.id is not DangerId.BYPASS or walk.when("interlock holds") <= _out_since(found, walk):
        return False
    missing = needs(found, walk)
    return bool(missing) and all(row.act.at == "function" for row in missing)


def _of_contact(found: Found, walk: Walk) -> Iterator[Need]:
    if found.is_former and walk.marks.mended.get(found.part or found.line.partition(".")[0], 0) > found.since:
        return
    if not is_known(found.line, walk.terms):
        lines = _contact_lines(walk)
        for line in lines:
            if not is_good(line, found.since, walk, found.then):
                yield need_of(line, walk.terms)
        return
    if not is_good(found.line, found.since, walk, found.then) and not _is_amps_under(found, walk):
        yield need_of(found.line, walk.terms)


def _is_amps_under(found: Found, walk: Walk) -> bool:
    """Tell whether the current of the step reads good again."""
    is_amps = found.line.partition(".")[2].startswith(AMPS)
    return is_amps and any(row.order > found.since for row in walk.goods(found.line))


def _contact_lines(walk: Walk) -> tuple[str, ...]:
    """Return every contact of the sheet that has to be open at rest; where it has none, what its steps draw."""
    tests = machine_tests(walk.terms.sheet, 20.0)
    rest = tuple(test.id for test in tests if is_contact_line(test.id))
    return rest or tuple(test.id for test in tests if test.name.startswith(AMPS))


def _of_dry(found: Found, walk: Walk) -> Iterator[Need]:
    lines = [
        f"{part.id}.{spec.name}"
        for part in walk.terms.sheet.with_role(Role.LEVEL)
        for spec in part.tests()
        if spec.function is not Function.INSULATION and spec.name != "earth"
    ]
    for line in lines:
        if not is_good(line, found.since, walk, found.then):
            yield need_of(line, walk.terms)


def _of_charge(found: Found, walk: Walk) -> Iterator[Need]:
    if _is_slip_put_right(found, walk):
        return
    discharge = go(ActId.DISCHARGE, "Discharge it", "safe", "series")
    if found.is_former:
        for point in charges_by_point(walk.terms.sheet):
            if walk.when(f"fine {point}") <= found.since:
                yield Need(f"read {title_of(point, walk.terms)} again: at most 10 V DC", discharge, f"{point} ")
        return
    if named_test(found.line, walk.terms) is None:
        if walk.when("dead") <= found.since:
            yield Need("prove it dead by the whole series", go(ActId.PROVE_DEAD, "Prove it dead", "safe", "series"))
        return
    part = found.part or found.line.partition(".")[0]
    changed = walk.marks.mended.get(part, 0)
    if changed <= found.since:
        words = f"mend or replace the {part_title(part, walk.terms)}, and note it"
        yield Need(words, go(ActId.REFIT, "Note the change", "repair", "change"))
    if not is_good(found.line, max(found.since, changed), walk, found.then):
        yield need_of(found.line, walk.terms)


PULL = go(ActId.PULL_PLUG, "Pull the plug", "safe", "isolate")


def _of_live(found: Found, walk: Walk) -> Iterator[Need]:
    if walk.cut is None or walk.cut_order <= found.since:
        yield Need("pull the plug, or lock it off, and say so", PULL)
    elif max(walk.when("dead"), walk.when("hand")) <= found.since:
        yield Need("prove it dead", go(ActId.PROVE_DEAD, "Prove it dead", "safe", "series"), "source ")


_NEEDS = {
    DangerId.SHOCK: _of_shock,
    DangerId.TRIP: _of_trip,
    DangerId.BURNT_SMELL: _of_smell,
    DangerId.WATER_INSIDE: _of_water,
    DangerId.EARTH: _of_earth,
    DangerId.INSULATION: _of_insulation,
    DangerId.CORD: _of_cord,
    DangerId.BYPASS: _of_bypass,
    DangerId.CONTACT: _of_contact,
    DangerId.DRY: _of_dry,
    DangerId.CHARGE: _of_charge,
    DangerId.LIVE_THOUGH_FORBIDDEN: _of_live,
}
