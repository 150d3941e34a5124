"""Whoever asks whether a reading passes gets one answer: judge, verdict, danger, leak test, spare and proof."""

from __future__ import annotations

from dataclasses import replace

import pytest
from tests.core.case_of import START, Log, proof_of

from ohmcensus.core.event import Event, Isolated, RunMade
from ohmcensus.core.intake import DataPlate
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import Verdict, choose_use, judge
from ohmcensus.core.judgement.passes import WHOLE_LINE, Pass, kept, named_test, passes
from ohmcensus.core.limits.profile import BUILT_IN, LimitProfile
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.meter import GENERIC_METERS, Function
from ohmcensus.core.proof import criteria
from ohmcensus.core.quantity import Indication, Unit, parse_indication
from ohmcensus.core.safety.words import DangerId
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.shelf import AcceptanceReading, Spare, acceptance
from ohmcensus.core.trip.isolate import State, isolate
from ohmcensus.core.trip.of_case import problem_of
from ohmcensus.core.trip.problem import Method
from ohmcensus.services.at_hand.sheets import all_sheets

TESTER = next(meter for meter in GENERIC_METERS if Function.INSULATION in meter.functions)
# Around every limit that a profile or a standard can set, surely beside it and too near to tell.
MEGOHMS = ("0.02", "0.29", "0.30", "0.33", "0.50", "0.97", "1.00", "1.08", "1.94", "2.00", "2.20", "20", ">299")
OWN = LimitProfile(id="own", title="Our own", basis="a firm's own", heating_megohm=0.5, class_ii_megohm=7.0)
PROFILES = (*BUILT_IN, OWN)


@pytest.fixture(params=[row.id for row in PROFILES])
def profile(request: pytest.FixtureRequest) -> LimitProfile:
    return next(row for row in PROFILES if row.id == request.param)


@pytest.fixture(params=sorted(all_sheets()))
def sheet(request: pytest.FixtureRequest) -> Sheet:
    return all_sheets()[request.param]


def log_of(sheet: Sheet, profile: LimitProfile, protection_class: str) -> Log:
    log = Log(sheet)
    plate = DataPlate(protection_class="II" if protection_class == "II" else "I")
    log.case = replace(log.case, profile=profile, plate=plate)
    return log.did(Isolated()).read(*proof_of(sheet))


@pytest.mark.parametrize("protection_class", ["I", "II"])
def test_all_who_ask_agree_on_insulation(sheet: Sheet, profile: LimitProfile, protection_class: str) -> None:
    start = log_of(sheet, profile, protection_class)
    terms = start.case.terms
    parts = [p.id for p in sheet.parts if (t := named_test(f"{p.id}.pe", terms)) and t.function is Function.INSULATION]
    for line in (WHOLE_LINE, *(f"{part}.pe" for part in parts)):
        test = named_test(line, terms)
        assert test is not None
        for text in MEGOHMS:
            log = Log(sheet)
            log.case, log.now = start.case, start.now
            log.read(f"{line.replace('.', ' ')} {text}M", meter=TESTER)
            reading = log.case.readings[-1]
            said = {"judge": passes(reading, terms)}
            use = choose_use(f"{text}M", test, [TESTER], function=test.function)
            said["verdict"] = of_verdict(judge(use, test).verdict)
            is_danger = log.safety.danger(DangerId.INSULATION) is not None
            assert is_danger == (said["judge"] is Pass.BAD), (line, text, said)
            if line == WHOLE_LINE:
                said["proof"] = of_proof(log, text)
            else:
                said["leak test"] = of_leak_test(start.case, test.part, text)
                said["spare"] = of_spare(terms, test.part, test.name, text)
            assert len(set(said.values())) == 1, (line, text, said)


def of_verdict(verdict: Verdict) -> Pass:
    if verdict is Verdict.INSIDE:
        return Pass.GOOD
    return Pass.BAD if verdict.is_outside else Pass.UNSURE


def of_proof(log: Log, text: str) -> Pass:
    row = next(row for row in criteria(log.case, log.safety) if row.id == "insulation")
    assert row.window is not None
    return kept(TESTER.interval_of(read(text), Function.INSULATION), row.window.interval)


def of_leak_test(case: Case, part: str, text: str) -> Pass:
    """Isolate with one run of the part alone: guilty is bad, cleared is good."""
    body = RunMade(method="insulation", connected=(part,), text=text, instrument=TESTER)
    run = Event("run", body, START.isoformat(), order=99)
    found = isolate(problem_of(replace(case, events=(*case.events, run)), Method.INSULATION))
    return {State.GUILTY: Pass.BAD, State.CLEARED: Pass.GOOD, State.OPEN: Pass.UNSURE}[found.parts[part].state]


def of_spare(terms: Terms, part: str, name: str, text: str) -> Pass:
    reading = AcceptanceReading(
        id="00000000-0000-4000-8000-000000000001", test=name, text=f"{text}M", meter=TESTER, celsius=20.0, at=""
    )
    rows = acceptance(Spare(sheet=terms.sheet.id, part=part, readings=(reading,)), terms, 20.0).rows
    judged = next(judgement for test, _, judgement in rows if test.name == name)
    assert judged is not None
    return of_verdict(judged.verdict)


def read(text: str) -> Indication:
    return parse_indication(f"{text}M", Unit.OHM)
