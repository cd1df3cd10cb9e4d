"""The report as one web page: no outside links, headings and tables that a screen reader can walk."""

from __future__ import annotations

import base64
from collections.abc import Iterator
from html import escape
from typing import Any

from ..core.phrases import LANGUAGE, phrase
from .pictures.ink import CEDAR
from .typesetting import own_picture
from .web_blocks import Narrow, image, laid
from .web_style import STYLE


def web_page(model: dict[str, Any], narrow: dict[str, Any] | None = None) -> str:
    """The document model as HTML. All of its words are escaped; pictures stand inside it. narrow: the same model with its
    pictures drawn for a phone."""
    drawn: Narrow = dict(zip(_pictures(model), _pictures(narrow), strict=True)) if narrow else {}
    body = "".join(_section(p, drawn, first=i == 0) for i, p in enumerate(model["pages"]))
    style = f":root{{--accent:{model.get('accent', CEDAR)}}}" + STYLE
    by = model.get("by-line") or model.get("by") or ""
    foot = f"<p>{escape(by)}</p>" if by else ""
    return (
        f'<!doctype html><html lang="{LANGUAGE}"><head><meta charset="utf-8"><title>{escape(model["title"])}</title>'
        f'<meta name="viewport" content="width=device-width,initial-scale=1"><style>{style}</style></head>'
        f'<body><main>{body}</main><footer class="quiet small">{foot}<p>{escape(model["foot"])}</p></footer></body></html>'
    )


def _pictures(part: Any) -> Iterator[str]:
    """Every picture of a model, in its order."""
    if isinstance(part, dict):
        for key, value in part.items():
            if key == "svg" and isinstance(value, str):
                yield value
            else:
                yield from _pictures(value)
    elif isinstance(part, list | tuple):
        for value in part:
            yield from _pictures(value)


def _section(p: dict[str, Any], narrow: Narrow, first: bool) -> str:
    level = "h1" if first else "h2"
    if p["page"] == "own":
        inside = f"<{level}>{escape(p['title'])}</{level}>" + _own(p)
    else:
        inside = _cover(p, level, narrow) if p["page"] == "cover" else _blocks(p, level, narrow)
    note = f'<p class="own">{escape(p["note"])}</p>' if p.get("note") else ""
    flows = ' class="flows"' if p.get("flow") and not first else ""
    name = str(p.get("name", ""))
    anchor = f' id="{escape(name.replace(" ", "-"))}"' if name else ""
    return f"<section{flows}{anchor}>{inside}{note}</section>"


def _own(p: dict[str, Any]) -> str:
    """A page of the agent's own as a picture; a PDF's is drawn by the paper's own machinery."""
    data, media = own_picture(p["path"], p["number"])
    inside = base64.b64encode(data).decode()
    return f'<img src="data:{media};base64,{inside}" alt="{escape(phrase("own-page-alt", title=p["title"], number=str(p["number"])))}">'


def _blocks(p: dict[str, Any], level: str, narrow: Narrow) -> str:
    lead = f'<p class="lead">{escape(p["lead"])}</p>' if p["lead"] else ""
    logo = image(p["logo"], phrase("logo-alt"), 0.3) if p.get("logo") else ""
    return f"{logo}<{level}>{escape(p['title'])}</{level}>{lead}" + "".join(laid(b, narrow) for b in p["blocks"])


def _cover(p: dict[str, Any], level: str, narrow: Narrow) -> str:
    client = (
        f'<p><span class="quiet small">{escape(p["prepared-for"])}</span><br>{escape(p["client"])}</p>'
        if p["client"]
        else ""
    )
    agent = "".join(f"<div>{escape(line)}</div>" for line in p["agent"])
    agent += image(p["portrait"], phrase("portrait-alt"), 0.16) if p["portrait"] else ""
    front = f"<figure>{image(p['svg'], p['alt'], narrow=narrow)}</figure>" if p["svg"] else ""
    price = laid(p["price"], narrow) if p["price"] else ""
    logo = image(p["logo"], phrase("logo-alt"), 0.3) if p["logo"] else ""
    return (
        f'{logo}<p class="lead cedar">{escape(p["title"])}</p><{level}>{escape(p["address"])}</{level}><p class="lead">{escape(p["facts"])}</p>'
        f'{front}{price}{client}<div class="quiet">{agent}<div class="small">{escape(p["as-of"])}</div></div>'
    )
