"""Facts of one listing: price per square foot, shares of list, days on market, differences in words, flags."""

from __future__ import annotations

import numpy as np

from ..facts.condition import said as worded
from ..facts.dates import NO_DAY, date_of, said
from ..facts.homes import Subject
from ..facts.words import HomeKind
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


SQFT_PER_ACRE = 43_560.0


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


def status_said(columns: Columns, view: AsOf, row: int) -> str:
    """The standard status of a record where it still is what it was at the view's day ("Expired"); else nothing."""
    if columns.deed[row] or KIND_CODE[columns.status[row]] != view.kind[row]:
        return ""
    return str(STATUSES[columns.status[row]])


def _counted(difference: float, one: str, many: str, more: str, fewer: str) -> str:
    size = abs(difference)
    number = f"{size:g}"
    return f"{number} {one if size == 1 else many} {more if difference > 0 else fewer}".rstrip()


def differences(columns: Columns, row: int, subject: Subject) -> tuple[str, ...]:
    """What differs from the subject, as an agent would say it: "220 sq ft larger", "1 full bath fewer"."""
    said: list[str] = []

    def gap(name: str) -> float | None:
        here, there = columns.fact(row, name), subject.number(name)
        return here - there if isinstance(here, float) and there is not None else None

    area = gap("living_area")
    if area and abs(area) >= 1:
        said.append(f"{abs(area):,.0f} sq ft {'larger' if area > 0 else 'smaller'}")
    for name, one, many in (
        ("bathrooms_full", "full bath", "full baths"),
        ("bathrooms_half", "half bath", "half baths"),
        ("bedrooms_total", "bedroom", "bedrooms"),
        ("garage_spaces", "garage space", "garage spaces"),
    ):
        d = gap(name)
        if d:
            said.append(_counted(d, one, many, "more", "fewer"))
    storeys = gap("stories")
    if storeys:
        size = "half a storey" if abs(storeys) == 0.5 else _counted(abs(storeys), "storey", "storeys", "", "").strip()
        said.append(f"{size} {'more' if storeys > 0 else 'fewer'}")
    below, mine_below = columns.fact(row, "below_grade_finished_area"), subject.number("below_grade_finished_area")
    if isinstance(below, float) and mine_below is not None and abs(below - mine_below) >= 50:
        if not below or not mine_below:
            said.append("a finished basement" if below else "no finished basement")
        else:
            more = "more" if below > mine_below else "less"
            said.append(f"{abs(below - mine_below):,.0f} sq ft {more} finished below grade")
    year = gap("year_built")
    if year and abs(year) >= 3:
        said.append(f"built {abs(year):.0f} years {'later' if year > 0 else 'earlier'}")
    lot, mine = gap("lot_size_square_feet"), subject.number("lot_size_square_feet")
    if lot and mine and abs(lot) > 0.15 * mine:
        said.append(f"lot {abs(lot):,.0f} sq ft {'larger' if lot > 0 else 'smaller'}")
    for name, text in (("pool_private_yn", "a pool"), ("waterfront_yn", "on the water")):
        d = gap(name)
        if d:
            said.append(text if d > 0 else ("no pool" if name == "pool_private_yn" else "not on the water"))
    condition, mine_condition = columns.fact(row, "condition_grade"), subject.number("condition_grade")
    if isinstance(condition, float) and mine_condition is not None and condition != mine_condition:
        said.append(worded(condition))
    style, mine_style = columns.fact(row, "architectural_style"), subject.word("architectural_style")
    if isinstance(style, str) and mine_style and style.casefold() != mine_style.casefold():
        said.append(style.lower())
    if subject.home_kind != HomeKind.UNKNOWN:
        theirs = list(HomeKind)[int(columns.home_kind[row])]
        if theirs != subject.home_kind:
            said.append(theirs.replace("_", " "))
    return tuple(said)


def flags(columns: Columns, view: AsOf, row: int) -> tuple[str, ...]:
    """What a reviewer would want to know of this record before it is used."""
    out: list[str] = []
    if columns.new_construction[row]:
        out.append("new construction")
    if columns.distressed[row]:
        out.append("distressed sale")
    if columns.not_arms_length[row]:
        out.append("not arm's length")
    if view.kind[row] == SOLD:
        earlier = resold_from(columns).get(row)
        if earlier is not None:
            paid = columns.numbers["close_price"][earlier]
            out.append(f"quick resale: {paid:,.0f} on {said(date_of(int(columns.close[earlier])))}")
        concession = columns.numbers["concessions_amount"][row]
        if concession > 0:
            out.append(f"concessions {concession:,.0f}")
    return tuple(out)


QUICK_RESALE_DAYS = 365


def resold_from(columns: Columns) -> dict[int, int]:
    """Row of each quick resale → row of the same home's sale before it, at most a year earlier.

    The sale before is one at arm's length of the same thing (own_sale.py). What the agent has overruled is out.
    """

    def find() -> dict[int, int]:
        sold = np.flatnonzero(
            (columns.close != NO_DAY) & np.isfinite(columns.numbers["close_price"][:]) & ~columns.lease
        )
        home, kind, close = columns.home_id[sold], columns.home_kind[sold], columns.close[sold]
        order = np.lexsort((close, kind, home))
        first, second = order[:-1], order[1:]
        gap = close[second] - close[first]
        same = (home[first] == home[second]) & (kind[first] == kind[second])
        quick = same & (gap > 0) & (gap <= QUICK_RESALE_DAYS)
        quick[quick] = sales_of_the_thing(columns, columns.as_of(columns.last_day()), sold[first[quick]])
        pairs = zip(sold[second[quick]].tolist(), sold[first[quick]].tolist(), strict=True)
        return {later: earlier for later, earlier in pairs if later not in columns.no_quick_resale}

    return columns.memo.get("resold from", find)


def recent_sale_rows(columns: Columns, view: AsOf) -> Ints:
    """Rows of arm's-length, undistressed sales known at the view's day, with a price: what evidence may use."""
    good = (
        (view.kind == SOLD)
        & ~columns.lease
        & ~columns.not_arms_length
        & ~columns.distressed
        & np.isfinite(columns.numbers["close_price"][:])
    )
    return np.flatnonzero(good)
