"""The peers of accuracy: gradient boosting twice, refitted each quarter on the same fields of the same sales, strictly earlier ones.

Settings (chosen on the early county's first half, none better there): LightGBM 600 trees of 31 leaves, learning rate 0.03, at least 20
sales a leaf, 80 % of rows and of columns a tree, L2 1.0; its ranges 400 such trees each on the 10 % and the 90 % quantile.
HistGradientBoosting 400 rounds, learning rate 0.05, 31 leaves, at least 15 sales a leaf. Log prices; the day of the sale is a field.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from lightgbm import LGBMRegressor
from sklearn.ensemble import HistGradientBoostingRegressor

from rain_porch.app.pricing.backtesting import BacktestResult
from rain_porch.core.facts.dates import NO_DAY
from rain_porch.core.facts.fields import OWN
from rain_porch.core.market.columns import Columns
from rain_porch.core.market.listing_facts import recent_sale_rows
from rain_porch.core.price.model_columns import FURTHER, WORDS

NUMBERS = (
    "living_area", "lot_size_square_feet", "year_built", "year_remodelled", "bathrooms_full", "bathrooms_half",
    "bedrooms_total", "garage_spaces", "fireplaces_total", "below_grade_finished_area", "condition_grade", *FURTHER, "latitude", "longitude",
)  # fmt: skip
_TREES = {"learning_rate": 0.03, "num_leaves": 31, "min_child_samples": 20, "subsample": 0.8, "subsample_freq": 1,
          "colsample_bytree": 0.8, "reg_lambda": 1.0, "verbose": -1, "n_jobs": 2, "random_state": 1}  # fmt: skip

Table = np.ndarray[Any, Any]


@dataclass(frozen=True)
class Peers:
    """Predicted prices of the cases, (n,) each, and the range of LightGBM's quantiles."""

    lightgbm: Table
    boosting: Table
    low: Table
    high: Table


def peers(columns: Columns, result: BacktestResult) -> Peers:
    """What the peers say of the cases of a backtest of one kind of home."""
    rows = np.array([columns.row_of[c.listing_id] for c in result.cases])
    quarters = np.array([c.day for c in result.cases]).astype("datetime64[D]").astype("datetime64[M]").astype(int) // 3
    makers: tuple[Callable[[], Any], ...] = (
        lambda: LGBMRegressor(n_estimators=600, **_TREES),
        lambda: HistGradientBoostingRegressor(max_iter=400, learning_rate=0.05, max_leaf_nodes=31, min_samples_leaf=15, random_state=1),
        lambda: LGBMRegressor(n_estimators=400, objective="quantile", alpha=0.1, **_TREES),
        lambda: LGBMRegressor(n_estimators=400, objective="quantile", alpha=0.9, **_TREES),
    )  # fmt: skip
    out = np.zeros((len(makers), len(rows)))
    for quarter in np.unique(quarters):
        mine = quarters == quarter
        begun = int(np.datetime64(int(quarter) * 3, "M").astype("datetime64[D]").astype(int))
        known = recent_sale_rows(columns, columns.as_of(begun - 1))
        known = known[
            (columns.home_kind[known] == columns.home_kind[rows[0]]) & (columns.numbers["close_price"][known] > 1000)
        ]
        x, y = _table(columns, known), np.log(columns.numbers["close_price"][known])
        asked = _table(columns, rows[mine], float(begun))
        x[:, ~np.isfinite(x).any(axis=0)] = 0.0  # what none of these sales knows
        for k, make in enumerate(makers):
            out[k, mine] = np.exp(make().fit(x, y).predict(asked))
    return Peers(*out)


def _table(columns: Columns, of: Table, day: float | None = None) -> Table:
    names = [n for n in NUMBERS if n in columns.numbers and np.isfinite(columns.numbers[n][:]).any()]
    sold = np.where(columns.contract[of] != NO_DAY, columns.contract[of], columns.close[of]).astype(float)
    when = sold if day is None else np.full(len(of), day)
    names += [n for n in columns.numbers if n.startswith(OWN)]
    told = [*(n for n in WORDS if n in columns.words), *(n for n in columns.words if n.startswith(OWN))]
    words = [columns.words[n].codes[of].astype(float) for n in told]
    return np.column_stack([*(columns.numbers[n][of] for n in names), *words, when])
