"""Judging: a reading against its window, with its meter's error, and what it leaves unseen.

``verdict``      interval against window
``instrument``   which meter a typed reading must have come from
``judge``        one reading, judged and put into words
``limited``      a test with the limit that holds
``passes``       does a reading keep its limit? the one answer
``whole``        what a reading of the whole machine resolves
``census_sheet`` every line of a machine with what it reads
"""

from ohmcensus.core.judgement.census_sheet import CensusLine, census_lines
from ohmcensus.core.judgement.instrument import Use, choose_use
from ohmcensus.core.judgement.judge import Judgement, judge
from ohmcensus.core.judgement.limited import limited
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
    "judge",
    "limited",
    "passes",
    "verdict_of",
]
