"""What one account keeps in porch.db is not there for another: every room of it, read, changed and deleted."""

from __future__ import annotations

import inspect

import pytest

from rain_porch.core.errors import BadInput, NotFound, OutOfDate
from rain_porch.store.porch import choices, clients, deliveries, due_work, kept, links, searches, shares, views, workups

NOW = "2026-11-02T19:30:00"
MINE, THEIRS = 1, 2
ROOMS = (choices, clients, deliveries, due_work, kept, links, searches, shares, views, workups)


@pytest.fixture
def db(porch):
    porch.execute("INSERT INTO accounts (account_id, name) VALUES (2, 'another')")
    return porch


def test_every_question_and_change_names_the_account():
    """But what the one scheduler and the outbox do for all of them, what tells the door whose something is, and a link."""
    for_all = {"take_next", "finish", "let_wait", "note", "add_paper", "of_workup_for", "owner_of_delivery", "read_by"}
    for room in ROOMS:
        for name, f in inspect.getmembers(room, inspect.isfunction):
            if f.__module__ == room.__name__ and not name.startswith("_") and name not in for_all:
                assert "owner" in inspect.signature(f).parameters, f"{room.__name__}.{name}"


def test_workups(db):
    n = workups.create(db, MINE, "1 Made Street", "{}", "begun", NOW)
    assert workups.titled(db, THEIRS) == [] and workups.listed(db, THEIRS) == []
    for act in (
        lambda: workups.read(db, THEIRS, n),
        lambda: workups.save(db, THEIRS, n, 1, "x", "{}", "x", NOW),
        lambda: workups.undo(db, THEIRS, n, 1, NOW),
        lambda: workups.delete(db, THEIRS, n),
    ):
        with pytest.raises(NotFound):
            act()
    assert workups.read(db, MINE, n)["revision"] == 1


def test_a_save_on_an_older_revision_changes_nothing_and_undo_goes_back_one_by_one(db):
    n = workups.create(db, MINE, "1 Made Street", "first", "begun", NOW)
    assert workups.save(db, MINE, n, 1, "1 Made Street", "second", "kept a comp", NOW) == 2
    with pytest.raises(OutOfDate, match="revision 2, not 1"):
        workups.save(db, MINE, n, 1, "1 Made Street", "lost", "x", NOW)
    assert workups.read(db, MINE, n)["document"] == "second"
    assert workups.undo(db, MINE, n, 2, NOW) == (3, "kept a comp") and workups.read(db, MINE, n)["document"] == "first"
    assert workups.undo(db, MINE, n, 3, NOW) == (3, None)


def test_views_and_searches(db):
    v = views.keep(db, MINE, "Supply", "{}", True)
    s = searches.keep(db, MINE, "Near", "{}")
    assert views.listed(db, THEIRS) == [] and searches.listed(db, THEIRS) == []
    for act in (
        lambda: views.change(db, THEIRS, v, "x", "{}", False),
        lambda: views.delete(db, THEIRS, v),
        lambda: searches.read(db, THEIRS, s),
        lambda: searches.delete(db, THEIRS, s),
    ):
        with pytest.raises(NotFound):
            act()
    assert [r["name"] for r in views.listed(db, MINE)] == ["Supply"] and len(searches.listed(db, MINE)) == 1


@pytest.mark.parametrize("kind", [kept.BULLETIN, kept.LAYOUT])
def test_bulletins_and_layouts(db, kind):
    n = kept.add(db, MINE, kind, "Monthly", "{}")
    other = kept.LAYOUT if kind == kept.BULLETIN else kept.BULLETIN
    assert kept.listed(db, THEIRS, kind) == [] == kept.listed(db, MINE, other)
    for act in (
        lambda: kept.read(db, THEIRS, kind, n),
        lambda: kept.write(db, THEIRS, kind, n, "x", "{}"),
        lambda: kept.delete(db, THEIRS, kind, n),
        lambda: kept.read(db, MINE, other, n),
    ):
        with pytest.raises(NotFound):
            act()
    with pytest.raises(BadInput, match="already"):
        kept.add(db, MINE, kind, "Monthly", "{}")
    assert kept.add(db, THEIRS, kind, "Monthly", "{}") != n, "a name is taken only among one's own"


def test_clients_and_choices(db):
    (c,) = clients.add(db, MINE, [{"name": "Wilma Carrow", "email": "wilma@place.example"}])
    choices.write(db, MINE, "columns", ["price"])
    assert clients.listed(db, THEIRS) == [] and not choices.read(db, THEIRS, "columns")
    for act in (lambda: clients.change(db, THEIRS, c, {"name": "x"}), lambda: clients.delete(db, THEIRS, c)):
        with pytest.raises(NotFound):
            act()
    choices.write(db, THEIRS, "columns", ["year"])
    assert choices.read(db, MINE, "columns") == ["price"] and [p["name"] for p in clients.listed(db, MINE)] == [
        "Wilma Carrow"
    ]


def test_work_that_waits(db):
    n = due_work.add(db, MINE, "backup", "{}", 60, NOW)
    assert due_work.listed(db, THEIRS) == []
    for act in (
        lambda: due_work.read(db, THEIRS, n),
        lambda: due_work.stop(db, THEIRS, n, True),
        lambda: due_work.forget(db, THEIRS, n),
    ):
        with pytest.raises(NotFound):
            act()
    taken = due_work.take_next(db, NOW)
    assert taken and taken["work_id"] == n
    assert due_work.take_next(db, NOW) is None, "what is being done is not taken twice"
