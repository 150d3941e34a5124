"""The complaint: the customer's words, sorted into symptoms, and what others did to the machine."""

from __future__ import annotations

import re
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StrictBool

from ohmcensus.core.symptom import Device, Moment, Symptom
from ohmcensus.core.text.trimmed import Sentence, Trimmed


class Trial(BaseModel):
    """Something that was tried before, and by whom."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    words: Sentence
    by: Annotated[str, Trimmed(80)] = ""


class Alteration(BaseModel):
    """Something found that is not as it was built: a cut wire, a bypass, a wrong value.

    Attributes
    ----------
    is_bypass
        Whether an interlock is bridged: a hazard that stays open until the bridge is out.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    words: Sentence
    is_bypass: StrictBool = False


class Complaint(BaseModel):
    """What the customer says.

    Attributes
    ----------
    words
        As said.
    symptoms
        The same, sorted.
    device, moment
        What tripped and when; meant where *trips* is among the symptoms.
    tried, alterations
        What was done before.
    no_shock
        Whether it was asked, and nobody felt a shock or tingle.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    words: Annotated[str, Trimmed(2000)] = ""
    symptoms: tuple[Symptom, ...] = Field(default=(), max_length=len(Symptom))
    device: Device = Device.UNKNOWN
    moment: Moment = Moment.UNKNOWN
    tried: tuple[Trial, ...] = Field(default=(), max_length=30)
    alterations: tuple[Alteration, ...] = Field(default=(), max_length=30)
    no_shock: StrictBool = False


# Beginnings of words that people use of a shock; they are reason to ask, and decide nothing (ours).
_SMELLS = re.compile(
    r"\b(shock|zap|tingl|tickl|prickl|jolt|electrocut|(buzz(ed|es)|bit(es)?|got) (me|us|him|her)\b)", re.IGNORECASE
)


def asks_shock(complaint: Complaint) -> bool:
    """Tell whether words of a complaint smell of a shock that nobody asked about; the words themselves open nothing."""
    is_settled = Symptom.SHOCK in complaint.symptoms or complaint.no_shock
    said = (
        complaint.words,
        *(row.words for row in complaint.tried),
        *(row.words for row in complaint.alterations),
    )
    return not is_settled and any(_SMELLS.search(words) for words in said)
