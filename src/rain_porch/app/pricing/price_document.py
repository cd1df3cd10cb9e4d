"""A price and how it came about, as the document that the command line prints and the interface reads."""

from __future__ import annotations

import dataclasses
import datetime as dt
from dataclasses import replace

from ...core.errors import NotEnough
from ...core.facts.dates import date_of
from ...core.facts.fields import line_label
from ...core.facts.house_rules import USUAL, HouseRules
from ...core.facts.money import half_up
from ...core.market.columns import SOLD
from ...core.search import search as sr
from ...core.search.sentence import sentence
from ...documents import prices as d
from ...documents.search import SearchDoc
from ...store.records.homes import addresses_of
from ..home.homes import Home, own_sale
from ..snapshot import Snapshot
from .candidates import loosened, most_alike
from .find_document import subject_doc
from .pricing import Pricing, price
from .standpoint import Standpoint


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
