"""Stories in which two rules meet: each was found by the second definition parting from the core."""

from __future__ import annotations

from tests.stories.guard import before, by
from tests.stories.told import HEATER_OFF, INS, OUTLET, PE, PLUG_IN, REPLACED, WHY, Steps, Told, do, proof, read

# The serial number of a machine that was here before, as a story has it.
SERIAL = "S-0001"
TRIPPED = do("tripped", device="rcd")
SHOCK = do("hazard_found", hazard="shock")
HEATER_BAD = read("heater pe 0.02M")
HAND: Steps = [do("isolated", how="plug_in_hand"), *read("source 231", "dead ln 0.1")]
LOCK_OPEN = read("lock unlocked OL")
HOLDS = do("interlock_tried", open="door", outcome="no_start", was="now")
STARTS = do("interlock_tried", open="door", outcome="starts", was="now")
FOUND_BYPASS = do("hazard_found", hazard="bypass")
OUT = do("bypass_removed", words="a wire across the lock")

CORNERS = [
    Told(
        "with the covers on nobody touches the body of a heater that hangs behind one",
        [*HAND, *read("heater earth 0.08", PE)],
        refused=(-2,),
        says="inside the machine",
    ),
    Told(
        "a sheet that asks no other point leaves a dead machine dead, whatever was read again since",
        [*proof(), *read("dead le 0.1"), {"sheet": "wd8-h"}, *read("heater 28")],
        state="dead",
    ),
    Told(
        "an outlet that was read turned is told as soon as its plug is noted as one that goes one way",
        [*read("outlet 231", "outlet ne 231"), do("circuit_noted", plug="fixed"), PLUG_IN],
        refused=(-1,),
        says="reversed",
        dangers=("earth",),
    ),
    Told(
        "a leak in the rest of the machine does not let it run without its heater",
        [*proof(), HEATER_OFF, *read("cord insulation 0.02M", INS), PLUG_IN],
        refused=(-1,),
        says="off is both heater tags",
        dangers=("insulation",),
    ),
    Told(
        "a trip asks its lines after it, though the part that leaks was off before",
        [*proof(), *HEATER_BAD, HEATER_OFF, *read(INS, PE), PLUG_IN, TRIPPED],
        dangers=("trip", "insulation"),
        may={"power": False},
    ),
    Told(
        "an earth that was off and is back mends no leak",
        [
            *proof(),
            *HEATER_BAD,
            do("earth_lifted", part="heater"),
            do("earth_refitted", part="heater"),
            *read("heater earth 0.08", "heater pe 50M", PE, INS),
        ],
        dangers=("insulation",),
    ),
    Told(
        "a change that is taken back later mended nothing",
        [*proof(), *HEATER_BAD, REPLACED, {"wait_minutes": 9, "withdraw": 8}, *read("heater pe 50M")],
        dangers=("insulation",),
    ),
    Told(
        "a line that another sheet has not is settled by three of the whole",
        [
            *proof("fl9-t"),
            *read("steam pe 0.02M"),
            {"sheet": "fl7-u"},
            *read(INS),
            {"wait_minutes": 2, "read": INS},
            {"wait_minutes": 2, "read": INS},
        ],
        "fl9-t",
    ),
    Told(
        "under voltage although forbidden is done with once it was cut off and proved, whatever sheet comes",
        [SHOCK, do("found_powered"), *proof(), {"sheet": "fl9-t"}],
        dangers=("shock",),
    ),
    Told(
        "with a charge left in it the plug in the hand proves nothing",
        [do("isolated"), *read("dead filter 20"), *HAND, *read(PE)],
        refused=(-1,),
        says="charge",
    ),
    Told(
        "a trip that comes back as its leak test is doubted, under voltage, is under voltage although forbidden",
        [
            TRIPPED,
            *proof(),
            *read(PE),
            {"leak_test": "all 50M"},
            PLUG_IN,
            {"doubt": 9},
        ],
        dangers=("trip", "live_though_forbidden"),
    ),
    Told(
        "the leak test of the rest taken back under voltage is under voltage although forbidden",
        [*proof(), *HEATER_BAD, HEATER_OFF, *read(INS), PLUG_IN, {"withdraw": 9}],
        dangers=("insulation", "live_though_forbidden"),
    ),
    Told(
        "an older shock that opens anew never takes the place of a newer one",
        [*proof(), SHOCK, *read(PE, INS, *OUTLET), SHOCK, {"sheet": "fl9-t"}, {"sheet": "fl7-u"}, PLUG_IN],
        refused=(-1,),
        dangers=("shock",),
    ),
    Told(
        "live work on a bypassed interlock says that the lid is shut",
        [FOUND_BYPASS, do("live_begun", reason="volts at the relay")],
        refused=(-1,),
        says="stated",
        dangers=("bypass",),
    ),
    Told(
        "a heater that was replaced takes no bypass out",
        [
            *proof(),
            FOUND_BYPASS,
            REPLACED,
            *read("heater earth 0.08", "heater pe 50M"),
            *LOCK_OPEN,
            HOLDS,
        ],
        refused=(-1,),
        says="take the bypass out",
        dangers=("bypass",),
    ),
    Told(
        "an interlock that held and then started is tried again once it reads open",
        [
            *proof(),
            *read("lock unlocked 0.3", "lock unlocked OL"),
            HOLDS,
            STARTS,
            do("isolated"),
            *proof()[1:],
            FOUND_BYPASS,
            OUT,
            *LOCK_OPEN,
            HOLDS,
        ],
        dangers=("bypass",),
        state="under_voltage",
    ),
    Told(
        "cut off again by a device whose proof it is not, it is not proved",
        [do("isolated"), *by("other", proof()[1:]), do("isolated"), *read("heater 26")],
        refused=(-1,),
        state="not_proved",
    ),
    Told(
        "a source of direct voltage after the last point proves no link",
        [
            do("isolated"),
            *read("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "dead filter 0.3", "dead drive 0.3"),
            *read("source 231", "source dc 9.3", "heater 28"),
        ],
        "fl9-t",
        refused=(-1,),
        state="not_proved",
    ),
    Told(
        "what an earlier job left on a line stands beside what was read on it here",
        [{"serial": "M 9"}, *proof(), *read("cord pe >20", PE), {"serial": SERIAL}, PLUG_IN],
        refused=(-1,),
        says="an earlier job",
        dangers=("earth",),
        more={
            "before": before(
                ("fl7-u", [*proof(), *read("cord pe >20"), do("ended", why="left it", is_labelled_unsafe=True)])
            )
        },
    ),
    Told(
        "after a lapse a sheet with a capacitor that was never read asks the whole series",
        [
            *proof(),
            {"wait_minutes": 12, **do("attended")},
            {"sheet": "tl4-c"},
            do("isolated"),
            *read("source 121", "dead ln 0.1", "dead le 0.1", "dead ne 0.1", "source 121", "motor main 4.1"),
        ],
        refused=(-1,),
        state="not_proved",
    ),
    Told(
        "a job that is reopened is nobody's: still here of whoever cut it off before proves no presence",
        [
            do("isolated"),
            do("ended", why="left it", is_labelled_unsafe=True),
            do("reopened"),
            do("attended"),
        ],
        refused=(-1,),
        says="takes nothing over",
    ),
    Told(
        "three good readings of the whole settle a leak of its rest that came and went",
        [
            *proof(),
            do("run_made", method="insulation", connected=["cord", "filter", "harness", "motor", "pump"], text="0.02"),
            *read(INS),
            {"wait_minutes": 2, "read": INS},
            {"wait_minutes": 2, "read": INS},
        ],
    ),
    Told(
        "over a part that leaks and is off a cover waits for the rest to be measured, and says so",
        [*proof(), do("opened", panel="back"), *HEATER_BAD, HEATER_OFF, do("shut", panel="back")],
        refused=(-1,),
        says="Measure the rest",
        dangers=("insulation",),
    ),
    Told(
        "a job that is reopened asks the link anew before any reason counts",
        [
            *proof("fl9-t"),
            do("ended", why="left it", is_labelled_unsafe=True),
            do("reopened"),
            do("isolated"),
            {**read(PE)[0], **WHY},
        ],
        "fl9-t",
        refused=(-1,),
        state="not_proved",
    ),
    Told(
        "a part that does not leak is put back before its cover, though another one may stay off",
        [
            *proof(),
            do("opened", panel="back"),
            *HEATER_BAD,
            HEATER_OFF,
            *read(INS),
            do("strip_step", words="motor plug off", plugs=["motor_plug"]),
            {"do": {"kind": "shut", "panel": "back", "over": {"part": "heater", "insulated": True}}},
        ],
        refused=(-1,),
        says="Put that back first",
        dangers=("insulation",),
    ),
]
