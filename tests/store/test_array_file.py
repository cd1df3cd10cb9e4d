"""Arrays kept in a file come back as they were, or not at all: never another value."""

from __future__ import annotations

import tempfile
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra import numpy as hnp

from rain_porch.store.array_file import put_in_file, read_arrays, write_arrays

KINDS = st.sampled_from(["f8", "i8", "i4", "i2", "i1", "u1", "u2", "u4", "?"])
arrays = hnp.arrays(KINDS, hnp.array_shapes(max_dims=2, min_side=0, max_side=20))


@given(st.dictionaries(st.text(max_size=6), arrays, max_size=5), st.dictionaries(st.text(max_size=3), st.integers()))
def test_arrays_come_back_as_they_were_and_cannot_be_written(held, told):
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "held"
        written, back = write_arrays(path, "one state", told, held), read_arrays(path, "one state")
        assert written is not None and back is not None and back[0] == told
        for there in (written, back[1]):
            assert there.keys() == held.keys()
            for name, array in held.items():
                assert there[name].dtype == array.dtype and there[name].tobytes() == array.tobytes()
                assert there[name].shape == array.shape and not there[name].flags.writeable
        assert read_arrays(path, "another state") is None
        assert [p.name for p in Path(folder).iterdir()] == ["held"], "nothing half written is left beside"


def test_what_is_one_value_throughout_takes_the_room_of_one(tmp_path):
    assert write_arrays(tmp_path / "a", "", {}, {"same": np.broadcast_to(np.float64(2.5), 1_000_000)})
    assert (tmp_path / "a").stat().st_size < 1000
    _, back = read_arrays(tmp_path / "a", "") or pytest.fail("unread")
    assert back["same"].shape == (1_000_000,) and back["same"].strides == (0,) and set(back["same"][:9]) == {2.5}


@pytest.fixture(scope="module")
def whole(tmp_path_factory) -> bytes:
    path = tmp_path_factory.mktemp("arrays") / "held"
    rng = np.random.default_rng(1)
    write_arrays(path, "s", {"a": 1}, {"x": rng.normal(size=300), "y": rng.integers(0, 9, 77).astype(np.int8)})
    return path.read_bytes()


@given(at=st.floats(0, 1), change=st.integers(1, 255))
def test_no_byte_can_be_another_unseen(whole, at, change):
    """Any one byte changed: it is none, or, in the room between two arrays, it tells the same."""
    place = min(int(at * len(whole)), len(whole) - 1)
    spoilt = bytearray(whole)
    spoilt[place] ^= change
    _same_or_none(whole, bytes(spoilt))


@given(st.floats(0, 1))
def test_a_file_that_was_cut_is_none(whole, at):
    with tempfile.TemporaryDirectory() as folder:
        (Path(folder) / "held").write_bytes(whole[: int(at * (len(whole) - 1))])
        assert read_arrays(Path(folder) / "held", "s") is None


@pytest.mark.parametrize("text", [b"", b"\0" * 5000, b"RPARRAYS" + b"\xff" * 400])
def test_what_is_no_such_file_is_none(tmp_path, text):
    (tmp_path / "held").write_bytes(text)
    assert read_arrays(tmp_path / "held", "s") is None and read_arrays(tmp_path / "nowhere", "s") is None
    (tmp_path / "folder").mkdir()
    assert read_arrays(tmp_path / "folder", "s") is None and write_arrays(tmp_path / "no" / "place", "", {}, {}) is None


def _same_or_none(whole: bytes, spoilt: bytes) -> None:
    with tempfile.TemporaryDirectory() as folder:
        (Path(folder) / "whole").write_bytes(whole)
        (Path(folder) / "spoilt").write_bytes(spoilt)
        good, bad = (read_arrays(Path(folder) / name, "s") for name in ("whole", "spoilt"))
        assert good is not None
        if bad is not None:
            assert bad[0] == good[0]
            assert {n: a.tobytes() for n, a in bad[1].items()} == {n: a.tobytes() for n, a in good[1].items()}


@given(st.lists(hnp.arrays(KINDS, st.integers(0, 40)), max_size=6), st.integers(0, 800))
def test_arrays_put_in_a_file_that_nobody_sees_are_as_they_were(held, size):
    with tempfile.TemporaryDirectory() as folder:
        put = put_in_file(Path(folder), size)
        there = [put(array) for array in held]
        assert not list(Path(folder).iterdir())
        del put
        for array, now in zip(held, there, strict=True):
            assert now.dtype == array.dtype and now.tobytes() == array.tobytes()
            assert now is array or not now.flags.writeable, "in memory only where the file has no room"
        if held and held[0].size and held[0].nbytes <= size:
            assert there[0] is not held[0]


@pytest.mark.parametrize("full", ["takes a part", "says so", "beforehand"])
def test_where_the_disk_has_no_room_arrays_stay_in_memory(tmp_path, monkeypatch, full):
    """A part that is missing would read as nought."""
    array = np.arange(9.0)
    assert put_in_file(tmp_path / "no" / "place", 1000)(array) is array
    made = tempfile.TemporaryFile

    class Full:
        def __init__(self, **how):
            self.file = made(**how)

        def __getattr__(self, name):
            return getattr(self.file, name)

        def write(self, data):
            if full == "takes a part":
                return self.file.write(data[:40])
            raise OSError(28, "No space left on device")

    def refused(*_):
        raise OSError(28, "No space left on device")

    if full == "beforehand":
        monkeypatch.setattr("rain_porch.store.array_file.os.posix_fallocate", refused)
    else:
        monkeypatch.setattr(tempfile, "TemporaryFile", Full)
    assert put_in_file(tmp_path, 1000, source=array)(array) is array
