"""A look around counts and sums up as NumPy does on the same rows, and keeps nothing."""

from __future__ import annotations

import numpy as np
import pytest

from rain_porch.app.around import LookAsk, look_around
from rain_porch.app.records import Records
from rain_porch.core.errors import BadInput, NotFound
from tests.conftest import NOW


@pytest.fixture
def records(town):
    return Records(town, today=lambda: NOW.date()).snapshot()


def test_around_a_home_the_figures_are_those_of_the_homes_listed(records):
    key = records.db.execute(
        "SELECT parcel_number FROM parcels WHERE unparsed_address = '630 Hedgerow Terrace'"
    ).fetchone()
    look = look_around(records, LookAsk.model_validate({"home": {"kind": "parcel", "key": key[0]}}))
    assert look.title == "630 Hedgerow Terrace" and look.shown == sum(look.counts.values())
    sold = [c for c in look.candidates if c.kind == "sold"]
    price = next(f for f in look.figures if f.kind == "sold" and f.what == "price")
    prices = [c.price for c in sold]
    assert price.count == len(sold) == look.counts["sold"]
    assert (price.low, price.high, price.mean) == (min(prices), max(prices), pytest.approx(np.mean(prices)))
    assert price.median == np.median(prices)


def test_without_a_home_a_search_stands_alone(records):
    ask = {"search": {"areas": ["Alder*"], "radius_miles": None, "home_kinds": ["detached"]}}
    look = look_around(records, LookAsk.model_validate(ask))
    assert look.counts["sold"] > 5 and not look.subject.facts
    dates = [c.date for c in look.candidates if c.date]
    assert dates == sorted(dates, reverse=True), "the newest first, as there is no home to be like"


def test_neither_home_nor_search_and_homes_that_are_not_there(records):
    with pytest.raises(BadInput, match="Name a home"):
        look_around(records, LookAsk())
    with pytest.raises(NotFound):
        look_around(records, LookAsk.model_validate({"home": {"kind": "parcel", "key": "none"}}))
