"""Pages are pure functions from a frozen workup to data: looked at without any paper."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rain_porch.report.pages.comps import comps_page, grid_page, summary_page
from rain_porch.report.wording import facts_line


def test_the_summary_says_where_the_list_price_stands(given):
    value = given.price["indicated_value"]
    for price, words in (
        (value * 1.05, "5.0 % above"),
        (value * 0.9, "10.0 % below"),
        (value, "at the indicated value"),
    ):
        assert words in summary_page(replace(given, list_price=price))["list_says"]
    none = summary_page(replace(given, list_price=None))
    assert none["list_price"] is None and "No list price is set." in none["missing"]


def test_the_statistics_are_those_of_what_is_around(given):
    rows = {r[0]: r[1:] for r in summary_page(given)["statistics"]}
    sold = sorted(c["price"] for c in given.around if c["kind"] == "sold")
    assert rows["Sold"][0] == str(len(sold))
    assert rows["Sold"][1] == f"{sold[0]:,.0f}" and rows["Sold"][4] == f"{sold[-1]:,.0f}"
    assert dict(summary_page(given)["counts"])["sold"] == given.counts["sold"]


def test_comps_stand_six_to_a_block_in_their_order(given):
    blocks = comps_page(replace(given, comps=[*given.comps, *given.comps][:15]))["blocks"]
    assert [len(b["heads"]) for b in blocks] == [6, 6, 3]
    assert [h[0] for b in blocks for h in b["heads"]] == list(range(1, 16))
    first = {r[0]: r[1:] for r in blocks[0]["rows"]}
    assert first["Living area, sq ft"][0] == f"{given.subject['facts']['living_area']:,.0f}"
    assert len(first["Baths"]) == 7 and "full" in first["Baths"][1]


def test_the_grid_adds_up_as_it_is_shown(given):
    page = grid_page(given)
    assert page["blocks"][0]["adjusted"] == [f"{c['adjusted_price']:,.0f}" for c in given.price["comps"][:6]]
    names = [r[0] for r in page["blocks"][0]["rows"]]
    assert names[:1] == ["Market change"] or "Concessions" in names[:2]
    assert any(n.startswith("Living area") for n in names)
    assert page["ways"][0][0] == "Adjusted comps" and page["value"] == f"${given.price['indicated_value']:,.0f}"


@pytest.mark.parametrize(
    ("facts", "line"),
    [
        ({}, ""),
        ({"bedrooms_total": 3.0, "bathrooms_full": 2.0, "bathrooms_half": 1.0}, "3 bedrooms · 2 full, 1 half baths"),
        (
            {"living_area": 1812.0, "lot_size_square_feet": 9100.0, "year_built": 1987.0},
            "1,812 sq ft · lot 9,100 sq ft · built 1987",
        ),
    ],
)
def test_the_line_of_facts_says_what_is_known(facts, line):
    assert facts_line(facts) == line


def test_the_map_numbers_the_comps_and_draws_what_lies_under_them(given):
    from rain_porch.report.pictures.maps import map_svg

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


def test_the_same_workup_gives_the_same_pages(given):
    """Pages are pure: asked twice, they answer alike, and what they were given is untouched."""
    before = repr(given)
    for page in (summary_page, comps_page, grid_page):
        assert page(given) == page(given)
    assert repr(given) == before
