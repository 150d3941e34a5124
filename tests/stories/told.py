"""What stories are made of: readings, events, the series that proves a sheet's machine dead, and what is expected."""

from __future__ import annotations

import re
import tempfile
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from ohmcensus.exchange.sheet_yaml import write_sheet
from ohmcensus.exchange.story_file import Story
from ohmcensus.services.at_hand.sheets import find_sheet
from tests.core.case_of import proof_of

Steps = list[dict[str, Any]]
# What no technician reads: a path of the API, a command word, a name of a field, a count of characters.
MACHINE_WORDS = re.compile(r"/api|`|characters|[a-z]+_[a-z]+", re.IGNORECASE)
AT = "2026-01-05T08:00:00Z"
PE, INS = "cord pe 0.08", "cord insulation 50M"
OUTLET = ("outlet 231", "outlet le 231", "outlet ne 0.4")


def read(*lines: str) -> Steps:
    return [{"read": line} for line in lines]


def do(kind: str, **more: Any) -> dict[str, Any]:
    return {"do": {"kind": kind, **more}}


def proof(sheet: str = "fl7-u") -> Steps:
    """Return the series with the points of a sheet."""
    return [do("isolated"), *read(*proof_of(find_sheet(sheet)))]


def own(*parts: str) -> Steps:
    """Return the insulation of parts that the plug does not see."""
    return read(*(f"{part} pe >299M" for part in parts))


def signed(sheet: str = "fl7-u", *, hidden: tuple[str, ...] = ()) -> Steps:
    """Return all of the proof of a machine that is dead and shut, and the signature."""
    codes = bool(find_sheet(sheet).service.schemes)
    reversible = find_sheet(sheet).is_plug_reversible
    ways = ["current", "current_turned"] if reversible else ["current"]
    is_gfci = find_sheet(sheet).volts < 180
    currents = [do("proof_made", criterion=way, text="0.4 mA", way="differential") for way in ways]
    return [
        do("proof_made", criterion="visual", is_good=True),
        do("proof_made", criterion="drum", is_good=True),
        *read(PE, INS),
        *own(*hidden),
        *([do("circuit_noted", device="gfci", curve="", rated_a=15)] if is_gfci else []),
        do("plugged_in"),
        *([] if is_gfci else currents),
        do("run_watched", outcome="through"),
        do("proof_made", criterion="joints", is_good=True),
        *([do("proof_made", criterion="codes", is_good=True)] if codes else []),
        do("ended", why="proved and signed"),
    ]


def _class_ii() -> str:
    """Write a sheet of a machine without earth down, and return where."""
    sheet = find_sheet("fl7-u").model_copy(update={"id": "class-ii", "protection_class": "II"})
    file = Path(tempfile.mkdtemp()) / "class-ii.yaml"
    file.write_text(write_sheet(sheet))
    return str(file)


CLASS_II = _class_ii()
WHY = {"override": "I am quite sure that it is safe"}
PLUG_IN = do("plugged_in")
HEATER = "between heater.b heater.pe 0.02M"
REPLACED = do("changed", part="heater", intervention="replaced")
HEATER_OFF = do("strip_step", words="heater tags off", plugs=["heater_tags"])


@dataclass(frozen=True)
class Told:
    """A story and what it must come to.

    Parameters
    ----------
    name, sheet, steps
        What happens.
    refused
        Steps that are refused, by place from the end (-1 is the last); every other one is accepted.
    says
        What the last refusal says.
    dangers
        Ids that stand at the end.
    state
        State at the end, empty where it does not matter.
    may
        What would be allowed at the end.
    more
        Whatever else the file holds.
    """

    name: str
    steps: Steps
    sheet: str = "fl7-u"
    refused: tuple[int, ...] = ()
    says: str = ""
    dangers: tuple[str, ...] = ()
    state: str = ""
    may: dict[str, bool] = field(default_factory=dict)
    more: dict[str, Any] = field(default_factory=dict)

    @property
    def story(self) -> Story:
        """The story as its file has it."""
        return Story.model_validate({"sheet": self.sheet, "at": AT, "steps": self.steps, **self.more})


def complaint(*symptoms: str, **more: str) -> dict[str, Any]:
    return {"complaint": {"symptoms": list(symptoms), **more}}
