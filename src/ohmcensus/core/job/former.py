"""What an earlier job on the same serial number left behind: the dangers that nobody has lifted since."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True, order=True)
class FormerDanger:
    """A danger that stood when the newest unsafe job on a serial number ended, and that no later job lifted.

    Parameters
    ----------
    id
        Which danger.
    line, part
        The line that opened it and the part whose line that is; empty where nobody knows.
    """

    id: str
    line: str = ""
    part: str = ""
