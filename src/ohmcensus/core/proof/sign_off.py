"""The three endings of a job: safe, unsafe, not tested; and what keeps a machine from going out."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ohmcensus.core.acts import Act, ActId, go
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import Ended, LeftAs
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_down import open_panels, unfinished
from ohmcensus.core.proof.state import Proof, is_asked, proofs
from ohmcensus.core.safety import Safety, SafetyState
from ohmcensus.core.safety.admission import shut_acts
from ohmcensus.core.safety.danger import OUTLET_LINE
from ohmcensus.core.safety.lifted_by import PULL
from ohmcensus.core.safety.needs import changed_needs
from ohmcensus.core.safety.state import Danger
from ohmcensus.core.safety.words import DangerId

_BACK = go(ActId.REFIT, "Put it together", "repair", "back")
_LABEL = go(ActId.LABEL_UNSAFE, "Label it unsafe", "prove", "unsafe")


@dataclass(frozen=True, slots=True)
class Block:
    """One thing that keeps a machine from going out: what it is, and the way on."""

    words: str
    act: Act


def blocking(case: Case, safety: Safety, *, outlet_reported: bool = False) -> tuple[str, ...]:
    """Return everything that blocks signing off, a sentence each; empty where the machine may go out as safe.

    Open dangers always do. Proof is asked of a machine on which something was changed, came off or was dangerous: a
    job that ends at the outlet, or with nothing done, needs none.

    Parameters
    ----------
    case, safety
        Sheet and everything observed; where the job stands.
    outlet_reported
        Whether an outlet without earth was reported and the machine stays unplugged.
    """
    return tuple(row.words for row in _blocking(case, safety, outlet_reported=outlet_reported))


def refuse_sign_off(case: Case, body: Ended, safety: Safety) -> None:
    """Refuse an ending that is not true.

    Raises
    ------
    SafetyRefusalError
        As safe while something blocks it, with the first thing to do; as unsafe while the machine is not cut off; as
        not tested while a danger stands or a line failed; at all in live mode.
    InputError
        For lines said to be not tested that are no lines of this proof, or not all of those that are missing.
    """
    if safety.state is SafetyState.LIVE:
        what = "live mode: no job ends while it is on"
        raise SafetyRefusalError(what=what, remedy="unplug it, and note that in Safe", field="safety", acts=(PULL,))
    if body.is_labelled_unsafe:
        _refuse_unsafe_end(body, safety)
        return
    if body.not_tested:
        _refuse_not_tested(case, body, safety)
        return
    reported = body.outlet_reported and body.left_as is LeftAs.UNPLUGGED and safety.isolated
    found = list(_blocking(case, safety, outlet_reported=reported))
    if found:
        raise _not_ended("not signed off", found, "hazard")  # noqa: EM101, TRY003 - how the sentence begins


def _not_ended(what: str, found: Sequence[Block], field: str) -> SafetyRefusalError:
    """Return the refusal of an ending: the first thing in words, how many more there are, and the ways on."""
    more = f", and {len(found) - 1} more thing{'s' if len(found) > 2 else ''} to show" if found[1:] else ""  # noqa: PLR2004
    acts = tuple(dict.fromkeys((*(row.act for row in found[:3]), _LABEL)))
    said = f"{what}: {found[0].words}{more}"
    return SafetyRefusalError(what=said, remedy="or label it unsafe and tell the customer", field=field, acts=acts)


def _refuse_unsafe_end(body: Ended, safety: Safety) -> None:
    if safety.danger(DangerId.LIVE_THOUGH_FORBIDDEN) is not None and not safety.isolated:
        what = "pull the plug: the machine stands under voltage although that is forbidden"
        raise SafetyRefusalError(what=what, remedy="cut it off, and note that in Safe", field="safety", acts=(PULL,))
    if not safety.isolated and body.left_as is not LeftAs.CUSTOMER_REFUSED:
        what = "an unsafe machine is cut off before it is left"
        remedy = "unplug it or lock it off, and note that in Safe"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PULL,))


def _refuse_not_tested(case: Case, body: Ended, safety: Safety) -> None:
    """Refuse to end as not tested where more than missing lines stands in the way."""
    rows = proofs(case, safety) if is_asked(safety) else ()
    missing = {row.criterion.id: row for row in rows if row.is_good is None}
    strange = [name for name in body.not_tested if name not in {row.criterion.id for row in rows}]
    if strange:
        known = ", ".join(missing) or "none"
        what = f"'{strange[0]}' is not a line of this proof"
        raise InputError(what=what, remedy=f"not shown are {known}", field="not_tested")
    asked = {name: row for name, row in missing.items() if not row.criterion.is_optional}
    blocked = [*_standing(case, safety)]
    blocked += [Block(f"{row.criterion.named} failed", _to(row)) for row in rows if row.is_good is False]
    blocked += [
        Block(f"{row.criterion.named} is not shown and not named", _to(row))
        for name, row in asked.items()
        if name not in body.not_tested
    ]
    if blocked:
        raise _not_ended("not ended", blocked, "not_tested")  # noqa: EM101, TRY003 - as above


def _to(row: Proof) -> Act:
    """Return the way to a criterion."""
    is_gfci = row.criterion.kind.value == "gfci"
    act = ActId.SAY_GFCI if is_gfci else ActId.MEASURE
    return go(act, f"Show: {row.criterion.title}", "prove", row.criterion.id)


def _blocking(case: Case, safety: Safety, *, outlet_reported: bool) -> Iterator[Block]:
    if safety.state is SafetyState.LIVE:
        yield Block("live mode is on (unplug it first)", PULL)
    yield from _standing(case, safety, outlet_reported=outlet_reported)
    if is_asked(safety):
        for row in proofs(case, safety):
            if row.is_good is None and not row.criterion.is_optional:
                why = f": {row.voided.words}" if row.voided is not None else ""
                yield Block(f"{row.criterion.named} is not shown{why}", _to(row))
            elif row.is_good is False:
                yield Block(f"{row.criterion.named} failed", _to(row))


def _standing(case: Case, safety: Safety, *, outlet_reported: bool = False) -> Iterator[Block]:
    """Yield the dangers, what is off, and the lines of changed parts that were not read."""
    for danger in safety.dangers:
        if not (outlet_reported and is_outlets(danger)):
            yield Block(f"{danger.words} (next, {danger.lifted_by})", danger.act)
    for words in unfinished(case):
        yield Block(words, _BACK)
    stripped = open_panels(case, strip_only=True)
    acts = {act.event["panel"]: act for act in shut_acts(safety)}
    for panel in sorted(safety.walk.covers - stripped):
        title = case.sheet.panels[panel].title.lower() if panel in case.sheet.panels else panel
        yield Block(f"off is {title} (shut it, and note that)", acts[panel])
    for part in safety.walk.earths_off:
        known = case.sheet.part(part)
        yield Block(f"off is the earth of the {known.title.lower() if known else part}", _BACK)
    for what, need in changed_needs(safety.walk):
        yield Block(f"{what} (next, {need.words})", need.act)


def is_outlets(danger: Danger) -> bool:
    """Tell whether a danger is the outlet's alone, so that the machine may stay behind unplugged."""
    return danger.id is DangerId.EARTH and all(row.line == OUTLET_LINE for row in danger.causes)
