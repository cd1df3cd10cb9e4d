"""A workup from its beginning: what each change is held against, and what a refusal leaves as it was."""

from __future__ import annotations

import datetime as dt

import pytest
from pydantic import TypeAdapter

from rain_porch.app.home.homes import HomeRef
from rain_porch.app.lookup import looked_up
from rain_porch.app.pricing.opened import found, priced, suggested
from rain_porch.app.workup.changes import Change
from rain_porch.app.workup.workups import (
    begin_workup,
    change_workup,
    delete_workup,
    history_of,
    list_workups,
    open_workup,
    titles,
    undo_change,
)
from rain_porch.core.errors import BadInput, NotFound, Odd, OutOfDate

CHANGE: TypeAdapter[Change] = TypeAdapter(Change)


@pytest.fixture
def workup(agent):
    hit = next(h for h in looked_up(agent, "630 hedgerow terrace").hits if h.kind != "workup")
    return begin_workup(agent, HomeRef(hit.kind, hit.key))


def change(agent, n, **given):
    revision = open_workup(agent, n).revision
    return change_workup(agent, n, revision, CHANGE.validate_python(given))


def test_it_begins_with_the_proposed_search_as_of_the_newest_day(agent, workup):
    opened = open_workup(agent, workup)
    assert opened.state.effective_date == agent.records.through()
    assert opened.state.search.search() == opened.standpoint.proposed()
    assert titles(agent) == [(workup, "630 Hedgerow Terrace")] and list_workups(agent)[0]["kept"] == 0


def test_what_is_kept_gives_a_price_and_undo_takes_it_away_again(agent, workup):
    keep = suggested(open_workup(agent, workup))
    change(agent, workup, change="decide", listing_ids=keep, choice="kept")
    value = priced(open_workup(agent, workup)).value
    assert value and list_workups(agent)[0]["kept"] == len(keep)
    assert undo_change(agent, workup, 2)[1] and priced(open_workup(agent, workup)).value is None
    assert [h["what"] for h in history_of(agent, workup)]


def test_a_strange_fact_is_asked_about_and_taken_when_the_agent_is_sure(agent, workup):
    with pytest.raises(Odd, match="Is it so"):
        change(agent, workup, change="correct_fact", field="living_area", value=17_000)
    assert open_workup(agent, workup).revision == 1
    change(agent, workup, change="correct_fact", field="living_area", value=17_000, sure=True)
    assert open_workup(agent, workup).subject.number("living_area") == 17_000


def test_a_search_left_as_proposed_follows_a_corrected_fact_and_one_of_ones_own_stays(agent, workup):
    change(agent, workup, change="correct_fact", field="living_area", value=2200)
    opened = open_workup(agent, workup)
    limit = opened.state.search.search().criterion("living_area")
    assert limit and limit.low <= 2200 <= limit.high
    own = opened.state.search.model_copy(update={"radius_miles": 0.4})
    change(agent, workup, change="set_search", search=own.model_dump(mode="json"))
    change(agent, workup, change="correct_fact", field="living_area", value=1500)
    kept = open_workup(agent, workup).state.search.search()
    assert kept.radius_miles == 0.4 and kept.criterion("living_area") == limit


@pytest.mark.parametrize(
    "part", [{"areas": ["Atlantis"]}, {"radius_miles": -1}, {"criteria": [{"field": "race", "low": 1}]}]
)
def test_a_search_that_cannot_be_run_is_not_saved(agent, workup, part):
    search = open_workup(agent, workup).state.search.model_dump(mode="json") | part
    with pytest.raises((BadInput, NotFound, ValueError)):
        change(agent, workup, change="set_search", search=search)
    assert open_workup(agent, workup).revision == 1 and len(found(open_workup(agent, workup)).rows)


def test_a_day_to_come_is_refused_and_an_earlier_one_looks_back(agent, workup):
    with pytest.raises(BadInput, match="still to come"):
        change(agent, workup, change="set_date", effective_date="2030-01-01")
    change(agent, workup, change="set_date", effective_date="2025-06-30")
    opened = open_workup(agent, workup)
    assert opened.state.effective_date == dt.date(2025, 6, 30)
    rows, view = found(opened).rows, opened.standpoint.view
    assert rows.size and (view.date[rows] <= view.day).all(), "each as it stood on that day"


def test_a_list_price_far_from_the_comps_is_asked_about(agent, workup):
    change(agent, workup, change="decide", listing_ids=suggested(open_workup(agent, workup)), choice="kept")
    with pytest.raises(Odd):
        change(agent, workup, change="set_list_price", list_price=4_000_000)
    change(agent, workup, change="set_list_price", list_price=360_000)
    assert list_workups(agent)[0]["list_price"] == 360_000


def test_a_change_to_what_was_read_before_another_came_is_refused(agent, workup):
    change(agent, workup, change="set_list_price", list_price=360_000)
    with pytest.raises(OutOfDate):
        change_workup(agent, workup, 1, CHANGE.validate_python({"change": "set_list_price", "list_price": 361_000}))


def test_what_is_deleted_is_gone_from_everywhere(agent, workup):
    delete_workup(agent, workup)
    assert titles(agent) == [] and list_workups(agent) == []
    with pytest.raises(NotFound):
        open_workup(agent, workup)
