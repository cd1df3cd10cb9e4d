"""Facts that stand in a cell with others: what each take makes of it, and that nothing is lost or made up."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.sizes import SQFT_PER_ACRE
from rain_porch.core.intake.takes import TAKES, full_and_half, taken_from


@pytest.mark.parametrize(
    ("take", "cell", "fact"),
    [
        ("garage", "2 Car Attached", "2"), ("garage", "None", "0"), ("garage", "Two car", "2"), ("garage", "Attached", ""), ("garage", "pebbles", "pebbles"),
        ("attached", "2 Car Attached", "yes"), ("attached", "1 Car Detached", "no"), ("attached", "None", ""), ("attached", "Unattached 2", "no"),
        ("full_baths", "2.5", "2"), ("half_baths", "2.5", "1"), ("half_baths", "2.1", "1"), ("half_baths", "2", "0"), ("full_baths", "1.75", "2"),
        ("full_baths", "3/1", "3"), ("half_baths", "3/1", "1"), ("half_baths", "2F 1H", "1"), ("half_baths", "2 full, 1 half", "1"), ("half_baths", "2 1/2", "1"),
        ("full_baths", "3 (2 0 1)", "2"), ("half_baths", "3 (2 0 1)", "1"), ("full_baths", "lots", "lots"),
        ("stories", "Two", "2"), ("stories", "1.5 Story", "1.5"), ("stories", "One and One Half", "1.5"), ("stories", "Bi-Level", "2"),
        ("lot", "0.25 ac", "10890"), ("lot", "10,890 sqft", "10890"), ("lot", "50x120", "6000"), ("lot", "50' x 120'", "6000"), ("side", "50 x 120", "50"), ("side", "irregular", ""),
        ("street", "12 Oak St, Lantern Hill, ST 00012", "12 Oak St"), ("city", "12 Oak St, Lantern Hill, ST 00012", "Lantern Hill"),
        ("postal", "12 Oak St, Lantern Hill ST 00012-0034", "00012-0034"), ("city", "12 Oak St, Lantern Hill", "Lantern Hill"), ("street", "12 Oak St", "12 Oak St"), ("city", "12 Oak St", ""),
        ("unit", "12 Oak St #4B", "4B"), ("without_unit", "12 Oak St Apt 4B", "12 Oak St"), ("unit", "12 Oak St", ""),
        ("compact_date", "03142024", "2024-03-14"), ("compact_date", "45365", "2024-03-14"), ("compact_date", "soon", "soon"),
        ("month_date", "2024-03", "2024-03-15"), ("month_date", "3/2024", "2024-03-15"), ("month_date", "Mar-24", "2024-03-15"), ("month_date", "March 1998", "1998-03-15"),
        ("bed", "3/2.5", "3"), ("bed_full_baths", "3/2.5", "2"), ("bed_half_baths", "3 bd | 2.5 ba", "1"),
        ("latitude", "POINT (-38.4 41.2)", "41.2"), ("longitude", "41.2, -38.4", "-38.4"), ("longitude", "-138.4, 41.2", "-138.4"),
        ("has", "In Ground", "yes"), ("has", "None", "no"), ("has", "Community", "no"), ("has", "0", "no"), ("has", "2", "yes"),
        ("postal_code", "12.0", "12"), ("postal_code", "1234", "01234"), ("postal_code", "123456789", "12345-6789"), ("postal_code", "00017.0", "00017"),
        ("count", "Y", "1"), ("count", "none", "0"), ("first_number", "3 (2 up)", "3"), ("first_number", "no", "0"),
    ],
)  # fmt: skip
def test_each_take_makes_one_fact_of_a_cell(take, cell, fact):
    assert taken_from(take, cell) == fact


@given(st.sampled_from(sorted(TAKES)), st.text(max_size=60))
def test_no_cell_breaks_a_take_and_an_empty_one_tells_nothing(take, cell):
    assert isinstance(taken_from(take, cell), str)
    assert taken_from(take, "  ") == ""


@given(st.integers(0, 12), st.integers(0, 4))
def test_every_way_to_write_baths_is_read_alike(full, half):
    for cell in (
        f"{full}/{half}",
        f"{full}F {half}H",
        f"{full} full, {half} half",
        f"{full}.{half}" if half not in (2, 5) else f"{full}/{half}",
    ):
        assert full_and_half(cell) == (full, half), cell


@given(st.floats(0.01, 500, allow_nan=False))
def test_a_lot_in_acres_and_its_square_feet_are_one_size(acres):
    written = f"{acres:.4f}"
    assert float(taken_from("lot", f"{written} acres")) == pytest.approx(float(written) * SQFT_PER_ACRE, rel=1e-6)
