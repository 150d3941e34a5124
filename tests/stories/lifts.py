"""For every danger a story that lifts it and ends in power and a signature as safe: the easy way out is no way."""

from __future__ import annotations

from tests.stories.told import INS, OUTLET, PE, Told, complaint, do, proof, read, signed

MENDED = do("changed", part="heater", intervention="replaced")
NEW_HEATER = [MENDED, *read("heater earth 0.08", "heater pe 50M")]
NEW_CORD = do("changed", part="cord", intervention="replaced")
CORES = ("cord l 0.2", "cord n 0.3")

LIFTS = [
    Told("shock is lifted", [*proof(), *read(PE, INS, *OUTLET), *signed()], more=complaint("shock")),
    Told("a trip of an RCD is lifted", [*proof(), *read(PE, INS), *signed()], more=complaint("trips", device="rcd")),
    Told(
        "a trip of a breaker is lifted",
        [*proof(), *read(PE, INS, "cord across 519k"), *signed()],
        more=complaint("trips", device="breaker"),
    ),
    Told(
        "a burnt smell is lifted",
        [*proof(), do("place_noted", hazard="burnt_smell", words="relay of the board"), *read(PE, INS), *signed()],
        more=complaint("smells"),
    ),
    Told(
        "water inside is lifted",
        [
            do("hazard_found", hazard="water_inside"),
            *proof(),
            do("place_noted", hazard="water_inside", words="dry; the hose was off"),
            *read(INS),
            *signed(),
        ],
    ),
    Told("a broken earth is lifted", [*proof(), *read("cord pe >20"), NEW_CORD, *read(*CORES, PE, INS), *signed()]),
    Told(
        "an earth of a part is lifted",
        [
            *proof(),
            do("earth_lifted", part="heater"),
            do("earth_refitted", part="heater"),
            *read("heater earth 0.08"),
            *signed(),
        ],
    ),
    Told("a leak of a part is lifted", [*proof(), *read("heater pe 0.02M"), *NEW_HEATER, *signed()]),
    Told(
        "a leak between free points is lifted by a new part",
        [*proof(), *read("between heater.b heater.pe 0.02M"), *NEW_HEATER, *signed()],
    ),
    Told(
        "a leak of the whole machine is lifted",
        [*proof(), *read("cord insulation 0.02M"), *NEW_HEATER, *read(INS), *signed()],
    ),
    Told(
        "three good in a row settle what came and went",
        [*proof(), *read("cord insulation 0.02M", INS, INS, INS), do("ended", why="dried out and stays dry")],
    ),
    Told(
        "a bad cord is lifted",
        [
            *proof(),
            do("checked", check="cord", outcome="bad", words="cut"),
            NEW_CORD,
            *read("cord l 0.04", "cord n 0.04", PE, INS),
            *signed(),
        ],
    ),
    Told(
        "a bypass is lifted",
        [
            *proof(),
            do("hazard_found", hazard="bypass", words="lock bridged"),
            do("bypass_removed", words="parted"),
            *read("lock unlocked OL"),
            do("interlock_tried", open="door", outcome="no_start", was="now"),
            do("run_watched", outcome="through"),
            do("ended", why="bridge out, locks"),
        ],
    ),
    Told(
        "a welded relay is lifted",
        [
            *proof(),
            *read("board relay 0.1"),
            do("changed", part="board", intervention="replaced"),
            *read("board relay OL"),
            *signed(),
        ],
    ),
    Told(
        "heated dry is lifted",
        [
            do("hazard_found", hazard="dry"),
            *proof(),
            *read("level empty 0.2", "level rest OL", "level full 0.2", "level left OL"),
            do("ended", why="level good"),
        ],
    ),
    Told(
        "a charge at the plug is lifted",
        [
            do("isolated", how="plug_in_hand"),
            *read("between cord.plug_l cord.plug_n 60V dc"),
            *proof(),
            do("changed", part="filter", intervention="replaced"),
            *read("filter earth 0.08", "filter across 680k"),
            *signed(),
        ],
    ),
    Told(
        "live though forbidden is lifted by the series",
        [do("found_powered"), *proof(), *read(PE, INS, *OUTLET), *signed()],
        more=complaint("shock"),
    ),
    Told(
        "a current over its limit is lifted",
        [
            do("plugged_in"),
            *read("filter leakage 6mA"),
            *proof(),
            *read(PE, INS),
            do("plugged_in"),
            *read("filter leakage 0.3mA"),
            do("isolated"),
            *proof()[1:],
            *read("filter leakage 0.3mA")[:0],
            do("changed", part="filter", intervention="replaced"),
            *read("filter earth 0.08"),
            *signed(),
        ],
    ),
    Told("a machine with an inverter is signed", [*proof("fl9-t"), *signed("fl9-t", hidden=("motor",))], "fl9-t"),
    Told("a machine of the 120 V world is signed", [*proof("tl4-c"), *signed("tl4-c")], "tl4-c"),
]
