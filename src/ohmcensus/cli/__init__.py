"""The command line: everything the screens compute, for scripts and for checking from outside.

JSON on standard output, exit 0; one clear line on standard error, exit 2, and nothing written.
"""

from __future__ import annotations

import gc
import json
import os
import sys
from collections.abc import Callable
from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click
from platformdirs import user_data_path

from ohmcensus.cli.rules import rules
from ohmcensus.cli.say import say
from ohmcensus.cli.whole_data import backup, check, export_command, import_command, restore
from ohmcensus.core.errors import InputError, OhmcensusError, UnknownNameError

if TYPE_CHECKING:
    from ohmcensus.core.machine import MachineTest
    from ohmcensus.core.quantity.window import Window
    from ohmcensus.core.sheet import Sheet
    from ohmcensus.services.at_hand.context import Context

DEFAULT_PORT = 4740
NOT_LINEAR = "a rectifier or a part that heats itself is reached: the true reading will differ"
DEFAULT_METER = "multimeter-6000"
_TEXT_MAY_BEGIN_WITH_MINUS = {"ignore_unknown_options": True}

data_option = click.option("--data", "data", type=click.Path(path_type=Path), help="Data directory.")
port_option = click.option("--port", type=click.IntRange(0, 65535), default=DEFAULT_PORT, show_default=True)
sheet_option = click.option("--sheet", "sheet_id", required=True, help="Machine sheet, e.g. fl7-u.")


@click.group(context_settings={"help_option_names": ["-h", "--help"]})
def commands() -> None:
    """Fault tracing for household washers."""


for command in (rules, export_command, import_command, backup, restore, check):
    commands.add_command(command)


def main() -> None:
    """Run a command; every error of ours is one line and exit code 2."""
    os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
    os.umask(0o077)
    try:
        commands.main(standalone_mode=False)
    except OhmcensusError as error:
        _fail(str(error))
    except click.exceptions.Exit as stop:
        sys.exit(stop.exit_code)
    except click.Abort:
        _fail("stopped")
    except click.ClickException as error:
        _fail(error.format_message().replace("\n", " "))


def _fail(message: str) -> None:
    sys.stderr.write(f"ohmcensus: {message}\n")
    sys.exit(2)


@commands.command()
@port_option
@data_option
def demo(port: int, data: Path | None) -> None:
    """Serve with demo data."""
    from ohmcensus.demo.seed import prepare_demo  # noqa: PLC0415 - commands load only what they need

    _serve(data or user_data_path("ohmcensus") / "demo", port, prepare_demo)


@commands.command()
@port_option
@data_option
def serve(port: int, data: Path | None) -> None:
    """Serve one's own data."""
    _serve(data or user_data_path("ohmcensus") / "data", port)


def _serve(folder: Path, port: int, prepare: Callable[[Context], None] | None = None) -> None:
    """Serve a data directory; the collector rests while everything is loaded, since nothing of that is garbage."""
    gc.disable()
    from ohmcensus.web.serve import serve  # noqa: PLC0415 - commands load only what they need

    gc.freeze()
    gc.enable()
    serve(folder, port, prepare)


@commands.command()
def sheets() -> None:
    """List the built-in machine sheets."""
    from ohmcensus.services.at_hand.sheets import all_sheets  # noqa: PLC0415

    say([_sheet_entry(sheet) for sheet in all_sheets().values()])


def _sheet_entry(sheet: Sheet) -> dict[str, Any]:
    from ohmcensus.core.machine.netlist import all_modes, elements_of  # noqa: PLC0415

    return {
        "id": sheet.id,
        "title": sheet.title,
        "volts": sheet.volts,
        "hertz": sheet.hertz,
        "parts": [part.id for part in sheet.parts],
        "pins": list(sheet.points),
        "plugs": list(sheet.plugs),
        "states": {name: list(values) for name, values in sheet.states.items()},
        "faults": {part.id: [mode.value for mode in all_modes(sheet, part.id)] for part in sheet.parts},
        "elements": {part.id: [row.name for row in elements_of(sheet, part.id)] for part in sheet.parts},
    }


@commands.group()
def sheet() -> None:
    """Show or check one machine sheet."""


@sheet.command("show")
@click.argument("sheet_id")
def sheet_show(sheet_id: str) -> None:
    """Print a sheet as YAML."""
    from ohmcensus.exchange.sheet_yaml import write_sheet  # noqa: PLC0415
    from ohmcensus.services.at_hand.sheets import find_sheet  # noqa: PLC0415

    sys.stdout.write(write_sheet(find_sheet(sheet_id)))


@sheet.command("check")
@click.argument("file", type=click.Path(path_type=Path))
def sheet_check(file: Path) -> None:
    """Say what is wrong with the sheet in FILE, and which faults its tests cannot tell apart."""
    from ohmcensus.services.sheet.check_sheet import check_sheet_file  # noqa: PLC0415

    report = check_sheet_file(file)
    say({"faults": [asdict(row) for row in report.remarks], "inseparable": [list(pair) for pair in report.inseparable]})


@commands.command()
@sheet_option
@click.argument("part", required=False)
def tests(sheet_id: str, part: str | None) -> None:
    """List the tests of a machine, or of one part."""
    from ohmcensus.core.machine import machine_tests  # noqa: PLC0415
    from ohmcensus.core.machine.seen import reaches  # noqa: PLC0415
    from ohmcensus.services.at_hand.sheets import find_sheet  # noqa: PLC0415

    found = find_sheet(sheet_id)
    if part is not None:
        found.known_part(part)
    rows = [test for test in machine_tests(found, None) if part is None or test.part == part]
    say([_test_entry(test, reaches(found, test.part, test.name)) for test in rows])


def _test_entry(test: MachineTest, reached: tuple[str, ...]) -> dict[str, Any]:
    return {
        "id": test.id,
        "part": test.part,
        "test": test.name,
        "title": test.title,
        "between": list(test.between),
        "meter": test.function.value,
        "configuration": test.state.value,
        "minutes": test.minutes,
        "reaches": list(reached),
        "blind_to": [mode.value for mode in test.blind_to],
        "should": test.window.shown,
        "window": _window_entry(test.window),
    }


@commands.command(context_settings=_TEXT_MAY_BEGIN_WITH_MINUS)
@click.argument("text")
@click.option("--unit", "unit_name", required=True, help="ohm, volt, ampere, farad, celsius, hertz, metre or watt.")
@click.option("--meter", "meter_id", help="Meter whose way to show over-range counts.")
def read(text: str, unit_name: str, meter_id: str | None) -> None:
    """Read TEXT as a meter shows it."""
    from ohmcensus.core.meter import generic_meter  # noqa: PLC0415
    from ohmcensus.core.quantity import Unit, parse_indication  # noqa: PLC0415

    if unit_name not in set(Unit):
        known = ", ".join(unit.value for unit in Unit)
        raise InputError(what=f"no unit '{unit_name[:40]}'", remedy=f"units are {known}", field="unit")
    over_range = generic_meter(meter_id).over_range_texts if meter_id else frozenset()
    shown = parse_indication(text, Unit(unit_name), over_range_texts=over_range)
    say({"value": shown.value, "unit": shown.unit.value, "bound": shown.bound.value})


@commands.command(context_settings=_TEXT_MAY_BEGIN_WITH_MINUS)
@sheet_option
@click.argument("part")
@click.argument("test")
@click.argument("text")
@click.option("--celsius", type=float, help="Temperature of the part; left out, it counts as not stated.")
@click.option("--meter", "meter_id", default=DEFAULT_METER, show_default=True)
def judge(sheet_id: str, part: str, test: str, text: str, celsius: float | None, meter_id: str) -> None:
    """Judge TEXT, read in TEST on PART."""
    from ohmcensus.core.judgement import choose_use  # noqa: PLC0415
    from ohmcensus.core.judgement import judge as judged  # noqa: PLC0415
    from ohmcensus.core.machine import machine_tests  # noqa: PLC0415
    from ohmcensus.core.meter import generic_meter  # noqa: PLC0415
    from ohmcensus.services.at_hand.sheets import find_sheet  # noqa: PLC0415

    found = find_sheet(sheet_id)
    found.known_part(part)
    own = {row.name: row for row in machine_tests(found, celsius) if row.part == part}
    if test not in own:
        what = f"no test '{test[:40]}' on {part}"
        raise UnknownNameError(what=what, remedy=f"its tests are {', '.join(own)}", field="test")
    meter = generic_meter(meter_id)
    use = choose_use(text, own[test], [meter], function=own[test].function, must_show=False)
    judgement = judged(use, own[test])
    say(
        {
            "verdict": judgement.verdict.value,
            "healthy": judgement.healthy,
            "comes_and_goes": judgement.comes_and_goes,
            "window": {**_window_entry(own[test].window), "basis": own[test].window.basis},
            "interval": {"lo": judgement.interval.finite_lo, "hi": judgement.interval.finite_hi},
            "blind_to": [mode.value for mode in judgement.blind_to],
            "sentence": judgement.sentence,
            "remark": judgement.remark,
        }
    )


def _window_entry(window: Window) -> dict[str, Any]:
    return {
        "lo": window.interval.finite_lo,
        "hi": window.interval.finite_hi,
        "nominal": window.nominal,
        "unit": window.unit.value,
    }


def _asking(command: Callable[..., None]) -> Callable[..., None]:
    """Give a command the options that name an instrument on a machine."""
    for option in (
        click.option(
            "--fault", "faults", multiple=True, help="PART[.ELEMENT]:MODE[@PIN][=VALUE], e.g. heater:leak@b=47000."
        ),
        click.option("--set", "states", multiple=True, help="NAME=STATE, e.g. door=locked."),
        click.option("--pull", "pulled", multiple=True, help="Plug that is off, e.g. heater_tags."),
        click.option("--between", nargs=2, help="Two points, e.g. heater.a heater.b."),
        click.option(
            "--meter", "meter", help="ohm, insulation, leakage, capacitance, volts_ac, volts_dc, ampere, hertz."
        ),
        click.option("--test", "test", help="PART.TEST, e.g. heater.element."),
        sheet_option,
    ):
        command = option(command)
    return command


@commands.command()
@_asking
def predict(**asked: Any) -> None:
    """Say what a meter must show on the nominal machine."""
    from ohmcensus.services.reading.predict_reading import Asked, predicted  # noqa: PLC0415

    function, found = predicted(Asked(**asked))
    say(
        {
            "value": found.value,
            "unit": function.unit.value,
            "bound": found.bound.value,
            "reaches": list(found.reaches),
            "linear": found.is_linear,
            "note": "" if found.is_linear else NOT_LINEAR,
        }
    )


@commands.command("netlist")
@_asking
def netlist_command(**asked: Any) -> None:
    """Print the same question as a SPICE deck for ngspice -b."""
    from ohmcensus.services.reading.predict_reading import Asked, deck  # noqa: PLC0415

    sys.stdout.write(deck(Asked(**asked)))


@commands.command()
@click.argument("file", type=click.Path(path_type=Path))
def isolate(file: Path) -> None:
    """Say what the runs in FILE prove of every part, and which plug to pull next."""
    from ohmcensus.core.trip.isolate import isolate as isolated  # noqa: PLC0415
    from ohmcensus.exchange.isolation_file import answer_of, read_isolation  # noqa: PLC0415

    problem = read_isolation(_text_of(file))
    say(answer_of(problem, isolated(problem)))


def _text_of(file: Path) -> str:
    """Return the text of a file that was named."""
    try:
        return file.read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError) as error:
        why = getattr(error, "strerror", None) or "no text"
        raise InputError(what=f"{file} cannot be read ({why})", remedy="name a text file", field="file") from None


OBJECTIVES = ["soonest", "cheapest", "least_dismantling", "likeliest_first"]
objective_option = click.option("--objective", type=click.Choice(OBJECTIVES), default="soonest", show_default=True)


@commands.command()
@click.argument("file", type=click.Path(path_type=Path, dir_okay=False), required=False)
@click.option("--lines", "are_lines", is_flag=True, help="One job a line from standard input, one answer a line out.")
@objective_option
def suspects(file: Path | None, objective: str, *, are_lines: bool) -> None:
    """Rank the suspects of the exported job in FILE, and say what to ask next."""
    from ohmcensus.core.diagnosis.question import Objective  # noqa: PLC0415
    from ohmcensus.services.suspects.judge_file import judge_file  # noqa: PLC0415

    if (file is None) is not are_lines:
        raise InputError(what="one of FILE and --lines is needed", remedy="give one of the two", field="file")
    if file is not None:
        say(judge_file(_text_of(file), Objective(objective)))
        return
    for line in sys.stdin:
        if line.strip():
            sys.stdout.write(f"{_answered(line, objective)}\n")
            sys.stdout.flush()


def _answered(line: str, objective: str) -> str:
    """Return an answer on one line; what is wrong with a job is the answer to its line, and the next is read."""
    from ohmcensus.core.diagnosis.question import Objective  # noqa: PLC0415
    from ohmcensus.services.suspects.judge_file import judge_file  # noqa: PLC0415

    try:
        return json.dumps(judge_file(line, Objective(objective)), ensure_ascii=False)
    except OhmcensusError as error:
        return json.dumps({"error": str(error)}, ensure_ascii=False)


@commands.command()
@click.argument("file", type=click.Path(path_type=Path, dir_okay=False))
@click.option("--next", "with_next", is_flag=True, help="Also who is named, and what to do next.")
def replay(file: Path, *, with_next: bool) -> None:
    """Tell the story in FILE again, and say after each step how the machine stands and what would be allowed."""
    from ohmcensus.exchange.story_file import read_story  # noqa: PLC0415
    from ohmcensus.services.transfer.replay import replay as told  # noqa: PLC0415

    say(told(read_story(_text_of(file)), with_next=with_next).model_dump())


@commands.command()
@sheet_option
@click.option("--jobs", type=click.IntRange(1, 5000), default=150, show_default=True, help="How many jobs.")
@click.option("--seed", type=click.IntRange(0), default=1, show_default=True, help="Where chance starts.")
@objective_option
@click.option("--slips", type=click.FloatRange(0, 1), default=0.0, help="Share of readings that are slips.")
@click.option("--nominals-off", type=click.FloatRange(0, 2), default=0.0, help="By how much figures are off.")
def trial(sheet_id: str, jobs: int, seed: int, objective: str, slips: float, nominals_off: float) -> None:
    """Try the diagnosis on simulated jobs with a hidden fault, beside other ways to go about it."""
    from ohmcensus.core.bench.hidden_fault import hidden_jobs  # noqa: PLC0415
    from ohmcensus.core.bench.trial import run_trial  # noqa: PLC0415
    from ohmcensus.core.diagnosis.question import Objective  # noqa: PLC0415
    from ohmcensus.core.machine.dictionary import dictionary  # noqa: PLC0415
    from ohmcensus.services.at_hand.sheets import find_sheet  # noqa: PLC0415

    found = find_sheet(sheet_id)
    world = hidden_jobs(found, jobs, seed, slips=slips, nominals_off=nominals_off)
    say(run_trial(dictionary(found), world, objective=Objective(objective)).model_dump())


@commands.command()
@click.option("--weights", required=True, help="Weight of each lamp from left to right, e.g. 8,4,2,1.")
@click.option("--lit", help="Lamps as seen, 1 for lit, e.g. 0110.")
@click.option("--code", help="Code whose lamps are asked for.")
def lamps(weights: str, lit: str | None, code: str | None) -> None:
    """Turn a row of lamps into its code, or a code into lamps."""
    from pydantic import ValidationError  # noqa: PLC0415

    from ohmcensus.core.codes import LampRow  # noqa: PLC0415

    if (lit is None) == (code is None):
        raise InputError(what="one of --lit and --code is needed", remedy="give one of the two", field="lit")
    try:
        row = LampRow(id="row", title="Row of lamps", weights=tuple(int(weight) for weight in weights.split(",")))
    except (ValidationError, ValueError):
        what = f"'{weights[:40]}' are no weights"
        raise InputError(what=what, remedy="give 1 to 24 whole numbers, e.g. 8,4,2,1", field="weights") from None
    say({"code": int(row.decode(lit))} if lit is not None else {"lit": row.encode(str(code))})
