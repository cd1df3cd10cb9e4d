"""The documents that `rain-porch schema NAME` prints, by name."""

from __future__ import annotations

from pydantic import BaseModel

from .documents import BacktestDoc, FindDoc, ImportDoc, MarketDoc, PriceDoc, SearchDoc, UndoneDoc
from .stored import WorkupDoc

SCHEMAS: dict[str, type[BaseModel]] = {
    "import": ImportDoc,
    "undo": UndoneDoc,
    "find": FindDoc,
    "price": PriceDoc,
    "backtest": BacktestDoc,
    "market": MarketDoc,
    "search": SearchDoc,
    "workup": WorkupDoc,
}
