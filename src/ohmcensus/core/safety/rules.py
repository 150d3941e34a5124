"""What safety refuses, whoever asks: the page, the API or a script."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Body,
    BypassRemoved,
    Changed,
    CodesRead,
    CycleBegun,
    CycleTicked,
    EarthLifted,
    EarthRefitted,
    EntryTried,
    Hazard,
    HazardFound,
    InsulationNotAllowed,
    LiveBegun,
    LiveEnded,
    NotedInError,
    PluggedIn,
    Reclosed,
    RecordWithdrawn,
    Reopened,
    RunMade,
    RunWatched,
    Says,
    Shut,
    StripBack,
    When,
)
from ohmcensus.core.event.record import is_reason
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement.passes import WHOLE_LINE, Pass, earth_line_of, insulation_lines_of
from ohmcensus.core.machine.asked import THROUGH
from ohmcensus.core.safety.admission import admitted_leak_test
from ohmcensus.core.safety.after_event import CHANGES, is_in, joins_outlet, mains_plugs
from ohmcensus.core.safety.danger import Found
from ohmcensus.core.safety.needs import Need, earth_needs, own_needs, part_title, parts_off
from ohmcensus.core.safety.state import Danger, Safety
from ohmcensus.core.safety.withdrawal import refuse_withdrawal
from ohmcensus.core.safety.words import Act, DangerId, SafetyState
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Device
from ohmcensus.core.trip.house import circuit_on

_POWERED = frozenset({SafetyState.LIVE, SafetyState.UNDER_VOLTAGE})
GUARDED_EARTH_OHM, GUARDED_INSULATION_OHM, GUARDED_RCD_MA = 1.0, 20e6, 30
# What is said before live work while a danger asks for it.
SAID_FOR = {DangerId.BYPASS: Says.LID_SHUT, DangerId.DRY: Says.HEATER_WIRES_OFF}


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
        lifted from a machine that is not proved dead, work on parts under voltage.
    InputError
        For what cannot be: a re-close where nothing tripped, a bypass removed where none was found, an earth of a
        part that has none, a cover shut that was not off.
    """
    if _is_power(body, safety):
        _refuse_power_event(case, body, safety, device)
    _refuse_impossible(case, body, safety)
    match body:
        case EarthLifted():
            _refuse_lifting(case.sheet, body, safety.state)
        case EarthRefitted():
            _refuse_refitting(body, safety)
        case StripBack():
            _refuse_left_out(body, safety)
        case Changed() if body.intervention in CHANGES and safety.state in _POWERED:
            what = "no part is changed on a machine under voltage"
            raise SafetyRefusalError(what=what, remedy="unplug it and note that in Safe first", field="safety")
        case RunMade():
            admitted_leak_test(body, safety)
        case InsulationNotAllowed():
            _refuse_barring(safety)
        case NotedInError():
            _refuse_in_error(body, safety)
        case RecordWithdrawn():
            refuse_withdrawal(case, body)
        case _:
            return


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
            raise _was_it_now()
        case Reopened() if case.ended is None:
            raise InputError(what="this job has not ended", remedy="go on with it", field="kind")


def _refuse_left_out(body: StripBack, safety: Safety) -> None:
    """Refuse to leave a fastener out where it holds an earth."""
    step = safety.walk.steps.get(body.step)
    if body.because and step is not None and "earth" in f"{step.words} {step.head} {step.kept}".casefold():
        what = f"'{step.words}': a fastener of an earth is never left out"
        raise SafetyRefusalError(what=what, remedy="put it back, and read the earth from the plug", field="because")


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


def power_refusals(safety: Safety, *, but: frozenset[DangerId] = frozenset()) -> Iterator[tuple[str, str]]:
    """Yield what forbids power, each with what comes next: dangers, then lines of changed parts that were not read."""
    for danger in safety.dangers:
        if danger.forbids_power and danger.id not in but:
            yield danger.words, danger.lifted_by
    for part in safety.walk.marks.changed:
        for need in own_needs(part, safety.walk):
            title = part_title(part, safety.walk.terms)
            yield f"the {title} was changed and is not read since", need.words


def power_needs(safety: Safety) -> tuple[Need, ...]:
    """Return the readings that are still missing before power, each once: of dangers, then of changed parts."""
    needs = [need for row in safety.dangers if row.forbids_power for need in row.needs if need.typed]
    needs += [need for part in safety.walk.marks.changed for need in own_needs(part, safety.walk) if need.typed]
    return tuple(dict.fromkeys(needs))


def _is_power(body: Body, safety: Safety) -> bool:
    """Tell whether a record says that the machine stands under voltage from now on."""
    match body:
        case PluggedIn() | LiveBegun() | EntryTried() | CycleBegun():
            return True
        case RunWatched():
            return body.was is not When.BEFORE
        case Reclosed():
            return is_in(body, safety.walk)
        case StripBack():
            return any(joins_outlet(plug, safety.walk.terms) for plug in body.plugs)
        case _:
            return False


def _refuse_power_event(case: Case, body: Body, safety: Safety, device: str) -> None:
    if isinstance(body, RunWatched) and body.was is None and safety.isolated:
        raise _was_it_now()
    if isinstance(body, PluggedIn) and safety.state is SafetyState.LIVE:
        what = "live mode: the machine is plugged in already"
        raise InputError(what=what, remedy="leave live mode first", field="kind")
    if isinstance(body, Reclosed) and safety.state is SafetyState.LIVE:
        what = "live mode: nothing is closed again on the open machine"
        raise SafetyRefusalError(what=what, remedy="leave live mode and unplug it first", field="kind")
    _refuse_another_device(safety, device)
    if isinstance(body, RunWatched) and body.guarded:
        _refuse_guarded(case, safety)
        return
    _refuse_power(body, safety)
    _refuse_while_off(body, safety)
    if isinstance(body, CycleBegun | RunWatched):
        _refuse_cycle(safety)
    if isinstance(body, LiveBegun):
        _refuse_unsaid(body, safety)


def _refuse_power(body: Body, safety: Safety) -> None:
    but: frozenset[DangerId] = frozenset()
    if isinstance(body, Reclosed):
        trips = [row for row in safety.walk.found if row.id is DangerId.TRIP]
        if trips and not any(True for row in trips for _ in earth_needs(row.since, safety.walk, row.terms)):
            but = frozenset({DangerId.TRIP})
    blocking = list(power_refusals(safety, but=but))
    if blocking:
        words = "; ".join(what for what, _ in blocking)
        raise SafetyRefusalError(what=f"no power: {words}", remedy=blocking[0][1], field="hazard")


def _refuse_while_off(body: Body, safety: Safety) -> None:
    """Refuse power while a cover, an earth or a plug of a mains part is off; live work only while an earth is."""
    walk, sheet = safety.walk, safety.walk.terms.sheet
    off = [part for part, (_, back) in walk.earths.items() if back is None]
    if off:
        what = f"no power: the earth of the {part_title(off[0], walk.terms)} is off"
        raise SafetyRefusalError(what=what, remedy="put it back and read it from the plug", field="hazard")
    if isinstance(body, LiveBegun) or safety.state is SafetyState.LIVE:
        return
    if walk.covers:
        title = ", ".join(
            sheet.panels[name].title.lower() if name in sheet.panels else name for name in sorted(walk.covers)
        )
        what = f"no power: off is {title}"
        raise SafetyRefusalError(what=what, remedy="shut it and note that, or enter live mode", field="panel")
    spared = {row.part for row in walk.found if row.id is DangerId.INSULATION and row.part in parts_off(walk)}
    plugs = [name for name in sorted(mains_plugs(walk)) if not spared & {*sheet.plugs[name].parts}]
    if plugs:
        what = f"no power: off is {sheet.plugs[plugs[0]].title.lower()}"
        raise SafetyRefusalError(what=what, remedy="put it back and note that in Repair", field="plugs")


def _refuse_cycle(safety: Safety) -> None:
    for danger in safety.dangers:
        if Act.CYCLE in danger.forbids:
            what = f"no test cycle and no watched run: {danger.words}"
            raise SafetyRefusalError(what=what, remedy=danger.lifted_by, field="hazard")


def asked_before_live(safety: Safety) -> tuple[Says, ...]:
    """Return what has to be stated before live work while a danger asks for it."""
    rows = ((safety.danger(danger), says) for danger, says in SAID_FOR.items())
    return tuple(says for row, says in rows if row is not None and Act.CYCLE in row.forbids)


def _refuse_unsaid(body: LiveBegun, safety: Safety) -> None:
    for danger, says in SAID_FOR.items():
        row = safety.danger(danger)
        if row is not None and Act.CYCLE in row.forbids and says not in body.says:
            what = f"{row.words}: live work only with '{says.words}' stated"
            raise SafetyRefusalError(what=what, remedy=f"do it, and say so: {says.value}", field="says")


def _refuse_another_device(safety: Safety, device: str) -> None:
    """Refuse power from another device while somebody has proved the machine dead and works at it."""
    walk = safety.walk
    if safety.state is not SafetyState.DEAD or walk.is_hands_off or device == walk.prover:
        return
    who = walk.prover_who or "another device"
    what = f"proved dead by {who}, who may have the hands in it: no power from here"
    raise SafetyRefusalError(what=what, remedy="that device says 'hands off' first", field="device")


def _refuse_guarded(case: Case, safety: Safety) -> None:
    """Refuse the one guarded run unless only the unread lines of a changed part stand in its way."""
    walk = safety.walk
    if walk.when("guarded") >= 0:
        what = "the guarded run was made already on this job"
        raise SafetyRefusalError(what=what, remedy="read the lines that are missing", field="guarded")
    if safety.dangers:
        first: Danger = safety.dangers[0]
        raise SafetyRefusalError(what=f"no guarded run: {first.words}", remedy=first.lifted_by, field="guarded")
    if not safety.is_shut:
        raise SafetyRefusalError(what="no guarded run with a cover off", remedy="shut it first", field="guarded")
    for part in walk.marks.changed:
        if not _is_guarded(part, safety):
            what = f"no guarded run: the {part_title(part, walk.terms)} is not read since it was changed"
            remedy = "its earth under 1 Ω and its tags to earth over 20 MΩ, by any meter"
            raise SafetyRefusalError(what=what, remedy=remedy, field="guarded")
    noted = walk.circuit or circuit_on(case.sheet)
    is_guard = noted.device is Device.GFCI or (
        noted.device in {Device.RCD, Device.RCBO} and noted.rated_ma <= GUARDED_RCD_MA
    )
    if walk.circuit is None or not is_guard or not noted.supply.is_neutral_earthed:
        what = "no guarded run: no RCD of 30 mA or GFCI on an earthed neutral is noted"
        raise SafetyRefusalError(what=what, remedy="note the circuit of the house in Trip", field="guarded")


def _is_guarded(part: str, safety: Safety) -> bool:
    walk = safety.walk
    since, terms = walk.marks.own.get(part, 0), walk.terms
    found = terms.sheet.part(part)
    if found is None:
        return True
    earth = walk.latest.get(earth_line_of(part))
    has_earth = not found.is_earthed or (
        earth is not None and earth.order > since and earth.interval.hi < GUARDED_EARTH_OHM
    )
    rows = [walk.latest.get(line) for line in insulation_lines_of(part, terms)]
    late = [row for row in rows if row is not None and row.order > since]
    has_insulation = not rows or any(row.interval.lo > GUARDED_INSULATION_OHM for row in late)
    return has_earth and has_insulation


def _refuse_reclose(safety: Safety) -> None:
    """Allow one re-close for each trip."""
    walk = safety.walk
    if walk.trip < 0:
        raise InputError(what="nothing has tripped on this job", remedy="log the trip first", field="kind")
    if walk.reclosed > walk.trip:
        what = "it was closed again once after this trip: not a second time"
        raise SafetyRefusalError(what=what, remedy="trace the fault with the machine dead", field="kind")


def _refuse_bypass_out(safety: Safety) -> None:
    found = [row for row in safety.walk.found if row.id is DangerId.BYPASS]
    if not found:
        raise InputError(what="no bypass was found on this job", remedy="note it as found first", field="kind")
    if safety.state in _POWERED:
        what = "a bypass is taken out with the machine unplugged"
        raise SafetyRefusalError(what=what, remedy="cut it off first", field="safety")


def _refuse_lifting(sheet: Sheet, body: EarthLifted, state: SafetyState) -> None:
    """Allow an earth off only on a dead machine, and only a wire that is there; one found off is always noted."""
    part = sheet.part(body.part)
    if part is None or not part.is_earthed:
        with_earth = [row.id for row in sheet.parts if row.is_earthed]
        what = f"no earth wire on '{body.part}'"
        raise InputError(what=what, remedy=f"there is one on {', '.join(with_earth)}", field="part")
    if state is not SafetyState.DEAD and not body.found:
        what = "the earth stays on: the machine is not proved dead"
        raise SafetyRefusalError(what=what, remedy="unplug it and prove it dead in Safe first", field="safety")


def _refuse_refitting(body: EarthRefitted, safety: Safety) -> None:
    off = safety.walk.earths.get(body.part)
    if off is None or off[1] is not None:
        what = f"the earth of '{body.part}' is not off"
        raise InputError(what=what, remedy="note it as lifted first", field="part")
    if safety.state in _POWERED:
        what = "an earth is put back with the machine unplugged"
        raise SafetyRefusalError(what=what, remedy="cut it off first", field="safety")


def _refuse_barring(safety: Safety) -> None:
    """Refuse to bar the insulation test where it was made and failed."""
    walk = safety.walk
    row = walk.latest.get(WHOLE_LINE)
    has_failed = any(found.id is DangerId.INSULATION for found in walk.found)
    if has_failed or (row is not None and row.result(walk.terms) is Pass.BAD):
        what = "insulation was tested and failed: it cannot be left out now"
        raise SafetyRefusalError(what=what, remedy="mend what leaks, and read it again", field="words")


def _refuse_in_error(body: NotedInError, safety: Safety) -> None:
    rows: list[Found] = [row for row in safety.walk.found if row.id.value == body.danger]
    if not rows:
        raise InputError(what=f"no danger '{body.danger}' stands", remedy="nothing to close", field="danger")
    if not any(not row.is_measured and _was_said(row) for row in rows):
        what = f"{rows[0].words}: it was measured, and is never noted in error"
        raise SafetyRefusalError(what=what, remedy="read the same line again", field="danger")
    if not is_reason(body.because):
        raise InputError(what="no reason is given", remedy="say why in ten characters or more", field="because")


def _was_said(found: Found) -> bool:
    """Tell whether a danger was told, tapped or looked at; one that follows from power never was."""
    return found.id is not DangerId.LIVE_THOUGH_FORBIDDEN


def _was_it_now() -> InputError:
    what = "the machine is cut off: was this now, or before it was cut off?"
    return InputError(what=what, remedy="say 'before', or 'now' if it stands under voltage again", field="was")
