"""Jobs of the demo on the other machine types, and one with two faults: each in another state.

Everything is made up: the places, the machines, every reading.
"""

from __future__ import annotations

from ohmcensus.core.event import Body, CircuitNoted, Ended, Isolated, LeftAs, Opened, RunMade, StepTicked, Supply
from ohmcensus.core.intake import Alteration, Complaint, DataPlate, Trial
from ohmcensus.core.symptom import Device, Moment, Symptom
from ohmcensus.demo.stories import OUTLET, PROOF, WASH_HOUSE, Story, looked

_STEPS: tuple[Body | str, ...] = (
    Isolated(),
    StepTicked(step="taps"),
    StepTicked(step="drain"),
    StepTicked(step="floor"),
    StepTicked(step="discharge1"),
)
# Leads that may leak on the washer-dryer.
_WASHER_DRYER = (
    "cord",
    "filter",
    "heater",
    "dryer",
    "motor",
    "valve",
    "condenser",
    "pump",
    "circulation",
    "harness",
)


def _plate(type_number: str, serial: str, watts: float, volts: float = 230.0, hertz: float = 50.0) -> DataPlate:
    return DataPlate(
        type_number=type_number, serial=serial, volts=volts, hertz=hertz, watts=watts, protection_class="I"
    )


_DEAD_230: tuple[Body | str, ...] = ("dead ln 0.2", "dead le 0.1", "dead ne 0.1", "dead filter 0.3")
_DEAD_DRIVE: tuple[Body | str, ...] = (*_DEAD_230[:3], "source dc 9.3", _DEAD_230[3], "dead drive 0.8")

OTHER_TYPES = (
    Story(
        "Houseboat washer-dryer",
        "Houseboat Wagtail, berth 3",
        21,
        Complaint(
            words="Takes the RCD of the pillar the moment it is plugged in, switched off or not.",
            symptoms=(Symptom.TRIPS,),
            device=Device.RCD,
            moment=Moment.PLUGGING_IN,
            tried=(Trial(words="another pillar, same", by="harbour office"),),
        ),
        _plate("WD8-H/1", "OC-0671", 2100.0),
        (
            *OUTLET,
            *looked(),
            *_STEPS,
            "source 230",
            *_DEAD_230,
            "source 230",
            Opened(panel="top"),
            "cord pe 0.09",
            RunMade(method="insulation", connected=_WASHER_DRYER, text="0.041M"),
            RunMade(method="insulation", connected=("cord", "filter"), text="0.041M"),
        ),
        sheet="wd8-h",
    ),
    Story(
        "Guest house washer",
        "Anchor Loft guest house, laundry on the first floor",
        60 * 30,
        Complaint(words="Drum jerks and stands, a hum from the back.", symptoms=(Symptom.NO_TURN, Symptom.HUMS)),
        _plate("FL9-T/3", "OC-0734", 2100.0),
        (
            *OUTLET,
            *looked(),
            *_STEPS,
            "source 230",
            *_DEAD_DRIVE,
            "source 230",
            Opened(panel="back"),
            "cord pe 0.12",
            "motor uv OL",
            "motor uv OL",
            "motor vw OL",
            "motor wu 4.9",
        ),
        sheet="fl9-t",
    ),
    Story(
        "Chandlery washer",
        "Chandlery, back room",
        60 * 24 * 3,
        Complaint(
            words="Stops before the spin. A former helper did something to the lid.",
            symptoms=(Symptom.NO_SPIN,),
            alterations=(Alteration(words="lid lock bridged with a wire", is_bypass=True),),
        ),
        _plate("TL6-S/2", "OC-0519", 900.0, volts=120.0, hertz=60.0),
        (
            CircuitNoted(supply=Supply.GENERATOR, device=Device.GFCI, curve="", rated_a=15),
            "outlet 121",
            "outlet le 61",
            "outlet ne 60",
            *looked(has_door=False),
            *_STEPS,
            Ended(
                why="Lid lock bridged, the owner wants it left so: labelled unsafe, left unplugged.",
                is_labelled_unsafe=True,
                left_as=LeftAs.UNPLUGGED,
            ),
        ),
        sheet="tl6-s",
    ),
    Story(
        "Lighthouse washer",
        "Keeper's house at the lighthouse, ground floor",
        60 * 7,
        Complaint(words="Starts, turns a little both ways, then stops with a code.", symptoms=(Symptom.STOPS,)),
        _plate("DD8-R/1", "OC-0802", 2000.0),
        (*OUTLET, *looked()),
        sheet="dd8-r",
    ),
    Story(
        "Machine 4",
        WASH_HOUSE,
        60 * 28,
        Complaint(
            words="Cold water only, and now and then it stops in the middle and starts again by itself.",
            symptoms=(Symptom.NO_HEAT, Symptom.STOPS),
        ),
        _plate("FL7-U/2", "OC-0115", 2200.0),
        (
            *OUTLET,
            *looked(),
            *PROOF,
            Opened(panel="back"),
            Opened(panel="front"),
            "cord pe 0.08",
            "heater OL",
            "heater OL",
            "lock locked 38",
            "lock locked 0.4",
            "lock locked 39",
        ),
    ),
)
