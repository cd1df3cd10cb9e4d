"""Backups that can be relied on: whole or not made, brought back whole or not at all, never under a running service."""

from __future__ import annotations

import shutil
import sqlite3
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

from rain_porch.core.errors import Refused
from rain_porch.store.backups import back_up, check, restore
from rain_porch.store.db import PORCH, open_database
from rain_porch.store.folder_lock import LOCK, held
from tests.conftest import NOW


@pytest.fixture
def folder(tmp_path) -> Path:
    made = tmp_path / "porch"
    open_database(made, PORCH).close()
    (made / "photos").mkdir()
    (made / "photos" / "a.jpg").write_bytes(b"picture")
    return made


def holder(folder: Path) -> subprocess.Popen[str]:
    """Another process that serves the folder."""
    code = (
        "import datetime, sys, pathlib\nfrom rain_porch.store.folder_lock import held\n"
        f"with held(pathlib.Path({str(folder)!r}), 'serving', datetime.datetime(2026, 11, 2, 19, 30)):\n"
        "    print('holds', flush=True); sys.stdin.read()\n"
    )
    process = subprocess.Popen([sys.executable, "-c", code], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
    assert process.stdout and process.stdout.readline().strip() == "holds"
    return process


def test_nothing_is_restored_under_a_running_service_and_nobody_serves_twice(folder):
    saved = back_up(folder, folder.parent / "saved.zip", NOW)
    process = holder(folder)
    before = {p.name: p.read_bytes() for p in folder.rglob("*") if p.is_file() and p.name != LOCK}
    try:
        for act in (lambda: restore(folder, saved, NOW), lambda: held(folder, "serving", NOW).__enter__()):
            with pytest.raises(Refused) as told:
                act()
            assert f"process {process.pid} (serving, since 2026-11-02 19:30:00)" in told.value.message
        assert {p.name: p.read_bytes() for p in folder.rglob("*") if p.is_file() and p.name != LOCK} == before
        assert [p.name for p in folder.parent.iterdir() if "before" in p.name or "restoring" in p.name] == []
        back_up(folder, folder.parent / "meanwhile.zip", NOW)
    finally:
        process.kill()
        process.wait()
    assert restore(folder, saved, NOW), "the lock went with the process, killed as it was"


def test_what_is_restored_is_what_was_saved_and_what_was_there_is_kept(folder):
    saved = back_up(folder, None, NOW)
    (folder / "photos" / "b.jpg").write_bytes(b"later")
    before = restore(folder, shutil.copy(saved, folder.parent / "kept.zip"), NOW)
    assert [p.name for p in (folder / "photos").iterdir()] == ["a.jpg"] and check(folder) == []
    assert before and (before / "photos" / "b.jpg").read_bytes() == b"later" and not (before / LOCK).exists()


def _spoil_page(path: Path) -> None:
    data = bytearray(path.read_bytes())
    data[4096:8192] = b"\xff" * 4096
    path.write_bytes(bytes(data))


def _newer(path: Path) -> None:
    db = sqlite3.connect(path)
    db.execute("PRAGMA user_version = 999")
    db.close()


def _foreign(path: Path) -> None:
    path.unlink()
    db = sqlite3.connect(path)
    db.execute("CREATE TABLE songs (name)")
    db.close()


def _empty(path: Path) -> None:
    path.write_bytes(b"")


@pytest.mark.parametrize(
    ("spoil", "words"),
    [(_spoil_page, ""), (_newer, "newer version"), (_foreign, "another program"), (_empty, "empty")],
)
def test_check_tells_what_is_wrong_and_neither_backup_nor_restore_blesses_it(folder, spoil, words):
    whole = back_up(folder, folder.parent / "whole.zip", NOW)
    for log in ("-wal", "-shm"):
        (folder / f"{PORCH}.db{log}").unlink(missing_ok=True)
    spoil(folder / f"{PORCH}.db")
    faults = check(folder)
    assert faults and words in faults[0] and f"{PORCH}.db" in faults[0]
    target = folder.parent / "spoilt.zip"
    with pytest.raises(Refused, match="damaged"):
        back_up(folder, target, NOW)
    assert not target.exists() and not target.with_name("spoilt.zip.part").exists()
    with zipfile.ZipFile(target, "w") as bundle:
        bundle.write(folder / f"{PORCH}.db", f"{PORCH}.db")
    with pytest.raises(Refused, match="damaged"):
        restore(folder, target, NOW)
    assert restore(folder, whole, NOW) and check(folder) == []


def test_a_folder_without_anything_is_not_well(tmp_path):
    assert "no folder" in check(tmp_path / "none")[0]
    assert "holds no records and no workups" in check(tmp_path)[0]
    with pytest.raises(Refused, match="nothing to back up"):
        back_up(tmp_path, None, NOW)
