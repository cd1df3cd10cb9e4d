"""What a typed text may mean: places, workups, numbers, addresses with their units, and what comes near."""

from __future__ import annotations

import pytest

from rain_porch.app.home.full_record import full_record
from rain_porch.app.home.homes import HomeRef, read_home
from rain_porch.app.lookup import MOST_HOMES, homes_to_begin_with, looked_up
from rain_porch.app.workup.workups import begin_workup
from rain_porch.store.records.homes import addresses_of


def kinds(agent, text):
    return [h.kind for h in looked_up(agent, text).hits]


@pytest.mark.parametrize("text", ["lantern hill", "LANTERN", "lan", "Lantern_Hill", "lantern - h"])
def test_a_place_is_offered_first(agent, text):
    first = looked_up(agent, text).hits[0]
    assert (first.kind, first.key) == ("area", "Lantern Hill")


def test_two_letters_are_no_place_yet_and_nothing_means_nothing(agent):
    assert "area" not in kinds(agent, "la")
    assert looked_up(agent, "   ").hits == [] and looked_up(agent, "").nearest == []


def test_numbers_are_found_with_or_without_their_dashes_and_in_small_letters(agent):
    parcel = agent.records.db.execute("SELECT parcel_number FROM parcels LIMIT 1").fetchone()[0]
    for text in (parcel, parcel.replace("-", "")):
        hit = looked_up(agent, text).hits[0]
        assert (hit.kind, hit.key, hit.note) == ("parcel", parcel, f"parcel {parcel}")
    listing = agent.records.db.execute("SELECT listing_id FROM listings LIMIT 1").fetchone()[0]
    assert ("listing", listing) in [(h.kind, h.key) for h in looked_up(agent, listing.lower()).hits]


def test_a_number_is_found_by_its_first_signs(agent):
    parcel, listing = (
        agent.records.db.execute(f"SELECT {n} FROM {t} ORDER BY {n} LIMIT 1 OFFSET 5").fetchone()[0]
        for t, n in (("parcels", "parcel_number"), ("listings", "listing_id"))
    )
    for whole, kind in ((parcel, "parcel"), (listing, "listing")):
        hits = looked_up(agent, whole[:-1].lower()).hits
        assert (kind, whole, f"{kind} {whole}") in [(h.kind, h.key, h.note) for h in hits]
        assert all(h.key.startswith(whole[:-1]) for h in hits) and len(hits) <= MOST_HOMES
        assert (kind, whole) == next((h.kind, h.key) for h in looked_up(agent, whole).hits), (
            "the whole number alone comes first"
        )


def test_a_building_lists_all_its_units_and_others_are_few(agent):
    units = [h.shown for h in looked_up(agent, "734 sill drive").hits]
    told = agent.records.db.execute(
        "SELECT count(*) FROM parcels WHERE unparsed_address = '734 Sill Drive' OR unparsed_address LIKE '734 Sill Drive,%'"
    ).fetchone()[0]
    assert len(units) == told > MOST_HOMES and all(u.startswith("734 Sill Drive") for u in units)
    assert len(looked_up(agent, "hedgerow").hits) <= MOST_HOMES + 4


@pytest.mark.parametrize("text", ["630 hedgerw terrace", "630 Hedgerow Terace", "630 hedgerow"])
def test_an_address_with_a_slip_is_found_or_comes_near(agent, text):
    told = looked_up(agent, text)
    assert any("630 Hedgerow" in h.shown for h in [*told.hits, *told.nearest])


def test_ones_own_workups_are_offered_by_any_part_of_their_title(agent):
    hit = next(h for h in looked_up(agent, "630 hedgerow terrace").hits)
    n = begin_workup(agent, HomeRef(hit.kind, hit.key))
    hits = looked_up(agent, "hedgerow ter").hits
    assert ("workup", str(n)) in [(h.kind, h.key) for h in hits]
    assert [h.kind for h in hits].index("workup") < [h.kind for h in hits].index("parcel")


def test_what_is_nowhere_finds_nothing_and_marks_are_only_letters(agent):
    for text in ("zzzz qqqq", "%", "' OR 1=1 --", "630 hedgerow'; DROP TABLE parcels"):
        told = looked_up(agent, text)
        assert not any(h.kind == "area" for h in told.hits)
    assert agent.records.db.execute("SELECT count(*) FROM parcels").fetchone()[0] > 9000


def test_homes_to_begin_with_are_the_newest_still_for_sale_of_each_kind(agent, records):
    hits = homes_to_begin_with(agent.records)
    assert [h.note.split(",")[0] for h in hits] == ["detached", "attached", "land"], "no unit is for sale in the demo"
    for kind, hit in zip(("detached", "attached", "land"), hits, strict=True):
        newest = agent.records.db.execute(
            "SELECT max(on_market_date) FROM listings WHERE home_kind = ? AND standard_status = 'Active'", (kind,)
        ).fetchone()[0]
        mine = agent.records.db.execute(
            "SELECT on_market_date, standard_status FROM listings WHERE listing_id = ?", (hit.key,)
        )
        assert tuple(mine.fetchone()) == (newest, "Active")
    assert homes_to_begin_with(records.snapshot()) == [], "nothing is offered where nothing is"


def test_where_none_is_for_sale_the_homes_that_sold_last_are_offered_by_their_number_if_need_be(records, bring):
    bring(
        "Listing ID,Status,Property Sub Type,Close Date,Close Price,Street Address\n"
        "A1,Closed,Single Family Residence,2026-08-01,300000,1 Made Road\n"
        "A2,Closed,Single Family Residence,2026-09-01,310000,\n"
    )
    hits = homes_to_begin_with(records.snapshot())
    assert [(h.key, h.shown, h.note) for h in hits] == [("A2", "A2", "detached, sold Sep 1, 2026")]


def test_a_home_without_an_address_is_called_by_its_place_wherever_it_is_named(records, bring):
    bring(
        "Latitude,Longitude,Status,Property Sub Type,Close Date,Close Price\n"
        "42.054592,-93.626537,Closed,Single Family Residence,2026-08-01,300000\n"
    )
    now, called = records.snapshot(), "42.05459 N, 93.62654 W"
    (hit,) = homes_to_begin_with(now)
    assert hit.shown == called == addresses_of(now.db, [hit.key])[hit.key]
    assert read_home(now, HomeRef("listing", hit.key)).subject.address == called == full_record(now, hit.key).address
