"""Facts of one listing: price per square foot, shares of list, days on market, flags."""

from __future__ import annotations

import numpy as np

from ..facts.dates import NO_DAY, date_of, said
from ..facts.sizes import SQFT_PER_ACRE
from ..phrases import phrase
from .book import with_earlier
from .columns import (
    DEED_SALE,
    FAILED,
    FOR_SALE,
    KIND_CODE,
    PAUSED,
    SOLD,
    STATUSES,
    UNDER_CONTRACT,
    AsOf,
    Bools,
    Columns,
    Floats,
    Ints,
)
from .own_sale import sales_of_the_thing


def price_per_sqft(price: float | None, living_area: float | None) -> float | None:
    """Price ÷ living area in dollars per square foot. 412,500 ÷ 1,875 = 220.00."""
    return price / living_area if price and living_area else None


def share(part: float | None, whole: float | None) -> float | None:
    """Close price ÷ list price, as a fraction; None when either is unknown."""
    return part / whole if part and whole else None


def price_days(columns: Columns, rows: Ints) -> Ints:
    """The day on which each price was agreed: the contract where known and not after the closing, else the closing."""
    contract, close = columns.contract[rows], columns.close[rows]
    return np.where((contract != NO_DAY) & (contract <= close), contract, close).astype(np.int64)


def days_on_market(columns: Columns, view: AsOf, rows: Ints) -> Floats:
    """Days from the on-market date to the contract (sold, under contract), the off-market date (failed) or the
    effective day (for sale), less those withdrawn or on hold; NaN where a needed date is unknown: the close date never
    stands in for the contract.
    """
    kind = view.kind[rows]
    end = np.full(len(rows), NO_DAY, dtype=np.int64)
    end = np.where((kind == SOLD) | (kind == UNDER_CONTRACT), columns.contract[rows], end)
    end = np.where(kind == FAILED, columns.off_market[rows], end)
    end = np.where((kind == FOR_SALE) | (kind == PAUSED), view.day, end)
    start = columns.on_market[rows].astype(np.int64)
    known = (start != NO_DAY) & (end != NO_DAY) & (end >= start)
    return np.where(known, end - start - columns.statuses.days_off(rows, end), np.nan)


def price_figures(columns: Columns, view: AsOf, rows: Ints, own_days: Floats) -> dict[str, Floats]:
    """Figures of listings' prices and days, by name, each (n,), NaN where unknown.

    list_price_per_sqft, price_per_lot_sqft, price_per_acre: dollars a unit. share_of_list, share_of_original: what was paid
    ÷ the last and the first list price, of closed ones. cumulative_days_on_market: days.
    """
    area, lot = (columns.numbers[n][rows] for n in ("living_area", "lot_size_square_feet"))
    first = columns.numbers["original_list_price"][rows]
    last, price = view.list_price[rows], view.price[rows]
    paid = np.where(np.isin(view.kind[rows], (SOLD, DEED_SALE)), price, np.nan)
    with np.errstate(divide="ignore", invalid="ignore"):
        return {
            "list_price_per_sqft": last / area,
            "price_per_lot_sqft": price / lot,
            "price_per_acre": price / lot * SQFT_PER_ACRE,
            "share_of_list": paid / last,
            "share_of_original": paid / first,
            "cumulative_days_on_market": with_earlier(columns, rows, own_days),
        }


def prices_of(columns: Columns, view: AsOf, rows: Ints, own_days: Floats) -> list[dict[str, float]]:
    """What is known of them, a dictionary a row."""
    told = price_figures(columns, view, rows, own_days)
    out: list[dict[str, float]] = [{} for _ in range(len(rows))]
    for name, values in told.items():
        for i in np.flatnonzero(np.isfinite(values)).tolist():
            out[i][name] = float(values[i])
    return out


def paid_before(columns: Columns, view: AsOf, rows: Ints) -> list[tuple[float, int] | None]:
    """What was paid for each row's home the time before, and the day: of the sales and deeds of the same home that lie before
    the listing came on the market (before its own sale where that day is unknown), the last that was no family transfer."""
    out: list[tuple[float, int] | None] = []
    for row in rows.tolist():
        home = int(columns.home_id[row])
        came = int(columns.on_market[row])
        until = came if came != NO_DAY else int(view.date[row])
        before: tuple[float, int] | None = None
        for other in columns.rows_of_home(home).tolist() if home >= 0 else ():
            day, price = int(view.date[other]), float(view.price[other])
            earlier = other != row and view.kind[other] in (SOLD, DEED_SALE) and NO_DAY < day < until and price == price
            if earlier and not columns.not_arms_length[other] and (before is None or day > before[1]):
                before = (price, day)
        out.append(before)
    return out


def status_said(columns: Columns, view: AsOf, row: int) -> str:
    """The standard status of a record where it still is what it was at the view's day ("Expired"); else nothing."""
    if columns.deed[row] or KIND_CODE[columns.status[row]] != view.kind[row]:
        return ""
    return str(STATUSES[columns.status[row]])


def flags(columns: Columns, view: AsOf, row: int) -> tuple[str, ...]:
    """What a reviewer would want to know of this record before it is used."""
    out: list[str] = []
    if columns.new_construction[row]:
        out.append(phrase("flag-new-construction"))
    if columns.distressed[row]:
        out.append(phrase("flag-distressed"))
    if columns.not_arms_length[row]:
        out.append(phrase("flag-not-arms-length"))
    if view.kind[row] == SOLD:
        earlier = resold_from(columns).get(row)
        if earlier is not None:
            paid = columns.numbers["close_price"][earlier]
            day = said(date_of(int(columns.close[earlier])))
            out.append(phrase("flag-quick-resale", paid=f"{paid:,.0f}", day=day))
        concession = columns.numbers["concessions_amount"][row]
        if concession > 0:
            out.append(phrase("flag-concessions", amount=f"{concession:,.0f}"))
    return tuple(out)


QUICK_RESALE_DAYS = 365


def resold_in(columns: Columns, rows: Ints | None = None) -> dict[int, int]:
    """`resold_from` of all records of some homes, or of all."""
    known = (columns.close if rows is None else columns.close[rows]) != NO_DAY
    sold = np.flatnonzero(known) if rows is None else rows[known]
    sold = sold[np.isfinite(columns.numbers["close_price"][sold]) & ~columns.lease[sold]]
    home, kind, close = columns.home_id[sold], columns.home_kind[sold], columns.close[sold]
    order = np.lexsort((close, kind, home))
    first, second = order[:-1], order[1:]
    gap = close[second] - close[first]
    same = (home[first] == home[second]) & (kind[first] == kind[second])
    quick = same & (gap > 0) & (gap <= QUICK_RESALE_DAYS)
    quick[quick] = sales_of_the_thing(columns, columns.as_of(columns.last_day()), sold[first[quick]])
    pairs = zip(sold[second[quick]].tolist(), sold[first[quick]].tolist(), strict=True)
    return {later: earlier for later, earlier in pairs if later not in columns.no_quick_resale}


def resold_from(columns: Columns) -> dict[int, int]:
    """Row of each quick resale → row of the same home's sale before it, at most a year earlier.

    The sale before is one at arm's length of the same thing (own_sale.py). What the agent has overruled is out.
    """
    return columns.memo.get("resold from", lambda: resold_in(columns))


def recent_sale_rows(columns: Columns, view: AsOf, among: Bools | bool = True) -> Ints:
    """Rows of arm's-length, undistressed sales known at the view's day, with a price: what evidence may use. among: of all rows, those
    that may be."""
    good = (
        (view.kind == SOLD)
        & among
        & ~columns.lease
        & ~columns.not_arms_length
        & ~columns.distressed
        & np.isfinite(columns.numbers["close_price"][:])
    )
    return np.flatnonzero(good)
