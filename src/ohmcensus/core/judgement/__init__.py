"""Judging: a reading against its window, with its meter's error, and what it leaves unseen."""

from ohmcensus.core.judgement.census_sheet import CensusLine, census_lines
from ohmcensus.core.judgement.instrument import Use, choose_use
from ohmcensus.core.judgement.judge import Judgement, judge
from ohmcensus.core.judgement.limited import held_on, limited
from ohmcensus.core.judgement.passes import Pass, passes
from ohmcensus.core.judgement.verdict import Verdict, verdict_of

__all__ = [
    "CensusLine",
    "Judgement",
    "Pass",
    "Use",
    "Verdict",
    "census_lines",
    "choose_use",
    "held_on",
    "judge",
    "limited",
    "passes",
    "verdict_of",
]
