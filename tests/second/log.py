"""The log of one history, and what a person reads off it with a finger on the page."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import update_wrapper
from typing import Concatenate, ParamSpec, TypeVar, cast

TEN, SLACK, SLIP = timedelta(minutes=10), timedelta(seconds=90), timedelta(minutes=2)


@dataclass(frozen=True)
class Said:
    """One record: what, when, by which device; the reason that alone let it through.

    ``back`` is the place of the record that it takes back, corrects or doubts; a refused one came in from a file.
    """

    what: str
    at: datetime
    device: str = ""
    reason: str = ""
    back: int | None = None
    is_refused: bool = False


Log = tuple[Said, ...]
Answer = TypeVar("Answer")
More = ParamSpec("More")
_KNOWN: dict[tuple[object, ...], object] = {}
DECIDED: set[str] = set()


def begin() -> None:
    """Forget the history before: one is looked at at a time, so that its length alone tells a beginning of it."""
    _KNOWN.clear()
    DECIDED.clear()


def decided(rule: str) -> bool:
    """Count a rule that decided something in this history; true, so that it stands in a condition."""
    DECIDED.add(rule)
    return True


def remembered(ask: Callable[Concatenate[Log, More], Answer]) -> Callable[Concatenate[Log, More], Answer]:
    """Ask once of each beginning of the log: what is asked of all of them is asked again and again."""

    def answer(log: Log, /, *more: More.args, **named: More.kwargs) -> Answer:
        key = (ask, len(log), more)
        if key not in _KNOWN:
            _KNOWN[key] = ask(log, *more, **named)
        return cast("Answer", _KNOWN[key])

    update_wrapper(answer, ask)
    return answer


def places(log: Log, names: Iterable[str], since: int = -1) -> list[int]:
    """Return the places after one at which something of some names stands."""
    wanted = {*names}
    return [place for place in range(since + 1, len(log)) if log[place].what in wanted]


def last(log: Log, *names: str) -> int:
    """Return the place of the last record of some names, -1 where there is none."""
    return max(places(log, names), default=-1)


@remembered
def gone(log: Log) -> frozenset[int]:
    """Return the places of what was taken back, corrected or is doubted by now."""
    return frozenset(said.back for said in log if said.back is not None and not said.is_refused)


@remembered
def clock(log: Log) -> tuple[tuple[datetime, bool], ...]:
    """Return for each record the latest moment by then, and whether the clock was set back by it."""
    found: list[tuple[datetime, bool]] = []
    for said in log:
        is_back = bool(found) and said.at < found[-1][0] - SLACK
        latest = said.at if is_back or not found else max(found[-1][0], said.at)
        if said.at < latest:
            decided("16 a clock that creeps back gains nothing")
        found.append((latest, is_back))
    return tuple(found)


def when(log: Log, place: int) -> datetime:
    """Return the moment of a record: never before one that went ahead of it, nor after one that set the clock back."""
    known = clock(log)
    return min([known[place][0], *(at for at, is_back in known[place + 1 :] if is_back)])


def gap(log: Log, earlier: int, later: int) -> timedelta:
    """Return what lay between two records, as it stood when the later one was written."""
    until = log[: later + 1]
    return when(until, later) - when(until, earlier)


def is_set_back(log: Log, since: int) -> bool:
    """Tell whether the clock was set back after a place."""
    return any(is_back for _, is_back in clock(log)[since + 1 :])


def latest(log: Log, now: datetime) -> datetime:
    """Return the moment from which minutes run."""
    return max(now, clock(log)[-1][0]) if log else now


def is_apart(moments: list[datetime], many: int) -> bool:
    """Tell whether so many of some moments are each a minute or more after the one before that counted."""
    counted: list[datetime] = []
    for at in moments:
        if not counted or at - counted[-1] >= timedelta(minutes=1):
            counted.append(at)
    return len(counted) >= many
