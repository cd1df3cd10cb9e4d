"""The service's own description as a page that people can read: no script, nothing from elsewhere."""

from __future__ import annotations

from html import escape
from typing import Any

from fastapi import Depends, FastAPI
from fastapi.responses import HTMLResponse, JSONResponse

from .who import signed_in

_STYLE = """
body { font: 15px/1.5 Figtree, system-ui, sans-serif; max-width: 960px; margin: 32px auto; padding: 0 20px; color: #24404e }
h2 { margin-top: 40px } h3 { font-size: 15px; margin: 22px 0 4px } code { background: #eef2f1; padding: 1px 5px }
b { display: inline-block; min-width: 62px } dl { margin: 4px 0 0 68px } dt { float: left; margin-right: 8px } p { margin: 0 0 0 68px }
"""


def install(app: FastAPI) -> None:
    """Both for who has signed in, as everything that is asked."""
    page: list[str] = []

    @app.get("/openapi.json", include_in_schema=False, dependencies=[Depends(signed_in)])
    def for_programs() -> JSONResponse:
        return JSONResponse(app.openapi())

    @app.get("/api/docs", include_in_schema=False, dependencies=[Depends(signed_in)])
    def described() -> HTMLResponse:
        if not page:
            page.append(as_html(app.openapi()))
        return HTMLResponse(page[0])


def as_html(described: dict[str, Any]) -> str:
    """Operations by tag: method and path, what it does, its parameters, body and answer by the names of their documents."""
    by_tag: dict[str, list[str]] = {}
    for path, methods in described["paths"].items():
        for method, operation in methods.items():
            tag = (operation.get("tags") or ["other"])[0]
            by_tag.setdefault(tag, []).append(_operation(method, path, operation))
    parts = "".join(f"<h2>{escape(tag)}</h2>{''.join(ops)}" for tag, ops in sorted(by_tag.items()))
    title = escape(described["info"]["title"])
    return (
        f"<!doctype html><html lang=en><meta charset=utf-8><title>{title}: its requests</title><style>{_STYLE}</style>"
        f'<h1>{title}: its requests</h1><p>The whole, for programs: <a href="../openapi.json">openapi.json</a>. '
        f"Refusals answer <code>message</code> and <code>field</code>.</p>{parts}</html>"
    )


def _operation(method: str, path: str, operation: dict[str, Any]) -> str:
    given = [
        f"<dt><code>{escape(p['name'])}</code></dt><dd>{escape(p['in'])}, {_kind(p.get('schema', {}))}</dd>"
        for p in operation.get("parameters", ())
    ]
    body = operation.get("requestBody", {}).get("content", {})
    given += [f"<dt>body</dt><dd>{_kind(x.get('schema', {})) or escape(media)}</dd>" for media, x in body.items()]
    for code, answer in operation.get("responses", {}).items():
        if code.startswith("2"):
            kinds = [_kind(x.get("schema", {})) or escape(media) for media, x in answer.get("content", {}).items()]
            given.append(f"<dt>answers</dt><dd>{code} {', '.join(kinds)}</dd>")
    said = operation.get("description") or operation.get("summary") or ""
    return f"<h3><b>{method.upper()}</b> <code>{escape(path)}</code></h3><p>{escape(said)}</p><dl>{''.join(given)}</dl>"


def _kind(schema: dict[str, Any]) -> str:
    """A schema in one word: a document's name, a list of it, a plain type."""
    if "$ref" in schema:
        return escape(schema["$ref"].rsplit("/", 1)[-1])
    if "anyOf" in schema:
        return " or ".join(k for s in schema["anyOf"] if (k := _kind(s)))
    if schema.get("type") == "array":
        return f"list of {_kind(schema.get('items', {}))}"
    return escape(" ".join(str(x) for x in (schema.get("type", ""), schema.get("format", "")) if x))
