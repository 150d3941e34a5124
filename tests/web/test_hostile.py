"""What no person sends: deep, endless, foreign, odd; each gets a sentence, and the server goes on."""

from __future__ import annotations

import http.client
import json
import socket
from uuid import uuid4

import pytest
from flask.testing import FlaskClient

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.sheet.copy_sheet import SheetCopy, copy_sheet
from ohmcensus.services.sheet.edit_sheet import show_sheet
from ohmcensus.web.app import create_app
from ohmcensus.web.serve import serving

JSON = "application/json"


@pytest.fixture
def client(context: Context) -> FlaskClient:
    return create_app(context).test_client()


ADDRESS = "/api/addresses/00000000-0000-4000-8000-000000000001"
METER = "/api/meters/own-1"


@pytest.mark.parametrize(
    "body",
    [
        "[" * 5000 + "]" * 5000,
        '{"a":' * 5000 + "1" + "}" * 5000,
        '{"machine": "\\ud800"}',
        '{"machine": NaN}',
        '{"machine": Infinity}',
        "\x00",
        '"\\u0000"',
    ],
    ids=["deep list", "deep object", "surrogate", "nan", "infinity", "nul", "nul sign"],
)
@pytest.mark.parametrize("path", ["/api/jobs", "/api/settings", ADDRESS, METER])
def test_a_body_that_is_no_json_of_ours_gets_one_sentence(client: FlaskClient, path: str, body: str) -> None:
    method = {"/api/settings": "PATCH", ADDRESS: "PUT", METER: "PUT"}.get(path, "POST")
    answer = client.open(path, method=method, data=body.encode("utf-8", "surrogatepass"), content_type=JSON)
    assert answer.status_code in {400, 422}
    assert answer.get_json(force=True)["detail"]


@pytest.mark.parametrize("number", [2**63, 2**64, 10**400, -(2**63) - 1], ids=["63", "64", "400 figures", "minus"])
def test_numbers_beyond_all_that_is_are_refused(context: Context, client: FlaskClient, number: int) -> None:
    job = open_job(context, NewJob(id=uuid4(), machine="M", place="P", sheet="fl7-u")).id
    event = {"id": str(uuid4()), "revision": number, "body": {"kind": "isolated"}}
    assert client.post(f"/api/jobs/{job}/events", json=event).status_code in {400, 409, 422}
    assert client.get(f"/api/jobs/{job}/changes?after={number}").status_code == 422
    wanted = {"revision": number, "ambient_celsius": number}
    assert client.patch("/api/settings", json=wanted).status_code in {400, 422}


@pytest.mark.parametrize(
    "change", [{"kind": "time machine"}, {"kind": 7}, {"ratings": []}, {"id": None}, {"kind": "\ud800x"}], ids=str
)
def test_a_draft_that_is_not_whole_is_kept_with_what_is_wrong(context: Context, change: dict[str, object]) -> None:
    own = copy_sheet(context, SheetCopy(of="fl7-u", title="Quay machine")).id
    view = show_sheet(context, own)
    raw = {**view.raw, "parts": [{**view.raw["parts"][0], **change}, *view.raw["parts"][1:]]}
    client = create_app(context).test_client()
    body = json.dumps({"raw": raw, "revision": view.revision})
    answer = client.put(f"/api/sheets/{own}/draft", data=body, content_type=JSON)
    if "\\ud800" in body:
        assert answer.status_code == 400
        return
    assert answer.status_code == 200
    assert show_sheet(context, own).raw == raw
    assert show_sheet(context, own).remarks


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({"Host": "LOCALHOST:4740"}, 200),
        ({"Host": "evil.example"}, 403),
        ({"Origin": "http://evil.example"}, 403),
        ({"Origin": "ftp://localhost"}, 403),
        ({"Origin": "null"}, 403),
        ({"Sec-Fetch-Site": "cross-site"}, 403),
        ({"Sec-Fetch-Site": "same-origin"}, 200),
        ({"Sec-Fetch-Site": "none"}, 200),
    ],
)
def test_only_this_machines_own_page_is_answered(client: FlaskClient, headers: dict[str, str], status: int) -> None:
    answer = client.get("/api/jobs", headers=headers)
    assert answer.status_code == status
    assert answer.headers["Cross-Origin-Resource-Policy"] == "same-origin"
    policy = answer.headers["Content-Security-Policy"]
    assert all(word in policy for word in ("base-uri 'none'", "form-action 'self'", "object-src 'none'"))


@pytest.mark.parametrize(
    ("path", "length", "says"),
    [
        ("/api/jobs", 2_000_000, "at most 1 MB"),
        ("/api/imports?name=a.zip", 400_000_000, "at most 300 MB are taken: import it on the command line"),
        ("/api/jobs/x/photos", 40_000_000, "at most 30 MB are taken: take it at a lower resolution"),
    ],
)
def test_a_body_over_its_limit_is_cut_off_before_it_is_taken_in(
    context: Context, path: str, length: int, says: str
) -> None:
    with serving(context) as address:
        host, port = address.removeprefix("http://").split(":")
        with socket.create_connection((host, int(port)), timeout=10) as line:
            kind = f"Content-Type: {JSON}\r\nContent-Length: {length}\r\n\r\n"
            head = f"POST {path} HTTP/1.1\r\nHost: {host}:{port}\r\n{kind}"
            line.sendall(head.encode())
            answer = http.client.HTTPResponse(line)
            answer.begin()
            problem = json.load(answer)
    assert (answer.status, says in problem["detail"]) == (413, True)


def test_two_hundred_idle_connections_do_not_stop_the_next(context: Context) -> None:
    with serving(context) as address:
        host, port = address.removeprefix("http://").split(":")
        idle = [socket.create_connection((host, int(port)), timeout=10) for _ in range(200)]
        line = http.client.HTTPConnection(host, int(port), timeout=10)
        line.request("GET", "/api/health")
        assert line.getresponse().status == 200
        line.close()
        for one in idle:
            one.close()
