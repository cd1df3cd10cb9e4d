"""Each kind of block as HTML."""

from __future__ import annotations

import base64
from collections.abc import Mapping, Sequence
from html import escape
from typing import Any

Narrow = Mapping[str, str]  # a picture → the same drawn for a phone
Block = dict[str, Any]


def laid(b: Block, narrow: Narrow) -> str:
    """A block of blocks.py as HTML."""
    return _KINDS[b["kind"]](b, narrow)


def image(svg: str, alt: str, width: float = 1.0, narrow: Narrow | None = None) -> str:
    """An SVG picture, the one for a phone where it is narrow there."""
    small = (narrow or {}).get(svg, svg)
    made = f'<img src="{_data(svg)}" alt="{escape(alt)}" style="width:{100 * width:.0f}%">'
    if small == svg:
        return made
    return f'<picture><source media="(max-width:620px)" srcset="{_data(small)}">{made}</picture>'


def _data(svg: str) -> str:
    return f"data:image/svg+xml;base64,{base64.b64encode(svg.encode()).decode()}"


def _heading(b: Block, narrow: Narrow) -> str:
    return f"<h3>{escape(b['text'])}</h3>"


def _para(b: Block, narrow: Narrow) -> str:
    name = ' class="quiet small"' if b["small"] else ' class="large"' if b["large"] else ""
    return f"<p{name}>{escape(b['text'])}</p>"


def _list(b: Block, narrow: Narrow) -> str:
    return "<ul>" + "".join(f"<li>{escape(item)}</li>" for item in b["items"]) + "</ul>"


def _figures(b: Block, narrow: Narrow) -> str:
    items = "".join(
        f'<div><span class="quiet small">{escape(name)}</span><b class="{colour}">{escape(value)}</b></div>'
        for name, value, colour in b["items"]
    )
    return f'<div class="figures{" stacked" if b["stacked"] else ""}">{items}</div>'


def _keys(b: Block, narrow: Narrow) -> str:
    items = "".join(
        f'<div><span class="quiet small">{escape(k["label"])}</span><b class="rain">{escape(k["value"])}</b><span class="quiet small">{escape(k["change"])}</span>'
        f"{image(k['svg'], k['alt']) if k['svg'] else ''}</div>"
        for k in b["items"]
    )
    return f'<div class="keys">{items}</div>'


def _ruled(b: Block, narrow: Narrow) -> str:
    return f'<p class="quiet small">{escape(b["label"])}</p><div class="ruled"></div>'


def _picture(b: Block, narrow: Narrow) -> str:
    caption = f"<figcaption>{escape(b['caption'])}</figcaption>" if b["caption"] else ""
    return f"<figure>{image(b['svg'], b['alt'], b['width'], narrow)}{caption}</figure>"


def _filling(b: Block, narrow: Narrow) -> str:
    middle = b["sizes"][len(b["sizes"]) // 2 if b["needed"] else 0]
    title = f"<h3>{escape(b['title'])}</h3>" if b["title"] else ""
    return title + _picture(b | {"svg": middle["svg"](), "width": 1.0}, narrow)


def _homes(b: Block, narrow: Narrow) -> str:
    return f'<div class="homes" style="--n:{b["across"]}">' + "".join(_home(c) for c in b["cards"]) + "</div>"


def _number(number: int | None, svg: str) -> str:
    """A home's number, in the corner of its picture where it has one."""
    return "" if number is None else f'<span class="num{"" if svg else " in"}">{number}</span>'


def _home(c: Block) -> str:
    number = _number(c["number"], c["svg"])
    front = f'<div class="pic">{image(c["svg"], c["alt"]) if c["svg"] else ""}{number}</div>'
    lines = "".join(f'<div class="quiet">{escape(line)}</div>' for line in c["lines"])
    price = f'<div class="rain"><b>{escape(c["price"])}</b></div>' if c["price"] else ""
    return f"<div>{front}<b>{escape(c['title'])}</b>{price}{lines}</div>"


def _glance(b: Block, narrow: Narrow) -> str:
    out = []
    for r in b["rows"]:
        number = _number(r["number"], r["svg"])
        front = image(r["svg"], r["alt"]) if r["svg"] else ""
        out.append(
            f'<div class="row"><div class="pic">{front}{number}</div><div><b>{escape(r["title"])}</b><span class="quiet">{escape(r["facts"])}</span></div>'
            f'<div><b class="rain">{escape(r["price"])}</b>{escape(r["status"])}<div class="quiet">{escape(r["pace"])}</div></div><div>{escape(r["differs"])}</div></div>'
        )
    return f'<div role="group" aria-label="{escape(b["head"][2])}">' + "".join(out) + "</div>"


def _pairs(b: Block, narrow: Narrow) -> str:
    items = "".join(f"<dt>{escape(name)}</dt><dd>{escape(value)}</dd>" for name, value in b["items"])
    return f"<dl{' class=two' if b['columns'] > 1 else ''}>{items}</dl>"


def _columns(b: Block, narrow: Narrow) -> str:
    widths = " ".join(f"minmax(0,{w:g}fr)" for w in b["widths"])
    parts = "".join("<div>" + "".join(laid(x, narrow) for x in part) + "</div>" for part in b["parts"])
    return f'<div class="columns" style="grid-template-columns:{widths}">{parts}</div>'


def _matrix(b: Block, narrow: Narrow) -> str:
    heads = [h["title"] if h["number"] is None else f"{h['number']}. {h['title']}" for h in b["heads"]]
    second = b["mine"] or b["over"]
    return table(["", second, *heads], [r["cells"] for r in b["rows"]], 1, [r["strong"] for r in b["rows"]])


def _table(b: Block, narrow: Narrow) -> str:
    last = len(b["rows"]) - 1 if b["last"] else None
    return table(b["head"], b["rows"], b["words"], total=last)


def table(
    head: Sequence[str],
    rows: Sequence[Sequence[str]],
    words: int = 1,
    strong: Sequence[bool] = (),
    total: int | None = None,
) -> str:
    """A table; on a phone, where it is too wide, its rows become cards: each cell with the name of its column."""

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
            f'<th scope="row"{cls(0)}>{escape(str(c))}</th>'
            if i == 0
            else f'<td{cls(i)} data-label="{escape(head[i] if i < len(head) else "")}">{escape(str(c))}</td>'
            for i, c in enumerate(row)
        )
        name = "total" if n == total else "strong" if n < len(strong) and strong[n] else ""
        body += f"<tr{f' class={name}' if name else ''}>{cells}</tr>"
    cards = "" if _fits(head, rows, words) else ' class="cards"'
    return f"<table{cards}>{top}<tbody>{body}</tbody></table>"


_PHONE, _LETTER, _BETWEEN = (
    350.0,
    7.6,
    16.0,
)  # points that a phone shows, that a sign and the space between columns take


def _fits(head: Sequence[str], rows: Sequence[Sequence[str]], words: int) -> bool:
    """Whether a table stands on a phone as it is: what holds words may break between them."""

    def longest(texts: Sequence[str], whole: bool) -> int:
        return max((len(t) if whole else max((len(w) for w in t.split()), default=0) for t in texts), default=0)

    wide = 0.0
    for i in range(len(rows[0]) if rows else len(head)):
        cells = longest([str(r[i]) for r in rows if i < len(r)], whole=i >= words)
        wide += _LETTER * max(cells, longest([head[i]] if i < len(head) else [], whole=False)) + _BETWEEN
    return wide <= _PHONE


def _contents(b: Block, narrow: Narrow) -> str:
    rows = "".join(
        f'<tr><th scope="row" class="word"><a href="#{escape(name.replace(" ", "-"))}">{escape(title)}</a></th><td class="word">{escape(words)}</td></tr>'
        for name, title, words in b["rows"]
    )
    return f'<nav aria-label="{escape(b["title"])}"><table><tbody>{rows}</tbody></table></nav>'


_KINDS = {
    "heading": _heading, "para": _para, "list": _list, "figures": _figures, "keys": _keys, "ruled": _ruled, "picture": _picture,
    "filling": _filling, "homes": _homes, "glance": _glance, "pairs": _pairs, "columns": _columns, "matrix": _matrix,
    "table": _table, "contents": _contents,
}  # fmt: skip
