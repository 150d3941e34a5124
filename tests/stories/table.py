"""The stories of SAFETY, row by row."""

from __future__ import annotations

from tests.stories.others import OTHERS
from tests.stories.told import INS, OUTLET, PE, Told, complaint, do, proof, read

WHY = {"override": "I am quite sure that it is safe"}
PLUG_IN = do("plugged_in")
HEATER = "between heater.b heater.pe 0.02M"
REPLACED = do("changed", part="heater", intervention="replaced")
HEATER_OFF = do("strip_step", words="heater tags off", plugs=["heater_tags"])

ROWS = [
    Told(
        "volts of a powered board end the proof",
        [*proof(), *read("board relay_on 231", "heater 26")],
        refused=(-1,),
        says="UNDER VOLTAGE",
        state="under_voltage",
    ),
    Told(
        "five volts on a panel too",
        [*proof("fl9-t"), *read("panel supply 5.0", "heater 26")],
        "fl9-t",
        refused=(-1,),
        says="only a powered machine gives that",
    ),
    Told(
        "a tacho turned by hand makes its own volts",
        [*proof(), *read("motor tacho_volts 0.8", "motor field 1.9")],
        state="dead",
    ),
    Told(
        "voltage at a point: only the whole series helps",
        [do("isolated"), *read("source 231", "dead ln 229"), do("isolated"), {"read": "heater 26", **WHY}],
        refused=(-1,),
        says="only the whole series helps",
    ),
    Told(
        "a charged capacitor takes no override",
        [
            *proof("tl4-c")[:-2],
            *read("dead capacitor 160"),
            {"read": "capacitor 59u", **WHY},
        ],
        "tl4-c",
        refused=(-1,),
        says="a charge was found",
    ),
    Told(
        "a capacitor that was emptied goes on with its series",
        [*proof("tl4-c")[:-2], *read("dead capacitor 160", "dead capacitor 2", "source 121", "capacitor 59u")],
        "tl4-c",
        state="dead",
    ),
    Told(
        "loose readings lift no shock",
        [do("isolated"), *read("cord pe loose 0.08", "cord insulation loose 50M"), PLUG_IN],
        refused=(-1,),
        says="no power: gave a shock",
        dangers=("shock",),
        more=complaint("shock"),
    ),
    Told(
        "a shock asks earth, insulation and the outlet",
        [*proof(), *read(PE, INS), PLUG_IN, *read(*OUTLET), PLUG_IN],
        refused=(-5,),
        says="outlet, line to neutral",
        state="under_voltage",
        more=complaint("shock"),
    ),
    Told(
        "a shock is lifted with the plug in the hand",
        [
            do("isolated", how="plug_in_hand"),
            *read("source 231", "dead ln inhand 0.1", "cord pe inhand 0.08", "cord insulation inhand 50M", *OUTLET),
            PLUG_IN,
        ],
        more=complaint("shock"),
    ),
    Told(
        "an earth that reads bad and good again comes and goes",
        [*proof(), *read("cord pe >20"), PLUG_IN, *read(PE), PLUG_IN, do("ended", why="it is fine")],
        refused=(-4, -1),
        says="comes and goes",
        dangers=("earth",),
        may={"power": True, "sign_off": False},
    ),
    Told(
        "two free points to earth open a danger",
        [*proof(), *read(HEATER), PLUG_IN],
        refused=(-1,),
        says="insulation to earth failed",
        dangers=("insulation",),
    ),
    Told(
        "a new heater is read with the cover off, the machine with it on",
        [
            *proof(),
            do("opened", panel="back"),
            REPLACED,
            *read("heater earth 0.08", "heater pe 50M"),
            do("shut", panel="back"),
            *read(PE, INS),
            PLUG_IN,
        ],
    ),
    Told(
        "a new heater without its earth gets no power",
        [*proof(), REPLACED, *read("heater earth OL", "heater pe 50M", PE, INS), PLUG_IN],
        refused=(-1,),
        says="the earth does not hold: heater",
        dangers=("earth",),
        may={"sign_off": False},
    ),
    Told(
        "a part that was changed is read before power",
        [*proof(), *read(PE, INS), REPLACED, PLUG_IN],
        refused=(-1,),
        says="the heater was changed and is not read since",
    ),
    Told(
        "a fastener of an earth is never left out",
        [
            *proof(),
            do("strip_step", words="earth tag of the heater", fasteners=1),
            do("strip_back", step=7, because="its thread is stripped"),
            do("strip_back", step=7, fasteners=1),
            do("strip_step", words="drip tray", fasteners=4),
            do("strip_back", step=10, fasteners=3, because="one thread is stripped"),
        ],
        refused=(-4,),
        says="a fastener of an earth is never left out",
    ),
    Told(
        "only a job that has ended is opened again",
        [do("isolated"), do("reopened")],
        refused=(-1,),
        says="this job has not ended",
    ),
    Told(
        "a motor behind an inverter is read at its own tags",
        [*proof("fl9-t"), *read(PE, INS), PLUG_IN, *read("motor pe >299M"), PLUG_IN],
        "fl9-t",
        refused=(-3,),
        says="motor, to earth",
        more=complaint("trips", device="rcd", moment="turning"),
    ),
    Told(
        "a breaker asks line to neutral",
        [*proof(), *read(PE, INS, "cord across 0.3"), PLUG_IN],
        refused=(-1,),
        says="no short from line to neutral",
        dangers=("trip",),
        more=complaint("trips", device="breaker"),
    ),
    Told(
        "a breaker at heating asks the heater that a relay holds open",
        [*proof(), *read(PE, INS, "cord across 519k"), PLUG_IN, *read("board heater_load 26.5"), PLUG_IN],
        refused=(-3,),
        says="heater, which a relay holds open",
        more=complaint("trips", device="breaker", moment="heating"),
    ),
    Told(
        "live work with a cover off",
        [do("opened", panel="back"), do("live_begun", reason="volts at the relay")],
        state="live",
    ),
    Told(
        "amperes end the proof",
        [*proof(), *read("outlet amps_heat 8.7A", "heater 26")],
        refused=(-1,),
        says="UNDER VOLTAGE",
    ),
    Told(
        "one re-close a trip",
        [do("isolated"), do("reclosed"), do("reclosed")],
        refused=(-1,),
        says="not a second time",
        dangers=("trip",),
        more=complaint("trips", device="rcd"),
    ),
    Told(
        "live mode that ran out is treated as live",
        [do("live_begun", reason="volts", minutes=5), {"wait_minutes": 6}, {"read": "heater 26", **WHY}],
        refused=(-1,),
        says="treat it as live: unplug it",
        state="under_voltage",
    ),
    Told(
        "a shock in live mode ends it",
        [do("live_begun", reason="volts"), do("hazard_found", hazard="shock"), *read("board relay_on 231")],
        refused=(-1,),
        says="cut it off",
        dangers=("shock", "live_though_forbidden"),
        state="under_voltage",
    ),
    Told(
        "a bypass out is tried before a run",
        [
            *proof("tl4-c"),
            do("checked", check="lid.look_bypass", outcome="bad", words="joined"),
            do("bypass_removed", words="wires parted"),
            do("run_watched", outcome="through", was="now"),
            *read("lid open OL", "lid shut 0.2"),
            do("run_watched", outcome="through", was="now"),
        ],
        "tl4-c",
        refused=(-4,),
        says="an interlock is bypassed",
    ),
    Told(
        "insulation that failed is not left out",
        [*proof(), *read("cord insulation 0.02M"), do("insulation_not_allowed", words="surge arrester")],
        refused=(-1,),
        says="tested and failed",
        dangers=("insulation",),
    ),
    Told(
        "a stricter profile opens a danger",
        [*proof(), *read("cord pe 0.25"), PLUG_IN],
        refused=(-1,),
        says="the earth does not hold",
        dangers=("earth",),
        more={"limits": "stricter"},
    ),
    Told(
        "another profile lifts nothing",
        [*proof(), *read("cord pe 0.25"), {"limits": "stricter"}, {"limits": "after_repair"}, *read("cord pe 0.25")],
        dangers=("earth",),
    ),
    Told(
        "another complaint lifts nothing",
        [{"intake": {"symptoms": ["no_heat"]}}, PLUG_IN],
        refused=(-1,),
        says="gave a shock",
        dangers=("shock",),
        more=complaint("shock"),
    ),
    Told(
        "labelled unsafe and reopened it stays without power",
        [do("isolated"), do("ended", why="refused", is_labelled_unsafe=True), do("reopened"), PLUG_IN],
        refused=(-1,),
        dangers=("shock",),
        more=complaint("shock"),
    ),
    Told("nothing found ends as safe", [*proof(), *read("heater 26"), do("ended", why="nothing found")]),
    Told(
        "a reading taken back leaves its danger",
        [*proof(), *read("cord pe >20"), {"withdraw": 7}],
        dangers=("earth",),
    ),
    Told(
        "a slip that was corrected is settled by the next good reading",
        [*proof(), *read("cord pe 0.8"), {"correct": 7, "read": PE}, *read(PE), do("ended", why="it is fine")],
    ),
    Told(
        "a good reading taken back lifts no more",
        [*proof(), *read(PE, INS, *OUTLET), {"withdraw": 7}],
        dangers=("shock",),
        more=complaint("shock"),
    ),
    Told(
        "an outlet without earth gives no power and is reported",
        [
            *read("outlet 231", "outlet le 1", "outlet ne 1"),
            PLUG_IN,
            do("isolated"),
            do("ended", why="outlet without earth", outlet_reported=True),
        ],
        refused=(-3,),
        says="the outlet has no earth",
        dangers=("earth",),
    ),
    Told(
        "half and half on a noted generator says nothing",
        [do("circuit_noted", supply="generator"), *read("outlet 231", "outlet le 115", "outlet ne 114"), PLUG_IN],
    ),
    Told(
        "a relay welded keeps it from going out",
        [*proof(), *read("board relay 0.1"), do("ended", why="done")],
        refused=(-1,),
        says="closed that should be open",
        dangers=("contact",),
        may={"power": True},
    ),
    Told(
        "a cord cut to the copper",
        [do("checked", check="cord", outcome="bad", words="cut to the copper"), PLUG_IN],
        refused=(-1,),
        says="cut to the copper",
        dangers=("cord",),
    ),
    Told(
        "a part that fails is taken off, the rest is tested, and there is power until its plug is back",
        [*proof(), *read("heater pe 0.05M"), HEATER_OFF, {"leak_test": "-heater 50M"}, *read(PE), PLUG_IN],
        dangers=("insulation",),
        state="under_voltage",
        more=complaint("trips", device="rcd", moment="heating"),
    ),
]
TABLE = [*ROWS, *OTHERS]
