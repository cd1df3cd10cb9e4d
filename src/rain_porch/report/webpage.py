"""The report as one web page: no outside links, headings and tables that a screen reader can walk."""

from __future__ import annotations

import base64
from html import escape
from typing import Any

from .pictures.ink import CEDAR
from .typesetting import own_picture

_STYLE = """
:root{color:#24404E;background:#EDF2F3;font:16px/1.5 system-ui,sans-serif}
body{max-width:900px;margin:0 auto;padding:24px}
section{background:#fff;padding:28px 34px;margin:0 0 24px;border-radius:6px}
h1,h2,h3{font-family:Georgia,serif;line-height:1.2;margin:0 0 12px}h1{font-size:32px}h2{font-size:26px}h3{font-size:18px;margin-top:24px}
table{border-collapse:collapse;width:100%;font-variant-numeric:tabular-nums;font-size:14px}
th,td{padding:5px 8px;text-align:right;border-bottom:1px solid #D3DDE0;vertical-align:top;font-weight:400}
thead th{color:#55696F;font-size:13px}tr.total td,tr.total th{font-weight:600;border-top:2px solid #24404E}
.word{text-align:left}img{max-width:100%}.quiet{color:#55696F}.small{font-size:14px}
.note{background:#FBF1D6;padding:8px 12px;border-radius:4px}
.figures{display:flex;gap:40px;flex-wrap:wrap;margin:12px 0}.figures b{display:block;font-size:28px}
.moss{color:#3E6A4B}.cedar{color:var(--accent)}.own{border-left:3px solid var(--accent);padding-left:12px}.homes{display:grid;grid-template-columns:repeat(auto-fill,minmax(220px,1fr));gap:18px;margin:14px 0}
.ruled{border-bottom:1px solid #24404E;height:40px;max-width:300px}.scroll{overflow-x:auto}
"""


def web_page(model: dict[str, Any]) -> str:
    """The document model as HTML. All of its words are escaped; pictures stand inside it."""
    body = "".join(f"<section>{_page(p, first=i == 0)}</section>" for i, p in enumerate(model["pages"]))
    style = f":root{{--accent:{model.get('accent', CEDAR)}}}" + _STYLE
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{escape(model["title"])}</title>'
        f'<meta name="viewport" content="width=device-width"><style>{style}</style></head>'
        f'<body><main>{body}</main><footer class="quiet small">{escape(model["foot"])}</footer></body></html>'
    )


def _page(p: dict[str, Any], first: bool) -> str:
    level = "h1" if first else "h2"
    if p["page"] == "own":
        return f"<{level}>{escape(p['title'])}</{level}>" + _own(p)
    draw = {"cover": _cover, "summary": _summary, "comps": _comps, "grid": _grid}.get(p["page"], _blocks)
    note = f'<p class="own">{escape(p["note"])}</p>' if p.get("note") else ""
    return draw(p, level) + note


def _own(p: dict[str, Any]) -> str:
    """A page of the agent's own as a picture; a PDF's is drawn by the paper's own machinery."""
    data, media = own_picture(p["path"], p["number"])
    inside = base64.b64encode(data).decode()
    return f'<img src="data:{media};base64,{inside}" alt="{escape(p["title"])}, page {p["number"]}">'


def _blocks(p: dict[str, Any], level: str) -> str:
    lead = f'<p class="quiet">{escape(p["lead"])}</p>' if p["lead"] else ""
    return f"<{level}>{escape(p['title'])}</{level}>{lead}" + "".join(_block(b) for b in p["blocks"])


def _block(b: dict[str, Any]) -> str:
    kind = b["kind"]
    if kind == "heading":
        return f"<h3>{escape(b['text'])}</h3>"
    if kind == "para":
        return f"<p{' class=small' if b['small'] else ''}>{escape(b['text'])}</p>"
    if kind == "note":
        return f'<p class="note">{escape(b["text"])}</p>'
    if kind == "figures":
        items = "".join(
            f'<div><span class="quiet small">{escape(name)}</span><b class="{colour}">{escape(value)}</b></div>'
            for name, value, colour in b["items"]
        )
        return f'<div class="figures">{items}</div>'
    if kind == "ruled":
        return f'<p class="quiet small">{escape(b["label"])}</p><div class="ruled"></div>'
    if kind == "picture":
        caption = f'<p class="quiet small">{escape(b["caption"])}</p>' if b["caption"] else ""
        return _image(b["svg"], b["alt"], b["width"]) + caption
    if kind == "homes":
        return '<div class="homes">' + "".join(_home(c) for c in b["cards"]) + "</div>"
    return _table(b["head"], b["rows"], b["words"], b["last"])


def _image(svg: str, alt: str, width: float = 1.0) -> str:
    data = base64.b64encode(svg.encode()).decode()
    return f'<img src="data:image/svg+xml;base64,{data}" alt="{escape(alt)}" style="width:{100 * width:.0f}%">'


def _home(c: dict[str, Any]) -> str:
    lines = "".join(f'<div class="small quiet">{escape(line)}</div>' for line in c["lines"])
    return f"<div>{_image(c['svg'], 'Front of ' + c['title'])}<b>{escape(c['title'])}</b><div>{escape(c['price'])}</div>{lines}</div>"


def _table(head: list[str], rows: list[list[str]], words: int = 1, last: bool = False) -> str:
    def cls(i: int) -> str:
        return ' class="word"' if i < words else ""

    top = ""
    if any(head):
        top = (
            "<thead><tr>"
            + "".join(f'<th scope="col"{cls(i)}>{escape(h)}</th>' for i, h in enumerate(head))
            + "</tr></thead>"
        )
    body = ""
    for n, row in enumerate(rows):
        cells = "".join(
            f'<th scope="row"{cls(0)}>{escape(str(c))}</th>' if i == 0 else f"<td{cls(i)}>{escape(str(c))}</td>"
            for i, c in enumerate(row)
        )
        body += f"<tr{' class=total' if last and n == len(rows) - 1 else ''}>{cells}</tr>"
    return f'<div class="scroll" tabindex="0" role="region" aria-label="Table"><table>{top}<tbody>{body}</tbody></table></div>'


def _cover(p: dict[str, Any], level: str) -> str:
    client = f"<p>Prepared for {escape(p['client'])}</p>" if p["client"] else ""
    agent = f'<p class="quiet">{escape(p["agent"])}</p>' if p["agent"] else ""
    front = _image(p["svg"], f"Front of {p['address']}") if p["svg"] else ""
    price = _block(p["price"]) if p["price"] else ""
    logo = _image(p["logo"], "Logo", 0.3) if p["logo"] else ""
    agent += _image(p["portrait"], "Portrait of the agent", 0.16) if p["portrait"] else ""
    return f"{logo}<{level}>{escape(p['address'])}</{level}><p>{escape(p['title'])}</p>{front}<p>{escape(p['facts'])}</p>{price}{client}{agent}"


def _summary(p: dict[str, Any], level: str) -> str:
    items = []
    if p["shows"] == "shown":
        items = [("Indicated value", p["value"] or "not yet known", "moss")]
        items += [(p["range_name"], p["range"], "")] if p["range"] else []
        items += [("List price", p["list_price"], "cedar")] if p["list_price"] else []
    price = _block({"kind": "figures", "items": items}) if items else ""
    if p["shows"] == "blank":
        price = _block({"kind": "ruled", "label": "List price"})
    client = f'<p class="quiet">Prepared for {escape(p["client"])}</p>' if p["client"] else ""
    return (
        f"<{level}>{escape(p['title'])}</{level}><p>{escape(p['facts'])}</p>{client}{price}"
        + "".join(_block({"kind": "note", "text": m}) for m in p["missing"])
        + _image(p["rail"], "Price rail: comps above the line, competing homes below it")
        + _image(p["map"], "Map of the subject and its comps")
        + "<h3>What is around</h3>"
        + _table(["", "homes", "low", "median", "mean", "high"], p["statistics"])
        + f"<h3>How it was searched</h3><p>{escape(p['sentence'])}</p>"
        + (f'<p class="small quiet">Records: {escape(p["sources"])}.</p>' if p["sources"] else "")
    )


def _comps(p: dict[str, Any], level: str) -> str:
    out = f"<{level}>The comps beside the subject</{level}>"
    for b in p["blocks"]:
        rows = [*b["rows"], ["Differs", "", *b["differs"]]]
        if any(b["flags"]):
            rows.append(["Note", "", *b["flags"]])
        out += _table(["", p["subject"], *(f"{n}. {name}" for n, name in b["heads"])], rows)
    return out if p["blocks"] else out + _block({"kind": "note", "text": "No comps are kept yet."})


def _grid(p: dict[str, Any], level: str) -> str:
    out = f"<{level}>Adjusted to the subject</{level}>"
    for b in p["blocks"]:
        rows = [
            ["Close price", "", *b["prices"]], *b["rows"], ["Net", "", *b["net"]], ["Gross", "", *b["gross"]],
            ["Weight", "", *b["weights"]], ["Adjusted price", "", *b["adjusted"]],
        ]  # fmt: skip
        out += _table(["", "rate", *(f"{n}. {name}" for n, name in b["heads"])], rows, last=True)
    if p["apart"]:
        out += f"<p>{escape(p['apart'])}</p>"
    if p["ways"]:
        out += "<h3>Ways to the number</h3>" + _table(["", "", ""], p["ways"])
    return out if p["blocks"] else out + _block({"kind": "note", "text": "No comps are kept yet."})
