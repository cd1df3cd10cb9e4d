"""Market statistics for the interface: the same answer as the command line's."""

from __future__ import annotations

import csv
import datetime as dt
import io
from typing import Annotated, Literal

from fastapi import Query, Response
from pydantic import BaseModel, Field

from ...app.bulletin import live
from ...app.bulletin.figures import HeatDoc
from ...app.bulletin.live import GlanceDoc, HeatAsk, ValueSpreadDoc
from ...app.market import closer_looks as looks
from ...app.market import outlines as kept_outlines
from ...app.market import saved_views as kept_views
from ...app.market import view_tables, views
from ...app.market.closer_looks import BandsAsk, BandsDoc, BehindAsk, BehindDoc, ChangesAsk, ChangesDoc
from ...app.market.market_document import market_doc
from ...app.market.outlines import KeptOutlineDoc, OutlineDoc
from ...app.market.views import SoFarDoc, ViewAnswerDoc, ViewDoc, label_of
from ...app.workup.home_market import circles
from ...core.market.measures import MEASURES
from ...documents.base import Line
from ...documents.market import MarketDoc
from ...report.workbooks.market_workbook import market_workbook
from ...report.workbooks.sheet import sheet
from ..attachments import MEDIA
from ..routing import api_router
from ..state import Number, Porch

router = api_router("market")


class MeasureDoc(BaseModel):
    name: str
    label: str
    unit: str


@router.get("/measures")
def measures(porch: Porch) -> list[MeasureDoc]:
    told = ((name, *label_of(porch.records, name)) for name in MEASURES)
    return [MeasureDoc(name=name, label=label, unit=unit) for name, label, unit in told]


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
    name: Line = Field(min_length=1, max_length=80)
    pinned: bool = False
    replace: bool = False
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


Form = Literal["csv", "xlsx"]


def _file(form: Form, title: str, rows: list[list[object]]) -> Response:
    """A table as a file."""
    if form == "xlsx":
        return Response(sheet(title, rows), media_type=MEDIA["xlsx"])
    out = io.StringIO()
    csv.writer(out).writerows(rows)
    return Response(out.getvalue(), media_type=MEDIA["csv"])


@router.post("/market/view.{form}", response_class=Response)
def view_file(porch: Porch, form: Form, view: ViewDoc) -> Response:
    """The view as a table."""
    told = views.answer(porch.records, view)
    if form == "csv":
        return _file(form, told.sentence, view_tables.table_of(told))
    periods, lines = ([x.model_dump() for x in part] for part in (told.periods, told.lines))
    for line, shown in zip(lines, told.lines, strict=True):
        line["name"] = view_tables.column_name(shown)
    return Response(market_workbook(told.sentence, periods, lines), media_type=MEDIA["xlsx"])


@router.post("/market/year-so-far.{form}", response_class=Response)
def year_so_far_file(porch: Porch, form: Form, view: ViewDoc) -> Response:
    """The year so far as a table."""
    told = views.year_so_far(porch.records, view)
    place = views.place_words(view)
    return _file(form, f"The year so far to {told.end}{f', {place}' if place else ''}", view_tables.so_far_table(told))


@router.post("/market/bands.{form}", response_class=Response)
def bands_file(porch: Porch, form: Form, ask: BandsAsk) -> Response:
    """The bands by size and by price as a table."""
    place = views.place_words(ask.view)
    told = looks.by_bands(porch.records, ask)
    return _file(form, f"By size and price{f', {place}' if place else ''}", looks.bands_table(told))


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


@router.post("/market/glance")
def glance(porch: Porch, view: ViewDoc) -> GlanceDoc:
    """Headline, months and places of a view: what its bulletin tells, live."""
    return live.glance(porch.records, view)


@router.post("/market/heat")
def heat(porch: Porch, ask: HeatAsk) -> HeatDoc:
    """One measure by year and month."""
    return live.month_heat(porch.records, ask)


@router.post("/market/value-spread")
def value_spread(porch: Porch, ask: BehindAsk) -> ValueSpreadDoc:
    """How the values behind a mean or median lie, with their records."""
    return live.value_spread(porch.records, ask)


@router.get("/outlines")
def outlines(porch: Porch) -> list[KeptOutlineDoc]:
    """Places that the agent has drawn and named, and the circles of the newest workups."""
    return [*kept_outlines.outlines(porch.agent), *circles(porch.agent)]


@router.post("/outlines", status_code=201)
def keep_outline(porch: Porch, body: OutlineDoc) -> int:
    return kept_outlines.keep_outline(porch.agent, body)


@router.delete("/outlines/{outline_id}", status_code=204)
def delete_outline(porch: Porch, outline_id: Number) -> None:
    kept_outlines.delete_outline(porch.agent, outline_id)


@router.get("/views")
def saved_views(porch: Porch) -> list[SavedView]:
    return [SavedView(**v) for v in kept_views.saved_views(porch.agent)]


@router.post("/views", status_code=201)
def save_view(porch: Porch, body: SaveView) -> SavedView:
    """Save a view under a new name; Refused where another has it, unless that one is to be replaced."""
    views.answer(porch.records, body.view)
    name = body.name.strip()
    view_id = kept_views.save_view(porch.agent, name, body.view, body.pinned, body.replace)
    return SavedView(view_id=view_id, name=name, pinned=body.pinned, view=body.view)


@router.put("/views/{view_id}")
def change_view(porch: Porch, view_id: Number, body: SaveView) -> SavedView:
    """Rename a saved view, pin it, or give it another content."""
    views.answer(porch.records, body.view)
    name = body.name.strip()
    kept_views.change_view(porch.agent, view_id, name, body.view, body.pinned)
    return SavedView(view_id=view_id, name=name, pinned=body.pinned, view=body.view)


@router.delete("/views/{view_id}", status_code=204)
def delete_view(porch: Porch, view_id: Number) -> None:
    kept_views.delete_view(porch.agent, view_id)
