"""Making the application: API, guards, and the built interface."""

from __future__ import annotations

import copy
from collections.abc import Iterator
from contextlib import suppress
from http import HTTPStatus
from pathlib import Path
from typing import Any

from flask import Flask, Response, abort, g, request
from flask_openapi3 import Info, OpenAPI
from pydantic_core import from_json

import ohmcensus.web.addresses
import ohmcensus.web.codes
import ohmcensus.web.events
import ohmcensus.web.firm
import ohmcensus.web.imports
import ohmcensus.web.intake
import ohmcensus.web.jobs
import ohmcensus.web.ladder
import ohmcensus.web.photos
import ohmcensus.web.proof
import ohmcensus.web.readings
import ohmcensus.web.repair
import ohmcensus.web.safe
import ohmcensus.web.setup
import ohmcensus.web.sheet_edit
import ohmcensus.web.sheet_out
import ohmcensus.web.sheets
import ohmcensus.web.shelf
import ohmcensus.web.suspects
import ohmcensus.web.trip
import ohmcensus.web.wanted
from ohmcensus.core.errors import OhmcensusError
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.list_jobs import keep_card
from ohmcensus.services.safety.show_power import show_power
from ohmcensus.services.upkeep.look_after import Health, show_health
from ohmcensus.web import problems, static_files
from ohmcensus.web.answers import answer, context, count_rows
from ohmcensus.web.body_limit import LARGEST_BODY, most_bytes, too_large

VERSION = "1"
# Every answer about a job says in this header how its machine stands, as JSON.
POWER_HEADER = "Ohmcensus-Power"
LOOPBACK_NAMES = frozenset({"127.0.0.1", "localhost", "[::1]"})


_ROOMS = (
    ohmcensus.web.jobs,
    ohmcensus.web.readings,
    ohmcensus.web.ladder,
    ohmcensus.web.events,
    ohmcensus.web.intake,
    ohmcensus.web.safe,
    ohmcensus.web.codes,
    ohmcensus.web.trip,
    ohmcensus.web.wanted,
    ohmcensus.web.suspects,
    ohmcensus.web.repair,
    ohmcensus.web.proof,
    ohmcensus.web.sheet_out,
    ohmcensus.web.photos,
    ohmcensus.web.addresses,
    ohmcensus.web.sheets,
    ohmcensus.web.sheet_edit,
    ohmcensus.web.shelf,
    ohmcensus.web.setup,
    ohmcensus.web.firm,
    ohmcensus.web.imports,
)
# Paths whose body is no JSON: a photo in a form, a table as it is.
_OTHER_BODIES = ("/photos", "/mark", "/import", "/imports", "/sheet-imports")


def _operation_id(*, bp_name: str = "", name: str = "", path: str = "", method: str = "") -> str:  # noqa: ARG001 - the caller names all four
    """Return what an operation is called: its room, and what it does there."""
    return f"{bp_name}_{name}" if bp_name else name


def create_app(context: Context, *, static_folder: Path | None = None) -> OpenAPI:
    """Return the application over an open data directory.

    Parameters
    ----------
    context
        Store and clock.
    static_folder
        Where the built interface lies; the packaged one by default.
    """
    app = OpenAPI(
        __name__,
        info=Info(title="Ohmcensus", version=VERSION),
        security_schemes={},
        operation_id_callback=_operation_id,
        doc_ui=False,
        static_folder=None,
        validation_error_callback=problems.of_validation,
        validation_error_model=problems.Problem,
        validation_error_status=422,
    )
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_BODY
    app.extensions["ohmcensus"] = context
    problems.install(app)
    for room in _ROOMS:
        app.register_api(room.blueprint)

    @app.get("/api/health", responses={200: Health}, summary="Whether the server answers")
    def health() -> Response:
        """Return what is wrong with the data or the disk, nothing where all is well."""
        return answer(show_health(context))

    _add_description(app)
    _guard(app)
    static_files.install(app, static_folder or Path(__file__).with_name("static"))
    return app


def _add_description(app: OpenAPI) -> None:
    """Serve the description."""

    @app.route("/api/openapi.json", methods=["GET"])
    def served() -> Response:
        return app.make_response(app.json.response(description(app)))


def description(app: OpenAPI) -> dict[str, Any]:
    """Return the API's own description: what each route answers, and what the guard of all of them refuses."""
    document: dict[str, Any] = copy.deepcopy(app.api_doc)
    for path, operations in document["paths"].items():
        for verb, operation in operations.items():
            told = operation["responses"]
            for code in _refusals(path, verb, is_asked="parameters" in operation or "requestBody" in operation):
                told[code] = copy.deepcopy(_REFUSED)
            if verb == "get" and "parameters" not in operation:
                told.pop("422", None)
            for answers in told.values():
                content = answers.get("content", {})
                schema = content.get("application/json", {}).get("schema", {})
                if schema.get("$ref", "").endswith("/Problem"):
                    content[problems.MIMETYPE] = content.pop("application/json")
            operation["responses"] = dict(sorted(told.items()))
    return document


_REFUSED = {
    "description": "Refused, in one sentence",
    "content": {"application/json": {"schema": {"$ref": "#/components/schemas/Problem"}}},
}


def _refusals(path: str, verb: str, *, is_asked: bool) -> Iterator[str]:
    """Yield the refusals that a route can make by what it is, whatever it does."""
    yield "403"
    if "{" in path:
        yield "404"
    if is_asked:
        yield "422"
    if verb in {"post", "put", "patch"}:
        yield "400"
        yield from ("413", "422") if path.endswith(_OTHER_BODIES) else ("415",)


def _limit_body(path: str, length: int) -> int:
    """Return the most bytes of a body; refuse one by its stated length, before any of it is taken in."""
    most = most_bytes(path)
    if length > most:
        abort(413, too_large(path, length))
    return most


def _read_json() -> None:
    """Read the body once, as JSON that is no deeper than any of ours and whose texts can be written.

    It is put where the framework looks for it.
    """
    if not request.is_json:
        abort(415, "the body has to be JSON: Content-Type application/json")
    try:
        body = from_json(request.get_data(), allow_inf_nan=False)
    except ValueError as error:
        abort(400, f"the body is not JSON that can be read ({str(error)[:120]})")
    request._cached_json = (body, body)  # noqa: SLF001 - where the framework keeps what it has read


def _carry_power(response: Response) -> None:
    """Let every answer about a job, refusals too, carry how its machine stands."""
    job_id = (request.view_args or {}).get("job_id")
    if isinstance(job_id, str):
        with suppress(OhmcensusError):
            power = g.get("power") or show_power(context(), job_id)
            response.headers[POWER_HEADER] = power.model_dump_json(ensure_ascii=True)


def _follow_change(response: Response) -> None:
    """After a change of a job have its card worked out anew, beside, once nothing more comes for two seconds."""
    job_id = (request.view_args or {}).get("job_id")
    is_change = request.method not in {"GET", "HEAD", "OPTIONS"} and not request.path.endswith(_ONLY_LOOKS)
    if isinstance(job_id, str) and is_change and response.status_code < HTTPStatus.MULTIPLE_CHOICES:
        known = context()
        known.later(("card", job_id), lambda: keep_card(known, job_id), after_s=2.0)


# What a browser says of a request from a page of another site.
_FOREIGN = frozenset({"cross-site", "same-site"})
# Posts that only ask.
_ONLY_LOOKS = ("/preview", "/decode", "/coach", "/worth")


def _guard(app: Flask) -> None:
    """Answer only this machine's own browser: no foreign host name, no foreign page, no odd body."""

    @app.before_request
    def check() -> None:
        count_rows()
        named = request.host.lower()
        host = named.rsplit(":", 1)[0] if not named.endswith("]") else named
        if host not in LOOPBACK_NAMES:
            abort(403, f"host '{host}' is not this machine: open the address that was printed at the start")
        origin = request.headers.get("Origin")
        is_foreign = request.path.startswith("/api/") and request.headers.get("Sec-Fetch-Site") in _FOREIGN
        if (origin is not None and origin not in {f"http://{request.host}", f"https://{request.host}"}) or is_foreign:
            abort(403, f"a page of '{origin or 'another site'}' may not use this server")
        is_known = request.url_rule is not None
        if is_known and request.method in {"POST", "PUT", "PATCH"} and request.path.startswith("/api/"):
            if request.path.endswith(_OTHER_BODIES):
                request.max_content_length = _limit_body(request.path, request.content_length or 0)
            else:
                _limit_body(request.path, request.content_length or 0)
                _read_json()

    @app.teardown_request
    def let_go(_error: BaseException | None) -> None:
        request.close()

    @app.after_request
    def seal(response: Response) -> Response:
        _carry_power(response)
        _follow_change(response)
        response.headers.setdefault("X-Content-Type-Options", "nosniff")
        response.headers.setdefault("Referrer-Policy", "no-referrer")
        response.headers.setdefault("Cache-Control", "no-store")
        response.headers.setdefault("Cross-Origin-Resource-Policy", "same-origin")
        response.headers.setdefault(
            "Content-Security-Policy",
            "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; object-src 'none'; "
            "base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
        )
        return response
