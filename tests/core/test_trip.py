"""Isolation: worked examples, an outside solver, and the properties that every version must keep."""

from __future__ import annotations

import cmath
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from ohmcensus.core.quantity import Interval
from ohmcensus.core.trip.isolate import Isolation, State, isolate
from ohmcensus.core.trip.problem import LeakyPart, Method, Polarity, Problem, Run, conductance_us

LIMIT = 0.5


def shown_by_tester(megohm: float) -> Interval:
    """±3 % ±2 digits of 0.01 MΩ."""
    return conductance_us(Interval(megohm, megohm), 0.03 * megohm + 0.02)


def over(full: float) -> Interval:
    return conductance_us(Interval(full), 0.03 * full + 0.02)


def dc(parts: str, *runs: tuple[str, str, Interval], limit: float = LIMIT) -> Isolation:
    suspects = tuple(LeakyPart(name, limit) for name in parts)
    return isolate(Problem(Method.INSULATION, suspects, tuple(Run(i, frozenset(c), g) for i, c, g in runs)))


def ac(parts: str, *runs: tuple[str, str, Interval]) -> Isolation:
    suspects = tuple(LeakyPart(name, 0.5) for name in parts)
    return isolate(Problem(Method.LEAKAGE, suspects, tuple(Run(i, frozenset(c), g) for i, c, g in runs)))


def test_the_first_worked_example() -> None:
    """Whole machine 0.50 MΩ, heater pulled 20.0 MΩ: the heater alone explains it (our design page)."""
    assert (shown_by_tester(0.5).lo, shown_by_tester(0.5).hi) == pytest.approx((1.8692, 2.1505), abs=5e-5)
    assert (shown_by_tester(20.0).lo, shown_by_tester(20.0).hi) == pytest.approx((0.0485, 0.0516), abs=5e-5)
    found = dc("CFHM", ("A", "CFHM", shown_by_tester(0.5)), ("B", "CFM", shown_by_tester(20.0)))
    heater = found.parts["H"]
    assert (heater.bounds.lo, heater.bounds.hi) == pytest.approx((1.8176, 2.1020), abs=5e-5)
    assert heater.state is State.GUILTY
    for other in "CFM":
        assert found.parts[other].state is State.CLEARED
        assert found.parts[other].bounds.hi == pytest.approx(0.0516, abs=5e-5)
    assert (found.explanations, found.next) == ((("H",),), None)


def test_the_second_worked_example() -> None:
    """Contradictory runs: which to repeat, and that a fourth run tells (our design page)."""
    runs = (("A", "CFHM", shown_by_tester(5.0)), ("B", "H", shown_by_tester(1.0)), ("C", "M", over(299)))
    assert (shown_by_tester(5.0).lo, shown_by_tester(5.0).hi) == pytest.approx((0.1934, 0.2070), abs=5e-5)
    assert (shown_by_tester(1.0).lo, shown_by_tester(1.0).hi) == pytest.approx((0.9524, 1.0526), abs=5e-5)
    found = dc("CFHM", *runs)
    assert set(found.conflict) == {"A", "B"}
    assert {row.state for row in found.parts.values()} == {State.OPEN}
    assert found.next is None
    again = dc("CFHM", *runs, ("D", "HM", shown_by_tester(0.99)))
    assert again.repeat == ("A",)


def test_the_third_worked_example() -> None:
    """Magnitudes of alternating currents do not subtract: 5 mA less 4 mA is 1 to 3 mA (our design page)."""
    found = ac("HF", ("A", "HF", Interval(5, 5)), ("B", "F", Interval(4, 4)))
    assert (found.parts["H"].bounds.lo, found.parts["H"].bounds.hi) == pytest.approx((1.0, 3.0))
    found = ac("HF", ("A", "HF", Interval(9.5)), ("B", "F", Interval(0.55, 0.65)))
    assert found.parts["H"].bounds.lo == pytest.approx(8.85)
    assert math.isinf(found.parts["H"].bounds.hi)


def test_a_dead_short_is_a_reading() -> None:
    """0.00 MΩ: at least 1/(0 + e), no upper end."""
    found = dc("HM", ("A", "HM", shown_by_tester(0.0)), ("B", "M", over(299)))
    assert found.parts["H"].bounds.lo == pytest.approx(1 / 0.02 - 1 / (299 * 0.97 - 0.02))
    assert math.isinf(found.parts["H"].bounds.hi)
    assert [row.state for row in found.parts.values()] == [State.GUILTY, State.CLEARED]


def test_a_spread_leak_is_told_with_shares() -> None:
    found = dc(
        "CFHM",
        ("A", "CFHM", Interval(1.2, 1.3)),
        *((name, name, Interval(0.28, 0.35)) for name in "CFHM"),
        limit=0.5,
    )
    assert found.is_spread
    assert found.explanations == ()
    assert found.shares is not None
    for share in found.shares.values():
        assert 0.2 < share.lo < 0.25 < share.hi < 0.3


def test_two_leaks_hide_behind_each_other() -> None:
    """One is found; the rest still leaks, so another is looked for."""
    found = dc("CFHM", ("A", "CFHM", Interval(9.8, 10.2)), ("B", "CFM", Interval(3.9, 4.1)))
    assert found.parts["H"].state is State.GUILTY
    assert found.explanations == (("C", "H"), ("F", "H"), ("H", "M"))
    assert found.next is not None
    assert "H" not in found.next.connected or found.next.is_at_part


@pytest.mark.parametrize(
    ("change", "state"),
    [
        ({}, State.CLEARED),
        ({"maybe": frozenset("M"), "connected": frozenset("CF")}, State.OPEN),
        ({"is_intermittent": True}, State.OPEN),
        ({"is_doubtful": True}, State.OPEN),
    ],
    ids=["sure", "perhaps connected", "comes and goes", "doubtful"],
)
def test_what_a_pass_clears(change: dict[str, object], state: State) -> None:
    run = replace(Run("B", frozenset("CFM"), Interval(0.04, 0.05)), **change)  # type: ignore[arg-type]
    parts = tuple(LeakyPart(name, LIMIT) for name in "CFHM")
    whole = Run("A", frozenset("CFHM"), Interval(1.9, 2.1))
    assert isolate(Problem(Method.INSULATION, parts, (whole, run))).parts["M"].state is state


def test_without_a_proved_earth_nothing_is_said() -> None:
    problem = Problem(
        Method.INSULATION, (LeakyPart("H", 1.0),), (Run("A", frozenset("H"), Interval(5, 6)),), is_earth_ok=False
    )
    found = isolate(problem)
    assert (found.is_refused, found.parts["H"].state, found.next) == (True, State.OPEN, None)


def test_a_short_that_reads_nothing_at_all_has_a_finite_bound() -> None:
    """A tester without a stated error that shows 0.00 proves less than an ohm, not infinite conductance."""
    found = dc("H", ("A", "H", conductance_us(Interval(0.0, 0.0), 0.0)))
    assert (found.parts["H"].state, found.parts["H"].bounds.lo) == (State.GUILTY, 1e6)


def test_one_polarity_proves_no_upper_end() -> None:
    """A leak near the neutral end hardly shows while line is live; both ways add up to all of it."""
    parts = (LeakyPart("H", 0.5),)
    normal = Run("A", frozenset("H"), Interval(0.05, 0.1), polarity=Polarity.NORMAL)
    turned = Run("B", frozenset("H"), Interval(2.9, 3.1), polarity=Polarity.REVERSED)
    one = isolate(Problem(Method.LEAKAGE, parts, (normal,))).parts["H"]
    assert (one.state, one.bounds.hi) == (State.OPEN, math.inf)
    both = isolate(Problem(Method.LEAKAGE, parts, (normal, turned))).parts["H"]
    assert both.state is State.GUILTY
    assert (both.bounds.lo, both.bounds.hi) == pytest.approx((2.9, 3.2))


# Random machines, their runs read by a tester of ±3 %.
LEAKS = st.sampled_from([0.0, 0.0, 0.0, 0.002, 0.05, 0.3, 0.8, 2.0, 40.0, 500.0])


@st.composite
def machines(draw: st.DrawFn) -> tuple[dict[str, float], list[Run]]:
    names = "ABCDEFG"[: draw(st.integers(2, 7))]
    leaks = {name: draw(LEAKS) for name in names}
    runs = []
    for index in range(draw(st.integers(1, 7))):
        connected = frozenset(draw(st.lists(st.sampled_from(names), min_size=1, unique=True)))
        maybe = frozenset(draw(st.lists(st.sampled_from(names), max_size=2))) - connected
        helped = {name for name in maybe if draw(st.booleans())}
        true = sum(leaks[name] for name in connected | helped)
        shown = true * draw(st.floats(0.98, 1.02))
        interval = Interval(max(0.0, shown / 1.03 - 0.003), shown / 0.97 + 0.003)
        runs.append(Run(f"r{index}", connected, interval, maybe))
    return leaks, runs


def problem_of(leaks: dict[str, float], runs: list[Run], method: Method = Method.INSULATION) -> Problem:
    return Problem(method, tuple(LeakyPart(name, LIMIT) for name in leaks), tuple(runs))


@given(machines())
def test_the_truth_lies_inside_and_a_further_run_never_widens(made: tuple[dict[str, float], list[Run]]) -> None:
    leaks, runs = made
    before: Isolation | None = None
    for count in range(1, len(runs) + 1):
        found = isolate(problem_of(leaks, runs[:count]))
        assert found.conflict == ()
        for name, leak in leaks.items():
            bounds = found.parts[name].bounds
            assert bounds.lo - 1e-6 <= leak <= bounds.hi + 1e-6
            if before is not None:
                assert bounds.lo >= before.parts[name].bounds.lo - 1e-6
                assert bounds.hi <= before.parts[name].bounds.hi + 1e-6
        before = found


@given(machines(), st.randoms(use_true_random=False))
def test_order_of_runs_and_names_of_parts_do_not_matter(
    made: tuple[dict[str, float], list[Run]], chance: object
) -> None:
    leaks, runs = made
    new = {name: f"part {index}" for index, name in enumerate(reversed(leaks))}
    renamed = [
        replace(run, connected=frozenset(new[p] for p in run.connected), maybe=frozenset(new[p] for p in run.maybe))
        for run in runs
    ]
    chance.shuffle(renamed)  # type: ignore[attr-defined]
    one = isolate(problem_of(leaks, runs))
    other = isolate(problem_of({new[name]: leak for name, leak in leaks.items()}, renamed))
    for name in leaks:
        mine, theirs = one.parts[name], other.parts[new[name]]
        assert mine.state is theirs.state
        assert (mine.bounds.lo, mine.bounds.hi) == pytest.approx((theirs.bounds.lo, theirs.bounds.hi), abs=1e-6)


@given(machines(), st.data())
def test_perhaps_connected_only_widens(made: tuple[dict[str, float], list[Run]], data: st.DataObject) -> None:
    leaks, runs = made
    index = data.draw(st.integers(0, len(runs) - 1))
    part = data.draw(st.sampled_from(sorted(runs[index].connected)))
    looser = replace(runs[index], connected=runs[index].connected - {part}, maybe=runs[index].maybe | {part})
    sure = isolate(problem_of(leaks, runs))
    perhaps = isolate(problem_of(leaks, [*runs[:index], looser, *runs[index + 1 :]]))
    for name in leaks:
        assert perhaps.parts[name].bounds.lo <= sure.parts[name].bounds.lo + 1e-6
        assert perhaps.parts[name].bounds.hi >= sure.parts[name].bounds.hi - 1e-6


@given(machines(), st.floats(1.3, 30), st.data())
def test_a_conflict_can_spare_none_of_its_runs(
    made: tuple[dict[str, float], list[Run]], factor: float, data: st.DataObject
) -> None:
    leaks, runs = made
    index = data.draw(st.integers(0, len(runs) - 1))
    wrong = replace(runs[index], interval=runs[index].interval.scaled(factor))
    spoilt = [*runs[:index], wrong, *runs[index + 1 :]]
    found = isolate(problem_of(leaks, spoilt))
    assume(found.conflict)
    guilty = [run for run in spoilt if run.id in found.conflict]
    assert isolate(problem_of(leaks, guilty)).conflict
    for run in guilty:
        assert not isolate(problem_of(leaks, [other for other in guilty if other is not run])).conflict
    assert set(found.repeat) <= {run.id for run in spoilt}
    assert found.repeat


@given(machines(), st.sampled_from([1e-3, 1e3]))
def test_another_unit_changes_no_verdict(made: tuple[dict[str, float], list[Run]], scale: float) -> None:
    leaks, runs = made
    scaled = [replace(run, interval=run.interval.scaled(scale)) for run in runs]
    parts = tuple(LeakyPart(name, LIMIT * scale) for name in leaks)
    one = isolate(problem_of(leaks, runs))
    other = isolate(Problem(Method.INSULATION, parts, tuple(scaled)))
    close = {n for n, r in one.parts.items() if min(abs(r.bounds.lo - LIMIT), abs(r.bounds.hi - LIMIT)) < 1e-4}
    assert all(one.parts[name].state is other.parts[name].state for name in leaks.keys() - close)


@given(
    st.lists(st.tuples(st.floats(0, 5), st.floats(0, math.pi / 2)), min_size=2, max_size=5),
    st.lists(st.sets(st.integers(0, 4), min_size=1), min_size=1, max_size=6),
)
def test_the_truth_of_phasors_lies_inside(phasors: list[tuple[float, float]], sets: list[set[int]]) -> None:
    """Resistive and capacitive leaks of the first quadrant, read without error."""
    names = "ABCDE"[: len(phasors)]
    runs = []
    for index, chosen in enumerate(sets):
        connected = frozenset(names[i] for i in chosen if i < len(names))
        if connected:
            own = [cmath.rect(*phasors[names.index(name)]) for name in connected]
            total = abs(sum(own))
            runs.append(Run(str(index), connected, Interval(max(0.0, total - 1e-6), total + 1e-6)))
    assume(runs)
    found = isolate(problem_of(dict.fromkeys(names, 0.0), runs, Method.LEAKAGE))
    assert found.conflict == ()
    for (magnitude, _), name in zip(phasors, names, strict=True):
        bounds = found.parts[name].bounds
        assert bounds.lo - 1e-5 <= magnitude <= bounds.hi + 1e-5


def test_the_next_run_is_made_from_how_the_machine_stands() -> None:
    """Panels that are off and plugs that are pulled are free."""
    parts = (
        LeakyPart("heater", 1.0, 0.6, 1.0, "back"),
        LeakyPart("motor", 1.0, 0.2, 1.0, "back"),
        LeakyPart("pump", 1.0, 0.1, 1.0, "front"),
        LeakyPart("filter", 1.0, 0.1, 1.0, "top"),
    )
    panels = {"back": 4.0, "front": 6.0, "top": 3.0}
    first = isolate(Problem(Method.INSULATION, parts, (), panels)).next
    assert first is not None
    assert (set(first.connected), first.pull, first.minutes) == ({"heater", "motor", "pump", "filter"}, (), 1.5)
    whole = Run("A", frozenset(first.connected), Interval(19, 21))
    closed = isolate(Problem(Method.INSULATION, parts, (whole,), panels)).next
    opened = isolate(Problem(Method.INSULATION, parts, (whole,), panels, frozenset({"back"}))).next
    assert closed is not None
    assert opened is not None
    assert closed.pull == opened.pull == ("heater",)
    assert closed.minutes - opened.minutes == pytest.approx(4.0)


def test_the_usual_order_and_ours_on_the_same_machine() -> None:
    """Common practice, no source: whole machine over 10 mA on a scale that ends there, cord and filter 0.1 mA, without
    heater and motor 0.1 mA, motor back 0.1 mA, heater alone over range: the heater is guilty, motor and filter are not.
    Ours needs fewer runs. Healthy machines read about 0.1 mA and must not be called faulty.
    """
    parts = tuple(
        LeakyPart(name, 0.75, weight)
        for name, weight in (("cord", 0.02), ("filter", 0.12), ("heater", 0.55), ("motor", 0.15), ("rest", 0.1))
    )
    small, large = Interval(0.09, 0.11), Interval(9.5)
    everything = frozenset(part.id for part in parts)
    usual = (
        Run("1", everything, large),
        Run("2", frozenset({"cord", "filter"}), small),
        Run("3", everything - {"heater", "motor"}, small),
        Run("4", everything - {"heater"}, small),
        Run("5", frozenset({"heater"}), large),
    )
    found = isolate(Problem(Method.LEAKAGE, parts, usual))
    assert found.parts["heater"].state is State.GUILTY
    assert {found.parts[name].state for name in ("motor", "filter", "cord", "rest")} == {State.CLEARED}
    runs: tuple[Run, ...] = ()
    while (following := isolate(Problem(Method.LEAKAGE, parts, runs)).next) is not None:
        connected = frozenset(following.connected)
        runs = (*runs, Run(str(len(runs)), connected, large if "heater" in connected else small))
    assert isolate(Problem(Method.LEAKAGE, parts, runs)).parts["heater"].state is State.GUILTY
    assert len(runs) < len(usual)
    healthy = isolate(Problem(Method.LEAKAGE, parts, (Run("1", everything, small),)))
    assert {row.state for row in healthy.parts.values()} == {State.CLEARED}


@pytest.mark.parametrize("method", list(Method))
def test_thirty_parts_and_sixty_runs_are_answered(method: Method) -> None:
    chance = np.random.default_rng(3)
    names = [f"p{index}" for index in range(30)]
    leaks = dict(zip(names, np.where(chance.random(30) < 0.1, 20.0, 0.01), strict=True))
    runs = []
    for index in range(60):
        connected = frozenset(chance.choice(names, size=int(chance.integers(1, 30)), replace=False).tolist())
        true = sum(leaks[name] for name in connected)
        runs.append(Run(str(index), connected, Interval(true * 0.97, true * 1.03)))
    found = isolate(problem_of({name: float(leak) for name, leak in leaks.items()}, runs, method))
    assert found.conflict == ()
    assert all(
        found.parts[name].bounds.lo - 1e-6 <= leak <= found.parts[name].bounds.hi + 1e-6 for name, leak in leaks.items()
    )


def test_sound_parts_are_not_taken_to_leak_near_their_limits() -> None:
    """Ten parts, 3.5 µS left beside a guilty heater: a second fault is looked for by halves, not part by part."""
    names = ("heater", "motor", *(f"p{index}" for index in range(8)))
    parts = tuple(LeakyPart(name, 1.0, 0.3 if name in {"heater", "motor"} else 0.05) for name in names)
    runs = (
        Run("1", frozenset(names), Interval(12.5, 13.3)),
        Run("2", frozenset({"heater"}), Interval(8.6, 9.1)),
        Run("3", frozenset(names) - {"heater"}, Interval(3.5, 3.8)),
    )
    following = isolate(Problem(Method.INSULATION, parts, runs)).next
    assert following is not None
    assert "motor" in following.pull or following.connected == ("motor",)
