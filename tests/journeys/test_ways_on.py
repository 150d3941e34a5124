"""Every way on that leads somewhere: the place is on its page, and is brought before the eyes."""

from __future__ import annotations

import ast
from collections.abc import Iterator
from pathlib import Path
from uuid import uuid4

from playwright.sync_api import expect

import ohmcensus
from ohmcensus.core.event import Changed, Hazard, HazardFound, Intervention
from ohmcensus.core.proof.criteria import criteria
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.job.open_job import NewJob, open_job
from tests.journeys.conftest import Visit
from tests.working import happened, logged, prove_dead


def places() -> set[tuple[str, str]]:
    """Return room and place of every way on that is written with both in the source: found there, never copied."""
    return {
        found for file in Path(ohmcensus.__file__).parent.rglob("*.py") for found in _in(ast.parse(file.read_text()))
    }


def _in(tree: ast.AST) -> Iterator[tuple[str, str]]:
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "go":
            said = [each.value for each in node.args[2:] if isinstance(each, ast.Constant)]
            if len(said) == len(node.args) - 2:
                yield str(said[0]), str(said[1]) if said[1:] else ""


def job_in_need(visit: Visit) -> str:
    """Open a job on which every place has its reason: dangers, a change, hands of another device."""
    job = open_job(visit.context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id
    prove_dead(visit.context, job)
    for line in ("lock unlocked 0.3", "lock unlocked OL"):
        logged(visit.context, job, line)
    for body in (Changed(part="heater", intervention=Intervention.REPLACED), HazardFound(hazard=Hazard.SHOCK)):
        happened(visit.context, job, body)
    return job


def test_every_way_on_leads_to_a_place_that_is_there(empty: Visit) -> None:
    job = job_in_need(empty)
    found = places()
    assert len(found) > 12
    page = empty.open(f"/jobs/{job}/safe")
    for room, at in sorted(found):
        page.goto(f"{empty.address}/jobs/{job}/{room}#{at}")
        place = page.locator(f"[id='{at}']") if at else page.get_by_role("main")
        expect(place, f"{room}#{at}").to_be_visible()


def test_every_line_and_criterion_is_a_place(empty: Visit) -> None:
    job = job_in_need(empty)
    with empty.context.store.read() as session:
        taken = take(empty.context, session, job)
        now = empty.context.clock()
        wanted = [row.id for row in criteria(taken.case, taken.safety(now))]
        lines = ["cord.pe", "cord.insulation", "heater.pe", "heater.earth", "lock.unlocked", "cord.across"]
        page = empty.open(f"/jobs/{job}/prove")
    for name in wanted:
        expect(page.locator(f"[id='{name}']"), name).to_be_attached()
    for line in lines:
        page.goto(f"{empty.address}/jobs/{job}/trace#{line}")
        expect(page.locator(f"[data-line='{line}'], [id='{line}']").first, line).to_be_visible()
