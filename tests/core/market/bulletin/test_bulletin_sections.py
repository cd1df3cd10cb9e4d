"""The sentence over each section of a bulletin: a table of cases; nothing is said that the figures do not carry."""

from __future__ import annotations

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.market.bulletin import bulletin_sections as sections
from rain_porch.core.market.bulletin.bulletin import FIGURES
from rain_porch.core.market.measures import Value
from tests.core.market.bulletin.test_bulletin import SPAN, figures

MANY = {"closings": 40, "median_price": 300_000}


@pytest.mark.parametrize(
    ("now", "before", "words"),
    [
        ({"same_home_price": 309_000, "median_price_per_sqft": 206}, {"same_home_price": 300_000, "median_price_per_sqft": 200},
         "Against the year before, the same home brought 3 % more and a square foot brought 3 % more."),
        ({"same_home_price": 294_000}, {"same_home_price": 300_000}, "Against the year before, the same home brought 2 % less."),
        ({"median_price_per_sqft": 200.5}, {"median_price_per_sqft": 200}, "Against the year before, a square foot brought as much."),
        ({}, {}, ""),
    ],
    ids=["rise", "fall", "flat", "unknown"],
)  # fmt: skip
def test_prices(now, before, words):
    assert sections.prices(figures(MANY | now, MANY | before)) == words
    assert sections.prices(figures(MANY | now | {"closings": 3}, MANY | before)) == "", "thin"


@pytest.mark.parametrize(
    ("now", "before", "words"),
    [
        ({"median_days": 44.5, "months_of_supply": 3.1}, {"median_days": 39, "months_of_supply": 2.2},
         "Half of those that sold found a buyer within 45 days, 6 days slower than a year ago. What is for sale would last 3.1 months, after 2.2 a year ago."),
        ({"median_days": 40}, {"median_days": 41}, "Half of those that sold found a buyer within 40 days, as a year ago."),
        ({"months_of_supply": 0.0}, {}, "What is for sale would last 0.0 months."),
        ({}, {}, ""),
    ],
    ids=["slower", "same", "first year", "unknown"],
)  # fmt: skip
def test_pace(now, before, words):
    assert sections.pace(figures(MANY | now, MANY | before if before else None)) == words


def test_flow_names_what_is_known_with_the_year_before():
    now, before = (
        MANY | {"new_listings": 75, "contracts": 66},
        MANY | {"closings": 43, "new_listings": 42, "contracts": 45},
    )
    assert (
        sections.flow(figures(now, before))
        == f"In {SPAN} 75 came on (after 42), 66 found a buyer (after 45) and 40 closed (after 43)."
    )
    assert sections.flow(figures(MANY)) == f"In {SPAN} 40 closed." and sections.flow(figures({})) == ""


def test_shares_are_told_in_points():
    now = MANY | {"median_share_of_list": 0.985, "median_share_of_original": 0.971, "share_with_price_cut": 0.3}
    told = sections.shares(figures(now, MANY | {"median_share_of_list": 0.988}))
    assert told == ("Half of the sellers got 98.5 % of their last list price or more, as a year ago; of their first, 97.1 %. "
                    "Of the 40 for sale 30 % ask less than at first.")  # fmt: skip
    assert "0.6 points less than a year ago" in sections.shares(figures(now, MANY | {"median_share_of_list": 0.991}))
    assert (
        sections.shares(figures(now | {"closings": 4}))
        == ""
        == sections.pace(figures(now | {"closings": 4, "median_days": 9}))
    )


def test_places_name_the_first_and_the_last_of_enough_of_them():
    a, b, c = (sections.Moved(n, x, 20, 18) for n, x in (("Alder", 8.2), ("Birch", 0.2), ("Cobble", -3.4)))
    thin = sections.Moved("Dun", None, 2, 9)
    assert sections.places([a, b, c, thin]) == (
        "The median rose most in Alder (+8 %, 20 sales after 18) and fell most in Cobble (−3 %, 20 sales after 18). "
        "In 1 of 4 too few sold to say."
    )
    assert sections.places([b, b, b]) == "No place parts from the year before by a percent."
    assert sections.places([a, thin, thin]) == "" and sections.places([]) == ""


def test_years_tell_the_mix_from_the_price():
    def year(n, closings, median, same):
        return n, {
            "closings": Value(closings, closings),
            "median_price": Value(median, closings),
            "same_home_price": Value(same, closings),
        }

    assert sections.years([year(2024, 68, 480_900, 472_000), year(2025, 42, 467_400, 483_700)]) == (
        "From 2024 to 2025 the median price fell 3 % and the price of the same home rose 2 %: the rest is that smaller or cheaper homes sold "
        "(68 sales, then 42)."
    )
    assert sections.years([year(2024, 68, 480_900, 472_000)]) == ""
    assert sections.years([year(2024, 3, 480_900, 472_000), year(2025, 42, 467_400, 483_700)]) == ""


def test_months_name_the_highest_and_the_lowest_made_from_enough_homes():
    days = [dt.date(2025, m, 1) for m in range(1, 13)] + [dt.date(2026, 1, 1)]
    values = [Value(300_000 + 1000 * i, 6) for i in range(12)] + [Value(900_000, 2)]
    shown = [f"${v.value:,.0f}" for v in values]
    assert sections.months(list(zip(days, values, strict=True)), shown, counted=False) == (
        "Highest in December 2025 ($311,000), lowest in January 2025 ($300,000)."
    )
    assert sections.months(list(zip(days, values, strict=True))[:11], shown[:11], counted=True) == "", "no year"


values = st.fixed_dictionaries({}, optional={name: st.floats(0, 2_000_000) for name in FIGURES})


@given(values, values)
def test_whatever_is_known_each_is_a_sentence_or_nothing(now, before):
    for say in (sections.prices, sections.pace, sections.flow, sections.shares):
        text = say(figures(now, before))
        assert not text or (text[0].isupper() and text.endswith("."))
        assert "nan" not in text and "None" not in text and "inf " not in text
