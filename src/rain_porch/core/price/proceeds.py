"""The seller's net proceeds, to the cent: price less what is owed, what it costs to sell, and what the day decides."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass, field
from decimal import ROUND_HALF_UP, Decimal

from ..errors import BadInput

CENT = Decimal("0.01")


def cents(value: Decimal) -> Decimal:
    """Rounded half up to the cent."""
    return value.quantize(CENT, ROUND_HALF_UP)


@dataclass(frozen=True)
class Loan:
    """A mortgage paid off at closing: balance on a day, and simple interest from that day to the closing, actual/365."""

    balance: Decimal
    rate_pct: Decimal = Decimal(0)
    as_of: dt.date | None = None
    label: str = "Mortgage"

    def payoff(self, closing: dt.date) -> Decimal:
        """300,000 at 6 % from 1 March, closing 31 March: 300,000 + 30 ÷ 365 × 18,000 = 301,479.45."""
        days = (closing - self.as_of).days if self.as_of else 0
        return cents(self.balance + self.balance * self.rate_pct / 100 * max(days, 0) / 365)


@dataclass(frozen=True)
class Taxes:
    """A year's taxes shared at the closing. in_arrears: the year's bill comes later, so that the seller owes from 1
    January to the closing; else it is paid in advance and the buyer gives back the rest of the year."""

    a_year: Decimal
    in_arrears: bool = True
    days_in_year: int = 365
    seller_owns_closing_day: bool = False

    def line(self, closing: dt.date) -> Decimal:
        """What the seller bears (minus) or gets back (plus). 3,650 a year in arrears, closing 11 January: −100.00."""
        if self.days_in_year not in (360, 365):
            raise BadInput("days_in_year", "A year of taxes has 365 or 360 days.")
        gone = (closing - dt.date(closing.year, 1, 1)).days
        if self.days_in_year == 360:
            gone = (closing.month - 1) * 30 + min(closing.day, 30) - 1
        gone += self.seller_owns_closing_day
        share = gone if self.in_arrears else gone - self.days_in_year
        return cents(-self.a_year * share / self.days_in_year)


@dataclass(frozen=True)
class Scenario:
    """compensations in percent of the price (no default: they are negotiated). other: (label, amount), minus for a cost."""

    price: Decimal
    closing: dt.date
    loans: Sequence[Loan] = ()
    liens: Decimal = Decimal(0)
    listing_side_pct: Decimal | None = None
    buying_side_pct: Decimal | None = None
    title_and_closing: Decimal = Decimal(0)
    transfer_tax_pct: Decimal = Decimal(0)
    taxes: Taxes | None = None
    dues: Decimal = Decimal(0)
    credits_and_repairs: Decimal = Decimal(0)
    other: Sequence[tuple[str, Decimal]] = field(default_factory=tuple)


def net_sheet(s: Scenario) -> list[tuple[str, Decimal]]:
    """Lines in order, each in exact cents, the last one "Net proceeds" their sum. BadInput names a line out of reason."""
    if s.price <= 0:
        raise BadInput("price", "Give a price above zero.")
    for name in ("listing_side_pct", "buying_side_pct", "transfer_tax_pct"):
        value = getattr(s, name)
        if value is not None and not 0 <= value <= 100:
            raise BadInput(name, f"{value} % makes no sense: give 0 to 100.")

    def share(pct: Decimal | None) -> Decimal:
        return cents(-s.price * (pct or Decimal(0)) / 100)

    lines = [("Price", cents(s.price))]
    lines += [(f"{loan.label}, paid off", -loan.payoff(s.closing)) for loan in s.loans]
    for label, amount in (
        ("Other liens", -cents(s.liens)),
        ("Compensation, listing side", share(s.listing_side_pct)),
        ("Compensation, buying side", share(s.buying_side_pct)),
        ("Title and closing", -cents(s.title_and_closing)),
        ("Transfer tax", share(s.transfer_tax_pct)),
        ("Taxes to the closing day", s.taxes.line(s.closing) if s.taxes else Decimal(0)),
        ("Dues", -cents(s.dues)),
        ("Credits and repairs", -cents(s.credits_and_repairs)),
        *((label, cents(amount)) for label, amount in s.other),
    ):
        if amount:
            lines.append((label, amount))
    return [*lines, ("Net proceeds", sum((amount for _, amount in lines), Decimal(0)))]
