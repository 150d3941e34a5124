"""Making this machine safe on this job: the steps in order, from the sheet's own figures."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import timedelta
from enum import StrEnum

from ohmcensus.core.event import StepTicked
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine import stored_charges
from ohmcensus.core.machine.discharge import Discharge, discharge_of
from ohmcensus.core.parts.kind import StoredCharge
from ohmcensus.core.quantity import Unit, show_value
from ohmcensus.core.safety.state import Safety
from ohmcensus.core.safety.words import SafetyState
from ohmcensus.core.sheet import Handling
from ohmcensus.core.symptom import Symptom

SCALDING_C = 40.0
TWO_PEOPLE_KG = 25.0
_TIPPING = "Protect the front, mind sharp sheet edges and the counterweights."


class StepKind(StrEnum):
    """How a step is done: by a tick, by stating that it is cut off, or by readings."""

    TICK = "tick"
    ISOLATE = "isolate"
    PROVE = "prove"


_MOVED = "weight"


@dataclass(frozen=True, slots=True)
class SafeStep:
    """One step: what to do, how, whether it is done, until when a charge is waited for (ISO 8601, empty for none)."""

    id: str
    kind: StepKind
    title: str
    how: str
    is_done: bool
    waits_until: str = ""

    @property
    def is_optional(self) -> bool:
        """Whether it holds nobody up: a machine that is not moved needs nobody's help."""
        return self.id == _MOVED


def safe_steps(case: Case, safety: Safety) -> tuple[SafeStep, ...]:
    """Return the steps for this machine and this job, in their order.

    Parameters
    ----------
    case
        Sheet, complaint and events: a wet job gets a drier floor.
    safety
        State now. A tick counts until the machine is plugged in again.
    """
    after = safety.walk.cut_order
    ticked = {event.body.step: event.body.is_done for event in case.of(StepTicked) if event.order > after}
    isolate = "Switch off, pull the plug and keep it in sight; a fixed connection is locked off."
    if any(row.forbids_power for row in safety.dangers):
        isolate += " It stays out: no power until what forbids it is lifted."
    steps = [SafeStep("isolate", StepKind.ISOLATE, "Cut it off", isolate, safety.isolated)]
    waits = _waits(case, safety)
    steps += [
        SafeStep(name, StepKind.TICK, title, how, ticked.get(name, False), waits.get(name, ""))
        for name, title, how in _ticks(case)
    ]
    steps.append(
        SafeStep(
            "prove",
            StepKind.PROVE,
            "Prove it dead",
            "Known source, every point below, known source again, all with one meter. Across a part's own tags "
            "0 V proves nothing: a relay may be open.",
            safety.state is SafetyState.DEAD,
        )
    )
    return tuple(steps)


def step_ids(case: Case) -> frozenset[str]:
    """Return the ids of the steps that are ticked."""
    return frozenset(name for name, _, _ in _ticks(case))


def cautions(case: Case) -> tuple[str, ...]:
    """Return what can hurt at the parts of this machine, each once."""
    return tuple(dict.fromkeys(words for part in case.sheet.parts for words in part.part_kind.cautions))


def _ticks(case: Case) -> Iterator[tuple[str, str, str]]:
    """Yield id, title and instruction of the steps that are ticked."""
    handling, symptoms = case.sheet.handling, case.complaint.symptoms
    yield "taps", "Shut the taps", "Both taps off, then open a valve hose over the tray: pressure stays in it."
    if handling and handling.sump_litres:
        yield "drain", "Drain the sump", _drain(handling)
    is_wet = bool({Symptom.LEAKS, Symptom.NO_DRAIN} & set(symptoms))
    floor = "Water is likely on this job: dry the floor, kneel on a dry mat, keep leads and meter off the ground."
    yield "floor", "Dry the area", floor if is_wet else "Dry the floor and your hands; keep leads and meter dry."
    for number, (part, charge) in enumerate(stored_charges(case.sheet), start=1):
        yield f"discharge{number}", f"Discharge: {part.title}, {charge.title}", _discharge(charge, discharge_of(charge))
    if handling and handling.weight_kg >= TWO_PEOPLE_KG:
        yield (
            _MOVED,
            "Move it with help",
            f"It weighs {handling.weight_kg:g} kg: tip it with a second person. {_TIPPING}",
        )


def _waits(case: Case, safety: Safety) -> dict[str, str]:
    """Return until when each charge is waited for, counted from the moment at which the machine was cut off."""
    cut_at = safety.walk.cut_at
    if cut_at is None or not safety.isolated:
        return {}
    return {
        f"discharge{number}": (cut_at + timedelta(seconds=math.ceil(discharge_of(charge).wait_s))).isoformat()
        for number, (_, charge) in enumerate(stored_charges(case.sheet), start=1)
    }


def _drain(handling: Handling) -> str:
    how = f"Up to {handling.sump_litres:g} litres in the sump: tray and towels first."
    if handling.hottest_celsius > SCALDING_C:
        how += f" It can hold water of {handling.hottest_celsius:g} °C: let it fall below {SCALDING_C:g} °C."
    return how


def _discharge(charge: StoredCharge, plan: Discharge) -> str:
    """Put a discharge into words."""
    size = f"{show_value(charge.capacitance_f, Unit.FARAD)} at up to {plan.volts:.0f} V, {_joule(plan.energy_j)}"
    bleed = "it has no bleed to rely on"
    if plan.bleeds_in_s is not None and charge.bleed_ohm is not None:
        bleed = f"its {show_value(charge.bleed_ohm, Unit.OHM)} bring it to 10 V in {_seconds(plan.bleeds_in_s)}"
    if not plan.is_dangerous:
        return (
            f"{size}: {bleed}. Wait {_seconds(plan.wait_s)}, then measure. If it does not fall, its bleed has failed: "
            f"{show_value(plan.resistor_ohm, Unit.OHM)} across it for {_seconds(plan.hold_s)}, and measure again."
        )
    return (
        f"{size}: {bleed}. Wait {_seconds(plan.wait_s)} and measure. Above 10 V: "
        f"{show_value(plan.resistor_ohm, Unit.OHM)}, at least {plan.resistor_w:g} W wirewound, "
        f"probes rated {plan.probe_v:g} V, "
        f"held on for {_seconds(plan.hold_s)}; measure again after 1 min, it creeps back. "
        "A screwdriver across it is common: it throws sparks, pits the tags and can destroy the capacitor."
    )


def _joule(energy_j: float) -> str:
    return f"{energy_j * 1000:.0f} mJ" if energy_j < 1 else f"{energy_j:.1f} J"


def _seconds(seconds: float) -> str:
    if seconds >= 120:  # noqa: PLR2004 - from two minutes on nobody counts seconds
        return f"{seconds / 60:.0f} min"
    return f"{seconds:.1f} s" if seconds < 10 and seconds % 1 else f"{math.ceil(seconds)} s"  # noqa: PLR2004
