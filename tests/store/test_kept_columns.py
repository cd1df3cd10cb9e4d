"""Columns kept beside the records: the same as those read anew, and never those of another state, program or database."""

from __future__ import annotations

import multiprocessing
import os
import signal
import zipfile
from dataclasses import fields

import numpy as np
import pytest

from rain_porch.app.records import Records
from rain_porch.core.market.book import followed
from rain_porch.core.market.columns import Columns, Words
from rain_porch.core.market.listing_facts import resold_from
from rain_porch.records.importing import import_file
from rain_porch.store import array_file
from rain_porch.store.array_file import write_arrays
from rain_porch.store.backups import back_up, restore
from rain_porch.store.records import kept_columns as kept
from rain_porch.store.records.columns import load_columns
from tests.conftest import NOW

HEAD = "ListingId,StandardStatus,CloseDate,ClosePrice,ListPrice,LivingArea,City,x_view,PropertyCondition\n"


def sale(key: str, price: int, view: str = "good") -> str:
    return f"{key},Closed,2026-05-01,{price},{price},1800,Fennimere,{view},good\n"


def same(one: Columns, other: Columns) -> bool:
    """Every part of two columns, homes numbered alike where the same records are of one home."""
    for f in fields(Columns):
        a, b = getattr(one, f.name), getattr(other, f.name)
        if f.name in ("memo", "_views"):
            continue
        if f.name == "home_id":
            a, b = (np.unique(x, return_index=True, return_inverse=True)[1:] for x in (a, b))
            pairs = {(int(x), int(y)) for x, y in zip(a[1], b[1], strict=True)}
            if len(pairs) != len({x for x, _ in pairs}) or len(pairs) != len({y for _, y in pairs}):
                return False
        elif f.name == "numbers":
            if sorted(a) != sorted(b) or not all(np.array_equal(a[n][:], b[n][:], equal_nan=True) for n in a):
                return False
        elif f.name == "words":
            if sorted(a) != sorted(b) or not all(same_words(a[n], b[n]) for n in a):
                return False
        elif f.name in ("changes", "statuses"):
            if not all(np.array_equal(x, y) for x, y in zip(vars(a).values(), vars(b).values(), strict=False)):
                return False
        elif f.name in ("keys", "row_of"):
            if list(a) != list(b) or [one.row_of[k] for k in a] != [other.row_of[k] for k in b]:
                return False
        elif isinstance(a, np.ndarray):
            if not np.array_equal(a, b) or a.dtype != b.dtype:
                return False
        elif a != b:
            return False
    return True


def same_words(one: Words, other: Words) -> bool:
    """The same word in each row, and none that no row has, whatever their codes."""
    held = [np.array([*w.words, ""], dtype=object)[w.codes] for w in (one, other)]
    return (
        sorted(one.words) == sorted(other.words)
        and one.codes.dtype == other.codes.dtype
        and list(held[0]) == list(held[1])
    )


def read_both(folder) -> tuple[Columns, Columns]:
    held = Records(folder, today=lambda: NOW.date())
    with held.snapshot().db.one() as db:
        anew = load_columns(db)
    got = held.snapshot().columns
    held.close()
    return got, anew


def is_mapped(columns: Columns) -> bool:
    return not columns.close.flags.writeable


def test_columns_from_the_file_are_those_read_anew(town):
    got, anew = read_both(town)
    assert is_mapped(got) and not is_mapped(anew) and same(got, anew)
    assert len(got) > 6000 and "numbers" and got.changes.rows.size and got.statuses.rows.size
    assert "by home" in got.memo.kept() and not anew.memo.kept(), "what takes long to work out is kept too"
    assert resold_from(got) == resold_from(anew) != {}
    for a, b in zip(followed(got), followed(anew), strict=True):
        assert np.array_equal(a, b)
    order, homes = got.by_home()  # homes are numbered otherwise each time
    assert np.array_equal(order, np.argsort(got.home_id, kind="stable")) and np.array_equal(homes, got.home_id[order])


def test_an_import_an_undo_and_what_is_said_of_words_make_them_anew(bring, records):
    said = []
    for file in (sale("A1", 300_000), sale("A2", 310_000, "poor"), sale("A1", 305_000, "fair")):
        bring(HEAD + file)
        got, anew = read_both(records.folder)
        assert same(got, anew)
        said.append(got.numbers["close_price"][got.row_of["A1"]])
        assert is_mapped(read_both(records.folder)[0])
    assert said == [300_000, 300_000, 305_000]


def test_a_backup_brought_back_never_meets_the_columns_of_what_came_after(bring, records, tmp_path):
    """Both states have the same number of changes behind them: the mark tells them apart."""
    bring(HEAD + sale("A1", 300_000))
    file = back_up(records.folder, None, NOW)
    bring(HEAD + sale("A1", 999_000))
    assert read_both(records.folder)[0].numbers["close_price"][0] == 999_000
    number = records.snapshot().columns.version
    records.close()
    restore(records.folder, file, NOW)
    again = Records(records.folder, today=lambda: NOW.date())
    assert again.snapshot().columns.numbers["close_price"][0] == 300_000
    with again.connection() as db:
        other = tmp_path / "other.csv"
        other.write_text(HEAD + sale("A1", 444_000))
        import_file(db, other, folder=records.folder, now=NOW)
    assert again.snapshot().columns.version == number
    again.close()
    held, anew = read_both(records.folder)
    assert held.numbers["close_price"][0] == 444_000 and same(held, anew)


@pytest.mark.parametrize("spoil", ["cut", "byte", "other program", "other records", "nonsense", "folder", "gone"])
def test_a_file_that_does_not_fit_is_made_anew(town, spoil, monkeypatch):
    path = town / kept.FILE
    whole = path.read_bytes()
    if spoil == "cut":
        path.write_bytes(whole[: len(whole) * 2 // 3])
    elif spoil == "byte":
        path.write_bytes(whole[:200_000] + bytes([whole[200_000] ^ 1]) + whole[200_001:])
    elif spoil == "other program":
        monkeypatch.setattr(kept, "code_digest", lambda: "of another day")
    elif spoil == "other records":
        write_arrays(path, "another state of another program", {}, {"close": np.zeros(9)})
    elif spoil == "nonsense":
        path.write_bytes(b"{}")
    else:
        path.unlink()
        if spoil == "folder":
            path.mkdir()
    got, anew = read_both(town)
    assert same(got, anew) and not is_mapped(got)
    if spoil != "folder":  # which is not ours to remove
        assert is_mapped(read_both(town)[0])


def test_many_columns_stand_on_their_file_once_they_are_kept_also_where_another_has_put_its_own_there(
    town, monkeypatch
):
    (town / kept.FILE).unlink()
    held = Records(town, today=lambda: NOW.date())
    monkeypatch.setattr(kept, "MANY", 1)
    with held.snapshot().db.one() as db:
        (town / kept.FILE).unlink()
        read, keep = kept.read_columns(town, db)
        assert keep is not None and not is_mapped(read) and not (town / kept.FILE).exists()
        homes, words = read.home_id.copy(), {name: list(w.words) for name, w in read.words.items()}
        replace, other = os.replace, town / "another's"

        def and_then_another(part, path):
            replace(part, path)
            other.write_bytes(b"another's")
            replace(other, path)

        monkeypatch.setattr("rain_porch.store.array_file.os.replace", and_then_another)
        assert keep()
        assert is_mapped(read) and same(read, load_columns(db))
        assert np.array_equal(read.home_id, homes) and words == {name: list(w.words) for name, w in read.words.items()}
        order, sorted_ids = read.by_home()
        assert np.array_equal(sorted_ids, read.home_id[order]), (
            "homes are numbered as they were when that was worked out"
        )
    held.close()


def test_columns_that_cannot_be_kept_are_used_all_the_same(town, monkeypatch):
    (town / kept.FILE).unlink()
    monkeypatch.setattr("rain_porch.store.array_file.os.replace", _full)
    got, anew = read_both(town)
    assert same(got, anew) and not list(town.glob("records.columns*"))


def _full(*_):
    raise OSError(28, "No space left on device")


def _reads(folder, ready) -> None:
    ready.wait(20)
    got, anew = read_both(folder)
    os._exit(0 if same(got, anew) else 3)


def test_two_servers_that_start_at_once_read_the_same(town):
    (town / kept.FILE).unlink()
    fork = multiprocessing.get_context("fork")
    ready = fork.Event()
    both = [fork.Process(target=_reads, args=(town, ready)) for _ in range(2)]
    for p in both:
        p.start()
    ready.set()
    for p in both:
        p.join(60)
    assert [p.exitcode for p in both] == [0, 0] and is_mapped(read_both(town)[0])


@pytest.mark.parametrize("at", [1, 2, 40, 10_000])
def test_killed_while_it_is_written_it_is_not_there_and_the_next_sweeps_up(town, at):
    """Killed after so many arrays, and last with all written and the file not yet in its place."""
    (town / kept.FILE).unlink()
    process = multiprocessing.get_context("fork").Process(target=_dies_writing, args=(town, at))
    process.start()
    process.join(60)
    (left,) = town.glob("records.columns*")
    assert process.exitcode == -signal.SIGKILL and left.name != kept.FILE
    os.utime(left, (0, 0))
    got, anew = read_both(town)
    assert same(got, anew) and [p.name for p in town.glob("records.columns*")] == [kept.FILE]
    assert is_mapped(read_both(town)[0])


def _dies_writing(folder, at) -> None:
    """A reader that is killed when it has written `at` arrays, or when it would put the file in its place."""

    class Dying:
        def __init__(self, **how):
            self.file = made(**{**how, "buffering": 0})
            self.name, self.n = self.file.name, 0

        def __enter__(self):
            return self

        def __exit__(self, *_):
            self.file.close()

        def flush(self):
            self.file.flush()

        def write(self, data):
            self.file.write(data)
            self.n += 1
            if self.n >= at:
                os.kill(os.getpid(), signal.SIGKILL)

    made, array_file.tempfile.NamedTemporaryFile = array_file.tempfile.NamedTemporaryFile, Dying
    array_file.os.replace = lambda *_: os.kill(os.getpid(), signal.SIGKILL)
    Records(folder).snapshot()


def test_no_backup_holds_them(town):
    file = back_up(town, None, NOW)
    assert kept.FILE not in zipfile.ZipFile(file).namelist()
