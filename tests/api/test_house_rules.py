"""House rules over the service: whose they are, who may change them, what is told of them, and that nothing else gives way."""

from __future__ import annotations

import pytest

from rain_porch.app.office import accounts
from rain_porch.app.workup.workups import open_workup
from rain_porch.core.facts.house_rules import RULES
from rain_porch.core.market.market_rules import USUAL_MARKET, MarketRules


def values(client) -> dict[str, float]:
    return {r["name"]: r["value"] for r in client.get("/api/house-rules").json()["rules"]}


def put(client, name: str, value: float | None, for_office: bool = False):
    return client.put(f"/api/house-rules/{name}", json={"value": value, "for_office": for_office})


def test_every_rule_is_told_with_what_one_needs_to_choose(begun):
    _, owner, _ = begun
    told = owner.get("/api/house-rules").json()
    assert {r["name"] for r in told["rules"]} == {*RULES} and told["changes"] == []
    groups = [g["name"] for g in told["groups"]]
    for r in told["rules"]:
        assert (
            r["group"] in groups
            and r["low"] <= r["value"] == r["usual"] == r["office"] <= r["high"]
            and r["own"] is None
        )
        assert r["may"] == RULES[r["name"]].own and not r["may_office"]


def test_a_manager_chooses_for_all_an_agent_for_themselves_and_nobody_for_another(begun):
    office, owner, _ = begun
    manager, colleague = office.client("Manager"), office.client("Colleague")
    assert all(r["may_office"] for r in manager.get("/api/house-rules").json()["rules"])
    assert put(manager, "search.taken", 10, True).status_code == 204
    assert values(owner)["search.taken"] == values(colleague)["search.taken"] == 10
    assert put(owner, "search.taken", 8).status_code == 204
    assert (values(owner)["search.taken"], values(colleague)["search.taken"], values(manager)["search.taken"]) == (
        8,
        10,
        10,
    )
    for client, name, for_office, words in (
        (owner, "search.taken", True, "Only a manager"),
        (owner, "improvements.kitchen", False, "same for the whole office"),
        (owner, "improvements.kitchen", True, "Only a manager"),
    ):
        refused = put(client, name, 9, for_office)
        assert refused.status_code == 403 and words in refused.json()["message"]
    assert put(owner, "search.taken", None).status_code == 204 and values(owner)["search.taken"] == 10
    seen = [(c["who"], c["own"], c["before"], c["value"]) for c in owner.get("/api/house-rules").json()["changes"]]
    assert seen == [("Owner", True, 8.0, None), ("Owner", True, None, 8.0), ("Manager", False, None, 10.0)]
    assert [c["who"] for c in colleague.get("/api/house-rules").json()["changes"]] == ["Manager"]
    assert office.client().get("/api/house-rules").status_code == 401


@pytest.mark.parametrize(
    ("name", "body", "field"),
    [
        ("search.taken", {"value": 2.5}, "value"), ("search.taken", {"value": 4000}, "value"), ("search.taken", {"value": "many"}, "value"),
        ("search.taken", {}, "value"), ("search.fewest", {"value": 30}, "value"), ("no.rule", {"value": 1}, "name"), ("no.rule", {"value": None}, "name"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_refused_by_its_field_and_changes_nothing(begun, name, body, field):
    office, _, _ = begun
    manager = office.client("Manager")
    before = manager.get("/api/house-rules").json()
    answer = manager.put(f"/api/house-rules/{name}", json=body | {"for_office": True})
    assert answer.status_code == 422 and field in (answer.json().get("field") or "") and answer.json()["message"]
    assert manager.get("/api/house-rules").json() == before


def test_effects_are_told_of_one_s_own_workups_and_saved_nowhere(begun):
    office, owner, number = begun
    ask = {"name": "search.radius_miles", "value": 0.3, "workup_id": number}
    told = owner.post("/api/house-rules/effects", json=ask).json()
    assert told["title"] == "630 Hedgerow Terrace" and not told["keeps"]
    assert {"A search as it is proposed finds", "The search that would be proposed"} <= {
        e["what"] for e in told["effects"]
    }
    assert all(e["before"] != e["after"] for e in told["effects"])
    assert values(owner)["search.radius_miles"] == 1 and owner.get("/api/house-rules").json()["changes"] == []
    assert owner.post("/api/house-rules/effects", json=ask | {"value": 1}).json()["effects"] == []
    assert office.client("Colleague").post("/api/house-rules/effects", json=ask).status_code == 404
    assert owner.post("/api/house-rules/effects", json=ask | {"name": "no.rule"}).status_code == 422


def test_taking_a_choice_back_is_tried_like_any_other(begun):
    office, owner, number = begun
    manager = office.client("Manager")
    ask = {"name": "search.radius_miles", "value": None, "workup_id": number}
    put(manager, "search.radius_miles", 0.3, True)
    told = owner.post("/api/house-rules/effects", json=ask).json()["effects"]
    assert any("within 0.3 mi" in e["before"] and "within 1 mi" in e["after"] for e in told), "to what is usual"
    put(owner, "search.radius_miles", 2)
    told = owner.post("/api/house-rules/effects", json=ask).json()["effects"]
    assert any("within 2 mi" in e["before"] and "within 0.3 mi" in e["after"] for e in told), "to what the office has"


def test_a_look_goes_by_the_same_rules_as_a_workup(begun):
    """Search, likeness and what is taken: the same home is told the same, with a workup and without."""
    office, owner, number = begun
    home = owner.get(f"/api/workups/{number}").json()["state"]["home"]
    put(owner, "search.radius_miles", 0.4)
    put(owner, "likeness.living_area.weight", 12)
    look = owner.post("/api/around", json={"home": {"kind": home["kind"], "key": home["key"]}}).json()
    assert look["search"]["radius_miles"] == 0.4
    alike = {c["listing_id"]: c["likeness"] for c in look["candidates"]}
    comps = {
        c["listing_id"]: c["likeness"] for c in owner.get(f"/api/workups/{number}/candidates").json()["candidates"]
    }
    both = {*alike} & {*comps}
    assert len(both) > 5 and all(alike[k] == comps[k] for k in both)
    other = (
        office.client("Colleague").post("/api/around", json={"home": {"kind": home["kind"], "key": home["key"]}}).json()
    )
    assert other["search"]["radius_miles"] == 1 and any(
        alike.get(c["listing_id"], c["likeness"]) != c["likeness"] for c in other["candidates"]
    )


def test_what_cannot_be_delivered_leaves_the_workup_as_it_was(begun):
    _, owner, number = begun
    refused = owner.post(f"/api/workups/{number}/deliveries", json={"email": "no address"})
    assert refused.status_code == 422
    held = owner.get(f"/api/workups/{number}").json()
    assert held["revision"] == 1 and held["state"]["rules"] is None


def test_a_delivered_workup_tells_that_nothing_of_it_would_change(begun):
    _, owner, number = begun
    found = owner.get(f"/api/workups/{number}/candidates").json()["suggested"]
    keep = {"change": "decide", "listing_ids": found, "choice": "kept", "reason": ""}
    assert owner.post(f"/api/workups/{number}/changes", json={"revision": 1, "change": keep}).status_code == 200
    assert owner.post(f"/api/workups/{number}/deliveries", json={}).status_code == 201
    told = owner.post(
        "/api/house-rules/effects", json={"name": "search.radius_miles", "value": 0.3, "workup_id": number}
    ).json()
    assert told["keeps"] and told["effects"] == []
    held = owner.get(f"/api/workups/{number}").json()
    assert held["state"]["rules"] == {} and held["revision"] == 3
    nonsense = {"change": "keep_rules", "rules": {"search.taken": 4000.0}}
    assert owner.post(f"/api/workups/{number}/changes", json={"revision": 3, "change": nonsense}).status_code == 422
    follow = {"change": "keep_rules", "rules": None}
    assert owner.post(f"/api/workups/{number}/changes", json={"revision": 3, "change": follow}).status_code == 200
    assert owner.get(f"/api/workups/{number}").json()["state"]["rules"] is None


def test_a_colleague_in_a_shared_workup_goes_by_its_owner_s_rules(begun):
    office, owner, number = begun
    owner.put(f"/api/workups/{number}/shares/{office.ids['Colleague']}", json={"may_edit": True})
    colleague = office.client("Colleague")
    put(owner, "search.taken", 5)
    put(colleague, "search.taken", 9)
    for client in (owner, colleague):
        assert len(client.get(f"/api/workups/{number}/candidates").json()["suggested"]) == 5


@pytest.mark.parametrize("at", ["", "tomorrow", "2026-13-01T10:00", "1900-01-01T10:00", "9999-01-01T10:00"])
def test_an_appointment_on_no_day_is_refused(begun, at):
    _, owner, number = begun
    answer = owner.get(f"/api/workups/{number}/appointment.ics", params={"at": at})
    assert answer.status_code == 422 and answer.json()["message"]
    good = owner.get(f"/api/workups/{number}/appointment.ics", params={"at": "2026-11-04T18:30", "minutes": 45})
    assert good.status_code == 200 and good.headers["content-type"].startswith("text/calendar")
    assert "DTSTART:20261104T183000" in good.text and "DURATION:PT45M" in good.text


def test_meanings_and_outcomes_are_for_who_has_signed_in(begun):
    office, owner, _ = begun
    assert owner.get("/api/meanings").json()["likeness"]["word"] == "Alike"
    assert owner.get("/api/outcomes").json()["rows"] == []
    for path in ("/api/meanings", "/api/outcomes"):
        assert office.client().get(path).status_code == 401


def test_the_market_is_counted_by_the_office_s_rules_everywhere_and_a_delivered_workup_by_its_own(begun):
    office, owner, number = begun
    manager = office.client("Manager")

    def told() -> list[str]:
        seen = owner.post("/api/market/view", json={"measures": ["months_of_supply"]}).json()
        words = owner.get("/api/meanings").json()
        measures = {m["name"]: m["label"] for m in owner.get("/api/measures").json()}
        supply = words["months_of_supply"]["says"]
        return [
            seen["lines"][0]["label"],
            measures["months_of_supply"],
            seen["sentence"],
            supply,
            words["cumulative_days"]["says"],
        ]

    def counted(months: str, days: str) -> list[str]:
        return [f"{months}-month", f"{months}-month", f"the last {months} months", f"the last {months} months", days]

    assert all(part in says for part, says in zip(counted("12", "90 days"), told(), strict=True))
    assert owner.post(f"/api/workups/{number}/deliveries", json={}).is_success
    assert put(owner, "market.gap_days", 30).status_code == 403
    assert put(manager, "market.supply_months", 5, True).status_code == 422, "one of four"
    assert all(put(manager, n, v, True).is_success for n, v in (("market.supply_months", 3), ("market.gap_days", 2)))
    assert all(part in says for part, says in zip(counted("3", "2 days"), told(), strict=True))
    # table, record and paper of the delivered workup go on as it was handed over, the same record elsewhere by the office's rules
    relisted = next(
        c for c in owner.get(f"/api/workups/{number}/candidates").json()["candidates"]
        if (c["prices"].get("cumulative_days_on_market") or 0) > (c["days_on_market"] or 0)
        and owner.get(f"/api/listings/{c['listing_id']}").json()["cumulative_days"] != c["prices"]["cumulative_days_on_market"]
    )  # fmt: skip
    record = owner.get(f"/api/workups/{number}/records/{relisted['listing_id']}").json()
    assert (
        record["cumulative_days"] == relisted["prices"]["cumulative_days_on_market"]
        and "90 days" in record["worked"]["cumulative_days"]
    )
    account = accounts.account_named(office.state.porch, "Owner")
    agent = office.state.agent_of(account.account_id)
    assert agent.records.columns.rules == MarketRules(2, 3)
    assert open_workup(agent, number).standpoint.columns.rules == USUAL_MARKET, "as it was handed over"
    assert agent.records.fits is office.state.records.snapshot().fits, "long fits hang on none of these rules"


@pytest.mark.parametrize(("name", "value"), [("price.rounding", 1000), ("price.range_pct", 95)])
def test_how_a_price_is_told_is_the_same_in_the_workup_and_on_the_desk(begun, name, value):
    _, owner, number = begun
    found = owner.get(f"/api/workups/{number}/candidates").json()["candidates"]
    keys = [c["listing_id"] for c in found if c["kind"] == "sold"][:8]
    kept = owner.post(
        f"/api/workups/{number}/changes",
        json={"revision": 1, "change": {"change": "decide", "listing_ids": keys, "choice": "kept"}},
    )
    assert kept.is_success, kept.text

    def price() -> dict:
        return owner.get(f"/api/workups/{number}/worth").json()["price"]

    before = price()
    assert put(owner, name, value).is_success
    after = price()
    if name == "price.rounding":
        shown = (after["indicated_value"], after["range"]["low"], after["range"]["high"])
        assert all(x % 1000 == 0 for x in shown) and abs(shown[0] - before["indicated_value"]) <= 550
        standing = owner.get(f"/api/workups/{number}/standing").json()["indicated_value"]
        assert standing == after["indicated_value"]
    else:
        assert after["range"]["coverage"] == 0.95 and after["range"]["low"] < before["range"]["low"]
        assert "nineteen of twenty" in owner.get("/api/meanings").json()["range"]["says"]
