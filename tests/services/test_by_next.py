"""Sixty jobs, six machines by ten faults, played by what is next alone: each goes out as safe."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from tests.stories.by_next import Played, by_next, ten_faults
from tests.tables import table

from ohmcensus.core.event import Changed, Intervention
from ohmcensus.core.job.strip_down import unfinished
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.judgement.parts_out import parts_out
from ohmcensus.core.machine.likely import LikelyFault
from ohmcensus.core.machine.plugs import WHOLE_LINES
from ohmcensus.core.parts.fault import FaultMode

MACHINES = ("fl7-u", "fl9-t", "wd8-h", "dd8-r", "tl4-c", "tl6-s")
# What no brush or cloth mends.
ELECTRICAL = frozenset({FaultMode.OPEN, FaultMode.SHORT, FaultMode.LEAK, FaultMode.DRIFT, FaultMode.SHORTED_TURNS})


def jobs() -> Iterator[tuple[str, LikelyFault]]:
    for sheet in MACHINES:
        for fault in ten_faults(sheet):
            yield sheet, fault


def asked_whole_with_parts_out(played: Played) -> list[str]:
    """Return the readings of the whole machine that were asked, and made, while a part of it was off."""
    assert played.job is not None
    case = played.job.case
    return [row.text for row in case.readings if row.test in WHOLE_LINES and parts_out(case, row.order)]


@pytest.mark.parametrize(("sheet", "fault"), list(jobs()), ids=lambda row: row if isinstance(row, str) else row.part)
def test_a_job_goes_to_safe_by_what_is_next(sheet: str, fault: LikelyFault) -> None:
    table(sheet)
    played = by_next(sheet, fault)
    assert (played.why, played.refused) == ("", [])
    assert played.job is not None
    case = played.job.case
    end = case.ended
    assert end is not None
    assert not end.body.is_labelled_unsafe
    assert not end.body.not_tested
    assert unfinished(case) == ()
    assert asked_whole_with_parts_out(played) == []
    assert [line.sentence for line in census_lines(case) if line.comes_and_goes] == []
    changed = case.of(Changed)
    assert changed
    mode = fault.fault.mode if fault.fault is not None else None
    own = [event.body.intervention for event in changed if event.body.part == fault.part]
    if mode in ELECTRICAL and own:
        assert own[0] in {Intervention.REPLACED, Intervention.MENDED}
