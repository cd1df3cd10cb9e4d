"""Words, addresses, money, dates and the catalogue: tables of cases."""

from __future__ import annotations

import pytest

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
