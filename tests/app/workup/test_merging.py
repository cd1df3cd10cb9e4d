"""Changes made side by side: nothing that does not clash is lost, nothing that does is taken in silence."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.app.pricing.opened import suggested
from rain_porch.app.workup.merging import merged
from rain_porch.app.workup.workups import change_workup, open_workup, undo_change
from rain_porch.core.errors import Clash, OutOfDate
from tests.app.workup.test_changes import CHANGE, begun

LEAF = st.one_of(st.none(), st.integers(0, 3), st.lists(st.integers(0, 2), max_size=2))
DOCS = st.recursive(LEAF, lambda inner: st.dictionaries(st.sampled_from("abc"), inner, max_size=3), max_leaves=8)
OBJECTS = st.dictionaries(st.sampled_from("abc"), DOCS, max_size=3)


@given(OBJECTS, OBJECTS)
def test_what_only_one_side_changed_is_kept(base, mine):
    assert merged(base, mine, base) == (mine, []) == merged(base, base, mine)
    assert merged(base, mine, mine) == (mine, [])


@given(OBJECTS, OBJECTS, OBJECTS)
def test_both_orders_clash_alike_and_agree_where_they_do_not(base, mine, theirs):
    one, clashes = merged(base, mine, theirs)
    other, again = merged(base, theirs, mine)
    assert sorted(clashes) == sorted(again)
    assert clashes or one == other


@given(OBJECTS, DOCS, DOCS)
def test_changes_of_different_parts_are_both_kept(base, a, b):
    base = {**base, "a": None, "b": None}
    both, clashes = merged(base, {**base, "a": a}, {**base, "b": b})
    assert not clashes and (both["a"], both["b"]) == (a, b)


def sent(agent, n: int, on: int, **change):
    return change_workup(agent, n, on, CHANGE.validate_python(change))


def test_two_windows_changes_are_both_kept_and_the_same_sent_twice_counts_once(agent):
    n = begun(agent)
    first, second, third = suggested(open_workup(agent, n))[:3]
    search = open_workup(agent, n).state.search
    assert sent(agent, n, 1, change="decide", listing_ids=[first], choice="kept")[0] == 2
    assert sent(agent, n, 1, change="decide", listing_ids=[second], choice="kept")[0] == 3
    assert (
        sent(agent, n, 1, change="set_search", search=search.model_copy(update={"radius_miles": 0.4}).model_dump())[0]
        == 4
    )
    no_new = search.model_copy(update={"leave_out_new_construction": False})
    assert sent(agent, n, 1, change="set_search", search=no_new.model_dump())[0] == 5
    state = open_workup(agent, n).state
    assert state.kept() == [first, second]
    assert (state.search.radius_miles, state.search.leave_out_new_construction) == (0.4, False)
    assert sent(agent, n, 1, change="decide", listing_ids=[first], choice="kept")[0] == 5, "its answer had been lost"
    sent(agent, n, 5, change="set_order", listing_ids=[second, first])
    sent(agent, n, 5, change="decide", listing_ids=[third], choice="kept")
    assert open_workup(agent, n).state.kept() == [second, first, third]


def test_what_clashes_is_asked_and_taken_on_the_newest(agent):
    n = begun(agent)
    sent(agent, n, 1, change="set_list_price", list_price=360_000)
    with pytest.raises(Clash, match="Another window of yours changed the same meanwhile: list price set to 360,000"):
        sent(agent, n, 1, change="set_list_price", list_price=365_000)
    assert open_workup(agent, n).state.list_price == 360_000
    sent(agent, n, 2, change="set_list_price", list_price=365_000)
    assert open_workup(agent, n).state.list_price == 365_000


def test_on_what_was_taken_back_nothing_is_built(agent):
    n = begun(agent)
    sent(agent, n, 1, change="set_list_price", list_price=360_000)
    undo_change(agent, n, 2)
    with pytest.raises(OutOfDate, match="Read it again"):
        sent(agent, n, 2, change="set_client", client="Wilma Carrow")
