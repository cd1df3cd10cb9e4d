"""The house's rules at work: each changes what it says and nothing else; whose they are, since when, and what was delivered by them."""

from __future__ import annotations

import datetime as dt
import json
from dataclasses import replace
from functools import cache
from typing import Any

import numpy as np
import pytest

from rain_porch.app.handover.delivering import DeliverAsk, deliver
from rain_porch.app.office import house_rules as house
from rain_porch.app.office.accounts import add_account
from rain_porch.app.pricing.ask import asking
from rain_porch.app.pricing.candidates import loosened, most_alike, sales_of
from rain_porch.app.pricing.opened import own_lines, priced
from rain_porch.app.pricing.pricing import price
from rain_porch.app.pricing.rates import no_evidence, rates_for_rows
from rain_porch.app.pricing.standpoint import Standpoint
from rain_porch.app.workup.rule_effects import effects
from rain_porch.app.workup.workups import open_workup, undo_change
from rain_porch.cli import main
from rain_porch.core.errors import BadInput, NotAllowed
from rain_porch.core.facts.homes import Candidate, Subject
from rain_porch.core.facts.house_rules import RULES, USUAL, HouseRules, prior_of
from rain_porch.core.facts.improvements import KINDS
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.features import features_of
from rain_porch.core.market.market_rules import market_rules
from rain_porch.core.market.measures import MEASURES, Market
from rain_porch.core.price.checks import Asked, checks
from rain_porch.core.price.evidence import Rate, house_rate
from rain_porch.core.price.grid import Comp, adjust
from rain_porch.core.search.likeness import likeness
from rain_porch.core.search.proposals import helps_most
from rain_porch.core.search.search import Criterion, Search
from rain_porch.documents.stored import ImprovementDoc, WorkupDoc
from tests.app.workup.test_changes import STATE, begun, change

# a line that passes every review limit: a comp of 300,000 that is 31 % less
LINE = {"garage_spaces": Rate("garage_spaces", 93_000.0, 0.0, 0, "typed", False)}


@pytest.fixture(scope="module")
def aspects(demo_records):
    """What each rule says of a home, by the rule's name, for given rules: a figure or words that only this rule may move."""
    columns = demo_records.columns
    day = columns.last_day()
    sold = np.flatnonzero(
        (columns.home_kind == 0) & (columns.close > day - 365) & ~columns.deed & np.isfinite(columns.lats)
    )
    rows = sold[:60]
    facts = {
        n: float(np.nanmedian(columns.numbers[n][sold]))
        for n in columns.numbers
        if np.isfinite(columns.numbers[n][sold]).any()
    }
    facts |= {
        "subdivision_name": columns.fact(int(rows[0]), "subdivision_name"),
        "architectural_style": "Ranch",
        "garage_spaces": 1.0,
        "waterfront_yn": 1.0,
        "condition_grade": 4.0,
        "property_condition": "Well kept",
    }
    place = float(columns.lats[rows[0]]), float(columns.lons[rows[0]])
    built, land = (
        Subject(facts, *place, HomeKind.DETACHED),
        Subject({"lot_size_square_feet": 9000.0, "waterfront_yn": 1.0}, *place, HomeKind.LAND),
    )
    wide = Search(home_kinds=("detached",), radius_miles=0.5)  # finds some 26 sales
    narrow = replace(wide, radius_miles=0.25, criteria=(Criterion("living_area", 1720, 1760),)).with_days("sold", 30)
    comp = Comp("A", 300_000.0, 100.0, {"garage_spaces": 0.0}, 0.0)
    far_away = Candidate(
        0, "A", "sold", 1.4, None, 300_000.0, None, 200.0, 40, 80.0, 1.0, {"living_area": 1500.0}, (), ()
    )
    improved = [ImprovementDoc(kind=kind, year=2026, cost=10_000.0) for kind in KINDS]
    comps = most_alike(Standpoint.at(demo_records, built, day), wide)

    @cache
    def by_one_rule(name: str, value: float) -> tuple[Any, ...]:
        """The price told by one rule, the others as usual."""
        made = price(Standpoint.at(demo_records, built, day, HouseRules.of({name: value})), comps)
        return made.shown, made.range

    @cache
    def chance(rules: HouseRules) -> Any:
        """Of a contract at one list price: it hangs on no rule of how a price is told."""
        point = Standpoint.at(demo_records, built, day, rules)
        here = asking(point, price(point, comps), wide, np.zeros(0, np.int64), 400_000.0).here
        assert here is not None and here.chances
        return here.chances

    def seen(rules: HouseRules) -> dict[str, Any]:
        def alone(name: str) -> Standpoint:
            """Which step helps most hangs on likeness too: here that is as usual."""
            return Standpoint.at(demo_records, built, day, HouseRules.of({name: rules[name]}))

        s, bare = Standpoint.at(demo_records, built, day, rules), Standpoint.at(demo_records, land, day, rules)
        search, lot = s.proposed(), bare.proposed().criterion("lot_size_square_feet")
        out: dict[str, Any] = {
            "search.sold_days": [search.windows[k].days for k in ("sold", "deed_sale")], "search.failed_days": search.windows["failed"].days,
            "search.radius_miles": search.radius_miles, "search.area_band_pct": search.criterion("living_area"), "search.land_lot_pct": lot,
            "search.fewest": loosened(alone("search.fewest"), narrow),
            "search.most": helps_most(wide, sales_of(s), alone("search.most").likeness_roughly, alone("search.most").rules),
            "search.taken": len(most_alike(s, wide)),
        }  # fmt: skip
        like = likeness(built, columns, rows, np.full(60, 0.5), np.full(60, 90.0), rules)
        for part, weight in like.weights.items():
            name = {"days_since": "days"}.get(part, part)
            out |= {f"likeness.{name}.weight": weight, f"likeness.{name}.tolerance": like.parts[part].tolist()}
        adjusted = adjust(built, comp, LINE, 0.0, (), frozenset(), rules)
        for words in ("line", "net", "gross"):
            out[f"review.{words}_pct"] = [
                w
                for w in adjusted.over_limits
                if ("for one line" in w) == (words == "line") and (words == "line" or words in w)
            ]
        asked = Asked(
            built,
            [far_away],
            [replace(adjusted, over_limits=())],
            [300.0],
            320_000.0,
            None,
            0.0,
            True,
            {},
            {},
            (),
            rules,
        )
        told = {c.name: (c.ok, c.says) for c in checks(asked)}
        out |= {"review.far_miles": told["distance"], "review.old_days": told["age"]}
        for group, home, point in (("rates", built, s), ("land", land, bare)):
            nothing = no_evidence([far_away])
            for name, feature in features_of(home.home_kind).items():
                out[f"{group}.{name}"] = house_rate(feature, 300_000.0, 1500.0, prior_of(group, name, rules)).dollars
            for name, rate in rates_for_rows(replace(point, subject=home), nothing, rows).items():
                out[f"{group}.{name}"] = rate.dollars
        out["chance"] = chance(HouseRules.of({n: v for n, v in rules.changed if n.startswith("price.")}))
        out |= {name: by_one_rule(name, rules[name]) for name in ("price.rounding", "price.range_pct")}
        counted = Market(columns.by(market_rules(rules)), np.arange(len(columns)), day)
        for name, measure in (("supply_months", "months_of_supply"), ("gap_days", "mean_cumulative_days")):
            out[f"market.{name}"] = MEASURES[measure][1](counted, day - 364, day)
        (returned,) = own_lines(with_improvements(improved), rules)
        parts = dict(zip(KINDS, returned.formula.split("; "), strict=True))
        return out | {f"improvements.{kind}": parts[kind] for kind in KINDS}

    return seen


def with_improvements(improved: list[ImprovementDoc]) -> WorkupDoc:
    return STATE.model_copy(update={"improvements": improved, "effective_date": dt.date(2026, 10, 31)})


@pytest.mark.parametrize("name", list(RULES))
def test_each_rule_changes_what_it_says_and_nothing_else(aspects, name):
    rule = RULES[name]
    higher = {
        "review.line_pct": 14,
        "review.net_pct": 20,
        "review.gross_pct": 28,
        "review.far_miles": 2,
        "review.old_days": 320,
        "price.rounding": 5000,
        "price.range_pct": 95,
        "market.supply_months": 3,
        "market.gap_days": 30,
    }
    value = higher.get(name, rule.usual * 2 if rule.usual else 1.0)
    value = min(value, rule.high)
    value = round(value) if rule.whole else value
    before, after = aspects(USUAL), aspects(HouseRules.of({name: value}))
    assert name in before, f"nothing here hangs on {name}"
    moved = {aspect for aspect in before if repr(before[aspect]) != repr(after[aspect])}
    assert moved == {name}


def test_a_choice_counts_from_now_on_and_can_be_taken_back(agent):
    house.choose(agent, "search.radius_miles", 0.5, True)
    number = begun(agent)
    assert open_workup(agent, number).state.search.radius_miles == 0.5
    house.choose(agent, "search.radius_miles", None, True)
    assert house.rules_of(agent) == USUAL and open_workup(agent, begun(agent)).state.search.radius_miles == 1.0
    told = [(c["value"], c["before"], c["own"]) for c in house.rule_changes(agent)]
    assert told == [(None, 0.5, 0), (0.5, None, 0)] and all(c["who"] for c in house.rule_changes(agent))


def test_an_agent_s_own_value_stands_over_the_office_s_and_is_nobody_else_s(agent):
    other = add_account(agent.porch, "Another", "agent", False, "seven grey herons wading")
    theirs = replace(agent, owner=other, is_manager=False)
    house.choose(agent, "search.taken", 10, True)
    house.choose(theirs, "search.taken", 8, False)
    assert (house.rules_of(agent)["search.taken"], house.rules_of(theirs)["search.taken"]) == (10, 8)
    assert [c["value"] for c in house.rule_changes(agent)] == [10.0], "what others chose for themselves is theirs"
    house.choose(theirs, "search.taken", None, False)
    assert house.rules_of(theirs)["search.taken"] == 10
    with pytest.raises(NotAllowed, match="Only a manager"):
        house.choose(theirs, "search.taken", 9, True)
    with pytest.raises(NotAllowed, match="same for the whole office"):
        house.choose(theirs, "improvements.kitchen", 50, False)
    with pytest.raises(BadInput):
        house.choose(theirs, "search.taken", 900, False)
    assert house.rules_of(theirs)["search.taken"] == 10


def test_what_another_rule_would_change_is_told_and_nothing_is_saved(agent):
    number = begun(agent)
    keys = [
        c.listing_id
        for c in most_alike(open_workup(agent, number).standpoint, open_workup(agent, number).state.search.search())
    ]
    change(agent, number, change="decide", listing_ids=keys, choice="kept")
    would = HouseRules.of({"likeness.living_area.weight": 15, "review.line_pct": 1, "search.taken": 5})
    told = {e.what: (e.before, e.after) for e in effects(agent, number, USUAL, would)}
    assert {"Indicated value", "Likeness of the kept comps", "Comps over a review limit", "Kept at one press"} <= {
        *told
    }
    assert told["Kept at one press"] == (f"{len(keys)} sales", "5 sales")
    assert effects(agent, number, USUAL, HouseRules.of({"search.land_lot_pct": 40})) == []
    assert house.rules_of(agent) == USUAL and open_workup(agent, number).revision == 2


def test_what_was_delivered_keeps_the_rules_it_was_delivered_with(agent):
    number = begun(agent)
    keys = [
        c.listing_id
        for c in most_alike(open_workup(agent, number).standpoint, open_workup(agent, number).state.search.search())
    ]
    change(agent, number, change="decide", listing_ids=keys, choice="kept")
    house.choose(agent, "likeness.living_area.weight", 4, True)
    by = priced(open_workup(agent, number)).value
    deliver(agent, number, DeliverAsk())
    house.choose(agent, "likeness.living_area.weight", 15, True)
    kept = open_workup(agent, number)
    assert kept.state.rules == {"likeness.living_area.weight": 4.0} and priced(kept).value == by
    change(agent, number, change="keep_rules", rules=None)
    assert priced(open_workup(agent, number)).value != by
    undo_change(agent, number, kept.revision + 1)
    assert priced(open_workup(agent, number)).value == by
    with pytest.raises(BadInput, match="no house rule"):
        change(agent, number, change="keep_rules", rules={"nonsense": 1.0})


def test_the_command_line_goes_by_them_too(town, agent, capsys):
    def found() -> dict[str, Any]:
        assert main(["find", "--data", str(town), "--parcel", "05-0857", "--json"]) == 0
        return json.loads(capsys.readouterr().out)

    def counted() -> list[dict[str, Any]]:
        assert main(["market", "--data", str(town), "--measure", "months_of_supply", "--by", "year", "--json"]) == 0
        return json.loads(capsys.readouterr().out)["periods"]

    before, was = found(), counted()
    house.choose(agent, "search.sold_days", 365, True)
    assert found()["search"]["windows"]["sold"]["days"] == 365 != before["search"]["windows"]["sold"]["days"]
    house.choose(agent, "market.supply_months", 3, True)
    assert counted() != was
    house.choose(agent, "market.supply_months", None, True)
    assert counted() == was
