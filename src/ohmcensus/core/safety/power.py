"""What is refused of everything that puts a machine under power: by dangers, by what is off, by whose hands are in."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.acts import Act, ActId, again, go
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Body,
    CodesRead,
    CycleBegun,
    CycleTicked,
    EntryTried,
    InterlockTried,
    LiveBegun,
    PluggedIn,
    ProofMade,
    Reclosed,
    RunWatched,
    Says,
    StripBack,
    Way,
    When,
)
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine.plugs import joins_outlet
from ohmcensus.core.safety.admission import BEFORE, FOUND_LIVE, NOW, shut_acts
from ohmcensus.core.safety.after_power import is_in
from ohmcensus.core.safety.guarded import refuse_guarded
from ohmcensus.core.safety.hands import others_in
from ohmcensus.core.safety.lifted_by import PULL
from ohmcensus.core.safety.needs import (
    Need,
    changed_needs,
    earth_needs,
    off_under_insulation,
    outlet_pending,
    part_title,
)
from ohmcensus.core.safety.state import Danger, Safety
from ohmcensus.core.safety.whole import mains_plugs
from ohmcensus.core.safety.words import DangerId, Forbidden, SafetyState

POWERED = frozenset({SafetyState.LIVE, SafetyState.UNDER_VOLTAGE})
# What is said before live work while a danger asks for it.
SAID_FOR = {DangerId.BYPASS: Says.LID_SHUT, DangerId.DRY: Says.HEATER_WIRES_OFF}
HANDS_OFF_THERE = go(ActId.HANDS_OFF_THERE, "Ask for hands off there", "safe", "hands")


@dataclass(frozen=True, slots=True)
class Bar:
    """What forbids power: what was found, what to do next, and the way there."""

    found: str
    do: str
    act: Act


def is_power(body: Body, safety: Safety) -> bool:
    """Tell whether a record says that the machine stands under voltage from now on."""
    if isinstance(body, PluggedIn | LiveBegun | EntryTried | CycleBegun):
        return True
    if isinstance(body, RunWatched | InterlockTried):
        return body.was is not When.BEFORE
    if isinstance(body, CodesRead | CycleTicked | ProofMade):
        is_current = not isinstance(body, ProofMade) or body.way not in {None, Way.ALTERNATIVE}
        return is_current and body.was is When.NOW and safety.isolated
    if isinstance(body, Reclosed):
        return is_in(body, safety.walk)
    return isinstance(body, StripBack) and any(joins_outlet(plug, safety.walk.terms.sheet) for plug in body.plugs)


def refuse_power_event(case: Case, body: Body, safety: Safety, device: str) -> None:
    """Refuse power where it may not be.

    Raises
    ------
    SafetyRefusalError
        While a danger or something that is off forbids it, another's hands are in, or nothing is said of when it was.
    InputError
        For what cannot be: a machine plugged in that is.
    """
    if isinstance(body, RunWatched | InterlockTried) and body.was is None and safety.isolated:
        raise was_it_now()
    if isinstance(body, PluggedIn) and safety.state is SafetyState.LIVE:
        what = "live mode: the machine is plugged in already"
        raise InputError(what=what, remedy="leave live mode first", field="kind")
    if isinstance(body, Reclosed | InterlockTried) and safety.state is SafetyState.LIVE:
        what = "live mode: that is not done on the open machine"
        remedy = "leave live mode and unplug it first"
        raise SafetyRefusalError(what=what, remedy=remedy, field="kind", acts=(PULL,))
    _refuse_another_device(safety, device)
    if isinstance(body, RunWatched) and body.guarded:
        refuse_guarded(case, safety)
        return
    _refuse_earth_off(safety)
    _refuse_power(body, safety)
    _refuse_while_off(body, safety)
    if isinstance(body, CycleBegun | RunWatched):
        _refuse_cycle(safety)
    if isinstance(body, InterlockTried):
        _refuse_trial(safety)
    if isinstance(body, LiveBegun):
        _refuse_unsaid(body, safety)


def was_it_now() -> SafetyRefusalError:
    """Return the refusal of what does not say whether it was now, or before the machine was cut off."""
    what = "the machine is cut off: was this now, or before it was cut off?"
    remedy = "say which: before the plug was pulled, or now, under power again"
    return SafetyRefusalError(what=what, remedy=remedy, field="was", acts=(BEFORE, NOW))


def power_bars(safety: Safety, *, but: frozenset[DangerId] = frozenset()) -> Iterator[Bar]:
    """Yield what forbids power, the first thing first: dangers, parts that were changed, an outlet read in half."""
    for danger in sorted(safety.dangers, key=lambda row: row.id is not DangerId.LIVE_THOUGH_FORBIDDEN):
        if danger.forbids_power and danger.id not in but:
            yield Bar(danger.words, danger.lifted_by, danger.act)
    for what, need in changed_needs(safety.walk):
        yield Bar(what, need.words, need.act)
    pending = outlet_pending(safety.walk)
    if pending is not None:
        yield Bar("line to earth reads low at the outlet", pending.words, pending.act)


def power_needs(safety: Safety) -> tuple[Need, ...]:
    """Return the readings that are still missing before power, each once: of dangers, then of changed parts."""
    found = [need for row in safety.dangers if row.forbids_power for need in row.needs if need.typed]
    found += [need for _, need in changed_needs(safety.walk) if need.typed]
    pending = outlet_pending(safety.walk)
    return tuple(dict.fromkeys([*found, *([pending] if pending is not None else [])]))


def asked_before_live(safety: Safety) -> tuple[Says, ...]:
    """Return what has to be stated before live work while a danger asks for it."""
    rows = ((safety.danger(danger), says) for danger, says in SAID_FOR.items())
    return tuple(says for row, says in rows if row is not None and Forbidden.CYCLE in row.forbids)


def _refuse_power(body: Body, safety: Safety) -> None:
    but: frozenset[DangerId] = frozenset()
    if isinstance(body, Reclosed):
        trips = [row for row in safety.walk.found if row.id is DangerId.TRIP]
        if trips and not any(True for row in trips for _ in earth_needs(row.since, safety.walk, row.then)):
            but = frozenset({DangerId.TRIP})
    bars = list(dict.fromkeys(power_bars(safety, but=but)))
    if not bars:
        return
    first = bars[0]
    is_live = safety.danger(DangerId.LIVE_THOUGH_FORBIDDEN) is not None
    found = tuple(dict.fromkeys(bar.found for bar in bars))
    # What one bar says already, the danger that it comes from does not say again.
    once = [words for words in found if not any(words in other for other in found if other != words)]
    what = f"{'pull the plug: ' if is_live else ''}no power: {'; '.join(once)}"
    acts = tuple(dict.fromkeys((PULL, first.act) if is_live else (first.act, *(bar.act for bar in bars[1:3]))))
    if safety.state not in POWERED and not isinstance(body, LiveBegun | Reclosed):
        # What tells of power may be so, whether it may or not: then that is written down.
        acts = (*acts, FOUND_LIVE)
    raise SafetyRefusalError(what=what, remedy=f"next, {first.do}", field="hazard", acts=acts)


def _refuse_earth_off(safety: Safety) -> None:
    """Refuse power, live work too, while an earth is off."""
    walk = safety.walk
    earths = [f"the earth of the {part_title(part, walk.terms)}" for part in walk.earths_off]
    earths += [f"an earth ({step.words})" for step in walk.steps.values() if step.holds_earth and not step.panel]
    if earths:
        what = f"no power: off is {earths[0]}"
        room, at = ("safe", "dangers") if walk.earths_off else ("repair", "back")
        back = go(ActId.REFIT, "Put it back", room, at)
        raise SafetyRefusalError(
            what=what, remedy="put it back and read it from the plug", field="hazard", acts=(back,)
        )


def _refuse_while_off(body: Body, safety: Safety) -> None:
    """Refuse power while a cover or a plug of a mains part is off, but live work."""
    walk, sheet = safety.walk, safety.walk.terms.sheet
    if isinstance(body, LiveBegun) or safety.state is SafetyState.LIVE:
        return
    if walk.covers:
        title = ", ".join(
            sheet.panels[name].title.lower() if name in sheet.panels else name for name in sorted(walk.covers)
        )
        what = f"no power: off is {title}"
        acts = (*shut_acts(safety), *_over_acts(safety), go(ActId.REFIT, "Put it together", "repair", "back"))
        raise SafetyRefusalError(
            what=what, remedy="shut it and note that, or enter live mode", field="panel", acts=acts
        )
    spared = off_under_insulation(walk)
    plugs = [name for name in sorted(mains_plugs(walk)) if not spared & {*sheet.plugs[name].parts}]
    if plugs:
        what = f"no power: off is {sheet.plugs[plugs[0]].title.lower()}"
        back = go(ActId.REFIT, "Put it back", "repair", "back")
        raise SafetyRefusalError(what=what, remedy="put it back and note that in Repair", field="plugs", acts=(back,))


def _over_acts(safety: Safety) -> tuple[Act, ...]:
    """Return for each cover and each part off beneath it that leaks the act that shuts the one over the other."""
    return tuple(over_act(part, safety) for part in sorted(off_under_insulation(safety.walk)))


def over_act(part: str, safety: Safety) -> Act:
    """Return the act that shuts a cover over a part that is off: its wires are insulated and tied away."""
    label = f"Wires of the {part_title(part, safety.walk.terms)} are insulated and tied away"
    return again(ActId.OVER_IT, label, {"over": {"part": part, "insulated": True}})


def _refuse_cycle(safety: Safety) -> None:
    for danger in safety.dangers:
        if Forbidden.CYCLE in danger.forbids:
            what = f"no test cycle and no watched run: {danger.words}"
            remedy = f"next, {danger.lifted_by}"
            raise SafetyRefusalError(what=what, remedy=remedy, field="hazard", acts=(danger.act,))


def _refuse_trial(safety: Safety) -> None:
    """Refuse to try an interlock before its contact reads open, and while something else forbids a cycle."""
    for danger in safety.dangers:
        if danger.id is not DangerId.BYPASS and Forbidden.CYCLE in danger.forbids:
            what = f"no trial of the interlock: {danger.words}"
            raise SafetyRefusalError(what=what, remedy=f"next, {danger.lifted_by}", field="hazard", acts=(danger.act,))
    found = safety.danger(DangerId.BYPASS)
    if found is None:
        return
    # A run comes after the trial, and never before it where another cause of the same danger still asks one.
    first = next((need for need in found.needs if need.act.id is not ActId.TRY_INTERLOCK and not is_run(need)), None)
    if first is not None and Forbidden.CYCLE in found.forbids:
        what = f"no trial of the interlock yet: {found.words}"
        raise SafetyRefusalError(what=what, remedy=f"next, {first.words}", field="hazard", acts=(first.act,))


def is_run(need: Need) -> bool:
    """Tell whether what is missing is a run that is watched."""
    return need.act.at == "function"


def _refuse_unsaid(body: LiveBegun, safety: Safety) -> None:
    for danger, says in SAID_FOR.items():
        row: Danger | None = safety.danger(danger)
        if row is not None and Forbidden.CYCLE in row.forbids and says not in body.says:
            what = f"{row.words}: live work only with '{says.words}' stated"
            more = {"says": [each.value for each in dict.fromkeys((*body.says, says))]}
            acts = (again(ActId.SAY_DOOR, says.words.capitalize(), more), row.act)
            raise SafetyRefusalError(what=what, remedy="do it, and say so", field="says", acts=acts)


def _refuse_another_device(safety: Safety, device: str) -> None:
    """Refuse power from another device while somebody may have the hands in the machine."""
    if not others_in(safety.walk, device):
        return
    who = safety.walk.prover_who or "somebody on another device"
    what = f"proved dead by {who}, who may have the hands in it: no power from here"
    remedy = "whoever it is says hands off on that device; it also ends after ten minutes without an entry there"
    raise SafetyRefusalError(what=what, remedy=remedy, field="device", acts=(HANDS_OFF_THERE,))
