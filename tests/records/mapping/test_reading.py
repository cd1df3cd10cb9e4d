"""A large file is read by a process of its own: the same values, the same faults, and nothing left running."""

from __future__ import annotations

import subprocess
from pathlib import Path

import pytest

from rain_porch.core.errors import Refused
from rain_porch.records import read_ahead as ahead
from rain_porch.records.mapping.mapping import Part
from rain_porch.records.mapping.reading import Reader, packed, unpacked

PARTS = (
    Part("listing_id", ("Id",)),
    Part("close_price", ("Price",), times=1000.0),
    Part("close_date", ("Year", "Month"), how="date"),
    Part("subdivision_name", ("Place",)),
)
COLUMNS = ("Id", "Price", "Year", "Month", "Place")


@pytest.fixture
def file(tmp_path: Path) -> Path:
    path = tmp_path / "sales.csv"
    rows = [
        f'{n},{"dear" if n == 1234 else n % 700},2020,{1 + n % 12},"Gate, {n % 7}"' + (",more" if n == 999 else "")
        for n in range(25_000)
    ]
    path.write_text(",".join(COLUMNS) + "\n" + "\n".join(rows) + "\n7,1\n")
    return path


def test_a_process_of_its_own_reads_the_same(file, monkeypatch):
    with ahead.read_ahead(file, "listings", PARTS, COLUMNS) as chunks:
        here = list(chunks)
    monkeypatch.setattr(ahead, "LARGE", 0)
    with ahead.read_ahead(file, "listings", PARTS, COLUMNS) as chunks:
        beside = list(chunks)
    assert beside == here and len(here) > 2 and sum(len(c.numbers) for c in here) == 25_001
    assert here[0].came["close_price"][5] == 5000.0 and here[0].came["close_date"][5] == "2020-06-15"
    assert here[0].unread == {"close_price": [1234]} and here[0].broken == {999: "more cells than columns"}
    assert unpacked(here[-1].cells[-1]) == ["7", "1"] and here[-1].came["subdivision_name"][-1] is None


def test_it_ends_when_nobody_reads_on_and_a_refusal_comes_through(file, tmp_path, monkeypatch):
    monkeypatch.setattr(ahead, "LARGE", 0)
    started: list[subprocess.Popen[bytes]] = []
    real = subprocess.Popen

    def popen(*args, **kwargs):
        started.append(real(*args, **kwargs))
        return started[-1]

    monkeypatch.setattr(ahead.subprocess, "Popen", popen)
    with ahead.read_ahead(file, "listings", PARTS, COLUMNS) as chunks:
        next(chunks)
    assert started[0].poll() is not None
    gone = tmp_path / "cut.json"
    gone.write_text('[{"Id": 1}, {"Id"')
    with pytest.raises(Refused, match="no complete JSON"), ahead.read_ahead(gone, "listings", PARTS, COLUMNS) as chunks:
        next(chunks)


def test_rows_of_any_length_become_columns(tmp_path):
    rows = [(n, ["x"] * (n % 4)) for n in range(600)]
    read = Reader("listings", (Part("listing_id", ("a",)), Part("city", ("c",))), ("a", "b", "c")).read(rows)
    assert list(read.came["city"][:8]) == [None, None, None, "x"] * 2 and len(read.came["listing_id"]) == 600


@pytest.mark.parametrize(
    "cells", [[""], ["a", ""], ["", "\x1f", "b"], ["\x1f\x1e", "\x1d"], ["\x00no row"], ["x"] * 55]
)
def test_packed_cells_are_the_same_again(cells):
    assert unpacked(packed(cells)) == cells
