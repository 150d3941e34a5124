"""A job that is played by what is next alone: readings as the circuit has them, ticks as they are asked."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from ohmcensus.core.machine import dead_tests, machine_tests
from ohmcensus.core.machine.asked import looks
from ohmcensus.core.machine.coverage import configuration_of, is_answered, probe_of
from ohmcensus.core.machine.likely import LikelyFault, likely_faults, symptom_chances
from ohmcensus.core.machine.probe import predict
from ohmcensus.core.machine.run_through import run_through
from ohmcensus.core.machine.specs import found_test
from ohmcensus.core.machine.tests import MachineTest
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.quantity import Bound, Unit
from ohmcensus.core.symptom import Symptom
from ohmcensus.core.trip.of_case import leaky_parts
from ohmcensus.core.trip.problem import Method
from ohmcensus.exchange.story_file import Step, Story
from ohmcensus.services.at_hand.job import JobAtHand
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.services.transfer import replay
from ohmcensus.services.transfer.replay import OutlookAnswer
from tests.core.case_of import proof_of
from tests.stories.told import AT

MOST_STEPS = 160
_ENDS = {Function.INSULATION: (299e6, ">299M"), Function.OHM: (4e7, "OL"), Function.CONTINUITY: (4e7, "OL")}


@dataclass
class Played:
    """A job as it was played: every step with its answer, and the job at its end."""

    fault: LikelyFault
    steps: list[tuple[dict[str, Any], OutlookAnswer]] = field(default_factory=list)
    job: JobAtHand | None = None
    why: str = ""

    @property
    def refused(self) -> list[str]:
        return [f"{step}: {answer.why}" for step, answer in self.steps if not answer.accepted]


def by_next(sheet_id: str, fault: LikelyFault) -> Played:
    """Play a job to its end, each step the next one of the step before."""
    sheet = find_sheet(sheet_id)
    part = sheet.known_part(fault.part)
    told = symptom_chances(sheet, part, fault.fault)
    symptom = max(told, key=lambda row: told[row]) if told else Symptom.STOPS
    device = "gfci" if sheet.volts < 180 else "rcd"
    more = {"device": device, "moment": "start"} if symptom is Symptom.TRIPS else {}
    complaint = {"symptoms": [symptom.value], **more}
    story = Story.model_validate({"sheet": sheet_id, "at": AT, "complaint": complaint, "steps": [{"wait_minutes": 1}]})
    played = Played(fault)
    with replay._told(story) as teller:
        step: dict[str, Any] = {"wait_minutes": 1}
        for place in range(MOST_STEPS):
            answer = replay._with_outlook(teller, replay._answer(teller, place, Step.model_validate(step)))
            played.steps.append((step, answer))
            played.job = teller.job()
            if not answer.accepted:
                played.why = "refused"
                break
            if played.job.case.ended is not None:
                break
            if answer.next is None:
                played.why = "nothing next"
                break
            step = _Player(sheet_id, fault, played).step(answer.next)
        else:
            played.why = "no end"
    return played


class _Player:
    """Whoever does what is next, on a machine with a fault in it until its part was changed."""

    def __init__(self, sheet_id: str, fault: LikelyFault, played: Played) -> None:
        self.sheet, self.fault, self.played = find_sheet(sheet_id), fault, played

    @property
    def is_mended(self) -> bool:
        done = (step.get("do", {}) for step, answer in self.played.steps if answer.accepted)
        return any(row.get("kind") == "changed" and row.get("part") == self.fault.part for row in done)

    def step(self, following: dict[str, Any]) -> dict[str, Any]:
        if following["do"] is not None:
            return {"do": following["do"]}
        if following["kind"] == "leak_test":
            return {"leak_test": self._leak_test(following["connected"])}
        done = self._done(following)
        return {"do": done} if done is not None else {"read": self._line(following["test"])}

    def _done(self, following: dict[str, Any]) -> dict[str, Any] | None:
        """Return what is answered by a word of somebody; None where a figure is asked."""
        kind, test = following["kind"], following["test"]
        if kind == "run":
            on_gfci = {"on_gfci": True} if self.sheet.volts < 180 else {}
            return {"kind": "run_watched", "outcome": self._outcome(), **on_gfci}
        if kind == "plate":
            return {"kind": "stamped", "part": following["part"], **self._stamp(following)}
        if kind == "look" and test == "codes":
            return {"kind": "codes_read", "scheme": self.sheet.service.schemes[0].id, "codes": []}
        if kind == "look" or test in looks(self.sheet):
            is_bad = (
                self.fault.look == test.partition(".")[2] and not self.is_mended and test.startswith(self.fault.part)
            )
            return {"kind": "checked", "check": test, "outcome": "bad" if is_bad else "good"}
        if kind == "prove" and test in {"current", "current_turned", "touch"}:
            return {"kind": "proof_made", "criterion": test, "text": "0.4 mA", "way": "differential"}
        return None

    def _line(self, test: str) -> str:
        volts = self.sheet.volts + 1
        fixed = {"outlet.ln": f"{volts:g}", "outlet.le": f"{volts:g}", "outlet.ne": "0.4", "outlet.hertz": "50"}
        proof = {row.rpartition(" ")[0].replace(" ", "."): row for row in proof_of(self.sheet)}
        if test in fixed:
            return f"{test.replace('.', ' ')} {fixed[test]}"
        if test == "source":
            return proof["source"]
        if test in {row.id for row in dead_tests(self.sheet)}:
            return (
                proof.get(test)
                or proof.get(test.replace("source.known", "source"))
                or f"{test.replace('.', ' ')} {volts:g}"
            )
        row = next(each for each in machine_tests(self.sheet, None) if each.id == test)
        return f"{test.replace('.', ' ')} {self._reads(row)}"

    def _reads(self, test: MachineTest) -> str:
        part, spec = found_test(self.sheet, test.part, test.name)
        wrong = () if self.is_mended or self.fault.fault is None else (self.fault.fault,)
        if not is_answered(self.sheet, part, spec):
            return self._unanswered(test)
        found = predict(self.sheet, probe_of(part, spec), configuration_of(self.sheet, part, spec), wrong)
        end, over = _ENDS.get(test.function, (math.inf, "OL"))
        if found.value is None or found.bound is not Bound.EXACT or found.value >= end:
            return over
        return f"{found.value:.4g}"

    def _unanswered(self, test: MachineTest) -> str:
        """Return the middle of the window; of the part that is faulty something else, where the test shows it."""
        low, high = test.window.interval.finite_lo, test.window.interval.finite_hi
        mode = self.fault.fault.mode if self.fault.fault is not None else None
        is_bad = test.part == self.fault.part and mode is not None and mode not in test.blind_to and not self.is_mended
        if is_bad:
            return "OL" if test.window.unit is Unit.OHM else f"{3 * (high or 1):.4g}"
        return f"{((low or 0) + (high if high is not None else 2 * (low or 1))) / 2:.4g}"

    def _outcome(self) -> str:
        chances = run_through(self.sheet)
        if self.is_mended:
            return "through"
        row = likely_faults(self.sheet).index(self.fault)
        return max(zip(chances.chance[row], chances.outcomes, strict=True))[1]

    def _stamp(self, following: dict[str, Any]) -> dict[str, Any]:
        rating = following.get("rating", "")
        return {"rating": rating, "value": getattr(self.sheet.known_part(following["part"]).ratings, rating)}

    def _leak_test(self, connected: list[str]) -> str:
        names = [part.id for part in leaky_parts(self.sheet, Method.INSULATION)]
        off = " ".join(f"-{name}" for name in names if name not in connected)
        wrong = self.fault.fault
        leaks = wrong is not None and wrong.mode is FaultMode.LEAK and wrong.part in connected and not self.is_mended
        return f"{off} {'0.05M' if leaks else '>299M'}".strip()


def ten_faults(sheet_id: str) -> Iterator[LikelyFault]:
    """Yield ten electrical faults of a sheet, of ten parts, the likeliest of each that a part's own test shows."""
    sheet = find_sheet(sheet_id)
    best: dict[str, LikelyFault] = {}
    for row in likely_faults(sheet):
        if row.fault is not None and (row.part not in best or row.weight > best[row.part].weight):
            best[row.part] = row
    yield from sorted(best.values(), key=lambda row: -row.weight)[:10]
