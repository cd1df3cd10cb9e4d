"""Which fits of other kinds a kind with few sales hears: those around, of that day, and never by who asked first."""

from __future__ import annotations

import datetime as dt

import numpy as np
import pytest

from rain_porch.app.pricing.backtesting import subject_of
from rain_porch.app.pricing.wide_models import cell, told_by_others, wide_model
from rain_porch.core.facts.dates import day_of
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.columns import HOME_KINDS
from rain_porch.store.records.incoming.changed import new_state
from tests.conftest import NOW

DAY = day_of(dt.date(2026, 7, 1))


def sales(records, kind: HomeKind, before: int = DAY):
    c = records.columns
    return np.flatnonzero(
        (c.home_kind == HOME_KINDS.index(kind)) & ~c.lease & (c.close > before - 5 * 365) & (c.close < before)
    )


def test_a_minor_kind_hears_the_others_and_the_largest_hears_nobody(demo_records):
    counts = {kind: sales(demo_records, kind).size for kind in (HomeKind.DETACHED, HomeKind.CONDOMINIUM, HomeKind.LAND)}
    assert counts[HomeKind.DETACHED] > counts[HomeKind.CONDOMINIUM]
    heard = told_by_others(demo_records, (HomeKind.CONDOMINIUM,), DAY, sales(demo_records, HomeKind.CONDOMINIUM))
    assert heard and max(t.n for t in heard) > counts[HomeKind.CONDOMINIUM]
    assert told_by_others(demo_records, (HomeKind.DETACHED,), DAY, sales(demo_records, HomeKind.DETACHED)) == []


def test_it_hangs_on_the_kind_and_the_day_not_on_who_asked_first(demo_records):
    rows = sales(demo_records, HomeKind.CONDOMINIUM)
    said = told_by_others(demo_records, (HomeKind.CONDOMINIUM,), DAY, rows)
    again = told_by_others(demo_records, (HomeKind.CONDOMINIUM,), DAY, rows[::-1])
    assert [t.index.tolist() for t in said] == [t.index.tolist() for t in again]
    first, last = (subject_of(demo_records.columns, int(r)) for r in (rows[0], rows[-1]))
    assert wide_model(demo_records, first, DAY, keep=False) is wide_model(demo_records, last, DAY, keep=False)


def test_nothing_of_a_later_day_is_heard(town):
    from rain_porch.app.records import Records

    records = Records(town, today=lambda: NOW.date())
    rows = sales(records.snapshot(), HomeKind.CONDOMINIUM)
    before = told_by_others(records.snapshot(), (HomeKind.CONDOMINIUM,), DAY, rows)
    records.live.execute("UPDATE listings SET close_price = close_price * 3 WHERE close_date > '2026-07-01'")
    new_state(records.live)
    after = told_by_others(
        records.snapshot(), HomeKind.CONDOMINIUM, DAY, sales(records.snapshot(), HomeKind.CONDOMINIUM)
    )
    for was, now in zip(before, after, strict=True):
        assert (
            now.index == pytest.approx(was.index) and now.covariance == pytest.approx(was.covariance) and now.n == was.n
        )
    records.close()


def test_without_a_place_nobody_is_heard_and_a_cell_holds_its_middle(demo_records):
    assert told_by_others(demo_records, (HomeKind.LAND,), DAY, np.zeros(0, dtype=np.int64)) == []
    assert cell(41.2, -38.4) == cell(*cell(41.2, -38.4)) == (41.25, -38.5)
    assert wide_model(demo_records, Subject({}, 41.2, -38.4, HomeKind.DETACHED, placed=False), DAY) is None
