"""The sentences of a bulletin: rise, fall, flat, thin, none, first year, mix against price, shares in points; quiet where little is known."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.market.bulletin.bulletin import FIGURES, Figures, sentences
from rain_porch.core.market.measures import MEASURES, Value

SPAN = "the 12 months to October 2026"


def figures(now: dict[str, float], before: dict[str, float] | None = None) -> Figures:
    """n of each value: the closings of its span."""

    def made(given: dict[str, float]) -> dict[str, Value]:
        n = int(given.get("closings", 0))
        return {k: Value(v, n) for k, v in given.items()}

    return Figures(made(now), made(before or {}), SPAN)


def told(now, before=None):
    return sentences(figures(now, before), "homes", "in Lantern Hill")


@pytest.mark.parametrize(
    ("now", "before", "headline"),
    [
        ({"closings": 58, "median_price": 362_000}, {"closings": 61, "median_price": 351_500},
         "Homes in Lantern Hill sold for 3 % more than a year ago: a median of $362,000 (58 sales after 61)."),
        ({"closings": 58, "median_price": 340_000}, {"closings": 61, "median_price": 362_000},
         "Homes in Lantern Hill sold for 6 % less than a year ago: a median of $340,000 (58 sales after 61)."),
        ({"closings": 58, "median_price": 362_000}, {"closings": 61, "median_price": 361_000},
         "Homes in Lantern Hill sold for as much as a year ago: a median of $362,000 (58 sales after 61)."),
        ({"closings": 3, "median_price": 362_000}, {"closings": 61, "median_price": 361_000},
         f"Too few homes in Lantern Hill sold in {SPAN} to say more (3): a median of $362,000."),
        ({"closings": 58, "median_price": 362_000}, {"closings": 2, "median_price": 200_000},
         f"Homes in Lantern Hill sold for a median of $362,000 in {SPAN} (58 sales); the year before, too few sold to say more (2)."),
        ({"closings": 58, "median_price": 362_000}, None,
         f"Homes in Lantern Hill sold for a median of $362,000 in {SPAN} (58 sales); no year before is known to set it against."),
        ({"closings": 0}, {"closings": 61, "median_price": 361_000}, f"No homes in Lantern Hill sold in {SPAN}."),
    ],
    ids=["rise", "fall", "flat", "thin", "thin before", "first year", "none"],
)  # fmt: skip
def test_the_headline(now, before, headline):
    assert told(now, before).headline == headline


@pytest.mark.parametrize(
    ("median", "same", "why"),
    [
        (
            (330_000, 300_000),
            (303_000, 300_000),
            "The price of the same home is up 1 %; the rest is that larger or dearer homes sold.",
        ),
        (
            (300_000, 330_000),
            (301_000, 300_000),
            "The price of the same home is as good as unchanged; the rest is that smaller or cheaper homes sold.",
        ),
        ((310_000, 300_000), (309_000, 300_000), "It is no matter of which homes sold: the same home gained 3 %."),
        ((300_500, 300_000), (300_000, 300_000), ""),
    ],
    ids=["mix up", "mix down", "price", "flat"],
)
def test_the_mix_is_told_apart_from_the_price_of_the_same_home(median, same, why):
    now = {"closings": 40, "median_price": median[0], "same_home_price": same[0]}
    before = {"closings": 41, "median_price": median[1], "same_home_price": same[1]}
    assert told(now, before).why == why
    assert told({**now, "closings": 3}, before).why == "", "too few to say why"
    assert told({**now, "closings": 60}, before).why.endswith("More homes sold: 60 after 41.")


@pytest.mark.parametrize(("supply", "words"), [(1.9, "few to choose"), (4.0, "neither side"), (8.0, "buyers compare")])
def test_what_it_means_follows_the_supply(supply, words):
    now = {"closings": 40, "months_of_supply": supply, "for_sale": 9}
    assert words in told(now).seller and f"{supply:.1f} months" in told(now).buyer
    assert told({**now, "closings": 4}).seller == "" and told({"closings": 40, "for_sale": 9}).buyer == ""
    assert "None is for sale now" in told({**now, "months_of_supply": 0.0, "for_sale": 0}).seller


values = st.fixed_dictionaries({}, optional={name: st.floats(0, 2_000_000) for name in FIGURES})


@given(values, values)
def test_whatever_is_known_the_sentences_are_sentences(now, before):
    made = told(now, before)
    for text in (made.headline, made.why, made.seller, made.buyer):
        assert not text or ((text[0].isupper() or text[0].isdigit()) and text.endswith("."))
        assert "nan" not in text and "None of" not in text and "inf" not in text and "hot" not in text.split()
    assert made.headline and set(FIGURES) <= set(MEASURES)
