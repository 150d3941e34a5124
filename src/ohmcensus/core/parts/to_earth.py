"""The tests that all parts share: 500 V between their conductors and the earth, and the earth that they hang on."""

from __future__ import annotations

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.expect import BY_OHMMETER, NO_PROOF, earthed, insulation
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import MachineState, TestSpec


def to_earth(  # noqa: PLR0913 - what differs from part to part
    between: tuple[str, str],
    blind_to: tuple[FaultMode, ...],
    advice: str,
    *,
    name: str = "pe",
    title: str = "to earth",
    aliases: tuple[str, ...] = ("insulation",),
    joined: tuple[str, ...] = (),
    heating: bool = False,
) -> TestSpec:
    """Return the insulation test of a part, its own plug pulled.

    Parameters
    ----------
    between
        A tag, and the part's own body or the chassis.
    blind_to
        Where no circuit answers it: what it does not exclude.
    advice
        What to do with the hands.
    name, title, aliases, joined
        As of a ``TestSpec``.
    heating
        Whether the looser limit of heating elements holds.
    """
    return TestSpec(
        name=name,
        title=title,
        between=between,
        function=Function.INSULATION,
        expect=insulation(heating=heating),
        blind_to=blind_to,
        aliases=aliases,
        state=MachineState.PLUG_PULLED,
        minutes=1.5,
        weaker=BY_OHMMETER,
        advice=advice,
        joined=joined,
    )


# From the plug's earth pin to the body of a part: what it may read is the cord's own limit.
EARTH_OF_PART = TestSpec(
    name="earth",
    title="earth, plug pin to its body",
    between=("cord.plug_pe", "pe"),
    function=Function.CONTINUITY,
    expect=earthed(),
    minutes=0.7,
    weaker=NO_PROOF,
    advice="Scratch through paint and rust; flex its earth wire while you read.",
)
