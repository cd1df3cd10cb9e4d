from __future__ import annotations

import re
from xml.dom.minidom import parseString

from hypothesis import given
from hypothesis import strategies as st

from rain_porch.report.pictures import ink
from rain_porch.report.pictures.rail import rail_svg

money = st.floats(60_000, 3_000_000)
comps = st.lists(st.fixed_dictionaries({"close_price": money, "adjusted_price": money}), max_size=12)
others = st.lists(
    st.fixed_dictionaries({"kind": st.sampled_from(["for_sale", "failed", "sold"]), "price": st.none() | money}),
    max_size=9,
)
WIDTH = 526


@given(comps, others, st.none() | money, st.none() | money)
def test_everything_that_is_drawn_lies_on_the_rail(given_comps, around, value, list_price):
    span = None if value is None else {"low": value * 0.9, "high": value * 1.1}
    svg = rail_svg(given_comps, around, value, span, list_price)
    parseString(svg)
    assert "nan" not in svg and "inf" not in svg
    xs = [float(x) for x in re.findall(r'cx="([-\d.]+)"', svg)]
    assert all(0 <= x <= WIDTH for x in xs)
    assert svg.count(f'fill="{ink.SLATE}"/>') >= len(given_comps), "each comp has its mark"


@given(money, money)
def test_what_costs_more_stands_further_right(one, two):
    svg = rail_svg([{"close_price": one, "adjusted_price": two}], [], None, None, None)
    paid = float(re.search(rf'cx="([\d.]+)" cy="78.0" r="1.8" fill="{ink.GREY}"', svg).group(1))
    adjusted = float(re.search(rf'cx="([\d.]+)"[^>]*fill="{ink.SLATE}" stroke', svg).group(1))
    assert (paid < adjusted) == (one < two) or abs(paid - adjusted) < 3


def test_value_range_and_list_price_are_named_in_figures():
    svg = rail_svg([], [], 355_100, {"low": 322_700, "high": 390_700}, 374_900)
    assert "Indicated $355,100" in svg and "List price $374,900" in svg and ink.MOSS in svg and ink.CEDAR in svg
    assert "Indicated" not in rail_svg([], [], None, None, None)


def test_every_numbered_home_is_on_the_rail_and_the_others_beyond_it_are_counted():
    comps = [{"listing_id": "A", "close_price": 300_000, "adjusted_price": 310_000}]
    homes = [
        {"listing_id": k, "kind": "for_sale", "price": p}
        for k, p in (("B", 900_000), ("C", 2_000_000), ("D", 40_000), ("E", 30_000))
    ]
    svg = rail_svg(comps, homes, 310_000, None, None, numbers={"A": 1, "B": 2})
    assert ">2</text>" in svg and "1 ›</text>" in svg and "‹ 2</text>" in svg
    assert "›" not in rail_svg(comps, homes[:1], 310_000, None, None, numbers={"A": 1, "B": 2})
