"""The columns against the tables they were read from, asked one question at a time in SQL."""

from __future__ import annotations

import json

import numpy as np
import pytest

from rain_porch.app.home.homes import HomeRef, read_home
from rain_porch.core.facts.dates import date_of
from rain_porch.core.facts.fields import BY_NAME
from rain_porch.store.records.columns import load_columns
from rain_porch.store.records.gathering import DATES, NUMBERS, WORDS


@pytest.fixture(scope="module")
def both(demo_records):
    return demo_records.db, demo_records.columns


@pytest.fixture(scope="module")
def suspects(both):
    db, _ = both
    rows = db.execute("SELECT listing_id, suspect FROM listings WHERE suspect IS NOT NULL")
    return {r["listing_id"]: set(json.loads(r["suspect"])) for r in rows}


def test_every_listing_and_every_unmatched_sale_is_there_once(both):
    db, columns = both
    listed = db.execute("SELECT count(*) FROM listings").fetchone()[0]
    deeds = db.execute(
        "SELECT count(*) FROM transfers WHERE listing_id IS NULL AND not_arms_length IS NULL AND suspect IS NULL"
    ).fetchone()[0]
    assert len(columns) == listed + deeds == len(set(columns.keys))
    assert columns.deed.sum() == deeds


@pytest.mark.parametrize("name", ["close_price", "year_built", "garage_spaces", "latitude", "pool_private_yn"])
def test_numbers_are_those_of_the_table_and_suspect_ones_unknown(both, suspects, name):
    db, columns = both
    for r in db.execute(f"SELECT listing_id, {name} AS v FROM listings"):
        held = columns.numbers[name][columns.row_of[r["listing_id"]]]
        if r["v"] is None or name in suspects.get(r["listing_id"], ()):
            assert np.isnan(held)
        else:
            assert held == r["v"]


@pytest.mark.parametrize("name", ["city", "architectural_style", "subdivision_name", "flooring"])
def test_words_are_those_of_the_table(both, name):
    db, columns = both
    for r in db.execute(f"SELECT listing_id, {name} AS v FROM listings"):
        assert columns.words[name][columns.row_of[r["listing_id"]]] == r["v"]


def test_dates_go_there_and_back(both, suspects):
    db, columns = both
    arrays = dict(zip(DATES, (columns.on_market, columns.contract, columns.close, columns.off_market), strict=True))
    told = dict(
        db.execute(
            "SELECT listing_id, max(substr(at, 1, 10)) FROM events JOIN listings USING (listing_id) "
            "WHERE purchase_contract_date IS NULL AND listings.standard_status IN ('Pending', 'Active Under Contract') "
            "AND new_value IN ('Pending', 'Active Under Contract') GROUP BY listing_id"
        )
    )
    assert told
    for r in db.execute(f"SELECT listing_id, {', '.join(DATES)} FROM listings"):
        row = columns.row_of[r["listing_id"]]
        for name, days in arrays.items():
            day = r[name] if name not in suspects.get(r["listing_id"], ()) else None
            if name == "purchase_contract_date":  # the history may know what the listing does not say
                day = day or told.get(r["listing_id"])
            assert (date_of(int(days[row])).isoformat() == day) if day else days[row] < -(2**30)


def test_deed_sales_have_the_facts_of_their_parcel(both):
    db, columns = both
    rows = np.flatnonzero(columns.deed)
    for row in rows[:60]:
        key = columns.keys[row].removeprefix("deed:")
        t = db.execute(
            "SELECT * FROM transfers JOIN parcels USING (parcel_number) WHERE transfer_key = ?", [key]
        ).fetchone()
        assert columns.numbers["close_price"][row] == t["price"]
        assert columns.fact(int(row), "living_area") == t["living_area"]
        assert date_of(int(columns.close[row])).isoformat() == (t["sale_date"] or t["recording_date"])


def test_records_of_one_parcel_are_one_home(both):
    db, columns = both
    for r in db.execute(
        "SELECT parcel_number, group_concat(listing_id) AS ids FROM listings GROUP BY 1 HAVING count(*) > 2 LIMIT 40"
    ):
        assert len({int(columns.home_id[columns.row_of[k]]) for k in r["ids"].split(",")}) == 1


def test_reading_again_gives_the_same(both):
    db, columns = both
    with db.one() as connection:
        again = load_columns(connection)
    assert list(again.keys) == list(columns.keys) and again.version == columns.version
    for name in NUMBERS:
        assert np.array_equal(again.numbers[name][:], columns.numbers[name][:], equal_nan=True)
    assert all(BY_NAME[n].numeric for n in NUMBERS) and not any(BY_NAME[n].numeric for n in WORDS)


def test_a_change_told_twice_counts_once_and_odd_prices_never(bring, records):
    bring(
        "ListingId,ParcelNumber,StandardStatus,OnMarketDate,ListPrice,Latitude,Longitude\n"
        "A1,P1,Active,2024-01-01,390000,41.2,-38.4\n",
        "listings.csv",
    )
    bring(
        "ListingId,Timestamp,Event,OldValue,NewValue\n"
        "A1,2024-02-01T09:00:00,Price Change,400000,420000\n"
        "A1,2024-02-20T11:00:00,Price Change,400000,420000\n"
        "A1,2024-03-01T18:00:00,Price Change,410000,390000\n"
        "A1,2024-03-01T07:00:00,Price Change,420000,410000\n"
        "A1,2024-05-01T07:00:00,Price Change,400000,420000\n"
        "A1,2024-06-01,Price Change,odd,399000\n"
        "nowhere,2024-06-01,Price Change,1,2\n",
        "history.csv",
    )
    with records.connection() as db:
        columns = load_columns(db)
    told = [(date_of(int(d)).isoformat(), p) for d, p in zip(columns.changes.days, columns.changes.old, strict=True)]
    assert told == [
        ("2024-02-01", 400_000),
        ("2024-03-01", 420_000),
        ("2024-03-01", 410_000),
        ("2024-05-01", 400_000),
    ], "in the order of the hours within a day"


def test_a_home_is_the_same_for_its_deed_its_parcel_and_its_listing(bring, records):
    bring(
        "ParcelNumber,UnparsedAddress,Latitude,Longitude,PropertySubType\n"
        "P1,1 Ash Lane,41.2,-38.4,Townhouse\nP2,2 Ash Lane,41.2,-38.4,Townhouse\n",
        "parcels.csv",
    )
    bring(
        "ParcelNumber,RecordingDate,SaleDate,Price,DocumentType,Grantor,Grantee\n"
        "P2,2023-05-05,2023-05-01,300000,Warranty Deed,A Seller,A Buyer\n",
        "transfers.csv",
    )
    assert read_home(records.snapshot(), HomeRef("parcel", "P1")).subject.home_id is None, "no record of a sale has it"
    columns = records.snapshot().columns
    assert (
        read_home(records.snapshot(), HomeRef("parcel", "P2")).subject.home_id
        == columns.home_id[np.flatnonzero(columns.deed)[0]]
    )
    bring(
        "ListingId,ParcelNumber,StandardStatus,OnMarketDate,ListPrice,Latitude,Longitude\n"
        "A1,P2,Active,2024-01-01,390000,41.2,-38.4\nA2,P1,Active,2024-01-01,380000,41.2,-38.4\n",
        "listings.csv",
    )
    columns = records.snapshot().columns
    home_id = read_home(records.snapshot(), HomeRef("listing", "A1")).subject.home_id
    assert home_id == read_home(records.snapshot(), HomeRef("parcel", "P2")).subject.home_id
    assert set(columns.rows_of_home(home_id)) == {columns.row_of["A1"], int(np.flatnonzero(columns.deed)[0])}
