"""What has happened around a home since its workup's effective date."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace

import numpy as np
import pytest

from rain_porch.app.home.homes import HomeRef
from rain_porch.app.office.agent import Agent
from rain_porch.app.pricing.opened import priced, suggested
from rain_porch.app.workup import since
from rain_porch.app.workup.changes import Decide, SetDate
from rain_porch.app.workup.since import since_then, standing
from rain_porch.app.workup.workups import begin_workup, change_workup, list_workups, open_workup
from rain_porch.core.errors import BadInput
from rain_porch.core.facts.dates import NO_DAY, day_of
from rain_porch.core.facts.money import half_up
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.columns import HOME_KINDS

THEN = dt.date(2026, 8, 31)
HOME = HomeRef("parcel", "05-0857")


@pytest.fixture
def begun(agent: Agent) -> int:
    return begin_workup(agent, HOME, as_of=THEN)


def by_hand(agent: Agent, begun: int) -> list[tuple[str, str, str]]:
    """(day, what, listing) of sales and new listings, told from the tables with the search's own candidates of later days."""
    opened = open_workup(agent, begun)
    columns = opened.standpoint.columns
    wide = replace(opened.state.search.search(), windows={
        k: replace(w, on=True, days=None, since=None, until=None) for k, w in opened.state.search.search().windows.items()
    })  # fmt: skip
    today = replace(opened.standpoint, view=columns.as_of(day_of(agent.records.through())))
    rows = today.run(wide).rows
    out = []
    for row in rows:
        for what, days in (("closed", columns.close), ("failed", columns.off_market)):
            if days[row] > day_of(THEN) and (what == "closed" or columns.close[row] == NO_DAY):
                if what == "failed" and today.view.kind[row] != 4:
                    continue
                out.append((str(days[row]), what, str(columns.keys[row])))
    return sorted(out)


def test_it_is_what_the_search_would_find_later(agent: Agent, begun: int) -> None:
    told = since_then(open_workup(agent, begun))
    assert told.since == THEN + dt.timedelta(days=1) and told.through == dt.date(2026, 10, 31)
    ours = sorted(
        (str(day_of(c.date)), c.what, c.record.listing_id) for c in told.changes if c.what in ("closed", "failed")
    )
    assert ours == by_hand(agent, begun) and len(ours) > 3
    assert sum(told.counts.values()) == len(told.changes)
    assert all(c.date > THEN for c in told.changes)
    assert {"new", "contract"} <= set(told.counts)


def test_a_comp_outside_the_search_and_the_home_itself_are_told_too(agent: Agent, begun: int) -> None:
    opened = open_workup(agent, begun)
    columns = opened.standpoint.columns
    closed = np.flatnonzero((columns.close > day_of(THEN)) & ~columns.lease & ~columns.deed & ~columns.not_arms_length)
    land = closed[columns.home_kind[closed] == HOME_KINDS.index(HomeKind.LAND)]
    far = str(columns.keys[land[0]])
    assert far not in {c.record.listing_id for c in since_then(opened).changes}
    change_workup(agent, begun, 1, Decide(change="decide", listing_ids=[far], choice="kept"))
    told = since_then(open_workup(agent, begun))
    assert told.kept == [far] and told.own == []

    own = int(closed[0])
    itself = begin_workup(agent, HomeRef("listing", str(columns.keys[own])), as_of=THEN)
    assert str(columns.keys[own]) in since_then(open_workup(agent, itself)).own


def test_a_workup_stands_where_its_revision_and_the_records_put_it(
    agent: Agent, begun: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    first = standing(agent, begun)
    assert (first.indicated_value, first.kept) == (None, 0)
    assert first.changes == len(since_then(open_workup(agent, begun)).changes) > 3
    with monkeypatch.context() as patched:
        patched.setattr(since, "_standing", None)
        assert standing(agent, begun) == first, "worked out once"
    comps = suggested(open_workup(agent, begun))
    change_workup(agent, begun, 1, Decide(change="decide", listing_ids=comps, choice="kept"))
    second = standing(agent, begun)
    value = priced(open_workup(agent, begun)).value
    assert second.indicated_value == half_up(value, 100) and second.changes == first.changes
    change_workup(agent, begun, 2, SetDate(change="set_date", effective_date=agent.records.through()))
    third = standing(agent, begun)
    assert (third.changes, third.kept) == (0, 0) and third.indicated_value != second.indicated_value
    assert since_then(open_workup(agent, begun)).counts == {}


def test_a_day_to_come_is_refused_and_nothing_changes(agent: Agent, begun: int) -> None:
    with pytest.raises(BadInput, match="still to come"):
        change_workup(agent, begun, 1, SetDate(change="set_date", effective_date=dt.date(2026, 11, 3)))
    with pytest.raises(BadInput, match="still to come"):
        begin_workup(agent, HOME, as_of=dt.date(2027, 1, 1))
    assert open_workup(agent, begun).revision == 1 and len(list_workups(agent)) == 1
