"""Fields of the office's own: those that tell of prices beyond the rest become rates, of either sign; noise stays silent."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.core.price.evidence import evidence
from rain_porch.core.price.own_fields import MOST, telling
from rain_porch.core.price.rate_evidence import paired_sales
from tests.core.price.test_evidence import town
from tests.made import DAY, market, subject

DECK, NOISE, BUSY = "own_number_deck_sq_ft", "own_number_paint_number", "own_yes_busy_road"


def with_own(rows, deck=0.0004, busy=-0.08, seed=3):
    """The town with a deck that raises prices, a busy road that lowers them, and a number that means nothing."""
    rng = np.random.default_rng(seed)
    for row in rows:
        row[DECK], row[NOISE] = float(rng.integers(0, 400)), float(rng.integers(0, 100))
        row[BUSY] = float(rng.random() < 0.3)
        row["close_price"] *= float(np.exp(deck * row[DECK] + busy * row[BUSY]))
    return rows


def test_what_tells_has_a_rate_of_its_own_sign_and_what_does_not_has_none():
    columns = market(with_own(town(900)))
    told = evidence(columns, columns.as_of(DAY), subject(**{DECK: 100.0, BUSY: 0.0}))
    deck, busy = told.rates[DECK], told.rates[BUSY]
    assert abs(deck.dollars - 0.0004 * told.model_value) < 3 * deck.se and not deck.weak
    assert abs(busy.dollars + 0.08 * told.model_value) < 3 * busy.se and busy.dollars < 0 and not busy.weak
    assert NOISE not in told.rates


def test_pairs_of_an_own_number_differ_by_what_is_a_difference_in_it_and_do_not_undo_those_of_others():
    columns = market(with_own(town(900)))
    home = subject(**{DECK: 100.0, BUSY: 0.0})
    told = evidence(columns, columns.as_of(DAY), home)
    spread = float(np.std(columns.numbers[DECK][:]))
    pairs = paired_sales(told, columns, DECK, DAY)
    assert pairs.count > 0 and all(0.4 * spread < p.difference < 2.2 * spread for p in pairs.shown)
    bare = market(with_own(town(900), deck=0.0, busy=0.0))  # nothing of the office's own tells: no own field in the fit
    others = [paired_sales(evidence(c, c.as_of(DAY), home), c, "bathrooms_full", DAY).count for c in (columns, bare)]
    assert 0 < others[0] <= others[1]


def test_the_catalogue_s_rates_stay_what_they_are_where_own_fields_say_nothing():
    rows = town(500)
    plain = market(rows)
    for i, row in enumerate(rows):
        row[NOISE] = float(i % 7)
    own = market(rows)
    one, two = (evidence(c, c.as_of(DAY), subject()) for c in (plain, own))
    assert one.rates == two.rates and one.model_value == two.model_value


@settings(max_examples=40)
@given(st.integers(0, 10_000), st.integers(1, 8))
def test_it_names_those_that_made_it_in_the_order_of_their_worth(seed, n):
    rng = np.random.default_rng(seed)
    x = rng.normal(0, 1, (600, n + 3))
    worth = np.sort(rng.uniform(0.5, 1.5, n))[::-1]
    chosen = telling(x, x[:, :n] @ worth + rng.normal(0, 0.3, 600), np.ones(600))
    assert {*chosen} <= {*range(n)} and len(chosen) >= min(n, 3) and len(chosen) <= MOST
    assert telling(x, rng.normal(0, 1, 600), np.ones(600)) in ([], *([j] for j in range(n + 3))), (
        "chance names one at most"
    )


def test_nothing_is_told_of_no_fields():
    assert (
        telling(np.zeros((50, 0)), np.zeros(50), np.ones(50))
        == []
        == telling(np.zeros((50, 2)), np.ones(50), np.ones(50))
    )


@pytest.mark.parametrize("known", [0.4, 0.6])
def test_a_field_known_of_fewer_than_half_is_left_out(known):
    rng = np.random.default_rng(4)
    rows = [r if rng.random() < known else {**r, DECK: None} for r in with_own(town(900))]
    columns = market(rows)
    assert (DECK in evidence(columns, columns.as_of(DAY), subject(**{DECK: 100.0})).rates) == (known > 0.5)
