"""The tests of a part as they are made in its machine: with points between which this wiring answers."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from ohmcensus.core.machine.coverage import configuration_of, is_answered, probe_of
from ohmcensus.core.machine.expected import OF_THE_DEVICE, residual_device
from ohmcensus.core.machine.feeds import far_ends, fed_part
from ohmcensus.core.machine.probe import predict
from ohmcensus.core.machine.uncalled import uncalled_test
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import TestSpec
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.quantity import Bound
from ohmcensus.core.sheet import Part, Sheet


@lru_cache(maxsize=4096)
def listed_tests(sheet: Sheet, part_id: str) -> tuple[TestSpec, ...]:
    """Return the tests of a part in its machine.

    A test that turns the plug is left out where the plug goes in one way only, the tests of a residual-current device
    where the circuit of the type has none. A load that is switched is asked for volts in a step that does not call it;
    one that the board sees through an
    open contact of its return, a lock or a second pole of the relay in the neutral, is read to its own far tag instead.

    Parameters
    ----------
    sheet
        The machine's type.
    part_id
        Whose tests; known to be on the sheet.
    """
    part = sheet.known_part(part_id)
    has_device = residual_device(sheet) is not None
    kept = (
        spec
        for spec in part.tests()
        if (sheet.is_plug_reversible or not spec.is_reversed) and (has_device or spec.function not in OF_THE_DEVICE)
    )
    made = tuple(_reached(sheet, part, _one_way(sheet, spec)) for spec in kept)
    uncalled = uncalled_test(sheet, part) if made else None
    return made if uncalled is None else (*made, uncalled)


def _one_way(sheet: Sheet, spec: TestSpec) -> TestSpec:
    """Return a test of a current without the advice to turn a plug that cannot be turned."""
    if spec.function is not Function.LEAKAGE or sheet.is_plug_reversible:
        return spec
    return replace(spec, advice="This plug goes in one way only: the current clears no part, the insulation test does.")


def found_test(sheet: Sheet, part_id: str, test_name: str) -> tuple[Part, TestSpec]:
    """Return a part of a sheet and one of its tests, by names that are known to be there."""
    return sheet.known_part(part_id), next(spec for spec in listed_tests(sheet, part_id) if spec.name == test_name)


def _reached(sheet: Sheet, part: Part, spec: TestSpec) -> TestSpec:
    """Return a test of a load through an output, to the load's far tag where the pole is not joined to it at rest."""
    if not spec.load_of or not is_answered(sheet, part, spec) or _load_ohm(sheet, part, spec):
        return spec
    fed = fed_part(sheet, part.id, spec.load_of)
    if fed is None:
        return spec
    advice = f"{spec.advice} Its return is open at rest: to its own tag."
    ends = far_ends(sheet, fed, part.point(spec.between[0]))
    tried = [replace(spec, between=(spec.between[0], end), advice=advice) for end in ends]
    # The far end of a motor is that of all its windings in a row.
    return max([spec, *tried], key=lambda each: _load_ohm(sheet, part, each))


def _load_ohm(sheet: Sheet, part: Part, spec: TestSpec) -> float:
    """Return what the healthy machine reads between the points of a test, 0 where that is no load."""
    window = spec.expect(REFERENCE_CELSIUS).interval
    found = predict(sheet, probe_of(part, spec), configuration_of(sheet, part, spec))
    is_load = found.bound is Bound.EXACT and found.value is not None and window.lo <= found.value <= window.hi
    return found.value or 0.0 if is_load else 0.0
