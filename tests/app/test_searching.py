"""Searches that look things up in the records: areas, parcels, texts, fences of the base map; what would help."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from rain_porch.app.home.homes import HomeRef, locate, read_home
from rain_porch.app.pricing.candidates import loosened, sales_of, sold_rows
from rain_porch.app.pricing.standpoint import Standpoint
from rain_porch.core.errors import NotFound
from rain_porch.core.facts.house_rules import USUAL
from rain_porch.core.facts.places.parcels import read_spans
from rain_porch.core.search.proposals import helps_most, match_everything
from rain_porch.core.search.search import Criterion, Search, Window
from rain_porch.core.search.shapes import Fence
from rain_porch.store.records.areas import barriers


@pytest.fixture(scope="module")
def standpoint(demo_records):
    home = read_home(demo_records, locate(demo_records, address="630 hedgerow terrace"))
    return Standpoint.at(demo_records, home.subject, demo_records.effective_day(None))


def _standpoint_of(records, query: str) -> Standpoint:
    home = read_home(records, HomeRef("parcel", records.db.execute(query).fetchone()[0]))
    return Standpoint.at(records, home.subject, records.effective_day(None))


def wide(standpoint: Standpoint, **limits) -> Search:
    return replace(Search(radius_miles=None, windows={"sold": Window(days=3650)}), **limits)


def keys(standpoint: Standpoint, search: Search) -> set[str]:
    return {str(standpoint.columns.keys[row]) for row in standpoint.run(search).rows}


def test_what_is_looked_up_agrees_with_sql(standpoint):
    db = standpoint.records.db
    everything = keys(standpoint, wide(standpoint))
    some = db.execute(
        "SELECT min(parcel_number), max(parcel_number) FROM (SELECT parcel_number FROM parcels LIMIT 3000)"
    )
    first, last = some.fetchone()
    wanted = {
        r[0] for r in db.execute("SELECT listing_id FROM listings WHERE parcel_number BETWEEN ? AND ?", (first, last))
    }
    found = keys(standpoint, wide(standpoint, parcels=((first, last),)))
    assert {k for k in found if not k.startswith("deed:")} == everything & wanted and 100 < len(found) < len(everything)

    def in_blocks(*blocks: str) -> set[str]:
        likes = " OR ".join("parcel_number LIKE ?" for _ in blocks)
        told = db.execute(f"SELECT listing_id FROM listings WHERE {likes}", [f"{b}-%" for b in blocks])
        return {r[0] for r in told} & everything

    for typed, wanted in (
        ("08 to 08", in_blocks("08")), ("08", in_blocks("08")), ("8", in_blocks("08")),
        ("07 to 08", in_blocks("07", "08")), ("1 to 5", in_blocks("01", "02", "03", "04", "05")),
        ("03, 05", in_blocks("03", "05")),
    ):  # fmt: skip
        found = keys(standpoint, wide(standpoint, parcels=read_spans(typed)))
        assert {k for k in found if not k.startswith("deed:")} == wanted and wanted, typed
    three = [
        r[0] for r in db.execute("SELECT DISTINCT parcel_number FROM listings WHERE standard_status = 'Closed' LIMIT 3")
    ]
    for typed in (", ".join(three), ", ".join(n.replace("-", "") for n in three)):
        found = standpoint.run(wide(standpoint, parcels=read_spans(typed))).rows
        homes_found = {standpoint.columns.home_id[row] for row in found}
        assert len(homes_found) <= 3 and found.size

    word = Criterion("public_remarks", words=("garden",), must_be_known=True)
    wanted = {r[0] for r in db.execute("SELECT listing_id FROM listings WHERE public_remarks LIKE '%garden%'")}
    found = keys(standpoint, wide(standpoint, criteria=(word,)))
    assert found == everything & wanted and found
    assert not keys(standpoint, wide(standpoint, criteria=(replace(word, words=("100%_sure",)),)))

    inside = keys(standpoint, wide(standpoint, areas=("quarry*",)))
    outside = keys(standpoint, wide(standpoint, not_areas=("Quarry Bend*",)))
    assert inside and inside <= everything and not keys(standpoint, wide(standpoint, areas=("Quarry Bend*",))) & outside
    for nowhere in ("Atlantis", "Quarr?", "[a-z]*"):
        with pytest.raises(NotFound):
            keys(standpoint, wide(standpoint, areas=(nowhere,)))


def test_the_homes_across_the_highway_stand_on_its_other_side(standpoint):
    (road,) = [b for b in barriers(standpoint.records.db) if b["kind"] == "highway"]
    fence = Fence(tuple(tuple((lon, lat) for lon, lat in line) for line in road["lines"]), road["name"])
    near = wide(standpoint, radius_miles=2.0)
    found, here = standpoint.run(near), standpoint.run(replace(near, fences=(fence,)))
    across = np.setdiff1d(found.rows, here.rows)
    assert across.size > 20 and here.rows.size > 20
    assert here.without["fences"]["sold"] == found.counts["sold"]
    line = np.array(road["lines"][0])
    order = np.argsort(line[:, 1])
    road_lon = np.interp(standpoint.columns.lats[across], line[order, 1], line[order, 0])
    side = np.sign(
        standpoint.subject.longitude - np.interp(standpoint.subject.latitude, line[order, 1], line[order, 0])
    )
    assert (np.sign(standpoint.columns.lons[across] - road_lon) == -side).mean() > 0.95


def test_dates_and_days_back_are_the_same_window(standpoint):
    day = standpoint.view.day
    by_days = keys(standpoint, wide(standpoint, windows={"sold": Window(days=180), "for_sale": Window(days=60)}))
    by_dates = {"sold": Window(since=day - 180, until=day + 99), "for_sale": Window(since=day - 60)}
    assert keys(standpoint, wide(standpoint, windows=by_dates)) == by_days
    early = keys(standpoint, wide(standpoint, windows={"sold": Window(until=day - 181)}))
    late = keys(standpoint, wide(standpoint, windows={"sold": Window(since=day - 180)}))
    assert early.isdisjoint(late) and early | late == keys(standpoint, wide(standpoint, windows={"sold": Window()}))


def test_the_one_change_that_helps_is_named_with_its_count(standpoint):
    proposed = standpoint.proposed()

    def helps(search: Search):
        return helps_most(search, sales_of(standpoint), standpoint.likeness_roughly)

    many = wide(standpoint, home_kinds=("detached",), radius_miles=2.0, windows={"sold": Window(days=365)})
    everything = match_everything(proposed, standpoint.subject)
    assert len(everything.criteria) > len(proposed.criteria) + 5
    assert sold_rows(standpoint, everything).size < 6
    for search in (many, replace(proposed, radius_miles=0.25)):
        before = sold_rows(standpoint, search)
        best = helps(search)
        assert best is not None and not 6 <= before.size <= 15
        step, count = best
        after = sold_rows(standpoint, step.search)
        assert after.size == count and (count > before.size if before.size < 6 else 6 <= count < before.size)
    just = next(
        s for days in range(20, 400, 10) if 6 <= sold_rows(standpoint, s := proposed.with_days("sold", days)).size <= 15
    )
    assert helps(just) is None


def test_where_no_single_step_finds_anything_the_nearest_chain_of_them_is_offered(demo_records):

    standpoint = _standpoint_of(
        demo_records, "SELECT parcel_number FROM parcels WHERE unparsed_address = '101 Dairy Terrace'"
    )
    search = standpoint.proposed()
    find = lambda s: sold_rows(standpoint, s)  # noqa: E731
    assert not find(search).size
    step, found = helps_most(search, sales_of(standpoint), standpoint.likeness_roughly)
    assert 0 < found == find(step.search).size < USUAL.whole("search.fewest")
    assert step.part == "radius_miles" and step.search.criteria == search.criteria


def test_a_unit_starts_inside_its_own_project_and_leaves_it_when_it_must(demo_records):
    standpoint = _standpoint_of(demo_records, "SELECT parcel_number FROM parcels WHERE home_kind = 'condominium'")
    name = standpoint.subject.word("subdivision_name")
    proposed = standpoint.proposed()
    assert proposed.criterion("subdivision_name").words == (name,)
    inside = sold_rows(standpoint, proposed)
    assert {standpoint.columns.words["subdivision_name"][int(r)] for r in inside} <= {name, None}
    wider, said = loosened(standpoint, proposed)
    assert sold_rows(standpoint, wider).size >= 6 and said
