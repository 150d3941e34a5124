"""The strip-down: what came off, with what held it, how its connectors looked, and what is back."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, StrictBool, model_validator

from ohmcensus.core.event.record import Because, Name, Record, RowId, Said
from ohmcensus.core.text.trimmed import Words

Count = Annotated[int, Field(ge=0, le=200, strict=True)]
Share = Annotated[float, Field(ge=0, le=1, strict=True)]
PinNumber = Annotated[int, Field(ge=1, le=60, strict=True)]


class StripStep(Record):
    """One thing came off.

    Attributes
    ----------
    words
        What was done: "back panel off".
    fasteners, head, size, kept
        How many held it, of what head and size (mm or inch), and where they are kept.
    panel
        Cover of the sheet that is off by it, empty where it is none.
    plugs
        Plugs of the sheet that were pulled.
    part
        Part of the sheet that came out by it, empty where none did.
    minutes
        How long it took; filled in from the clock where it is not said, None where that does not tell.
    holds_earth
        Whether one of its fasteners holds an earth; None where nobody was asked: then as the sheet has it.
    """

    kind: Literal["strip_step"] = "strip_step"
    filled_in: ClassVar[tuple[str, ...]] = ("minutes",)
    words: Said
    fasteners: Count = 0
    head: Words = ""
    size: Words = ""
    kept: Words = ""
    panel: Name | Literal[""] = ""
    plugs: tuple[Name, ...] = Field(default=(), max_length=40)
    part: Name | Literal[""] = ""
    minutes: float | None = Field(default=None, ge=0, le=240, strict=True)
    holds_earth: StrictBool | None = None


class Over(Record):
    """A cover goes on over a part that is off: its wires are insulated, and tied away."""

    part: Name
    insulated: StrictBool


class StripBack(Record):
    """Something is back.

    Attributes
    ----------
    step
        The step by which it came off.
    fasteners, plugs
        With so many of its fasteners, and with these of its plugs.
    because
        Why a fastener is left out.
    over
        The part that stays off beneath its cover.
    """

    kind: Literal["strip_back"] = "strip_back"
    step: RowId
    fasteners: Count = 0
    plugs: tuple[Name, ...] = Field(default=(), max_length=40)
    because: Because | Literal[""] = ""
    over: Over | None = None


class PinMark(Record):
    """One position of a connector, marked on its photo.

    Attributes
    ----------
    number
        Number of the position, as it is ticked.
    x, y
        Where it sits on the photo, as shares of width and height from the left upper corner.
    label, colour
        What is written beside it; colour or mark of its wire.
    is_empty
        Whether no wire belongs there.
    """

    number: PinNumber
    x: Share
    y: Share
    label: Words = ""
    colour: Words = ""
    is_empty: StrictBool = False


class ConnectorNoted(Record):
    """How a connector looked before it was pulled; the newest record of a photo stands.

    Attributes
    ----------
    photo
        Photo of the job that shows it.
    words
        What it is called.
    plug
        Plug of the sheet, empty where the sheet has none for it.
    pins
        Its positions; none where the photo says enough.
    is_withdrawn
        Whether it is taken back, the photo being of something else.
    """

    kind: Literal["connector_noted"] = "connector_noted"
    photo: RowId
    words: Said
    plug: Name | Literal[""] = ""
    pins: tuple[PinMark, ...] = Field(default=(), max_length=60)
    is_withdrawn: StrictBool = False

    @model_validator(mode="after")
    def _numbers_differ(self) -> Self:
        numbers = [pin.number for pin in self.pins]
        twice = next((number for number in numbers if numbers.count(number) > 1), None)
        if twice is not None:
            msg = f"pin {twice} is marked twice: give one of them another number"
            raise ValueError(msg)
        return self


class ConnectorTicked(Record):
    """A connector is on again: these of its positions were held against the photo and sit right."""

    kind: Literal["connector_ticked"] = "connector_ticked"
    photo: RowId
    pins: tuple[PinNumber, ...] = Field(default=(), max_length=60)
