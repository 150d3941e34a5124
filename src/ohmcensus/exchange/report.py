"""What a job sheet says, in words, whatever it is written as."""

from __future__ import annotations

from dataclasses import dataclass


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
        The same for the customer, in a few plain sentences.
    leak_tests
        The tests that isolated a leak, oldest first; empty where none was made.
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
    plain: tuple[str, ...]
    leak_tests: tuple[ReportLeakTest, ...] = ()


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
    is_unsafe
        Whether it is not to be used.
    """

    machine: str
    job_id: str
    date: str
    next_date: str
    tester: str
    limits: str
    is_unsafe: bool
