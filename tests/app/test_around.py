"""A look around answers as a workup's room does, its figures are those of a pocket calculator, and it keeps nothing."""

from __future__ import annotations

import statistics

import pytest

from rain_porch.app.around import LookAsk, figures_around, look_around
from rain_porch.app.home.homes import HomeRef
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.records import Records
from rain_porch.app.saved_searches import carried_to_look, save_looked, saved_searches
from rain_porch.app.workup.workups import begin_looked, open_workup
from rain_porch.core.errors import BadInput, NotFound
from rain_porch.documents.search import SearchDoc
from tests.conftest import NOW

IN_ALDER = {"areas": ["Alder*"], "radius_miles": None, "home_kinds": ["detached"]}


@pytest.fixture
def records(town):
    return Records(town, today=lambda: NOW.date()).snapshot()


def parcel(records, address: str) -> dict[str, str]:
    row = records.db.execute("SELECT parcel_number FROM parcels WHERE unparsed_address = ?", (address,)).fetchone()
    return {"kind": "parcel", "key": row[0]}


def ask(**parts) -> LookAsk:
    return LookAsk.model_validate(parts)


def figure(told, field: str, kind: str, which: str = "kinds"):
    of = next(f for f in told.fields if f.field == field)
    return next(k for k in getattr(of, which) if k.kind == kind)


def by_hand(values: list[float]) -> tuple[float, ...]:
    """Low, lower quartile, mean, median, upper quartile, high, as a pocket calculator with sorted slips of paper has them."""
    x = sorted(values)

    def at(share: float) -> float:
        place = share * (len(x) - 1)
        low = int(place)
        return x[low] + (place - low) * (x[min(low + 1, len(x) - 1)] - x[low])

    return x[0], at(0.25), sum(x) / len(x), at(0.5), at(0.75), x[-1]


def test_the_figures_of_all_found_and_of_the_ticked_are_those_of_a_pocket_calculator(records):
    look = look_around(records, ask(home=parcel(records, "630 Hedgerow Terrace")))
    assert look.title == "630 Hedgerow Terrace" and len(look.candidates) == sum(look.counts.values())
    sold = [c for c in look.candidates if c.kind == "sold"]
    ticked = [c.listing_id for c in sold[:5]] + [c.listing_id for c in look.candidates if c.kind == "for_sale"][:2]
    told = figures_around(
        records, ask(home=parcel(records, "630 Hedgerow Terrace"), search=look.search.model_dump(), ticked=ticked)
    )
    for which, homes in (("kinds", sold), ("chosen", sold[:5])):
        for field, values in (
            ("price", [c.price for c in homes]),
            ("price_per_sqft", [c.price / c.facts["living_area"] for c in homes]),
            ("list_price_per_sqft", [c.list_price / c.facts["living_area"] for c in homes]),
            ("living_area", [c.facts["living_area"] for c in homes]),
            ("days_on_market", [c.days_on_market for c in homes if c.days_on_market is not None]),
            ("share_of_list", [c.price / c.list_price for c in homes]),
        ):
            s = figure(told, field, "sold", which)
            assert s.count == len(values)
            mine = (s.low, s.lower_quartile, s.mean, s.median, s.upper_quartile, s.high)
            assert mine == pytest.approx(by_hand(values), rel=1e-9), (which, field)
            assert s.median == pytest.approx(statistics.median(values))
    assert figure(told, "price", "for_sale", "chosen").count == 2
    assert figure(told, "price", "", "chosen").count == 7


def test_a_home_for_sale_is_laid_beside_what_sold(records):
    homes = look_around(records, ask(search=IN_ALDER)).candidates
    key = next(c.listing_id for c in homes if c.kind == "for_sale" and "living_area" in c.facts)
    home = {"kind": "listing", "key": key}
    look = look_around(records, ask(home=home))
    row = records.db.execute("SELECT list_price, living_area FROM listings WHERE listing_id = ?", (key,)).fetchone()
    assert look.asks["list_price"] == row[0] and look.asks["list_price_per_sqft"] == pytest.approx(row[0] / row[1])
    told = figures_around(records, ask(home=home))
    assert next(f for f in told.fields if f.field == "list_price").home == row[0]
    sold = look_around(records, ask(home=parcel(records, "630 Hedgerow Terrace")))
    assert sold.asks == {}, "what is not for sale asks nothing"


def test_what_was_paid_the_time_before(records):
    look = look_around(records, ask(search={**IN_ALDER, "windows": {"sold": {"on": True, "days": 730}}}))
    told = 0
    for c in look.candidates:
        home, came = records.db.execute(
            "SELECT home_key, on_market_date FROM listings WHERE listing_id = ?", (c.listing_id,)
        ).fetchone()
        rows = records.db.execute(
            "SELECT close_price, close_date FROM listings WHERE home_key = ? AND standard_status = 'Closed' AND close_date < ? "
            "AND coalesce(is_lease, 0) = 0 AND close_price IS NOT NULL ORDER BY close_date DESC", (home, came)
        ).fetchall()  # fmt: skip
        if rows and c.prices.get("paid_before") is not None and c.paid_before_on.isoformat() == rows[0][1]:
            assert c.prices["paid_before"] == rows[0][0]
            told += 1
        if c.paid_before_on is not None:
            assert came is None or c.paid_before_on.isoformat() < came
    assert told > 5


def test_without_a_home_a_search_stands_alone(records):
    look = look_around(records, ask(search=IN_ALDER))
    assert look.counts["sold"] > 5 and not look.subject.facts
    dates = [c.date for c in look.candidates if c.date]
    assert dates == sorted(dates, reverse=True), "the newest first, as there is no home to be like"
    ways = {w.part for w in look.what_if}
    assert {"areas", "windows.sold"} <= ways, "what-ifs as in a workup"


def test_around_a_place(records):
    lat, lon = records.middle()
    near = look_around(records, ask(place=[lon, lat], search={"radius_miles": 0.5, "home_kinds": ["detached"]}))
    far = look_around(records, ask(place=[lon, lat], search={"radius_miles": 2.0, "home_kinds": ["detached"]}))
    assert 0 < sum(near.counts.values()) < sum(far.counts.values())
    assert all(c.distance_miles <= 0.5 for c in near.candidates) and near.title == "Around a place"


def test_a_search_that_cannot_be_run_says_so_and_loses_nothing(records):
    good = look_around(records, ask(search=IN_ALDER))
    ticked = [c.listing_id for c in good.candidates[:3]]
    bad = look_around(records, ask(search={**IN_ALDER, "areas": ["Nowhere at all"]}, ticked=ticked))
    assert bad.fault.part == "areas" and "Nowhere at all" in bad.fault.message
    assert [c.listing_id for c in bad.kept_elsewhere] == ticked and bad.candidates == []
    assert figures_around(records, ask(search={**IN_ALDER, "areas": ["Nowhere"]}, ticked=ticked)).fields[0].chosen


def test_neither_home_nor_search_and_homes_that_are_not_there(records):
    with pytest.raises(BadInput, match="Name a home"):
        look_around(records, LookAsk())
    with pytest.raises(NotFound):
        look_around(records, ask(home={"kind": "parcel", "key": "none"}))


def test_a_workup_of_one_of_its_homes_has_the_ticked_ones_kept(town, records):
    look = look_around(records, ask(search=IN_ALDER))
    sold = [c.listing_id for c in look.candidates if c.kind == "sold"][:4]
    with folders_agent(records, now=lambda: NOW) as agent:
        number = begin_looked(agent, HomeRef("listing", sold[0]), look.search, [*sold, "no such home"])
        opened = open_workup(agent, number)
        assert opened.state.kept() == sold[1:], "itself is no comp of its own"
        assert opened.state.search == look.search
        with pytest.raises(NotFound):
            begin_looked(agent, HomeRef("listing", sold[0]), SearchDoc(areas=["Nowhere"]), [])


def test_its_search_is_saved_and_taken_to_a_home(records):
    with folders_agent(records, now=lambda: NOW) as agent:
        number = save_looked(
            agent, "Alder", ask(search={**IN_ALDER, "criteria": [{"field": "living_area", "low": 1500}]})
        )
        assert [(n, name) for n, name, _ in saved_searches(agent)] == [(number, "Alder")]
        same, left = carried_to_look(agent, number, ask(search=IN_ALDER))
        assert same.areas == ("Alder*",) and left == []
        home, left = carried_to_look(agent, number, ask(home=parcel(records, "630 Hedgerow Terrace")))
        assert home.areas == () and left == ["named areas"]


def test_a_home_known_from_a_deed_alone_is_its_parcels(records):
    windows = {"deed_sale": {"on": True, "days": 3650}, "sold": {"on": False}, "failed": {"on": False}}
    look = look_around(records, ask(search={**IN_ALDER, "areas": [], "arms_length_only": False, "windows": windows}))
    deed = next(c for c in look.candidates if c.kind == "deed_sale")
    around = look_around(records, ask(home={"kind": "listing", "key": deed.listing_id}))
    assert around.title == deed.address and around.subject.parcel_number
    with folders_agent(records, now=lambda: NOW) as agent:
        number = begin_looked(agent, HomeRef("listing", deed.listing_id), None, [])
        assert open_workup(agent, number).state.home.kind == "parcel"
    with pytest.raises(NotFound):
        look_around(records, ask(home={"kind": "listing", "key": "deed:none"}))


@pytest.mark.parametrize("place", [[0, 91], [181, 0], [1e300, 0]])
def test_a_place_that_is_none_is_refused(records, place):
    with pytest.raises(BadInput, match="is no place"):
        look_around(records, ask(place=place, search=IN_ALDER))
