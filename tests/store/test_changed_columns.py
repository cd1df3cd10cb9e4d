"""What changed is put into the columns before: whatever happens to the records, they are those that reading all of them anew gives."""

from __future__ import annotations

import tempfile
from pathlib import Path
from unittest.mock import patch

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.app.records import Records
from rain_porch.core.errors import Refused
from rain_porch.core.market import merging
from rain_porch.core.market.book import followed
from rain_porch.core.market.listing_facts import resold_from
from rain_porch.records.importing import import_file
from rain_porch.store.db import RECORDS, atomic, open_database
from rain_porch.store.records import kept_columns as kept
from rain_porch.store.records.columns import changed_columns, load_columns
from rain_porch.store.records.conclusions import rule
from rain_porch.store.records.incoming import changed
from rain_porch.store.records.incoming.changed import changed_since, new_state
from rain_porch.store.records.incoming.imports import records_mark
from rain_porch.store.records.incoming.undo import undo_import
from rain_porch.store.records.word_orders import set_order
from tests.conftest import NOW
from tests.store.test_kept_columns import same

LISTINGS = (
    "ListingId,StandardStatus,ParcelNumber,UnparsedAddress,City,OnMarketDate,PurchaseContractDate,CloseDate,OffMarketDate,"
    "ListPrice,ClosePrice,LivingArea,SubdivisionName,PropertyCondition,x_view,x_walk\n"
)
PARCELS = "ParcelNumber,UnparsedAddress,City,Latitude,Longitude,LivingArea,SubdivisionName\n"
TRANSFERS = "ParcelNumber,RecordingDate,Price,DocumentType\n"
HISTORY = "ListingId,Timestamp,Event,OldValue,NewValue\n"
KEPT = ("x_view", "x_walk")
KEYS, NUMBERS, DAYS = "ABCDEF", ("P1", "P2", "P3"), ("2025-11-20", "2026-03-02", "2026-03-03", "2026-05-01")
PRICES, WORDS = ("300000", "301000", "420000"), ("", "good", "poor", "fair")

number, day, price, word = (st.sampled_from(values) for values in (NUMBERS, DAYS, PRICES, WORDS))
listing = st.builds(
    lambda key, status, parcel, days, asked, paid, area, *words: (
        f"{key},{status},{parcel},{NUMBERS.index(parcel) + 1} Ferry Ln,Fennimere,{days[0]},{days[1]},"
        f"{days[2] if status == 'Closed' else ''},,{asked},{paid if status == 'Closed' else ''},{area},{','.join(words)}\n"
    ),
    st.sampled_from(KEYS), st.sampled_from(["Active", "Pending", "Closed", "Expired"]), number,
    st.lists(day, min_size=3, max_size=3).map(sorted), price, price, st.sampled_from(["1500", "1800", ""]), word, word, word,
    st.sampled_from(["", "3", "7"]),
)  # fmt: skip
some = {
    "listings": (LISTINGS, listing),
    "parcels": (PARCELS, st.builds(lambda p, area, w: f"{p},{p[1]} Ferry Ln,Fennimere,41.{p[1]},-38.4,{area},{w}\n", number, st.sampled_from(["1500", "2000"]), word)),
    "transfers": (TRANSFERS, st.builds(lambda p, d, paid: f"{p},{d},{paid},Warranty Deed\n", number, day, price)),
    "history": (HISTORY, st.builds(lambda k, d, a, b: f"{k},{d}T10:00:00,Price Change,{a},{b}\n", st.sampled_from(KEYS), day, price, price)),
}  # fmt: skip
brought = st.sampled_from(list(some)).flatmap(
    lambda kind: st.tuples(
        st.just(kind), st.sampled_from(["one", "other"]), st.lists(some[kind][1], min_size=1, max_size=5)
    )
)
acts = st.one_of(
    brought,
    brought,
    st.tuples(st.just("undo"), st.integers(0, 5)),
    st.tuples(st.just("rule"), st.sampled_from(KEYS), st.sampled_from(["quick_resale", "new_construction"]), st.sampled_from(["1", "0", None])),
    st.tuples(st.just("order"), st.permutations(["good", "fair", "poor"])),
)  # fmt: skip


def done(db, folder: Path, act) -> None:
    """One thing that happens to the records; what the program refuses does not."""
    if act[0] == "undo":
        numbers = [
            r[0] for r in db.execute("SELECT import_id FROM imports WHERE undone_at IS NULL ORDER BY import_id DESC")
        ]
        if act[1] < len(numbers):
            undo_import(db, numbers[act[1]], NOW.isoformat())
    elif act[0] == "rule":
        rule(db, "listings", act[1], act[2], act[3], NOW.isoformat(), {})
    elif act[0] == "order":
        set_order(db, "own_words_x_view", act[1])
    else:
        kind, source, lines = act
        file = folder / f"{kind}.csv"
        file.write_text(some[kind][0] + "".join(dict.fromkeys(lines)))
        try:
            import_file(
                db, file, folder=folder, now=NOW, kind=kind, source=source, keep=KEPT if kind == "listings" else ()
            )
        except Refused as e:
            assert "has no" in str(e) or "nothing" in str(e).lower(), e


def worked_out(columns) -> tuple:
    """What is worked out of all homes, in words that do not hang on how homes are numbered."""
    order, homes = columns.by_home()
    assert np.array_equal(order, np.argsort(columns.home_id, kind="stable")) and np.array_equal(
        homes, columns.home_id[order]
    )
    back, before = followed(columns)
    return back.tolist(), before.tolist(), resold_from(columns)


@settings(max_examples=60)
@given(
    first=st.lists(brought, min_size=2, max_size=3),
    then=st.lists(acts, min_size=1, max_size=6),
    runs=st.sampled_from([0, 3000]),  # beyond which rows are put in their places one by one
)
def test_whatever_happens_the_columns_are_those_read_anew(first, then, runs):
    with tempfile.TemporaryDirectory() as made, patch.object(merging, "_MANY_RUNS", runs):
        folder = Path(made)
        db = open_database(folder, RECORDS)
        for act in first:
            done(db, folder, act)
        before, mark = load_columns(db), records_mark(db)
        worked_out(before)
        for act in then:
            done(db, folder, act)
            what = changed_since(db, mark)
            assert what is not None
            now = changed_columns(db, before, what)
            anew = load_columns(db)
            assert same(now, anew), (act, what)
            assert {"by home", "followed", "resold from"} <= {*now.memo.kept()}
            assert worked_out(now) == worked_out(anew), (act, what)
            before, mark = now, records_mark(db)
        db.close()


def test_a_pull_of_a_thousand_changes_reads_those_alone(town, monkeypatch):
    held = Records(town, today=lambda: NOW.date())
    before = held.snapshot()
    monkeypatch.setattr(kept, "load_columns", lambda db: pytest.fail("all records are read anew"))
    with atomic(held.live):
        held.live.execute(
            "UPDATE listings SET list_price = list_price + 1000, city = 'Elsewhere' WHERE row_id % 25 = 3"
        )
        held.live.execute("DELETE FROM transfers WHERE row_id % 90 = 1")
        new_state(held.live)
    now = held.snapshot().columns
    moved = [k for k in now.keys if before.columns.row_of.get(k) is not None and now.numbers["list_price"][now.row_of[k]] - before.columns.numbers["list_price"][before.columns.row_of[k]] == 1000]  # fmt: skip
    assert len(moved) > 200 and len(now) < len(before.columns) and "Elsewhere" in now.words["city"].words
    with held.connection() as db:
        assert same(now, load_columns(db))
    held.close()
    monkeypatch.undo()
    again = Records(town, today=lambda: NOW.date())  # and a service that starts finds them in the file
    assert not again.snapshot().columns.close.flags.writeable and same(again.snapshot().columns, now)
    again.close()


def test_too_many_changes_or_another_past_are_read_as_a_whole(town, monkeypatch):
    db = open_database(town, RECORDS)
    mark = records_mark(db)
    assert len(changed_since(db, mark)) == 0 and changed_since(db, "0123456789ABCDEF") is None
    monkeypatch.setattr(changed, "MOST_NOTED", 50)
    with atomic(db):
        db.execute("UPDATE listings SET list_price = list_price WHERE row_id <= 40")
        new_state(db)
    assert len(changed_since(db, mark).listings) == 40
    with atomic(db):
        db.execute("UPDATE listings SET list_price = list_price WHERE row_id <= 60")
        new_state(db)
    assert changed_since(db, mark) is None
    with atomic(db), changed.noting(db, 51):
        db.execute("UPDATE listings SET list_price = list_price WHERE row_id <= 5")
        new_state(db)
    assert db.execute("SELECT count(*) FROM changed_records").fetchone()[0] == 0
    mark = records_mark(db)
    with atomic(db):
        db.execute("UPDATE listings SET list_price = list_price WHERE row_id <= 5")
        new_state(db)
    assert len(changed_since(db, mark).listings) == 5, "after which each change is noted again"
    triggers = "SELECT count(*) FROM sqlite_master WHERE type = 'trigger'"
    there = db.execute(triggers).fetchone()[0]
    with pytest.raises(RuntimeError), atomic(db), changed.noting(db, 51):
        assert db.execute(triggers).fetchone()[0] < there
        raise RuntimeError
    assert db.execute(triggers).fetchone()[0] == there, "what is not taken in leaves nothing behind"
    db.close()


def test_a_pull_after_many_others_is_still_told_from_the_one_before_it(town, monkeypatch):
    """Else one pull in ten had all records read anew."""
    db = open_database(town, RECORDS)
    monkeypatch.setattr(changed, "MOST_NOTED", 50)
    marks = [records_mark(db)]
    for pull in range(6):
        with atomic(db):
            db.execute(
                f"UPDATE listings SET list_price = list_price WHERE row_id BETWEEN {30 * pull + 1} AND {30 * pull + 30}"
            )
            new_state(db)
        told = changed_since(db, marks[-1])
        assert told is not None and len(told.listings) == 30
        assert all(changed_since(db, mark) is None for mark in marks[:-1]), "of which not all is noted any more"
        marks.append(records_mark(db))
    db.close()
