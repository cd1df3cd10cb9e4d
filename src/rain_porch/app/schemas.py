"""The documents that `rain-porch schema NAME` prints, by name."""

from __future__ import annotations

from pydantic import BaseModel

from ..documents.search import SearchDoc
from ..documents.stored import WorkupDoc
from ..documents.wire import AccountDoc, BacktestDoc, FindDoc, ImportDoc, MarketDoc, PriceDoc, UndoneDoc
from .market.closer_looks import BandsDoc, BehindDoc, ChangesDoc
from .market.views import SoFarDoc, ViewAnswerDoc

SCHEMAS: dict[str, type[BaseModel]] = {
    "import": ImportDoc,
    "undo": UndoneDoc,
    "find": FindDoc,
    "price": PriceDoc,
    "backtest": BacktestDoc,
    "market": MarketDoc,
    "market-view": ViewAnswerDoc,
    "market-behind": BehindDoc,
    "market-changes": ChangesDoc,
    "market-so-far": SoFarDoc,
    "market-bands": BandsDoc,
    "search": SearchDoc,
    "workup": WorkupDoc,
    "user": AccountDoc,
}
