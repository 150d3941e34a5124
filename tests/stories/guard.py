"""Stories that once got through, or that only a false entry helped out of: every one by hand, none by a generator."""

from __future__ import annotations

from tests.stories.told import (
    CLASS_II,
    HEATER_OFF,
    INS,
    OUTLET,
    PE,
    PLUG_IN,
    REPLACED,
    WHY,
    Steps,
    Told,
    complaint,
    do,
    proof,
    read,
    signed,
)

NEW_CORD = do("changed", part="cord", intervention="replaced")
CORES = ("cord l 0.2", "cord n 0.3")
RCD_NOTED = do("circuit_noted", device="rcd", rated_ma=30)
GUARDED = do("run_watched", outcome="through", was="now", guarded=True)
OTHER = {"device": "other"}
BACK_OFF = do("opened", panel="back")
OVER = {"over": {"part": "heater", "insulated": True}}
SHUT_OVER = do("shut", panel="back", **OVER)


def by(device: str, steps: Steps) -> Steps:
    """Return steps as another device sends them."""
    return [{**step, "device": device} for step in steps]


def cut(how: str, sheet: str = "fl7-u") -> Steps:
    """Return the proof of a machine that is cut off in another way."""
    return [do("isolated", how=how), *proof(sheet)[1:]]


def before(*stories: tuple[str, Steps]) -> list[dict[str, object]]:
    """Return whole stories on the same machine."""
    return [
        {"sheet": sheet, "at": f"2026-01-0{day}T08:00:00Z", "steps": steps}
        for day, (sheet, steps) in enumerate(stories, 1)
    ]


UNSAFE_SHOCK: Steps = [
    do("hazard_found", hazard="shock"),
    do("isolated"),
    do("ended", why="the customer was told", is_labelled_unsafe=True),
]
# A change in the machine, the new heater read, put together and read whole: what comes before power.
NEW_HEATER = [REPLACED, *read("heater earth 0.08", "heater pe 50M")]

CORD = [
    Told(
        "a new cord gets no power without its three cores",
        [*proof(), NEW_CORD, *read(INS), PLUG_IN, RCD_NOTED, GUARDED, *read(*CORES, PE), PLUG_IN],
        refused=(-7, -5),
        says="carries the earth",
        state="under_voltage",
    ),
    Told(
        "the ends of a cord that were off ask its cores",
        [
            *proof(),
            do("strip_step", words="cord off the filter", plugs=["cord_ends"]),
            do("strip_back", step=7, plugs=["cord_ends"]),
            PLUG_IN,
            *read(*CORES, PE),
            PLUG_IN,
        ],
        refused=(-5,),
        says="the ends of the cord were off",
        state="under_voltage",
    ),
    Told(
        "a slip on the cord is put right by the next good reading",
        [*proof(), *read("cord l 2.4"), {"correct": 7, "read": "cord l 0.02"}, *read(*CORES, PE, INS), PLUG_IN],
        state="under_voltage",
    ),
    Told(
        "a core of 0.4 Ω by any meter is whole",
        [*proof(), *read("cord l 0.4"), {"read": "cord n 0.3", "meter": "multimeter-6000"}, PLUG_IN],
        state="under_voltage",
    ),
    Told(
        "a core that opens as it is bent is bad",
        [*proof(), *read("cord l 0.2..OL"), PLUG_IN],
        refused=(-1,),
        dangers=("cord",),
    ),
]

TWO_PEOPLE = [
    Told(
        "another device never says hands off for somebody",
        [*proof(), *by("b", [PLUG_IN, do("hands_off"), PLUG_IN])],
        refused=(-3, -2, -1),
        says="may have the hands in it",
        state="dead",
    ),
    Told(
        "a series of another device takes nobody's hands out",
        [*by("a", proof()), *by("b", [*proof(), PLUG_IN]), {"wait_minutes": 11}, *by("b", [PLUG_IN])],
        refused=(-3,),
        says="may have the hands in it",
        state="under_voltage",
    ),
    Told(
        "a voltage of another device takes nobody's hands out",
        [*by("a", proof()), *by("b", read("board relay_on 231")), *by("b", [PLUG_IN])],
        refused=(-1,),
        says="may have the hands in it",
    ),
    Told(
        "each step from another device",
        [{**step, "device": f"d{place}"} for place, step in enumerate(proof())] + by("x", [PLUG_IN]),
        refused=(-1,),
    ),
    Told(
        "the other device says that it was, and a run of it is power",
        [*by("a", proof()), *by("b", [do("run_watched", outcome="through", was="now")])],
        refused=(-1,),
        says="may have the hands in it",
    ),
    Told(
        "a withdrawal attends for whoever sends it",
        [
            *by("a", [*proof(), *read("heater 26")]),
            {"wait_minutes": 9, "withdraw": 7, "device": "b"},
            {"wait_minutes": 5},
            *by("b", read("heater 26")),
        ],
        refused=(-1,),
        says="not proved dead: no ohms reading yet",
        state="not_proved",
    ),
]

TAKEN_BACK = [
    Told(
        "a good reading taken back takes its power along",
        [*proof(), *read("cord pe 14", "cord pe 0.07"), {"withdraw": 8}, PLUG_IN],
        refused=(-1,),
        dangers=("earth",),
    ),
    Told(
        "three good readings taken back settle nothing",
        [
            *proof(),
            *read("cord insulation 0.02M", INS, INS, INS),
            {"withdraw": 8},
            {"withdraw": 9},
            {"withdraw": 10},
            PLUG_IN,
        ],
        refused=(-1,),
        dangers=("insulation",),
    ),
    Told(
        "three good readings within a minute settle nothing",
        [
            *proof(),
            *read("cord pe 14"),
            *({"read": PE, "minutes": 0.1} for _ in range(3)),
            do("ended", why="it holds after all"),
        ],
        refused=(-1,),
        says="comes and goes",
        dangers=("earth",),
        may={"power": True},
    ),
    Told(
        "live mode ends as a danger comes back",
        [
            *proof(),
            *read(PE, INS, *OUTLET),
            do("live_begun", reason="volts at the heater", minutes=20),
            {"withdraw": 7},
            *read("board relay_on 231"),
        ],
        refused=(-1,),
        says="pull the plug",
        dangers=("shock", "live_though_forbidden"),
        state="under_voltage",
        more=complaint("shock"),
    ),
    Told(
        "a reading that is corrected to another good one goes on lifting",
        [*proof(), *read(PE, INS, *OUTLET), {"correct": 7, "read": "cord pe 0.09"}, PLUG_IN],
        state="under_voltage",
        more=complaint("shock"),
    ),
    Told(
        "a reading that is corrected to a bad one lifts no more",
        [*proof(), *read(PE, INS, *OUTLET), {"correct": 7, "read": "cord pe 14"}, PLUG_IN],
        refused=(-1,),
        dangers=("shock", "earth"),
        more=complaint("shock"),
    ),
    Told(
        "a leak test that is doubted lifts no more",
        [*proof(), {"leak_test": "all 50M"}, *read(PE), {"doubt": 7}, PLUG_IN],
        refused=(-1,),
        dangers=("trip",),
        more=complaint("trips", device="rcd"),
    ),
    Told(
        "a change that is taken back ten minutes later stays asked",
        [*proof(), REPLACED, PLUG_IN, {"wait_minutes": 9}, {"withdraw": 7}, PLUG_IN],
        refused=(-4, -1),
        says="was changed and is not read since",
    ),
    Told(
        "a change that is taken back at once was never made",
        [*proof(), REPLACED, {"withdraw": 7}, PLUG_IN],
        state="under_voltage",
    ),
    Told(
        "a change that another device takes back stays asked",
        [*proof(), REPLACED, {"withdraw": 7, "device": "b"}, PLUG_IN],
        refused=(-1,),
        says="was changed and is not read since",
    ),
    Told(
        "a point of the proof that is taken back leaves no proof",
        [*proof(), {"withdraw": 3}, *read("heater 26")],
        refused=(-1,),
        state="not_proved",
    ),
]


def drained(sheet: str, amps: float) -> Told:
    return Told(
        f"a heater that runs in the drain step of {sheet} at {amps} A is not signed",
        [PLUG_IN, *read(f"outlet amps_drain {amps}A"), do("isolated"), do("ended", why="done as asked")],
        sheet,
        refused=(-1,),
        says="closed that should be open",
        dangers=("contact",),
    )


CONTACT = [
    *(drained(sheet, amps) for sheet in ("fl7-u", "fl9-t", "wd8-h", "dd8-r") for amps in (5.4, 8.9, 9.99)),
    Told(
        "a heater that runs in the lock step is a contact too",
        [PLUG_IN, *read("outlet amps_lock 9.0A"), do("isolated"), do("ended", why="done as asked")],
        refused=(-1,),
        dangers=("contact",),
    ),
    Told(
        "volts at a heater that nothing calls",
        [
            PLUG_IN,
            {"read": "heater uncalled 229", "says": {"step": "drain"}},
            do("isolated"),
            do("ended", why="done as asked"),
        ],
        refused=(-1,),
        says="in drain reads 229 V: nothing calls it",
        dangers=("contact",),
    ),
    Told(
        "ghost volts at a heater that nothing calls",
        [PLUG_IN, *read("heater uncalled 41 step drain"), do("isolated"), do("ended", why="nothing found")],
    ),
    Told(
        "a run with a contact closed is no function, and says why",
        [
            *proof(),
            *NEW_HEATER,
            *read(PE, INS, "board relay 0.1"),
            PLUG_IN,
            do("run_watched", outcome="through"),
            do("isolated"),
            *read("board relay OL"),
            do("ended", why="done as asked"),
        ],
        refused=(-2, -1),
        dangers=("contact",),
    ),
]

FRAMES = [
    Told(
        "dead ends as another sheet asks a point that was not read",
        [*proof(), {"sheet": "fl9-t"}, *read("drive bleed 140k")],
        refused=(-1,),
        says="no reason helps",
        state="not_proved",
    ),
    Told(
        "dead stands where another sheet asks no more",
        [*proof("fl9-t"), {"sheet": "fl7-u"}, *read("heater 26")],
        "fl9-t",
        state="dead",
    ),
    Told(
        "a sheet that is changed to and fro",
        [*proof(), {"sheet": "fl9-t"}, {"sheet": "fl7-u"}, *read("heater 26")],
        refused=(-1,),
        state="not_proved",
    ),
    Told(
        "a shock lifted without an earth comes back as the plate says class one",
        [*proof(), *read("cord insulation 50M"), {"plate": {"protection_class": "I"}}, PLUG_IN],
        CLASS_II,
        refused=(-1,),
        dangers=("shock",),
        more=complaint("shock"),
    ),
    Told(
        "a trip lifted on one sheet comes back on another that hides its motor",
        [*proof(), *read(PE, INS), {"sheet": "fl9-t"}, PLUG_IN],
        refused=(-1,),
        says="motor, to earth",
        dangers=("trip",),
        more=complaint("trips", device="rcd"),
    ),
    Told(
        "a stricter profile brings a danger back",
        [*proof(), *read("cord pe 0.25", INS, *OUTLET), {"limits": "stricter"}, PLUG_IN],
        refused=(-1,),
        dangers=("shock", "earth"),
        more=complaint("shock"),
    ),
    Told(
        "a charge of a sheet that does not hold any more goes by the whole series",
        [
            *proof("tl4-c")[:-2],
            *read("dead capacitor 160"),
            {"sheet": "tl6-s"},
            do("isolated"),
            *proof("tl6-s")[1:],
            *read("motor run 2"),
        ],
        "tl4-c",
        state="dead",
    ),
    Told(
        "a line that another sheet has not goes by the whole line of its kind",
        [*proof("fl9-t"), *read("steam pe 0.02M"), {"sheet": "fl7-u"}, PLUG_IN, *read(INS), PLUG_IN],
        "fl9-t",
        refused=(-3,),
        says="whole machine to earth",
        dangers=("insulation",),
        may={"power": True},
    ),
]

FORMER = [
    Told(
        "a third job on a machine that was left unsafe",
        [*proof(), PLUG_IN],
        refused=(-1,),
        dangers=("shock",),
        more={"before": before(("fl7-u", UNSAFE_SHOCK), ("fl7-u", [do("isolated")]))},
    ),
    Told(
        "a third job begins without what the second lifted",
        [*proof(), PLUG_IN],
        more={"before": before(("fl7-u", UNSAFE_SHOCK), ("fl7-u", [*proof(), *read(PE, INS, *OUTLET)]))},
        state="under_voltage",
    ),
    Told(
        "what an earlier job left is never noted in error",
        [*proof(), *read(PE, INS), do("noted_in_error", danger="shock", because="I see no shock here at all")],
        refused=(-1,),
        says="an earlier job left it behind",
        dangers=("shock",),
        more={"before": before(("fl7-u", UNSAFE_SHOCK))},
    ),
    Told(
        "a charge that an earlier job left is lifted by the points of this sheet",
        [*proof(), do("ended", why="it bleeds off")],
        more={"former": {"ended_unsafe": ["charge"]}},
    ),
    Told(
        "a contact that an earlier job left is lifted by its lines",
        [
            *proof(),
            *read("board relay OL", "board lock_rest OL", "board valve_rest OL"),
            *read("board prewash_rest OL", "board motor_rest OL", "board pump_rest OL"),
            do("ended", why="all of them open"),
        ],
        more={"former": {"ended_unsafe": ["contact"]}},
    ),
    Told(
        "a contact that an earlier job left with its line is lifted by that line",
        [*proof(), *read("board relay OL"), do("ended", why="it opens")],
        more={
            "before": before(
                (
                    "fl7-u",
                    [
                        *proof(),
                        *read("board relay 0.1"),
                        do("ended", why="left it unplugged", is_labelled_unsafe=True),
                    ],
                )
            )
        },
    ),
    Told(
        "a cord that an earlier job left is lifted by a look and its lines",
        [*proof(), do("checked", check="cord", outcome="good"), *read(*CORES, PE, INS), PLUG_IN],
        more={"former": {"ended_unsafe": ["cord"]}},
        state="under_voltage",
    ),
    Told(
        "a bypass that an earlier job left is lifted where open reads open and it was tried",
        [
            *proof("tl4-c"),
            *read("lid open OL"),
            do("interlock_tried", open="lid", outcome="stops", was="now"),
            do("run_watched", outcome="through"),
            do("ended", why="it stops"),
        ],
        "tl4-c",
        more={"former": {"ended_unsafe": ["bypass"]}},
    ),
    Told(
        "power that stood on an earlier job is not left behind",
        [*proof(), PLUG_IN],
        more={"former": {"ended_unsafe": ["live_though_forbidden"]}},
        state="under_voltage",
    ),
    Told(
        "a serial number put right before power takes away what the wrong one brought",
        [{"serial": "S-0001"}, PLUG_IN, {"serial": "S-0002"}, PLUG_IN],
        refused=(-3,),
        more={"before": before(("fl7-u", UNSAFE_SHOCK))},
        state="under_voltage",
    ),
]

OVERRIDE = [
    Told(
        "no reason helps at 500 V",
        [do("isolated"), {"read": INS, **WHY}],
        refused=(-1,),
        says="no reason helps at 500 V",
    ),
    Told(
        "no reason helps at a link that was not read",
        [do("isolated"), {"read": "drive bleed 140k", **WHY}],
        "fl9-t",
        refused=(-1,),
        says="was not read at most 10 V DC",
    ),
    Told(
        "no reason helps at a motor capacitor that was not read",
        [do("isolated"), {"read": "capacitor 52u", **WHY}],
        "tl4-c",
        refused=(-1,),
        says="was not read at most 10 V DC",
    ),
    Told(
        "a reason holds for ten attended minutes",
        [do("isolated"), {"wait_minutes": 11}, {"read": "heater 26", **WHY}],
        refused=(-1,),
        says="nothing was written for ten minutes",
    ),
    Told(
        "a reason holds where somebody stayed at it",
        [
            do("isolated"),
            {"wait_minutes": 8},
            do("checked", check="taps", outcome="good"),
            {"read": "heater 26", **WHY},
        ],
        state="not_proved",
    ),
    Told(
        "a reason of another device is none",
        [do("isolated"), {"read": "heater 26", **WHY, "device": "b"}],
        refused=(-1,),
        says="another device cut it off",
    ),
    Told(
        "one word over and over is no reason",
        [do("isolated"), {"read": "heater 26", "override": "sure sure sure sure"}],
        refused=(-1,),
        says="that is no reason",
    ),
    Told(
        "a reason for one reading is none for the next",
        [do("isolated"), {"read": "heater 26", **WHY}, {"read": "pump 150", **WHY}],
        refused=(-1,),
        says="was given for another one",
    ),
]

CUT_OFF = [
    Told(
        "switched off is not renewed by telling it again",
        [*cut("switched_off"), *cut("switched_off"), *cut("switched_off")[:1], *read("heater 26")],
        refused=(-2, -1),
        says="not noted as cut off",
        state="not_proved",
    ),
    Told(
        "switched off and then unplugged begins anew",
        [*cut("switched_off"), {"wait_minutes": 6}, *proof(), *read("heater 26")],
        state="dead",
    ),
    Told(
        "a fixed cord that is locked off waits for its ends",
        [do("circuit_noted", plug="fixed"), *cut("locked_off"), *read("cord across 519k"), *read(INS)],
        refused=(-2, -1),
        says="a fixed cord",
        state="dead",
    ),
    Told(
        "a fixed cord with its ends off is read at the terminals",
        [
            do("circuit_noted", plug="fixed"),
            *cut("locked_off"),
            do("strip_step", words="cord off its terminals", plugs=["cord_ends"]),
            *read(INS, "cord across 519k"),
            do("strip_back", step=8, plugs=["cord_ends"]),
            PLUG_IN,
            *read(*CORES, PE),
            PLUG_IN,
        ],
        refused=(-5,),
        says="the ends of the cord",
        more=complaint("trips", device="rcd"),
        dangers=(),
    ),
    Told(
        "the same way and the same device leave it dead",
        [*proof(), do("isolated"), *read("heater 26")],
        state="dead",
    ),
    Told(
        "another way begins anew",
        [*proof(), do("isolated", how="locked_off"), *read("heater 26")],
        refused=(-1,),
        state="not_proved",
    ),
    Told(
        "a clock that creeps back gains no minute",
        [
            *proof(),
            *({"minutes": -1.2, **do("costs_noted", minutes=1.0, hour=1.0, call_out=0.0)} for _ in range(8)),
            {"wait_minutes": 18, "read": "heater 26"},
        ],
        refused=(-1,),
        state="not_proved",
    ),
    Told(
        "a record hours ahead and the clock put right",
        [
            {"at": "2026-01-05T13:00:00Z", **do("checked", check="taps", outcome="good")},
            {"at": "2026-01-05T08:10:00Z", **do("isolated")},
            *proof()[1:],
            {"wait_minutes": 30, "read": "heater 26"},
            *proof(),
            *read("heater 26"),
        ],
        refused=(8,),
        state="dead",
    ),
    Told(
        "a clock that is set back ends a switch without a lock",
        [*cut("switched_off"), {"at": "2026-01-05T06:00:00Z", "read": "heater 26"}],
        refused=(-1,),
        says="not noted as cut off",
    ),
]

PART_OFF = [
    Told(
        "a cover is shut over a part that leaks, its wires tied away",
        [
            *proof(),
            BACK_OFF,
            *read("heater pe 0.02M"),
            HEATER_OFF,
            {"leak_test": "-heater 5M"},
            do("shut", panel="back"),
            SHUT_OVER,
            PLUG_IN,
            do("strip_back", step=9, plugs=["heater_tags"]),
        ],
        refused=(-4, -1),
        says="leaks, and was taken off for that",
        dangers=("insulation",),
        state="under_voltage",
    ),
    Told(
        "a whole machine that leaks, a part off, and a trip of an RCD",
        [
            *proof("wd8-h"),
            BACK_OFF,
            *read("cord insulation 0.02M"),
            HEATER_OFF,
            {"leak_test": "-heater 5M"},
            *read(PE),
            SHUT_OVER,
            PLUG_IN,
        ],
        "wd8-h",
        dangers=("insulation",),
        state="under_voltage",
        more=complaint("trips", device="rcd"),
    ),
    Told(
        "a whole reading with a part off lifts nothing of the whole",
        [
            *proof(),
            HEATER_OFF,
            *read(PE, INS),
            do("strip_back", step=7, plugs=["heater_tags"]),
            *read(*OUTLET),
            PLUG_IN,
        ],
        refused=(-1,),
        dangers=("shock",),
        more=complaint("shock"),
    ),
    Told(
        "line to neutral with a part off shows no short",
        [
            *proof(),
            HEATER_OFF,
            *read(PE, INS, "cord across 519k"),
            do("strip_back", step=7, plugs=["heater_tags"]),
            *read(INS),
            PLUG_IN,
        ],
        refused=(-1,),
        says="line to neutral at the plug",
        dangers=("trip",),
        more=complaint("trips", device="breaker"),
    ),
    Told(
        "no part is worked on under voltage",
        [
            PLUG_IN,
            BACK_OFF,
            do("changed", part="heater", intervention="cleaned"),
            do("changed", part="board", intervention="reseated"),
            do("changed", part="sieve", intervention="cleaned"),
        ],
        refused=(-3, -2),
        says="no part is worked on",
    ),
    Told(
        "an earth tag that was off is read before it goes out",
        [
            *proof(),
            do("strip_step", words="ground wire of the heater", fasteners=1, part="heater", holds_earth=True),
            do("strip_back", step=7, fasteners=1),
            *read("heater earth 0.08", INS),
            *signed(),
        ],
    ),
    Told(
        "an earth tag that is off gives no power",
        [
            *proof(),
            do("strip_step", words="green wire", fasteners=1, part="heater", holds_earth=True),
            PLUG_IN,
            do("live_begun", reason="volts at the relay"),
        ],
        refused=(-2, -1),
        says="off is an earth",
    ),
    Told(
        "plugs pulled and put back ask the earth of their part",
        [
            *proof(),
            HEATER_OFF,
            do("strip_back", step=7, plugs=["heater_tags"]),
            do("proof_made", criterion="visual", is_good=True),
            *read(PE, INS),
            PLUG_IN,
            do("run_watched", outcome="through"),
            do("ended", why="plugs reseated"),
        ],
        refused=(-1,),
        says="earth of the heater is not shown",
    ),
]

OUTLETS = [
    Told(
        "two readings of an outlet without earth",
        [*read("outlet 121", "outlet le 2"), do("outlet_named", words="the other wall"), PLUG_IN],
        "tl4-c",
        refused=(-1,),
        says="the outlet has no earth",
        dangers=("earth",),
    ),
    Told(
        "line and neutral reversed at a polarised outlet",
        [*read("outlet 121", "outlet ne 120"), PLUG_IN],
        "tl4-c",
        refused=(-1,),
        says="reversed",
        dangers=("earth",),
    ),
    Told(
        "a turned outlet at a reversible plug is no danger",
        [PLUG_IN, *read("outlet 231", "outlet le 1.0", "outlet ne 230"), PLUG_IN],
        state="under_voltage",
    ),
    Told(
        "half of an outlet asks for the other half",
        [*read("outlet 231", "outlet le 1.0"), PLUG_IN],
        refused=(-1,),
        says="read neutral to earth too",
    ),
    Told(
        "a good outlet lifts what another one opened",
        [
            *read("outlet 121", "outlet le 2"),
            do("outlet_named", words="the other wall"),
            *read("outlet 121", "outlet le 120", "outlet ne 0.6"),
            PLUG_IN,
        ],
        "tl4-c",
        state="under_voltage",
    ),
]

BEFORE_AND_NOW = [
    Told(
        "what was seen under power counts after unplugging",
        [
            *proof(),
            *NEW_HEATER,
            do("proof_made", criterion="visual", is_good=True),
            do("proof_made", criterion="drum", is_good=True),
            *read(PE, INS),
            PLUG_IN,
            do("run_watched", outcome="through"),
            do("isolated"),
            do("proof_made", criterion="current", text="0.4 mA", way="differential", was="before"),
            do("proof_made", criterion="current_turned", text="0.4 mA", way="differential", was="before"),
            do("proof_made", criterion="joints", is_good=True),
            do("proof_made", criterion="codes", is_good=True),
            do("ended", why="proved and signed"),
        ],
    ),
    Told(
        "what was seen before counts nothing after a plug was moved",
        [
            PLUG_IN,
            do("run_watched", outcome="through"),
            do("isolated"),
            *proof()[1:],
            HEATER_OFF,
            do("strip_back", step=9, plugs=["heater_tags"]),
            do("proof_made", criterion="current", text="0.4 mA", way="differential", was="before"),
            REPLACED,
            do("ended", why="done as asked"),
        ],
        refused=(-1,),
    ),
    Told(
        "now is power, and refused as that",
        [
            *proof(),
            do("run_watched", outcome="through", was="now"),
            do("codes_read", scheme="lamps", codes=[], was="now"),
        ],
        refused=(-2, -1),
        says="no power: gave a shock",
        dangers=("shock",),
        state="dead",
        more=complaint("shock"),
    ),
    Told(
        "a typed current of before opens its danger",
        [PLUG_IN, do("isolated"), {"read": "outlet amps_drain 8.9A", "was": "before"}],
        dangers=("contact",),
        state="not_proved",
    ),
    Told(
        "a typed current without a word is found",
        [PLUG_IN, do("isolated"), *read("outlet amps_drain 0.9A")],
        state="under_voltage",
    ),
    Told(
        "a typed current of now is refused as power is",
        [do("isolated"), {"read": "outlet amps_drain 0.9A", "was": "now"}],
        refused=(-1,),
        says="no power: gave a shock",
        dangers=("shock",),
        state="not_proved",
        more=complaint("shock"),
    ),
    Told(
        "now and before are said of power alone",
        [*proof(), {"read": "heater 26", "was": "before"}],
        refused=(-1,),
        says="said of what only a powered machine gives",
    ),
]

ARRESTER = [
    Told(
        "a failure before anybody knew of the arrester is lifted by both readings",
        [
            *proof(),
            *read("cord insulation 0.05M"),
            do("stamped", part="filter", rating="arrester", value=1.0),
            do("earth_lifted", part="filter"),
            *read("cord insulation >299M"),
            do("earth_refitted", part="filter"),
            *read("filter earth 0.08", "cord insulation >299M at 250 V"),
            PLUG_IN,
        ],
        state="under_voltage",
    ),
    Told(
        "a shock on a machine with an arrester is lifted at 250 V",
        [
            *proof(),
            do("stamped", part="filter", rating="arrester", value=1.0),
            *read(PE, "cord insulation >299M at 250 V", *OUTLET),
            PLUG_IN,
        ],
        state="under_voltage",
        more=complaint("shock"),
    ),
]

INTERLOCK = [
    Told(
        "a lock that reads closed as it is locked opens nothing",
        [*proof(), {"read": "lock unlocked 0.3", "says": {"door": "locked"}}, PLUG_IN],
        state="under_voltage",
    ),
    Told(
        "a door contact that is closed unlocked, its lock replaced, put together, tried, run",
        [
            *proof(),
            {"read": "lock unlocked 0.3", "says": {"door": "open"}},
            do("changed", part="lock", intervention="replaced"),
            *read("lock unlocked OL", INS),
            PLUG_IN,
            do("run_watched", outcome="through"),
            do("interlock_tried", open="door", outcome="no_start"),
            do("run_watched", outcome="through"),
        ],
        refused=(-3,),
        says="door contact closed with the door unlocked",
    ),
    Told(
        "an interlock is tried once open reads open",
        [
            *proof(),
            *read("lock unlocked 0.3"),
            do("interlock_tried", open="door", outcome="no_start", was="now"),
            *read("lock unlocked OL"),
            do("interlock_tried", open="door", outcome="starts", was="now"),
        ],
        refused=(-3,),
        says="no trial of the interlock yet",
        dangers=("bypass",),
    ),
    Told(
        "a lock that is held shut by a hand proves nothing of a wax one",
        [
            *proof(),
            *read("lock unlocked 0.3", "lock unlocked OL", "lock locked 0.3"),
            do("run_watched", outcome="through", was="now"),
        ],
        refused=(-1,),
        says="Next, try the interlock",
        dangers=("bypass",),
    ),
]

SHORTS = [
    Told(
        "a load at its own tags clears no lead",
        [
            *proof(),
            *read(PE, INS, "cord across 519k", "heater 26.5"),
            PLUG_IN,
            *read("board heater_load 26.5"),
            PLUG_IN,
        ],
        refused=(-3,),
        says="from its output",
        more=complaint("trips", device="breaker", moment="heating"),
    ),
]

COVERS = [
    Told(
        "a cover that is opened after the proof asks a look alone",
        [
            *proof(),
            *NEW_HEATER,
            *signed()[:-1],
            do("isolated"),
            BACK_OFF,
            do("shut", panel="back"),
            do("ended", why="all proved"),
            do("proof_made", criterion="visual", is_good=True),
            do("ended", why="all proved"),
        ],
        refused=(-3,),
        says="looked at is not shown",
    ),
    Told(
        "after a change the whole machine is read with its covers shut",
        [
            *proof(),
            BACK_OFF,
            *NEW_HEATER,
            *read(PE, INS),
            do("shut", panel="back"),
            do("ended", why="read it all"),
        ],
        refused=(-1,),
        says="looked at is not shown",
        may={"power": True, "sign_off": False},
    ),
]

SHORT_WAY = [
    Told(
        "a machine of the 120 V world goes out on a GFCI that was brought along",
        [
            *proof("tl4-c"),
            do("changed", part="pump", intervention="replaced"),
            do("proof_made", criterion="visual", is_good=True),
            do("proof_made", criterion="drum", is_good=True),
            *read(PE, INS),
            PLUG_IN,
            do("run_watched", outcome="through", on_gfci=True),
            do("proof_made", criterion="joints", is_good=True),
            do("ended", why="new pump"),
        ],
        "tl4-c",
    ),
    Told(
        "a machine of the 120 V world goes out on a measured current",
        [
            *proof("tl4-c"),
            do("changed", part="pump", intervention="replaced"),
            do("proof_made", criterion="visual", is_good=True),
            do("proof_made", criterion="drum", is_good=True),
            *read(PE, INS),
            PLUG_IN,
            do("proof_made", criterion="current", text="0.3 mA", way="differential"),
            do("run_watched", outcome="through", on_gfci=False),
            do("proof_made", criterion="joints", is_good=True),
            do("ended", why="new pump"),
        ],
        "tl4-c",
    ),
]

GUARD = [
    *CORD,
    *TWO_PEOPLE,
    *TAKEN_BACK,
    *CONTACT,
    *FRAMES,
    *FORMER,
    *OVERRIDE,
    *CUT_OFF,
    *PART_OFF,
    *OUTLETS,
    *BEFORE_AND_NOW,
    *ARRESTER,
    *INTERLOCK,
    *SHORTS,
    *COVERS,
    *SHORT_WAY,
]
