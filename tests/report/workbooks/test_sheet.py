from __future__ import annotations

import io

import openpyxl
from hypothesis import given, settings
from hypothesis import strategies as st

from rain_porch.report.workbooks.sheet import sheet

words = st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), min_size=1, max_size=20).filter(
    lambda s: s.strip() == s
)
cells = st.none() | words | st.integers(-(10**9), 10**9) | st.floats(-1e9, 1e9).map(lambda x: round(x, 4))


@settings(max_examples=40)
@given(st.lists(st.lists(cells, min_size=1, max_size=5), max_size=6))
def test_what_goes_in_comes_out_as_it_was(rows):
    book = openpyxl.load_workbook(io.BytesIO(sheet("Closings by month", rows)))
    page = book.active
    assert page["A1"].value == "Closings by month"
    for r, row in enumerate(rows):
        for c, value in enumerate(row):
            assert page.cell(3 + r, 1 + c).value == value


def test_words_that_look_like_formulas_and_links_stay_words():
    said = ["=1+1", "@SUM(A1)", "+cmd", "-2+3", "http://place.example", '=HYPERLINK("x")']
    page = openpyxl.load_workbook(io.BytesIO(sheet("t", [said]))).active
    assert [c.value for c in page[3]] == said and {c.data_type for c in page[3]} == {"s"}
    assert not any(c.hyperlink for c in page[3])
