"""What those at work will ask for is made on newer records before they have them."""

from __future__ import annotations

import datetime as dt
import threading
import time
from dataclasses import replace

import numpy as np
import pytest

from rain_porch.app import ahead_process as beside_module
from rain_porch.app import records as of_folder
from rain_porch.app.ahead_process import worked_out_beside
from rain_porch.app.at_work import MOST, STAYS, AtWork
from rain_porch.app.home.homes import HomeRef
from rain_porch.app.lookup import looked_up
from rain_porch.app.office.agent import FOLDERS_OWNER
from rain_porch.app.pricing import opened as opened_module
from rain_porch.app.pricing.past_listings import past_listings
from rain_porch.app.processors import on_one_processor
from rain_porch.app.records import Records
from rain_porch.app.workup.changes import Decide
from rain_porch.app.workup.workups import begin_workup, change_workup, open_workup
from rain_porch.records.importing import import_file
from tests.conftest import NOW


@pytest.fixture
def at_work(agent):
    return AtWork(lambda records, owner: replace(agent, records=records, owner=owner), lambda: NOW)


def test_those_asked_of_last_come_first_and_who_has_left_is_forgotten(agent):
    clock = [NOW]
    held = AtWork(lambda *_: agent, lambda: clock[0])
    held.note(1, 5)
    held.note(1, 6, page=True)
    held.note(2, 5)
    held.note(1, 5)
    assert held.workups() == [(1, 5, False), (2, 5, False), (1, 6, True)]
    clock[0] += STAYS - dt.timedelta(seconds=1)
    held.note(1, 6)
    clock[0] += dt.timedelta(seconds=2)
    assert held.workups() == [(1, 6, False)], "its pages were looked at too long ago"
    for n in range(2 * MOST):
        held.note(1, n)
    assert [n for _, n, _ in held.workups()] == list(range(2 * MOST - 1, MOST - 1, -1))


@pytest.mark.parametrize("is_much", [False, True])
def test_what_their_screens_ask_for_is_there_and_what_has_gone_stops_nothing(agent, at_work, monkeypatch, is_much):
    hit = next(h for h in looked_up(agent, "630 hedgerow terrace").hits if h.kind == "parcel")
    number = begin_workup(agent, HomeRef(hit.kind, hit.key))
    opened = open_workup(agent, number)
    keys = [str(k) for k in opened.standpoint.columns.keys[:3]]
    change_workup(agent, number, opened.revision, Decide(change="decide", listing_ids=keys, choice="kept"))
    at_work.note(FOLDERS_OWNER, number, page=True)
    at_work.note(FOLDERS_OWNER, number + 99)  # no such workup
    newer = Records(agent.records.folder, today=lambda: NOW.date())
    records = newer.snapshot()
    assert not len(records.fits)
    if is_much:  # what takes long comes from the process beside
        monkeypatch.setattr(opened_module, "_priced", lambda _: pytest.fail("it was priced here"))
    at_work.make_ahead(records, agent.records.fits, is_much)
    opened = open_workup(replace(agent, records=records), number)
    made = {key[0] for key in records.fits.kept()}
    assert ("price", *opened.decided) in records.fits.kept() and {"market fit", "past listings"} <= made
    assert len(records.tables) and len(records.papers) == 1
    newer.close()


def test_the_process_beside_answers_for_just_these_records_and_this_program(agent, monkeypatch):
    hit = next(h for h in looked_up(agent, "630 hedgerow terrace").hits if h.kind == "parcel")
    number = begin_workup(agent, HomeRef(hit.kind, hit.key))
    fits = dict(worked_out_beside(agent.records, NOW, [(FOLDERS_OWNER, number), (FOLDERS_OWNER, 99)]))
    with on_one_processor():  # as the service does
        here = past_listings(open_workup(agent, number).standpoint)
    (there,) = [value for key, value in fits.items() if key[0] == "past listings"]
    assert "price" in {key[0] for key in fits} and np.array_equal(there.outcomes.position, here.outcomes.position)
    tested = replace(agent.records, stamp=(agent.records.stamp[0], agent.records.stamp[1] + 1))
    assert worked_out_beside(tested, NOW, [(FOLDERS_OWNER, number)]) == [], "another backtest, other ranges"
    monkeypatch.setattr(beside_module, "code_digest", lambda: "another program")
    assert worked_out_beside(agent.records, NOW, [(FOLDERS_OWNER, number)]) == []


def test_where_all_is_read_anew_the_records_of_before_serve_until_it_is_made(town, tmp_path, monkeypatch):
    go_on, making = threading.Event(), threading.Event()
    held = Records(town, ahead=lambda *_: (making.set(), go_on.wait(20)))
    before = held.snapshot()
    monkeypatch.setattr(of_folder, "MANY", 1)
    monkeypatch.setattr(of_folder, "is_little", lambda changed: False)
    file = tmp_path / "more.csv"
    file.write_text("Listing ID,Status,Address,City,List Price\nZZ1,Active,1 Test Lane,Town,250000\n")
    import_file(held.live, file, folder=town, now=NOW, source="More")
    assert held.snapshot() is before and making.wait(60)
    assert held.snapshot() is before and held.is_behind(before)
    go_on.set()
    until = time.monotonic() + 20
    while (now := held.snapshot()) is before:
        assert time.monotonic() < until
        time.sleep(0.05)
    assert not held.is_behind(now)
    held.close()
