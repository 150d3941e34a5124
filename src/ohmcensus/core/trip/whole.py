"""What a whole machine leaks, as far as leak tests of it prove."""

from __future__ import annotations

from ohmcensus.core.job.case import Case
from ohmcensus.core.quantity import Interval
from ohmcensus.core.trip.house import HEALTHY_MACHINE_A
from ohmcensus.core.trip.of_case import MEGOHM, MILLIAMPERES, problem_of
from ohmcensus.core.trip.problem import Method


def machine_a(case: Case) -> Interval | None:
    """Return what the machine leaks as far as runs of it whole prove: by a leakage tester, else by its insulation.

    Insulation says nothing of the filter's capacitors: what a sound machine leaks by them is added to its upper end.
    """
    leakage = _whole(case, Method.LEAKAGE)
    if leakage is not None:
        return _bounded(leakage.scaled(1 / MILLIAMPERES))
    insulation = _whole(case, Method.INSULATION)
    if insulation is None:
        return None
    resistive = insulation.scaled(case.sheet.volts / MEGOHM)
    return _bounded(Interval(resistive.lo, resistive.hi + HEALTHY_MACHINE_A.hi))


def _whole(case: Case, method: Method) -> Interval | None:
    """Return what the last run of the whole machine proves, as it is now; None where there is none."""
    problem = problem_of(case, method)
    names = {part.id for part in problem.present}
    whole = [run for run in problem.counted if names <= run.connected | run.maybe]
    return whole[-1].interval if whole and not problem.proves_nothing else None


def _bounded(span: Interval) -> Interval:
    """Return a current with an end: no machine leaks more than an ampere for long."""
    return Interval(span.lo, max(span.lo, min(span.hi, 1.0)))
