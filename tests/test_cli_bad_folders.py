"""The command line where its folder is not what it should be: a sentence with the remedy, never a traceback, nothing made."""

from __future__ import annotations

import os
import shutil
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest

from rain_porch.cli import main

READING = [
    ["find", "--address", "630 hedgerow terrace"], ["price", "--address", "x"], ["market", "--measure", "closings"], ["workups"], ["undo", "1"],
    ["export", "--kind", "listings", "--out", "x.csv"], ["backup"], ["report", "--workup", "1", "--out", "x.pdf"],
    ["backtest", "--from", "2026-01-01", "--to", "2026-02-01"],
]  # fmt: skip


def told(capsys, args: list[str]) -> str:
    assert main(args) == 1
    out, err = capsys.readouterr()
    assert "Traceback" not in out + err and err.startswith("rain-porch: ")
    return err


@pytest.mark.parametrize("args", READING, ids=lambda a: a[0])
def test_a_mistyped_folder_is_named_and_not_made(tmp_path, capsys, args):
    folder = tmp_path / "no" / "such"
    assert "no such folder" in told(capsys, [*args, "--data", str(folder)])
    assert not folder.exists() and not folder.parent.exists()


def test_an_empty_folder_says_what_to_do_first(tmp_path, capsys):
    assert "no records yet" in (said := told(capsys, ["find", "--address", "x", "--data", str(tmp_path)]))
    assert "rain-porch import" in said and not list(tmp_path.iterdir())


def _text(path):
    path.write_bytes(b"not a database at all, only words of some length, so that it is read as a page " * 40)


def _cut(path):
    whole = path.read_bytes()
    path.write_bytes(whole[: len(whole) // 3])


def _foreign(path):
    path.unlink()
    with sqlite3.connect(path) as db:
        db.execute("CREATE TABLE songs (name)")
        db.execute("PRAGMA user_version = 3")


@pytest.mark.parametrize(("spoil", "words"), [(_text, "damaged"), (_cut, "damaged"), (_foreign, "another program")])
def test_a_damaged_or_foreign_database_is_told_and_left_alone(town, capsys, spoil, words):
    path = town / "records.db"
    spoil(path)
    before = path.read_bytes()
    said = told(capsys, ["find", "--address", "630 hedgerow terrace", "--data", str(town)])
    assert words in said and str(path.parent) in said
    assert path.read_bytes() == before


NOBODY = 65_534


@contextmanager
def as_anybody() -> Iterator[None]:
    """Without root's leave to write anywhere."""
    if os.geteuid():
        yield
        return
    os.seteuid(NOBODY)
    try:
        yield
    finally:
        os.seteuid(0)


def test_a_folder_that_may_not_be_written_is_told(town, capsys):
    with tempfile.TemporaryDirectory(dir="/tmp") as open_to_all:
        folder = Path(open_to_all)
        shutil.copy(town / "records.db", folder)
        folder.chmod(0o555)
        before = sorted(p.name for p in folder.iterdir())
        with as_anybody():
            said = told(capsys, ["undo", "1", "--data", str(folder)])
        assert str(folder) in said and ("written" in said or "opened" in said)
        assert sorted(p.name for p in folder.iterdir()) == before
        folder.chmod(0o755)


@pytest.mark.parametrize("number", ["99999999999999999999", "-1", "1e3", "٣", "x", ""])
@pytest.mark.parametrize("args", [["undo"], ["report", "--out", "x.pdf", "--workup"]], ids=lambda a: a[0])
def test_a_number_that_is_none_is_refused(town, capsys, number, args):
    with pytest.raises(SystemExit) as stop:
        main([*args, number, "--data", str(town)])
    assert (stop.value.code == 2 and "no such number" in capsys.readouterr().err) or number == "-1"


def test_the_errors_of_a_full_disk_and_a_held_file_have_their_words():
    from rain_porch.store.db import unreadable

    folder = Path("/fuller/locked-readonly")  # a name is no reason
    for error, words in (
        (sqlite3.OperationalError("database or disk is full"), "no room"),
        (OSError(28, "No space left on device"), "no room"),
        (sqlite3.OperationalError("attempt to write a readonly database"), "may not be written"),
        (PermissionError(13, "Permission denied"), "may not be read or written"),
        (PermissionError(13, "Permission denied", "/else/where.csv"), "/else/where.csv may not"),
        (FileNotFoundError(2, "No such file or directory", "/fuller/out.csv"), "/fuller/out.csv: No such file"),
        (sqlite3.OperationalError("database is locked"), "another program"),
        (sqlite3.OperationalError("unable to open database file"), "cannot be opened"),
        (sqlite3.DatabaseError("file is not a database"), "damaged"),
    ):
        assert words in unreadable(folder, error)


def test_a_file_to_write_to_is_named_where_it_is_at_fault(town, capsys, tmp_path):
    wanted = tmp_path / "none" / "out.csv"
    args = ["export", "--kind", "listings", "--out", str(wanted), "--data", str(town)]
    if main(args):
        assert "out.csv" in capsys.readouterr().err
