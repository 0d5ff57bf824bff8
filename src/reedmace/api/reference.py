"""The API reference as one plain page made from the description itself: no script, nothing from outside."""

import json
from typing import Any

from apiflask import APIBlueprint
from flask import Response, current_app
from markupsafe import Markup, escape

door = APIBlueprint("reference", __name__, url_prefix="/api", enable_openapi=False)

_STYLE = (
    "body{font:16px/1.5 system-ui,sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#14262a;background:#f4f5f1}"
    "h1,h2{font-family:Georgia,serif}code{background:#e3e8e0;padding:.1em .3em}summary{cursor:pointer}"
    "pre{overflow:auto;background:#e9ede6;padding:.8rem}section{border-top:1px solid #b9c2b8}"
)


@door.get("/reference")
def reference() -> Response:
    """Every address, what it takes and what it answers."""
    spec: dict[str, Any] = current_app.spec  # type: ignore[attr-defined]
    parts = [
        Markup(
            "<h1>Reedmace API</h1><p>{}</p><p>Version {}. The description itself: <a href='/api/openapi.json'>openapi.json</a>.</p>"
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
        "<!doctype html><html lang='en'><meta charset='utf-8'><meta name='viewport' content='width=device-width'><title>Reedmace API</title><style>{}</style><main>{}</main></html>"
    ).format(Markup(_STYLE), Markup("").join(parts))  # noqa: S704 - a constant style sheet
    return Response(str(page), mimetype="text/html")


def _first(content: dict[str, dict[str, Any]]) -> dict[str, Any]:
    return next(iter(content.values()), {})


def _name(schema: dict[str, Any]) -> Markup:
    reference = schema.get("$ref", "")
    if reference:
        name = reference.rsplit("/", 1)[-1]
        return Markup("<a href='#{}'>{}</a>").format(name, name)
    return escape(schema.get("type", ""))


def one_schema_each(spec: dict[str, Any]) -> dict[str, Any]:
    """The description with each nested model once, under its own name, where APIFlask gives every parent a copy.

    spec: the description as APIFlask makes it; changed in place. A name whose copies differ keeps its prefixes.
    """
    schemas: dict[str, Any] = spec["components"]["schemas"]
    short = {name: name.rsplit(".", 1)[-1] for name in schemas}

    def renamed(node: Any) -> Any:
        if isinstance(node, dict):
            return {
                k: _short_reference(v, short) if k == "$ref" else _mapping(v, short) if k == "mapping" else renamed(v)
                for k, v in node.items()
            }
        return [renamed(item) for item in node] if isinstance(node, list) else node

    variants: dict[str, list[Any]] = {}
    for name, schema in schemas.items():
        variants.setdefault(short[name], []).append(renamed(schema))
    for name in short:
        copies = variants[short[name]]
        if any(copy != copies[0] for copy in copies):
            short[name] = name
    flat = {short[name]: renamed(schema) for name, schema in schemas.items()}
    spec["components"]["schemas"] = dict(sorted(flat.items()))
    spec["paths"] = renamed(spec["paths"])
    return spec


def _short_reference(reference: str, short: dict[str, str]) -> str:
    head, _, name = reference.rpartition("/")
    return f"{head}/{short.get(name, name)}"


def _mapping(mapping: dict[str, str], short: dict[str, str]) -> dict[str, str]:
    return {k: _short_reference(v, short) for k, v in mapping.items()}
