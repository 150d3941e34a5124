"""One predicted reading, in process and by ngspice on the same deck; blind spots of a whole machine; the ladder."""

from __future__ import annotations

import re
import subprocess
import tempfile
from pathlib import Path

from benchmarks.slice_speed import milliseconds, say
from ohmcensus.core.machine.coverage import configuration_of, probe_of
from ohmcensus.core.machine.ladder import ladder
from ohmcensus.core.machine.netlist import netlist
from ohmcensus.core.machine.probe import predict, prepared
from ohmcensus.core.machine.seen import blind_modes
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.spice import write_deck
from ohmcensus.services.at_hand.sheets import all_sheets, find_sheet


def main() -> None:
    """Print every figure beside what is wanted."""
    sheet = find_sheet("fl7-u")
    part = sheet.part("heater")
    assert part is not None
    spec = part.tests()[1]
    probe, configuration = probe_of(part, spec), configuration_of(sheet, part, spec)
    ours = say("one prediction, in process", milliseconds(lambda: predict(sheet, probe, configuration)), "wanted < 2")
    with tempfile.TemporaryDirectory() as folder:
        deck = Path(folder) / "deck.cir"
        deck.write_text(write_deck(prepared(sheet, probe, netlist(sheet, configuration)), "bench"))

        def spice() -> None:
            done = subprocess.run(["ngspice", "-b", str(deck)], capture_output=True, text=True, check=True)
            assert re.search(r"^reading = ", done.stdout, re.MULTILINE)

        theirs = say("the same by ngspice, a process each", milliseconds(spice, 20), "")
    print(f"{'  times one of ours':46} {theirs / ours:12.1f}")
    for each in all_sheets().values():
        blind_modes.cache_clear()
        ladder.cache_clear()
        tests = [(row.id, test.name) for row in each.parts for test in listed_tests(each, row.id)]

        def blind(tests: list[tuple[str, str]] = tests, each: Sheet = each) -> None:
            for row, name in tests:
                blind_modes(each, row, name)

        say(f"blind spots of all tests, {each.id}", milliseconds(blind, 1), "")


if __name__ == "__main__":
    main()
