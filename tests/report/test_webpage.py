"""Blocks as HTML: words are words, tables can be walked, nothing is fetched."""

from __future__ import annotations

from html.parser import HTMLParser

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.report.blocks import figures, heading, homes, note, page, para, picture, ruled, table
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


def test_no_word_of_anybodys_becomes_markup():
    svg = ink.svg(10, 10, [ink.text(1, 1, EVIL)])
    card = {"svg": svg, "title": EVIL, "price": EVIL, "lines": [EVIL]}
    told = read(heading(EVIL), para(EVIL), note(EVIL), table([EVIL, EVIL], [[EVIL, EVIL]]), figures([(EVIL, EVIL, "moss")]),
                ruled(EVIL), picture(svg, EVIL, EVIL), homes([card]), title=EVIL)  # fmt: skip
    assert not [t for t, _ in told.tags if t == "script"]
    assert sum(EVIL in w for w in told.words) >= 10
    assert not any(name.startswith("on") for _, attrs in told.tags for name in attrs)


def test_nothing_is_fetched_from_anywhere_and_pictures_have_words():
    told = read(
        picture(ink.svg(10, 10, []), "A map of the comps"),
        homes([{"svg": ink.svg(5, 5, []), "title": "a", "price": "", "lines": []}]),
    )
    for tag, attrs in told.tags:
        assert tag not in ("link", "iframe", "object", "script")
        assert not (attrs.get("src") or "data:").startswith("http")
        if tag == "img":
            assert attrs["alt"] is not None
    assert any(attrs.get("alt") == "A map of the comps" for _, attrs in told.tags)


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
