"""Colours that can be read, and marks that can be told apart without colour."""

from __future__ import annotations

import re
from xml.dom.minidom import parseString

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.report.pictures import ink

hexes = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06X}")
KINDS = ["sold", "deed_sale", "under_contract", "for_sale", "failed"]


def contrast(colour: str) -> float:
    """Against white, as WCAG 2.2 writes it down."""

    def part(c: int) -> float:
        s = c / 255
        return s / 12.92 if s <= 0.04045 else ((s + 0.055) / 1.055) ** 2.4

    r, g, b = (part(int(colour[i : i + 2], 16)) for i in (1, 3, 5))
    return 1.05 / (0.2126 * r + 0.7152 * g + 0.0722 * b + 0.05)


@given(hexes)
def test_an_agents_own_colour_is_darkened_just_until_it_can_be_read(colour):
    made = ink.readable(colour)
    assert contrast(made) >= 4.49
    assert all(int(made[i : i + 2], 16) <= int(colour[i : i + 2], 16) for i in (1, 3, 5))
    if contrast(colour) >= 4.51:
        assert made == colour.upper()


def test_the_products_own_words_can_be_read_on_paper():
    for colour in (ink.SLATE, ink.CEDAR, ink.MOSS, ink.RAIN, ink.CLAY):
        assert contrast(colour) >= 4.5, colour


@pytest.mark.parametrize("ring", [False, True])
def test_each_kind_has_a_shape_that_no_other_has_in_black_and_white(ring):
    shapes = {re.sub(r"#[0-9A-F]{6}", "#", ink.mark(kind, 10, 10, 4, ring=ring)) for kind in KINDS}
    assert len(shapes) == len(KINDS)
    for kind in KINDS:
        parseString(f"<g>{ink.mark(kind, 10, 10, 4, ring=ring)}</g>")
        assert (ink.CEDAR in ink.mark(kind, 10, 10, 4, ring=ring)) is ring


@given(st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), max_size=30))
def test_words_on_a_picture_are_words_whatever_stands_in_them(words):
    drawn = parseString(ink.svg(100, 50, [ink.text(5, 5, words), ink.house(20, 20, 6)]))
    (text,) = drawn.getElementsByTagName("text")
    assert "".join(n.data for n in text.childNodes) == words
    assert drawn.documentElement.getAttribute("viewBox") == "0 0 100 50"
