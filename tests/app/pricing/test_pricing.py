"""From records to a price: on the demo town, on a file that the project did not make, and where little can be said."""

from __future__ import annotations

import csv
import datetime as dt
import re
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from rain_porch.app.home import homes
from rain_porch.app.home.homes import HomeRef
from rain_porch.app.pricing.ask import asking
from rain_porch.app.pricing.candidates import candidates, most_alike, sold_rows
from rain_porch.app.pricing.find_document import find_doc
from rain_porch.app.pricing.price_document import price_doc
from rain_porch.app.pricing.pricing import Decided, price
from rain_porch.app.pricing.roads import by_roads
from rain_porch.app.pricing.standpoint import Standpoint
from rain_porch.core.errors import Ambiguous, BadInput, NotEnough, NotFound
from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.places.place import miles
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.search import search as sr
from rain_porch.store.records.areas import barriers

AMES = Path(__file__).parents[2] / "reference/data/ames.csv"


@pytest.fixture
def ames(bring, records):
    """Ames as an export with RESO's names and nothing but place, area, year, baths, close date and price."""
    with AMES.open() as f:
        rows = [
            [
                r["Latitude"],
                r["Longitude"],
                r["Gr_Liv_Area"],
                r["Year_Built"],
                r["Full_Bath"],
                r["Half_Bath"],
                f"{r['Year_Sold']}-{int(r['Mo_Sold']):02d}-15",
                r["Sale_Price"],
            ]
            for r in csv.DictReader(f)
        ]
    head = "Latitude,Longitude,LivingArea,YearBuilt,BathroomsFull,BathroomsHalf,CloseDate,ClosePrice"
    result = bring("\n".join([head, *(",".join(r) for r in rows)]))
    assert (result.new, result.rejected) == (2930, 0)
    return rows


def test_a_foreign_file_prices_one_of_its_rows_by_place_and_by_made_key(records, ames):
    row = ames[200]
    place = homes.locate(records.snapshot(), place=(float(row[0]), float(row[1])))
    doc, _ = price_doc(records.snapshot(), homes.read_home(records.snapshot(), place), None, None)
    check_price(doc)
    key = doc.comps[0].listing_id
    assert key.startswith("at_42.")
    own, comps = price_doc(
        records.snapshot(),
        homes.read_home(records.snapshot(), homes.locate(records.snapshot(), listing=key)),
        None,
        None,
        True,
    )
    check_price(own)
    assert key not in comps, "a home is no comp of itself"
    assert own.effective_date == dt.date.fromisoformat(
        homes.read_home(records.snapshot(), HomeRef("listing", key)).listings[0]["close_date"]
    )


def check_price(doc):
    """Comps, adjustments that add up, weights that with the model's sum to one, and a range around the value."""
    assert 6 <= len(doc.comps) <= 12
    for c in doc.comps:
        amounts = [a.amount for a in c.adjustments]
        assert c.adjusted_price == pytest.approx(c.close_price + sum(amounts), abs=0.05)
        assert c.net_pct == pytest.approx(100 * sum(amounts) / c.close_price, abs=1e-3)
        assert c.gross_pct == pytest.approx(100 * sum(map(abs, amounts)) / c.close_price, abs=1e-3)
        assert c.close_date <= doc.effective_date
    share = doc.model.weight if doc.model else 0.0
    assert sum(c.weight for c in doc.comps) + share == pytest.approx(1) and share <= 0.5
    exact = sum(c.weight * c.adjusted_price for c in doc.comps) + (share * doc.model.value if doc.model else 0.0)
    assert doc.indicated_value == pytest.approx(exact, abs=50.1)
    assert doc.range.low < doc.indicated_value < doc.range.high and not doc.range.measured
    assert {m.name for m in doc.methods} >= {"adjusted_comps", "mean_price_per_sqft", "model"}


def test_adjusted_comps_come_nearer_than_price_per_square_foot_on_a_foreign_county(records, ames):
    """Every 6th sale of the last 18 months, each predicted from what was known the day before its month's sales."""
    columns = records.snapshot().columns
    late = np.flatnonzero(columns.close >= day_of(dt.date(2009, 2, 1)))[::6]
    ours, plain = [], []
    for row in late:
        home = homes.read_home(records.snapshot(), HomeRef("listing", str(columns.keys[row])))
        as_of = dt.date.fromisoformat(home.listings[0]["close_date"]) - dt.timedelta(days=1)
        doc, _ = price_doc(records.snapshot(), home, as_of, None)
        paid = columns.numbers["close_price"][row]
        values = {m.name: m.value for m in doc.methods}
        ours.append(abs(values["adjusted_comps"] / paid - 1))
        plain.append(abs(values["mean_price_per_sqft"] / paid - 1))
    assert len(ours) > 100
    assert np.median(ours) < 0.9 * np.median(plain)


def detached(demo_records, area: str, n: int = 0) -> HomeRef:
    row = demo_records.db.execute(
        "SELECT parcel_number FROM parcels WHERE home_kind = 'detached' AND subdivision_name LIKE :a "
        "ORDER BY parcel_number LIMIT 1 OFFSET :n",
        {"a": f"{area}%", "n": n},
    ).fetchone()
    return HomeRef("parcel", row[0])


@pytest.mark.parametrize(
    "area", ["Old Landing", "Millrace", "Lantern Hill", "Quarry Bend", "Alder Flats", "Heron Reach", "Foxglove"]
)
def test_a_home_in_every_neighbourhood_can_be_priced(demo_records, area):
    home = homes.read_home(demo_records, detached(demo_records, area, 40))
    doc, _ = price_doc(demo_records, home, None, None)
    check_price(doc)
    found = find_doc(demo_records, home, None, doc.search.search())
    assert found.counts["sold"] >= 6 and found.sentence == doc.sentence


def test_nothing_later_than_the_effective_date_is_seen(demo_records):
    home = homes.read_home(demo_records, detached(demo_records, "Alder Flats", 7))
    early = dt.date(2021, 3, 31)
    found = find_doc(demo_records, home, early, None)
    assert found.effective_date == early
    assert all(c.date <= early for c in found.candidates if c.date)
    doc, _ = price_doc(demo_records, home, early, None)
    assert all(c.close_date <= early for c in doc.comps)


def test_rates_and_cells_typed_over_change_the_value_by_just_that(demo_records):
    home = homes.read_home(demo_records, detached(demo_records, "Alder Flats", 7))
    standpoint = Standpoint.at(demo_records, home.subject, demo_records.effective_day(None))
    comps = most_alike(standpoint, standpoint.proposed())
    plain = price(standpoint, comps)
    typed = price(standpoint, comps, decided=Decided(rates={"living_area": 0.0, "market_change": 0.0}))
    assert typed.rates["living_area"].source == "typed"
    for a in typed.adjusted:
        lines = {x.field: x.amount for x in a.lines}
        assert lines["living_area"] in (0, None) and lines["market_change"] == 0
    first = comps[0].listing_id
    celled = price(standpoint, comps, decided=Decided(cells={first: {"garage_spaces": 1234.0}}))
    before = {x.field: x.amount for x in plain.adjusted[0].lines}["garage_spaces"] or 0
    assert celled.adjusted[0].adjusted_price - plain.adjusted[0].adjusted_price == pytest.approx(1234.0 - before)


def test_without_comps_there_is_no_value_and_the_reason_is_said(demo_records):
    home = homes.read_home(demo_records, detached(demo_records, "Millrace", 3))
    standpoint = Standpoint.at(demo_records, home.subject, demo_records.effective_day(None))
    out = price(standpoint, [])
    assert out.value is None and out.range is None and "No comps are kept yet" in out.warnings[-1]


def test_candidates_are_ranked_and_carry_their_facts(demo_records):
    home = homes.read_home(demo_records, detached(demo_records, "Quarry Bend", 5))
    standpoint = Standpoint.at(demo_records, home.subject, demo_records.effective_day(None))
    search = standpoint.proposed()
    found = candidates(standpoint, standpoint.run(search).rows)
    likes = [c.likeness for c in found]
    assert likes == sorted(likes, reverse=True)
    assert all(
        c.distance_miles <= 1 and (c.kind != "sold" or c.price_per_sqft is None or c.price_per_sqft > 20) for c in found
    )
    assert {c.row for c in found if c.kind == "sold"} == set(sold_rows(standpoint, search))


# --- where nothing can be said


def test_records_that_are_empty_say_what_to_do(records):
    with pytest.raises(NotEnough, match="bring in a file"):
        records.snapshot().through()


def test_a_single_sale_is_priced_with_its_cautions(bring, records):
    bring(
        "ListingId,CloseDate,ClosePrice,Latitude,Longitude,LivingArea\nA1,2025-05-01,400000,41.2,-38.4,1800\n"
        "A2,2025-05-20,410000,41.201,-38.4,1850\n"
    )
    home = homes.read_home(records.snapshot(), HomeRef("listing", "A1"))
    doc, _ = price_doc(records.snapshot(), home, None, None)
    assert [c.listing_id for c in doc.comps] == ["A2"] and doc.indicated_value
    assert any("house rules" in w for w in doc.warnings) and any("at least three" in w for w in doc.warnings)


def test_no_sale_at_all_is_refused_with_the_search(bring, records):
    bring(
        "ListingId,StandardStatus,OnMarketDate,ListPrice,Latitude,Longitude\nA1,Active,2025-05-01,400000,41.2,-38.4\n"
    )
    with pytest.raises(NotEnough, match="No sale fits"):
        price_doc(records.snapshot(), homes.read_home(records.snapshot(), HomeRef("listing", "A1")), None, None)


def test_homes_are_named_or_the_choices_are_listed(demo_records):
    with pytest.raises(Ambiguous) as many:
        homes.locate(demo_records, address="hedgerow terrace")
    assert len(many.value.values["choices"]) > 2
    with pytest.raises(NotFound) as none:
        homes.locate(demo_records, address="99999 hedgrow terrace")
    assert any("Hedgerow" in n for n in none.value.values["nearest"])
    for given in ({"parcel": "x"}, {"listing": "x"}, {"place": (0.0, 0.0)}):
        with pytest.raises(NotFound):
            homes.locate(demo_records, **given)
    with pytest.raises(BadInput):
        homes.locate(demo_records)


def test_a_home_without_a_place_is_searched_by_its_city(bring, records):
    bring("ListingId,CloseDate,ClosePrice,City\nA1,2025-05-01,400000,Alder\n")
    home = homes.read_home(records.snapshot(), HomeRef("listing", "A1"))
    assert not home.subject.placed
    proposed = Standpoint.at(records.snapshot(), home.subject, day_of(dt.date(2025, 6, 1))).proposed()
    assert proposed.radius_miles is None and proposed.criterion("city").words == ("Alder",)


def test_an_area_that_is_nowhere_names_those_that_are(demo_records):
    with pytest.raises(NotFound, match="Lantern Hill"):
        demo_records.area_mask(("Atlantis",))
    assert demo_records.area_mask(("Quarry Bend South",)).sum() > 50
    assert demo_records.area_mask(("brindle ferry",)).sum() > 4000, "cities count as areas too"


def lots(prices: dict[int, int], kind: str = "Unimproved Land") -> str:
    rows = [
        f"V{i},Closed,Land,{kind},{size},{price},2026-0{5 + i % 4}-01,{41.2 + i / 5000},-38.4"
        for i, (size, price) in enumerate(prices.items())
    ]
    head = "ListingId,StandardStatus,PropertyType,PropertySubType,LotSizeSquareFeet,ClosePrice,CloseDate,Latitude,Longitude"
    return "\n".join([head, *rows]) + "\n"


def lot_price(records, size: float, kind: HomeKind = HomeKind.LAND):
    me = Subject({"lot_size_square_feet": size}, 41.2, -38.4, kind)
    standpoint = Standpoint.at(records, me, day_of(dt.date(2026, 10, 1)))
    search = sr.Search(home_kinds=("land",), criteria=(), windows={"sold": sr.Window(days=400)})
    return price(standpoint, most_alike(standpoint, search))


def test_land_with_few_sales_is_adjusted_by_the_house_rule_of_land(bring, records):
    """Four lots tell nothing of their own: a lot's size carries 0.6 of its worth, not the 0.08 that it has under a house."""
    bring(lots({8000: 90_000, 9000: 100_000, 10_000: 104_000, 12_000: 120_000}), "lots.csv")
    made = lot_price(records.snapshot(), 10_500)
    rate = made.rates["lot_size_square_feet"]
    assert (rate.source, rate.elasticity) == ("house rule", 0.6)
    assert rate.dollars == round(0.6 * 102_000 / 10_500, 2) == 5.83
    small = next(a for a in made.adjusted if a.close_price == 90_000)
    line = next(x for x in small.lines if x.field == "lot_size_square_feet")
    assert line.amount == pytest.approx(rate.dollars * 2500)
    assert 100_000 < made.value < 112_000
    assert set(made.rates) <= {"lot_size_square_feet", "waterfront_yn", "location"}


def test_land_with_many_sales_is_priced_by_them(bring, records):
    """Made lots at 1,200 × size^0.5: the price and the rate come back."""
    rng = np.random.default_rng(3)
    sizes = {int(s): round(1200 * s**0.5 * float(np.exp(rng.normal(0, 0.03)))) for s in rng.integers(5000, 15_000, 80)}
    bring(lots(sizes), "lots.csv")
    made = lot_price(records.snapshot(), 9000)
    true = 1200 * 9000**0.5
    assert made.value == pytest.approx(true, rel=0.03)
    assert made.rates["lot_size_square_feet"].dollars == pytest.approx(0.5 * true / 9000, rel=0.2)
    assert made.range.low < true < made.range.high


def test_what_the_home_is_not_rated_in_is_left_out_said_and_asked_for(demo_records):
    home = homes.read_home(demo_records, homes.locate(demo_records, address="630 Hedgerow Terrace"))
    facts = {k: v for k, v in home.subject.facts.items() if k != "property_condition"}
    standpoint = Standpoint.at(demo_records, replace(home.subject, facts=facts), demo_records.columns.last_day())
    search = standpoint.proposed()
    made = price(standpoint, most_alike(standpoint, search))
    assert made.rates["condition_grade"].dollars > 0
    assert all(x.amount is None for a in made.adjusted for x in a.lines if x.field == "condition_grade")
    (asked,) = [w for w in made.warnings if w.startswith("Condition is not rated")]
    assert "a step" in asked and "Give it in Home" in asked
    rated = price(
        Standpoint.at(demo_records, home.subject.corrected({"property_condition": "Worn"}), standpoint.view.day),
        made.comps,
    )
    said = [x.formula for a in rated.adjusted for x in a.lines if x.field == "condition_grade" and x.amount]
    assert said and all(
        re.match(r"\((new|like new|well kept|ordinary wear|worn|damaged) − [a-z ]+\), [\d.]+ steps? (better|worse)", f)
        for f in said
    )


def test_lying_by_the_highway_is_a_difference(demo_records):
    home = homes.read_home(demo_records, homes.locate(demo_records, address="110 Parterre Drive"))
    standpoint = Standpoint.at(demo_records, home.subject, demo_records.columns.last_day())
    rows = sold_rows(standpoint, replace(standpoint.proposed(), radius_miles=3.0))
    here = by_roads(demo_records, standpoint.columns, replace(home.subject, latitude=41.0, longitude=-38.0), rows)
    assert {*here} == {"", "by Route 9"}, "seen from a home that lies elsewhere"
    beside = [row for row, says in zip(rows, here, strict=True) if says]
    road = [b for b in barriers(demo_records.db) if b["kind"] == "highway"]
    points = np.array([p for b in road for line in b["lines"] for p in line])
    for row in beside[:20]:
        assert (
            float(miles(standpoint.columns.lats[row], standpoint.columns.lons[row], points[:, 1], points[:, 0]).min())
            < 0.4
        )
    there = by_roads(
        demo_records, standpoint.columns, replace(home.subject, latitude=points[2, 1], longitude=points[2, 0]), rows
    )
    assert {*there} == {"", "not by Route 9"}, "seen from a home beside it"


def test_what_went_quickly_is_of_the_search_and_counts_what_it_says(demo_records):
    home = homes.read_home(demo_records, homes.locate(demo_records, address="110 Parterre Drive"))
    standpoint = Standpoint.at(demo_records, home.subject, demo_records.columns.last_day())
    wide = replace(standpoint.proposed(), radius_miles=3.0)
    made = price(standpoint, most_alike(standpoint, wide))
    none = np.zeros(0, dtype=np.int64)
    a, b = (asking(standpoint, made, s, none, 450_000).quick for s in (wide, replace(wide, criteria=())))
    assert a and b and a[1] < b[1], "a narrower search speaks of fewer homes"
    assert asking(standpoint, made, replace(wide, radius_miles=0.1), none, 450_000).quick is None, (
        "below eight nothing is said"
    )
