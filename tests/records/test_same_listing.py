"""The same listing from two sources is one home's one sale everywhere; both records are kept and shown."""

from __future__ import annotations

import datetime as dt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.app.home.full_record import full_record
from rain_porch.app.records import Records
from rain_porch.core.facts.same_listing import DAYS, pairs
from rain_porch.records.importing import import_file
from rain_porch.store.records.incoming.undo import undo_import

NOW = dt.datetime(2026, 6, 30)
FIRST = (
    "ListingId,StandardStatus,ParcelNumber,UnparsedAddress,City,OnMarketDate,CloseDate,ClosePrice,ListPrice,LivingArea,Latitude,Longitude\n"
    "A1,Closed,P-1,10 Mill St,Alder,2026-01-05,2026-03-01,300000,305000,1500,41.2,-38.4\n"
    "A2,Closed,P-2,12 Mill St,Alder,2026-01-05,2026-03-01,300000,305000,1500,41.2,-38.4\n"
    "A3,Active,,14 Mill St,Alder,2026-05-05,,,410000,1700,41.2,-38.4\n"
    "A4,Active,,16 Mill St,Alder,2026-05-01,,,510000,1700,41.2,-38.4\n"
)
SECOND = (
    "MLS #,Status,Address,City,List Date,Sold Date,Sold $,List $\n"
    "77,S,10 Mill Street,Alder,1/7/2026,3/3/2026,300000,305000\n"
    "A2,S,500 Ferry Ln,Alder,1/7/2026,3/3/2026,275000,280000\n"
    "78,S,14 Mill Street,Alder,5/5/2026,6/20/2026,402000,410000\n"
    "79,A,16 Mill Street,Stonewick,5/1/2026,,,510000\n"
)


@pytest.fixture
def office(tmp_path):
    records = Records(tmp_path)

    def bring(text, source):
        file = tmp_path / f"{source}.csv"
        file.write_text(text)
        return import_file(records.live, file, folder=tmp_path, now=NOW, source=source)

    bring.records = records
    yield bring
    records.close()


def test_two_sources_make_one_sale_and_a_number_is_its_sources_own(office):
    office(FIRST, "north board")
    second = office(SECOND, "south board")
    assert (second.new, second.changed) == (4, 0), "A2 is another home: nothing of the first source is written over"
    columns = office.records.snapshot().columns
    assert {*columns.keys} == {"A1", "A2", "A4", "A2 (south board)", "78", "79"}
    assert office(SECOND, "south board").same == 4
    snapshot = office.records.snapshot()
    whole = full_record(snapshot, "77")
    assert whole.listing_id == "A1" and [(t.source, t.number) for t in whole.told_by] == [
        ("north board", "A1"),
        ("south board", "77"),
    ]
    assert full_record(snapshot, "A3").listing_id == "78", "the one that is further along stands for both"


@pytest.mark.parametrize("order", [(FIRST, SECOND), (SECOND, FIRST)])
def test_whichever_came_first_the_sales_are_the_same(office, order):
    for text in order:
        office(text, "north board" if text is FIRST else "south board")
    columns = office.records.snapshot().columns
    sold = [columns.fact(r, "close_price") for r in range(len(columns.keys)) if columns.fact(r, "close_price")]
    assert sorted(sold) == [275_000, 300_000, 300_000, 402_000]


def test_an_import_taken_back_leaves_the_other_source_s_records_as_they_were(office):
    office(FIRST, "north board")
    number = office(SECOND, "south board").import_id
    undo_import(office.records.live, number, NOW.isoformat())
    assert {*office.records.snapshot().columns.keys} == {"A1", "A2", "A3", "A4"}


rows = st.tuples(st.integers(0, 2), st.integers(0, 40), st.integers(1, 3), st.integers(0, 2))


@given(st.lists(rows, max_size=8))
def test_candidates_are_those_that_a_slow_look_finds(told):
    columns = np.array(told, dtype=np.int64).reshape(-1, 4).T
    source, day, price, number = columns
    slow = {
        frozenset((a, b)) for a in range(len(told)) for b in range(a)
        if source[a] != source[b] and price[a] == price[b] and number[a] == number[b] and abs(day[a] - day[b]) <= DAYS
    }  # fmt: skip
    assert {frozenset(pair) for pair in pairs(source, day, price, number)} == slow
