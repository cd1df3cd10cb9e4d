"""The office's form of figures over the service: who chooses it, what is told in it, and that nothing is kept in it."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from typing import Any

import pytest

FORM = {"numbers": "1.234,5", "days": "31 Aug 2026", "sign": "€", "sign_stands": "after", "sizes": "metres"}
USUAL = {"numbers": "1,234.5", "days": "Aug 31, 2026", "sign": "$", "sign_stands": "before", "sizes": "feet"}
OF_USUAL = re.compile(
    r"\$\d|\d,\d{3}\b|\b\d+\.\d{1,2}(?![\d.])|\b\d[\d.]* (?:sq ft|mi|miles|acres?)\b|(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) \d+, \d{4}"
)
# examples of the forms themselves, what people called things, what programs read, sums in what they were reckoned in
NOT_OURS = re.compile(
    r"\.(form|numbers|days|name|drawn|address|remarks|file_name|path|captions?|version)\b|^/local-form"
)
SUM = re.compile("[×÷]")


def texts(part: Any, path: str = "") -> Iterator[tuple[str, str]]:
    if isinstance(part, dict):
        for key, value in part.items():
            yield from texts(value, f"{path}.{key}")
    elif isinstance(part, list):
        for value in part:
            yield from texts(value, path)
    elif isinstance(part, str):
        yield path, part


@pytest.fixture
def asked(begun):
    """Everything that the service answers of a workup with comps and a list price, by the path that was asked."""
    office, owner, number = begun
    found = owner.get(f"/api/workups/{number}/candidates").json()
    kept = [c["listing_id"] for c in found["candidates"] if c["kind"] == "sold"][:8]

    def change(**what: Any) -> None:
        revision = owner.get(f"/api/workups/{number}/revision").json()["revision"]
        body = {"revision": revision, "change": what}
        answer = owner.post(f"/api/workups/{number}/changes", json=body)
        assert answer.status_code == 200, answer.text

    change(change="decide", listing_ids=kept, choice="kept")
    change(change="set_list_price", list_price=309900)
    listing = kept[0]
    view = {"measures": ["median_price_per_sqft", "closings"]}

    def answers() -> dict[str, Any]:
        got = {}
        for path, spec in office.app.openapi()["paths"].items():
            asks = spec.get("get")
            if asks is None or "ics" in path or path.endswith("/room"):  # how much room there is changes by itself
                continue
            url = path.replace("{workup_id}", str(number)).replace("{listing_id}", listing)
            url = url.replace("{figure}", "indicated_value").replace("{field}", "living_area")
            if "{" in url:
                continue
            answer = owner.get(url)
            if answer.status_code == 200 and "json" in answer.headers["content-type"]:
                got[path.removeprefix("/api")] = answer.json()
        for url, body in (
            ("/api/market/view", view), ("/api/market/bands", {"view": view}), ("/api/around", {"home": {"kind": "listing", "key": listing}}),
            ("/api/market/behind", {"view": view, "measure": "median_price_per_sqft", "start": "2026-01-01", "end": "2026-10-31"}),
        ):  # fmt: skip
            answer = owner.post(url, json=body)
            assert answer.status_code == 200, (url, answer.text)
            got[url] = answer.json()
        return got

    return office, answers


def test_what_the_service_words_is_told_in_the_form_and_nothing_is_kept_in_it(asked):
    office, answers = asked
    manager = office.client("Manager")
    before = answers()
    assert len(before) > 40
    assert any(OF_USUAL.search(t) for _, t in texts(before)), "the pattern finds figures of the usual form"
    assert manager.put("/api/local-form", json=FORM).status_code == 204
    told = answers()
    left = {
        (url + path, text)
        for url, answer in told.items()
        for path, text in texts(answer)
        if OF_USUAL.search(text) and not NOT_OURS.search(url + path) and not SUM.search(text)
    }
    assert not left
    # what is sent back to the service stays as programs read it
    bands = "/api/market/bands"
    sent = [[r["where"] for r in answer[bands]["price"] + answer[bands]["size"]] for answer in (before, told)]
    assert sent[0] == sent[1] and any(sent[0]), "conditions of a view"
    assert "€" in json.dumps(told, ensure_ascii=False) and " m²" in json.dumps(told, ensure_ascii=False)
    assert manager.put("/api/local-form", json=USUAL).status_code == 204
    assert answers() == before


def test_a_manager_chooses_it_and_everybody_reads_it(begun):
    office, owner, _ = begun
    assert owner.get("/api/local-form").json() == USUAL
    refused = owner.put("/api/local-form", json=FORM)
    assert refused.status_code == 403 and "manager" in refused.json()["message"]
    assert office.client().get("/api/local-form").status_code == 401
    assert office.client("Manager").put("/api/local-form", json=FORM).status_code == 204
    assert owner.get("/api/local-form").json() == owner.get("/api/session").json()["form"] == FORM


NO_FORMS = [
    ("numbers", "12 34"), ("days", "31.8."), ("sizes", "ells"), ("sign", ""), ("sign", "1"), ("sign", "%"), ("sign", "dollars"), ("sign", " "),
    ("sign", "a\n"), ("sign_stands", "under"),
]  # fmt: skip


def test_a_form_that_is_none_is_refused_by_its_field_and_changes_nothing(begun):
    office, _, _ = begun
    manager = office.client("Manager")
    for part, value in NO_FORMS:
        answer = manager.put("/api/local-form", json=FORM | {part: value})
        assert answer.status_code == 422 and part in answer.json()["field"] and answer.json()["message"], (part, value)
        assert manager.get("/api/local-form").json() == USUAL


def test_a_refusal_is_told_in_the_form(begun):
    office, owner, number = begun
    office.client("Manager").put("/api/local-form", json=FORM)
    revision = owner.get(f"/api/workups/{number}/revision").json()["revision"]
    body = {"revision": revision, "change": {"change": "set_rate", "field": "living_area", "value": 1e7}}
    message = owner.post(f"/api/workups/{number}/changes", json=body).json()["message"]
    assert "10.000.000" in message and not OF_USUAL.search(message)
