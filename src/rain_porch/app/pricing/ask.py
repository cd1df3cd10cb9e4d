"""What a list price would mean: time to a contract, share got, failures, rank among what competes, and what it stands above."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from ...core.errors import BadInput, NotFound
from ...core.facts.dates import DAYS_PER_MONTH, NO_DAY, date_of
from ...core.facts.money import half_up, priced
from ...core.market.columns import FOR_SALE, Ints
from ...core.market.own_sale import last_own_sale
from ...core.phrases import phrase
from ...core.price.chances import list_price as lp
from ...core.price.chances.contract_chance import Chance, ChanceModel, When
from ...core.search.matching import let_through
from ...core.search.search import Search
from ...core.statistics.regression import Z80, weighted_quantile
from .past_listings import PastListings, past_listings
from .pricing import Pricing
from .standpoint import Standpoint

QUICK_DAYS, SLOW_DAYS, RECENT_DAYS = 14, 60, 365
CURVE_DAYS = (7, 14, 21, 30, 45, 60, 75, 90, 120, 150, 180)
AROUND_VALUE = (0.95, 1.00, 1.05, 1.10)


@dataclass(frozen=True)
class Rival:
    """A home for sale now, with where its price stands: per square foot where the area is known."""

    listing_id: str
    price: float
    price_per_sqft: float | None
    days: int | None


@dataclass(frozen=True)
class AtPrice:
    """What would become of this home at a list price. position: against the value as it is shown; above: log price less log of the
    exact one. chances: within lp.WITHIN_DAYS; None where nothing can be said."""

    price: float
    position: float
    above: float
    chances: tuple[Chance, ...] | None

    def within(self, days: int) -> Chance | None:
        return next((c for c in self.chances or () if c.days == days), None)


@dataclass(frozen=True)
class Asking:
    """prices: chances at prices around the value and at this one, by price. here: this one among them. learnt: listings that
    the chances were learnt from. near: about how many of them were listed so far from their worth; share_of_list, failed:
    what came of these. groups: what became of homes first listed at such a ratio to their worth then, told apart from it.

    quick, slow: median price per square foot (at first list) of those that this search lets through, under contract within
    two weeks, and not within 60 days, each with its count. rank: places by price among the rivals, from the cheapest.
    """

    list_price: float
    position: float | None
    prices: list[AtPrice]
    here: AtPrice | None
    curve: list[tuple[int, float]]
    learnt: int
    near: int
    share_of_list: float | None
    failed: float | None
    groups: list[lp.Group]
    quick: tuple[float, int] | None
    slow: tuple[float, int] | None
    rivals: list[Rival]
    rank: int
    rank_per_sqft: int | None
    statements: list[str]
    thresholds: list[float]
    sentence: str


def asking(standpoint: Standpoint, pricing: Pricing, search: Search, rivals: Ints, list_price: float) -> Asking:
    """Everything that can be said of one list price. `rivals`: rows of the homes for sale that the search finds."""
    found = pricing.found
    worth = pricing.value or (found.model_value if found else None)
    # what is said of a price against it is the same everywhere; what becomes of the home hangs on the exact one
    shown = half_up(worth, pricing.rounding) if worth else None
    position = list_price / shown if shown else None
    past = past_listings(standpoint) if found is not None and found.wide is not None else None
    told = _chances(standpoint, pricing, past, worth, list_price)
    here = next((p for p in told if p.price == list_price), None)
    near, share, failed = _near(past, here)
    area = standpoint.subject.number("living_area")
    ladder = _ladder(standpoint, rivals)
    per = list_price / area if area else None
    quick, slow = _quick_and_slow(standpoint, search)
    return Asking(
        list_price, position, told, here, _curve(standpoint, pricing, past, here),
        past.model.n if past and past.model else 0, near, share, failed,
        past.groups if past else [], quick, slow, ladder,
        1 + sum(r.price < list_price for r in ladder),
        None if per is None else 1 + sum(r.price_per_sqft is not None and r.price_per_sqft < per for r in ladder),
        lp.against(list_price, _bases(standpoint, pricing)), lp.thresholds(list_price * 0.85, list_price * 1.15),
        recommendation(pricing, list_price, here, past.model.n if past and past.model else 0, share),
    )  # fmt: skip


def _doubt(pricing: Pricing, model: ChanceModel) -> float:
    """The standard deviation of this home's log worth: the usual range's, less what belongs to what is paid rather than to it."""
    if pricing.width is None:
        return model.sd_u
    whole = pricing.width.usual / Z80
    return float(np.sqrt(max(whole**2 - model.sd_v**2, 0.02**2)))


def _when(standpoint: Standpoint, pricing: Pricing) -> When:
    market = float(np.log1p(pricing.market_change.pct_per_month / 100)) / DAYS_PER_MONTH
    return When(float(2 * np.pi * standpoint.view.day / 365.25), market)


def _chances(
    standpoint: Standpoint, pricing: Pricing, past: PastListings | None, worth: float | None, list_price: float
) -> list[AtPrice]:
    if past is None or past.model is None or not worth:
        return []
    shown = half_up(worth, pricing.rounding)
    prices = sorted({list_price, *(half_up(shown * x, 1000) for x in AROUND_VALUE)})
    out = []
    for price in prices:
        above = float(np.log(price / worth))
        told = None
        if past.model.near(above).sum() >= lp.ENOUGH:
            told = past.model.if_listed_at(
                above, _doubt(pricing, past.model), _when(standpoint, pricing), lp.WITHIN_DAYS
            )
        out.append(AtPrice(price, price / shown, above, None if told is None else tuple(told)))
    return out


def _curve(
    standpoint: Standpoint, pricing: Pricing, past: PastListings | None, here: AtPrice | None
) -> list[tuple[int, float]]:
    if past is None or past.model is None or here is None or here.chances is None:
        return []
    told = past.model.if_listed_at(here.above, _doubt(pricing, past.model), _when(standpoint, pricing), CURVE_DAYS)
    return [(c.days, c.share) for c in told or ()]


def _near(past: PastListings | None, here: AtPrice | None) -> tuple[int, float | None, float | None]:
    """(how many were listed about so far from their worth, share of their last list price got, share that failed)."""
    if past is None or past.model is None or here is None:
        return 0, None, None
    w = past.model.near(here.above)
    seen = past.seen
    known = np.isfinite(seen.share)
    over = seen.contract | seen.failed
    share = weighted_quantile(seen.share[known], w[known], 0.5) if w[known].sum() >= lp.ENOUGH else None
    failed = float(np.average(seen.failed[over], weights=w[over])) if w[over].sum() >= lp.ENOUGH else None
    return round(float(w.sum())), share, failed


def _quick_and_slow(
    standpoint: Standpoint, search: Search
) -> tuple[tuple[float, int] | None, tuple[float, int] | None]:
    """Of the last year's listings that the search lets through, whatever has become of them; neither where it cannot be run."""
    columns, day = standpoint.columns, standpoint.view.day
    came = (columns.on_market >= day - RECENT_DAYS) & (columns.on_market <= day) & ~columns.lease & ~columns.deed
    rows = np.flatnonzero(came)
    try:
        recent = let_through(search, columns, rows, standpoint.subject, standpoint.records.masks_of(search))
    except (BadInput, NotFound):
        return None, None
    first, start, end, signed, _ = lp.courses(columns, standpoint.view, recent)
    per = first / columns.numbers["living_area"][recent]
    took = np.where(signed, end, day) - start
    told = lp.usable(columns, standpoint.view, recent)

    def median(chosen: np.ndarray) -> tuple[float, int] | None:
        known = per[chosen & told & np.isfinite(per)]
        return (float(np.median(known)), int(known.size)) if known.size >= lp.ENOUGH else None

    return median(signed & (took <= QUICK_DAYS)), median(took > SLOW_DAYS)


def _ladder(standpoint: Standpoint, rivals: Ints) -> list[Rival]:
    columns, view = standpoint.columns, standpoint.view
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


def _bases(standpoint: Standpoint, pricing: Pricing) -> list[tuple[str, float]]:
    """What a list price is held against, by name."""
    sold = [c.price for c in pricing.comps if c.price]
    out: list[tuple[str, float]] = []
    if sold:
        out += [(phrase("ask-base-highest"), max(sold)), (phrase("ask-base-average"), float(np.mean(sold)))]
    if pricing.shown:
        out.append((phrase("ask-base-indicated"), pricing.shown))
    last = last_own_sale(standpoint.columns, standpoint.view, standpoint.subject)
    if last is not None:
        year = date_of(int(standpoint.columns.close[last])).year
        out.append((phrase("ask-base-own-sale", year=str(year)), float(standpoint.view.price[last])))
    return [(name, base) for name, base in out if base > 0]


def recommendation(
    pricing: Pricing, list_price: float, here: AtPrice | None, learnt: int, share_of_list: float | None
) -> str:
    """The sentence of recommendation, from the figures; it says less where less is known."""
    if not pricing.shown or not pricing.range:
        return ""
    n = len(pricing.comps)
    worth = {"value": priced(pricing.shown), "low": priced(pricing.range.low), "high": priced(pricing.range.high)}
    indicate = phrase("recommend-range" if pricing.range.measured else "recommend-range-not-measured", n=n, **worth)
    pct = 100 * (list_price / pricing.shown - 1)
    stands = "at" if abs(pct) < 0.05 else "above" if pct > 0 else "below"
    asked = phrase(f"recommend-{stands}", price=priced(list_price), pct=f"{abs(pct):.1f}")
    if here is None or not (soon := here.within(30)):
        return phrase("recommend", indicate=indicate, asked=asked)
    told = {"pct": str(soon.pct), "low": str(soon.low_pct), "high": str(soon.high_pct), "n": learnt}
    chance = phrase("recommend-chance", **told)
    if share_of_list:
        chance = phrase("recommend-share", chance=chance, pct=f"{100 * share_of_list:.1f}")
    return phrase("recommend-with-chance", indicate=indicate, asked=asked, chance=chance)


def asked_as_data(ask: Asking) -> dict[str, Any]:
    """An ask as papers take it: what can be said, and the chances at its prices in words."""
    return {
        "statements": list(ask.statements),
        "within_days": list(lp.WITHIN_DAYS),
        "learnt": ask.learnt,
        "prices": [
            {"price": p.price, "own": p.price == ask.list_price,
             "chances": None if p.chances is None else [f"{c.pct} %" for c in p.chances],
             "likely": None if (soon := p.within(30)) is None else f"{soon.low_pct}–{soon.high_pct} %"}
            for p in ask.prices
        ],
    }  # fmt: skip
