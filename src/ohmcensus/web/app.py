"""Making the application: API, guards, and the built interface."""

from __future__ import annotations

import copy
from contextlib import suppress
from pathlib import Path
from typing import Any

from flask import Flask, Response, abort, request
from flask_openapi3 import Info, OpenAPI
from pydantic import BaseModel

import ohmcensus.web.addresses
import ohmcensus.web.jobs
import ohmcensus.web.photos
import ohmcensus.web.setup
import ohmcensus.web.sheets
import ohmcensus.web.shelf
from ohmcensus.core.errors import OhmcensusError
from ohmcensus.services.context import Context
from ohmcensus.services.show_power import show_power
from ohmcensus.web import problems, static_files
from ohmcensus.web.answers import context

VERSION = "1"
LARGEST_BODY = 1_000_000
LARGEST_UPLOAD = 31_000_000
LARGEST_ARCHIVE = 300_000_000
# Every answer about a job says in this header how its machine stands, as JSON.
POWER_HEADER = "Ohmcensus-Power"
LOOPBACK_NAMES = frozenset({"127.0.0.1", "localhost", "[::1]"})


_ROOMS = (
    ohmcensus.web.jobs,
    ohmcensus.web.photos,
    ohmcensus.web.addresses,
    ohmcensus.web.sheets,
    ohmcensus.web.shelf,
    ohmcensus.web.setup,
)
# Paths whose body is no JSON: a photo in a form, a table as it is.
_ARCHIVES = "/api/jobs/import"
_OTHER_BODIES = ("/photos", "/import")


class Health(BaseModel):
    """The server answers."""

    ok: bool


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
        return Response('{"ok":true}', mimetype="application/json")

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
    """Return the API's own description, its problem answers under their own media type."""
    document: dict[str, Any] = copy.deepcopy(app.api_doc)
    for operations in document["paths"].values():
        for operation in operations.values():
            for answer in operation["responses"].values():
                content = answer.get("content", {})
                schema = content.get("application/json", {}).get("schema", {})
                if schema.get("$ref", "").endswith("/Problem"):
                    content[problems.MIMETYPE] = content.pop("application/json")
    return document


def _limit_body(path: str, length: int) -> int:
    """Return the most bytes of an upload; refuse one by its stated length, before any of it is taken in."""
    is_archive = path == _ARCHIVES
    most = LARGEST_ARCHIVE if is_archive else LARGEST_UPLOAD
    if length > most:
        remedy = (
            "import it on the command line: ohmcensus import FILE" if is_archive else "take it at a lower resolution"
        )
        abort(413, f"the file has {length / 1e6:.0f} MB, at most {most // 1_000_000 // 10 * 10} MB are taken: {remedy}")
    return most


def _carry_power(response: Response) -> None:
    """Let every answer about a job, refusals too, carry how its machine stands."""
    job_id = (request.view_args or {}).get("job_id")
    if isinstance(job_id, str):
        with suppress(OhmcensusError):
            response.headers[POWER_HEADER] = show_power(context(), job_id).model_dump_json(ensure_ascii=True)


def _guard(app: Flask) -> None:
    """Answer only this machine's own browser: no foreign host name, no foreign page, no odd body."""

    @app.before_request
    def check() -> None:
        host = request.host.rsplit(":", 1)[0] if not request.host.endswith("]") else request.host
        if host not in LOOPBACK_NAMES:
            abort(403, f"host '{host}' is not this machine: open the address that was printed at the start")
        origin = request.headers.get("Origin")
        if origin is not None and origin.split("://", 1)[-1] != request.host:
            abort(403, f"a page of '{origin}' may not use this server")
        is_known = request.url_rule is not None
        if is_known and request.method in {"POST", "PUT", "PATCH"} and request.path.startswith("/api/"):
            if request.path.endswith(_OTHER_BODIES):
                request.max_content_length = _limit_body(request.path, request.content_length or 0)
            else:
                request.get_json()

    @app.teardown_request
    def let_go(_error: BaseException | None) -> None:
        request.close()

    @app.after_request
    def seal(response: Response) -> Response:
        _carry_power(response)
        response.headers.setdefault("X-Content-Type-Options", "nosniff")
        response.headers.setdefault("Referrer-Policy", "no-referrer")
        response.headers.setdefault("Cache-Control", "no-store")
        response.headers.setdefault(
            "Content-Security-Policy",
            "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'",
        )
        return response
