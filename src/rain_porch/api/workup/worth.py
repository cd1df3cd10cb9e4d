"""Worth of a workup: the grid, an appraiser's checks, and rates opened to their evidence."""

from __future__ import annotations

import datetime as dt
from typing import Annotated

from fastapi import Path, Query
from pydantic import BaseModel

from ...app.pricing.opened import priced
from ...app.pricing.price_document import pricing_doc
from ...app.pricing.scrutiny import checked, factors_of, opened_place, opened_rate, weights_say
from ...app.pricing.worked_out import WorkedDoc, worked_out
from ...app.workup.workups import open_workup
from ...core.facts.dates import date_of
from ...core.facts.fields import BY_NAME, line_label
from ...core.price.rate_evidence import market_index
from ...documents.base import Worded
from ...documents.prices import PriceDoc
from ...store.records.homes import addresses_of
from ..routing import api_router
from ..state import Number, Porch

router = api_router("workups")


class LineDoc(BaseModel):
    field: str
    label: str
    amount: float | None
    computed: float | None
    theirs: float | None
    mine: float | None
    formula: Worded
    overridden: bool
    apart: bool


class ColumnDoc(BaseModel):
    listing_id: str
    lines: list[LineDoc]
    over_limits: list[Worded]


class CheckDoc(BaseModel):
    """An appraiser's question: what was found, and what to do about it where it is not ok."""

    name: str
    label: str
    ok: bool
    says: Worded
    do: Worded
    homes: list[str]


class FactorDoc(BaseModel):
    """One factor of a comp's weight. times: against the middle of all the comps'."""

    name: str
    says: Worded
    usual: Worded
    times: float


class CurveDoc(BaseModel):
    """The home's worth by the model with the field set to each of the values, all else as it is; the local sales' own values."""

    values: list[float]
    dollars: list[float]
    mine: float
    worth: float
    sales: list[float]


class SpotSaleDoc(BaseModel):
    listing_id: str
    address: str
    latitude: float
    longitude: float
    pct: float


class SpotsDoc(BaseModel):
    """What spots are worth of themselves, in percent against the home's own: rows from north to south, columns from west to east."""

    latitudes: list[float]
    longitudes: list[float]
    pct: list[list[float]]
    latitude: float
    longitude: float
    sales: list[SpotSaleDoc]


class WorthDoc(BaseModel):
    """checks: what an appraiser would ask, those with something to do first. weights_say: why the heaviest comp weighs most."""

    price: PriceDoc
    grid: list[ColumnDoc]
    checks: list[CheckDoc]
    weights_say: Worded
    factors: list[list[FactorDoc]] = []


class ChoiceDoc(BaseModel):
    """A rate that may be used, in dollars a unit."""

    source: str
    dollars: float
    standard_error: float | None
    sales: int | None
    says: Worded


class DotDoc(BaseModel):
    listing_id: str
    x: float
    y: float
    weight: float


class PairDoc(BaseModel):
    """Two sales alike but for the field: their difference in it, in price at one date, and a unit."""

    more: str
    more_address: str
    fewer: str
    fewer_address: str
    difference: float
    dollars: float
    per_unit: float


class RateOpenedDoc(BaseModel):
    """one: what one unit is called. dots: x in units (in percent where in_percent), y in percent of price; the line is
    slope × x."""

    field: str
    label: str
    one: str
    dollars: float
    source: str
    weak: bool
    says: Worded
    choices: list[ChoiceDoc]
    in_percent: bool
    slope: float | None
    dots: list[DotDoc]
    curve: CurveDoc | None
    pair_count: int
    pair_low: float | None
    pair_median: float | None
    pair_high: float | None
    pairs: list[PairDoc]


class IndexPointDoc(BaseModel):
    date: dt.date
    pct: float
    low: float
    high: float
    sales: int


@router.get("/workups/{workup_id}/worth")
def worth(porch: Porch, workup_id: Number) -> WorthDoc:
    opened = open_workup(porch.agent, workup_id)
    pricing = priced(opened)
    doc = pricing_doc(opened.standpoint, pricing, opened.state.search.search(), [])
    doc.workup_id = workup_id
    grid = [
        ColumnDoc(
            listing_id=a.listing_id,
            lines=[
                LineDoc(
                    field=x.field, label=line_label(x.field), amount=x.amount, computed=x.computed, theirs=x.theirs, mine=x.mine,
                    formula=x.formula, overridden=x.overridden, apart=x.apart,
                )
                for x in a.lines
            ],
            over_limits=list(a.over_limits),
        )
        for a in pricing.adjusted
    ]  # fmt: skip
    asked = [
        CheckDoc(name=c.name, label=c.label, ok=c.ok, says=c.says, do=c.do, homes=list(c.homes))
        for c in checked(opened, pricing)
    ]
    factors = factors_of(pricing)
    return WorthDoc(
        price=doc, grid=grid, checks=asked,
        weights_say=weights_say(pricing, [c.address for c in doc.comps], factors),
        factors=[[FactorDoc(**vars(f)) for f in mine] for mine in factors],
    )  # fmt: skip


@router.get("/workups/{workup_id}/worked-out/{figure}")
def worked_out_figure(
    porch: Porch,
    workup_id: Number,
    figure: Annotated[str, Path(max_length=40)],
    of: Annotated[str, Query(max_length=200)] = "",
    list_price: Annotated[float | None, Query(gt=1000, lt=1e9)] = None,
) -> WorkedDoc:
    """How one figure was worked out: its rule, and the steps to it with the figures filled in. of: the comp, for a comp's figure."""
    return worked_out(open_workup(porch.agent, workup_id), figure, of, list_price)


@router.get("/workups/{workup_id}/spots")
def spots(porch: Porch, workup_id: Number) -> SpotsDoc:
    """What the spots around the home are worth of themselves, with the sales from which it was learnt."""
    opened = open_workup(porch.agent, workup_id)
    told = opened_place(opened, priced(opened))
    keys = [str(opened.standpoint.columns.keys[r]) for r in told.rows]
    shown = addresses_of(porch.records.db, keys)
    return SpotsDoc(
        latitudes=told.lats.tolist(), longitudes=told.lons.tolist(), pct=[[round(float(v), 2) for v in row] for row in told.pct],
        latitude=opened.subject.latitude, longitude=opened.subject.longitude,
        sales=[
            SpotSaleDoc(listing_id=key, address=shown.get(key, ""), latitude=float(at[0]), longitude=float(at[1]), pct=round(float(left), 2))
            for key, at, left in zip(keys, told.at, told.left, strict=True)
        ],
    )  # fmt: skip


@router.get("/workups/{workup_id}/rates/{field}")
def open_rate(porch: Porch, workup_id: Number, field: Annotated[str, Path(max_length=80)]) -> RateOpenedDoc:
    """One rate with the local sales as a partial plot, the pairs of sales, and every figure that might be used."""
    opened = open_workup(porch.agent, workup_id)
    rate = opened_rate(opened, priced(opened), field)
    keys = opened.standpoint.columns.keys
    named = {str(keys[r]) for p in rate.pairs.shown for r in (p.more, p.fewer)}
    shown = addresses_of(porch.records.db, sorted(named))
    return RateOpenedDoc(
        field=field, label=line_label(field), one=BY_NAME[field].one, dollars=rate.used.dollars, source=rate.used.source, weak=rate.used.weak,
        says=rate.used.says,
        choices=[
            ChoiceDoc(source=c.source, dollars=c.dollars, standard_error=c.se, sales=c.n, says=c.says) for c in rate.choices
        ],
        in_percent=rate.plot.in_percent if rate.plot else False,
        slope=rate.plot.slope if rate.plot else None,
        dots=[DotDoc(listing_id=str(keys[d.row]), x=d.x, y=d.y, weight=d.weight) for d in (rate.plot.dots if rate.plot else ())],
        curve=None if rate.curve is None else CurveDoc(
            values=rate.curve.values.tolist(), dollars=rate.curve.dollars.tolist(), mine=rate.curve.mine, worth=rate.curve.worth,
            sales=rate.curve.sales.tolist(),
        ),
        pair_count=rate.pairs.count, pair_low=rate.pairs.low, pair_median=rate.pairs.median, pair_high=rate.pairs.high,
        pairs=[
            PairDoc(
                more=str(keys[p.more]), more_address=shown.get(str(keys[p.more]), ""), fewer=str(keys[p.fewer]),
                fewer_address=shown.get(str(keys[p.fewer]), ""), difference=p.difference, dollars=p.dollars, per_unit=p.per_unit,
            )
            for p in rate.pairs.shown
        ],
    )  # fmt: skip


@router.get("/workups/{workup_id}/index")
def price_index(porch: Porch, workup_id: Number) -> list[IndexPointDoc]:
    """Market change by quarter against the effective date, newest first, with its band and the quarter's sales."""
    opened = open_workup(porch.agent, workup_id)
    found = priced(opened).found
    day = opened.standpoint.view.day
    return [
        IndexPointDoc(date=date_of(day - p.days_back), pct=p.pct, low=p.low, high=p.high, sales=p.sales)
        for p in (market_index(found, day) if found else [])
    ]
