"""Market views: smoothing, the twelve months, change, and sentences that read right in every case."""

from __future__ import annotations

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.market.measures import MEASURES, Value, measure_label
from rain_porch.core.market.view_reading import Told, sentence, trailing, twelve_months

values = st.lists(st.one_of(st.none(), st.floats(1, 1e6)), min_size=1, max_size=40)


@given(values, st.sampled_from([1, 3, 12]))
def test_smoothing_is_the_mean_of_what_is_known_in_the_window(given_values, months):
    held = [Value(v, 0 if v is None else 2) for v in given_values]
    smooth = trailing(held, months)
    for i, s in enumerate(smooth):
        window = [v for v in given_values[max(0, i - months + 1) : i + 1] if v is not None]
        assert s.n == 2 * len(window)
        assert s.value is None if not window else s.value == pytest.approx(sum(window) / len(window))
    assert [s.value for s in trailing(held, 1)] == pytest.approx(given_values, nan_ok=True) or None in given_values


@pytest.mark.parametrize(
    ("through", "start", "end"),
    [
        (dt.date(2026, 10, 31), dt.date(2025, 11, 1), dt.date(2026, 10, 31)),
        (dt.date(2026, 10, 30), dt.date(2025, 10, 1), dt.date(2026, 9, 30)),
        (dt.date(2024, 2, 29), dt.date(2023, 3, 1), dt.date(2024, 2, 29)),
        (dt.date(2024, 2, 28), dt.date(2023, 2, 1), dt.date(2024, 1, 31)),
    ],
)
def test_the_twelve_months_are_whole_and_follow_each_other(through, start, end):
    now, before = twelve_months(through)
    assert (now.start, now.end) == (start, end)
    assert before.end == start - dt.timedelta(days=1) and before.start == start.replace(year=start.year - 1)


def told(measure: str, now: float | None, before: float | None, n: int = 50, closings: int = 142, n_before: int = 151,
         for_sale: float | None = 61) -> Told:  # fmt: skip
    supply = for_sale / (closings / 12) if for_sale is not None and closings else None
    return Told(measure, measure_label(measure), MEASURES[measure][0], Value(now, n), Value(before, n), Value(closings, closings),
                Value(n_before, n_before), Value(for_sale, int(for_sale or 0)), supply)  # fmt: skip


END = dt.date(2026, 10, 31)


@pytest.mark.parametrize(
    ("figures", "words"),
    [
        (told("median_price", 412_000, 399_600), "The median price of detached homes in Alder was $412,000 in the 12 months "
         "to October 2026, up 3.1 % on the year before (142 closings after 151); at the present pace the 61 homes for sale "
         "would last 5.2 months."),
        (told("median_price", 400_000, 400_000, for_sale=None), "… was $400,000 in the 12 months to October 2026, the same as "
         "the year before (142 closings after 151)."),
        (told("median_price", 400_000, 300_000, n=3, closings=3, n_before=0), "… was $400,000 in the 12 months to October 2026 "
         "(3 closings); so few homes say little."),
        (told("median_price", None, 300_000), "The records hold no median price of detached homes in Alder in the 12 months to "
         "October 2026."),
        (told("closings", 1, 2, closings=1, for_sale=None), "There was 1 closing of detached homes in Alder in the 12 months to "
         "October 2026, down 50.0 % on the year before."),
        (told("failed", 3, 0, for_sale=None), "There were 3 failed listings of detached homes in Alder in the 12 months to "
         "October 2026 (142 closings after 151)."),
        (told("for_sale", 1, 4), "At the end of October 2026 1 home among detached homes in Alder was for sale, down 75.0 % on "
         "the year before."),
        (told("share_of_list", 0.984, 0.989, for_sale=None), "The mean share of list price of detached homes in Alder was 98.4 % "
         "in the 12 months to October 2026, down 0.5 points on the year before (142 closings after 151)."),
        (told("median_days", 1, 2, for_sale=1, closings=6, n_before=6), "… was 1 day in the 12 months to October 2026, down 50.0 % "
         "on the year before (6 closings after 6); at the present pace the 1 home for sale would last 2.0 months."),
        (told("months_of_supply", 5.16, 4.0), "At the end of October 2026 the homes for sale of detached homes in Alder would last "
         "5.2 months at the pace of the last 12 months, up 29.0 % on the year before (142 closings after 151)."),
    ],
)  # fmt: skip
def test_the_sentence(figures, words):
    made = sentence(figures, "detached homes", "in Alder", END)
    assert made == words if not words.startswith("… ") else made.endswith(words[2:]), made


def test_every_measure_has_a_sentence():
    for name in MEASURES:
        made = sentence(told(name, 2.0, 1.0), "homes", "", END)
        assert made.endswith(".") and "None" not in made and "nan" not in made and "  " not in made
