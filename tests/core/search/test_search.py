from __future__ import annotations

import datetime as dt
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.places.place import miles
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.columns import SOLD
from rain_porch.core.search import matching as mt
from rain_porch.core.search import proposed as pr
from rain_porch.core.search import search as sr
from rain_porch.core.search import steps
from rain_porch.core.search.likeness import days_since, likeness
from rain_porch.core.search.sales import MarketSales
from rain_porch.core.search.search import Criterion, Search, Window
from rain_porch.core.search.sentence import criterion_words, parts, sentence
from tests.made import CENTRE, DAY, TODAY, away, market, sale, subject

OPEN = Search(home_kinds=("detached",), leave_out_new_construction=False)


def found(search: Search, rows: list[dict], **kwargs):
    columns = market(rows)
    return mt.run(search, columns, columns.as_of(DAY), subject(), **kwargs), columns


# --- check values of the proposed search (common practice)


@pytest.mark.parametrize(
    ("area", "low", "high"),
    [
        (1600, 1350, 1850),
        (2500, 2200, 2800),
        (750, 550, 950),
        (3200, 2800, 3600),
        (4500, 4000, 5000),
        (6000, 5000, 7000),
    ],
)
def test_the_area_band_depends_on_the_size(area, low, high):
    assert pr.area_band(area) == (low, high)


@pytest.mark.parametrize(("value", "pct", "low", "high"), [(4000, 15, 3400, 4600), (6000, 15, 5100, 6900)])
def test_a_band_in_percent(value, pct, low, high):
    assert pr.share_band(value, pct) == pytest.approx((low, high))


def test_the_proposed_search_follows_the_home():
    s = pr.proposed_search(subject(living_area=1600.0, bathrooms_full=2.0), 2025)
    assert (s.home_kinds, s.radius_miles, s.windows["sold"].days) == (("detached",), 1.0, 180)
    assert s.criterion("living_area") == Criterion("living_area", 1350, 1850)
    assert s.criterion("bathrooms_full") == Criterion("bathrooms_full", low=2)
    assert s.leave_out_new_construction
    three = pr.proposed_search(subject(bathrooms_full=3.0, year_built=2024.0), 2025)
    assert three.criterion("bathrooms_full").low == 2
    assert not three.leave_out_new_construction
    land = pr.proposed_search(replace(subject(lot_size_square_feet=6000.0), home_kind=HomeKind.LAND), 2025)
    assert [c.field for c in land.criteria] == ["lot_size_square_feet"]
    nothing = pr.proposed_search(replace(subject(), facts={}), 2025)
    assert nothing.criteria == ()


# --- what is found


def test_windows_include_both_ends_and_each_kind_has_its_own():
    rows = [
        sale(0),
        sale(180),
        sale(181),
        {**sale(), "status": "Expired", "close_date": None, "off_market_date": TODAY - dt.timedelta(days=180)},
        {**sale(), "status": "Expired", "close_date": None, "off_market_date": TODAY - dt.timedelta(days=181)},
        {**sale(900), "status": "Active", "close_date": None, "purchase_contract_date": None},
        {**sale(900), "status": "Pending", "close_date": None},
        {**sale(900), "status": "Hold", "close_date": None},
        {**sale(20), "deed": True},
    ]
    result, _ = found(OPEN, rows)
    assert result.counts == {"sold": 2, "deed_sale": 0, "under_contract": 1, "for_sale": 1, "failed": 1}
    with_deeds = replace(OPEN, windows={**OPEN.windows, "deed_sale": Window(days=180)})
    assert found(with_deeds, rows)[0].counts["deed_sale"] == 1


def test_leases_other_kinds_the_home_itself_and_the_unpriced_are_never_found():
    rows = [
        sale(lease=True),
        sale(home_kind="condominium"),
        sale(home=7),
        sale(price=None),
        sale(not_arms_length=True),
        sale(),
    ]
    columns = market(rows)
    me = replace(subject(), home_id=7)
    result = mt.run(OPEN, columns, columns.as_of(DAY), me)
    assert result.rows.tolist() == [5]


def test_unknown_values_are_kept_and_counted_unless_they_must_be_known():
    rows = [sale(living_area=1700.0), sale(living_area=None), sale(living_area=3000.0)]
    band = OPEN.with_criterion(Criterion("living_area", 1600, 2000))
    result, _ = found(band, rows)
    assert (result.rows.tolist(), result.unknown) == ([0, 1], {"living_area": 1})
    strict = OPEN.with_criterion(Criterion("living_area", 1600, 2000, must_be_known=True))
    assert found(strict, rows)[0].rows.tolist() == [0]


def test_words_are_compared_without_case():
    rows = [sale(city="Alder"), sale(city="ALDER"), sale(city="Birch"), sale()]
    result, _ = found(OPEN.with_criterion(Criterion("city", words=("alder",))), rows)
    assert (result.rows.tolist(), result.unknown) == ([0, 1, 3], {"city": 1})


def test_at_an_earlier_date_everything_is_rewound():
    rows = [
        {**sale(30), "list_price": 390_000.0, "key": "A"},
        {
            **sale(0),
            "status": "Active",
            "close_date": None,
            "purchase_contract_date": None,
            "on_market_date": TODAY,
            "key": "B",
        },
        {
            **sale(10),
            "status": "Expired",
            "close_date": None,
            "off_market_date": TODAY - dt.timedelta(days=5),
            "key": "C",
        },
    ]
    columns = market(rows, changes=[("A", "2025-04-20", 410_000.0), ("A", "2025-05-10", 400_000.0)])
    kinds = ["sold", "deed_sale", "under_contract", "for_sale", "failed", "paused"]

    def at(days_ago: int) -> list[str | None]:
        kind = columns.as_of(DAY - days_ago).kind
        return [None if k < 0 else kinds[k] for k in kind]

    assert at(0) == ["sold", "for_sale", "failed"]
    assert at(31) == ["under_contract", None, "for_sale"]
    assert at(66) == ["for_sale", None, "for_sale"]
    assert at(400) == [None, None, None]
    price = [columns.as_of(DAY - d).list_price[0] for d in (0, 60, 80)]
    assert price == [390_000, 400_000, 410_000]


def test_distance_decides_with_the_edge_included():
    far = miles(*CENTRE, away(1.0), CENTRE[1])[0]
    result, _ = found(replace(OPEN, radius_miles=float(far)), [sale(latitude=away(1.0)), sale(latitude=away(1.01))])
    assert result.rows.tolist() == [0]


# --- what-if counts are the counts of making the change


@st.composite
def searches(draw):
    s = replace(
        OPEN,
        radius_miles=draw(st.sampled_from([None, 0.25, 0.5, 1.0, 2.0])),
        leave_out_new_construction=draw(st.booleans()),
    ).with_days("sold", draw(st.sampled_from([30, 90, 180, 365])))
    if draw(st.booleans()):
        low = draw(st.integers(800, 2500))
        s = s.with_criterion(
            Criterion("living_area", low, low + draw(st.integers(0, 900)), must_be_known=draw(st.booleans()))
        )
    if draw(st.booleans()):
        s = s.with_criterion(Criterion("bathrooms_full", low=draw(st.integers(1, 3))))
    if draw(st.booleans()):
        s = s.with_criterion(Criterion("year_built", low=draw(st.integers(1950, 2000))))
    return s


def crowd(seed: int, n: int = 120) -> list[dict]:
    rng = np.random.default_rng(seed)
    return [
        sale(
            int(rng.integers(0, 420)),
            float(rng.integers(200, 700)) * 1000,
            latitude=away(rng.normal(0, 0.7)),
            living_area=None if rng.random() < 0.1 else float(rng.integers(900, 3000)),
            bathrooms_full=float(rng.integers(1, 4)),
            year_built=float(rng.integers(1940, 2025)),
            new_construction=bool(rng.random() < 0.1),
        )
        for _ in range(n)
    ]


CROWD = market(crowd(3))


@settings(max_examples=150)
@given(searches(), st.booleans())
def test_what_if_counts_equal_those_of_making_the_change(search, from_a_home):
    who = subject() if from_a_home else None
    view = CROWD.as_of(DAY)
    told = steps.what_if(search, CROWD, view, who)
    for looser in (True, False):
        made = {s.part: s for s in steps.steps(search, looser)}
        for part, w in told.items():
            if step := w.looser if looser else w.tighter:
                assert step == (made[part].words, mt.run(made[part].search, CROWD, view, who).counts)
    for c in search.criteria:
        assert told[c.field].without == mt.run(search.without_criterion(c.field), CROWD, view, who).counts
    if search.radius_miles is not None and from_a_home:
        assert told["radius_miles"].without == mt.run(replace(search, radius_miles=None), CROWD, view, who).counts


def test_letting_go_words_in_a_text_finds_what_does_not_bear_them():
    """They are looked up in the records, as areas are; once what-if counts went on looking for them."""
    view = CROWD.as_of(DAY)
    bear = np.arange(len(CROWD)) % 3 == 0
    plain = Search(criteria=())
    told = replace(plain, criteria=(Criterion("public_remarks", words=("pier",)),))
    loosened = steps.what_if(told, CROWD, view, subject(), {"public_remarks": bear})["public_remarks"].looser
    assert loosened is not None and loosened[1] == mt.run(plain, CROWD, view, subject()).counts
    assert loosened[1] != mt.run(told, CROWD, view, subject(), {"public_remarks": bear}).counts


@settings(max_examples=60)
@given(searches())
def test_loosening_never_loses_and_tightening_never_adds(search):
    view = CROWD.as_of(DAY)
    here = set(mt.run(search, CROWD, view, subject()).rows)
    for step in steps.steps(search, looser=True):
        assert here <= set(mt.run(step.search, CROWD, view, subject()).rows)
    for step in steps.steps(search, looser=False):
        assert here >= set(mt.run(step.search, CROWD, view, subject()).rows)


@settings(max_examples=150)
@given(searches())
def test_what_each_step_adds_is_what_the_search_after_it_finds_more(search):
    view = CROWD.as_of(DAY)
    sales = MarketSales(CROWD, view, subject(), lambda search: {})

    def sold(s):
        rows = mt.run(s, CROWD, view, subject()).rows
        return rows[view.kind[rows] == SOLD]

    options = steps.steps(search, looser=True)
    assert sales.found(search).tolist() == sold(search).tolist()
    for step, added in zip(options, sales.added(search, options), strict=True):
        assert added.tolist() == np.setdiff1d(sold(step.search), sold(search)).tolist(), step.part


def test_left_to_itself_a_search_loosens_until_six_sales_and_tells_each_step():
    columns = market([sale(200 + 10 * i, latitude=away(1.1)) for i in range(7)])
    view, me = columns.as_of(DAY), subject()
    sales = MarketSales(columns, view, me, lambda search: {})

    def alike(rows):
        far = miles(me.latitude, me.longitude, columns.lats[rows], columns.lons[rows])
        return likeness(me, columns, rows, far, days_since(view.date[rows], DAY)).score

    wider, said = steps.loosened_until_enough(pr.proposed_search(me, 2025), sales, alike)
    assert sales.found(wider).size >= 6
    assert "within 1.25 mi" in said
    assert any(s.startswith("sold in the last") for s in said)
    nothing = market([sale(latitude=away(900))])
    nobody = MarketSales(nothing, nothing.as_of(DAY), me, lambda search: {})
    empty, told = steps.loosened_until_enough(OPEN, nobody, alike)
    assert empty.radius_miles == 25 and told


def test_days_limit_like_numbers_and_an_unknown_day_passes_unless_it_must_be_known():
    rows = [sale(10), sale(40), {**sale(10), "purchase_contract_date": None}]
    after = Criterion("purchase_contract_date", low=DAY - 50)
    assert found(OPEN.with_criterion(after), rows)[0].rows.tolist() == [0, 2]
    result, _ = found(OPEN.with_criterion(replace(after, must_be_known=True)), rows)
    assert result.rows.tolist() == [0]
    assert found(OPEN.with_criterion(after), rows)[0].unknown == {"purchase_contract_date": 1}


@pytest.mark.parametrize(
    ("kind", "only", "keys"),
    [
        ("failed", (), {"E", "W", "C"}),
        ("failed", ("Expired",), {"E"}),
        ("failed", ("Withdrawn", "Canceled"), {"W", "C"}),
        ("under_contract", ("Pending",), {"P"}),
        ("under_contract", ("Active Under Contract",), {"A"}),
    ],
)
def test_the_statuses_of_a_kind_are_told_apart(kind, only, keys):
    def listing(key: str, status: str) -> dict:
        off = TODAY - dt.timedelta(days=20) if key in "EWC" else None
        return {**sale(), "key": key, "status": status, "close_date": None, "close_price": None, "off_market_date": off}

    rows = [listing(*x) for x in (("E", "Expired"), ("W", "Withdrawn"), ("C", "Canceled"), ("P", "Pending"),
                                  ("A", "Active Under Contract"))]  # fmt: skip
    search = replace(OPEN, windows={kind: Window(only=only)})
    result, columns = found(search, rows)
    assert {str(columns.keys[r]) for r in result.rows} == keys
    # looking back to a day on which the home had not failed yet, which way it would go is not known: it passes
    before = columns.as_of(DAY - 25)
    earlier = mt.run(replace(search, windows={"under_contract": Window(only=("Pending",))}), columns, before, subject())
    assert {"E", "W", "C"} & {str(columns.keys[r]) for r in earlier.rows} == set()


# --- limits that make no sense name their part


@pytest.mark.parametrize(
    ("search", "field"),
    [
        (replace(OPEN, radius_miles=0.0), "radius_miles"),
        (replace(OPEN, radius_miles=-1.0), "radius_miles"),
        (replace(OPEN, home_kinds=("castle",)), "home_kinds"),
        (OPEN.with_days("sold", -3), "windows.sold"),
        (replace(OPEN, windows={"rented": Window()}), "windows"),
        (OPEN.with_criterion(Criterion("living_area", 2000, 1000)), "criteria.living_area"),
        (OPEN.with_criterion(Criterion("list_agent_full_name", words=("x",))), "criteria"),
        (OPEN.with_criterion(Criterion("who_lives_there", low=1)), "criteria"),
        (replace(OPEN, criteria=tuple(Criterion("living_area") for _ in range(61))), "criteria"),
        (replace(OPEN, windows={"failed": Window(only=("Pending",))}), "windows.failed.only"),
        (replace(OPEN, windows={"sold": Window(only=("Closed",))}), "windows.sold.only"),
        (OPEN.with_criterion(Criterion("close_date", 20_100, 20_000)), "criteria.close_date"),
    ],
)
def test_bad_limits_are_refused_where_they_stand(search, field):
    with pytest.raises(BadInput) as error:
        sr.check(search)
    assert error.value.field == field
    assert len(error.value.message) > 20


# --- the sentence


def test_the_sentence_reads_the_search_back():
    s = pr.proposed_search(subject(), 2025)
    assert sentence(s) == (
        "Detached homes within 1 mi, 1,550–2,050 sq ft, 2+ full baths, no new construction, no distressed sales; sold in the last 180 days, "
        "failed in the last 180 days, under contract and for sale now."
    )
    assert {p.part for p in parts(s)} >= {"radius_miles", "living_area", "windows.sold", "home_kinds"}


@pytest.mark.parametrize(
    ("criterion", "words"),
    [
        (Criterion("living_area", 1562, 2062), "1,562–2,062 sq ft"),
        (Criterion("bathrooms_full", low=2), "2+ full baths"),
        (Criterion("close_price", high=400000), "up to $400,000 close price"),
        (Criterion("year_built", low=1990), "built 1990 or later"),
        (Criterion("year_built", 1990, 2000), "1990–2000 year built"),
        (Criterion("stories", 1, 1), "1 storey"),
        (Criterion("bathrooms_full", 1, 1), "1 full bath"),
        (Criterion("bathrooms_total", 2, 3), "2–3 baths in all"),
        (Criterion("close_date", low=day_of(dt.date(2025, 1, 1))), "closed since Jan 1, 2025"),
        (Criterion("on_market_date", must_be_known=True), "on the market at any time, known"),
        (Criterion("city", words=("Alder", "Birch")), "city Alder or Birch"),
        (Criterion("garage_spaces", low=1, must_be_known=True), "1+ garage spaces, known"),
    ],
)
def test_each_criterion_has_its_words(criterion, words):
    assert criterion_words(criterion) == words


def test_the_sentence_names_areas_and_open_windows():
    s = replace(OPEN, radius_miles=None, areas=("Alder Flats", "Millrace"), home_kinds=())
    s = s.with_days("sold", None)
    assert sentence(s).startswith("Homes of any kind in Alder Flats and Millrace; sold at any time, ")
