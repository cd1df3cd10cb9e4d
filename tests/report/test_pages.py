"""Pages are pure functions from a frozen workup to data: looked at without any paper."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from hypothesis import given as every
from hypothesis import strategies as st

from rain_porch.core.facts.money import adding_up, half_up
from rain_porch.report.blocks import Nothing
from rain_porch.report.layouts import LAYOUTS, PAGES, SPEAKING
from rain_porch.report.pages.chosen import beside_page, comp_sheets, comps_page, steps_of
from rain_porch.report.pages.grid import grid_page, in_words
from rain_porch.report.pages.one_page import against, sentences, summary_page
from rain_porch.report.pages.opening import search_page
from rain_porch.report.pages.readings import reading_page, statistics_page
from rain_porch.report.papers import document, page_document, page_pictures
from rain_porch.report.pictures.maps import map_svg
from rain_porch.report.pictures.spread import spread
from rain_porch.report.speaking import KINDS, spoken_of
from rain_porch.report.typesetting import pooled
from rain_porch.report.wording import facts_line


def blocks_of(page, kind):
    """All blocks of a kind on a page, also those that stand beside others."""
    out = []
    for b in page["blocks"]:
        out += [b] if b["kind"] == kind else []
        out += [x for part in b.get("parts", ()) for x in part if x["kind"] == kind]
    return out


def amount(text):
    return float(text.replace(",", "").replace("−", "-").replace("+", "").replace("$", "") or 0)


@pytest.mark.parametrize(
    ("share", "words"), [(1.05, "5.0 % above the"), (0.9, "10.0 % below the"), (1.0, "the indicated value")]
)
def test_where_the_list_price_stands_is_said(given, share, words):
    value = given.price["indicated_value"]
    assert against(value * share, value).startswith(words)


def test_the_three_sentences_carry_only_what_the_figures_do(given):
    others = [c for c in given.around if c["kind"] == "for_sale"]
    told = sentences(given, others)
    assert len(told) == 3 and f"{len(others)} homes for sale" in told[1] and "of 100 homes" not in told[2]
    assert len(sentences(replace(given, list_price=None, own_words=""), others)) == 2
    assert sentences(replace(given, own_words="Be brave."), others)[2] == "Be brave."
    none = replace(
        given,
        comps=[],
        chosen=[],
        around=[],
        counts={},
        list_price=None,
        price={**given.price, "comps": [], "indicated_value": None},
    )
    assert sentences(none, []) == [
        "No home like this one was found that has sold lately.",
        "Nothing like it is for sale here now.",
    ]


def test_numbers_and_counts_agree_on_every_page(whole):
    kept = {c["listing_id"]: n for n, c in enumerate(whole.chosen, 1)}
    glance = [r for b in blocks_of(comps_page(whole), "glance") for r in b["rows"]]
    assert [r["number"] for r in glance] == list(kept.values())
    assert [p["title"].split(".")[0] for p in comp_sheets(whole)] == [str(n) for n in kept.values()]
    assert [h["number"] for b in blocks_of(grid_page(whole), "matrix") for h in b["heads"]] == list(
        range(1, len(whole.comps) + 1)
    )
    drawn = blocks_of(summary_page(whole), "filling")[0]["sizes"][0]["svg"]()
    assert {int(n) for n in re.findall(r'font-weight="600"[^>]*>(\d+)</text>', drawn)} == set(kept.values())
    assert f"of {sum(whole.counts.values())} found" in comps_page(whole)["lead"]
    for kind in ("for_sale", "under_contract"):
        mine = [c for c in whole.chosen if c["kind"] == kind]
        page = PAGES[kind](whole)
        rows = blocks_of(page, "table")[-1]["rows"]
        assert len(rows) == len(mine) and all(
            r[0].startswith(f"{kept[c['listing_id']]}. ") for r, c in zip(rows, mine, strict=True)
        )
        assert f"of {whole.counts[kind]} found" in page["blocks"][0]["text"] or len(mine) == whole.counts[kind]


def test_a_page_speaks_of_the_chosen_unless_it_is_to_speak_of_all_found(whole):
    for name in SPEAKING:
        chosen = spoken_of(whole, name, KINDS)
        assert [c["listing_id"] for c in chosen.homes] == [
            c["listing_id"] for c in whole.chosen
        ] and "chosen" in chosen.words
        found = spoken_of(replace(whole, paper=replace(whole.paper, speaks_of={name: "found"})), name, KINDS)
        assert (
            len(found.homes) == found.found == sum(whole.counts.values()) and found.words == f"all {found.found} found"
        )
    none = replace(whole, chosen=whole.comps)
    assert spoken_of(none, "for_sale", ("for_sale",)).words.startswith(("all ", "the one found")), (
        "none is chosen: those found"
    )
    beyond = replace(whole, around=[], counts=dict.fromkeys(whole.counts, 0))
    assert len(spoken_of(beyond, "comps").homes) == len(whole.chosen), "chosen ones stay whatever the search becomes"


def test_counts_agree_on_every_page_also_when_the_search_has_become_narrower(whole):
    """No page tells another number of what is found than the page of the search does."""
    narrow = replace(
        whole,
        around=[whole.comps[0], whole.around[-1]],
        counts={**dict.fromkeys(whole.counts, 0), whole.comps[0]["kind"]: 1, whole.around[-1]["kind"]: 1},
    )
    found = next(r for r in [search_page(narrow)["lead"]])
    assert found.startswith("2 homes were found")
    assert spoken_of(narrow, "comps").words == f"the {len(whole.chosen)} chosen; the search as it is now finds 2"
    every = spoken_of(replace(narrow, paper=replace(whole.paper, speaks_of={"comps": "found"})), "comps")
    assert every.words == f"all 2 found, and {len(every.homes) - 2} chosen before"
    for name in SPEAKING:
        words = re.findall(r"(?:of|finds|all) (\d+|none)(?: found)?\b", spoken_of(narrow, name).words)
        assert all(w == "none" or int(w) <= 2 for w in words), name


def test_statistics_say_of_which_homes_they_are(whole):
    page = statistics_page(whole)
    words = {r[1] for b in blocks_of(page, "table") for r in b["rows"]}
    assert words == {f"of the {len(whole.chosen)} chosen", f"of the {len(whole.around)} found"}
    prices = next(b for b in blocks_of(page, "table"))["rows"]
    told = {(r[0], r[1].split()[-1]): r for r in prices}
    for word, homes in (("chosen", whole.chosen), ("found", whole.around)):
        sold = sorted(c["price"] for c in homes if c["kind"] == "sold")
        row = told["Sold", word]
        assert int(row[2]) == len(sold) and row[3] == f"{sold[0]:,.0f}" and row[-1] == f"{sold[-1]:,.0f}"


def test_what_is_printed_adds_up(whole):
    for b in blocks_of(grid_page(whole), "matrix"):
        rows = {r["cells"][0]: r["cells"][2:] for r in b["rows"]}
        lines = [
            cells for name, cells in rows.items() if name not in ("Sold for", "As this home", "Net", "Gross", "Weight")
        ]
        for k, adjusted in enumerate(rows["As this home"]):
            assert amount(rows["Sold for"][k]) + sum(amount(line[k]) for line in lines) == amount(adjusted)
    weights = [
        amount(w.removesuffix(" %"))
        for b in blocks_of(grid_page(whole), "matrix")
        for r in b["rows"]
        if r["cells"][0] == "Weight"
        for w in r["cells"][2:]
    ]
    model = whole.price["model"]
    assert model["weight"] > 0 and f"{100 * model['weight']:.1f} %" in str(grid_page(whole)), (
        "the model says what it weighs"
    )
    assert sum(weights) + 100 * model["weight"] == pytest.approx(100.0, abs=1e-9)
    for c in whole.price["comps"]:
        steps, adjusted = steps_of(c)
        assert half_up(c["close_price"]) + sum(v for _, v in steps) == adjusted == half_up(c["adjusted_price"])


@every(st.lists(st.floats(-50_000, 50_000), min_size=1, max_size=15))
def test_rounded_lines_add_up_to_the_rounded_total_and_stay_near(values):
    shown = adding_up(values, sum(values))
    assert sum(shown) == half_up(sum(values)) or sum(bool(v) for v in values) < abs(
        sum(map(half_up, values)) - half_up(sum(values))
    )
    assert all(abs(a - v) < 1.5 for a, v in zip(shown, values, strict=True))
    assert all(a == 0 for a, v in zip(shown, values, strict=True) if v == 0)


def test_rates_are_said_in_words(whole):
    told = " ".join(in_words(whole))
    rate = next(r for r in whole.price["rates"] if r["field"] == "living_area")
    assert (
        f"A square foot of living area is worth about ${rate['dollars']:,.0f} here (from {rate['sales']} sales" in told
    )
    assert "this street for the same home" in told and "% a month" in told


def test_sales_stand_six_to_a_block_line_by_line(given):
    blocks = blocks_of(beside_page(replace(given, chosen=[*given.comps, *given.comps][:15])), "matrix")
    assert [len(b["heads"]) for b in blocks] == [6, 6, 3]
    first = {r["cells"][0]: r["cells"][1:] for r in blocks[0]["rows"]}
    assert first["Living area, sq ft"][0] == f"{given.subject['facts']['living_area']:,.0f}"
    assert len(first["Baths"]) == 7 and "full" in first["Baths"][1]


@pytest.mark.parametrize(
    ("facts", "line"),
    [
        ({}, ""),
        ({"bedrooms_total": 3.0, "bathrooms_full": 2.0, "bathrooms_half": 1.0}, "3 bedrooms · 2 full, 1 half baths"),
        ({"bedrooms_total": 1.0, "bathrooms_full": 1.0}, "1 bedroom · 1 full bath"),
        (
            {"living_area": 1812.0, "lot_size_square_feet": 9100.0, "year_built": 1987.0},
            "1,812 sq ft · lot 9,100 sq ft · built 1987",
        ),
    ],
)
def test_the_line_of_facts_says_what_is_known(facts, line):
    assert facts_line(facts) == line


def test_no_page_says_that_it_does_not_know(whole):
    """A dash, an axis of nothing, a hole: none is printed, whatever is missing."""
    bare = [
        {
            **c,
            "date": None,
            "days_on_market": None,
            "price_per_sqft": None,
            "distance_miles": None,
            "facts": {},
            "differences": [],
        }
        for c in whole.chosen
    ]
    told = replace(whole, chosen=bare, comps=bare[: len(whole.comps)], around=bare)
    for name in PAGES:
        if isinstance(PAGES[name](told), Nothing):
            continue
        for page in document(replace(told, paper=replace(whole.paper, pages=(name,))), None)["pages"]:
            words = re.sub(r'"?<svg.*?</svg>"?', "", str(page), flags=re.S)
            assert "'—'" not in words and "None" not in re.sub(r": None|None of", "", words) and "nan" not in words, (
                page["title"]
            )


def test_the_map_numbers_the_chosen_and_draws_what_lies_under_them(given):
    svg = map_svg(given.subject, given.around, given.comps, given.base_map, {"radius_miles": 1.0})
    for n in range(1, len(given.comps) + 1):
        assert f">{n}</text>" in svg
    assert "stroke-dasharray" in svg and "#C9DEE8" in svg, "the radius and the river"
    bare = map_svg(given.subject, [], [], {"features": []}, {})
    assert len(bare) < 1500 < len(svg)
    assert ">1</text>" not in bare and "stroke-dasharray" not in bare
    far = [{**given.comps[0], "latitude": given.subject["latitude"] + 0.5}]
    wide = map_svg(given.subject, far, far, {"features": []}, {"radius_miles": 1.0})
    assert "2 mi</text>" in wide or "1 mi</text>" in wide, "the scale follows the farthest comp"
    lon, lat = given.subject["longitude"], given.subject["latitude"]
    ring = [[lon - 0.02, lat - 0.01], [lon + 0.02, lat - 0.01], [lon, lat + 0.02]]
    search = {
        "shapes": [{"points": ring, "radius_miles": None, "inside": True},
                   {"points": [[lon, lat]], "radius_miles": 0.2, "inside": False}],
        "fences": [{"lines": [[[lon - 0.1, lat], [lon + 0.1, lat]]]}],
    }  # fmt: skip
    drawn = map_svg(given.subject, given.around, given.comps, {"features": []}, search)
    assert drawn.count("stroke-dasharray") == 2 and 'stroke-width="2.6"' in drawn and drawn.count("<circle") >= 1


@every(st.lists(st.tuples(st.floats(0, 526), st.floats(0, 290)), max_size=40), st.integers(0, 3))
def test_marks_are_spread_until_none_lies_on_another(points, same):
    points = [*points, *points[:same]]
    placed = spread(points, [8.2] * len(points), 526, 290, [(263, 145, 9.0)])
    for i, (x, y) in enumerate(placed):
        assert 8 < x < 518 and 8 < y < 282 and (x - 263) ** 2 + (y - 145) ** 2 > 15**2
        assert all((x - a) ** 2 + (y - b) ** 2 > 14.5**2 for a, b in placed[:i]), "circles of eight points apart"
    assert placed == spread(points, [8.2] * len(points), 526, 290, [(263, 145, 9.0)]), "the same each time"


def test_the_same_workup_gives_the_same_pages(given):
    """Pages are pure: asked twice, they answer alike, and what they were given is untouched."""
    before = repr(given)
    for page in (summary_page, comps_page, grid_page, *(reading_page(k) for k in ("sold", "for_sale"))):
        assert pooled({"page": page(given)}) == pooled({"page": page(given)})
    assert repr(given) == before


def test_every_layout_is_made_of_pages_that_there_are():
    assert {name for pages in LAYOUTS.values() for name in pages} <= set(PAGES)
    assert [name for name, pages in LAYOUTS.items() if "set_aside" in pages] == ["appraiser"]


@pytest.mark.parametrize("layout", sorted(LAYOUTS))
def test_each_page_looked_at_alone_is_what_will_be_printed(given, layout):
    whole = document(given, layout)["pages"]
    alone = [one for n in range(1, len(LAYOUTS[layout]) + 1) if (one := page_document(given, layout, n))]
    assert pooled({"pages": [p for one in alone for p in one["pages"]]}) == pooled({"pages": whole})
    assert all(page_pictures(given, layout, n, "svg") for n, name in enumerate(LAYOUTS[layout], 1) if name == "letter")
