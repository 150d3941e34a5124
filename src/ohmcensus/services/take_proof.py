"""Taking a proof: the tester that could have shown it, in the state of safety that it needs."""

from __future__ import annotations

from datetime import datetime

from ohmcensus.core.case import Case
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import ProofMade, Way
from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.proof import refuse_proof
from ohmcensus.core.quantity import Unit, parse_indication
from ohmcensus.core.safety import SafetyState, safety_at
from ohmcensus.services.at_hand import JobAtHand


def taken_proof(job: JobAtHand, body: ProofMade, now: datetime) -> ProofMade:
    """Return a proof with its tester.

    Raises
    ------
    InputError
        If it is no criterion of the machine, lacks its method, or no tester in the bag could have shown it.
    SafetyRefusalError
        If it is out of its order, or the machine is not in the state that it needs.
    """
    refuse_proof(job.case, body)
    if body.way is None:
        return body
    _refuse_state(job.case, body.way, now)
    bag = [job.meters[name] for name in job.settings.bag if name in job.meters]
    return body.model_copy(update={"instrument": _shown_by(bag, body.text)})


def _refuse_state(case: Case, way: Way, now: datetime) -> None:
    state = safety_at(case, now).state
    if way is Way.ALTERNATIVE and state is not SafetyState.DEAD:
        what = "the alternative method drives a voltage of its own: the machine is not proved dead"
        raise SafetyRefusalError(what=what, remedy="prove it dead in Safe", field="safety")
    if way is not Way.ALTERNATIVE and state is not SafetyState.LIVE:
        what = "a current is measured under power"
        raise SafetyRefusalError(what=what, remedy="enter live mode in Safe, with its reason", field="safety")


def _shown_by(bag: list[Meter], text: str) -> Meter:
    for meter in bag:
        shown = parse_indication(text, Unit.AMPERE, over_range_texts=meter.over_range_texts)
        if meter.can_show(shown, Function.LEAKAGE):
            return meter
    what = f"no tester in the bag measures a current to earth and shows '{text}'"
    raise InputError(
        what=what, remedy="type the unit, e.g. 0.4 mA; or put a tester into the bag in Setup", field="text"
    )
