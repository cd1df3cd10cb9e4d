"""The documents that `rain-porch schema NAME` prints, by name."""

from __future__ import annotations

from pydantic import BaseModel

from ..documents.accounts import AccountDoc
from ..documents.backtests import BacktestDoc
from ..documents.candidates import FindDoc
from ..documents.imports import ImportDoc, UndoneDoc
from ..documents.market import MarketDoc
from ..documents.prices import PriceDoc
from ..documents.search import SearchDoc
from ..documents.stored import WorkupDoc
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
