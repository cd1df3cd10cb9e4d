"""Parcel numbers compare part by part as numbers; a part alone is a whole block; several can be listed."""

from __future__ import annotations

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.facts.places.parcels import check_spans, inside, parts, read_spans, words


@pytest.mark.parametrize(
    ("typed", "there", "not_there"),
    [
        ("08 to 08", ["08-0001", "08-9999", "8-7"], ["07-0001", "09-0001", "80-0001"]),
        ("08", ["08-0001", "08-0002-A"], ["07-0008", "18-0001"]),
        ("07 to 08", ["07-0001", "08-9999"], ["06-9999", "09-0001"]),
        ("1 to 5", ["01-0001", "05-0300"], ["10-0001", "06-0001", "15-1"]),
        ("03-0012 to 03-0100", ["03-0012", "03-0099", "03-100"], ["03-0011", "03-0101", "3-1000"]),
        ("03-9 to 03-10", ["03-0009", "03-0010"], ["03-0011", "03-0001"]),
        ("07-0012, 09-0001", ["07-0012", "09-0001"], ["07-0013"]),
        ("070012", ["07-0012"], ["07-0013", "70-012-5"]),
        ("R-12a to R-12c", ["r-12-A", "R12b"], ["R-12d", "S-12a"]),
        ("03-0012–03-0020", ["03-0015"], ["03-0021"]),
        ("blocks 1-5", ["01-0001", "05-0300"], ["06-0001", "15-1"]),
        ("Block 08, 09", ["08-0001", "09-0300"], ["07-0001"]),
        ("parcel 07-0012", ["07-0012"], ["07-0013"]),
    ],
)
def test_what_people_type_finds_what_they_mean(typed, there, not_there):
    spans = read_spans(typed)
    check_spans(spans)
    assert [inside(n, spans) for n in (*there, *not_there)] == [True] * len(there) + [False] * len(not_there)
    assert read_spans(words(spans)) == spans


@pytest.mark.parametrize("typed", ["08 to 07", "03-0100 to 03-0012", "?", "01 to 02 to 03", "05-3 to 04"])
def test_what_makes_no_sense_is_refused(typed):
    with pytest.raises(BadInput) as refused:
        check_spans(read_spans(typed))
    assert refused.value.field == "parcels"


numbers = st.tuples(st.integers(1, 20), st.integers(1, 3000)).map(lambda p: f"{p[0]:02d}-{p[1]:04d}")


@given(numbers, numbers, numbers)
def test_a_range_is_what_lies_between_its_ends(a, b, number):
    low, high = sorted((a, b), key=parts)
    assert inside(number, ((low, high),)) == (parts(low) <= parts(number) <= parts(high))
    assert inside(number, ((number[:2], number[:2]),)), "its own block holds it"


@given(st.text(max_size=60))
@example("-")
@example("to")
@example("07, –, 08")
def test_no_text_breaks_it(text):
    try:
        check_spans(read_spans(text))
    except BadInput:
        return
    inside("07-0012", read_spans(text))
