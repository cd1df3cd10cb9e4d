"""Columns told by heads and values: words of heads, what a column looks like, the best assignment, the kind of a file."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.fields import BY_NAME
from rain_porch.core.intake.cells import Profile
from rain_porch.core.intake.heads import words_of
from rain_porch.core.intake.kinds import kind_of
from rain_porch.core.intake.matching import SURE, match, without_prefix
from rain_porch.core.intake.shapes import SHAPES, fit
from rain_porch.core.intake.units import unit_of
from rain_porch.core.intake.vocabulary import TARGETS
from rain_porch.records.mapping.layouts import LAYOUTS


@pytest.mark.parametrize(
    ("head", "words"),
    [
        ("MLS #", "mls number"), ("Yr Blt", "year built"), ("YEARBUILT", "year built"), ("yearBuilt", "year built"), ("year_built", "year built"),
        ("Sold $", "close price"), ("SalePrice", "close price"), ("Off Mkt Date", "off market date"), ("Baths - 1/2", "bath half"), ("LotSizeAcres", "lot size acres"),
        ("Living Area (sq ft)", "living area sqft"), ("$/SqFt", "price per sqft"), ("PoolPrivateYN", "pool private yn"), ("HOUSENUM", "house number"),
        ("APRBLDG", "appraised building"), ("A/C", "cooling"), ("The Price", "price"), ("sqm", "sqm"), ("Dist of Columbia", "district columbia"),
    ],
)  # fmt: skip
def test_heads_as_plain_words(head, words):
    assert " ".join(words_of(head)) == words


@given(st.text(max_size=60))
def test_any_head_has_words(head):
    assert all(word == word.lower() and word for word in words_of(head))


def test_the_table_of_words_is_sound():
    for kind, targets in TARGETS.items():
        names = {f.name for f in LAYOUTS[kind].fields}
        assert len({t.name for t in targets}) == len(targets), "a target stands once"
        for target in targets:
            assert target.shape in SHAPES, target
            assert target.name.startswith(("part:", "other:")) or target.name in names or target.name in BY_NAME, target
            assert all(words_of(phrase) for phrase in target.phrases), target
            assert target.middle is None or target.middle[0] < target.middle[1]


def profile(*cells):
    return Profile([str(c) for c in cells])


@pytest.mark.parametrize(
    ("shape", "good", "bad"),
    [
        ("address", ["12 Oak St", "9 N Mill Rd"], ["Oak", "12"]), ("postal", ["00017", "00017-0001"], ["Alder", "412500"]), ("date", ["2024-03-04", "3/4/24", "4 Mar 2024"], ["red", "17"]),
        ("year", [1987, 2004], [412_500, 12]), ("area", [1500, 2200], [2, 3]), ("status", ["A", "S", "X"], ["red", "blue"]), ("latitude", [41.21, 41.3], [1500, 3]),
        ("direction", ["N", "SW", "East"], ["Oak", "Mill"]), ("street_type", ["St", "Ave", "Lane"], ["Oak", "Mill"]), ("yes_no", ["Y", "N"], ["red", "12"]),
        ("baths", ["2.5", "2/1", "3"], ["red", "412500"]), ("dimensions", ["50x120"], ["red"]), ("point", ["POINT (-38.4 41.2)"], ["41"]), ("beds_baths", ["3/2"], ["3"]),
        ("deed", ["Warranty Deed"], ["12"]), ("home_kind", ["SFR", "Condo"], ["12", "7"]),
    ],
)  # fmt: skip
def test_a_column_looks_like_what_it_is(shape, good, bad):
    assert fit(shape, None, profile(*good)) > 0.85 > fit(shape, None, profile(*bad))


@given(st.sampled_from(sorted(SHAPES)), st.lists(st.text(max_size=30), max_size=12))
def test_how_a_column_fits_is_a_share(shape, cells):
    assert 0.0 <= fit(shape, (1.0, 5.0), Profile(cells)) <= 1.0


def found(columns, kind="listings"):
    heads = list(columns)
    return {
        heads[f.column]: f.target for f in match(heads, [profile(*columns[h]) for h in heads], kind) if f.sure >= SURE
    }


N = range(30)


def test_the_best_assignment_over_all_columns_not_the_first_that_fits():
    prices = {"Price": [300_000 + i for i in N], "Sold Price": [295_000 + i for i in N]}
    assert found(prices) == {"Price": "list_price", "Sold Price": "close_price"}
    years = {"Year": [1980 + i for i in N], "Tax Year": [2024] * 30}
    assert found(years)["Year"] == "year_built" and found(years)["Tax Year"] == "other:tax_parts"


def test_one_head_twice_is_told_by_what_agrees():
    dates = [f"2025-06-{1 + i % 27:02d}" if i % 2 else "" for i in N]
    columns = {
        "Price": [300_000 + i for i in N],
        "Price (2)": [299_000 if i % 2 else "" for i in N],
        "Close Date": dates,
    }
    assert found(columns) == {"Price": "list_price", "Price (2)": "close_price", "Close Date": "close_date"}


@pytest.mark.parametrize("head", ["Selling Agent", "Buyer Office", "School District", "LP/SqFt", "SP % LP", "Photo Count", "Previous Price", "Agent Phone", "Lot #"])  # fmt: skip
def test_what_no_field_holds_is_not_taken_for_one(head):
    target = found({head: ["x1", "y2", "z3"] * 10}).get(head, "other:")
    assert target.startswith("other:")


def test_the_shortest_heads_are_told_by_their_values():
    assert found({"SF": [1500 + i for i in N], "Ac": [0.21, 0.3, 0.55] * 10}) == {
        "SF": "living_area",
        "Ac": "part:acres",
    }
    assert (
        "Ac" in found({"Ac": ["Central", "None", "Window"] * 10})
        and found({"Ac": ["Central", "None", "Window"] * 10})["Ac"] == "cooling"
    )


@pytest.mark.parametrize(
    ("head", "target", "cells", "times"),
    [
        ("Lot Size", "lot_size_square_feet", [0.21, 0.4], 43_560.0), ("Lot Size", "lot_size_square_feet", [9_000, 12_000], 1.0), ("Lot (sq ft)", "lot_size_square_feet", [0.5, 0.7], 1.0),
        ("List Price (000s)", "list_price", [415.5, 398], 1000.0), ("List Price", "list_price", [415_000], 1.0), ("Area m²", "living_area", [120, 160], 10.763910417),
    ],
)  # fmt: skip
def test_units_are_said_by_the_head_or_told_by_the_numbers(head, target, cells, times):
    assert unit_of(head, target, profile(*cells)) == times


def test_what_all_heads_begin_with_is_left_out_and_what_some_do_is_not():
    assert without_prefix(["L_City", "L_Zip", "L_Beds", "L_Sqft"]) == ["City", "Zip", "Beds", "Sqft"]
    assert without_prefix(["L_City", "Zip", "Beds", "M_Sqft"]) == ["L_City", "Zip", "Beds", "M_Sqft"]


@pytest.mark.parametrize("kind", [k for k in LAYOUTS if k != "series"])
def test_every_kind_is_told_by_its_own_labels(kind):
    labels = [f.label for f in LAYOUTS[kind].fields]
    assert kind_of(labels, [Profile([])] * len(labels)) == kind


def test_labels_of_all_fields_find_their_fields():
    wrong = [
        f.label for f in LAYOUTS["parcels"].fields
        if f.label in found({f.label: []}, "parcels") and found({f.label: []}, "parcels")[f.label] not in (f.name, "part:baths")
    ]  # fmt: skip
    assert not wrong and BY_NAME["living_area"].label in found({"Living area": []}, "parcels")
