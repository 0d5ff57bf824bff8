"""Serves the built front end; any other address returns its page.

With the page goes a word of what its address will ask for, its part of the program and its data, so that a browser
fetches them beside the program and not after it.
"""

import json
import secrets
from collections.abc import Iterator, Sequence
from pathlib import Path
from wsgiref.headers import Headers

from apiflask import APIFlask
from flask import Response, g, send_from_directory, session
from whitenoise import WhiteNoise  # type: ignore[import-untyped]

from reedmace.api.problems import ProblemError

_POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'{}; font-src 'self'; img-src 'self' data: blob:;"
    " connect-src 'self'; manifest-src 'self'; worker-src 'self'; frame-src 'self';"
    " base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
)
FIXED = {
    "Content-Security-Policy": _POLICY.format(""),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Permissions-Policy": "camera=(), geolocation=(), microphone=(), payment=(), usb=()",
}
_STAGES = ("tank", "stock", "filter", "fit", "cycle", "keep")
_PAGE = "index.html"
_NONCE = "%NONCE%"
"""Placeholder of the style nonce in the page."""
_SESSION = "%SESSION%"
"""Placeholder for whether somebody is signed in by what the browser sent."""


def style_nonce() -> str:
    """Nonce of this response's styles; its content security policy names the same."""
    if "style_nonce" not in g:
        g.style_nonce = secrets.token_urlsafe(16)
    return str(g.style_nonce)


def content_security_policy() -> str:
    """Content security policy of this response."""
    return _POLICY.format(f" 'nonce-{g.style_nonce}'" if "style_nonce" in g else "")


class BuildManifest:
    """Built files of a page, from the build's manifest. folder: of the built page."""

    def __init__(self, folder: Path) -> None:
        try:
            self._chunks = json.loads((folder / "made-of.json").read_text())
        except (OSError, ValueError):
            # A page built without a manifest works as well, a little slower.
            self._chunks = {}

    def links(self, path: str, *, signed_in: bool) -> list[str]:
        """Values of a Link header.

        path: of the page; signed_in: whether the browser sends a session, so that data can be preloaded.
        """
        parts, asked = _needs(path)
        begun = set(self._files([_PAGE]))
        scripts = [f for f in dict.fromkeys(self._files(parts)) if f not in begun and f.endswith(".js")]
        data = [f"<{where}>; rel=preload; as=fetch; crossorigin=anonymous" for where in asked if signed_in]
        return [*(f"</{f}>; rel=modulepreload" for f in scripts), *data]

    def _files(self, names: Sequence[str]) -> Iterator[str]:
        """Files of chunks and of their imports. names: in the build's manifest."""
        seen: set[str] = set()
        waiting = list(names)
        while waiting:
            name = waiting.pop(0)
            chunk = self._chunks.get(name)
            if name in seen or chunk is None:
                continue
            seen.add(name)
            yield chunk["file"]
            waiting += chunk.get("imports", [])


def _needs(path: str) -> tuple[list[str], list[str]]:
    """Chunks and API requests of one address. path: as the browser shows it, without the first slash."""
    match path.strip("/").split("/"):
        case ["" | "today"]:
            return ["src/today/Today.tsx"], ["/api/session", "/api/today", "/api/rooms"]
        case ["tanks", number, stage] if number.isdecimal() and stage in _STAGES:
            parts = ["src/app/TankPage.tsx", f"src/stages/{stage}/{stage.title()}Stage.tsx"]
            return parts, ["/api/session", f"/api/tanks/{number}", "/api/compute"]
    return [], []


def install(app: APIFlask, folder: Path | None) -> None:
    """Serve the built front end. folder: of it; None: the API alone."""
    if folder is not None and (folder / "assets").is_dir():
        # Built files carry a content hash in their name, and are compressed already.
        app.wsgi_app = WhiteNoise(  # type: ignore[method-assign]
            app.wsgi_app,
            root=folder / "assets",
            prefix="assets/",
            allow_all_origins=False,
            immutable_file_test=lambda path, url: True,
            add_headers_function=_fix_headers,
        )
    made_of = BuildManifest(folder) if folder is not None else None

    @app.get("/")
    @app.get("/<path:path>")
    @app.doc(hide=True)
    def front_end(path: str = "") -> Response:
        """The built page and its files; any other address returns the page."""
        if path.startswith("api/") or folder is None or made_of is None:
            raise ProblemError(404, "Not found", "There is nothing here under that address.")
        if ".." in path.split("/"):
            # Another spelling of a file would be served by another rule.
            raise ProblemError(404, "Not found", "There is nothing here under that address.")
        if path not in ("", _PAGE) and _is_file(folder, path):
            response = send_from_directory(folder, path)
            # Built files carry a content hash in their name.
            response.headers["Cache-Control"] = (
                "public, max-age=31536000, immutable" if path.startswith("assets/") else "no-cache"
            )
            return response
        signed_in = "_user_id" in session
        text = (folder / _PAGE).read_text(encoding="utf-8").replace(_NONCE, style_nonce())
        text = text.replace(_SESSION, "kept" if signed_in else "none")
        response = Response(text, mimetype="text/html")
        response.headers["Cache-Control"] = "no-cache"
        links = made_of.links(path, signed_in=signed_in)
        if links:
            response.headers["Link"] = ", ".join(links)
        return response


def _fix_headers(headers: Headers, path: str, url: str) -> None:
    for name, value in FIXED.items():
        headers[name] = value


def _is_file(folder: Path, path: str) -> bool:
    try:
        return "\x00" not in path and (folder / path).is_file()
    except OSError:
        # A name longer than any file's.
        return False
