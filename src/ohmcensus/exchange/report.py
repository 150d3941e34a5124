"""What a job sheet says, in words, whatever it is written as."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True, slots=True)
class ReportReading:
    """One reading in print; ``position`` and ``band`` from 0 to 1 on a ruler.

    It is the ohm ruler, or, where there are ``labels``, one of its own with them at the ends of the band.
    """

    what: str
    reads: str
    should: str
    verdict: str
    is_outside: bool
    position: float | None = None
    band: tuple[float, float] | None = None
    labels: tuple[str, str] | None = None


@dataclass(frozen=True, slots=True)
class ReportProof:
    """One criterion of the proof in print; ``before`` is what the machine did before it was repaired."""

    what: str
    limit: str
    before: str
    reads: str
    state: str
    shown_by: str


@dataclass(frozen=True, slots=True)
class ReportLeakTest:
    """One leak test in print: when, what was connected, what it read, what it proved."""

    at: str
    connected: str
    reads: str
    proved: str


@dataclass(frozen=True, slots=True)
class ReportSection:
    """One part of the customer's page: its heading, its sentences, and what stands below them."""

    title: str
    sentences: tuple[str, ...]
    below: Literal["", "reading", "costs"] = ""


@dataclass(frozen=True, slots=True)
class ReportFirm:
    """Whose sheet it is: name, lines of the address, how it is reached, and its mark, a JPEG in base64 or empty."""

    name: str
    address: tuple[str, ...] = ()
    contact: str = ""
    mark: str = ""


@dataclass(frozen=True, slots=True)
class ReportAfter:
    """What read outside, and what the same test reads since the change."""

    what: str
    before: str
    after: str
    should: str


@dataclass(frozen=True, slots=True)
class ReportPhoto:
    """A photo that was chosen: the hash of its content, its shape, and what it shows."""

    content: str
    width: int
    height: int
    words: str


@dataclass(frozen=True, slots=True)
class ReportSignature:
    """The customer's signature: a name, when, and strokes as points across 0 to 1000 and down 0 to 300."""

    name: str
    at: str
    strokes: tuple[tuple[tuple[int, int], ...], ...]


@dataclass(frozen=True)
class Report:
    """Everything that a job sheet says, in words.

    Parameters
    ----------
    title, job_id, facts
        Heading, the id behind the label's square, and lines of name and value.
    told
        The complaint.
    found, deciding, not_proved
        What was found in a sentence; the readings that decided it; what they do not prove.
    done, cured
        What was changed and what ran after, and what that proves.
    taken_off, parts
        What came off with what held it; parts that were wanted.
    costs
        What is charged: name and amount, the total last; empty where nothing was noted.
    proofs, testers
        The proof table, empty where none was made; the testers that its rows name, with number and calibration.
    ending, signed, is_unsafe
        How the job ended; who signed it off and when; whether the machine goes out labelled unsafe.
    dangers
        What was dangerous and how that ended; what was read although it was refused.
    advice, cautions
        Sentences.
    readings
        Every reading that stands.
    plain
        The same for the customer in a row of sentences, as sheets up to October 2026 have it.
    leak_tests
        The tests that isolated a leak, oldest first; empty where none was made.
    zone
        Short name of the zone that its times are in.
    firm, signature
        Whose sheet it is, None where the setup names no firm; the customer's signature, None where nobody signed.
    after
        What read outside and was read again since the change.
    photos
        Photos that were chosen for it.
    unsafe_why
        Why the machine is not safe, a sentence each; empty for every other.
    customer, shown
        The customer's page, and the reading that it shows as a picture, None for none.
    """

    title: str
    job_id: str
    facts: tuple[tuple[str, str], ...]
    told: str
    found: str
    deciding: tuple[ReportReading, ...]
    not_proved: tuple[str, ...]
    done: tuple[str, ...]
    cured: str
    taken_off: tuple[str, ...]
    parts: tuple[str, ...]
    costs: tuple[tuple[str, str], ...]
    proofs: tuple[ReportProof, ...]
    testers: tuple[str, ...]
    ending: str
    signed: str
    is_unsafe: bool
    dangers: tuple[str, ...]
    advice: tuple[str, ...]
    cautions: tuple[str, ...]
    readings: tuple[ReportReading, ...]
    plain: tuple[str, ...] = ()
    leak_tests: tuple[ReportLeakTest, ...] = ()
    zone: str = "UTC"
    firm: ReportFirm | None = None
    signature: ReportSignature | None = None
    after: tuple[ReportAfter, ...] = ()
    photos: tuple[ReportPhoto, ...] = ()
    unsafe_why: tuple[str, ...] = ()
    customer: tuple[ReportSection, ...] = ()
    shown: ReportReading | None = None


@dataclass(frozen=True, slots=True)
class Label:
    """What is stuck on the machine.

    Parameters
    ----------
    machine, job_id
        Its name; the id behind the square.
    date, next_date
        When it was proved, and when it wants to be again; the second empty for a machine that is not safe.
    tester, limits
        Number and calibration of the tester; whose limits held.
    is_unsafe, why
        Whether it is not to be used, and why, in a few words.
    """

    machine: str
    job_id: str
    date: str
    next_date: str
    tester: str
    limits: str
    is_unsafe: bool
    why: str = ""
