"""How the values of the records are spread, and which lie far from all others: one field after the other."""

from __future__ import annotations

from typing import Any

import numpy as np

from ...core.facts.fields import BY_NAME
from ...core.market.columns import HOME_KINDS
from ...core.statistics.summary import outside_fences, summarise
from ...store.records.homes import addresses_of
from ..snapshot import Snapshot

FIELDS = ("close_price", "living_area", "lot_size_square_feet", "year_built", "bedrooms_total", "bathrooms_full")
BINS = 48
FARTHEST = 6


def spreads(records: Snapshot, home_kind: str) -> list[dict[str, Any]]:
    """Of one kind of home, each field's counts in 48 equal bins between the fences, and what lies beyond them.

    Fences are Tukey's: 1.5 interquartile ranges from the quartiles. Values that are suspect already are left out.
    """
    columns = records.columns
    usual = ~columns.lease & ~columns.deed & (columns.home_kind == HOME_KINDS.index(home_kind))
    out = []
    for name in FIELDS:
        values = columns.numbers[name][:]
        rows = np.flatnonzero(usual & np.isfinite(values))
        if rows.size < 20:
            continue
        x = values[rows]
        s = summarise(x)
        assert s.lower_quartile is not None and s.upper_quartile is not None and s.median is not None
        beyond = outside_fences(x)
        reach = 1.5 * (s.upper_quartile - s.lower_quartile)
        low, high = float(x[~beyond].min()), float(x[~beyond].max())
        bins, _ = np.histogram(x[~beyond], bins=BINS, range=(low, max(high, low + 1)))
        far = np.maximum(s.lower_quartile - reach - x, x - s.upper_quartile - reach)
        order = np.argsort(-far)[: min(FARTHEST, int(beyond.sum()))]
        keys = [str(columns.keys[rows[i]]) for i in order]
        shown = addresses_of(records.db, keys)
        out.append(
            {
                "field": name, "label": BY_NAME[name].label, "kind": BY_NAME[name].kind.value, "n": int(x.size),
                "low": low, "high": high, "median": s.median, "bins": bins.tolist(), "beyond": int(beyond.sum()),
                "farthest": [
                    {"key": k, "shown": shown.get(k, k), "value": float(x[i])} for k, i in zip(keys, order, strict=True)
                ],
            }
        )  # fmt: skip
    return out
