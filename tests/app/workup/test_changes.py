from __future__ import annotations

import datetime as dt
import re

import pytest
from pydantic import TypeAdapter

from rain_porch.app.handover.report_input import report_input
from rain_porch.app.home.homes import HomeRef
from rain_porch.app.home.story import story_of_home
from rain_porch.app.pricing.opened import priced, suggested
from rain_porch.app.workup.changes import Change, apply
from rain_porch.app.workup.workups import (
    begin_workup,
    change_workup,
    history_of,
    list_workups,
    open_workup,
    undo_change,
)
from rain_porch.core.errors import BadInput, NotFound, OutOfDate
from rain_porch.core.facts.money import half_up
from rain_porch.documents.search import SearchDoc
from rain_porch.documents.stored import WorkupDoc

CHANGE = TypeAdapter(Change)
STATE = WorkupDoc(
    home={"kind": "parcel", "key": "P1"},
    address="14 Ferry Lane",
    effective_date=dt.date(2025, 6, 30),
    search=SearchDoc(),
)


def done(state: WorkupDoc = STATE, **change):
    return apply(state, CHANGE.validate_python(change))


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"change": "correct_fact", "field": "garage_spaces", "value": 2}, "garage spaces set to 2"),
        ({"change": "correct_fact", "field": "garage_spaces", "value": None}, "garage spaces set to unknown"),
        ({"change": "decide", "listing_ids": ["A", "B"], "choice": "kept"}, "2 homes kept"),
        ({"change": "decide", "listing_ids": ["A"], "choice": "set_aside", "reason": "other size"}, "1 home set aside"),
        ({"change": "set_rate", "field": "living_area", "value": 85}, "living area rate set to 85"),
        ({"change": "set_rate", "field": "market_change", "value": 0.35}, "market change rate set to 0.35"),
        (
            {"change": "set_cell", "listing_id": "A", "field": "living_area", "amount": -5000},
            "adjustment set to -5,000",
        ),
        ({"change": "set_list_price", "list_price": 425000}, "list price set to 425,000"),
        ({"change": "set_list_price", "list_price": None}, "list price left open"),
        ({"change": "set_date", "effective_date": "2025-05-01"}, "date set to May 1, 2025"),
        ({"change": "set_client", "client": "  Orla Grayle "}, "client changed"),
    ],
)
def test_each_change_says_what_it_did_and_leaves_the_old_state_alone(change, words):
    before = STATE.model_dump_json()
    after, what = done(**change)
    assert what == words and STATE.model_dump_json() == before
    assert WorkupDoc.model_validate_json(after.model_dump_json()) == after


def test_changes_have_their_way_back():
    state, _ = done(change="set_rate", field="living_area", value=85)
    assert done(state, change="set_rate", field="living_area", value=None)[0].rates == {}
    state, _ = done(change="set_cell", listing_id="A", field="living_area", amount=1)
    assert done(state, change="set_cell", listing_id="A", field="living_area", amount=None)[0].cells == {}
    state, _ = done(change="correct_fact", field="garage_spaces", value=2)
    assert done(state, change="correct_fact", field="garage_spaces", back=True)[0].corrections == {}
    state, _ = done(change="decide", listing_ids=["A"], choice="kept")
    assert done(state, change="decide", listing_ids=["A"], choice="undecided")[0].decisions == {}


def test_keeping_again_holds_the_place_in_the_order():
    state, _ = done(change="decide", listing_ids=["A", "B"], choice="kept")
    again, _ = done(state, change="decide", listing_ids=["A"], choice="kept")
    assert again.kept() == ["A", "B"]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"change": "correct_fact", "field": "living_area", "value": -5}, "living_area"),
        ({"change": "correct_fact", "field": "living_area", "value": "large"}, "living_area"),
        ({"change": "correct_fact", "field": "year_built", "value": 20231}, "year_built"),
        ({"change": "correct_fact", "field": "architectural_style", "value": ""}, "architectural_style"),
        ({"change": "correct_fact", "field": "list_agent_full_name", "value": "x"}, "list_agent_full_name"),
        ({"change": "set_rate", "field": "happiness", "value": 3}, "field"),
        ({"change": "set_rate", "field": "market_change", "value": 40}, "value"),
        ({"change": "set_rate", "field": "living_area", "value": 1e9}, "value"),
        ({"change": "set_cell", "listing_id": "A", "field": "view", "amount": 1}, "field"),
        ({"change": "set_cell", "listing_id": "A", "field": "living_area", "amount": 1e12}, "amount"),
        ({"change": "set_list_price", "list_price": 5}, "list_price"),
        ({"change": "set_list_price", "list_price": -400000}, "list_price"),
        ({"change": "set_date", "effective_date": "1066-10-14"}, "effective_date"),
        ({"change": "decide", "listing_ids": [f"L{i}" for i in range(61)], "choice": "kept"}, "listing_ids"),
        ({"change": "set_search", "search": {"radius_miles": 0}}, "radius_miles"),
    ],
)
def test_what_makes_no_sense_is_refused_at_its_field(change, field):
    with pytest.raises(BadInput) as error:
        done(**change)
    assert error.value.field == field


# --- the workup over the records


def begun(agent, text: str = "630 Hedgerow Terrace") -> int:
    row = agent.records.db.execute(
        "SELECT parcel_number FROM parcels WHERE unparsed_address = :a", {"a": text}
    ).fetchone()
    return begin_workup(agent, HomeRef("parcel", row[0]))


def change(agent, n: int, **given):
    return change_workup(agent, n, open_workup(agent, n).revision, CHANGE.validate_python(given))


def test_a_workup_begins_with_the_proposed_search_as_of_the_newest_day(agent):
    opened = open_workup(agent, begun(agent))
    assert opened.state.effective_date == dt.date(2026, 10, 31)
    assert opened.state.search.home_kinds == ["detached"] and opened.state.search.radius_miles == 1
    assert opened.home.says["tax_roll"]["living_area"] == opened.subject.number("living_area")


def test_a_correction_reaches_the_subject_and_keeps_the_original_beside_it(agent):
    n = begun(agent)
    change(agent, n, change="correct_fact", field="garage_spaces", value=3)
    opened = open_workup(agent, n)
    assert opened.subject.number("garage_spaces") == 3
    assert opened.subject.originals["garage_spaces"] == opened.home.says["tax_roll"]["garage_spaces"]


def test_kept_comps_are_priced_in_their_order_also_when_the_search_no_longer_finds_them(agent):
    n = begun(agent)
    keys = suggested(open_workup(agent, n))[:4][::-1]
    change(agent, n, change="decide", listing_ids=keys, choice="kept")
    narrow = open_workup(agent, n).state.search.model_copy(update={"radius_miles": 0.01})
    change(agent, n, change="set_search", search=narrow.model_dump())
    assert [c.listing_id for c in priced(open_workup(agent, n)).comps] == keys


def test_changes_are_refused_on_an_old_revision_and_undone_in_order(agent):
    n = begun(agent)
    change(agent, n, change="set_list_price", list_price=310000)
    with pytest.raises(OutOfDate):
        change_workup(agent, n, 1, CHANGE.validate_python({"change": "set_list_price", "list_price": 1000}))
    change(agent, n, change="set_client", client="Orla Grayle")
    assert undo_change(agent, n, 3) == (4, "client changed")
    assert open_workup(agent, n).state.list_price == 310000
    assert undo_change(agent, n, 4) == (5, "list price set to 310,000")
    assert open_workup(agent, n).state.list_price is None


def test_a_search_in_an_unknown_area_is_refused_and_nothing_is_saved(agent):
    n = begun(agent)
    search = {**open_workup(agent, n).state.search.model_dump(), "areas": ["Atlantis"]}
    with pytest.raises(NotFound):
        change(agent, n, change="set_search", search=search)
    assert open_workup(agent, n).revision == 1


def test_the_list_tells_where_each_workup_stands(agent):
    n = begun(agent)
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n))[:3], choice="kept")
    change(agent, n, change="set_list_price", list_price=310000)
    row = list_workups(agent)[0]
    assert (row["title"], row["kept"], row["list_price"]) == ("630 Hedgerow Terrace", 3, 310000)
    assert [h["what"] for h in history_of(agent, n)] == ["list price set to 310,000", "3 homes kept", "workup begun"]


def test_a_lease_is_called_one_wherever_the_homes_story_is_told(agent):
    """730 Stoat Terrace was let in 2016 for 1,200 a month and never sold; what only that lease says is named."""
    n = begun(agent, "730 Stoat Terrace")
    opened = open_workup(agent, n)
    story = [
        (p["what"], p["price"], p["per"])
        for p in story_of_home(opened.standpoint.records, opened.home, opened.state.effective_date)
        if p["what"] != "assessed"
    ]
    assert ("leased", 1200.0, "month") in story and all(per == "month" for _, _, per in story)
    change(agent, n, change="decide", listing_ids=suggested(opened), choice="kept")
    change(agent, n, change="set_list_price", list_price=400_000)
    made = report_input(agent, n)
    assert not any("its own last sale" in s for s in made.asking["statements"])
    assert any("known only from a listing for lease" in w and "Condition" in w for w in made.price["warnings"])
    change(agent, n, change="correct_fact", field="property_condition", value="Worn", back=False)
    assert not any("Condition" in w and "lease" in w for w in report_input(agent, n).price["warnings"])


def test_the_bare_lot_before_the_house_is_no_sale_of_it(agent):
    """1326 Equinox Terrace: its lot was sold in 2025, the house was built in 2026."""
    n = begun(agent, "1326 Equinox Terrace")
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    change(agent, n, change="set_list_price", list_price=572_000)
    made = report_input(agent, n)
    assert not any("its own last sale" in s for s in made.asking["statements"])
    assert "brought_forward" not in {m["name"] for m in made.price["methods"]}


def test_an_improvement_raises_the_value_by_what_its_line_says_and_moves_no_weight(agent):
    n = begun(agent)
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    before = priced(open_workup(agent, n))
    kitchen = {"kind": "kitchen", "year": 2025, "cost": 25_000, "quality": "luxury", "note": ""}
    change(agent, n, change="set_improvements", improvements=[kitchen])
    after = priced(open_workup(agent, n))
    (line,) = after.apart
    assert after.value - before.value == pytest.approx(line.amount, abs=1e-6) and line.amount == pytest.approx(11_375)
    assert after.weights == before.weights
    assert [a.gross_pct for a in after.adjusted] == [a.gross_pct for a in before.adjusted]
    told = report_input(agent, n).price
    assert [(a["field"], a["amount"]) for a in told["apart"]] == [("improvements", 11_375.0)]
    for c in told["comps"]:
        assert c["adjusted_price"] == pytest.approx(
            c["close_price"] + sum(x["amount"] for x in c["adjustments"]), abs=0.05
        )
    ways = {m["name"]: m["formula"] for m in told["methods"]}
    assert "+ 11,375 improvements" in ways["adjusted_comps"]
    assert all(
        "improvements (+11,375) not in it" in ways[w] for w in ways if w not in ("adjusted_comps", "assessed_value")
    )


@pytest.mark.parametrize("address", ["630 Hedgerow Terrace", "110 Parterre Drive", "410 Tinker Street"])
def test_formulas_multiply_out_as_they_are_printed(agent, address):
    """With a pocket calculator, from what stands on the paper, to the dollar."""
    n = begun(agent, address)
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    change(agent, n, change="set_improvements",
           improvements=[{"kind": "kitchen", "year": 2025, "cost": 25_000, "quality": "good", "note": ""}])  # fmt: skip
    made = report_input(agent, n)
    ways = {m["name"]: m for m in made.price["methods"]}

    def number(text: str) -> float:
        return float(text.replace(",", ""))

    terms = re.findall(r"([\d.]+) % × ([\d,]+)", ways["adjusted_comps"]["formula"])
    added = number(re.search(r"\+ ([\d,]+) improvements", ways["adjusted_comps"]["formula"])[1])
    assert sum(round(float(w) * 10) for w, _ in terms) == 1000
    total = sum(float(w) / 100 * number(price) for w, price in terms) + added
    assert total == pytest.approx(number(re.search(r"= ([\d,]+)$", ways["adjusted_comps"]["formula"])[1]), abs=1)
    for name in ("mean_price_per_sqft", "median_price_per_sqft", "low_price_per_sqft", "high_price_per_sqft"):
        figure, area, product = re.match(r"([\d.,]+) × ([\d,]+) sq ft = ([\d,]+)", ways[name]["formula"]).groups()
        assert half_up(number(figure) * number(area)) == number(product), name
    if "brought_forward" in ways:
        paid, factor, product = re.match(
            r"([\d,]+) on [^×]+ × ([\d.]+) market change since = ([\d,]+)", ways["brought_forward"]["formula"]
        ).groups()
        assert half_up(number(paid) * number(factor)) == number(product)
    lines = [x for a in priced(open_workup(agent, n)).adjusted for x in a.lines if x.rate and x.amount and not x.apart]
    for x in lines:
        if (
            found := re.match(r"\(([\d.,−-]+) − ([\d.,−-]+)\)[^×]* × ([\d.,−]+) = ([+−])([\d,]+)$", x.formula)
        ) is not None:
            a, b, r, sign, amount = found.groups()
            a, b, r = (number(v.replace("−", "-")) for v in (a, b, r))
            assert half_up((a - b) * r) == number(amount) * (1 if sign == "+" else -1), x.formula
    assert len(lines) > 20
