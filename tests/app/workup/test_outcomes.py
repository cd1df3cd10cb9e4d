"""What came of workups: told from the newest records, of one's own work alone, the sale itself never in its own price."""

from __future__ import annotations

import datetime as dt

import numpy as np

from rain_porch.app.home.homes import HomeRef
from rain_porch.app.office.accounts import add_account
from rain_porch.app.pricing.opened import suggested
from rain_porch.app.workup.outcomes import outcomes
from rain_porch.app.workup.workups import archive_workup, begin_workup, open_workup
from rain_porch.core.facts.dates import date_of
from tests.app.workup.test_changes import change

AS_OF = dt.date(2026, 1, 15)


def sold_later(agent, n: int) -> list[tuple[str, float]]:
    """(parcel, price) of detached homes that came on and sold after the day."""
    c = agent.records.columns
    after = (AS_OF - dt.date(1970, 1, 1)).days
    rows = np.flatnonzero(
        (c.home_kind == 0)
        & ~c.deed
        & ~c.lease
        & (c.on_market > after + 5)
        & (c.close > after)
        & np.isfinite(c.numbers["close_price"][:])
    )
    by_key = dict(agent.records.db.execute("SELECT listing_id, parcel_number FROM listings").fetchall())
    return [(by_key[str(c.keys[row])], float(c.numbers["close_price"][row])) for row in rows[:n]]


def priced_as_of(agent, parcel: str) -> int:
    number = begin_workup(agent, HomeRef("parcel", parcel), AS_OF)
    change(agent, number, change="decide", listing_ids=suggested(open_workup(agent, number)), choice="kept")
    return number


def test_homes_that_sold_since_tell_how_near_their_prices_came(agent):
    homes = sold_later(agent, 4)
    numbers = [priced_as_of(agent, parcel) for parcel, _ in homes]
    begin_workup(agent, HomeRef("parcel", "05-0857"))  # of today: nothing has come of it
    told = outcomes(agent)
    by_number = {r.workup_id: r for r in told.rows}
    assert {*by_number} == {*numbers}
    for number, (_, price) in zip(numbers, homes, strict=True):
        row = by_number[number]
        assert row.price == price and row.sold_on > row.listed_on > AS_OF and row.kind == "sold"
        assert row.off_pct == round(100 * (row.indicated_value / price - 1), 1), (
            "by what is shown, with a pocket calculator"
        )
    assert told.says.startswith("Your last 4 that sold: ")
    archive_workup(agent, numbers[0], away=True)
    assert {r.workup_id for r in outcomes(agent).rows} == {*numbers}, "what was put away still counts"


def test_too_few_say_nothing_and_nobody_else_s_count(agent):
    parcel, _ = sold_later(agent, 1)[0]
    priced_as_of(agent, parcel)
    assert outcomes(agent).says == "Too few of your workups' homes have sold since to say how near they came (1)."
    other = add_account(agent.porch, "Another", "agent", False, "seven grey herons wading")
    assert outcomes(agent.__class__(other, agent.porch, agent.records, agent.now)).rows == []


def test_the_outcome_is_no_part_of_the_price_it_is_held_to(agent):
    parcel, _ = sold_later(agent, 1)[0]
    opened = open_workup(agent, priced_as_of(agent, parcel))
    assert date_of(opened.standpoint.view.day) == AS_OF
    columns = opened.standpoint.columns
    kept = [columns.row_of[key] for key in opened.state.kept()]
    assert kept and all(
        columns.home_id[row] != opened.subject.home_id and columns.close[row] <= opened.standpoint.view.day
        for row in kept
    )
