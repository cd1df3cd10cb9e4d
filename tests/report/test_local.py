"""Papers in a local form: every figure of every page, and no word of people's."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import replace
from html import unescape
from typing import Any

import pytest

from rain_porch.core.facts.local_form import LocalForm
from rain_porch.report.local import in_form
from rain_porch.report.model import OwnPages
from rain_porch.report.pages.bulletin import bulletin_pages
from rain_porch.report.papers import document, pdf

EURO = LocalForm("1.234,5", "31 Aug 2026", "€", "after", "metres")
OWN = "about $1,500 and 2.5 acres, Aug 31, 2026, 1.500 m²"  # as people may write, in whichever form
OF_USUAL = re.compile(
    r"\$|\d,\d{3}\b|\b\d+\.\d{1,2}(?![\d.])|\b\d[\d.]* (?:mi|miles|ft|acres?)\b|(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) \d+, \d{4}"
)
SUM = re.compile("[×÷^]")
NO_WORDS = frozenset(("page", "kind", "name", "path", "accent", "paper", "number", "logo", "portrait"))


def words_of(part: Any, key: str = "") -> Iterator[str]:
    """All that is read on a document model: its strings, and the texts of its pictures."""
    if callable(part):
        part = part()
    if isinstance(part, dict):
        for k, v in part.items():
            if k not in NO_WORDS:
                yield from words_of(v, k)
    elif isinstance(part, list | tuple):
        for v in part:
            yield from words_of(v, key)
    elif isinstance(part, str):
        yield from (unescape(t) for t in re.findall(r"<text[^>]*>([^<]*)</text>", part)) if key == "svg" else (part,)


@pytest.fixture(scope="module")
def in_euros(whole):
    """Every page, with people's own words wherever they may stand."""
    paper = replace(
        whole.paper,
        letter=OWN,
        title=OWN,
        notes=dict.fromkeys(whole.paper.pages, OWN),
        pages=[*whole.paper.pages, "own:1"],
    )
    return replace(
        whole, paper=paper, client=OWN, own_words=OWN, recommendation=OWN, agent=whole.agent | {"name": OWN, "contact": OWN},
        own_pages={"own:1": OwnPages(title=OWN, path="", pages=1, words=OWN)}, brand=replace(whole.brand, form=EURO),
        aside=[a | {"reason": OWN} for a in whole.aside], inside={k: [(OWN, svg) for _, svg in v] for k, v in whole.inside.items()},
    )  # fmt: skip


def test_every_figure_of_every_page_is_told_in_the_form(in_euros, whole):
    usual = list(words_of(document(whole, None)))
    assert sum(bool(OF_USUAL.search(w)) for w in usual) > 200, "the pattern finds figures of the usual form"
    told = list(words_of(document(in_euros, None)))
    left = [w for w in told if OF_USUAL.search(w.replace(OWN, "")) and not SUM.search(w)]
    assert not left
    assert sum("€" in w for w in told) > 50 and sum("m²" in w for w in told) > 30 and any(" km" in w for w in told)


def test_no_unit_stands_over_figures_of_another(in_euros):
    """Beside a size told in square metres nothing says square feet, in a row, a column, a pair."""

    def rows(part: Any) -> Iterator[list[str]]:
        if isinstance(part, dict):
            if part.get("kind") in ("table", "matrix", "pairs"):
                heads = [str(h) for h in part.get("head", [])]
                found = [r["cells"] if isinstance(r, dict) else r for r in part.get("rows", part.get("items"))]
                yield from found
                yield from ([h, *(str(r[i]) for r in found if i < len(r))] for i, h in enumerate(heads))
            for v in part.values():
                yield from rows(v)
        elif isinstance(part, list | tuple):
            for v in part:
                yield from rows(v)

    all_rows = list(rows(document(in_euros, None)))
    named = [r for r in all_rows if "sq ft" in str(r[0])]
    assert all(any(SUM.search(str(c)) for c in r[1:]) for r in named), named
    assert any("m²" in str(r[0]) for r in all_rows)


def test_a_chart_of_prices_by_size_stands_in_the_units_of_its_table(in_euros, whole):
    """Its highest mark is as far from the table's figures as it is in feet."""
    points = [{"value": v, "n": 9} for v in (180.0, 200.0, 230.0)]
    line = {
        "name": "",
        "label": "Median price per sq ft",
        "alone": "Median price per sq ft",
        "measure": "median_price_per_sqft",
        "unit": "$/sq ft",
        "axis": 0,
        "points": points,
    }
    periods = [{"period": f"2026-0{m}", "finished": True} for m in (7, 8, 9)]
    answer = {
        "lines": [line],
        "periods": periods,
        "newest": 230.0,
        "newest_over": "September 2026",
        "change": None,
        "sentence": "",
        "notes": [],
    }

    def marks(form: LocalForm) -> list[float]:
        part = {"kind": "view", "title": "By size", "comment": "", "answer": answer, "form": form}
        model = in_form({"pages": bulletin_pages("Of ours", "", [part])}, form)
        said = [w for w in words_of(model) if re.fullmatch(r"[\d.,]+", w)]
        assert any("m²" in w for w in words_of(model)) == form.is_metric
        return sorted(
            {float(w.replace(".", "").replace(",", ".") if form.is_metric else w.replace(",", "")) for w in said}
        )

    feet, metres = marks(LocalForm()), marks(EURO)
    assert feet[0] <= 180 and feet[-1] >= 230
    assert metres[0] <= 180 * 10.7639 and 230 * 10.7639 <= metres[-1] < 260 * 10.7639


def test_people_s_own_words_stay_as_they_wrote_them(in_euros):
    told = list(words_of(document(in_euros, None)))
    mangled = [w for w in told if ("acres" in w or "1.500 m²" in w) and OWN not in w]
    assert not mangled, mangled
    assert sum(OWN in w for w in told) > len(in_euros.paper.pages) // 2


def test_the_paper_is_set_in_it(in_euros):
    assert pdf(replace(in_euros, own_pages={}), "one_page").startswith(b"%PDF")
