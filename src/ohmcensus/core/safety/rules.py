"""What safety refuses, whoever asks: the page, the API or a script."""

from __future__ import annotations

from collections.abc import Callable
from collections.abc import Set as AbstractSet
from dataclasses import dataclass
from typing import Any

from ohmcensus.core.acts import ActId, go, send
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Attended,
    Body,
    BypassRemoved,
    Changed,
    CodesRead,
    CutOff,
    CycleTicked,
    EarthLifted,
    EarthRefitted,
    HandsOff,
    Hazard,
    HazardFound,
    InsulationNotAllowed,
    Isolated,
    LiveBegun,
    LiveEnded,
    NotedInError,
    Over,
    PluggedIn,
    Reclosed,
    RecordWithdrawn,
    Reopened,
    RunMade,
    RunWatched,
    Shut,
    StripBack,
    When,
)
from ohmcensus.core.event.record import is_reason
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_down import beneath
from ohmcensus.core.judgement.passes import WHOLE_LINE, Pass
from ohmcensus.core.machine.asked import THROUGH
from ohmcensus.core.safety.admission import admitted_leak_test
from ohmcensus.core.safety.after_event import CHANGES, was_said
from ohmcensus.core.safety.after_strip import holds_earth
from ohmcensus.core.safety.clock import UNATTENDED
from ohmcensus.core.safety.hands import is_prover
from ohmcensus.core.safety.lifted_by import PULL
from ohmcensus.core.safety.needs import earth_needs, insulation_needs, is_part_off, off_under_insulation, part_title
from ohmcensus.core.safety.override import PROVE
from ohmcensus.core.safety.power import HANDS_OFF_THERE, POWERED, is_power, over_act, refuse_power_event, was_it_now
from ohmcensus.core.safety.state import Safety
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.whole import parts_off
from ohmcensus.core.safety.withdrawal import refuse_withdrawal
from ohmcensus.core.safety.words import DangerId, SafetyState
from ohmcensus.core.sheet import Sheet


@dataclass(frozen=True, slots=True)
class May:
    """Whether power, live work, a watched run and signing off would be accepted now."""

    power: bool
    live: bool
    run: bool
    sign_off: bool


def refuse_event(case: Case, body: Body, safety: Safety, device: str = "") -> None:
    """Refuse what would put people in danger, or states what cannot be.

    Parameters
    ----------
    case
        Sheet and everything observed.
    body
        What is to be written down.
    safety
        Where the job stands now.
    device
        The device that writes it.

    Raises
    ------
    SafetyRefusalError
        For power while a danger or something that is off forbids it, a second re-close after one trip, an earth
        lifted from a machine that is not proved dead, work on parts under voltage; with the ways on.
    InputError
        For what cannot be: a re-close where nothing tripped, a bypass removed where none was found, an earth of a
        part that has none, a cover shut that was not off.
    """
    if is_power(body, safety):
        refuse_power_event(case, body, safety, device)
    _refuse_impossible(case, body, safety)
    rule = _RULES.get(type(body))
    if rule is not None:
        rule(case, body, safety, device)


def _refuse_impossible(case: Case, body: Body, safety: Safety) -> None:
    """Refuse what cannot be as the job stands."""
    match body:
        case Reclosed():
            _refuse_reclose(safety)
        case BypassRemoved():
            _refuse_bypass_out(safety)
        case LiveEnded() if safety.state is not SafetyState.LIVE:
            raise InputError(what="the machine is not in live mode", remedy="nothing to leave", field="kind")
        case HazardFound(hazard=Hazard.EARTH_OFF):
            what = "an earth off, of no part"
            raise InputError(what=what, remedy="note which part's earth is lifted", field="hazard")
        case Shut() if body.panel not in safety.walk.covers:
            raise InputError(what=f"the cover '{body.panel}' is not off", remedy="nothing to shut", field="panel")
        case CodesRead(was=None) | CycleTicked(was=None) if safety.isolated:
            raise was_it_now()
        case Reopened() if case.ended is None:
            raise InputError(what="this job has not ended", remedy="go on with it", field="kind")


def may(case: Case, safety: Safety, *, sign_off: bool, device: str = "") -> May:
    """Return what would be accepted now; whether it may go out as safe is the proof's to say.

    Parameters
    ----------
    case, safety
        The job, and where it stands now.
    sign_off
        Whether signing off is asked too, which is dear.
    device
        The device that would write it.
    """

    def would(body: Body) -> bool:
        try:
            refuse_event(case, body, safety, device)
        except (SafetyRefusalError, InputError):
            return False
        return True

    return May(
        power=would(PluggedIn()),
        live=would(LiveBegun(reason="to see whether it may")),
        run=would(RunWatched(outcome=THROUGH, was=When.NOW)),
        sign_off=sign_off,
    )


def _refuse_switched_off(body: Isolated, safety: Safety) -> None:
    """Refuse to tell a switch without a lock again after its ten minutes: nothing renews them."""
    since = safety.walk.off_since
    if body.how is not CutOff.SWITCHED_OFF or since is None or safety.walk.now - since <= UNATTENDED:
        return
    what = "switched off without a lock holds ten minutes in all, and they are over"
    remedy = "pull the plug, lock it off, or take the cord off its terminals and keep its ends in sight"
    acts = (
        PULL,
        send(ActId.SAY_ISOLATED, "It is locked off", {"kind": "isolated", "how": "locked_off"}, is_again=False),
    )
    raise SafetyRefusalError(what=what, remedy=remedy, field="how", acts=acts)


def _refuse_not_the_prover(body: Attended | HandsOff, safety: Safety, device: str) -> None:
    """Refuse *still here* and *hands off* from a device that has not proved it: nobody takes another's hands out."""
    is_mine = is_prover(safety.walk, device) or device in safety.walk.hands
    if is_mine:
        return
    if isinstance(body, HandsOff):
        what = "hands off is said on the device that cut it off and proved it"
        remedy = "whoever has the hands in says it there; after ten minutes without an entry there it ends by itself"
        raise SafetyRefusalError(what=what, remedy=remedy, field="device", acts=(HANDS_OFF_THERE,))
    what = "it was not cut off and proved from this device: being here takes nothing over"
    remedy = "cut it off from here too, and prove it dead"
    raise SafetyRefusalError(what=what, remedy=remedy, field="device", acts=(PULL, PROVE))


def _refuse_left_out(body: StripBack, safety: Safety) -> None:
    """Refuse to leave a fastener out where it holds an earth, or without a reason."""
    step = safety.walk.steps.get(body.step)
    if not body.because or step is None:
        return
    if holds_earth(step, safety.walk.terms.sheet):
        what = f"'{step.words}': a fastener of an earth is never left out"
        remedy = "put it back, and read the earth from the plug"
        raise SafetyRefusalError(what=what, remedy=remedy, field="because", acts=(_BACK,))
    if not is_reason(body.because):
        what = f"'{step.words}': no reason is given for what is left out"
        raise InputError(what=what, remedy="say in a few words why", field="because")


_BACK = go(ActId.REFIT, "Put it back", "repair", "back")
_REST = go(ActId.MEASURE, "Measure the rest", "trace", WHOLE_LINE)
_LAST_FIRST = "put that back first, the last that came off before the others"


def _refuse_leaky_back(body: StripBack, safety: Safety) -> None:
    """Refuse to join a part under voltage again that is off since it leaks."""
    if safety.state not in POWERED:
        return
    plugs = safety.walk.terms.sheet.plugs
    back = {part for plug in body.plugs if plug in plugs for part in plugs[plug].parts}
    leaky = sorted(back & off_under_insulation(safety.walk))
    if leaky:
        what = f"pull the plug: the {part_title(leaky[0], safety.walk.terms)} leaks, and was taken off for that"
        remedy = "it goes back on with the machine unplugged, and is read before power"
        raise SafetyRefusalError(what=what, remedy=remedy, field="plugs", acts=(PULL,))


def _refuse_covering(case: Case, panel: str, over: Over | None, safety: Safety, *, back: tuple[str, ...]) -> None:
    """Refuse a cover over what is off, but a part that leaks and whose wires are insulated and tied away."""
    sheet, walk = safety.walk.terms.sheet, safety.walk
    known = sheet.panels.get(panel)
    goes_back = {part for plug in back if plug in sheet.plugs for part in sheet.plugs[plug].parts}
    behind = {part.id for part in sheet.parts if part.behind == panel}
    off = (behind & parts_off(walk) & off_under_insulation(walk)) - goes_back
    tied = off & frozenset({*walk.over, *([over.part] if over is not None and over.insulated else [])})
    leaky = sorted(off - tied)
    title = known.title if known is not None else panel
    if leaky:
        what = f"{title}: the {part_title(leaky[0], walk.terms)} stays off beneath it"
        remedy = "insulate its wires and tie them away, and say so; or put it back first"
        raise SafetyRefusalError(what=what, remedy=remedy, field="over", acts=(over_act(leaky[0], safety), _BACK))
    first = beneath(case, panel, frozenset(tied))
    if not first:
        return
    what = f"{title}: still off beneath it: {', '.join(first)}"
    if _awaits_rest((behind & parts_off(walk)) - goes_back, walk):
        remedy = "measure the rest: where that is good, what leaks may stay off; or put it back first"
        raise SafetyRefusalError(what=what, remedy=remedy, field="panel", acts=(_REST, _BACK))
    raise SafetyRefusalError(what=what, remedy=_LAST_FIRST, field="panel", acts=(_BACK,))


def _awaits_rest(off: AbstractSet[str], walk: Walk) -> bool:
    """Tell whether a part that is off may be what leaks, and the rest was not shown good yet."""
    leaks = [row for row in walk.found if row.id is DangerId.INSULATION and not is_part_off(row, walk)]
    return bool(off) and any(row.part is None or row.part in off for row in leaks)


def _refuse_change(body: Changed, safety: Safety) -> None:
    """Refuse work on a part under voltage: a new one always, any work on one that a cover hides."""
    if safety.state not in POWERED:
        return
    part = safety.walk.terms.sheet.part(body.part)
    is_hidden = part is not None and part.behind is not None
    if body.intervention in CHANGES or is_hidden:
        what = "pull the plug: no part is worked on in a machine under voltage"
        raise SafetyRefusalError(
            what=what, remedy="unplug it and note that in Safe first", field="safety", acts=(PULL,)
        )


def _refuse_reclose(safety: Safety) -> None:
    """Allow one re-close for each trip."""
    walk = safety.walk
    if walk.trip < 0:
        raise InputError(what="nothing has tripped on this job", remedy="log the trip first", field="kind")
    if walk.reclosed > walk.trip:
        what = "it was closed again once after this trip: not a second time"
        remedy = "trace the fault with the machine dead"
        raise SafetyRefusalError(what=what, remedy=remedy, field="kind", acts=(PROVE, _TRACE))


def _refuse_bypass_out(safety: Safety) -> None:
    found = [row for row in safety.walk.found if row.id is DangerId.BYPASS]
    if not found:
        raise InputError(what="no bypass was found on this job", remedy="note it as found first", field="kind")
    if safety.state in POWERED:
        what = "a bypass is taken out with the machine unplugged"
        raise SafetyRefusalError(what=what, remedy="pull the plug first", field="safety", acts=(PULL,))


def _refuse_lifting(sheet: Sheet, body: EarthLifted, safety: Safety) -> None:
    """Allow an earth off only on a dead machine, and only a wire that is there; one found off is always noted."""
    part = sheet.part(body.part)
    if part is None or not part.is_earthed:
        with_earth = [row.id for row in sheet.parts if row.is_earthed]
        what = f"no earth wire on '{body.part}'"
        raise InputError(what=what, remedy=f"there is one on {', '.join(with_earth)}", field="part")
    if safety.state is not SafetyState.DEAD and not body.found:
        what = "the earth stays on: the machine is not proved dead"
        remedy = "unplug it and prove it dead in Safe first"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PROVE,))


def _refuse_refitting(body: EarthRefitted, safety: Safety) -> None:
    off = safety.walk.earths.get(body.part)
    if off is None or off[1] is not None:
        what = f"the earth of '{body.part}' is not off"
        raise InputError(what=what, remedy="note it as lifted first", field="part")
    if safety.state in POWERED:
        what = "an earth is put back with the machine unplugged"
        raise SafetyRefusalError(what=what, remedy="pull the plug first", field="safety", acts=(PULL,))


def _refuse_barring(safety: Safety) -> None:
    """Refuse to bar the insulation test where it was made and failed."""
    walk = safety.walk
    row = walk.latest(WHOLE_LINE)
    has_failed = any(found.id is DangerId.INSULATION for found in walk.found)
    if has_failed or (row is not None and row.result(walk.terms) is Pass.BAD):
        what = "insulation was tested and failed: it cannot be left out now"
        acts = (go(ActId.MEASURE, "Measure it again", "trace", WHOLE_LINE), LABEL)
        raise SafetyRefusalError(what=what, remedy="mend what leaks, and read it again", field="words", acts=acts)


def _refuse_in_error(body: NotedInError, safety: Safety) -> None:
    """Refuse to close what was measured, what an earlier job left behind, and a shock before its lines."""
    danger = next((row for row in safety.dangers if row.id.value == body.danger), None)
    if danger is None:
        raise InputError(what=f"no danger '{body.danger}' stands", remedy="nothing to close", field="danger")
    said = [row for row in danger.causes if was_said(row)]
    if not said:
        is_former = all(row.is_former for row in danger.causes)
        what = f"{danger.words}: it was measured, and is never noted in error"
        if is_former:
            what = f"{danger.words}: an earlier job left it behind, and nobody here can know that it was a slip"
        remedy = f"next, {danger.lifted_by}"
        raise SafetyRefusalError(what=what, remedy=remedy, field="danger", acts=(danger.act, LABEL))
    if danger.id is DangerId.SHOCK:
        walk = safety.walk
        missing = [
            need
            for row in said
            for need in (*earth_needs(row.since, walk, row.then), *insulation_needs(row.since, walk, row.then))
        ]
        if missing:
            what = f"{danger.words}: it is closed only once earth and insulation read good"
            remedy = f"next, {missing[0].words}"
            raise SafetyRefusalError(what=what, remedy=remedy, field="danger", acts=(missing[0].act, LABEL))
    if not is_reason(body.because):
        raise InputError(what="no reason is given", remedy="say in a few words why it was a slip", field="because")


LABEL = go(ActId.LABEL_UNSAFE, "Label it unsafe", "prove", "unsafe")
_TRACE = go(ActId.MEASURE, "Trace the fault", "trace")


def _refuse_back(case: Case, body: StripBack, safety: Safety) -> None:
    """Refuse to put back what may not be: a fastener left out, a leak under voltage, a cover over what is off."""
    _refuse_left_out(body, safety)
    _refuse_leaky_back(body, safety)
    step = safety.walk.steps.get(body.step)
    if step is not None and step.panel:
        _refuse_covering(case, step.panel, body.over, safety, back=body.plugs)


_Rule = Callable[[Case, Any, Safety, str], None]
_RULES: dict[type, _Rule] = {
    Isolated: lambda _case, body, safety, _: _refuse_switched_off(body, safety),
    Attended: lambda _case, body, safety, device: _refuse_not_the_prover(body, safety, device),
    HandsOff: lambda _case, body, safety, device: _refuse_not_the_prover(body, safety, device),
    EarthLifted: lambda case, body, safety, _: _refuse_lifting(case.sheet, body, safety),
    EarthRefitted: lambda _case, body, safety, _: _refuse_refitting(body, safety),
    Shut: lambda case, body, safety, _: _refuse_covering(case, body.panel, body.over, safety, back=()),
    StripBack: lambda case, body, safety, _: _refuse_back(case, body, safety),
    Changed: lambda _case, body, safety, _: _refuse_change(body, safety),
    RunMade: lambda _case, body, safety, _: admitted_leak_test(body, safety),
    InsulationNotAllowed: lambda _case, _body, safety, _: _refuse_barring(safety),
    NotedInError: lambda _case, body, safety, _: _refuse_in_error(body, safety),
    RecordWithdrawn: lambda case, body, _safety, _: refuse_withdrawal(case, body),
}
