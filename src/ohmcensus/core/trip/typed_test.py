"""A leak test typed in one line, on a case: which parts it asked, by which method, and what it read."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import RunMade
from ohmcensus.core.job.case import Case
from ohmcensus.core.trip.of_case import suspects
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.run_line import read_run_line


@dataclass(frozen=True, slots=True)
class TypedTest:
    """What a line says.

    Parameters
    ----------
    words
        The test in a sentence.
    method
        The instrument that the unit names, else the one that was stated.
    connected, maybe
        Ids of the parts that were surely, and perhaps, connected.
    text
        The reading as typed, empty where none was yet.
    polarity
        How the plug sat; None for an insulation tester.
    """

    __test__ = False

    words: str
    method: Method
    connected: tuple[str, ...]
    maybe: tuple[str, ...]
    text: str
    polarity: Literal["normal", "reversed"] | None

    def record(self, **more: Any) -> RunMade:
        """Return the test as it is written down; ``more`` says what no line says: meter, states, wires insulated.

        Raises
        ------
        InputError
            If no reading was typed yet.
        """
        if not self.text:
            raise InputError(what="no reading typed", remedy="type what the tester shows", field="line")
        said = {"method": self.method.value, "connected": self.connected, "maybe": self.maybe, "text": self.text}
        return RunMade.model_validate({**said, "polarity": self.polarity, **more})


def typed_test(line: str, case: Case, method: Method) -> TypedTest:
    """Return what a line says on a case.

    Parameters
    ----------
    line
        As typed: what is off or alone on, and the reading.
    case
        The job.
    method
        The instrument where the line names none.

    Raises
    ------
    InputError
        If it names no part of this machine, or cannot be read; with what to do.
    """
    # The wider list first: which parts are asked follows from the unit that is typed.
    said = read_run_line(line, suspects(case, Method.LEAKAGE), method)
    asked = {part.id: part.title for part in suspects(case, said.method)}
    connected = tuple(part for part in said.connected if part in asked)
    off = [title for part, title in asked.items() if part not in {*connected, *said.maybe}]
    name = "Live leakage" if said.method is Method.LEAKAGE else "Insulation"
    return TypedTest(
        words=f"{name}, {_set([asked[part] for part in connected], off)}: {said.text or 'no reading yet'}",
        method=said.method,
        connected=connected,
        maybe=tuple(part for part in said.maybe if part in asked),
        text=said.text,
        polarity=said.polarity.value if said.method is Method.LEAKAGE else None,
    )


def _set(inside: list[str], off: list[str]) -> str:
    """Say the shorter of what is connected and what is not."""
    if not off:
        return "the whole machine"
    return f"without {', '.join(off)}" if len(off) <= len(inside) else f"only {', '.join(inside)}"
