"""Every test of a machine, with the window that holds at the temperature of the day."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

from ohmcensus.core.machine.at_plug import AT_PLUG_WORDS, cover_of, is_made_at_plug
from ohmcensus.core.machine.expected import expected, nominal_by_celsius
from ohmcensus.core.machine.plug_on import window_with_plug_on
from ohmcensus.core.machine.seen import blind_modes
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, Proves, TestSpec, Weaker
from ohmcensus.core.quantity.window import Window
from ohmcensus.core.sheet import Part, Sheet

# A tenth of what a healthy part reads is no healthy part any more (DOMAIN).
HEALTHY_SHARE = 0.1


@dataclass(frozen=True, slots=True)
class MachineTest:
    """A test of one part of one machine.

    Parameters
    ----------
    id
        "heater.pe": part and test.
    part, part_title, name, title
        The part and the test by themselves.
    between
        Both points, "heater.a" and "heater.pe".
    function, weaker
        What the instrument must do, and the lesser one that may serve.
    window
        What a good part reads, at the temperature that was asked for.
    blind_to
        Fault modes that a reading inside the window does not exclude.
    state, minutes, advice
        State of the machine, time for the test, what to do with the hands.
    touches_chassis, behind
        Whether the part can leak to earth by its build, and the panel that covers it.
    load_volts
        Supply of a plain resistive load.
    proves
        What a good reading proves of the whole machine.
    at_zero, is_reversed
        What a reading of nothing says; whether the plug is turned for it.
    healthy_ohm
        Insulation from which a part counts as healthy, None for every other test.
    nominal_at
        Nominal value by temperature, where none was stated and the value goes with it; None otherwise.
    """

    id: str
    part: str
    part_title: str
    name: str
    title: str
    aliases: tuple[str, ...]
    between: tuple[str, str]
    function: Function
    weaker: Weaker | None
    window: Window
    blind_to: tuple[FaultMode, ...]
    state: MachineState
    minutes: float
    advice: str
    touches_chassis: bool
    behind: str | None
    load_volts: float | None
    proves: Proves | None = None
    with_plug_on: Window | None = None
    at_zero: str = ""
    is_reversed: bool = False
    healthy_ohm: float | None = None
    nominal_at: Callable[[float], float] | None = None

    @property
    def stands(self) -> str:
        """How the machine stands for it, in words; at the plug nothing comes off."""
        is_at_plug = self.state is MachineState.UNPLUGGED and is_made_at_plug(self.between)
        return AT_PLUG_WORDS if is_at_plug else self.state.words


@lru_cache(maxsize=128)
def machine_tests(sheet: Sheet, celsius: float | None) -> tuple[MachineTest, ...]:
    """Return all tests in the order in which current passes the parts.

    Parameters
    ----------
    sheet
        The machine's type.
    celsius
        Temperature of the parts; None where nobody stated it: windows then span the usual room.

    Notes
    -----
    Provenance of a window: the sheet's own figure, else plate physics, else the common range.
    """
    return tuple(_test(sheet, part, spec, celsius) for part in sheet.parts for spec in listed_tests(sheet, part.id))


def _test(sheet: Sheet, part: Part, spec: TestSpec, celsius: float | None) -> MachineTest:
    """Join a part and a test of its kind."""
    window = expected(sheet, part, spec, celsius)
    is_insulation = spec.function is Function.INSULATION
    return MachineTest(
        id=f"{part.id}.{spec.name}",
        part=part.id,
        part_title=part.title,
        name=spec.name,
        title=spec.title,
        aliases=spec.aliases,
        between=(part.point(spec.between[0]), part.point(spec.between[1])),
        function=spec.function,
        weaker=spec.weaker,
        window=window,
        blind_to=blind_modes(sheet, part.id, spec.name),
        state=spec.state,
        minutes=spec.minutes,
        advice=spec.advice,
        touches_chassis=part.chassis,
        behind=cover_of(part, spec),
        load_volts=spec.load_volts,
        proves=spec.proves,
        with_plug_on=window_with_plug_on(sheet, part.id, spec.name, window),
        at_zero=spec.at_zero,
        is_reversed=spec.is_reversed,
        healthy_ohm=part.traits.healthy_insulation_ohm * HEALTHY_SHARE if is_insulation else None,
        nominal_at=nominal_by_celsius(sheet, part, spec) if celsius is None else None,
    )
