"""What a list price would mean: time to a contract, share got, failures, rank among what competes, and what it stands above."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core import list_price as lp
from ..core.columns import FOR_SALE, HOME_KINDS, Ints
from ..core.dates import NO_DAY, date_of
from ..core.money import dollars, half_up
from ..core.own_sale import last_own_sale
from ..core.place import near_miles
from .pricing import Pricing, Setting

REACH_MILES, REACH_DAYS, LISTINGS = 4.0, 3 * 365, 900
QUICK_DAYS = 14


@dataclass(frozen=True)
class Rival:
    """A home for sale now, with where its price stands: per square foot where the area is known."""

    listing_id: str
    price: float
    price_per_sqft: float | None
    days: int | None


@dataclass(frozen=True)
class Asking:
    """groups: by first list price ÷ worth. here: listings first offered near this price's position.

    quick, slow: median price per square foot (at first list) of those under contract within two weeks, and of those
    not within 60 days, each with its count. rank: places by price among the rivals, from the cheapest.
    """

    list_price: float
    position: float | None
    groups: list[lp.Group]
    here: lp.Group | None
    quick: tuple[float, int] | None
    slow: tuple[float, int] | None
    rivals: list[Rival]
    rank: int
    rank_per_sqft: int | None
    statements: list[str]
    thresholds: list[float]
    sentence: str


def asking(setting: Setting, pricing: Pricing, rivals: Ints, list_price: float) -> Asking:
    """Everything that can be said of one list price. `rivals`: rows of the homes for sale that the search finds."""
    found, value = pricing.found, pricing.value
    groups, here, quick, slow = [], None, None, None
    worth = value or (found.model_value if found else None)
    position = list_price / worth if worth else None
    if found is not None and found.wide is not None and found.surface is not None:
        rows = _listings_around(setting)
        start = setting.columns.on_market[rows].astype(np.float64)
        worths = lp.worth_at(found, setting.columns, rows, start, setting.view.day)
        held = lp.outcomes(setting.columns, setting.view, rows, worths)
        groups = lp.by_position(held)
        here = lp.near_position(held, position) if position else None
        quick, slow = _quick_and_slow(setting, rows)
    area = setting.subject.number("living_area")
    ladder = _ladder(setting, rivals)
    per = list_price / area if area else None
    named = _bases(setting, pricing)
    return Asking(
        list_price, position, groups, here, quick, slow, ladder,
        1 + sum(r.price < list_price for r in ladder),
        None if per is None else 1 + sum(r.price_per_sqft is not None and r.price_per_sqft < per for r in ladder),
        lp.against(list_price, named), lp.thresholds(list_price * 0.85, list_price * 1.15),
        recommendation(pricing, list_price, here),
    )  # fmt: skip


def _listings_around(setting: Setting) -> Ints:
    """Listings of the subject's kind of the last three years within 4 miles, the nearest 900; the home's own left out."""
    columns, view, subject = setting.columns, setting.view, setting.subject
    good = (columns.home_kind == HOME_KINDS.index(subject.home_kind)) & ~columns.lease & ~columns.deed
    good &= ~columns.not_arms_length & ~columns.distressed & (columns.on_market != NO_DAY)
    good &= (columns.on_market <= view.day) & (columns.on_market >= view.day - REACH_DAYS)
    if subject.home_id is not None:
        good &= columns.home_id != subject.home_id
    rows = np.flatnonzero(good)
    far = near_miles(subject.latitude, subject.longitude, columns.lats[rows], columns.lons[rows])
    near = np.flatnonzero(far <= REACH_MILES)
    return np.asarray(rows[near[np.argsort(far[near], kind="stable")[:LISTINGS]]])


def _quick_and_slow(setting: Setting, rows: Ints) -> tuple[tuple[float, int] | None, tuple[float, int] | None]:
    columns, day = setting.columns, setting.view.day
    recent = rows[columns.on_market[rows] >= day - 365]
    first = columns.numbers["original_list_price"][recent]
    first = np.where(np.isfinite(first), first, columns.numbers["list_price"][recent])
    per = first / columns.numbers["living_area"][recent]
    signed = (columns.contract[recent] != NO_DAY) & (columns.contract[recent] <= day)
    took = np.where(signed, columns.contract[recent], day) - columns.on_market[recent]

    def median(chosen: np.ndarray) -> tuple[float, int] | None:
        known = per[chosen & np.isfinite(per)]
        return (float(np.median(known)), int(known.size)) if known.size >= lp.ENOUGH else None

    return median(signed & (took <= QUICK_DAYS)), median(took > 60)


def _ladder(setting: Setting, rivals: Ints) -> list[Rival]:
    columns, view = setting.columns, setting.view
    out = []
    for row in rivals[view.kind[rivals] == FOR_SALE]:
        price, area = float(view.price[row]), float(columns.numbers["living_area"][row])
        start = int(columns.on_market[row])
        out.append(
            Rival(
                str(columns.keys[row]), price, price / area if area > 0 else None,
                None if start == NO_DAY else view.day - start,
            )
        )  # fmt: skip
    return sorted(out, key=lambda r: r.price)


def _bases(setting: Setting, pricing: Pricing) -> list[tuple[str, float]]:
    """What a list price is held against, by name."""
    sold = [c.price for c in pricing.comps if c.price]
    out: list[tuple[str, float]] = []
    if sold:
        out += [("the highest sold comp", max(sold)), ("the average of the sold comps", float(np.mean(sold)))]
    if pricing.value:
        out.append(("the indicated value", half_up(pricing.value, 100)))
    last = last_own_sale(setting.columns, setting.view, setting.subject)
    if last is not None:
        year = date_of(int(setting.columns.close[last])).year
        out.append((f"its own last sale, in {year}", float(setting.view.price[last])))
    return [(name, base) for name, base in out if base > 0]


def recommendation(pricing: Pricing, list_price: float, here: lp.Group | None) -> str:
    """The sentence of recommendation, from the figures; it says less where less is known."""
    if not pricing.value or not pricing.range:
        return ""
    n = len(pricing.comps)
    out = (
        f"{n} comparable {'sale indicates' if n == 1 else 'sales indicate'} {dollars(half_up(pricing.value, 100))}, likely "
        f"{dollars(pricing.range.low)} to {dollars(pricing.range.high)}"
        f"{'' if pricing.range.measured else ', a range not yet measured on past sales'}."
    )
    pct = 100 * (list_price / pricing.value - 1)
    stands = f"{abs(pct):.1f} % {'above' if pct > 0 else 'below'} it" if abs(pct) >= 0.05 else "just at it"
    out += f" A list price of {dollars(list_price)} stands {stands}"
    if here and here.chances:
        out += (
            f"; of {here.n} homes first offered about there against their worth, {100 * here.chances[1]:.0f} % were under "
            "contract within 30 days"
        )
        if here.share_of_list:
            out += f" and those sold got {100 * here.share_of_list:.1f} % of their last list price"
    return out + "."
