"""Closer looks at a market add up to its figures: records behind them, bands, what changed, drawn places."""

from __future__ import annotations

import datetime as dt

import numpy as np
import pytest

from rain_porch.app.market.closer_looks import BandsAsk, BehindAsk, ChangesAsk, behind, by_bands, changes
from rain_porch.app.market.market_document import market_doc
from rain_porch.app.market.views import ViewDoc, answer
from rain_porch.core.errors import BadInput
from rain_porch.core.facts.places.place import miles
from rain_porch.core.market import measures as mk
from rain_porch.documents.search import ShapeDoc

START, END = dt.date(2026, 8, 1), dt.date(2026, 8, 31)
COUNTS = ("new_listings", "back_on_market", "contracts", "closings", "for_sale", "under_contract", "failed",
          "failed_for_sale", "failed_under_contract", "put_on_hold")  # fmt: skip


@pytest.mark.parametrize("measure", sorted(mk.MEASURES))
def test_the_records_behind_a_figure_are_those_it_was_made_from(demo_records, measure):
    view = ViewDoc(measures=[measure], places=["Quarry Bend"], home_kind="detached")
    told = behind(demo_records, BehindAsk(view=view, measure=measure, place="Quarry Bend", start=START, end=END))
    if measure in COUNTS:
        assert told.count == told.value.value and len(told.records) == told.count
    elif told.value.value is not None:
        assert told.count >= told.value.n > 0
    if measure == "median_price":
        assert np.median([r.price for r in told.records]) == told.value.value
        assert all(START <= r.date <= END and r.kind == "sold" for r in told.records)
    if measure == "median_list_price":
        assert np.median([r.list_price for r in told.records]) == told.value.value
        assert {r.kind for r in told.records} == {"for_sale"}


def test_what_changed_counts_what_the_measures_count(demo_records):
    through = demo_records.through()
    since = through - dt.timedelta(days=60)
    told = changes(demo_records, ChangesAsk(view=ViewDoc(places=["Lantern Hill"]), since=since))
    chosen = np.flatnonzero(demo_records.area_mask(("Lantern Hill",)))
    market = mk.Market(demo_records.columns, chosen, (through - dt.date(1970, 1, 1)).days)
    (point,) = mk.series(market, list(COUNTS), [mk.Period("since", since, through, True)])
    pairs = {"new": "new_listings", "back": "back_on_market", "closed": "closings", "failed": "failed"}
    for what, measure in pairs.items():
        assert told.counts.get(what, 0) == point.values[measure].value, what
    days = [c.date for c in told.changes]
    assert days == sorted(days, reverse=True) and min(days) >= since
    assert sum(told.counts.values()) == len(told.changes)
    moved = [c for c in told.changes if c.what in ("price_up", "price_down")]
    # a contract shows what was asked on its day: the newest change of price up to then, not a later one
    moves = {c.record.listing_id: c for c in moved}
    later = [c for c in told.changes if c.what in ("new", "contract") and c.record.listing_id in moves]
    assert later and all(
        c.price
        == (
            moves[c.record.listing_id].new
            if moves[c.record.listing_id].date <= c.date
            else moves[c.record.listing_id].old
        )
        for c in later
        if sum(m.record.listing_id == c.record.listing_id for m in moved) == 1
    )
    assert all(c.price == c.record.price for c in told.changes if c.what == "closed")
    assert moved and all((c.new > c.old) == (c.what == "price_up") for c in moved)
    with pytest.raises(BadInput, match="records end on"):
        changes(demo_records, ChangesAsk(view=ViewDoc(), since=through + dt.timedelta(days=1)))


def test_bands_and_sellers_add_up_to_the_whole_and_the_home_falls_into_one(demo_records):
    view = ViewDoc(measures=["closings"], by="quarter", years=3, home_kind="detached", places=["Quarry Bend"])
    whole = answer(demo_records, view).lines[0]
    for split in ("price", "seller", "year_built"):
        parts = answer(demo_records, view.model_copy(update={"split": split})).lines
        assert len(parts) > 2
        unknown = 0.02 * max(p.value for p in whole.points) + 1  # a few records hold no year
        for i, point in enumerate(whole.points):
            total = sum(line.points[i].value for line in parts)
            assert total == point.value if split != "year_built" else 0 <= point.value - total <= unknown
    told = by_bands(demo_records, BandsAsk(view=view, living_area=1700, price=390_000))
    assert [r.mine for r in told.size].count(True) == 1 == [r.mine for r in told.price].count(True)
    per = [r.values["median_price_per_sqft"].value for r in told.size]
    assert per[0] > per[-1], "small homes bring more by the square foot"
    for r in told.price:
        n = r.values["closings"].value
        if n:
            supply = r.values["for_sale"].value / (n / 12)
            assert r.values["months_of_supply"].value == pytest.approx(supply)


def test_a_circle_round_a_home_is_a_place_like_any_other(demo_records):
    lat, lon = demo_records.middle(np.flatnonzero(demo_records.area_mask(("Quarry Bend",))))
    circle = ShapeDoc(points=[[lon, lat]], radius_miles=0.5)
    view = ViewDoc(measures=["closings"], by="year", years=2, shapes=[circle], drawn="within 0.5 mi of 12 Made Street")
    told = answer(demo_records, view)
    assert "of homes within 0.5 mi of 12 Made Street in the 12 months" in told.sentence
    columns = demo_records.columns
    near = miles(lat, lon, columns.lats, columns.lons) <= 0.5
    ours = near & ~columns.lease & ~columns.deed & ~columns.not_arms_length
    years = 1970 + columns.close[ours].astype("datetime64[D]").astype("datetime64[Y]").astype(int)
    for period, point in zip(told.periods, told.lines[0].points, strict=True):
        assert point.value == (years == period.start.year).sum()


def test_deed_sales_count_by_choice_and_the_sentence_says_so(demo_records):
    plain, with_deeds = (
        answer(demo_records, ViewDoc(measures=["closings"], by="year", deeds=d)) for d in (False, True)
    )
    assert with_deeds.newest > plain.newest
    assert "deed sales counted" in with_deeds.sentence and "deed" not in plain.sentence
    doc = market_doc(demo_records, ["closings"], "year", None, None, deeds=True)
    theirs = {p.start: p.values["closings"].value for p in doc.periods}
    shown = zip(with_deeds.periods, with_deeds.lines[0].points, strict=True)
    assert {p.start: x.value for p, x in shown} == {p.start: theirs[p.start] for p in with_deeds.periods}


def test_a_view_says_what_its_records_lack(demo_records):
    told = answer(demo_records, ViewDoc(measures=["median_days", "contracts"], by="year"))
    columns = demo_records.columns
    rows = (columns.close >= (told.periods[0].start - dt.date(1970, 1, 1)).days) & ~columns.lease & ~columns.deed
    rows &= ~columns.not_arms_length & np.isfinite(columns.numbers["close_price"][:])
    lacking = (columns.contract[rows] < 0).mean()
    days, contracts = told.notes
    assert days.startswith("Median days on market: ") and contracts.startswith(
        f"Contracts: {lacking:.0%} of the closings"
    )
    assert answer(demo_records, ViewDoc(measures=["closings"])).notes == []
