from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.fields import BY_NAME
from rain_porch.core.intake.parsing import Unreadable, date, number, parse_column, yes_no


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("412500", 412_500),
        ("$412,500", 412_500),
        (" 1,875 sq ft ", 1875),
        ("(250)", -250),
        ("2.50", 2.5),
        ("USD 10", 10),
        ("-3", -3),
        ("12,34,567", 1_234_567),
    ],
)
def test_numbers_as_people_write_them(text, value):
    assert number(text.strip()) == value


@pytest.mark.parametrize(
    ("text", "value"), [("400001,00", 400_001), ("395.000", 395_000), ("1850,5", 1850.5), ("1.234.567,8", 1_234_567.8)]
)
def test_numbers_with_a_comma_before_the_decimals(text, value):
    assert number(text, "comma") == value


@pytest.mark.parametrize(("text", "form"), [("400001,00", "point"), ("1850,5", "point"), ("1850.5", "comma")])
def test_a_number_in_the_other_form_is_unreadable_and_never_another_number(text, form):
    with pytest.raises(Unreadable):
        number(text, form)


@pytest.mark.parametrize("text", ["four", "1e999", "inf", "1_000", "12.5.1", "--", "0x10", "$"])
def test_no_numbers(text):
    with pytest.raises(Unreadable):
        number(text)


@pytest.mark.parametrize(
    "text",
    [
        "2025-05-01",
        "2025-05-01T10:00:00Z",
        "5/1/2025",
        "05/01/25",
        "05-01-2025",
        "2025/05/01",
        "20250501",
        "1 May 2025",
        "May 1, 2025",
        "5/1/2025 12:00 AM",
    ],
)
def test_dates_in_the_usual_local_forms(text):
    assert date(text) == "2025-05-01"


@pytest.mark.parametrize("text", ["01.05.2025", "1/5/2025", "1-5-25", "01/05/2025 08:30", "2025-05-01"])
def test_dates_with_the_day_first_where_the_column_has_it_so(text):
    assert date(text, "dmy") == "2025-05-01"


@pytest.mark.parametrize("text", ["2025-13-01", "someday", "31/31/2025", "1", ""])
def test_no_dates(text):
    with pytest.raises(Unreadable):
        date(text)


@pytest.mark.parametrize(("text", "value"), [("Y", 1), ("true", 1), ("No", 0), ("0", 0), ("1.0", 1)])
def test_yes_and_no(text, value):
    assert yes_no(text) == value


def test_a_column_tells_which_cells_it_could_not_read():
    assert parse_column(BY_NAME["living_area"], ["1,800", "", "big", "n/a", "big"]) == (
        [1800.0, None, None, None, None],
        [2, 4],
    )
    assert parse_column(BY_NAME["public_remarks"], ["n/a", " x "]) == (["n/a", "x"], [])
    assert parse_column(BY_NAME["public_remarks"], ["y" * 50_000])[1] == [0]


@given(
    st.lists(st.text(max_size=30), max_size=20),
    st.sampled_from(["living_area", "close_date", "pool_private_yn", "city"]),
)
def test_no_text_whatever_breaks_a_column(cells, name):
    values, bad = parse_column(BY_NAME[name], cells)
    assert len(values) == len(cells) and all(values[i] is None for i in bad)
