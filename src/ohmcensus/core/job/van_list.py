"""What is worth taking along before driving: parts that the complaint points at, and the tools for them."""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.job.case import Case
from ohmcensus.core.machine import stored_charges
from ohmcensus.core.machine.discharge import discharge_of
from ohmcensus.core.sheet import Part
from ohmcensus.core.symptom import Symptom

# A part that explains less than this of a complaint stays in the store (our choice).
LEAST_WEIGHT = 0.12
MOST_PARTS = 6
ALWAYS = ("multimeter and a known source", "insulation tester", "torch, towels and a flat tray", "insulated drivers")


@dataclass(frozen=True, slots=True)
class VanPart:
    """A part worth taking: which, how well it explains the complaint (0 to 1), and which symptoms it explains."""

    part: str
    title: str
    weight: float
    because: tuple[Symptom, ...]


@dataclass(frozen=True, slots=True)
class VanList:
    """Parts, the best first, and tools."""

    parts: tuple[VanPart, ...]
    tools: tuple[str, ...]


def van_list(case: Case) -> VanList:
    """Return what to take for a complaint; of two parts of a kind one, the likelier.

    Notes
    -----
    Symptoms are taken as independent: a part explains a complaint with 1 − Π(1 − w), w being what its
    kind states for each symptom (common practice, no source). Which part it is stays open until
    it is measured; this is only the load of the van.
    """
    symptoms = case.complaint.symptoms
    weighed = [(part, _of_part(part, symptoms)) for part in case.sheet.parts]
    worth = sorted(((p, row) for p, row in weighed if row.weight >= LEAST_WEIGHT), key=lambda pair: -pair[1].weight)
    one_of_each: dict[str, VanPart] = {}
    tools = dict.fromkeys(ALWAYS)
    for part, row in worth:
        tools |= dict.fromkeys(part.part_kind.tools)
        if part.part_kind.is_spare:
            one_of_each.setdefault(part.kind, row)
    for _, charge in stored_charges(case.sheet):
        plan = discharge_of(charge)
        if plan.is_dangerous:
            tools[f"discharge resistor {plan.resistor_ohm / 1000:g} kΩ, {plan.resistor_w:g} W, insulated"] = None
    if Symptom.CODE in symptoms:
        tools["paper for the codes"] = None
    return VanList(tuple(one_of_each.values())[:MOST_PARTS], tuple(tools))


def _of_part(part: Part, symptoms: tuple[Symptom, ...]) -> VanPart:
    """Weigh one part."""
    missed, because = 1.0, []
    for symptom in symptoms:
        weight = part.part_kind.explains.get(symptom, 0.0)
        missed *= 1 - weight
        if weight >= LEAST_WEIGHT:
            because.append(symptom)
    return VanPart(part.id, part.title, 1 - missed, tuple(because))
