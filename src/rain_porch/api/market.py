"""Market statistics for the interface: the same answer as the command line's."""

from __future__ import annotations

import csv
import datetime as dt
import io
from typing import Annotated, Literal

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from ..core.market import MEASURES
from ..report.market_book import market_workbook
from ..workups import market_looks as looks
from ..workups import views
from ..workups.answers import market_doc
from ..workups.documents import MarketDoc
from ..workups.market_looks import BandsAsk, BandsDoc, BehindAsk, BehindDoc, ChangesAsk, ChangesDoc
from ..workups.views import SoFarDoc, ViewAnswerDoc, ViewDoc
from .errors import RESPONSES
from .state import Number, Porch

router = APIRouter(tags=["market"], responses=RESPONSES)
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


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


class SavedView(BaseModel):
    view_id: int
    name: str
    pinned: bool
    view: ViewDoc


class SaveView(BaseModel):
    name: str = Field(min_length=1, max_length=80)
    pinned: bool = False
    view: ViewDoc


@router.post("/market/view")
def market_view(porch: Porch, view: ViewDoc) -> ViewAnswerDoc:
    """A view's lines and its sentence; always up to the newest records."""
    return views.answer(porch.records, view)


@router.post("/market/year-so-far")
def year_so_far(porch: Porch, view: ViewDoc) -> SoFarDoc:
    """All measures of this year against the same days of the last; of the view's first place and its kind."""
    return views.year_so_far(porch.records, view)


@router.get("/market/series")
def outside_series(porch: Porch) -> list[str]:
    return porch.records.series_names()


@router.post("/market/view.csv", response_class=Response)
def market_csv(porch: Porch, view: ViewDoc) -> Response:
    """The view as a table."""
    told = views.answer(porch.records, view)
    out = io.StringIO()
    csv.writer(out).writerows(views.table_of(told))
    return Response(out.getvalue(), media_type="text/csv")


@router.post("/market/view.xlsx", response_class=Response)
def market_xlsx(porch: Porch, view: ViewDoc) -> Response:
    """The view as a workbook."""
    told = views.answer(porch.records, view).model_dump()
    return Response(market_workbook(told["sentence"], told["periods"], told["lines"]), media_type=XLSX)


@router.post("/market/behind")
def records_behind(porch: Porch, ask: BehindAsk) -> BehindDoc:
    """The records behind one figure of a view, as they stood at its period's end."""
    return looks.behind(porch.records, ask)


@router.post("/market/changes")
def what_changed(porch: Porch, ask: ChangesAsk) -> ChangesDoc:
    """New listings, price changes, contracts, closings and failures since a day, in a view's first place."""
    return looks.changes(porch.records, ask)


@router.post("/market/bands")
def by_size_and_price(porch: Porch, ask: BandsAsk) -> BandsDoc:
    """Price per square foot by size, months of supply by price, over the last twelve whole months."""
    return looks.by_bands(porch.records, ask)


@router.get("/views")
def saved_views(porch: Porch) -> list[SavedView]:
    return [SavedView(**v) for v in porch.workups.views()]


@router.post("/views", status_code=201)
def save_view(porch: Porch, body: SaveView) -> SavedView:
    """Save a view under its name; one of the same name is replaced."""
    views.answer(porch.records, body.view)
    view_id = porch.workups.save_view(body.name.strip(), body.view, body.pinned)
    return SavedView(view_id=view_id, name=body.name.strip(), pinned=body.pinned, view=body.view)


@router.delete("/views/{view_id}", status_code=204)
def delete_view(porch: Porch, view_id: Number) -> None:
    porch.workups.delete_view(view_id)
