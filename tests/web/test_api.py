"""The HTTP face: contract, guards, problem answers, and the built interface's files."""

from __future__ import annotations

import io
import json
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
import schemathesis
from flask.testing import FlaskClient
from hypothesis import settings
from PIL import Image
from schemathesis.specs.openapi.checks import negative_data_rejection, positive_data_acceptance
from tests.seeded import with_demo
from tests.working import job_on
from werkzeug.test import TestResponse

from ohmcensus.services.at_hand.context import Context
from ohmcensus.storage.database import open_store
from ohmcensus.web.app import create_app


@pytest.fixture
def client(context: Context, tmp_path: Path) -> Iterator[FlaskClient]:
    static = tmp_path / "static"
    (static / "assets").mkdir(parents=True)
    (static / "index.html").write_text("<!doctype html><title>x</title>")
    (static / "assets" / "a.js").write_text("1")
    (static / "assets" / "a.js.gz").write_bytes(b"zipped")
    with_demo(context)
    with create_app(context, static_folder=static).test_client() as found:
        yield found


@pytest.fixture
def job(context: Context, client: FlaskClient) -> str:
    assert client
    return job_on(context, "Machine 1")


def test_the_last_act_is_taken_back_once_and_never_what_tells_how_the_machine_stands(client: FlaskClient) -> None:
    """Whatever a page does, the API holds the rule."""
    job = str(uuid4())
    client.post("/api/jobs", json={"id": job, "machine": "Machine 9", "place": "Pier", "sheet": "fl7-u"})

    def write(body: dict[str, Any], event: str = "") -> tuple[int, dict[str, Any]]:
        revision = client.get(f"/api/jobs/{job}").get_json()["revision"]
        answer = client.post(
            f"/api/jobs/{job}/events", json={"id": event or str(uuid4()), "revision": revision, "body": body}
        )
        return answer.status_code, answer.get_json(force=True)

    def last() -> dict[str, Any] | None:
        found: dict[str, Any] | None = client.get(f"/api/jobs/{job}/outlook").get_json()["undo"]
        return found

    check = str(uuid4())
    assert write({"kind": "checked", "check": "drain_filter", "outcome": "good"}, check)[0] == 201
    assert last() == {"id": check, "of": "record", "words": "drain filter: good"}
    undo = {"kind": "record_withdrawn", "record": check}
    assert write(undo)[0] == 201
    status, problem = write(undo)
    assert (status, problem["detail"]) == (422, "there is nothing to undo: look at what was done last")
    run = str(uuid4())
    assert write({"kind": "isolated"})[0] == 201
    assert write({"kind": "run_watched", "outcome": "heat", "was": "now"}, run)[0] == 201
    status, problem = write({"kind": "record_withdrawn", "record": run})
    assert (status, problem["type"]) == (403, "/problems/safety")
    assert "tells how the machine stands" in problem["detail"]
    power = client.get(f"/api/jobs/{job}").get_json()["power"]
    assert power["state"] == "under_voltage"


def test_errors_are_problems_mapped_by_type(client: FlaskClient, job: str) -> None:
    for path, body, status, kind in (
        ("/api/jobs/none/preview", {"text": "heater 25"}, 404, "/problems/not-found"),
        (f"/api/jobs/{job}/readings", {"id": str(uuid4()), "revision": 1, "text": "outlet 229"}, 409, "stale-revision"),
        (f"/api/jobs/{job}/readings", {"id": str(uuid4()), "revision": 8, "text": "heeter 25"}, 422, "/problems/input"),
        (f"/api/jobs/{job}/readings", {"id": "7", "revision": 8, "text": "heater 25"}, 422, "/problems/input"),
        (f"/api/jobs/{job}/readings", {"revision": 8, "text": "heater 25"}, 422, "/problems/input"),
        ("/api/jobs", {"id": str(uuid4()), "machine": " ", "place": "P", "sheet": "fl7-u"}, 422, "/problems/input"),
        ("/api/nothing", {}, 404, "about:blank"),
    ):
        answer = client.post(path, json=body)
        problem = answer.get_json(force=True)
        assert (answer.status_code, answer.mimetype) == (status, "application/problem+json"), path
        assert kind in problem["type"]
        assert problem["detail"]
    stale = client.post(f"/api/jobs/{job}/readings", json={"id": str(uuid4()), "revision": 1, "text": "outlet 229"})
    assert stale.get_json(force=True)["revision"] == list_jobs_revision(client, job)


def list_jobs_revision(client: FlaskClient, job: str) -> int:
    found = client.get("/api/jobs").get_json()["jobs"]
    return int(next(row["revision"] for row in found if row["id"] == job))


def test_safety_is_enforced_without_the_page(client: FlaskClient, job: str) -> None:
    revision = list_jobs_revision(client, job)
    row = {"id": str(uuid4()), "revision": revision, "text": "heater 25.9"}
    for body in (
        {"kind": "live_begun", "reason": "volts at the outlet"},
        {"kind": "hazard_found", "hazard": "shock"},
    ):
        refused = client.post(f"/api/jobs/{job}/readings", json=row | {"revision": revision})
        assert (refused.status_code, refused.get_json(force=True)["type"]) == (403, "/problems/safety")
        event = {"id": str(uuid4()), "revision": revision, "body": body}
        assert client.post(f"/api/jobs/{job}/events", json=event).status_code == 201
        revision += 1
    powered: list[dict[str, object]] = [
        {"kind": "plugged_in"},
        {"kind": "live_begun", "reason": "to see it", "minutes": 5},
    ]
    for power in powered:
        event = {"id": str(uuid4()), "revision": revision, "body": power}
        refused = client.post(f"/api/jobs/{job}/events", json=event)
        assert (refused.status_code, refused.get_json(force=True)["type"]) == (403, "/problems/safety")
        detail = refused.get_json(force=True)["detail"]
        assert "no power: " in detail
        assert "gave a shock" in detail
    assert list_jobs_revision(client, job) == revision


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({"Host": "127.0.0.1:4740"}, 200),
        ({"Host": "localhost"}, 200),
        ({"Host": "[::1]:4740"}, 200),
        ({"Host": "boat.example"}, 403),
        ({"Host": "127.0.0.1:4740", "Origin": "http://127.0.0.1:4740"}, 200),
        ({"Host": "127.0.0.1:4740", "Origin": "http://boat.example"}, 403),
        ({"Host": "127.0.0.1:4740", "Origin": "null"}, 403),
    ],
)
def test_only_this_machines_own_browser_is_answered(client: FlaskClient, headers: dict[str, str], status: int) -> None:
    assert client.get("/api/jobs", headers=headers).status_code == status


def test_odd_bodies_are_refused(client: FlaskClient) -> None:
    assert client.post("/api/jobs", data="{", content_type="application/json").status_code == 400
    assert client.post("/api/jobs", data="a=b", content_type="application/x-www-form-urlencoded").status_code == 415
    assert client.post("/api/jobs", data=b"x" * 2_000_000, content_type="application/json").status_code == 413
    assert client.delete("/api/jobs").status_code == 405
    assert "GET" in client.delete("/api/jobs").headers["Allow"]


def test_the_page_is_served_for_any_address_outside_the_api(client: FlaskClient) -> None:
    page = client.get("/jobs/abc/trace", buffered=True)
    assert (page.status_code, page.headers["Cache-Control"]) == (200, "no-cache")
    assert client.get("/api/none").status_code == 404
    assert client.get("/assets/none.js").status_code == 404
    assert client.get("/assets/../index.html").status_code == 404
    zipped = client.get("/assets/a.js", headers={"Accept-Encoding": "gzip"}, buffered=True)
    assert (zipped.data, zipped.headers["Content-Encoding"]) == (b"zipped", "gzip")
    assert zipped.mimetype == "text/javascript"
    assert "immutable" in zipped.headers["Cache-Control"]
    assert client.get("/assets/a.js", buffered=True).data == b"1"


def test_a_job_sheet_can_be_fetched_as_a_file(client: FlaskClient, job: str) -> None:
    for ending, mimetype in (("csv", "text/csv"), ("json", "application/json")):
        answer = client.get(f"/api/jobs/{job}/export.{ending}")
        assert (answer.status_code, answer.mimetype) == (200, mimetype)
        assert f'filename="job-{job[:8]}.{ending}"' in answer.headers["Content-Disposition"]
    assert client.get(f"/api/jobs/{job}/export.doc").status_code == 422


def form_of(fields: dict[str, bytes]) -> dict[str, Any]:
    """Return what sends a form, by the quoted names of its fields."""
    parts = [
        b"--edge\r\nContent-Disposition: form-data; name=" + field.encode() + b"\r\n\r\n" + value + b"\r\n"
        for field, value in fields.items()
    ]
    return {"data": b"".join(parts) + b"--edge--\r\n", "content_type": "multipart/form-data; boundary=edge"}


def test_the_firms_mark_goes_in_by_a_form_and_comes_back_small(client: FlaskClient) -> None:
    picture = io.BytesIO()
    Image.new("RGB", (2400, 400), "teal").save(picture, "PNG")
    kept = client.put("/api/firm/mark", **form_of({'"file"; filename="mark.png"': picture.getvalue()}))
    assert kept.status_code == 200
    address = f"/api/firm/mark/{kept.get_json()['mark']}"
    assert kept.get_json()["mark"] == client.get("/api/settings").get_json()["mark"] != ""
    served = client.get(address)
    assert (served.mimetype, Image.open(io.BytesIO(served.data)).size) == ("image/jpeg", (480, 80))
    refused = client.put("/api/firm/mark", **form_of({'"file"; filename="mark.svg"': b"<svg/>"}))
    assert (refused.status_code, "mark.svg is not a picture" in refused.get_data(as_text=True)) == (422, True)
    assert client.get(address).data == served.data
    assert client.delete("/api/firm/mark").get_json()["mark"] == ""
    assert client.get(address).status_code == 404


def test_a_photo_goes_in_by_a_form_and_comes_back_as_a_jpeg(client: FlaskClient, job: str) -> None:
    def send(body: bytes, name: str) -> TestResponse:
        fields = {'"id"': str(uuid4()).encode(), '"role"': b"plate", f'"file"; filename="{name}"': body}
        return client.post(f"/api/jobs/{job}/photos", **form_of(fields))

    picture = io.BytesIO()
    Image.new("RGB", (30, 20)).save(picture, "PNG")
    kept = send(picture.getvalue(), "plate.png")
    assert kept.status_code == 201
    found = kept.get_json()["photos"][0]
    for address in (found["address"], found["small"]):
        served = client.get(address, buffered=True)
        assert (served.status_code, served.mimetype, served.data[:3]) == (200, "image/jpeg", b"\xff\xd8\xff")
        assert "max-age" in served.headers["Cache-Control"]
    for body, name, status, says in (
        (b"x", "x.jpg", 422, "x.jpg is not a picture"),
        (b"\xff" * 30_500_000, "huge.jpg", 422, "huge.jpg has 30 MB"),
        (b"\xff" * 40_000_000, "huge.jpg", 413, "40 MB were sent, at most 30 MB"),
    ):
        refused = send(body, name)
        assert (refused.status_code, refused.mimetype) == (status, "application/problem+json")
        assert says in refused.get_json(force=True)["detail"]
    assert client.get("/api/photos/etc.jpg").status_code == 422
    assert client.delete(f"/api/jobs/{job}/photos/{found['id']}").get_json()["photos"] == []


@pytest.mark.parametrize(
    ("method", "path", "body", "status"),
    [
        ("PUT", "intake", {"intake_revision": 1}, 422),
        ("POST", "events", {"id": str(uuid4()), "revision": 1, "body": {"kind": "dance"}}, 422),
        ("POST", "events", {"id": str(uuid4()), "revision": 1, "body": {"kind": "attended"}}, 409),
        ("POST", "codes/decode", {"scheme": "lamps", "pattern": "2"}, 422),
        ("POST", "codes/coach", {"sequence": "service_mode", "clicks": [{"direction": "up", "at_s": 0}]}, 422),
        ("POST", "codes/coach", {"sequence": "service_mode", "clicks": [{"direction": "left", "at_s": -1.0}]}, 422),
        ("GET", "rungs?test=heater.pe", None, 200),
        ("GET", "rungs?states=door:locked,programme:heat&pulled=heater_tags", None, 200),
        ("GET", "rungs.svg", None, 200),
        ("GET", "rungs?test=heater.glow", None, 422),
        ("GET", "rungs?states=door", None, 422),
        ("GET", "rungs?states=door:ajar", None, 422),
        ("GET", "rungs?pulled=none", None, 422),
        ("GET", "safe", None, 200),
        ("GET", "codes", None, 200),
        ("GET", "intake", None, 200),
    ],
)
def test_every_room_of_a_job_answers_or_says_why_not(
    client: FlaskClient, job: str, method: str, path: str, body: object, status: int
) -> None:
    answer = client.open(f"/api/jobs/{job}/{path}", method=method, json=body)
    assert answer.status_code == status
    if status >= 400:
        assert answer.get_json(force=True)["detail"]


def test_what_is_made_is_201_and_what_was_there_already_200(client: FlaskClient, job: str) -> None:
    """RFC 9110, 15.3.2: 201 where a resource has been made; the same id sent again makes none."""
    new = {"id": str(uuid4()), "machine": "M", "place": "P", "sheet": "fl7-u"}
    revision = list_jobs_revision(client, job)
    bodies = [
        ("/api/jobs", new),
        (f"/api/jobs/{job}/events", {"id": str(uuid4()), "revision": revision, "body": {"kind": "isolated"}}),
        (f"/api/jobs/{job}/readings", {"id": str(uuid4()), "revision": revision + 1, "text": "heater 26 loose"}),
        (f"/api/jobs/{job}/notes", {"id": str(uuid4()), "revision": revision + 2, "line": "cord.pe", "text": "bent"}),
    ]
    for path, body in bodies:
        answers = [client.post(path, json=body) for _ in range(3)]
        assert [row.status_code for row in answers] == [201, 200, 200], (path, answers[0].get_json(force=True))
        assert answers[1].get_json() == answers[2].get_json()


def test_figures_are_confirmed_as_they_are_and_no_others(client: FlaskClient) -> None:
    text = client.get("/api/limits").get_json()["texts"][0]
    said = {"text": text["id"], "figures": text["figures"], "edition": "EN 1", "by": "Anna", "on": "2026-06-01"}
    revision = client.get("/api/settings").get_json()["revision"]
    for wrong in ({**said, "figures": "other ones"}, {**said, "text": "nowhere"}, {**said, "on": "2026-02-30"}):
        refused = client.patch("/api/settings", json={"revision": revision, "confirmations": [wrong]})
        assert refused.status_code == 422
    kept = client.patch("/api/settings", json={"revision": revision, "confirmations": [said]})
    assert kept.status_code == 200
    assert client.get("/api/limits").get_json()["texts"][0]["confirmation"] == said


def test_meters_and_settings_come_back_as_they_were_kept(client: FlaskClient) -> None:
    listed = client.get("/api/meters").get_json()
    own = listed["meters"][0] | {"id": "own-1", "title": "Mine", "nulled": True}
    kept = client.put("/api/meters/own-1", json=own)
    assert kept.status_code == 200
    assert client.put("/api/meters/own-2", json=own).status_code == 422
    assert kept.get_json()["meters"][0] == own
    assert client.get("/api/settings").get_json()["bag"][0] == "own-1"
    assert client.put("/api/meters/own-1", json=own | {"input_impedance_ohm": None}).status_code == 422
    assert client.delete("/api/meters/own-1").get_json()["meters"] == listed["meters"]
    assert client.patch("/api/settings", json={"revision": 0, "ambient_celsius": 99}).status_code == 422


def _application() -> object:
    context = Context(open_store(Path(tempfile.mkdtemp())))
    with_demo(context)
    return create_app(context)


schema = schemathesis.openapi.from_wsgi("/api/openapi.json", _application())


@schema.parametrize()
@settings(max_examples=10, deadline=None)
def test_the_api_keeps_its_own_description(case: schemathesis.Case[Any]) -> None:
    # A body may fit its schema and still name a sheet or a meter that does not exist: that is a 422.
    excluded: list[Any] = [positive_data_acceptance]
    response = case.call()
    if _is_one_file(response.request.body):
        excluded.append(negative_data_rejection)
    case.validate_response(response, excluded_checks=excluded)


def _is_one_file(sent: object) -> bool:
    """Tell whether what went out is a whole upload: a field that the fuzzer adds as an empty list leaves no trace."""
    if not isinstance(sent, bytes) or not sent.startswith(b"--"):
        return False
    return sent.count(b"form-data; name=") == sent.count(b'name="file"; file') == 1


def test_signing_off_straight_to_the_api_is_refused_with_the_list_while_a_danger_is_open(
    client: FlaskClient, job: str
) -> None:
    revision = client.get(f"/api/jobs/{job}/changes").get_json()["revision"]
    found = {"kind": "hazard_found", "hazard": "bypass", "words": "lid switch wires joined"}
    post(client, job, revision, found)
    answer = post(client, job, revision + 1, {"kind": "ended", "why": "It runs."})
    detail = answer.get_json(force=True)["detail"]
    assert (answer.status_code, "lid switch wires joined" in detail) == (403, True)
    unsafe = {"kind": "ended", "why": "The owner keeps it.", "is_labelled_unsafe": True}
    assert post(client, job, revision + 1, unsafe).status_code == 201
    other = post(client, job, revision + 1, {**unsafe, "why": "Signed by somebody else at the same time."})
    assert "this job has ended" in other.get_json(force=True)["detail"]


def post(client: FlaskClient, job: str, revision: int, body: dict[str, Any]) -> TestResponse:
    return client.post(f"/api/jobs/{job}/events", json={"id": str(uuid4()), "revision": revision, "body": body})


def test_a_job_goes_out_and_in_over_http(client: FlaskClient, job: str) -> None:
    archive = client.get(f"/api/jobs/{job}/archive.zip")
    assert (archive.status_code, archive.mimetype) == (200, "application/zip")
    back = client.post("/api/imports?name=job.zip", data=archive.data, content_type="application/octet-stream")
    assert (back.status_code, back.get_json()["already"]) == (201, [job])
    bad = client.post("/api/imports?name=job.csv", data=b"x", content_type="application/octet-stream")
    assert (bad.status_code, "no whole job" in bad.get_json(force=True)["detail"]) == (422, True)
    huge = client.post("/api/imports?name=a.zip", environ_overrides={"CONTENT_LENGTH": "400000000"})
    assert huge.status_code == 413
    assert "on the command line" in huge.get_json(force=True)["detail"]


SPARE = {"sheet": "fl7-u", "part": "heater", "type_number": "FL7-U/2"}
DEAR = {"part": "heater", "offers": [{"source": "Post", "price": "forty"}]}


@pytest.mark.parametrize(
    ("request_line", "body", "status", "said"),
    [
        ("PUT shelf/{id}", {**SPARE, "part": "sail"}, 422, "no 'sail' on this sheet"),
        ("PUT shelf/{id}", {**SPARE, "revision": 3}, 409, "revision"),
        ("PUT shelf/{id}", {**SPARE, "colour": "blue"}, 422, "colour"),
        ("PUT shelf/one", SPARE, 422, "spare_id"),
        ("POST shelf/{id}/readings", {"id": str(uuid4()), "test": "element", "text": "26"}, 404, "no such piece"),
        ("PUT jobs/{job}/parts/{id}", DEAR, 422, "'forty' is not a price"),
        ("PUT jobs/{job}/parts/{id}", {"part": "heater", "state": "lost"}, 422, "state"),
        ("DELETE jobs/{job}/parts/{id}", None, 404, "no such part is wanted"),
        ("GET jobs/none/parts", None, 404, "no job 'none'"),
        ("GET jobs/none/sheet-out", None, 404, "no job 'none'"),
        ("GET jobs/{job}/report.pdf?revision=1", None, 404, "not signed off at revision 1"),
        ("GET jobs/{job}/label.pdf", None, 422, "has not ended"),
    ],
)
def test_parts_and_shelf_refuse_in_one_sentence(
    client: FlaskClient, job: str, request_line: str, body: Any, status: int, said: str
) -> None:
    method, path = request_line.format(id=uuid4(), job=job).split()
    found = client.open(f"/api/{path}", method=method, json=body)
    problem = found.get_json(force=True)
    assert (found.status_code, found.mimetype) == (status, "application/problem+json")
    assert said in str(problem)
    assert problem["detail"].count("\n") == 0


def test_limits_say_what_they_loosen(client: FlaskClient) -> None:
    own = {"id": "ours", "title": "Ours", "basis": "", "replaces_standard": True, "touch_ma": 1.0}
    settings = {"revision": client.get("/api/settings").get_json()["revision"], "own_profiles": [own]}
    assert client.patch("/api/settings", json=settings).status_code == 200
    loosened = client.get("/api/limits").get_json()["loosened"]
    assert {name: bool(what) for name, what in loosened.items()} == {
        "after_repair": False,
        "stricter": False,
        "one_megohm_five_ma": True,
        "practice_120": True,
        "ours": True,
    }


def test_every_answer_and_every_refusal_carries_the_state(client: FlaskClient, job: str) -> None:
    revision = list_jobs_revision(client, job)
    seen = client.get(f"/api/jobs/{job}/safe")
    refused = client.post(
        f"/api/jobs/{job}/readings", json={"id": str(uuid4()), "revision": revision, "text": "heater 26"}
    )
    strange = client.get(f"/api/jobs/{job}/trace?nothing=1")
    for answer in (seen, refused, strange):
        now = json.loads(answer.headers["Ohmcensus-Power"])
        assert (now["revision"], now["power"]["state"]) == (revision, "not_proved")
    assert refused.status_code == 403
