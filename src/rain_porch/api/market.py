"""Market statistics for the interface: the same answer as the command line's."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from fastapi import APIRouter, Query
from pydantic import BaseModel

from ..core.market import MEASURES
from ..workups.answers import market_doc
from ..workups.documents import MarketDoc
from .errors import RESPONSES
from .state import Porch

router = APIRouter(tags=["market"], responses=RESPONSES)


class MeasureDoc(BaseModel):
    name: str
    label: str
    unit: str


@router.get("/measures")
def measures() -> list[MeasureDoc]:
    return [MeasureDoc(name=name, label=label, unit=unit) for name, (label, unit, _) in MEASURES.items()]


@router.get("/market")
def market(
    porch: Porch,
    measure: Annotated[list[str], Query(min_length=1, max_length=12)],
    by: Literal["month", "quarter", "year", "ytd"] = "month",
    years: Annotated[int, Query(ge=1, le=30)] = 5,
    area: Annotated[str | None, Query(max_length=200)] = None,
    home_kind: Annotated[str | None, Query(max_length=40)] = None,
    start: dt.date | None = None,
    end: dt.date | None = None,
) -> MarketDoc:
    """Measures over rolling periods that end with the newest records."""
    where = [f"home_kind = {home_kind}"] if home_kind else []
    return market_doc(porch.records, measure, by, start, end, area or None, where, years)
