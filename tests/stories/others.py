"""Stories beside the rows of SAFETY: two people, clocks, classes, endings, bad input."""

from __future__ import annotations

from tests.stories.told import HEATER_OFF, INS, OUTLET, PE, PLUG_IN, WHY, Told, complaint, do, proof, read

OTHERS = [
    Told(
        "another person powers it only with the hands off",
        [*proof(), {**PLUG_IN, "device": "phone"}, do("hands_off"), {**PLUG_IN, "device": "phone"}],
        refused=(-3,),
        says="hands off",
    ),
    Told(
        "other people's entries keep no proof alive",
        [
            *proof(),
            {"wait_minutes": 6},
            {**do("checked", check="taps", outcome="good"), "device": "phone", "who": "other"},
            {"wait_minutes": 6},
        ],
        state="not_proved",
    ),
    Told(
        "still here takes nothing over",
        [*proof(), {"wait_minutes": 6}, {**do("attended"), "device": "phone"}, {"wait_minutes": 6}],
        refused=(-2,),
        says="takes nothing over",
        state="not_proved",
    ),
    Told(
        "a short series after a lapse",
        [
            *proof("tl4-c"),
            {"wait_minutes": 12},
            do("isolated"),
            *read("source 121", "dead ln 0.1", "dead le 0.1", "dead ne 0.1", "source 121"),
        ],
        "tl4-c",
        state="dead",
    ),
    Told(
        "no short series after voltage was found",
        [
            *proof("tl4-c"),
            *read("dead capacitor 60"),
            {"wait_minutes": 12},
            do("isolated"),
            *read("source 121", "dead ln 0.1", "dead le 0.1", "dead ne 0.1", "source 121"),
        ],
        "tl4-c",
        state="not_proved",
    ),
    Told(
        "a link without a DC source proves nothing",
        [step for step in proof("fl9-t") if step.get("read") != "source dc 9.3"],
        "fl9-t",
        state="not_proved",
    ),
    Told(
        "two meters, each with its own source",
        [do("isolated"), *read("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "source 231")]
        + [{"read": line, "meter": "multimeter-2000"} for line in ("source 231", "dead filter 0.3", "source 231")],
        state="dead",
    ),
    Told(
        "no lamp of a two-pole tester proves the terminals",
        [do("isolated")]
        + [
            {"read": line, "meter": "two-pole-tester"}
            for line in ("source 230", "dead ln none", "dead le none", "dead ne none", "source 230")
        ]
        + read("source 231", "dead filter 0.3", "source 231"),
        state="dead",
    ),
    Told(
        "switched off without a lock lasts ten minutes in all",
        [{**step, "do": {"kind": "isolated", "how": "switched_off"}} if "do" in step else step for step in proof()]
        + [{"wait_minutes": 2}, *read("heater 26"), {"wait_minutes": 2}],
        state="not_proved",
    ),
    Told(
        "switched off leaves a pole: no 500 V",
        [{**step, "do": {"kind": "isolated", "how": "switched_off"}} if "do" in step else step for step in proof()]
        + read(INS),
        refused=(-1,),
        says="one pole joined",
    ),
    Told(
        "plug in hand admits nothing inside",
        [do("isolated", how="plug_in_hand"), *read("source 231", "dead ln 0.1", "heater 26")],
        refused=(-1,),
        says="inside the machine",
    ),
    Told(
        "plug in hand asks a source first",
        [do("isolated", how="plug_in_hand"), *read("cord pe 0.08")],
        refused=(-1,),
        says="Show the meter a known source",
    ),
    Told(
        "plug in hand is with the covers on",
        [
            *proof(),
            do("opened", panel="back"),
            do("isolated", how="plug_in_hand"),
            *read("source 231", "dead ln 0.1", PE),
        ],
        refused=(-1,),
        says="with the covers on",
    ),
    Told(
        "inhand is said of the plug alone",
        [do("isolated"), *read("cord pe inhand 0.08")],
        refused=(-1,),
        says="not noted with its pulled plug in the hand",
    ),
    Told("loose is one part's", [do("isolated"), *read("between heater.a pump.a loose 0.3")], refused=(-1,)),
    Told(
        "loose is refused in live mode",
        [do("live_begun", reason="volts"), *read("cord pe loose 0.08")],
        refused=(-1,),
        says="live mode",
    ),
    Told(
        "an override of three letters is none",
        [do("isolated"), {"read": "heater 26", "override": "abc"}],
        refused=(-1,),
        says="that is no reason",
    ),
    Told(
        "an override of one letter over and over is none",
        [do("isolated"), {"read": "heater 26", "override": "aaaaaaaaaaaaaa"}],
        refused=(-1,),
    ),
    Told(
        "an override with a reason lifts nothing",
        [do("isolated"), {"read": PE, **WHY}, {"read": "cord across 519k", **WHY}, *read(*OUTLET), PLUG_IN],
        refused=(-5, -1),
        says="that reason was given for another one",
        dangers=("shock",),
        more=complaint("shock"),
    ),
    Told(
        "a job is not ended live",
        [do("live_begun", reason="volts"), do("ended", why="done")],
        refused=(-1,),
        says="live mode",
    ),
    Told(
        "a cover off gives no power",
        [*proof(), do("opened", panel="back"), PLUG_IN, do("shut", panel="back"), PLUG_IN],
        refused=(-3,),
        says="off is back panel",
    ),
    Told(
        "a plug off gives no power",
        [*proof(), HEATER_OFF, PLUG_IN],
        refused=(-1,),
        says="both heater tags",
    ),
    Told(
        "an earth off gives no live work either",
        [*proof(), do("earth_lifted", part="heater"), do("live_begun", reason="volts")],
        refused=(-1,),
        dangers=("earth",),
    ),
    Told(
        "power that stood all the same is written down",
        [do("found_powered"), do("plugged_in"), *read("board relay_on 231", "outlet 231"), do("isolated")],
        refused=(1, 2),
        dangers=("shock", "live_though_forbidden"),
        more=complaint("shock"),
    ),
    Told(
        "what was told in error is closed with a reason, what was measured never",
        [
            do("hazard_found", hazard="shock"),
            do("noted_in_error", danger="shock", because="it was the dryer beside it"),
            *proof(),
            *read(PE, INS),
            do("noted_in_error", danger="shock", because="it was the dryer beside it"),
            *read("cord pe >20"),
            do("noted_in_error", danger="earth", because="I do not believe it"),
        ],
        refused=(1, -1),
        says="it was measured",
        dangers=("earth",),
    ),
    Told(
        "codes read while it is cut off: now or before",
        [
            do("isolated"),
            do("codes_read", scheme="lamps", codes=[]),
            do("codes_read", scheme="lamps", codes=[], was="before"),
        ],
        refused=(-2,),
        says="now, or before",
        state="not_proved",
    ),
    Told(
        "an unsafe machine is cut off before it is left",
        [PLUG_IN, do("ended", why="left", is_labelled_unsafe=True)],
        refused=(-1,),
        says="cut off before it is left",
    ),
    Told(
        "a former job's dangers stand on the next one",
        [*proof(), *read(PE), PLUG_IN],
        refused=(-1,),
        dangers=("insulation",),
        more={"former": {"ended_unsafe": ["insulation", "earth"]}},
    ),
    Told("an unknown kind is refused and the story goes on", [do("dance"), *read(*OUTLET)], refused=(0,)),
    Told(
        "a reading that no meter in the bag can show",
        [*proof(), *read("outlet amps_heat 17.5A")],
        refused=(-1,),
        says="cannot have shown",
    ),
    Told(
        "a clock going back ends the proof",
        [*proof(), {"at": "2026-01-05T07:00:00Z", "read": "heater 26"}],
        refused=(-1,),
        state="not_proved",
    ),
]
