"""What a good technician says after some readings, as one table: common practice, no source; the numbers are ours.

*leads* is the part that stands first, *among* one of the first three, *asks* what is asked next, *cool* a part that is
hardly a suspect, *unnamed* that nobody is named yet.
"""

from __future__ import annotations

from typing import NamedTuple

import pytest
from tests.core.case_of import Log
from tests.tables import table

from ohmcensus.core.diagnosis.again import concluded
from ohmcensus.core.diagnosis.conclusion import Conclusion
from ohmcensus.core.diagnosis.of_case import diagnosed, reach_of
from ohmcensus.core.diagnosis.question import Question
from ohmcensus.core.diagnosis.ranking import ask
from ohmcensus.core.intake import Complaint
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.safety import safety_at
from ohmcensus.core.symptom import Device, Moment, Symptom
from ohmcensus.services.at_hand.sheets import find_sheet


class Row(NamedTuple):
    """One job: machine, what is told, what was read; and what is to be said of it."""

    sheet: str
    told: str
    lines: tuple[str, ...] = ()
    device: str = "unknown"
    moment: str = "unknown"
    leads: str = ""
    among: str = ""
    asks: str = ""
    cool: str = ""
    unnamed: bool = False


RCD, BREAKER, GFCI = "rcd", "breaker", "gfci"
HEAT, PLUG_IN, TURN, HOT = "heating", "plugging_in", "turning", "hot_only"
ROWS = (
    # Leaks: only a voltage shows them, and the device says what is looked for.
    Row("fl7-u", "trips", ("heater 26.4", "heater pe 0.02M", "heater pe 0.02M"), RCD, HEAT, leads="heater"),
    Row("fl7-u", "trips", (), RCD, HEAT, leads="heater", asks="heater.pe"),
    Row("fl7-u", "trips", ("heater pe OL",), RCD, HEAT, leads="heater", asks="heater.pe"),
    Row("fl7-u", "trips", ("heater pe > 299M",), RCD, HEAT, cool="heater"),
    Row("fl7-u", "trips", ("heater pe > 299M",), RCD, HOT, among="heater"),
    Row("fl7-u", "trips", ("motor pe 0.3M", "motor pe 0.3M"), RCD, TURN, leads="motor"),
    Row("fl7-u", "trips", (), RCD, PLUG_IN, among="filter"),
    Row("tl4-c", "trips", (), GFCI, PLUG_IN, leads="filter"),
    Row("fl9-t", "trips", ("steam pe 0.1M", "steam pe 0.1M"), RCD, leads="steam"),
    Row("wd8-h", "trips", ("dryer pe 0.2M", "dryer pe 0.2M"), RCD, leads="dryer"),
    Row("dd8-r", "trips", ("motor pe 0.4M", "motor pe 0.4M"), RCD, TURN, leads="motor"),
    Row("fl7-u", "trips", ("cord insulation > 299M",), BREAKER, PLUG_IN, unnamed=True),
    Row("fl7-u", "shock", ("cord pe OL", "cord pe OL"), leads="cord"),
    Row("tl4-c", "shock", ("cord pe 40", "cord pe 40"), leads="cord"),
    # No heat.
    Row("fl7-u", "no_heat", ("heater OL", "heater OL"), leads="heater"),
    Row("fl9-t", "no_heat", ("heater OL", "heater OL"), leads="heater"),
    Row("fl7-u", "no_heat", ("harness heater 300", "harness heater 301"), leads="harness"),
    Row("fl7-u", "no_heat", ("ntc 6.2k", "ntc 6.2k"), leads="ntc"),
    Row("fl7-u", "no_heat", ("heater 26.4", "harness heater 0.1"), cool="heater", unnamed=True),
    Row("fl7-u", "no_heat", ("heater 34.4", "heater 34.4"), asks="heater.watts", unnamed=True),
    Row("wd8-h", "no_heat", ("cutout OL", "cutout OL"), leads="cutout"),
    Row("wd8-h", "no_heat", ("heater 140", "heater 140"), leads="heater"),
    # Nothing turns.
    Row("tl4-c", "hums", ("capacitor 8u", "capacitor 8u"), leads="capacitor"),
    Row("tl4-c", "hums", ("capacitor 52u",), cool="capacitor"),
    Row("fl7-u", "no_turn", ("motor brush_1 9mm", "motor brush_1 9mm"), leads="motor"),
    Row("fl7-u", "no_turn", ("motor armature 150", "motor armature 151"), leads="motor"),
    Row("fl9-t", "no_turn", ("motor uv OL", "motor uv OL", "motor vw 5.0", "motor wu OL"), leads="motor"),
    Row("tl4-c", "no_spin", ("lid OL", "lid OL"), leads="lid"),
    Row("tl4-c", "no_spin", ("lid 0.1", "lid open 0.1"), unnamed=True),
    Row("tl6-s", "no_turn", ("shift tacho 0V", "shift tacho 0V"), leads="shift"),
    Row("dd8-r", "no_turn", ("motor uv OL", "motor uv OL", "motor vw OL", "motor wu 9.2"), leads="motor"),
    # Water.
    Row("fl7-u", "no_drain", ("pump OL", "pump OL"), leads="pump"),
    Row("fl7-u", "no_drain", ("pump 150",), cool="heater"),
    Row("fl7-u", "no_water", ("valve OL", "valve OL"), leads="valve"),
    Row("fl7-u", "leaks", ("valve 3.7k",), cool="heater", unnamed=True),
    Row("fl7-u", "overheats", ("level rest 0.2", "level rest 0.2"), leads="level"),
    Row("fl7-u", "overheats", ("relay 0.2", "relay 0.2"), leads="board"),
    # Dead: the outlet before anything of the path.
    Row("fl7-u", "dead", ("outlet 0V", "outlet le 0V"), leads="outlet"),
    Row("fl7-u", "dead", ("outlet amps heat 0", "outlet amps heat 0"), unnamed=True),
    Row("fl7-u", "dead", ("outlet 231V", "cord l OL", "cord l OL"), leads="cord"),
    Row("fl9-t", "code", ("panel link 0V", "panel link 0V"), leads="panel"),
    # The lock.
    Row("fl7-u", "no_start", ("lock ptc OL", "lock ptc OL"), leads="lock"),
    Row("wd8-h", "no_lock", ("lock coil OL", "lock coil OL"), leads="lock"),
)


def said(row: Row) -> tuple[Conclusion, tuple[Question, ...], list[str]]:
    told = Complaint(symptoms=(Symptom(row.told),), device=Device(row.device), moment=Moment(row.moment))
    log = Log(find_sheet(row.sheet)).complains(told).read(*row.lines)
    lines = census_lines(log.case)
    known = diagnosed(log.case, lines, table(row.sheet))
    reach = reach_of(log.case, lines, safety_at(log.case, log.now))
    order = sorted(range(len(known.table.parts)), key=lambda at: -known.of_part[at])
    return concluded(known, reach), ask(known, reach), [known.table.parts[at] for at in order]


@pytest.mark.parametrize("row", ROWS, ids=lambda row: f"{row.sheet} {row.told} {' '.join(row.lines)}".strip())
def test_what_a_good_technician_would_say(row: Row) -> None:
    found, questions, order = said(row)
    chance = dict(zip(found.known.table.parts, found.known.of_part.tolist(), strict=True))
    if row.leads:
        assert order[0] == row.leads, order[:4]
    if row.among:
        assert row.among in order[:3], order[:6]
    if row.asks:
        assert questions[0].test == row.asks
    if row.cool:
        assert chance[row.cool] < 0.1
    if row.unnamed:
        assert not found.named
