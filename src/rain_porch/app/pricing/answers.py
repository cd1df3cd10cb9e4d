"""Computed results as the documents that the command line prints and the interface reads."""

from __future__ import annotations

import dataclasses
import datetime as dt
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ...core.errors import BadInput, NotEnough
from ...core.facts.dates import date_of, day_of
from ...core.facts.fields import line_label
from ...core.facts.homes import Candidate, Subject
from ...core.facts.house_rules import USUAL, HouseRules
from ...core.facts.money import half_up
from ...core.facts.places.place import miles
from ...core.market import measures as mk
from ...core.market.columns import SOLD
from ...core.market.conditions import condition_mask, read_condition
from ...core.search import search as sr
from ...core.search.sentence import sentence
from ...core.statistics.summary import known
from ...documents import wire as d
from ...documents.search import SearchDoc
from ...store.records.homes import addresses_of
from ..home.homes import Home, own_sale
from ..snapshot import Snapshot
from .backtesting import BacktestResult
from .candidates import candidates, loosened, most_alike
from .pricing import Pricing, price
from .standpoint import Standpoint


def backtest_doc(result: BacktestResult) -> d.BacktestDoc:
    return d.BacktestDoc(
        start=result.start,
        end=result.end,
        subjects=len(result.cases),
        skipped=result.skipped,
        methods={name: d.ScoreDoc(**dataclasses.asdict(s)) for name, s in result.methods.items()},
        range=d.RangeReportDoc(**dataclasses.asdict(result.range)),
        kinds=[d.KindScoreDoc(**dataclasses.asdict(k)) for k in result.kinds],
        seconds=round(result.seconds, 2),
    )


def candidate_docs(standpoint: Standpoint, found: Sequence[Candidate]) -> list[d.CandidateDoc]:
    shown = addresses_of(standpoint.records.db, [c.listing_id for c in found])
    lats, lons = standpoint.columns.lats, standpoint.columns.lons
    return [
        d.CandidateDoc(
            **{k: getattr(c, k) for k in (
                "listing_id", "kind", "distance_miles", "date", "price", "list_price", "days_on_market",
                "likeness", "known_share", "status", "paid_before_on",
            )},
            prices={name: round(value, 4) for name, value in c.prices.items()},
            price_per_sqft=None if c.price_per_sqft is None else round(c.price_per_sqft, 2),
            address=shown.get(c.listing_id, ""),
            latitude=known(lats[c.row]),
            longitude=known(lons[c.row]),
            facts=dict(c.facts),
            differences=list(c.differences),
            flags=list(c.flags),
        )
        for c in found
    ]  # fmt: skip


def subject_doc(subject: Subject) -> d.SubjectDoc:
    return d.SubjectDoc(
        address=subject.address,
        parcel_number=subject.parcel_number,
        home_kind=subject.home_kind.value,
        latitude=subject.latitude,
        longitude=subject.longitude,
        placed=subject.placed,
        facts=dict(subject.facts)
        | ({} if (baths := subject.number("bathrooms_total")) is None else {"bathrooms_total": baths}),
        assessed_year=subject.assessed_year,
    )


def find_doc(
    records: Snapshot, home: Home, as_of: dt.date | None, search: sr.Search | None, rules: HouseRules = USUAL
) -> d.FindDoc:
    """Candidates of a home: the given search as it is, or the proposed one, loosened until it finds enough."""
    standpoint = Standpoint.at(records, home.subject, records.effective_day(as_of), rules)
    said: list[str] = []
    if search is None:
        search, said = loosened(standpoint, standpoint.proposed())
    found = standpoint.run(search)
    return d.FindDoc(
        effective_date=date_of(standpoint.view.day),
        sentence=sentence(search),
        counts=dict(found.counts),
        unknown=dict(found.unknown),
        loosened=said,
        search=SearchDoc.of(search),
        candidates=candidate_docs(standpoint, candidates(standpoint, found.rows)),
    )


def price_doc(
    records: Snapshot,
    home: Home,
    as_of: dt.date | None,
    search: sr.Search | None,
    exclude_self: bool = False,
    rules: HouseRules = USUAL,
) -> tuple[d.PriceDoc, list[str]]:
    """The price that Rain Porch finds left to itself, and the comps it took. Raises NotEnough without any sale."""
    subject = home.subject
    if exclude_self:
        own = own_sale(records, home)
        if own is not None:
            subject = replace(subject, own_listing=own[0])
            as_of = as_of or own[1]
    standpoint = Standpoint.at(records, subject, records.effective_day(as_of), rules)
    said: list[str] = []
    if search is None:
        search, said = loosened(standpoint, standpoint.proposed())
    comps = most_alike(standpoint, search)
    if not comps:
        total = int((standpoint.view.kind == SOLD).sum())
        raise NotEnough(
            f"No sale fits “{sentence(search)}” as of {date_of(standpoint.view.day)} ({total:,} sales in the records by then): "
            "loosen the search, or bring in more records."
        )
    pricing = price(standpoint, comps, leave_out_home=exclude_self)
    return pricing_doc(standpoint, pricing, search, said), [c.listing_id for c in comps]


def pricing_doc(standpoint: Standpoint, pricing: Pricing, search: sr.Search, said: list[str]) -> d.PriceDoc:
    shown = addresses_of(standpoint.records.db, [c.listing_id for c in pricing.comps])
    comps = [
        d.CompDoc(
            listing_id=c.listing_id,
            address=shown.get(c.listing_id, ""),
            close_price=a.close_price,
            close_date=c.date or dt.date.min,
            distance_miles=c.distance_miles,
            adjustments=[
                d.AdjustmentDoc(field=line.field, amount=round(line.amount, 2))
                for line in a.lines
                if not line.apart
                and line.amount is not None
                and (line.amount or line.field in ("concessions", "market_change"))
            ],
            adjusted_price=round(a.adjusted_price, 2),
            net_pct=round(a.net_pct, 4),
            gross_pct=round(a.gross_pct, 4),
            weight=w,
            likeness=c.likeness,
            flags=list(c.flags),
        )
        for c, a, w in zip(pricing.comps, pricing.adjusted, pricing.weights, strict=True)
    ]
    m = pricing.market_change
    return d.PriceDoc(
        effective_date=date_of(standpoint.view.day),
        subject=subject_doc(standpoint.subject),
        sentence=sentence(search),
        search=SearchDoc.of(search),
        comps=comps,
        rates=[
            d.RateDoc(
                field=r.field, dollars=round(r.dollars, 4), standard_error=round(r.se, 4), sales=r.n, source=r.source,
                weak=r.weak, says=r.says,
            )
            for r in pricing.rates.values()
        ],
        market_change=d.MarketChangeDoc(
            pct_per_month=round(m.pct_per_month, 4), low=round(m.low, 4), high=round(m.high, 4), sales=m.n,
            window_days=m.window_days,
        ),
        apart=[
            d.ApartDoc(field=x.field, label=line_label(x.field), amount=round(x.amount or 0.0, 2), formula=x.formula)
            for x in pricing.apart
        ],
        model=None if pricing.voice is None else d.VoiceDoc(value=round(pricing.voice.value, 2), weight=pricing.voice.weight),
        indicated_value=pricing.shown,
        range=None if pricing.range is None else d.RangeDoc(**dataclasses.asdict(pricing.range)),
        range_causes=[
            d.CauseDoc(name=c.name, factor=round(c.factor, 3), says=c.says, do=c.do) for c in pricing.range_causes
        ],
        methods=[
            d.MethodDoc(name=x.name, label=x.label, value=round(x.value, 2), shown=half_up(x.value, pricing.rounding), formula=x.formula)
            for x in pricing.methods
        ],
        loosened=said,
        warnings=pricing.warnings,
    )  # fmt: skip


def market_doc(
    records: Snapshot,
    measures: Sequence[str],
    by: str,
    start: dt.date | None,
    end: dt.date | None,
    area: str | None = None,
    where: Sequence[str] = (),
    years: int = 5,
    deeds: bool = False,
    near: tuple[float, float, float] | None = None,
) -> d.MarketDoc:
    """Measures over periods; without dates the last `years` up to the records' newest day, rolling. near: latitude, longitude and
    miles around it."""
    through = records.through()
    end = end or through
    spans = mk.periods(by, start, end, through) if start else mk.last_years(by, years, end, through)
    if len(spans) > 1200:
        raise BadInput("from", f"{len(spans):,} periods are more than 1,200: choose a later start or longer periods.")
    columns = records.columns
    chosen = np.ones(len(columns), dtype=np.bool_)
    mask = records.area_mask((area,) if area else ())
    if mask is not None:
        chosen &= mask
    if near is not None:
        chosen &= miles(near[0], near[1], columns.lats, columns.lons) <= near[2]
    for text in where:
        chosen &= condition_mask(read_condition(text), columns)
    rows = np.flatnonzero(chosen)
    points = mk.series(mk.Market(columns, rows, day_of(through), deeds), measures, spans)
    return d.MarketDoc(
        measures=list(measures),
        periods=[
            d.PeriodDoc(
                period=p.period.name,
                start=p.period.start,
                end=p.period.end,
                finished=p.period.finished,
                values={k: d.ValueDoc(value=v.value, n=v.n) for k, v in p.values.items()},
            )
            for p in points
        ],
    )
