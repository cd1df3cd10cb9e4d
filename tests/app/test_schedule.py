"""Work that waits: due in its turn, back by its rhythm, tried again where it failed, stopped, and never two at once."""

from __future__ import annotations

import dataclasses
import datetime as dt
import time
import zipfile
from contextlib import closing

import pytest

from rain_porch.app import schedule, work_kinds
from rain_porch.app.office.agent import Agent, folders_agent
from rain_porch.core.errors import BadInput, NotFound, Refused
from rain_porch.store import backups
from rain_porch.store.db import PORCH, Database
from rain_porch.store.porch import clients
from rain_porch.store.porch import due_work as store

NOW = dt.datetime(2026, 11, 2, 19, 30)


class Clock:
    def __init__(self) -> None:
        self.at = NOW

    def __call__(self) -> dt.datetime:
        return self.at

    def on(self, **by: int) -> None:
        self.at += dt.timedelta(**by)


@pytest.fixture
def clock() -> Clock:
    return Clock()


@pytest.fixture
def works(agent: Agent, clock: Clock, monkeypatch) -> tuple[schedule.Schedule, list[str]]:
    """A schedule whose work is a list that is written to; "breaks" refuses, "faulty" has a fault of ours."""
    done: list[str] = []

    def write(_: Agent, details) -> str:
        if details["what"] == "breaks":
            raise Refused("The feed did not answer.")
        if details["what"] == "faulty":
            raise ZeroDivisionError
        done.append(details["what"])
        return f"Wrote {details['what']}."

    monkeypatch.setitem(schedule.KINDS, "write", ("Write a word", write, frozenset({"what"})))
    return schedule.Schedule(agent.porch, lambda owner: agent, clock), done


def due_of(agent: Agent, what: int) -> dt.datetime:
    return dt.datetime.fromisoformat(store.read(agent.porch, agent.owner, what)["due_at"])


def test_what_is_due_is_done_in_its_order_and_comes_back_by_its_rhythm(agent, works, clock):
    held, done = works
    often = schedule.plan(agent, "write", {"what": "often"}, 60, NOW - dt.timedelta(minutes=5))
    schedule.plan(agent, "write", {"what": "once"}, None, NOW - dt.timedelta(minutes=10))
    schedule.plan(agent, "write", {"what": "later"}, None, NOW + dt.timedelta(days=1))
    while held.do_next():
        pass
    assert done == ["once", "often"] and [w["name"] for w in schedule.waiting(agent)] == ["Write a word"] * 2
    assert due_of(agent, often) == NOW + dt.timedelta(minutes=55), "by its rhythm, not from when it was done"
    clock.on(hours=5)
    held.do_next()
    assert done[-1] == "often" and due_of(agent, often) == NOW + dt.timedelta(hours=5, minutes=55), (
        "no heap of missed ones"
    )
    assert schedule.waiting(agent)[0]["last_said"] == "Wrote often."


def test_what_is_done_out_of_turn_keeps_its_time_of_day_until_another_is_set(agent, works, clock):
    held, _ = works
    night = NOW.replace(hour=2, minute=0) + dt.timedelta(days=1)
    daily = schedule.plan(agent, "write", {"what": "daily"}, 24 * 60, night)
    schedule.do_now(agent, daily)
    assert held.do_next() and due_of(agent, daily) == night, (
        "pressed in the evening, it is done in the night all the same"
    )
    clock.at = night
    assert held.do_next() and due_of(agent, daily) == night + dt.timedelta(days=1)
    schedule.set_time_of_day(agent, daily, dt.time(6, 30))
    assert due_of(agent, daily) == night.replace(hour=6, minute=30), "today still"
    clock.on(hours=5)
    assert held.do_next() and due_of(agent, daily) == night.replace(hour=6, minute=30) + dt.timedelta(days=1)
    weekly = schedule.plan(agent, "write", {"what": "weekly"}, 7 * 24 * 60, clock.at + dt.timedelta(days=3))
    schedule.set_time_of_day(agent, weekly, dt.time(23, 0))
    assert due_of(agent, weekly) == (clock.at + dt.timedelta(days=3)).replace(hour=23, minute=0)
    with pytest.raises(BadInput, match="every day or every week"):
        schedule.set_time_of_day(agent, schedule.plan(agent, "write", {"what": "a"}, 60, NOW), dt.time(6))


def test_what_fails_is_told_and_tried_again_ever_later_until_it_comes_through(agent, works, clock):
    held, done = works
    n = schedule.plan(agent, "write", {"what": "breaks"}, None, NOW)
    waits = []
    for _ in range(4):
        assert held.do_next() and not held.do_next()
        waits.append(int((due_of(agent, n) - clock.at).total_seconds() // 60))
        clock.at = due_of(agent, n)
    row = schedule.waiting(agent)[0]
    assert (
        waits == [1, 2, 4, 8] and row["failures"] == 4 and row["last_said"] == "The feed did not answer." and not done
    )
    other = schedule.plan(agent, "write", {"what": "faulty"}, 30, clock.at)
    while held.do_next():
        pass
    assert "in the log" in store.read(agent.porch, agent.owner, other)["last_said"], "a fault stops no other work"


def test_stopped_work_waits_and_broken_off_work_takes_its_turn_again(agent, works, clock):
    held, done = works
    n = schedule.plan(agent, "write", {"what": "a"}, 60, NOW)
    store.stop(agent.porch, agent.owner, n, True)
    assert not held.do_next()
    store.stop(agent.porch, agent.owner, n, False)
    taken = store.take_next(agent.porch, NOW.isoformat(timespec="seconds"))
    assert taken["work_id"] == n and not held.do_next(), "it is being done, by somebody who was then killed"
    again = schedule.Schedule(agent.porch, lambda owner: agent, clock)
    assert again.do_next() and done == ["a"]
    with pytest.raises(NotFound):
        store.stop(agent.porch, agent.owner + 1, n, True)
    with pytest.raises(BadInput, match="5 minutes"):
        schedule.plan(agent, "write", {"what": "a"}, 1, NOW)
    with pytest.raises(BadInput, match="no work called"):
        schedule.plan(agent, "dance", {}, None, NOW)


def test_the_thread_does_what_is_due_and_a_backup_holds_all(agent, clock):
    held = schedule.Schedule(agent.porch, lambda owner: agent, clock)
    n = schedule.plan(agent, "backup", {}, 1440, NOW)
    held.start()
    held.wake()
    for _ in range(200):
        if (row := store.read(agent.porch, agent.owner, n))["last_at"]:
            break
        time.sleep(0.1)
    held.end()
    (file,) = (agent.records.folder / backups.DAILY).glob("*.zip")
    assert file.name in row["last_said"] and {"records.db", "porch.db"} <= set(zipfile.ZipFile(file).namelist())


def test_a_feed_is_pulled_by_its_rhythm_and_planned_once(agent, clock, monkeypatch):
    asked: list[str] = []

    def fetch(url: str, headers) -> tuple[int, dict]:
        asked.append(headers["Authorization"])
        return (503, None) if len(asked) == 1 else (200, {"value": []})

    monkeypatch.setattr(work_kinds, "line", lambda nearby: {"get": fetch})
    monkeypatch.setattr("rain_porch.records.feeds.feed_asking.TRIES", 1)
    details = {"address": "https://feed.example/listings", "token": "t", "source": "", "nearby": True}
    for _ in range(2):
        schedule.plan_once(agent, "feed", details, 60, NOW)
    (planned,) = schedule.waiting(agent)
    assert planned["name"] == "Pull a feed of listings, https://feed.example/listings" and "token" not in planned
    held = schedule.Schedule(agent.porch, lambda owner: agent, clock)
    assert held.do_next()
    (planned,) = schedule.waiting(agent)
    assert planned["failures"] == 1 and due_of(agent, planned["work_id"]) == NOW + dt.timedelta(minutes=1)
    clock.on(minutes=1)
    assert held.do_next() and not held.do_next()
    (planned,) = schedule.waiting(agent)
    assert planned["last_said"] == "0 new, 0 changed, 0 rejected." and asked == ["Bearer t"] * 2
    with pytest.raises(BadInput, match="needs address, nearby, source, token"):
        schedule.plan(agent, "feed", {"address": "https://feed.example"}, 60, NOW)


def test_a_backup_a_day_seven_of_them_each_brought_back_whole(records, clock, tmp_path):
    with folders_agent(records.snapshot(), now=lambda: NOW) as agent:
        seven_of_nine(agent, clock, tmp_path)


def seven_of_nine(agent: Agent, clock: Clock, tmp_path) -> None:
    schedule.plan_daily_backup(agent)
    schedule.plan_daily_backup(agent)
    (planned,) = schedule.waiting(agent)
    assert (planned["every_minutes"], due_of(agent, planned["work_id"])) == (1440, dt.datetime(2026, 11, 3, 2))
    held = schedule.Schedule(agent.porch, lambda owner: dataclasses.replace(agent, now=clock), clock)
    for night in range(9):
        clock.at = dt.datetime(2026, 11, 3, 2) + dt.timedelta(days=night)
        clients.add(agent.porch, agent.owner, [{"name": f"Client {night}", "email": ""}])
        assert held.do_next() and not held.do_next()
    kept = sorted((agent.records.folder / backups.DAILY).iterdir())
    assert [f.name[11:21] for f in kept] == [f"2026-11-{day:02}" for day in range(5, 12)]
    for n, file in enumerate(kept, start=3):
        back = tmp_path / f"back{n}"
        backups.restore(back, file, clock.at)
        assert backups.check(back) == []
        with closing(Database(back, PORCH)) as porch:
            assert len(clients.listed(porch, agent.owner)) == n
    schedule.forget(agent, planned["work_id"])
    schedule.plan_daily_backup(agent)
    assert schedule.waiting(agent) == [], "who took it away is not asked again"
