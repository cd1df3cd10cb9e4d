"""Nothing is printed over anything and nothing over the edge, however many homes, however long their names."""

from __future__ import annotations

import random

import pytest

from rain_porch.app.around import LookAsk, look_around
from rain_porch.app.bulletin.documents import READY, BulletinDoc, BulletinPartDoc
from rain_porch.app.bulletin.kept import ready
from rain_porch.app.handover.bulletin_papers import bulletin_model
from rain_porch.app.handover.look_papers import LookPaper, paper_of_look
from rain_porch.app.market.views import ViewDoc
from rain_porch.report import blocks
from rain_porch.report.layouts import LAYOUTS
from rain_porch.report.papers import as_pdf, pdf
from tests.report.boxes import faults, pages_of
from tests.report.cases import COUNTS, with_homes
from tests.report.conftest import whole_of

LEAST = 8.4  # points; captions are nine, pictures on the narrower paper shrink a little


@pytest.mark.parametrize("n", COUNTS)
@pytest.mark.parametrize(("long", "pictures"), [(False, True), (True, False), (True, True)])
def test_nothing_lies_on_anything_or_over_the_edge(whole, n, long, pictures):
    papers = (("us-letter", False), ("a4", True))
    for size, backwards in papers if long and pictures else papers[n % 2 :][:1]:  # both where most stands on a page
        found = faults(pdf(with_homes(whole, n, long, pictures, size, backwards)), LEAST)
        assert not found, "\n".join(found[:20])


@pytest.mark.parametrize("street", ["630 Hedgerow Terrace", "613 Barge Place", "502 Tarn Lane"])
@pytest.mark.parametrize("layout", list(LAYOUTS))
def test_nor_in_any_layout(agent, layout, street):
    """Nor does a heading stand alone where what it heads had no room, nor is a picture shrunk until its words are too small."""
    held = whole_of(agent, street)
    found = faults(pdf(held, layout), LEAST)
    assert not found, "\n".join(found[:20])


@pytest.mark.parametrize("n", COUNTS)
def test_nor_on_the_papers_of_a_look(agent, n):
    search = {"areas": ["Lantern Hill"], "radius_miles": None, "home_kinds": ["detached"]}
    homes = [
        c.listing_id for c in look_around(agent.records, LookAsk.model_validate({"search": search})).candidates[:n]
    ]
    for layout in ("page", "packet"):
        ask = LookPaper.model_validate({"search": search, "ticked": homes, "layout": layout})
        found = faults(paper_of_look(agent, "pdf", ask)[0], LEAST)
        assert not found, "\n".join(found[:20])


@pytest.mark.parametrize("place", ["Lantern Hill", "Heron Reach", ""])
@pytest.mark.parametrize("layout", list(READY))
def test_nor_in_a_bulletin_ready_made(agent, layout, place):
    view = ViewDoc(measures=["median_price"], places=[place] if place else [], home_kind="detached")
    made = as_pdf(bulletin_model(agent, ready(layout, view, f"{place or 'The whole town'} in autumn")))
    assert not faults(made, LEAST)
    if layout == "one_page":
        assert len(list(pages_of(made))) == 1, "one page is one page"


@pytest.mark.parametrize("seed", range(6))
def test_nor_in_one_put_together_anyhow(agent, seed):
    """Parts in any order and number, with long names and comments, begun on pages or not: what has no room goes to the next page."""
    draws = random.Random(seed)
    kinds = BulletinPartDoc.model_fields["kind"].annotation.__args__
    view = ViewDoc(
        measures=["median_price", "closings"],
        places=draws.choice([[], ["Lantern Hill"], ["Lantern Hill", "Quarry Bend"]]),
    )
    parts = [
        BulletinPartDoc(kind=kind, view=view, days=60, page_break=draws.random() < 0.2, figures=draws.choice([4, 6]), table=draws.random() < 0.5,
                        title=draws.choice(["", "A heading that goes on for as long as anybody would ever care to read"]),
                        comment="Some words of the agent's own about these figures. " * draws.choice([0, 0, 6]))
        for kind in draws.choices(kinds, k=9)
    ]  # fmt: skip
    found = faults(as_pdf(bulletin_model(agent, BulletinDoc(title="Autumn", comment="For you.", parts=parts))), LEAST)
    assert not found, "\n".join([str([p.kind for p in parts]), *found[:20]])


def test_the_faults_that_are_looked_for_are_found():
    """Two lines on one another, one over the edge, one too small: each is told."""
    svg = (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 526 200" width="526" height="200">'
        '<text x="20" y="40" font-family="Figtree" font-size="12">first words</text><text x="24" y="43" font-family="Figtree" font-size="12">second words</text>'
        '<text x="500" y="90" font-family="Figtree" font-size="12">over the edge of the paper</text>'
        '<text x="20" y="150" font-family="Figtree" font-size="5">small</text></svg>'
    )
    page = blocks.page("x", "A page", blocks.picture(svg, "A picture"))
    told = faults(as_pdf({"title": "x", "by": "", "foot": "", "pages": [page]}), LEAST)
    for words in ("” on “", "over the edge at", "in 5.0 points"):
        assert any(words in t for t in told), words
