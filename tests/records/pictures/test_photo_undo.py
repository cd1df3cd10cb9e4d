"""An import of photos taken back: what stood before stands again, and no file is left behind or taken from somebody else."""

from __future__ import annotations

import zipfile

import pytest

from rain_porch.app.incoming.undoing import undo
from rain_porch.records.importing import import_file
from rain_porch.store.backups import check_photos
from rain_porch.store.db import PORCH, Database
from rain_porch.store.porch import shares
from rain_porch.store.records import pictures
from tests.app.test_snapshot import HEAD, sale
from tests.conftest import NOW
from tests.pictures import picture

MARKS = (b"front", b"kitchen", b"new kitchen", b"garden", b"hers", b"mine", b"old", b"new")


@pytest.fixture
def album(records, bring, tmp_path):
    bring(HEAD + sale("A1", 300_000))

    def bundle(name: str, **pictures: bytes) -> int:
        path = tmp_path / name
        with zipfile.ZipFile(path, "w") as out:
            for place, data in pictures.items():
                out.writestr(f"A1_{place[1:]}.jpg", picture(mark=data.decode()))
        with records.connection() as db:
            return import_file(db, path, folder=records.folder, now=NOW).import_id

    def shown() -> list[bytes]:
        """The marks of the pictures, in their places."""
        held = [
            (records.folder / "photos" / file).read_bytes() for file, _, _ in pictures.of_listing(records.live, "A1")
        ]
        return [next(mark for mark in MARKS if picture(mark=mark.decode()) == data) for data in held]

    def taken_back(number: int):
        with records.connection() as db:
            return undo(records.folder, db, number, NOW)

    Database(records.folder, PORCH).close()
    return bundle, shown, taken_back


def test_the_pictures_of_before_stand_again_and_the_files_go(records, album):
    bundle, shown, taken_back = album
    first = bundle("first.zip", p1=b"front", p2=b"kitchen")
    second = bundle("second.zip", p2=b"new kitchen", p3=b"garden")
    assert shown() == [b"front", b"new kitchen", b"garden"]
    undone = taken_back(first)
    assert (undone.removed, undone.kept) == (1, (("A1/2", second),)), "what came later stands"
    assert shown() == [b"new kitchen", b"garden"]
    undone = taken_back(second)
    assert (undone.removed, undone.restored) == (1, 1) and shown() == [b"kitchen"]
    assert taken_back(first).removed == 1 and shown() == []
    assert list((records.folder / "photos").iterdir()) == [] and check_photos(records.folder) == ([], [])


def test_a_file_that_an_agent_brought_in_too_stays(records, album):
    bundle, shown, taken_back = album
    number = bundle("first.zip", p1=b"front")
    (file,) = (p.name for p in (records.folder / "photos").iterdir())
    porch = Database(records.folder, PORCH)
    shares.note_file(porch, 1, file)
    porch.close()
    taken_back(number)
    assert shown() == [] and (records.folder / "photos" / file).is_file()


def test_what_is_missing_and_what_nothing_names_is_told(records, album):
    bundle, *_ = album
    bundle("first.zip", p1=b"front")
    (file,) = (records.folder / "photos").iterdir()
    file.rename(file.with_name("stray.jpg"))
    assert check_photos(records.folder) == (
        [f"photos/{file.name} is named by a listing and not there"],
        ["photos/stray.jpg is named by nothing"],
    )
