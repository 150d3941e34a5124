"""The firm whose name stands on what goes out: who it is, what it charges in, and which clock it goes by."""

from __future__ import annotations

from functools import cache
from typing import Annotated
from zoneinfo import ZoneInfo, available_timezones

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from ohmcensus.core.text.trimmed import Trimmed

UTC_NAME = "UTC"


@cache
def _zones() -> frozenset[str]:
    """Return every zone by name; they lie in six hundred files, and settings are read with every answer."""
    return frozenset(available_timezones())


def _known_zone(name: str) -> str:
    if name and name not in _zones():
        msg = f"no time zone '{name[:40]}' is known; type one such as Europe/Lisbon, or leave it empty for UTC"
        raise ValueError(msg)
    return name


class Firm(BaseModel):
    """A firm as it stands on its papers.

    Attributes
    ----------
    name, address, contact
        Its name; lines of its address; how it is reached.
    currency
        Sign or code behind every amount, such as EUR; empty for none.
    tax_name, tax_percent
        What the tax on a bill is called, and how much it is, in percent of the sum before tax; 0 for none.
    zone
        Name of its time zone in the IANA database, empty for UTC.
    """

    model_config = ConfigDict(extra="forbid", strict=True, frozen=True)

    name: Annotated[str, Trimmed(80)] = ""
    address: Annotated[str, Trimmed(200)] = ""
    contact: Annotated[str, Trimmed(120)] = ""
    currency: Annotated[str, Trimmed(6)] = ""
    tax_name: Annotated[str, Trimmed(20)] = ""
    tax_percent: float = Field(default=0.0, ge=0, le=60, allow_inf_nan=False)
    zone: Annotated[str, Trimmed(60), AfterValidator(_known_zone)] = ""

    @property
    def clock(self) -> ZoneInfo:
        """The zone that its papers go by."""
        return ZoneInfo(self.zone or UTC_NAME)
