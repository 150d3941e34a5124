"""Isolations as JSON: ``ohmcensus-isolation/1`` in, the answer out."""

from __future__ import annotations

import json
import math
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ohmcensus.core.errors import InputError, ReadingTextError
from ohmcensus.core.machine.tests import HEALTHY_SHARE
from ohmcensus.core.parts.kind import HEALTHY_INSULATION_OHM
from ohmcensus.core.quantity import Bound, Interval
from ohmcensus.core.text.names import nearest
from ohmcensus.core.text.trimmed import Trimmed
from ohmcensus.core.trip.advice import one_way
from ohmcensus.core.trip.isolate import Isolation
from ohmcensus.core.trip.problem import LeakyPart, Method, Polarity, Problem, Run, conductance_us, run_indication

FORMAT = "ohmcensus-isolation/1"
LARGEST_FILE = 1_000_000
# A tenth of what a healthy part reads, 2 MΩ, as a conductance.
HEALTHY_US = 1e6 / (HEALTHY_SHARE * HEALTHY_INSULATION_OHM)
PartName = Annotated[str, Trimmed(60, 1)]
Positive = Annotated[float, Field(gt=0, le=1e9, allow_inf_nan=False)]
NotNegative = Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)]


class _Model(BaseModel):
    model_config = ConfigDict(frozen=True, extra="ignore")


class PartEntry(_Model):
    """A part that may leak; its limit in the unit of the instrument."""

    id: PartName
    limit_us: Positive | None = None
    limit_ma: Positive | None = None
    weight: Positive = 1.0
    minutes: NotNegative = 1.0
    behind: str | None = None


class Instrument(_Model):
    """The tester: ±(percent of reading + digits of its last place), and where its scale ends."""

    kind: Method
    volts: Positive | None = None
    percent: NotNegative = 0.0
    digits: NotNegative = 0.0
    resolution: NotNegative = 0.0
    full_scale: Positive | None = None

    def error(self, value: float) -> float:
        """Return the greatest error at a reading."""
        return self.percent / 100 * value + self.digits * self.resolution


class RunEntry(_Model):
    """One test, its reading as it was shown."""

    id: PartName
    connected: tuple[PartName, ...] = ()
    maybe: tuple[PartName, ...] = ()
    reading: Annotated[str, Trimmed(40, 1)]
    doubtful: bool = False
    intermittent: bool = False
    polarity: Polarity | None = None


class IsolationFile(_Model):
    """A whole isolation.

    Attributes
    ----------
    supply
        What feeds the machine; leakage currents are computed for one live pole and an earthed neutral only.
    """

    format: Literal["ohmcensus-isolation/1"]
    parts: tuple[PartEntry, ...] = Field(min_length=1, max_length=60)
    panels: dict[str, NotNegative] = Field(default_factory=dict)
    open_panels: tuple[str, ...] = ()
    instrument: Instrument
    runs: tuple[RunEntry, ...] = Field(default=(), max_length=300)
    earth_ok: bool = True
    supply: Literal["earthed_neutral", "split_phase", "isolated", "three_phase"] = "earthed_neutral"


def read_isolation(text: str) -> Problem:
    """Return the isolation that a file states.

    Raises
    ------
    InputError
        With what is wrong, where, and what to do.
    """
    if len(text) > LARGEST_FILE:
        raise InputError(
            what=f"the file has {len(text) // 1000} kB", remedy="an isolation is far smaller", field="file"
        )
    try:
        raw = json.loads(text)
    except (ValueError, RecursionError):
        remedy = "check quotes, commas and brackets"
        raise InputError(what="the file is not JSON", remedy=remedy, field="file") from None
    if not isinstance(raw, dict) or raw.get("format") != FORMAT:
        stated = raw.get("format") if isinstance(raw, dict) else None
        is_newer = isinstance(stated, str) and stated.startswith("ohmcensus-isolation/")
        remedy = "update Ohmcensus to read it" if is_newer else f'begin with "format": "{FORMAT}"'
        raise InputError(what=f"format {stated!r} is not {FORMAT}", remedy=remedy, field="format")
    try:
        return _problem(IsolationFile.model_validate(raw))
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        where = ".".join(str(key) for key in first["loc"])
        raise InputError(what=f"{where}: {first['msg']}", remedy="correct it", field=where) from None


def _problem(file: IsolationFile) -> Problem:
    """Return the typed isolation, refusing what contradicts itself."""
    if file.instrument.kind is Method.LEAKAGE and file.supply != "earthed_neutral":
        what = f"supply {file.supply}: leaks of two live poles can cancel, so currents prove no bounds"
        raise InputError(what=what, remedy="measure each pole by itself, or use an insulation tester", field="supply")
    parts = tuple(_suspect(entry, file) for entry in file.parts)
    names = [part.id for part in parts]
    _refuse_doubled(names, "part")
    _refuse_doubled([run.id for run in file.runs], "run")
    runs = tuple(_run(entry, file.instrument, names) for entry in file.runs)
    return Problem(file.instrument.kind, parts, runs, file.panels, frozenset(file.open_panels), file.earth_ok)


def _suspect(entry: PartEntry, file: IsolationFile) -> LeakyPart:
    is_insulation = file.instrument.kind is Method.INSULATION
    limit = entry.limit_us if is_insulation else entry.limit_ma
    if limit is None:
        key = "limit_us" if is_insulation else "limit_ma"
        raise InputError(what=f"part {entry.id} has no {key}", remedy="state its limit", field=key)
    if entry.behind is not None and entry.behind not in file.panels:
        what = f"part {entry.id} is behind '{entry.behind}', which is not a panel"
        raise InputError(what=what, remedy="add the panel with its minutes", field="behind")
    healthy = HEALTHY_US if is_insulation else math.inf
    return LeakyPart(entry.id, limit, entry.weight, entry.minutes, entry.behind, healthy)


def _refuse_doubled(names: list[str], what: str) -> None:
    for name in names:
        if names.count(name) > 1:
            raise InputError(what=f"{what} '{name}' stands twice", remedy=f"give each {what} its own id", field="id")


def _run(entry: RunEntry, instrument: Instrument, names: list[str]) -> Run:
    for part in (*entry.connected, *entry.maybe):
        if part not in names:
            close = nearest(part, names)
            remedy = f"did you mean {close}?" if close else f"parts are {', '.join(names)}"
            raise InputError(what=f"run {entry.id}: no part '{part}'", remedy=remedy, field="connected")
    if not entry.connected and not entry.maybe:
        raise InputError(what=f"run {entry.id} names no part", remedy="say what was connected", field="connected")
    return Run(
        id=entry.id,
        connected=frozenset(entry.connected),
        interval=_interval(entry, instrument),
        maybe=frozenset(entry.maybe) - frozenset(entry.connected),
        is_doubtful=entry.doubtful,
        is_intermittent=entry.intermittent,
        polarity=entry.polarity if instrument.kind is Method.LEAKAGE else None,
    )


def _interval(entry: RunEntry, instrument: Instrument) -> Interval:
    """Return what a reading proves of all connected parts together, in µS or mA."""
    is_insulation = instrument.kind is Method.INSULATION
    unit = "MΩ" if is_insulation else "mA"
    try:
        shown = run_indication(entry.reading, instrument.kind)
    except ReadingTextError as error:
        raise InputError(what=f"run {entry.id}: {error}", field="reading") from None
    full = instrument.full_scale
    value = full if shown.value is None else shown.value * (1e-6 if is_insulation else 1e3)
    if value is None:
        what = f"run {entry.id}: '{entry.reading}' without a full_scale"
        raise InputError(what=what, remedy="state where the tester's scale ends", field="full_scale")
    if value < 0:
        what = f"run {entry.id}: {entry.reading} {unit} is negative"
        raise InputError(what=what, remedy="no tester shows that: correct the reading", field="reading")
    if full is not None and value > full:
        what = f"run {entry.id}: {value:g} {unit} is beyond the tester's scale of {full:g}"
        remedy = f"readings are in {unit}" + ("" if is_insulation else "; was it µA?")
        raise InputError(what=what, remedy=remedy, field="reading")
    is_end = full is not None and value >= full and shown.bound is Bound.EXACT
    bound = Bound.ABOVE if is_end else shown.bound
    error_ = instrument.error(value)
    if is_insulation:
        ends = {Bound.ABOVE: Interval(value), Bound.BELOW: Interval(0.0, value)}
        return conductance_us(ends.get(bound, Interval(value, value)), error_)
    least = 0.0 if bound is Bound.BELOW else max(0.0, value - error_)
    return Interval(least, math.inf if bound is Bound.ABOVE else value + error_)


def answer_of(problem: Problem, found: Isolation) -> dict[str, Any]:
    """Return the answer as plain data; unbounded ends are null."""
    unit = "us" if problem.method is Method.INSULATION else "ma"
    is_void = bool(found.conflict) or found.is_refused
    answer: dict[str, Any] = {
        "parts": {
            name: {
                f"lower_{unit}": None if is_void else row.bounds.lo,
                f"upper_{unit}": None if is_void or math.isinf(row.bounds.hi) else row.bounds.hi,
                "state": row.state.value,
                "presumed": row.is_presumed,
            }
            for name, row in found.parts.items()
        },
        "conflict": list(found.conflict) or None,
        "repeat": list(found.repeat),
        "explanations": [list(row) for row in found.explanations],
        "unhealthy": list(found.unhealthy),
        "turn_plug": one_way(problem) if found.next is None and not is_void else [],
        "spread": found.is_spread,
        "next": None,
    }
    if found.shares is not None:
        answer["shares"] = {name: {"lower": share.lo, "upper": share.hi} for name, share in found.shares.items()}
    if found.is_refused:
        answer["refused"] = "the protective conductor is not proved: no leakage verdict before it passes"
    if found.next is not None:
        answer["next"] = {
            "connected": list(found.next.connected),
            "pull": list(found.next.pull),
            "refit": list(found.next.refit),
            "minutes": round(found.next.minutes, 2),
        }
    return answer
