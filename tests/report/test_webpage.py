"""Blocks as HTML: words are words, tables can be walked, nothing is fetched."""

from __future__ import annotations

from html.parser import HTMLParser

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.report.blocks import (
    card,
    columns,
    contents,
    figures,
    filling,
    glance,
    head_of_column,
    heading,
    homes,
    line_of,
    listed,
    matrix,
    page,
    pairs,
    para,
    picture,
    ruled,
    table,
)
from rain_porch.report.pictures import ink
from rain_porch.report.webpage import web_page

EVIL = "<script>alert(1)</script> & \"quoted\" 'so'"


class Tags(HTMLParser):
    def __init__(self) -> None:
        super().__init__()
        self.tags: list[tuple[str, dict[str, str | None]]] = []
        self.words: list[str] = []

    def handle_starttag(self, tag, attrs):
        self.tags.append((tag, dict(attrs)))

    def handle_data(self, data):
        self.words.append(data)


def read(*blocks, title="A page") -> Tags:
    model = {"title": title, "foot": EVIL, "pages": [page("x", title, *blocks, lead=EVIL)]}
    parser = Tags()
    parser.feed(web_page(model))
    return parser


SVG = ink.svg(10, 10, [ink.text(1, 1, EVIL)])
ROW = {
    "number": 1,
    "svg": SVG,
    "title": EVIL,
    "facts": EVIL,
    "price": EVIL,
    "status": EVIL,
    "pace": EVIL,
    "differs": EVIL,
    "alt": EVIL,
}
EVERY = [
    heading(EVIL), para(EVIL), listed([EVIL]), table([EVIL, EVIL], [[EVIL, EVIL]]), figures([(EVIL, EVIL, "moss")]), ruled(EVIL),
    picture(SVG, EVIL, EVIL), homes([card(SVG, EVIL, EVIL, [EVIL], 1, EVIL)]), pairs([(EVIL, EVIL)]), glance([ROW], ["", EVIL, EVIL, EVIL]),
    columns([[para(EVIL)], [para(EVIL)]], (1, 1)), filling(lambda h: SVG, (100, 200), EVIL, EVIL), contents([("x", EVIL, EVIL)], EVIL),
    matrix([head_of_column(1, EVIL, SVG)], [line_of([EVIL, EVIL, EVIL])], 6, mine=EVIL),
]  # fmt: skip


def test_no_word_of_anybodys_becomes_markup():
    told = read(*EVERY, title=EVIL)
    assert not [t for t, _ in told.tags if t == "script"]
    assert sum(EVIL in w for w in told.words) >= 25
    assert not any(name.startswith("on") for _, attrs in told.tags for name in attrs)


def test_nothing_is_fetched_from_anywhere_and_pictures_have_words():
    told = read(*EVERY)
    for tag, attrs in told.tags:
        assert tag not in ("link", "iframe", "object", "script")
        assert not (attrs.get("src") or attrs.get("srcset") or "data:").startswith("http")
        if tag == "img":
            assert attrs["alt"]
    assert any(attrs.get("alt") == EVIL for _, attrs in told.tags)


@given(st.integers(1, 5), st.integers(0, 6), st.booleans())
def test_a_table_has_a_head_and_a_cell_for_every_value(columns, rows, last):
    head = [f"h{i}" for i in range(columns)]
    body = [[f"{r}.{c}" for c in range(columns)] for r in range(rows)]
    told = read(table(head, body, last=last))
    tags = [t for t, _ in told.tags]
    assert tags.count("thead") == 1 and tags.count("tr") == rows + 1
    assert tags.count("th") + tags.count("td") == columns * (rows + 1)
    assert [w for w in told.words if w in {x for r in body for x in r}] == [x for r in body for x in r]


@pytest.mark.parametrize("nothing", [None])
def test_blocks_that_are_none_leave_no_trace(nothing):
    kept = page("x", "A page", nothing, para("here"), nothing)
    assert [b["kind"] for b in kept["blocks"]] == ["para"]
