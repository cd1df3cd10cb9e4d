"""The office's own map under the records: set up by a manager, shown to all, and never more than was asked for."""

from __future__ import annotations

import pytest
from starlette.testclient import TestClient

from rain_porch.api.app import create_app
from rain_porch.store.tile_files import FOLDER
from tests.conftest import LOCAL, NOW
from tests.store.test_tile_files import TILES, mb_file, picture

ADDRESS = "https://tiles.place.example/{z}/{x}/{y}.png"


@pytest.fixture
def porch(tmp_path):
    with TestClient(create_app(tmp_path / "porch", now=lambda: NOW), base_url=LOCAL) as client:
        yield client


def test_an_address_is_shown_with_whose_it_is_and_the_page_may_fetch_from_there_alone(porch):
    assert porch.get("/api/map/shown").json() == {"streets": None, "aerial": None, "fault": ""}
    before = porch.get("/").headers["content-security-policy"]
    source = {"address": ADDRESS, "attribution": "Ellery Maps"}
    assert porch.put("/api/map/sources", json={"streets": source}).status_code == 204
    shown = porch.get("/api/map/shown").json()
    assert (
        shown["streets"]["path"] == ADDRESS and shown["streets"]["attribution"] == "Ellery Maps" and not shown["aerial"]
    )
    assert porch.get("/").headers["content-security-policy"] != before
    policy = dict(part.split(" ", 1) for part in porch.get("/").headers["content-security-policy"].split("; "))
    assert policy["img-src"] == "'self' data: blob: https://tiles.place.example"
    assert policy["connect-src"] == "'self' https://tiles.place.example" and "tiles" not in policy["script-src"]
    porch.put("/api/map/sources", json={})
    nonces = [porch.get("/").headers["content-security-policy"] for _ in range(2)]
    assert all("tiles.place" not in x for x in nonces)


@pytest.mark.parametrize(
    ("source", "says"),
    [
        ({"address": "ftp://tiles.example/{z}/{x}/{y}", "attribution": "x"}, "is no address of tiles"),
        ({"address": "https://tiles.example; script-src *//{z}/{x}/{y}", "attribution": "x"}, "is no address of tiles"),
        ({"address": "https://user@tiles.example/{z}/{x}/{y}", "attribution": "x"}, "is no address of tiles"),
        ({"address": "https://tiles.example/{z}/{x}.png", "attribution": "x"}, "has no {y}"),
        ({"address": ADDRESS}, "by whom the map is"),
        ({"address": ADDRESS, "file": "a.mbtiles"}, "one of the two"),
        ({}, "one of the two"),
        ({"file": "../porch.db"}, "no tile file"),
    ],
)
def test_what_makes_no_map_is_refused_and_nothing_changes(porch, source, says):
    answer = porch.put("/api/map/sources", json={"aerial": source})
    assert answer.status_code in (409, 422) and says in answer.json()["message"], answer.text
    assert porch.get("/api/map/sources").json() == {"streets": None, "aerial": None}


def test_a_file_is_served_tile_by_tile_and_one_that_goes_leaves_the_map_of_the_records(porch, tmp_path):
    file = mb_file(
        tmp_path / "porch" / FOLDER / "air.mbtiles",
        {at: picture(c) for at, c in TILES.items()},
        attribution="Town survey",
    )
    assert porch.get("/api/map/files").json() == ["air.mbtiles"]
    assert porch.put("/api/map/sources", json={"aerial": {"file": "air.mbtiles"}}).status_code == 204
    shown = porch.get("/api/map/shown").json()["aerial"]
    assert (shown["form"], shown["least_zoom"], shown["most_zoom"], shown["attribution"]) == (
        "raster",
        0,
        2,
        "Town survey",
    )
    answer = porch.get(shown["path"].format(z=2, x=3, y=1))
    assert answer.headers["content-type"] == "image/png" and answer.content == picture("blue")
    for at in ("2/0/0", "1/9/0"):
        assert porch.get(f"/api/map/tiles/aerial/{at}").status_code == 404
    assert porch.get("/api/map/tiles/streets/0/0/0").status_code == 404
    file.unlink()
    told = porch.get("/api/map/shown").json()
    assert told["aerial"] is None and "air.mbtiles" in told["fault"]
    assert porch.get("/api/map/tiles/aerial/2/3/1").status_code == 404
