"""Figures told in a local form: nothing but their form changes, and what people wrote stays as it is."""

from __future__ import annotations

import datetime as dt
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.dates import said
from rain_porch.core.facts.local_form import NUMBERS, USUAL, LocalForm, OwnWords, Quantity, told, told_head

EURO = LocalForm("1.234,5", "31 Aug 2026", "€", "after", "metres")
KRONA = LocalForm("1 234,5", "2026-08-31", "kr", "after", "feet")
FRANC = LocalForm("1’234.5", "31 Aug 2026", "Fr.", "before", "feet")


@pytest.mark.parametrize(
    ("usual", "euro", "krona"),
    [
        ("Sold at $412,500.", "Sold at 412.500\u00a0€.", "Sold at 412\u00a0500\u00a0kr."),
        ("−$5,000, +170, 3.5 %", "−5.000\u00a0€, +170, 3,5 %", "−5\u00a0000\u00a0kr, +170, 3,5 %"),
        ("made Aug 31, 2026, 2:05 AM", "made 31 Aug 2026, 2:05 AM", "made 2026-08-31, 2:05 AM"),
        ("950–1,450 sq ft within 0.5 mi", "88–135 m² within 0,8 km", "950–1\u00a0450 sq ft within 0,5 mi"),
        ("between 1,500 and 2,000 sq ft", "between 139 and 186 m²", "between 1\u00a0500 and 2\u00a0000 sq ft"),
        ("within 1.5534 mi, 5 mi, 0.85 miles", "within 2,5 km, 8 km, 1,37 km", "within 1,5534 mi, 5 mi, 0,85 miles"),
        ("1,500+ sq ft, 30 ft away", "139+ m², 9,1 m away", "1\u00a0500+ sq ft, 30 ft away"),
        ("$150.23 per sq ft", "1.617\u00a0€ per m²", "150,23\u00a0kr per sq ft"),
        ("$57,000 an acre", "140.850\u00a0€ a ha", "57\u00a0000\u00a0kr an acre"),
        ("a price per sq ft of $243.31", "a price per m² of 2.619\u00a0€", "a price per sq ft of 243,31\u00a0kr"),
        # a sum comes out, so it stays in what it was reckoned in
        ("(1,200 − 1,110) sq ft × 111 = +9,990", "(1.200 − 1.110) sq ft × 111 = +9.990", None),
        ("167.53 × 1,200 sq ft = 201,036", "167,53 × 1.200 sq ft = 201.036", None),
        # no figures: numbers of listings and parcels, addresses of machines, versions
        ("RP-100,001, parcel 05-0857, 10.0.0.1, v1.5", "RP-100,001, parcel 05-0857, 10.0.0.1, v1.5", None),
        # somebody's words within a sentence of ours
        (
            "“1.5 acres” is no number of 1,500",
            "“1.5 acres” is no number of 1.500",
            "“1.5 acres” is no number of 1\u00a0500",
        ),
        ("in May 2026, Q3 2026, built 1987", "in May 2026, Q3 2026, built 1987", None),
    ],
)
def test_sentences_are_told_in_a_form(usual: str, euro: str, krona: str | None):
    assert told(usual, USUAL) == usual
    assert told(usual, EURO) == euro
    if krona is not None:
        assert told(usual, KRONA) == krona
    assert told(OwnWords(usual), EURO) == usual


@given(st.floats(-9e8, 9e8), st.integers(0, 3), st.sampled_from(list(NUMBERS)))
def test_a_number_keeps_every_digit(value: float, digits: int, numbers: str):
    form, (group, point) = LocalForm(numbers), NUMBERS[numbers]
    usual = f"{value:,.{digits}f}".replace("-", "−")
    shown = told(f"is {usual} here", form)
    assert shown.replace(point, "\0").replace(group, ",").replace("\0", ".") == f"is {usual} here"
    assert told(usual, form) == form.number(value, digits)


@given(st.dates(dt.date(1900, 1, 1), dt.date(2100, 1, 1)), st.sampled_from([EURO, KRONA, FRANC]))
def test_a_day_is_the_same_day(day: dt.date, form: LocalForm):
    shown = told(f"on {said(day)}: 3 homes", form).removeprefix("on ").removesuffix(": 3 homes")
    assert dt.datetime.strptime(shown, "%Y-%m-%d" if form is KRONA else "%d %b %Y").date() == day


@given(st.floats(0.01, 5e6), st.sampled_from(["sq ft", "mi", "acres", "ft", "$/sq ft"]))
def test_a_quantity_is_told_as_large_as_it_is(value: float, unit: str):
    digits = 2 if unit in ("mi", "acres", "$/sq ft") else 0
    shown = told(Quantity(value, unit, digits), EURO)
    back = float(shown.replace(".", "").replace(",", "."))
    metric = EURO.measured(value, unit)
    places = len(shown.partition(",")[2])
    assert abs(back - metric) <= 0.5 * 10.0**-places + 1e-6 * metric
    assert told(Quantity(value, unit, digits), KRONA) == KRONA.number(value, digits)


def test_heads_name_what_stands_below_them():
    assert told_head("Living area, sq ft", EURO, "sq ft") == "Living area, m²"
    assert told(told_head("$/sq ft", EURO, "$/sq ft"), EURO) == "€/m²"
    assert told_head("Miles away", EURO, "mi") == "km away" and told_head("Miles away", KRONA, "mi") == "Miles away"
    assert EURO.unit("$/sq ft") == "€/m²" and FRANC.unit("$/sq ft") == "Fr./sq ft"
    assert told(Quantity(151.2, "$/sq ft", 2, signed=True), FRANC) == "Fr.\u00a0151.20"


def test_no_mark_of_another_form_is_left():
    text = told("From $1,234.50 to $2,000,000, up 12.5 % on 1,020 sales since Jan 2, 2020", KRONA)
    assert not re.search(r"\d[.,]\d{3}|\$|Jan", text)
