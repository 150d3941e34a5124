"""What a meter must show on a machine, asked by names as a person types them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ohmcensus.core.errors import InputError
from ohmcensus.core.machine.coverage import configuration_of, probe_of
from ohmcensus.core.machine.netlist import Configuration, PartFault, netlist, not_on_sheet
from ohmcensus.core.machine.probe import (
    POLARITY,
    PREDICTED,
    Prediction,
    Probe,
    predict,
    prepared,
    refuse_unanswered,
    refuse_unknown,
)
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.sheet.model import EARTH_PIN
from ohmcensus.exchange.spice import write_deck
from ohmcensus.services.at_hand.sheets import find_sheet


@dataclass(frozen=True, slots=True)
class Asked:
    """A question: a test by its id, or an instrument and two points; plugs, states and faults."""

    sheet_id: str
    test: str | None = None
    meter: str | None = None
    between: tuple[str, str] | None = None
    pulled: Sequence[str] = ()
    states: Sequence[str] = ()
    faults: Sequence[str] = ()


def predicted(asked: Asked) -> tuple[Function, Prediction]:
    """Return what the meter must show.

    Raises
    ------
    InputError
        If a name is not on the sheet, or the question is not whole.
    """
    sheet, probe, configuration, faults = _understood(asked)
    refuse_unknown(sheet, probe)
    refuse_unanswered(sheet, probe, configuration)
    found = predict(sheet, probe, configuration, faults)
    if probe.function is Function.HERTZ and not found.value:
        what = f"no volts between {' and '.join(probe.between)}, so no frequency"
        raise InputError(what=what, remedy="choose points under voltage in this state", field="between")
    return probe.function, found


def deck(asked: Asked) -> str:
    """Return the same question as a SPICE deck.

    Raises
    ------
    InputError
        As for ``predicted``.
    """
    sheet, probe, configuration, faults = _understood(asked)
    predicted(asked)
    setup = prepared(sheet, probe, netlist(sheet, configuration, faults))
    return write_deck(setup, f"{sheet.id} {probe.function.value} {' '.join(probe.between)}")


def _understood(asked: Asked) -> tuple[Sheet, Probe, Configuration, tuple[PartFault, ...]]:
    sheet = find_sheet(asked.sheet_id)
    states = dict(_pair(text, "=", "a state is written NAME=STATE") for text in asked.states)
    polarity = states.pop(POLARITY, None)
    probe, own = _probe(sheet, asked)
    is_reversed = probe.reversed if polarity is None else _polarity(polarity)
    configuration = Configuration(own.pulled | set(asked.pulled), {**own.states, **states})
    faults = tuple(_fault(text, sheet) for text in asked.faults)
    return sheet, replace(probe, reversed=is_reversed), configuration, faults


def _probe(sheet: Sheet, asked: Asked) -> tuple[Probe, Configuration]:
    """Return the instrument, with the configuration that a named test brings along."""
    if asked.test is not None:
        part_id, _, name = asked.test.partition(".")
        part = sheet.part(part_id)
        if part is None:
            raise not_on_sheet(what="part", name=part_id, known=[row.id for row in sheet.parts])
        spec = next((spec for spec in listed_tests(sheet, part_id) if spec.name == name), None)
        if spec is None:
            raise not_on_sheet(
                what="test", name=asked.test, known=[f"{part_id}.{row.name}" for row in listed_tests(sheet, part_id)]
            )
        return probe_of(part, spec), configuration_of(sheet, part, spec)
    if asked.meter is None or asked.between is None:
        what = "neither a test nor an instrument with two points"
        raise InputError(what=what, remedy="give --test PART.TEST, or --meter and --between", field="test")
    known = sorted(function.value for function in PREDICTED)
    if asked.meter not in known:
        raise not_on_sheet(what="meter", name=asked.meter, known=known)
    joined = _poles(asked.between) if asked.meter == Function.INSULATION else ()
    return Probe(Function(asked.meter), asked.between, joined), Configuration()


def _poles(between: tuple[str, str]) -> tuple[str, ...]:
    """Return both poles, joined, where an insulation tester stands on the plug."""
    plug = {"cord.plug_l", "cord.plug_n"}
    return ("cord.plug_l", "cord.plug_n") if plug & set(between) and not plug <= set(between) else ()


def _polarity(text: str) -> bool:
    if text not in {"normal", "reversed"}:
        raise not_on_sheet(what="value of polarity", name=text, known=["normal", "reversed"])
    return text == "reversed"


def _fault(text: str, sheet: Sheet) -> PartFault:
    """Return a fault: PART[.ELEMENT]:MODE[@PIN][=VALUE]; PART.pe is the part's earth strap."""
    where, rest = _pair(text, ":", "a fault is written PART[.ELEMENT]:MODE[@PIN][=VALUE]")
    part, _, element = where.partition(".")
    named, equals, value = rest.partition("=")
    mode, _, pin = named.partition("@")
    if mode not in set(FaultMode):
        raise not_on_sheet(what="fault mode", name=mode, known=[known.value for known in FaultMode])
    try:
        amount = float(value) if equals else None
    except ValueError:
        raise InputError(what=f"'{value[:40]}' is not a value", remedy="give ohms, a factor or a fraction") from None
    if amount is not None and not 0 <= amount < float("inf"):
        raise InputError(
            what=f"{value[:40]} is not a value of a fault", remedy="give a number of 0 or more", field="fault"
        )
    if element == EARTH_PIN and sheet.known_part(part).is_earthed:
        return PartFault(part, FaultMode.EARTH_OPEN, amount)
    return PartFault(part, FaultMode(mode), amount, element, pin)


def _pair(text: str, sign: str, remedy: str) -> tuple[str, str]:
    name, found, rest = text.partition(sign)
    if not (name and found and rest):
        raise InputError(what=f"'{text[:60]}' cannot be read", remedy=remedy, field="fault")
    return name, rest
