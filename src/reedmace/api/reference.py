"""API reference as one plain HTML page generated from the OpenAPI description."""

import json
import threading
from typing import Any

from apiflask import APIBlueprint
from flask import Response, current_app, request
from markupsafe import Markup, escape

from reedmace.api.static_site import style_nonce

blueprint = APIBlueprint("reference", __name__, url_prefix="/api", enable_openapi=False)

_STYLE = (
    "body{font:16px/1.5 system-ui,sans-serif;max-width:60rem;margin:2rem auto;padding:0"
    " 1rem;color:#14262a;background:#f4f5f1}h1,h2{font-family:Georgia,serif}code{background:#e3e8e0;padding:.1em"
    " .3em}summary{cursor:pointer}pre{overflow:auto;background:#e9ede6;padding:.8rem}section{border-top:1px solid"
    " #b9c2b8}"
)


_NONCE = "{nonce}"
_building = threading.Lock()


@blueprint.get("/reference")
def reference() -> Response:
    """Every endpoint with its input and output."""
    # It takes seconds of processor: built once a process, and by one thread.
    with _building:
        kept: dict[str, str] = current_app.extensions.setdefault("reedmace-reference", {})
        if "page" not in kept:
            kept["page"] = _page(current_app.spec)  # type: ignore[attr-defined]
    return Response(kept["page"].replace(_NONCE, style_nonce(), 1), mimetype="text/html")


def build_once() -> None:
    """Build the description before it is served: by one thread, since it takes seconds of processor."""
    if request.path == "/api/openapi.json":
        with _building:
            current_app.spec  # type: ignore[attr-defined]  # noqa: B018 - built on first use, and kept


def _page(spec: dict[str, Any]) -> str:
    """The page, with a placeholder where each response puts its nonce. spec: the OpenAPI description."""
    parts = [
        Markup(
            "<h1>Reedmace API</h1><p>{}</p><p>Version {}. The description itself: <a"
            " href='/api/openapi.json'>openapi.json</a>.</p>"
        ).format(spec["info"].get("description", ""), spec["info"]["version"])
    ]
    for path, methods in spec["paths"].items():
        for method, operation in methods.items():
            if method == "parameters":
                continue
            parts.append(
                Markup("<section><h2><code>{} {}</code></h2><p>{}</p>").format(
                    method.upper(), path, operation.get("summary", "")
                )
            )
            body = operation.get("requestBody", {}).get("content", {})
            for kind, content in body.items():
                parts.append(Markup("<p>Takes {}: {}</p>").format(kind, _name(content.get("schema", {}))))
            rows = [
                Markup("<li><code>{}</code> {} {}</li>").format(
                    code,
                    answer.get("description", ""),
                    _name(_first(answer.get("content", {})).get("schema", {})),
                )
                for code, answer in operation["responses"].items()
            ]
            parts.append(Markup("<ul>{}</ul></section>").format(Markup("").join(rows)))
    parts.append(Markup("<h1>Schemas</h1>"))
    for name, schema in sorted(spec["components"]["schemas"].items()):
        parts.append(
            Markup(
                "<section id='{}'><details><summary><code>{}</code></summary><pre>{}</pre></details></section>"
            ).format(name, name, json.dumps(schema, indent=1, ensure_ascii=False))
        )
    page = Markup(
        "<!doctype html><html lang='en'><meta charset='utf-8'><meta name='viewport'"
        " content='width=device-width'><title>Reedmace API</title><style nonce='{}'>{}</style><main>{}</main></html>"
    ).format(_NONCE, Markup(_STYLE), Markup("").join(parts))  # noqa: S704 - a constant style sheet
    return str(page)


def _first(content: dict[str, dict[str, Any]]) -> dict[str, Any]:
    return next(iter(content.values()), {})


def _name(schema: dict[str, Any]) -> Markup:
    reference = schema.get("$ref", "")
    if reference:
        name = reference.rsplit("/", 1)[-1]
        return Markup("<a href='#{}'>{}</a>").format(name, name)
    return escape(schema.get("type", ""))
