"""Ordinary jobs, six machines by five faults, and ten with an honest slip: each goes out as safe, no reason typed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.services.at_hand.sheets import find_sheet
from tests.stories.told import PE, PLUG_IN, Steps, Told, complaint, do, own, proof, read, signed

CORES = ("cord l 0.2", "cord n 0.3")
INS = "cord insulation >299M"


@dataclass(frozen=True)
class Machine:
    """Parts of a machine by what fails in it, the covers that hide them, and what the plug does not see."""

    sheet: str
    earthed: str
    valve: str
    covers: dict[str, str]
    hidden: tuple[str, ...] = ()

    @property
    def outlet(self) -> Steps:
        volts = find_sheet(self.sheet).volts + 1
        return read(f"outlet {volts:g}", f"outlet le {volts:g}", "outlet ne 0.4")

    @property
    def device(self) -> str:
        return "gfci" if find_sheet(self.sheet).volts < 180 else "rcd"

    def signed(self) -> Steps:
        return signed(self.sheet, hidden=self.hidden)


FRONT = {"heater": "back", "motor": "back", "valve": "top", "pump": "front", "cord": "back"}
TOP = {"motor": "base", "hot": "console", "pump": "base", "cord": "cabinet"}
MACHINES = (
    Machine("fl7-u", "heater", "valve", FRONT),
    Machine("fl9-t", "heater", "valve", FRONT, ("motor",)),
    Machine("wd8-h", "heater", "valve", FRONT),
    Machine("dd8-r", "heater", "valve", FRONT, ("motor",)),
    Machine("tl4-c", "motor", "hot", TOP),
    Machine("tl6-s", "motor", "hot", TOP),
)


def inside(machine: Machine, part: str, steps: Steps) -> Steps:
    """Return what is done with the cover of a part off, on a machine that is proved dead."""
    cover = machine.covers[part]
    return [
        *machine.outlet,
        *proof(machine.sheet),
        do("opened", panel=cover),
        *steps,
        do("shut", panel=cover),
        *machine.signed(),
    ]


def replaced(part: str, *lines: str, how: str = "replaced") -> Steps:
    return [do("changed", part=part, intervention=how), *read(*lines)]


def faults(machine: Machine) -> Iterator[Told]:
    """Yield a job for each of five faults."""
    sheet, part, valve = machine.sheet, machine.earthed, machine.valve
    new = replaced(part, f"{part} earth 0.08", f"{part} pe >299M")
    yield Told(
        f"{sheet}: no water, the coil of the valve is open",
        inside(machine, valve, [*read(f"{valve} coil OL"), *replaced(valve, f"{valve} pe >299M")]),
        sheet,
        more=complaint("no_water"),
    )
    yield Told(
        f"{sheet}: {machine.device} trips, a leak",
        inside(machine, part, [*read(f"{part} pe 0.02M"), *new]),
        sheet,
        more=complaint("trips", device=machine.device),
    )
    cord = [*read("cord pe >20"), *replaced("cord", *CORES, PE, INS)]
    yield Told(f"{sheet}: the earth of the cord is broken", inside(machine, "cord", cord), sheet)
    yield Told(
        f"{sheet}: no draining, the coil of the pump is open",
        inside(machine, "pump", [*read("pump coil OL"), *replaced("pump", "pump pe >299M")]),
        sheet,
        more=complaint("no_drain"),
    )
    mended = [*read("cord pe 14"), *replaced("cord", *CORES, PE, INS, how="mended")]
    yield Told(
        f"{sheet}: it tingles, the earth is loose in the plug",
        inside(machine, "cord", [*mended, *own(*machine.hidden), *machine.outlet]),
        sheet,
        more=complaint("shock"),
    )


ORDINARY = [told for machine in MACHINES for told in faults(machine)]
FIRST = MACHINES[0]
AT = len(proof())
NEW_HEATER = replaced("heater", "heater earth 0.08", "heater pe >299M")


def slip(typed: str, meant: str, *, minutes: float = 1) -> Steps:
    """Return a figure that is typed wrong right after the proof, put right, and read again."""
    return [*proof(), *read(typed), {"read": meant, "correct": AT, "minutes": minutes}, *read(meant)]


SLIPS = [
    Told("an earth typed as 8 for 0.08", [*slip("cord pe 8", PE), *FIRST.signed()]),
    Told("megohms typed as 0.05 for 50", [*slip("cord insulation 0.05M", "cord insulation 50M"), *FIRST.signed()]),
    Told(
        "a core typed as 2.4 for 0.24", [*slip("cord l 2.4", "cord l 0.24"), *read("cord n 0.2", PE), *FIRST.signed()]
    ),
    Told("a lock read while it was locked", [*slip("lock unlocked 0.3", "lock unlocked OL"), *FIRST.signed()]),
    Told("a relay read on the wrong tag", [*slip("board relay 0.2", "board relay OL"), *FIRST.signed()]),
    Told(
        "a point typed as 75 for 7.5",
        [
            *proof()[:-2],
            *read("dead filter 75"),
            {"read": "dead filter 7.5", "correct": AT - 2, "minutes": 0.5},
            {"wait_minutes": 1.1, "read": "dead filter 0.3"},
            *proof()[1:],
            *FIRST.signed(),
        ],
    ),
    Told(
        "a change tapped on the wrong part",
        [
            *proof(),
            *replaced("heater"),
            {"withdraw": AT},
            *replaced("pump", "pump pe >299M"),
            *FIRST.signed(),
        ],
    ),
    Told(
        "ohms before the proof, and power before the cover is noted as on",
        [
            do("isolated"),
            *read("heater 26"),
            *proof()[1:],
            do("opened", panel="back"),
            *NEW_HEATER,
            PLUG_IN,
            do("shut", panel="back"),
            *FIRST.signed(),
        ],
        refused=(1, AT + 5),
    ),
    Told(
        "a run that was watched is noted after the plug was pulled",
        [
            *proof(),
            *NEW_HEATER,
            *FIRST.signed()[:-4],
            do("isolated"),
            do("run_watched", outcome="through"),
            do("run_watched", outcome="through", was="before"),
            *FIRST.signed()[-3:],
        ],
        refused=(-5,),
    ),
    Told(
        "the plug goes in by the phone while the laptop has not said hands off",
        [
            *proof(),
            *NEW_HEATER,
            *FIRST.signed()[:4],
            {**PLUG_IN, "device": "phone"},
            do("hands_off"),
            {**PLUG_IN, "device": "phone"},
            *FIRST.signed()[5:],
        ],
        refused=(AT + 3 + 4,),
    ),
]
