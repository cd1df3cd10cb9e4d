"""Net sheets against a table worked by hand, to the cent; lines that add up whatever is typed."""

from __future__ import annotations

import datetime as dt
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.price.proceeds import Loan, Scenario, Taxes, net_sheet
from tests.reckoning import both_sides


def test_a_sheet_worked_by_hand():
    sheet = net_sheet(
        Scenario(
            price=Decimal("425000"), closing=dt.date(2026, 3, 31),
            loans=[Loan(Decimal("300000"), Decimal("6"), dt.date(2026, 3, 1)), Loan(Decimal("20000.50"), label="Second mortgage")],
            listing_side_pct=Decimal("2.5"), buying_side_pct=Decimal("2.25"), title_and_closing=Decimal("1850.25"),
            transfer_tax_pct=Decimal("0.15"), taxes=Taxes(Decimal("3650")), dues=Decimal("120"), credits_and_repairs=Decimal("2500"),
            other=[("Survey kept by the seller", Decimal("75.10"))],
        )
    )  # fmt: skip
    assert {line.label: line.worked for line in sheet if line.worked} == {
        "Mortgage, paid off": "300,000 + 300,000 × 6 % × 30 ÷ 365 days", "Compensation, listing side": "2.5 % × 425,000",
        "Compensation, buying side": "2.25 % × 425,000", "Transfer tax": "0.15 % × 425,000", "Taxes to the closing day": "3,650 × 89 ÷ 365 days",
    }  # fmt: skip
    assert [(line.label, str(line.amount)) for line in sheet] == [
        ("Price", "425000.00"),
        ("Mortgage, paid off", "-301479.45"),  # 300,000 × (1 + 6 % × 30 ÷ 365)
        ("Second mortgage, paid off", "-20000.50"),
        ("Compensation, listing side", "-10625.00"),
        ("Compensation, buying side", "-9562.50"),
        ("Title and closing", "-1850.25"),
        ("Transfer tax", "-637.50"),
        ("Taxes to the closing day", "-890.00"),  # 89 days of 10.00
        ("Dues", "-120.00"),
        ("Credits and repairs", "-2500.00"),
        ("Survey kept by the seller", "75.10"),
        ("Net proceeds", "77409.90"),
    ]


@pytest.mark.parametrize(
    ("taxes", "closing", "line"),
    [
        (Taxes(Decimal("3650")), dt.date(2026, 1, 11), "-100.00"),
        (Taxes(Decimal("3650"), seller_owns_closing_day=True), dt.date(2026, 1, 11), "-110.00"),
        (Taxes(Decimal("3650"), in_arrears=False), dt.date(2026, 1, 11), "3550.00"),
        (Taxes(Decimal("3600"), days_in_year=360), dt.date(2026, 2, 1), "-300.00"),
        (Taxes(Decimal("3600"), days_in_year=360), dt.date(2026, 12, 31), "-3590.00"),
        (Taxes(Decimal("3650"), in_arrears=False), dt.date(2026, 12, 31), "10.00"),
    ],
)
def test_taxes_are_shared_by_the_day(taxes, closing, line):
    assert str(taxes.line(closing)) == line


money = st.decimals(0, 10**6, places=2)


@given(money, money, st.decimals(0, 12, places=3), st.dates(dt.date(2020, 1, 1), dt.date(2030, 12, 31)), money)
def test_the_lines_are_whole_cents_and_add_up(price, balance, pct, closing, taxes):
    sheet = net_sheet(
        Scenario(
            price + 1, closing, [Loan(balance, pct, dt.date(2019, 12, 31))], listing_side_pct=pct, taxes=Taxes(taxes)
        )
    )
    assert all(line.amount == line.amount.quantize(Decimal("0.01")) for line in sheet)
    assert sum(line.amount for line in sheet[:-1]) == sheet[-1].amount
    for line in sheet:
        if line.worked:
            reckoned, _ = both_sides(f"{line.worked} = {abs(line.amount)}")
            assert reckoned == pytest.approx(float(abs(line.amount)), abs=0.0051), line.worked
    later = net_sheet(Scenario(price + 1, closing, [Loan(balance, pct, closing + dt.timedelta(days=9))]))
    assert later[1].amount == -balance if balance else True, "no interest runs backwards"


@pytest.mark.parametrize(
    ("scenario", "field"),
    [
        (Scenario(Decimal(0), dt.date(2026, 1, 1)), "price"),
        (Scenario(Decimal(1), dt.date(2026, 1, 1), listing_side_pct=Decimal(101)), "listing_side_pct"),
        (Scenario(Decimal(1), dt.date(2026, 1, 1), taxes=Taxes(Decimal(1), days_in_year=364)), "days_in_year"),
    ],
)
def test_a_line_out_of_reason_is_named(scenario, field):
    with pytest.raises(BadInput) as error:
        net_sheet(scenario)
    assert error.value.field == field
