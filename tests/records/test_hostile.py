"""Files that mean harm or are badly broken: refused or told row by row, memory bounded, nothing half done."""

from __future__ import annotations

import io
import json
import resource
import zipfile

import pytest

from rain_porch.core.errors import Refused
from rain_porch.records.importing import import_file
from rain_porch.store.records import homes
from rain_porch.store.records.incoming import imports
from tests.conftest import NOW
from tests.pictures import picture

HEAD = "ListingId,StandardStatus,Latitude,Longitude,LivingArea,CloseDate,ClosePrice,City\n"
GOOD = "A{n},Closed,41.2,-38.4,1800,2025-05-01,400000,Alder\n"
PNG = picture("PNG")


def hostile(kind: str) -> tuple[str, dict[str, int]]:
    """A file of a kind whose rows are each wrong in their own way, and how often each outcome is due."""
    if kind == "listings":
        rows = [
            GOOD.format(n=1),
            "A2,Closed,41.2,-38.4,1800,9999-12-31,400000,Alder\n",  # suspect: a day to come
            "A3,Closed,-38.4,41.2,-1200,2025-05-01,400000,Alder\n",  # suspect: an area below nothing
            GOOD.format(n=1).replace("400000", "1"),  # its key twice
            "A5,Closed,41.2,-38.4,1800,2025-05-01,400000,\"=cmd|'/c calc'!A0\"\n",
            "A6,Closed,41.2,-38.4,1800,2025-05-01,400000,Al\x00der\n",
            "A7,Closed,41.2,-38.4,1800,2025-05-01,400000," + "x" * 30_000 + "\n",  # blanked: too long for a town
            "A8,Closed,41.2,-38.4,1800,2025-05-01,400000," + "y" * 2_000_000 + "\n",  # no readable row
            "A9,Closed,41.2,-38.4,1800,2025-05-01,1_000,Alder\n",  # unreadable price
            "A10,Closed,41.2,-38.4,1800,31/31/2025,400000,Alder\n",
            "short\n",
            GOOD.format(n=12).strip() + ",one,too,many\n",
        ]
        return HEAD + "".join(rows), {"new": 6, "suspect": 2, "rejected": 6}
    if kind == "parcels":
        rows = ["P1,1800,1980\n", "P1,1900,1980\n", ",1800,1980\n", "P3,-5,20231\n", "P4,wide,1980\n", "P1,1800,1980\n"]
        return "ParcelNumber,LivingArea,YearBuilt\n" + "".join(rows), {"new": 3, "suspect": 1, "rejected": 2, "same": 1}
    if kind == "transfers":
        rows = ["P1,2025-05-01,400000,Deed\n", ",2025-05-01,1,Deed\n", "P2,,1,Deed\n", "P3,2025-05-01,lots,Deed\n"]
        return "ParcelNumber,SaleDate,Price,DocumentType\n" + "".join(rows), {"new": 1, "rejected": 3}
    if kind == "assessments":
        rows = ["P1,2025,400000\n", "P1,,400000\n", ",2025,400000\n", "P2,2025,1e999\n", "P3,12025,5\n"]
        return "ParcelNumber,TaxYear,TotalValue\n" + "".join(rows), {"new": 3, "rejected": 2, "suspect": 1}
    if kind == "history":
        rows = [
            "A1,2025-05-01T09:00:00,Price Change,1,2\n",
            "A1,yesterday,Sold,,\n",
            ",2025-05-01,Sold,,\n",
            "A1,2025-05-01,,,\n",
        ]
        return "ListingId,Timestamp,Event,OldValue,NewValue\n" + "".join(rows), {"new": 1, "rejected": 3}
    if kind == "series":
        rows = ["2025-05-01,6.5\n", "2025-05-01,7.5\n", "soon,6.5\n", "2025-05-08,high\n", "2025-05-15,\n"]
        return "Date,Value\n" + "".join(rows), {"new": 2, "rejected": 3}
    square = [[0, 0], [1, 0], [1, 1], [0, 1], [0, 0]]
    features = [
        {"type": "Feature", "properties": {"name": name, "kind": "area"}, "geometry": {"type": "Polygon", "coordinates": [ring]}}
        for name, ring in (
            ("Good", square), ("Bow", [[0, 0], [1, 1], [1, 0], [0, 1], [0, 0]]), ("Good", square),
            ("Off the earth", [[0, 0], [0, 400], [1, 400], [0, 0]]), ("A line", [[0, 0], [1, 1], [0, 0], [0, 0]]),
            ("Broken", [["a", "b"]]), ("", square),
        )
    ]  # fmt: skip
    return json.dumps({"type": "FeatureCollection", "features": [*features, None, 7]}), {"new": 2, "rejected": 7}


@pytest.mark.parametrize("kind", ["listings", "parcels", "transfers", "assessments", "history", "series", "areas"])
def test_a_file_of_hostile_rows_is_accounted_for_row_by_row(bring, records, kind):
    text, due = hostile(kind)
    result = bring(text, f"hostile.{'geojson' if kind == 'areas' else 'csv'}", kind=kind)
    told = {name: getattr(result, name) for name in ("new", "suspect", "rejected", "same")}
    assert told == {"suspect": 0, "same": 0, **due}, result.reasons
    assert result.new + result.changed + result.same + result.rejected == result.rows
    kept = imports.reported_rows(records.live, result.import_id)
    assert sum(r["outcome"] == "rejected" for r in kept) == result.rejected
    assert all(r["reasons"] and len(json.dumps(r["original"])) < 100_000 for r in kept)
    again = bring(text, f"hostile.{'geojson' if kind == 'areas' else 'csv'}", kind=kind)
    assert (again.new, again.changed) == (0, 0)
    if kind == "listings":
        assert (
            homes.listing(records.live, "A5")["city"].startswith("=cmd")
            and homes.listing(records.live, "A6")["city"] == "Alder"
        )


def test_a_file_of_huge_cells_never_fills_the_memory(bring):
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    lines = (GOOD.format(n=n).replace("Alder", "z" * 900_000) for n in range(250))
    result = bring(HEAD + "".join(lines))
    assert (result.rows, result.new) == (250, 250) and result.reasons == {"unreadable City": 250}
    grown_mb = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024
    assert grown_mb < 900, "the text itself is 225 MB and stands in this test twice"


def zipped(files: dict[str, bytes], spoil: bytes | None = None) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as z:
        for name, data in files.items():
            z.writestr(name, data)
    return out.getvalue() if spoil is None else out.getvalue()[: len(spoil)]


def test_photos_come_in_by_their_names_and_nothing_else_does(bring, records):
    bring(HEAD + GOOD.format(n=1) + GOOD.format(n=2))
    files = {
        "A1_1.png": PNG, "A1/2.jpg": picture("JPEG", "1"), "A2-1.png": PNG, "../../A2_2.png": picture("PNG", "2"),
        "A9_1.png": PNG, "notes.txt": b"hello", "A2_3.png": b"<svg onload='x'/>", "A1 1.png": PNG,
        "A1_3.jpg": picture("JPEG", "cut", (400, 300))[:-2], "A1_4.png": PNG[:-12], "A1_5.png": b"\x89PNG\r\n\x1a\n" + b"\x00" * 40,
    }  # fmt: skip
    result = bring(zipped(files), "photos.zip")
    assert (result.kind, result.rows, result.new, result.rejected) == ("photos", 11, 4, 7), result.reasons
    assert result.reasons["a picture that is cut off"] == 2 and result.reasons["a damaged picture"] == 1
    held = {(r["listing_id"], r["place"]) for r in records.live.execute("SELECT listing_id, place FROM photos")}
    assert held == {("A1", 1), ("A1", 2), ("A2", 1), ("A2", 2)}
    outside = [p for p in records.folder.parent.rglob("*.png") if p.parent != records.folder / "photos"]
    assert not outside, "no path of the bundle's reaches the disk"
    assert (again := bring(zipped(files), "photos.zip")).new == 0 and again.same == 4


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (zipped({"A1_1.png": b"\x89PNG" + b"\x00" * 30_000_000}), "swells to"),
        (zipped({"A1_1.png": PNG})[:60], "no zip file that can be read"),
    ],
    ids=["swells", "cut short"],
)
def test_bundles_that_swell_or_are_cut_short_are_refused(bring, records, data, words):
    with pytest.raises(Refused, match=words):
        bring(data, "photos.zip")
    assert not imports.list_imports(records.live)


def test_a_ruling_outlives_the_next_import_and_can_be_taken_back(bring, records):
    from rain_porch.app.incoming.conclusions import rule
    from rain_porch.core.errors import BadInput

    text = "ParcelNumber,SaleDate,Price,DocumentType\nP1,2025-05-01,400000,Quitclaim Deed\nP2,2025-05-01,390000,Warranty Deed\n"
    bring(text, "t.csv")
    usual = "".join(GOOD.format(n=n) for n in range(30))
    odd = "B1,Closed,41.2,-38.4,19000,2025-05-01,4000000,Alder\n"
    bring(HEAD + usual + odd)
    key = records.live.execute("SELECT transfer_key FROM transfers WHERE parcel_number = 'P1'").fetchone()[0]
    assert records.snapshot().columns.deed.sum() == 1
    rule(records.live, "transfers", key, "not_arms_length", "", NOW)
    rule(records.live, "listings", "B1", "suspect:living_area", "confirmed", NOW)
    for _ in range(2):
        columns = records.snapshot().columns
        assert columns.deed.sum() == 2 and columns.fact(columns.row_of["B1"], "living_area") == 19_000
        again = import_file(records.live, records.folder.parent / "t.csv", folder=records.folder, now=NOW)
        assert (again.changed, bring(HEAD + usual + odd.replace("4000000", "3900000")).suspect) == (0, 0)
        bring(HEAD + usual + odd)
    rule(records.live, "transfers", key, "not_arms_length", None, NOW)
    rule(records.live, "listings", "B1", "suspect:living_area", None, NOW)
    columns = records.snapshot().columns
    assert columns.deed.sum() == 1 and columns.fact(columns.row_of["B1"], "living_area") is None
    for about, says in (("manner", "haunted"), ("happiness", "1"), ("suspect:girth", "confirmed")):
        with pytest.raises(BadInput):
            rule(records.live, "listings", "B1", about, says, NOW)


def test_halves_of_signs_and_endless_numbers_in_json_are_told_or_marked(bring, records):
    row = '{"ListingId":"S1","StandardStatus":"Active","UnparsedAddress":"1 Made %s Street","City":"Alder","OnMarketDate":"2026-10-01"}'
    assert bring("[" + row % "\\ud800" + "]", "half.json", kind="listings").rows == 1
    told = records.live.execute("SELECT unparsed_address FROM listings WHERE listing_id = 'S1'").fetchone()[0]
    assert told == "1 Made \ufffd Street"
    assert bring("[" + row % "\\ud83c\\udfe0" + "]", "pair.json", kind="listings").changed == 1, (
        "a whole pair is one sign"
    )
    with pytest.raises(Refused, match="no complete JSON"):
        bring('[{"ListingId":"S2","ListPrice":' + "9" * 5000 + "}]", "long.json", kind="listings")
