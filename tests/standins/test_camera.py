"""The drawn pictures are true to the record: what it says can be counted in them, and nothing else changes them."""

from __future__ import annotations

import datetime as dt
import xml.etree.ElementTree as ET
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import NotFound
from rain_porch.standins import camera

RECORD = {
    "listing_id": "BF1",
    "parcel_number": "01-0001",
    "home_kind": "detached",
    "stories": 2.0,
    "architectural_style": "Colonial",
    "garage_spaces": 2.0,
    "fireplaces_total": 0.0,
    "pool_private_yn": 0.0,
    "waterfront_yn": 0.0,
    "year_built": 1980.0,
    "property_condition": "Well kept",
    "on_market_date": "2025-06-01",
    "flooring": "Hardwood",
    "bedrooms_total": 3.0,
    "construction_materials": "Brick",
    "roof": "Hip",
}
PLAIN = camera.scene_of(RECORD)
GARAGE_DOOR, CHIMNEY, POOL = 'width="48.0" height="62.0"', "#8A5743", "#5FA8C4"


def shot(name: str, **changes) -> str:
    scene = replace(PLAIN, **changes)
    return camera.draw(scene, camera.captions(scene).index(name) + 1)


scenes = st.builds(
    camera.Scene,
    seed=st.text(min_size=1, max_size=12),
    kind=st.sampled_from(["detached", "attached", "condominium", "land", "acreage"]),
    stories=st.sampled_from([1.0, 1.5, 2.0, 3.0]),
    style=st.just("Ranch"),
    cladding=st.sampled_from(list(camera._WALLS)),
    garage=st.integers(0, 3),
    fireplace=st.booleans(),
    pool=st.booleans(),
    water=st.booleans(),
    age=st.integers(0, 130),
    condition=st.integers(1, 6),
    day=st.dates(min_value=dt.date(2000, 1, 1), max_value=dt.date(2030, 1, 1)).map(str),
    roof=st.sampled_from(["gable", "hip", "gambrel", "flat"]),
    flooring=st.sampled_from(["hardwood", "tile", "carpet", "laminate", "x"]),
    bedrooms=st.integers(0, 6),
)


@given(scenes)
def test_every_home_has_its_pictures_each_well_formed_small_and_always_the_same(scene):
    names = camera.captions(scene)
    assert (2 if scene.kind in ("land", "acreage") else 5) <= len(names) <= 9
    for n in range(1, len(names) + 1):
        made = camera.draw(scene, n)
        root = ET.fromstring(made)
        assert root.tag.endswith("svg") and names[n - 1] in root[0].text and len(made) < 40_000
        assert "nan" not in made and made == camera.draw(scene, n)
    for wrong in (0, len(names) + 1):
        with pytest.raises(IndexError):
            camera.draw(scene, wrong)


@given(scenes, st.integers(1, 9))
def test_a_picture_s_address_leads_to_it_and_to_nothing_else(scene, number):
    address = camera.address_of(scene, number)
    if number <= len(camera.captions(scene)):
        assert camera.drawn_at(address) == camera.draw(scene, number)
    else:
        with pytest.raises(NotFound):
            camera.drawn_at(address)


@pytest.mark.parametrize(
    "address",
    ["", "drawn:", "drawn:1", "drawn:0?day=2025-06-01", "drawn:1?day=x", "drawn:1?day=2025-06-01&garage=1e9", "drawn:1?stories=nan",
     "drawn:1?day=2025-13-01", "drawn:1?day=2025-06-01&cladding=gold", "drawn:1?day=2025-06-01&condition=7", "http://x/1.jpg"],
)  # fmt: skip
def test_an_address_of_no_picture_is_told(address):
    with pytest.raises(NotFound, match="No picture stands at"):
        camera.drawn_at(address)


def test_the_record_is_read_with_what_it_does_not_say_taken_as_plain():
    assert (PLAIN.cladding, PLAIN.age, PLAIN.condition, PLAIN.season, PLAIN.garage) == ("brick", 45, 3, "summer", 2)
    bare = camera.scene_of({"listing_id": "X"})
    assert (bare.seed, bare.kind, bare.stories, bare.condition, bare.cladding) == ("X", "detached", 1, 4, "clapboard")


@pytest.mark.parametrize("spaces", [0, 1, 2, 3])
def test_garage_doors_can_be_counted(spaces):
    assert shot("Front", garage=spaces).count(GARAGE_DOOR) == spaces


def test_storeys_chimney_pool_river_and_walls_are_there_just_when_the_record_says_so():
    assert shot("Front", stories=2.0).count('height="42.0"') > shot("Front", stories=1.0).count('height="42.0"')
    assert (CHIMNEY in shot("Front", fireplace=True, cladding="stucco")) and CHIMNEY not in shot(
        "Front", cladding="stucco"
    )
    assert POOL in shot("Garden", pool=True) and POOL not in shot("Garden")
    assert "The river" in camera.captions(replace(PLAIN, water=True)) and "The river" not in camera.captions(PLAIN)
    fronts = {c: shot("Front", cladding=c) for c in camera._WALLS}
    assert len(set(fronts.values())) == len(fronts)
    assert all(camera._WALLS[c][0] in svg for c, svg in fronts.items())


def test_seasons_change_the_trees_and_years_make_them_grow():
    assert len({shot("Front", day=f"2025-{m:02}-10") for m in (1, 4, 7, 10)}) == 4
    assert len({shot("Front", roof=r) for r in ("gable", "hip", "gambrel")}) == 3
    assert shot("Front", age=2) != shot("Front", age=50)
    assert shot("Front", age=2).count("#5E8C4F") < shot("Front", age=50).count("#5E8C4F")


def test_the_light_is_that_of_the_day_and_low_suns_are_commoner_in_winter():
    def low_suns(month: int) -> float:
        days = [
            replace(PLAIN, day=f"{year}-{month:02}-{d:02}").light for year in range(2016, 2026) for d in range(1, 29)
        ]
        assert {*days} == {"morning", "noon", "evening"}
        return sum(light != "noon" for light in days) / len(days)

    assert low_suns(1) > low_suns(4) > low_suns(7)
    assert shot("Front", day="2025-06-01") == shot("Front", day="2025-06-01", seed=PLAIN.seed)


@pytest.mark.parametrize("room", ["Front", "Living room", "Kitchen", "Bath", "Bedroom", "Garden"])
def test_conditions_can_be_told_apart_and_the_worse_ones_show_damage(room):
    made = [shot(room, condition=c) for c in range(1, 7)]
    inside = room not in ("Front", "Garden")
    assert len(set(made)) == (6 if inside else len(set(made))) and made[0] != made[5] and made[2] != made[4]
    if inside:
        cracks = [svg.count("#6B5C45") for svg in made]
        assert (
            cracks[0] == cracks[1] == cracks[2] == 0 < cracks[4] and "#3A322B" in made[5] and "#3A322B" not in made[4]
        )


def test_one_home_looks_alike_in_every_listing_of_it():
    later = camera.scene_of({**RECORD, "listing_id": "BF999", "on_market_date": "2025-07-01"})
    assert camera.draw(later, 2) == camera.draw(PLAIN, 2)
    others = [camera.scene_of({**RECORD, "parcel_number": f"01-000{n}"}) for n in range(2, 9)]
    assert any(camera.draw(other, 1) != camera.draw(PLAIN, 1) for other in others)
