"""Words, addresses, money, dates and the catalogue: tables of cases."""

from __future__ import annotations

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts import addresses
from rain_porch.core.facts.dates import add_months, date_of, day_of, parse_date
from rain_porch.core.facts.fields import ADJUSTED, FIELDS, PRIVATE, field
from rain_porch.core.facts.money import dollars, half_up, signed
from rain_porch.core.facts.record_fields import not_arms_length
from rain_porch.core.facts.words import HomeKind, Status, home_kind_of, is_lease, sale_manner, status_of


@pytest.mark.parametrize(
    ("word", "status"),
    [
        ("Active", Status.ACTIVE),
        ("SOLD", Status.CLOSED),
        ("Cancelled", Status.CANCELED),
        ("Contingent", Status.ACTIVE_UNDER_CONTRACT),
        ("under  contract", Status.ACTIVE_UNDER_CONTRACT),
        ("On-Hold", Status.HOLD),
        ("coming soon", Status.COMING_SOON),
        ("??", None),
    ],
)
def test_status_words(word, status):
    assert status_of(word) == status


@pytest.mark.parametrize(
    ("kind", "sub", "home"),
    [
        ("Residential", "Single Family Residence", HomeKind.DETACHED),
        ("Residential", "Townhouse", HomeKind.ATTACHED),
        ("Residential", "Condominium", HomeKind.CONDOMINIUM),
        ("Residential", "Stock Cooperative", HomeKind.COOPERATIVE),
        ("Residential", "Manufactured Home", HomeKind.MANUFACTURED),
        ("Residential Income", "Duplex", HomeKind.SMALL_MULTI_FAMILY),
        ("Land", None, HomeKind.LAND),
        ("Farm", None, HomeKind.ACREAGE),
        (None, None, HomeKind.UNKNOWN),
        ("Residential", None, HomeKind.UNKNOWN),
    ],
)
def test_kinds_of_home(kind, sub, home):
    assert home_kind_of(kind, sub) == home


def test_leases_and_manners_of_sale():
    assert is_lease("Residential Lease") and not is_lease("Residential") and not is_lease(None)
    assert (
        sale_manner("Real Estate Owned") == sale_manner("Short Sale") == sale_manner("In Foreclosure") == "distressed"
    )
    assert sale_manner("Standard") == sale_manner(None) == "standard"
    assert sale_manner("Family Sale") == "not_arms_length"


@pytest.mark.parametrize(
    ("price", "deed", "count", "why"),
    [
        (350_000, "Warranty Deed", 1, None),
        (10, "Warranty Deed", 1, "nominal price"),
        (None, "Deed", 1, "nominal price"),
        (350_000, "Quitclaim Deed", 1, "family or quitclaim deed"),
        (200_000, "Sheriff's Deed", 1, "foreclosure or sheriff's deed"),
        (700_000, "Warranty Deed", 2, "several parcels in one price"),
        (350_000, None, None, None),
    ],
)
def test_the_arms_length_screen(price, deed, count, why):
    assert not_arms_length(price, deed, count) == why


@pytest.mark.parametrize(
    "text",
    [
        "14 North Ferry Lane Apt 3",
        "14 N Ferry Ln #3",
        "14 n. ferry ln. unit 3",
        "14 N FERRY LANE, APARTMENT 3",
        "14 North Ferry Ln, Suite 3",
    ],
)
def test_one_address_in_many_spellings_is_one(text):
    assert addresses.words(text) == ["14", "n", "ferry", "ln", "unit3"]
    assert addresses.key(text, None, "Alder", "00011-1234") == "14 n ferry ln unit3|00011"


def test_addresses_without_words_have_no_key_and_units_are_told_apart():
    assert addresses.key("", "3", "Alder", None) is None and addresses.key(None, None, None, None) is None
    assert addresses.key("14 Ferry Ln", "3", "Alder", None) != addresses.key("14 Ferry Ln", "4", "Alder", None)


@pytest.mark.parametrize(
    ("a", "b", "same"),
    [
        ("ferry", "ferry", True),
        ("fery", "ferry", True),
        ("ferrry", "ferry", True),
        ("frery", "ferry", True),
        ("berry", "ferry", True),
        ("ferr", "ferry", True),
        ("fear", "ferry", False),
        ("yrref", "ferry", False),
    ],
)
def test_one_slip(a, b, same):
    assert addresses.one_slip(a, b) is same and addresses.one_slip(b, a) is same


@given(st.floats(-1e7, 1e7))
def test_rounding_half_up_is_within_half_and_odd(value):
    assert abs(half_up(value) - value) <= 0.5 + 1e-6
    assert half_up(-value) == -half_up(value)


def test_money_is_written_plainly():
    assert (half_up(2.5), half_up(-2.5), half_up(417_741.3, 100)) == (3, -3, 417_700)
    assert (dollars(412_500.4), dollars(None)) == ("412,500", "unknown")
    assert (signed(5741.2), signed(-6000), signed(0.2)) == ("+5,741", "−6,000", "0")


@given(st.dates(dt.date(1900, 1, 1), dt.date(2100, 1, 1)), st.integers(-600, 600))
def test_days_and_months_go_there_and_back(date, months):
    assert date_of(day_of(date)) == date
    moved = add_months(date, months)
    assert (moved.year * 12 + moved.month) - (date.year * 12 + date.month) == months
    assert moved.day == date.day or (moved + dt.timedelta(days=1)).day == 1


def test_dates_are_read_or_not():
    assert parse_date("2010-05-15T08:00") == dt.date(2010, 5, 15) and parse_date("15 May") is None


def test_the_catalogue_names_each_field_once_and_finds_it_by_either_name():
    assert len({f.name for f in FIELDS}) == len({f.reso for f in FIELDS}) == len(FIELDS)
    assert field("ClosePrice").name == "close_price" and field("close_price").reso == "ClosePrice"
    with pytest.raises(KeyError):
        field("Race")
    assert {"list_agent_full_name", "list_office_name", "private_remarks"} == PRIVATE
    assert set(ADJUSTED) >= {
        "living_area",
        "bathrooms_full",
        "bathrooms_half",
        "garage_spaces",
        "lot_size_square_feet",
        "year_built",
    }
    for f in FIELDS:
        assert not (f.private and (f.searched or f.shown)), f.name
        assert f.low is None or f.high is None or f.low < f.high
        assert not f.weight or f.tolerance or f.kind == "word", f.name
