"""The built interface: one page for every address outside the API, and its assets, compressed beforehand."""

from __future__ import annotations

from pathlib import Path

from flask import Flask, Response, request, send_from_directory
from werkzeug.exceptions import NotFound

from ohmcensus.web.problems import of_http

FOREVER = "public, max-age=31536000, immutable"
_MISSING = "<!doctype html><title>Ohmcensus</title><p>The interface is not built yet: run <code>make demo</code>."
_ENCODINGS = (("br", ".br"), ("gzip", ".gz"))


def install(app: Flask, folder: Path) -> None:
    """Serve the folder; an unknown address outside the API gets the page, which shows its own not-found."""

    @app.route("/assets/<path:name>", methods=["GET"])
    def assets(name: str) -> Response:
        response = _best_encoding(folder / "assets", name)
        response.headers["Cache-Control"] = FOREVER
        return response

    def page(error: NotFound) -> Response:
        if request.method not in {"GET", "HEAD"} or request.path.startswith(("/api/", "/assets/")):
            return of_http(error)
        if not (folder / "index.html").exists():
            return Response(_MISSING, mimetype="text/html")
        response = _best_encoding(folder, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response

    app.register_error_handler(NotFound, page)


def _best_encoding(folder: Path, name: str) -> Response:
    """Return a file in the smallest form that the browser takes and the build made."""
    accepted = request.headers.get("Accept-Encoding", "")
    for encoding, ending in _ENCODINGS:
        if encoding in accepted and (folder / f"{name}{ending}").is_file():
            response = send_from_directory(folder, f"{name}{ending}", mimetype=_mimetype(name))
            response.headers["Content-Encoding"] = encoding
            response.headers["Vary"] = "Accept-Encoding"
            return response
    return send_from_directory(folder, name, mimetype=_mimetype(name))


_MIMETYPES = {
    "js": "text/javascript",
    "css": "text/css",
    "html": "text/html",
    "svg": "image/svg+xml",
    "woff2": "font/woff2",
    "woff": "font/woff",
}


def _mimetype(name: str) -> str:
    return _MIMETYPES.get(name.rsplit(".", 1)[-1], "application/octet-stream")
