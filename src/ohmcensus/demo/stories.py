"""What the demo tells: jobs at a small marina, its wash house, the boats moored there and a lock cottage.

Everything is made up: the places, the machines, every reading.
"""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.codes import Outcome
from ohmcensus.core.event import (
    Appliance,
    Body,
    Changed,
    Checked,
    CheckOutcome,
    CircuitNoted,
    CodesRead,
    ConnectorNoted,
    CostLine,
    CostsNoted,
    CycleBegun,
    CycleTicked,
    Ended,
    EntryTried,
    HeatRise,
    Intervention,
    Isolated,
    Opened,
    PinMark,
    PluggedIn,
    ProofMade,
    RunMade,
    RunWatched,
    StepTicked,
    StripStep,
    Supply,
    Way,
)
from ohmcensus.core.intake import Alteration, Complaint, DataPlate, Trial
from ohmcensus.core.symptom import Device, Moment, Symptom

# What may leak on the front-loader of the wash house.
LEAKERS = ("cord", "filter", "heater", "motor", "valve", "prewash", "pump", "harness")
WASH_HOUSE = "Wash house, Reedmere Marina"
OUTLET = ("outlet 229", "outlet le 228", "outlet ne 1.4")
PROOF: tuple[Body | str, ...] = (
    Isolated(),
    StepTicked(step="taps"),
    StepTicked(step="drain"),
    StepTicked(step="floor"),
    StepTicked(step="discharge1"),
    "source 230",
    "dead ln 0.2",
    "dead le 0.1",
    "dead ne 0.1",
    "dead filter 0.4",
    "source 230",
)


def looked(*, has_door: bool = True, **found: str) -> tuple[Body, ...]:
    """Return checks by eye, good where nothing is said of them; a top-loader has no strike and no filter in reach."""
    names = ("protective_devices", "cord", "taps", *(("drain_filter", "strike") if has_door else ()))
    return tuple(
        Checked(check=name, outcome=CheckOutcome.BAD if name in found else CheckOutcome.GOOD, words=found.get(name, ""))
        for name in names
    )


@dataclass(frozen=True)
class Snap:
    """A photo: of the step that came off last, or of a connector with its pins."""

    picture: str
    connector: ConnectorNoted | None = None


@dataclass(frozen=True)
class Back:
    """A step of the strip-down goes back whole, counted from nought; connectors go on with the first."""

    step: int


Thing = Body | str | Snap | Back


@dataclass(frozen=True)
class Story:
    """One job: what was said, and everything that was done, in order.

    Parameters
    ----------
    machine, place
        Where.
    minutes_ago, pace_s
        When it was opened, and the seconds from one thing to the next.
    complaint, plate
        The intake.
    sheet
        The machine's type.
    done
        Readings as typed, events, photos, and what goes back.
    notes
        By line.
    """

    machine: str
    place: str
    minutes_ago: int
    complaint: Complaint
    plate: DataPlate
    done: tuple[Thing, ...] = ()
    notes: tuple[tuple[str, str], ...] = ()
    pace_s: int = 30
    sheet: str = "fl7-u"


def _plate(serial: str, **more: str) -> DataPlate:
    return DataPlate(
        type_number="FL7-U/2", serial=serial, volts=230.0, hertz=50.0, watts=2200.0, protection_class="I", **more
    )


PUMP_PLUG = ConnectorNoted(
    photo="-",
    words="Pump plug",
    plug="pump_plug",
    pins=(
        PinMark(number=1, x=0.29, y=0.52, label="pump", colour="violet"),
        PinMark(number=2, x=0.5, y=0.52, is_empty=True),
        PinMark(number=3, x=0.71, y=0.52, label="neutral", colour="blue"),
    ),
)
HEATER_PLUG = ConnectorNoted(
    photo="-",
    words="Heater tags and sensor",
    plug="heater_tags",
    pins=(
        PinMark(number=1, x=0.29, y=0.52, label="L, relay", colour="brown"),
        PinMark(number=2, x=0.5, y=0.52, label="earth", colour="green-yellow"),
        PinMark(number=3, x=0.71, y=0.52, label="N", colour="blue"),
    ),
)
# Pieces of the shelf, by name.
HEATER_SPARE, PUMP_SPARE, LOCK_ORIGINAL = "heater spare 1", "pump spare 1", "lock original"


def _current(criterion: str, text: str) -> ProofMade:
    return ProofMade(criterion=criterion, text=text, way=Way.DIFFERENTIAL, serial="OC-T7", calibrated="2026-03-02")


def _seen(criterion: str) -> ProofMade:
    return ProofMade(criterion=criterion, is_good=True)


# A heater found open, replaced from the shelf, proved and signed off.
REPAIRED: tuple[Thing, ...] = (
    *OUTLET,
    *looked(),
    RunWatched(outcome="heat"),
    *PROOF,
    StripStep(words="Back panel off", fasteners=6, head="cross", size="M4 x 12", kept="blue lid", panel="back"),
    Snap("cover"),
    "heater OL",
    "heater OL",
    "heater pe >299M",
    "ntc 10.9k at 23C",
    "board relay OL",
    Snap("plug", HEATER_PLUG),
    StripStep(words="Heater out", part="heater", fasteners=1, head="hex nut", size="11 mm", plugs=("heater_tags",)),
    Changed(part="heater", intervention=Intervention.REPLACED, spare=HEATER_SPARE),
    Back(1),
    "heater earth 0.06",
    Back(0),
    _seen("visual"),
    _seen("drum"),
    "cord pe 0.07",
    "cord insulation >299M",
    PluggedIn(),
    _current("current", "0.41 mA"),
    _current("current_turned", "0.38 mA"),
    RunWatched(outcome="through", heat=HeatRise(litres=11.0, from_celsius=14.0, to_celsius=40.0, minutes=11.0)),
    _seen("joints"),
    _seen("codes"),
    CostsNoted(minutes=45.0, hour=60.0, call_out=35.0, lines=(CostLine(words="Heater, spare 1", amount=24.0),)),
    Ended(why="Heater was open. Another one fitted from the shelf, proved, washes warm."),
)

STORIES = (
    Story(
        "Machine 2",
        WASH_HOUSE,
        60 * 24 * 2,
        Complaint(words="Clothes come out clean but cold, whatever is chosen.", symptoms=(Symptom.NO_HEAT,)),
        _plate("OC-0113", variants="heater: two tags"),
        REPAIRED,
        (("heater.element", "Twice, on bright tags."),),
        pace_s=55,
    ),
    Story(
        "Machine 3",
        WASH_HOUSE,
        60 * 24 * 41,
        Complaint(words="Will not start, lamps are on.", symptoms=(Symptom.NO_START,)),
        _plate("OC-0114"),
        (
            *OUTLET,
            *looked(),
            *PROOF,
            "lock OL",
            Changed(part="lock", intervention=Intervention.REPLACED, words="new one"),
            "lock 1.21k",
            _seen("visual"),
            _seen("drum"),
            "cord pe 0.08",
            "cord insulation >299M",
            PluggedIn(),
            _current("current", "0.37 mA"),
            _current("current_turned", "0.36 mA"),
            RunWatched(outcome="through"),
            _seen("joints"),
            _seen("codes"),
            Ended(why="New door lock, locks and washes."),
        ),
    ),
    Story(
        "Lock cottage washer",
        "Lock cottage, upper gate",
        60 * 26,
        Complaint(
            words="Washed fine for years, now the door will not open after the rinse.",
            symptoms=(Symptom.NO_OPEN, Symptom.NO_DRAIN),
            tried=(Trial(words="door pulled by hand", by="owner"),),
        ),
        _plate("OC-0417", variants="pump: grey plug, two tags"),
        (
            *OUTLET,
            *looked(drain_filter="a sock, cleared; still no drain"),
            *PROOF,
            Opened(panel="front"),
            "cord pe 0.08",
            "filter l 0.4",
            "filter n 0.4",
            "lock 1.31k",
            "lock unlocked 0.3",
            "lock locked 0.3",
            "pump OL",
            StripStep(words="Pump cover off", fasteners=3, head="cross", size="M4 x 16", kept="lid of the tool box"),
            Snap("cover"),
            Snap("plug", PUMP_PLUG),
            StripStep(
                words="Pump out", part="pump", fasteners=1, head="quarter turn", plugs=("pump_plug",), kept="bucket"
            ),
        ),
        (("pump.coil", "One tag was off and green. Read again on bright metal: still OL."),),
    ),
    Story(
        "Galley washer",
        "Narrowboat Heron's Rest, berth 14",
        95,
        Complaint(
            words="Stops a minute into every wash on shore power. Runs on the boat's own inverter.",
            symptoms=(Symptom.STOPS, Symptom.CODE),
        ),
        _plate("OC-0388"),
        (
            CircuitNoted(supply=Supply.GALVANIC_ISOLATOR, appliances=(Appliance(name="Charger", leakage_ma=2.4),)),
            "outlet 221",
            "outlet le 218",
            "outlet ne 3.1",
            EntryTried(sequence="service_mode", is_in=False),
            EntryTried(sequence="service_mode", is_in=True),
            CodesRead(scheme="lamps", codes=("21", "9")),
            CycleBegun(cycle="self_test"),
            CycleTicked(cycle="self_test", step="lock", outcome=Outcome.PASSED),
            CycleTicked(cycle="self_test", step="main_valve", outcome=Outcome.PASSED),
            CycleTicked(cycle="self_test", step="prewash_valve", outcome=Outcome.PASSED),
            CycleTicked(cycle="self_test", step="turn", outcome=Outcome.FAILED),
        ),
    ),
    Story(
        "Laundry locker",
        "Trawler Bright Tern, visitors' pontoon",
        70,
        Complaint(
            words="Fills, hums, the basket stands still. The owner gave it a push and it turned once.",
            symptoms=(Symptom.NO_TURN, Symptom.HUMS),
            tried=(Trial(words="basket pushed by hand: it turned", by="owner"),),
        ),
        DataPlate(type_number="TL4-C/1", serial="OC-0560", volts=120.0, hertz=60.0, watts=800.0, protection_class="I"),
        (
            CircuitNoted(supply=Supply.GENERATOR, device=Device.GFCI, curve="", rated_a=15),
            "outlet 121",
            "outlet le 61",
            "outlet ne 59",
            *looked(has_door=False),
            Isolated(),
            StepTicked(step="taps"),
            StepTicked(step="drain"),
            StepTicked(step="floor"),
            StepTicked(step="discharge1"),
            "source 121",
            "dead ln 0.1",
            "dead le 0.1",
            "dead ne 0.1",
            "source dc 9.3",
            "dead filter 0.2",
            "dead capacitor 0.6",
            "source 121",
            Opened(panel="base"),
            "cord pe 0.11",
            "motor run 1.8",
            "motor start 5.1",
            "capacitor 33.6u",
            "lid 0.3",
        ),
        sheet="tl4-c",
    ),
    Story(
        "Machine 1",
        WASH_HOUSE,
        48,
        Complaint(
            words="Cold water only. The quayside heater ran at the same time.",
            symptoms=(Symptom.NO_HEAT,),
            alterations=(Alteration(words="heater tags look newer than the rest"),),
        ),
        _plate("OC-0112"),
        (
            *OUTLET,
            *looked(),
            *PROOF,
            Opened(panel="back"),
            "heater OL",
            "ntc 10.9k at 23C",
            "board relay OL",
            "board coil 271",
            "harness heater 0.2",
        ),
        (("heater.element", "Both tags bright, connector not burnt."),),
    ),
    Story(
        "Machine 3",
        WASH_HOUSE,
        23,
        Complaint(
            words="Trips the RCD about ten minutes into a hot wash, cold washes run through.",
            symptoms=(Symptom.TRIPS,),
            device=Device.RCD,
            moment=Moment.HEATING,
            tried=(Trial(words="other outlet, same", by="wash house keeper"),),
        ),
        _plate("OC-0114"),
        (
            *OUTLET,
            *looked(),
            *PROOF,
            Opened(panel="back"),
            "cord l 0.04",
            "cord n 0.03",
            "cord pe 0.07",
            "filter l 0.4",
            "filter n 0.5",
            "filter across 684k",
            "filter x 0.466u",
            "lock 1.12k",
            "heater pe 47k",
            "ntc 10.4k at 24C",
            "motor field 1.9",
            "motor armature 4.9",
            "tacho 71",
            "brush 1 19mm",
            "between heater.pe motor.pe 0.3",
            CircuitNoted(
                appliances=(
                    Appliance(name="Machine 1", leakage_ma=0.6),
                    Appliance(name="Tumble dryer", leakage_ma=1.9),
                    Appliance(name="Till and lights", leakage_ma=0.8),
                ),
            ),
            RunMade(method="insulation", connected=LEAKERS, text="0.05M"),
        ),
        (("motor.armature", "Steady while turned."),),
    ),
)
