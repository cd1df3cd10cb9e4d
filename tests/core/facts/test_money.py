from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.money import dollars, half_up, pct_words, priced, rate_rounded, rate_words, signed


@given(st.floats(-1e7, 1e7))
def test_rounding_half_up_is_within_half_and_odd(value):
    assert abs(half_up(value) - value) <= 0.5 + 1e-6
    assert half_up(-value) == -half_up(value)


def test_money_is_written_plainly():
    assert (half_up(2.5), half_up(-2.5), half_up(417_741.3, 100)) == (3, -3, 417_700)
    assert (dollars(412_500.4), dollars(None)) == ("412,500", "unknown")
    assert (signed(5741.2), signed(-6000), signed(0.2)) == ("+5,741", "−6,000", "0")


@given(st.floats(0.0001, 1e6))
def test_a_rate_is_shown_as_it_is_reckoned_with(value):
    """What is printed, read back, is the very rate: printed sums multiply out."""
    rate = rate_rounded(value)
    assert float(rate_words(rate).replace(",", "")) == pytest.approx(rate, abs=1e-12)
    assert (
        rate_rounded(rate) == rate
        and abs(rate - value) <= 0.5 * 10.0 ** -(0 if value >= 100 else 2 if value >= 1 else 4) + 1e-9
    )


def test_money_and_percent_have_their_signs():
    assert (priced(412_500.4), priced(-80.0), priced(None)) == ("$412,500", "−$80", "unknown")
    assert (pct_words(0.29), pct_words(0.125), pct_words(-0.5, sign=True), pct_words(0.5, sign=True)) == (
        "0.29", "0.125", "−0.50", "+0.50",
    )  # fmt: skip
    assert (rate_words(85.0), rate_words(85.37), rate_words(-0.1735)) == ("85.00", "85.37", "−0.1735")
