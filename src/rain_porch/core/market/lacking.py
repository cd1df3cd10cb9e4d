"""What the records of a market lack that its measures need, in words."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

import numpy as np

from ..facts.dates import NO_DAY, day_of
from ..phrases import phrase
from .measures import FROM_CLOSINGS, Market, Period, measure_label, series

NEEDED = 0.02  # a share of records that lack what a measure needs from which it is said
_OF_START = frozenset(("new_listings", "back_on_market", "for_sale", "months_of_supply", "share_with_price_cut",
                       "mean_list_price", "median_list_price"))  # fmt: skip


def lacking(market: Market, measures: Sequence[str], start: dt.date, end: dt.date) -> list[str]:
    """A sentence for each measure of the days [start, end], both inside, that is not made from all of its records, with the share
    that it leaves out."""
    (point,) = series(market, list(dict.fromkeys([*measures, "closings"])), [Period("all", start, end, False)])
    closings = point.values["closings"].n
    out = []

    def tell(name: str, why: str, share: float) -> None:
        if share >= NEEDED:
            label = measure_label(name, market.columns.rules)
            out.append(phrase(f"view-note-{why}", label=label, share=f"{share:.0%}"))

    for name in measures:
        if name in FROM_CLOSINGS and closings:
            tell(name, "lacking", 1 - point.values[name].n / closings)
        if name in _OF_START:
            listings = np.flatnonzero(market.chosen & ~market.columns.deed)
            tell(
                name, "no-start", float((market.columns.on_market[listings] == NO_DAY).mean()) if listings.size else 0.0
            )
        if name == "contracts" and closings:
            rows = market.within("close", day_of(start), day_of(end))
            tell(name, "no-contract", float((market.book.signed[rows] == NO_DAY).mean()))
    return out
