"""The seller's net proceeds, to the cent: price less what is owed, what it costs to sell, and what the day decides."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass, field
from decimal import ROUND_HALF_UP, Decimal

from ..errors import BadInput
from ..phrases import phrase

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
        return cents(self.balance + self.balance * self.rate_pct / 100 * self.days(closing) / 365)

    def days(self, closing: dt.date) -> int:
        """Days for which interest is owed."""
        return max((closing - self.as_of).days, 0) if self.as_of else 0


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
        return cents(-self.a_year * self.days_borne(closing) / self.days_in_year)

    def days_borne(self, closing: dt.date) -> int:
        """Days of which the seller bears the taxes; below zero where that many were paid for the buyer."""
        if self.days_in_year not in (360, 365):
            raise BadInput("days_in_year", "A year of taxes has 365 or 360 days.")
        gone = (closing - dt.date(closing.year, 1, 1)).days
        if self.days_in_year == 360:
            gone = (closing.month - 1) * 30 + min(closing.day, 30) - 1
        gone += self.seller_owns_closing_day
        return gone if self.in_arrears else gone - self.days_in_year


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


@dataclass(frozen=True)
class NetLine:
    """A line of a net sheet in exact cents. worked: its formula in figures, "" for the agent's own figures."""

    label: str
    amount: Decimal
    worked: str = ""


def net_sheet(s: Scenario) -> list[NetLine]:
    """Lines in order, the last one "Net proceeds" their sum. BadInput names a line out of reason."""
    if s.price <= 0:
        raise BadInput("price", "Give a price above zero.")
    for name in ("listing_side_pct", "buying_side_pct", "transfer_tax_pct"):
        value = getattr(s, name)
        if value is not None and not 0 <= value <= 100:
            raise BadInput(name, f"{value} % makes no sense: give 0 to 100.")

    def share(label: str, pct: Decimal | None) -> NetLine:
        return NetLine(label, cents(-s.price * (pct or Decimal(0)) / 100), f"{pct} % × {s.price:,}")

    lines = [NetLine(phrase("net-line-price"), cents(s.price)), *(_paid_off(loan, s.closing) for loan in s.loans)]
    lines += [
        line
        for line in (
            NetLine(phrase("net-line-liens"), -cents(s.liens)),
            share(phrase("net-line-listing-side"), s.listing_side_pct),
            share(phrase("net-line-buying-side"), s.buying_side_pct),
            NetLine(phrase("net-line-title"), -cents(s.title_and_closing)),
            share(phrase("net-line-transfer-tax"), s.transfer_tax_pct),
            _taxes(s.taxes, s.closing),
            NetLine(phrase("net-line-dues"), -cents(s.dues)),
            NetLine(phrase("net-line-credits"), -cents(s.credits_and_repairs)),
            *(NetLine(label, cents(amount)) for label, amount in s.other),
        )
        if line.amount
    ]
    return [*lines, NetLine(phrase("net-line-net-proceeds"), sum((line.amount for line in lines), Decimal(0)))]


def _paid_off(loan: Loan, closing: dt.date) -> NetLine:
    days = loan.days(closing)
    told = {"balance": f"{loan.balance:,}", "pct": str(loan.rate_pct), "days": str(days)}
    worked = phrase("net-worked-payoff", **told) if days and loan.rate_pct else ""
    return NetLine(phrase("net-line-paid-off", loan=loan.label), -loan.payoff(closing), worked)


def _taxes(taxes: Taxes | None, closing: dt.date) -> NetLine:
    label = phrase("net-line-taxes")
    if taxes is None:
        return NetLine(label, Decimal(0))
    return NetLine(
        label,
        taxes.line(closing),
        phrase(
            "net-worked-taxes",
            a_year=f"{taxes.a_year:,}",
            days=str(abs(taxes.days_borne(closing))),
            of=str(taxes.days_in_year),
        ),
    )
