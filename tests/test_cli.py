"""The command line as scripts use it: JSON out, one line of error, exit codes."""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
import yaml
from click.testing import CliRunner

from ohmcensus import cli
from ohmcensus.demo.seed import seed_demo
from ohmcensus.services.at_hand.context import Context
from ohmcensus.storage.database import open_store
from tests.working import every_job

AT = "2026-01-05T08:00:00+00:00"


def run(capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch, *words: str) -> tuple[int, str, str]:
    monkeypatch.setattr(sys, "argv", ["ohmcensus", *words])
    code = 0
    try:
        cli.main()
    except SystemExit as stop:
        code = int(stop.code or 0)
    out = capsys.readouterr()
    return code, out.out, out.err


@pytest.fixture
def say(capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch) -> Any:
    def call(*words: str) -> Any:
        code, out, err = run(capsys, monkeypatch, *words)
        assert (code, err) == (0, "")
        return json.loads(out)

    return call


@pytest.mark.parametrize(
    ("words", "value", "bound"),
    [
        (["2k2", "--unit", "ohm"], 2200.0, "exact"),
        (["-40C", "--unit", "celsius"], -40.0, "exact"),
        (["-5", "--unit", "volt"], -5.0, "exact"),
        (["OL", "--unit", "ohm"], None, "above"),
        ([">299M", "--unit", "ohm"], 299e6, "above"),
        (["<0.5M", "--unit", "ohm"], 0.5e6, "below"),
        (["50 mfd", "--unit", "farad"], 50e-6, "exact"),
        (["1.", "--unit", "ohm"], 1.0, "exact"),
        (["1.", "--unit", "ohm", "--meter", "multimeter-2000"], None, "above"),
    ],
)
def test_read(say: Any, words: list[str], value: float | None, bound: str) -> None:
    answer = say("read", *words)
    assert (answer["value"], answer["bound"]) == (value, bound)


def test_judge(say: Any) -> None:
    answer = say("judge", "--sheet", "fl7-u", "heater", "element", "25.9")
    assert answer["verdict"] == "inside"
    assert answer["window"]["nominal"] == pytest.approx(26.45)
    assert answer["window"]["basis"] == "the plate: 2000 W at 230 V, +5/−10 %"
    assert answer["interval"]["lo"] < 25.9 < answer["interval"]["hi"]
    assert "leak" in answer["blind_to"]
    over = say("judge", "--sheet", "fl7-u", "heater", "pe", "OL")
    assert (over["verdict"], over["window"]["hi"], over["interval"]["hi"]) == ("inside", None, None)
    assert say("judge", "--sheet", "fl7-u", "ntc", "sensor", "10.4k", "--celsius", "24")["verdict"] == "inside"
    assert say("judge", "--sheet", "fl7-u", "pump", "coil", "1", "--meter", "multimeter-2000")["verdict"] == "open"


def test_sheets_and_tests(say: Any) -> None:
    sheet = next(row for row in say("sheets") if row["id"] == "fl7-u")
    assert (sheet["id"], sheet["volts"], sheet["hertz"]) == ("fl7-u", 230.0, 50.0)
    assert "heater.pe" in sheet["pins"]
    assert sheet["faults"]["heater"] == ["open", "short", "leak", "drift", "bad_joint", "earth_open"]
    tests = say("tests", "--sheet", "fl7-u")
    assert {test["part"] for test in tests} <= set(sheet["parts"])
    assert next(test["reaches"] for test in tests if test["id"] == "heater.element") == ["heater"]
    assert all(set(test["between"]) <= {*sheet["pins"], "chassis"} for test in tests)
    own = say("tests", "--sheet", "fl7-u", "heater")
    assert [(t["id"], t["meter"]) for t in own] == [
        ("heater.element", "ohm"),
        ("heater.pe", "insulation"),
        ("heater.earth", "continuity"),
        ("heater.uncalled", "volts_ac"),
    ]


PREDICTED: list[tuple[list[str], float | None, str, str]] = [
    (["--test", "heater.element"], 26.45, "ohm", "exact"),
    (["--test", "heater.element", "--fault", "heater:open"], 60e6, "ohm", "above"),
    (["--test", "heater.element", "--fault", "heater:drift=1.5"], 39.67, "ohm", "exact"),
    (["--test", "heater.pe", "--fault", "heater:leak=47000"], 47013.0, "ohm", "exact"),
    (["--test", "cord.insulation", "--fault", "heater:leak=47000"], 47012.0, "ohm", "exact"),
    (["--test", "pump.coil", "--fault", "pump:shorted_turns=0.2"], 120.0, "ohm", "exact"),
    (["--test", "lock.locked"], 0.02, "ohm", "exact"),
    (["--test", "lock.locked", "--set", "door=open"], 60e6, "ohm", "above"),
    (["--test", "board.relay", "--fault", "board:welded"], 0.02, "ohm", "exact"),
    (
        ["--meter", "capacitance", "--between", "filter.l_in", "filter.n_in", "--pull", "filter_tags"],
        472.4e-9,
        "farad",
        "exact",
    ),
    (["--meter", "volts_ac", "--between", "outlet.l", "outlet.n"], 230.0, "volt", "exact"),
    (["--meter", "volts_dc", "--between", "outlet.l", "outlet.n"], 0.0, "volt", "exact"),
    (["--meter", "hertz", "--between", "outlet.l", "outlet.n"], 50.0, "hertz", "exact"),
    (["--meter", "leakage", "--between", "cord.plug_l", "cord.plug_pe"], 0.3396e-3, "ampere", "exact"),
]


@pytest.mark.parametrize(
    ("words", "value", "unit", "bound"), PREDICTED, ids=[" ".join(row[0])[:50] for row in PREDICTED]
)
def test_a_reading_is_predicted(say: Any, words: list[str], value: float, unit: str, bound: str) -> None:
    found = say("predict", "--sheet", "fl7-u", *words)
    assert (found["unit"], found["bound"]) == (unit, bound)
    assert found["value"] == pytest.approx(value, rel=1e-3, abs=1e-12)


def test_the_same_question_is_a_deck(capsys: Any, monkeypatch: Any) -> None:
    code, out, _ = run(capsys, monkeypatch, "netlist", "--sheet", "fl7-u", "--test", "heater.element")
    assert code == 0
    assert out.startswith("* fl7-u ohm heater.a heater.b")
    assert "print reading" in out


def test_sheet_show_is_yaml(capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch) -> None:
    code, out, _ = run(capsys, monkeypatch, "sheet", "show", "fl7-u")
    assert code == 0
    assert yaml.safe_load(out)["format"] == "ohmcensus-sheet/1"


def test_export_by_the_files_ending(say: Any, tmp_path: Path, capsys: Any, monkeypatch: Any) -> None:
    assert say
    store = open_store(tmp_path / "data")
    seed_demo(Context(store))
    job = every_job(Context(store))[0].id
    store.close()
    for name, begins in (("sheet.csv", "line,part,test"), ("sheet.json", '{\n  "format": "ohmcensus-job/1"')):
        words = ("export", job, "-o", str(tmp_path / name), "--data", str(tmp_path / "data"))
        assert run(capsys, monkeypatch, *words)[0] == 0
        assert (tmp_path / name).read_text().startswith(begins)


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (["--weights", "128,64,32,16,8,4,2,1", "--lit", "01011001"], {"code": 89}),
        (["--weights", "128,64,32,16,8,4,2,1", "--code", "89"], {"lit": "01011001"}),
        (["--weights", "1,2,4,8", "--code", "0"], {"lit": "0000"}),
    ],
)
def test_lamps_become_a_code_and_a_code_lamps(
    capsys: Any, monkeypatch: Any, words: list[str], says: dict[str, object]
) -> None:
    code, out, _ = run(capsys, monkeypatch, "lamps", *words)
    assert (code, json.loads(out)) == (0, says)


REFUSED = [
    (["read", "abc", "--unit", "ohm"], "'abc' is not a reading"),
    (["read", "", "--unit", "ohm"], "no reading typed"),
    (["read", "1", "--unit", "stone"], "no unit 'stone': units are ohm"),
    (["read", "1"], "Missing option '--unit'"),
    (["read", "1", "--unit", "ohm", "--meter", "wand"], "no meter 'wand'"),
    (["judge", "--sheet", "fl8-u", "heater", "pe", "1"], "did you mean fl7-u?"),
    (["judge", "--sheet", "fl7-u", "heeter", "pe", "1"], "no 'heeter' on this sheet: heater?"),
    (["judge", "--sheet", "fl7-u", "heater", "glow", "1"], "its tests are element, pe"),
    (["judge", "--sheet", "fl7-u", "heater", "element", "230V"], "in volts where ohms belong"),
    (["judge", "--sheet", "fl7-u", "heater", "element", "-3"], "a minus means voltage"),
    (["tests", "--sheet", "fl7-u", "zzz"], "its parts are outlet"),
    (["sheet", "show", "nope"], "no machine sheet 'nope'"),
    (["export", "x", "-o", "x.csv", "--data", "/nonexistent/here"], "no data directory"),
    (["predict", "--sheet", "fl7-u"], "neither a test nor an instrument"),
    (["predict", "--sheet", "fl7-u", "--test", "heeter.pe"], "did you mean heater"),
    (["predict", "--sheet", "fl7-u", "--test", "heater.glow"], "did you mean heater.pe"),
    (["predict", "--sheet", "fl7-u", "--meter", "length", "--between", "heater.a", "heater.b"], "no meter 'length'"),
    (["predict", "--sheet", "fl7-u", "--meter", "ohm", "--between", "heater.a", "heater.z"], "did you mean heater.b"),
    (["predict", "--sheet", "fl7-u", "--test", "heater.pe", "--pull", "heater_tag"], "did you mean heater_tags"),
    (["predict", "--sheet", "fl7-u", "--test", "heater.pe", "--set", "door=ajar"], "no value of door 'ajar'"),
    (["predict", "--sheet", "fl7-u", "--test", "heater.pe", "--set", "polarity=odd"], "no value of polarity"),
    (["predict", "--sheet", "fl7-u", "--test", "heater.pe", "--set", "door"], "a state is written NAME=STATE"),
    (["predict", "--sheet", "fl7-u", "--test", "heater.pe", "--fault", "heater:glow"], "no fault mode 'glow'"),
    (["predict", "--sheet", "fl7-u", "--test", "heater.pe", "--fault", "heater:welded"], "no fault mode 'welded'"),
    (["predict", "--sheet", "fl7-u", "--test", "heater.pe", "--fault", "heater:leak=much"], "'much' is not a value"),
    (["predict", "--sheet", "fl7-u", "--test", "heater.pe", "--fault", "heater:leak=-3"], "is not a value of a fault"),
    (["lamps", "--weights", "8,4,2,1"], "one of --lit and --code"),
    (["lamps", "--weights", "8,x", "--lit", "01"], "'8,x' are no weights"),
    (["lamps", "--weights", "8,4,2,1", "--lit", "01011"], "give 4 lamps"),
    (["lamps", "--weights", "8,4,2,1", "--code", "16"], "the highest is 15"),
    (["dance"], "No such command"),
]


@pytest.mark.parametrize(("words", "says"), REFUSED, ids=[" ".join(row[0])[:30] for row in REFUSED])
def test_errors_are_one_line_and_exit_two(capsys: Any, monkeypatch: Any, words: list[str], says: str) -> None:
    code, out, err = run(capsys, monkeypatch, *words)
    assert (code, out) == (2, "")
    assert says in err
    assert err.count("\n") == 1


def test_the_installed_command_answers() -> None:
    command = [str(Path(sys.executable).with_name("ohmcensus")), "read", "4R7", "--unit", "ohm"]
    found = subprocess.run(command, capture_output=True, text=True, check=True)
    assert json.loads(found.stdout)["value"] == 4.7


def test_isolate_and_the_rules(capsys: Any, monkeypatch: Any, tmp_path: Path) -> None:
    file = tmp_path / "isolation.json"
    parts = [{"id": name, "limit_us": 0.5} for name in "HM"]
    runs = [
        {"id": "A", "connected": ["H", "M"], "reading": "0.50"},
        {"id": "B", "connected": ["M"], "reading": "20.0"},
    ]
    instrument = {"kind": "insulation", "percent": 3, "digits": 2, "resolution": 0.01}
    whole = {"format": "ohmcensus-isolation/1", "parts": parts, "instrument": instrument, "runs": runs}
    file.write_text(json.dumps(whole), encoding="utf-8")
    code, out, _ = run(capsys, monkeypatch, "isolate", str(file))
    assert (code, json.loads(out)["explanations"]) == (0, [["H"]])
    code, out, _ = run(
        capsys, monkeypatch, "rules", "rcd", "--leakage", "0.014", "--standing", "0.008", "--rating", "0.03"
    )
    assert json.loads(out)["trips"]["hi"] == pytest.approx(0.467, abs=1e-3)
    code, out, _ = run(capsys, monkeypatch, "rules", "breaker", "--letter", "B", "--rating", "16", "--amperes", "90")
    assert json.loads(out)["reaction"] == "trips_at_once"
    code, out, _ = run(capsys, monkeypatch, "rules", "power", "--volts", "230", "--watts", "2000")
    assert json.loads(out)["ohms"] == pytest.approx(26.45)
    code, _, err = run(capsys, monkeypatch, "isolate", str(tmp_path / "none.json"))
    assert (code, err.count("\n")) == (2, 1)


def test_all_data_go_into_one_file_and_come_back(
    say: Any, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    open_store(tmp_path / "here").close()
    assert say("backup", str(tmp_path / "all.zip"), "--data", str(tmp_path / "here"))["photos"] == 0
    back = ("restore", str(tmp_path / "all.zip"), "--data", str(tmp_path / "there"))
    assert say(*back)["photos"] == 0
    code, _, err = run(capsys, monkeypatch, *back)
    assert code == 2
    assert "holds data already" in err


def test_heat_up_and_worth_are_worked_out(
    say: Any, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    heat = say("rules", "heat-up", "--litres", "10", "--to-celsius", "65", "--watts", "2000")
    assert heat["minutes"]["lo"] == pytest.approx(17.46, abs=0.01)
    assert say("rules", "worth", "--price", "38", "--machine", "20")[0]["id"] == "give_up"
    assert run(capsys, monkeypatch, "rules", "worth", "--price", "-1")[0] == 2


def test_jobs_go_out_of_one_directory_and_into_another(say: Any, capsys: Any, monkeypatch: Any, tmp_path: Path) -> None:
    here, there = tmp_path / "here", tmp_path / "there"
    context = Context(open_store(here))
    seed_demo(context)
    ids = {row.id for row in every_job(context)}
    photos = len(list((here / "photos").rglob("*.jpg")))
    context.store.close()
    file = str(tmp_path / "all.zip")
    assert run(capsys, monkeypatch, "export", "all", "-o", file, "--data", str(here)) == (0, "", "")
    found = say("import", file, "--data", str(there))
    assert (set(found["jobs"]), found["already"]) == (ids, [])
    assert found["photos"] == 4
    assert len(list((there / "photos").rglob("*.jpg"))) == photos
    again = say("import", file, "--data", str(there))
    assert (again["jobs"], set(again["already"])) == ([], ids)
    code, out, err = run(capsys, monkeypatch, "import", str(tmp_path / "none.zip"), "--data", str(there))
    assert (code, out, err.count("\n")) == (2, "", 1)


@pytest.mark.parametrize(
    ("words", "litres", "joule"),
    [
        ([], 50.0, 14 * 4190 * 25 + 4 * 1340 * 25 + 120 * 90 * 60),
        (["--to-celsius", "15"], 50.0, 120 * 90 * 60),
        (["--rinses", "0", "--laundry-kg", "0", "--minutes", "0"], 14.0, 14 * 4190 * 25),
    ],
    ids=["usual", "cold", "water alone"],
)
def test_a_wash_is_worked_out(say: Any, words: list[str], litres: float, joule: float) -> None:
    found = say("rules", "wash", *words)
    assert (found["water_litres"], found["energy_j"]) == (litres, pytest.approx(joule))
    assert found["kilowatt_hours"] == pytest.approx(joule / 3.6e6)


def test_suspects_reads_one_job_a_line_and_goes_on_after_a_bad_one() -> None:
    """A line that is no job is answered by what is wrong with it."""
    job = json.dumps(
        {
            **{"format": "ohmcensus-job/1", "id": "j", "revision": 1, "place": "", "machine": "M", "serial": ""},
            **{"complaint": "", "sheet": "fl7-u", "opened_at": AT, "changed_at": AT, "ambient_celsius": 20.0},
            **{"safety": {"state": "not_proved", "at": "", "reason": ""}, "intake": {"symptoms": ["no_water"]}},
            **{"readings": [], "lines": [], "history": [], "meters": {}},
        }
    )
    done = CliRunner().invoke(cli.commands, ["suspects", "--lines"], input=f"{job}\nnonsense\n\n{job}\n")
    answers = [json.loads(line) for line in done.stdout.splitlines()]
    assert [next(iter(row)) for row in answers] == ["suspects", "error", "suspects"]
    assert answers[0] == answers[2]
    assert {answers[0]["suspects"][0]["part"], answers[0]["suspects"][1]["part"]} <= {"valve", "prewash", "hoses"}
    assert CliRunner().invoke(cli.commands, ["suspects"]).exit_code != 0
