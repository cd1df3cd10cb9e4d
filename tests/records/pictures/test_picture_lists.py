"""Lists of pictures by their addresses: told from listings, brought in and taken back like anything, nothing of a hostile one believed."""

from __future__ import annotations

import json
import os
import zipfile

import pytest

from rain_porch.app.incoming.undoing import undo
from rain_porch.core.errors import Refused
from rain_porch.records.importing import import_file
from rain_porch.records.pictures import picture_lists
from rain_porch.records.pictures.by_address import make_room
from rain_porch.records.unpacking import kind_of_piece, unpacked
from rain_porch.store.backups import check_photos
from rain_porch.store.db import PORCH, Database
from rain_porch.store.records import pictures
from tests.app.test_snapshot import HEAD, sale
from tests.conftest import NOW
from tests.pictures import picture

URL = "https://pictures.example/"


@pytest.fixture
def homes(bring, records):
    bring(HEAD + sale("A1", 300_000) + sale("A2", 310_000))
    Database(records.folder, PORCH).close()
    return records


def of(records, listing: str = "A1"):
    return [(file or address, caption) for file, address, caption in pictures.of_listing(records.live, listing)]


@pytest.mark.parametrize(
    "name, text",
    [
        ("media.csv", f"ListingId,Order,MediaURL,ShortDescription\nA1,2,{URL}b,Kitchen\nA1,1,{URL}a,Front\n"),
        ("media.tsv", f"Resource Record ID\tOrder\tMedia URL\tLong Description\nA1\t2\t{URL}b\tKitchen\nA1\t1.0\t{URL}a\tFront\n"),
        ("media.json", json.dumps([{"ListingId": "A1", "Order": n, "MediaURL": URL + u, "ShortDescription": c} for n, u, c in ((2, "b", "Kitchen"), (1, "a", "Front"))])),
        ("media.csv", f"ListingId,MediaURL,ShortDescription\nA1,{URL}a,Front\nA1,{URL}b,Kitchen\n"),
    ],
)  # fmt: skip
def test_a_list_is_known_by_its_columns_and_its_pictures_stand_in_their_places(homes, bring, name, text):
    done = bring(text, name)
    assert (done.kind, done.rows, done.new, done.rejected) == ("photos", 2, 2, 0)
    assert of(homes) == [(f"{URL}a", "Front"), (f"{URL}b", "Kitchen")]
    again = bring(text, name)
    assert (again.new, again.changed, again.same) == (0, 0, 2)


def test_listings_that_name_their_first_picture_stay_listings(tmp_path):
    file = tmp_path / "listings.csv"
    file.write_text(f"ListingId,ListPrice,StandardStatus,MediaURL\nA1,300000,Active,{URL}a\n")
    assert not picture_lists.is_list(file)


def test_a_list_comes_after_the_listings_that_it_names_in_one_bundle(tmp_path):
    bundle = tmp_path / "all.zip"
    with zipfile.ZipFile(bundle, "w") as out:
        out.writestr("a pictures.csv", f"ListingId,Order,MediaURL\nA1,1,{URL}a\n")
        out.writestr("b listings.csv", HEAD + sale("A1", 300_000))
    with unpacked([bundle], tmp_path) as found:
        assert [kind_of_piece(piece) for piece in found] == ["listings", "photos"]


def test_hostile_rows_are_rejected_with_their_reasons_and_the_others_come(homes, bring):
    rows = [
        f"A1,1,{URL}a,Photo", "A1,2,file:///etc/passwd,Photo", "A1,3,,Photo", f"A1,0,{URL}c,Photo", f"A1,1e9,{URL}d,Photo",
        f"NONE,1,{URL}e,Photo", f",1,{URL}f,Photo", f"A1,1,{URL}g,Photo", f"A2,1,{URL}{'x' * 2_000},Photo", f"A2,1,{URL}a b,Photo",
        f"A2,2,{URL}h,Virtual Tour", f"A2,3,{URL}../../../records.db,Photo",
    ]  # fmt: skip
    done = bring("ListingId,Order,MediaURL,MediaCategory\n" + "\n".join(rows) + "\n", "media.csv")
    assert (done.rows, done.new, done.rejected) == (12, 2, 10), done.reasons
    assert done.reasons["no MediaURL"] == 1 and done.reasons["no picture but a tour"] == 1
    assert done.reasons["the same listing and number twice"] == 1 and done.reasons["no such listing"] == 1
    with homes.connection() as db:
        undo(homes.folder, db, done.import_id, NOW)
    assert (homes.folder / "records.db").is_file() and of(homes) == of(homes, "A2") == []


@pytest.mark.parametrize("head", ["Order,MediaURL", "ListingId,Order"])
def test_a_list_without_what_it_needs_is_refused_with_the_column_s_name(homes, bring, tmp_path, head):
    file = tmp_path / "media.csv"
    file.write_text(f"{head}\nA1,1\n")
    with homes.connection() as db, pytest.raises(Refused, match=r"has no column (ListingId|MediaURL)"):
        import_file(db, file, folder=homes.folder, now=NOW, kind="photos")


def test_an_undo_puts_back_the_file_or_the_address_and_the_caption_of_before(homes, bring, tmp_path):
    bundle = tmp_path / "photos.zip"
    with zipfile.ZipFile(bundle, "w") as out:
        out.writestr("A1_1.jpg", picture(mark="front"))
        out.writestr("A1_2.jpg", picture(mark="kitchen"))
    with homes.connection() as db:
        import_file(db, bundle, folder=homes.folder, now=NOW)
    before = of(homes)
    listed = bring(f"ListingId,Order,MediaURL,ShortDescription\nA1,1,{URL}a,Front\n", "media.csv")
    assert of(homes) == [(f"{URL}a", "Front"), before[1]] and check_photos(homes.folder) == ([], [])
    with homes.connection() as db:
        later = import_file(db, bundle, folder=homes.folder, now=NOW)
    assert (later.changed, later.same) == (1, 1) and of(homes)[0] == (before[0][0], "Front")
    for number, expected in ((later.import_id, [(f"{URL}a", "Front"), before[1]]), (listed.import_id, before)):
        with homes.connection() as db:
            undo(homes.folder, db, number, NOW)
        assert of(homes) == expected
    assert check_photos(homes.folder) == ([], [])


def test_the_oldest_fetched_pictures_make_room(tmp_path):
    for n in range(10):
        (tmp_path / f"{n}").write_bytes(b"x" * 100)
        os.utime(tmp_path / f"{n}", (n, n))
    make_room(tmp_path, 1_000)
    assert len(list(tmp_path.iterdir())) == 10
    make_room(tmp_path, 600)
    assert sorted(p.name for p in tmp_path.iterdir()) == ["5", "6", "7", "8", "9"]
