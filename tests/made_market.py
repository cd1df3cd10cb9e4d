"""Made-up markets for the tests of statistics, and the statistics asked of them."""

from __future__ import annotations

import datetime as dt
from typing import Any

import numpy as np

from rain_porch.core.market import measures as mk
from rain_porch.core.market.market_rules import USUAL_MARKET, MarketRules
from tests.made import DAY, TODAY, market

START = TODAY - dt.timedelta(days=500)


def crowd(seed: int, n: int = 90) -> list[dict[str, Any]]:
    """Listings in every state, some of them relistings of one home, with dates that may be missing."""
    rng = np.random.default_rng(seed)
    rows: list[dict[str, Any]] = []
    for i in range(n):
        start = START + dt.timedelta(days=int(rng.integers(0, 480)))
        row: dict[str, Any] = {
            "on_market_date": start,
            "list_price": float(rng.integers(200, 600)) * 1000,
            "home": int(rng.integers(0, 70)),
            "living_area": float(rng.integers(900, 2600)),
            "key": f"L{i}",
        }
        row["original_list_price"] = row["list_price"] + float(rng.integers(-2, 6)) * 1000
        contract = start + dt.timedelta(days=int(rng.integers(1, 90)))
        close = contract + dt.timedelta(days=int(rng.integers(10, 60)))
        fate = rng.random()
        if fate < 0.5 and close <= TODAY:
            row |= {"status": "Closed", "close_date": close, "close_price": row["list_price"] * 0.98}
            row["purchase_contract_date"] = contract if rng.random() < 0.9 else None
        elif fate < 0.7 and contract <= TODAY:
            row |= {"status": "Expired", "off_market_date": contract}
        elif fate < 0.85 and contract <= TODAY:
            row |= {"status": "Pending", "purchase_contract_date": contract}
        else:
            row["status"] = "Active"
        rows.append(row)
    return rows


ON = {"Active": "for sale", "Pending": "under contract", "Hold": "on hold", "Expired": "failed", "Closed": "sold"}
AFTER = {"Active": ("Pending", "Hold", "Expired"), "Pending": ("Active", "Closed", "Expired"), "Hold": ("Active", "Expired"),
         "Expired": ("Active",)}  # fmt: skip


def wanderers(seed: int, n: int = 40) -> list[dict[str, Any]]:
    """Listings with a history of statuses: back from contracts, on hold, withdrawn and back; their dates tell only the last."""
    rng = np.random.default_rng(seed)
    rows = []
    for i in range(n):
        day = START + dt.timedelta(days=int(rng.integers(0, 300)))
        row: dict[str, Any] = {"on_market_date": day, "list_price": 300_000.0, "key": f"W{i}", "home": 5000 + i}
        now, way = "Active", [(day, "Active")]
        for _ in range(int(rng.integers(0, 7))):
            day += dt.timedelta(days=int(rng.integers(1, 50)))
            if now == "Closed" or day > TODAY:
                break
            now = str(rng.choice(AFTER[now]))
            way.append((day, now))
        for at, to in way:
            if to == "Pending":
                row["purchase_contract_date"] = at
        row |= {"status": now, "way": way[1:]}
        if now == "Closed":
            row |= {"close_date": way[-1][0], "close_price": 290_000.0}
        if now == "Expired":
            row["off_market_date"] = way[-1][0]
        rows.append(row)
    return rows


def run(
    rows: list[dict[str, Any]],
    spans: list[mk.Period],
    measures: list[str] | None = None,
    rules: MarketRules = USUAL_MARKET,
) -> list[mk.Point]:
    columns = market(rows).by(rules)
    return mk.series(mk.Market(columns, np.arange(len(columns)), DAY), measures or list(mk.MEASURES), spans)
