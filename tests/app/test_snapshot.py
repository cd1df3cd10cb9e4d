"""One request reads one version of the records, whatever comes in meanwhile."""

from __future__ import annotations

import threading
import time
import weakref

import numpy as np
import pytest

from rain_porch.app import clearing
from rain_porch.app import records as of_folder
from rain_porch.app import snapshot as of_records
from rain_porch.app.home.homes import HomeRef
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.pricing.opened import priced, suggested
from rain_porch.app.workup.workups import begin_workup, change_workup, open_workup, undo_change
from rain_porch.core.market.measures import Market
from rain_porch.core.search.search import Search
from tests.app.workup.test_changes import change

HEAD = "ListingId,StandardStatus,ListPrice,ClosePrice,CloseDate,City,Latitude,Longitude\n"


def sale(key: str, price: int) -> str:
    return f"{key},Closed,{price},{price},2026-05-01,Ferry,41.2,-38.4\n"


def test_what_was_begun_on_one_version_ends_on_it(bring, records):
    bring(HEAD + sale("A1", 300_000) + sale("A2", 310_000))
    before = records.snapshot()
    assert records.snapshot() is before, "nothing has changed"
    mask = before.area_mask(("Ferry",))
    bring(HEAD + sale("A1", 333_000) + sale("A3", 320_000), "more.csv")
    now = records.snapshot()
    assert now is not before and now.stamp > before.stamp

    def price_of(held, key: str) -> float | None:
        row = held.db.execute("SELECT close_price FROM listings WHERE listing_id = :k", {"k": key}).fetchone()
        return None if row is None else row[0]

    assert (price_of(before, "A1"), price_of(before, "A3")) == (300_000, None)
    assert (price_of(now, "A1"), price_of(now, "A3")) == (333_000, 320_000)
    for held, n in ((before, 2), (now, 3)):
        masks = held.masks_of(Search(areas=("Ferry",), not_areas=("Ferr*",)))
        assert all(len(m) == len(held.columns) == n for m in masks.values())
    assert mask.size == 2


def test_an_import_in_the_middle_of_a_mask_leaves_no_mask_of_another_length(bring, records, monkeypatch):
    bring(HEAD + sale("A1", 300_000) + sale("A2", 310_000))
    before = records.snapshot()
    shapes = of_records.areas.area_shape

    def slow(db, name):
        if db is before.db:
            bring(HEAD + "".join(sale(f"B{i}", 300_000 + i) for i in range(5)), "meanwhile.csv")
            assert len(records.snapshot().columns) == 7
        return shapes(db, name)

    monkeypatch.setattr(of_records.areas, "area_shape", slow)
    assert before.area_mask(("Ferry",)).tolist() == [True, True]
    assert records.snapshot().area_mask(("Ferry",)).sum() == 7


def test_what_is_made_ahead_of_newer_records_does_not_hold_those_of_before(bring, records):
    making, go_on = threading.Event(), threading.Event()
    held = of_folder.Records(records.folder, ahead=lambda *_: (making.set(), go_on.wait(20)))
    bring(HEAD + sale("A1", 300_000))
    before = weakref.ref(held.snapshot())
    bring(HEAD + sale("A2", 300_000), "more.csv")
    try:
        assert len(held.snapshot().columns) == 2 and making.wait(20)
        assert before() is None
    finally:
        go_on.set()
        held.close()


def test_an_old_snapshot_goes_with_its_last_reader_and_the_log_is_begun_anew(bring, records, monkeypatch):
    monkeypatch.setattr(clearing, "SECONDS", 0.0)
    log = records.folder / "records.db-wal"
    bring(HEAD + sale("A1", 300_000))
    held = records.snapshot()
    readers, gone, columns = held.db, weakref.ref(held), weakref.ref(held.columns)
    Market(held.columns, np.arange(1), 0)  # its book holds the columns, and they hold it
    bring(HEAD + sale("A2", 300_000), "more.csv")
    records.snapshot()
    assert readers.execute("SELECT count(*) FROM listings").fetchone()[0] == 1
    records.snapshot()
    time.sleep(0.2)
    assert log.stat().st_size, "he reads what is not to be taken from under him"
    del held, readers
    assert gone() is None
    until = time.monotonic() + 20
    while log.stat().st_size or columns() is not None:
        assert time.monotonic() < until
        now = records.snapshot()
        time.sleep(0.05)
    assert now.db.execute("SELECT count(*) FROM listings").fetchone()[0] == len(now.columns) == 2
    bring(HEAD + sale("A3", 300_000), "third.csv")
    assert now.db.execute("SELECT count(*) FROM listings").fetchone()[0] == 2, "it is frozen still"


def test_readers_and_an_importer_side_by_side_never_meet_a_half(bring, records):
    bring(HEAD + "".join(sale(f"A{i}", 300_000) for i in range(40)))
    faults, done = [], threading.Event()

    def read() -> None:
        while not done.is_set():
            held = records.snapshot()
            n = len(held.columns)
            counted = held.db.execute("SELECT count(*), count(DISTINCT close_price) FROM listings").fetchone()
            mask = held.area_mask(("Ferry",))
            if (counted[0], counted[1], int(mask.sum())) != (n, 1, n):
                faults.append((n, tuple(counted), int(mask.sum())))

    threads = [threading.Thread(target=read) for _ in range(3)]
    for t in threads:
        t.start()
    for turn in range(6):  # every price moves at once, and more homes come
        bring(HEAD + "".join(sale(f"A{i}", 310_000 + turn) for i in range(40 + 10 * turn)), f"{turn}.csv")
    done.set()
    for t in threads:
        t.join()
    assert not faults


def test_one_price_is_worked_out_once_for_a_state_and_never_given_for_another(town, records, monkeypatch):
    from rain_porch.app.pricing import opened as of_workup
    from rain_porch.app.records import Records

    held = Records(town)
    real, calls = of_workup.price, []
    monkeypatch.setattr(of_workup, "price", lambda *a, **k: calls.append(1) or real(*a, **k))
    with folders_agent(held.snapshot()) as agent:
        row = agent.records.db.execute(
            "SELECT parcel_number FROM parcels WHERE unparsed_address = '630 Hedgerow Terrace'"
        ).fetchone()
        n = begin_workup(agent, HomeRef("parcel", row[0]))
        change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
        first = priced(open_workup(agent, n))
        assert priced(open_workup(agent, n)) is first and len(calls) == 1
        key = first.comps[0].listing_id
        change(agent, n, change="decide", listing_ids=[key], choice="undecided")
        second = priced(open_workup(agent, n))
        assert len(second.comps) == len(first.comps) - 1 and len(calls) == 2
        # the same state again, under another number of revision; and another state
        undo_change(agent, n, open_workup(agent, n).revision)
        assert priced(open_workup(agent, n)) is first
        change(agent, n, change="decide", listing_ids=[first.comps[1].listing_id], choice="undecided")
        third = priced(open_workup(agent, n))
        assert {c.listing_id for c in third.comps} != {c.listing_id for c in second.comps}
        assert third.value != pytest.approx(second.value, abs=0.01) and np.isfinite(third.value)
    held.close()


def test_a_change_needs_the_revision_it_was_made_on(town):
    from rain_porch.app.records import Records
    from rain_porch.app.workup.changes import SetClient
    from rain_porch.core.errors import OutOfDate

    held = Records(town)
    with folders_agent(held.snapshot()) as agent:
        row = agent.records.db.execute("SELECT parcel_number FROM parcels LIMIT 1").fetchone()
        n = begin_workup(agent, HomeRef("parcel", row[0]))
        won, lost = [], []

        def save(name: str) -> None:
            try:
                won.append(change_workup(agent, n, 1, SetClient(change="set_client", client=name)))
            except OutOfDate:
                lost.append(name)

        threads = [threading.Thread(target=save, args=(f"Client {i}",)) for i in range(8)]
        for t in threads:
            t.start()
        for t in threads:
            t.join()
        assert len(won) == 1 and len(lost) == 7 and open_workup(agent, n).revision == 2
    held.close()


def test_while_many_new_records_are_read_those_of_before_are_used_at_once(bring, records, monkeypatch):
    bring(HEAD + sale("A1", 300_000))
    before = records.snapshot()
    bring(HEAD + sale("A2", 310_000), "more.csv")
    go_on, reading = threading.Event(), threading.Event()
    load = of_folder.read_columns

    def slow(folder, db, before):
        reading.set()
        go_on.wait(60)
        return load(folder, db, before)

    monkeypatch.setattr(of_folder, "MANY", 1)
    monkeypatch.setattr(of_folder, "read_columns", slow)
    assert records.snapshot() is before and reading.wait(20)
    asked = [threading.Thread(target=lambda: seen.append(records.snapshot() is before)) for _ in range(5)]
    seen: list[bool] = []
    for t in asked:
        t.start()
    for t in asked:
        t.join(10)
    assert seen == [True] * 5, "nobody waits for what is being read"
    go_on.set()
    for _ in range(200):
        if records.snapshot() is not before:
            break
        threading.Event().wait(0.05)
    assert len(records.snapshot().columns) == 2


def test_long_work_that_needs_other_long_work_waits_for_nobody_who_waits_for_it(agent):
    """Two homes are priced at once: one begins what the other needs, and must not wait for the turn that the other has."""
    records, begun, made = agent.records, threading.Event(), []

    def second() -> str:
        begun.set()
        threading.Event().wait(0.2)  # by now the first asks for the shared one too
        return records.fitted("shared", lambda: "shared") + " and second"

    def first() -> None:
        begun.wait(10)
        made.append(records.fitted("shared", lambda: "shared"))

    threads = [
        threading.Thread(target=first, daemon=True),
        threading.Thread(target=lambda: made.append(records.fitted("second", second)), daemon=True),
    ]
    for t in threads:
        t.start()
    for t in threads:
        t.join(20)
    assert sorted(made) == ["shared", "shared and second"]
    assert records.fitted("second", lambda: "made again") == "shared and second"
