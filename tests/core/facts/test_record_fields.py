from __future__ import annotations

import pytest

from rain_porch.core.facts.record_fields import ASSESSMENTS, EVENTS, SERIES, TRANSFERS, not_arms_length


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


@pytest.mark.parametrize("fields", [TRANSFERS, ASSESSMENTS, EVENTS, SERIES])
def test_each_kind_of_record_names_its_columns_once(fields):
    assert len({f.name for f in fields}) == len({f.reso for f in fields}) == len(fields)
    assert all(f.low is None or f.high is None or f.low < f.high for f in fields)


def test_who_sold_to_whom_is_private():
    assert {f.name for f in TRANSFERS if f.private} == {"grantor", "grantee"}


@pytest.mark.parametrize("deed", ["Trustee Deed", "Deed in Lieu", "Tax Deed", "Foreclosure"])
def test_a_forced_sale_is_told_before_a_family_one(deed):
    assert not_arms_length(350_000, deed, 1) == "foreclosure or sheriff's deed"
