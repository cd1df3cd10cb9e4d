"""A home read out of the records: which word counts, what the others say, and what is missing."""

from __future__ import annotations

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.app.home import homes, photos
from rain_porch.app.home.homes import HomeRef
from rain_porch.core.errors import NotFound
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.search import search as sr
from rain_porch.documents.search import SearchDoc

PARCELS = """ParcelNumber,UnparsedAddress,City,LivingArea,GarageSpaces,YearBuilt,Latitude,Longitude,PropertySubType
P1,14 N Ferry Ln,Alder,1800,3,1985,41.2,-38.4,Single Family Residence
P2,16 N Ferry Ln,Alder,1900,2,1986,,,Townhouse
P3,18 N Ferry Ln,Alder,1700,,1987,41.2,-38.4,
"""
LISTINGS = """ListingId,ParcelNumber,StandardStatus,PropertySubType,OnMarketDate,PurchaseContractDate,CloseDate,OffMarketDate,ListPrice,ClosePrice,LivingArea,GarageSpaces,FireplacesTotal,Latitude,Longitude
A1,P1,Closed,Single Family Residence,2019-01-01,2019-02-01,2019-03-01,,300000,295000,1790,2,1,41.2,-38.4
A2,P1,Expired,Single Family Residence,2024-01-01,,,2024-06-01,420000,,1795,2,1,41.2,-38.4
A3,P2,Active,Townhouse,2025-05-01,,,,380000,,1910,1,0,41.21,-38.41
A4,P3,Closed,Single Family Residence,2025-01-01,,2025-03-01,,300000,301000,1700,2,0,41.2,-38.4
A5,,Closed,Single Family Residence,2025-01-01,2025-02-01,2025-03-01,,300000,301000,17000,2,0,41.2,-38.4
"""


@pytest.fixture
def three(bring, records):
    bring(PARCELS, "parcels.csv")
    bring(LISTINGS, "listings.csv")
    return records


def test_the_tax_roll_leads_for_a_parcel_and_the_listing_fills_its_gaps(three):
    home = homes.read_home(three.snapshot(), HomeRef("parcel", "P1"))
    assert home.subject.number("living_area") == 1800 and home.subject.number("fireplaces_total") == 1
    assert home.says["tax_roll"]["garage_spaces"] == 3 and home.says["last_listing"]["garage_spaces"] == 2
    assert [x["listing_id"] for x in home.listings] == ["A2", "A1"], "newest first"
    assert home.subject.home_kind == HomeKind.DETACHED and home.subject.number("list_price") is None


def test_the_listing_leads_where_it_is_named(three):
    home = homes.read_home(three.snapshot(), HomeRef("listing", "A1"))
    assert home.subject.number("living_area") == 1790 and home.subject.number("year_built") == 1985
    assert home.subject.own_listing == "A1" and home.subject.parcel_number == "P1"
    both = {
        homes.read_home(three.snapshot(), HomeRef(*r)).subject.home_id
        for r in (("parcel", "P1"), ("listing", "A1"), ("listing", "A2"))
    }
    assert len(both) == 1, "three names of one home"


def test_a_place_or_a_kind_that_one_record_lacks_comes_from_the_other(three):
    home = homes.read_home(three.snapshot(), HomeRef("parcel", "P2"))
    assert (home.subject.latitude, home.subject.home_kind) == (41.21, HomeKind.ATTACHED)
    assert homes.read_home(three.snapshot(), HomeRef("parcel", "P3")).subject.home_kind == HomeKind.DETACHED


def test_suspect_values_are_no_facts(bring, three):
    bring("ParcelNumber,YearBuilt,LivingArea\nP1,20231,1800\n", "later.csv")
    home = homes.read_home(three.snapshot(), HomeRef("parcel", "P1"))
    assert "year_built" not in home.says["tax_roll"] and home.subject.number("year_built") is None
    assert home.subject.number("living_area") == 1800, "the rest of the record is believed"


LEASE = """ListingId,ParcelNumber,StandardStatus,PropertyType,PropertyCondition,OnMarketDate,CloseDate,ListPrice,ClosePrice,Latitude,Longitude
R1,P1,Closed,Residential Lease,Worn,2025-04-01,2025-05-01,1900,1850,41.2,-38.4
R2,P3,Closed,Residential Lease,Worn,2025-04-01,2025-05-01,1900,1850,41.2,-38.4
R3,P9,Closed,Residential Lease,Worn,2025-04-01,2025-05-01,1900,1850,41.2,-38.4
"""


def test_a_lease_gives_no_facts_where_a_sale_does_and_else_says_that_it_does(bring, three):
    bring(LEASE, "leases.csv")
    bring("ParcelNumber,UnparsedAddress,LivingArea,Latitude,Longitude\nP9,9 Lone Ln,1500,41.2,-38.4\n", "more.csv")
    let = homes.read_home(three.snapshot(), HomeRef("parcel", "P1"))
    assert let.subject.word("property_condition") is None and not let.from_lease and not let.subject.from_lease
    assert let.says["last_listing"]["living_area"] == 1795, "the last listing for sale"
    only = homes.read_home(three.snapshot(), HomeRef("parcel", "P9"))
    assert (
        only.from_lease
        and only.subject.from_lease >= {"property_condition"}
        and "living_area" not in only.subject.from_lease
    )
    assert only.subject.corrected({"property_condition": "New"}).from_lease == only.subject.from_lease - {
        "property_condition"
    }
    assert homes.own_sale(three.snapshot(), let) == ("A1", dt.date(2019, 2, 1)), "what is hidden of itself is no lease"


def test_homes_that_are_not_there_are_named(three):
    for kind in ("listing", "parcel"):
        with pytest.raises(NotFound, match="none"):
            homes.read_home(three.snapshot(), HomeRef(kind, "none"))


@pytest.mark.parametrize(
    ("ref", "own"),
    [
        (("parcel", "P1"), ("A1", dt.date(2019, 2, 1))),
        (("listing", "A1"), ("A1", dt.date(2019, 2, 1))),
        (("listing", "A4"), ("A4", dt.date(2025, 3, 1))),
        (("listing", "A3"), None),
    ],
)
def test_the_own_sale_is_hidden_from_its_contract_on(three, ref, own):
    assert homes.own_sale(three.snapshot(), homes.read_home(three.snapshot(), HomeRef(*ref))) == own


def test_corrections_are_checked_one_by_one():
    assert homes.checked_corrections(
        {"living_area": 1850, "architectural_style": " Ranch ", "garage_spaces": None}
    ) == {
        "living_area": 1850.0,
        "architectural_style": "Ranch",
        "garage_spaces": None,
    }


def test_freshness_is_told_in_counts(three):
    from rain_porch.app.snapshot import freshness

    told = freshness(three.snapshot())
    assert told["counts"] == {"listings": 5, "parcels": 3, "transfers": 0, "events": 0, "assessments": 0, "areas": 0}
    assert told["through"] == "2025-05-01"


def test_price_changes_have_their_direction(bring, three):
    bring(
        "ListingId,Timestamp,Event,OldValue,NewValue\n"
        "A2,2024-02-01T09:00:00,Price Change,400000,420000\n"
        "A2,2024-03-01T09:00:00,Price Change,420000,399000\n"
        "A2,2024-04-01T09:00:00,Price Change,odd,399000\n"
        "A2,2024-01-01T09:00:00,New Listing,,400000\n",
        "history.csv",
    )
    told = photos.price_history(three.snapshot(), "A2")
    assert [e["change_pct"] for e in told] == [None, 5.0, -5.0, None]
    assert [e["what"] for e in told][:2] == ["new listing", "price change"]


searches = st.builds(
    sr.Search,
    home_kinds=st.lists(st.sampled_from([k.value for k in HomeKind]), max_size=3, unique=True).map(tuple),
    radius_miles=st.one_of(st.none(), st.floats(0.1, 100)),
    areas=st.lists(st.text(min_size=1, max_size=9), max_size=2).map(tuple),
    windows=st.dictionaries(
        st.sampled_from(["sold", "deed_sale", "failed", "for_sale", "under_contract"]),
        st.builds(sr.Window, st.booleans(), st.one_of(st.none(), st.integers(0, 3000))),
    ),
    criteria=st.lists(
        st.one_of(
            st.builds(
                sr.Criterion,
                st.just("living_area"),
                st.floats(0, 1000),
                st.floats(1000, 9000),
                must_be_known=st.booleans(),
            ),
            st.builds(sr.Criterion, st.just("city"), words=st.just(("Alder", "Birch"))),
        ),
        max_size=2,
    ).map(tuple),
    leave_out_new_construction=st.booleans(),
    arms_length_only=st.booleans(),
)


@given(searches)
def test_a_search_survives_its_document(search):
    """What `find --json` gives back under `search` is what `--search FILE` takes."""
    back = SearchDoc.model_validate_json(SearchDoc.of(search).model_dump_json()).search()
    assert back == search
