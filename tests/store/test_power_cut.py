"""The power goes at any write: what was acknowledged is there afterwards, what was not is there whole or not at all."""

from __future__ import annotations

import random
from contextlib import closing
from pathlib import Path

import pytest

from rain_porch.store import db as database
from rain_porch.store.porch import clients, deliveries, workups
from tests.store.power import Connection, Disk, Note, found_after

NOW = "2026-11-02T19:30:00"
OWNER = 1


def worked(folder: Path, synchronous: str) -> tuple[list[Note], int, list[tuple[int, int, int]]]:
    """(all notes, those before the work began, after each acknowledgement: (notes so far, the workup's revision, deliveries))."""
    disk = Disk()
    folder.mkdir()
    db = Connection(folder / "porch.db", synchronous)
    for step in database._steps(database.PORCH):
        db.execute("BEGIN IMMEDIATE;\n" + step.read_text(encoding="utf-8") + "\nCOMMIT;")
    db.execute(f"PRAGMA user_version = {database.newest_schema(database.PORCH)}")
    number = workups.create(db, OWNER, "1 Made Street", "{}", "begun", NOW)  # type: ignore[arg-type]
    began, given = len(disk.notes), 0
    acknowledged = [(began, 1, 0)]
    revision = 1
    for i in range(14):
        document = '{"n": "' + str(i) * 900 + '"}'
        revision = workups.save(db, OWNER, number, revision, "1 Made Street", document, f"change {i}", NOW)  # type: ignore[arg-type]
        if i % 4 == 3:
            revision, _ = workups.undo(db, OWNER, number, revision, NOW)  # type: ignore[arg-type]
        if i % 5 == 4:
            clients.add(db, OWNER, [{"name": f"Client {i}", "email": ""}])  # type: ignore[arg-type]
            delivery = {
                "workup_id": number, "revision": revision, "title": "x", "client": "", "email": "", "subject": "",
                "pages": 1, "state": "by_hand", "list_price": None, "made_at": NOW,
            }  # fmt: skip
            deliveries.add(db, OWNER, delivery, {"pdf": bytes(9000)})  # type: ignore[arg-type]
            given += 1
        acknowledged.append((len(disk.notes), revision, given))
    notes = list(disk.notes)
    db.close()
    disk.unregister()
    return notes, began, acknowledged


def lost(tmp_path: Path, synchronous: str) -> tuple[int, list[str]]:
    """(how many cuts were tried, what was wrong after them)."""
    notes, began, acknowledged = worked(tmp_path / "noted", synchronous)
    assert sum(n[0] == "write" and n[1] == "porch.db" for n in notes[began:]) > 20, "checkpoints are among the cuts"
    rng = random.Random(7)
    tried, wrong = 0, []
    for cut in range(began, len(notes) + 1):
        _, revision, given = max(a for a in acknowledged if a[0] <= cut)
        for how in ("none", "all", "some"):
            folder = tmp_path / f"{cut}-{how}"
            folder.mkdir()
            for name, data in found_after(notes[:cut], how, rng).items():
                (folder / name).write_bytes(data)
            tried += 1
            try:
                with closing(database.open_database(folder, database.PORCH)) as db:
                    fault = db.execute("PRAGMA integrity_check").fetchone()[0]
                    now = db.execute("SELECT revision FROM workups").fetchone()[0]
                    newest = db.execute("SELECT max(revision) FROM workup_revisions").fetchone()[0]
                    there = db.execute("SELECT count(*) FROM deliveries").fetchone()[0]
                    papers = db.execute("SELECT count(*) FROM delivered_papers").fetchone()[0]
            except Exception as error:
                wrong.append(f"cut {cut} {how}: {error}")
                continue
            if fault != "ok" or now < revision or there < given:
                wrong.append(f"cut {cut} {how}: {fault}, revision {now} of {revision}, {there} deliveries of {given}")
            if now != newest or papers != there:
                wrong.append(
                    f"cut {cut} {how}: half done, revision {now} noted as {newest}, {papers} papers of {there}"
                )
    return tried, wrong


def test_a_power_cut_at_any_write_takes_back_nothing_that_was_acknowledged(tmp_path):
    with closing(database.connect(tmp_path / "any.db")) as db:
        assert db.execute("PRAGMA synchronous").fetchone()[0] == 2, "FULL: as it is tried here"
    tried, wrong = lost(tmp_path, "FULL")
    assert tried > 300 and not wrong, wrong[:5]


@pytest.mark.parametrize("synchronous", ["NORMAL"])
def test_the_trial_finds_what_is_lost_where_nothing_is_synced_at_an_acknowledgement(tmp_path, synchronous):
    _, wrong = lost(tmp_path, synchronous)
    assert any("revision" in w and "half done" not in w for w in wrong)
    assert not any("half done" in w for w in wrong), "even then nothing is half there"
