"""What a search finds around a home, with its facts: load → search → weigh."""

from __future__ import annotations

import numpy as np

from ...core.facts.dates import NO_DAY, date_of
from ...core.facts.fields import FIELDS
from ...core.facts.homes import Candidate
from ...core.market.columns import RECORD_KINDS, Ints
from ...core.market.differences import differences
from ...core.market.listing_facts import (
    days_on_market,
    flags,
    paid_before,
    price_per_sqft,
    prices_of,
    status_said,
)
from ...core.search import search as sr
from ...core.search.sales import MarketSales
from ...core.search.steps import loosened_until_enough
from ...core.statistics.summary import known
from .roads import by_roads
from .standpoint import Standpoint

SHOWN_FACTS = (
    *(f.name for f in FIELDS if f.group in ("home", "price", "costs")),
    "bathrooms_total", "subdivision_name", "building_name", "city", "postal_code", "local_status",
)  # fmt: skip


def candidates(standpoint: Standpoint, rows: Ints, limit: int = 2000) -> list[Candidate]:
    """The found records with their facts, most alike first."""
    score, share, far = standpoint.likeness(rows)
    order = np.argsort(-score, kind="stable")[:limit]
    rows, score, share, far = rows[order], score[order], share[order], far[order]
    view, columns = standpoint.view, standpoint.columns
    on_market = days_on_market(columns, view, rows)
    facts = columns.facts(rows, (*SHOWN_FACTS, *columns.own))
    of_listing = prices_of(columns, view, rows, on_market)
    before = paid_before(columns, view, rows)
    apart = differences(columns, rows, standpoint.subject)
    roads = by_roads(standpoint.records, columns, standpoint.subject, rows)
    out = []
    for i, row in enumerate(int(r) for r in rows):
        price = known(view.price[row])
        area = known(columns.numbers["living_area"][row])
        out.append(
            Candidate(
                row=row,
                listing_id=str(columns.keys[row]),
                kind=RECORD_KINDS[view.kind[row]].value,
                distance_miles=known(round(float(far[i]), 4)) if standpoint.subject.placed else None,
                date=None if view.date[row] == NO_DAY else date_of(int(view.date[row])),
                price=price,
                list_price=known(view.list_price[row]),
                price_per_sqft=price_per_sqft(price, area),
                days_on_market=None if np.isnan(on_market[i]) else int(on_market[i]),
                likeness=round(float(score[i]), 2),
                known_share=round(float(share[i]), 3),
                facts=facts[i],
                differences=(*apart[i], *([roads[i]] if roads[i] else [])),
                flags=flags(columns, view, row),
                status=status_said(columns, view, row),
                prices=of_listing[i] | ({"paid_before": told[0]} if (told := before[i]) else {}),
                paid_before_on=date_of(told[1]) if told else None,
            )
        )
    return out


def sold_rows(standpoint: Standpoint, search: sr.Search) -> Ints:
    """The sales that a search finds, in the order of the records: as `run` finds them, without its counts."""
    return sales_of(standpoint).found(search)


def sales_of(standpoint: Standpoint) -> MarketSales:
    """The sales that searches find from here."""
    return MarketSales(standpoint.columns, standpoint.view, standpoint.seen_from, standpoint.records.masks_of)


def loosened(standpoint: Standpoint, search: sr.Search) -> tuple[sr.Search, list[str]]:
    """The search as it is, or loosened step by step until it finds enough sales: six, where the house has no other rule."""
    aim = standpoint.rules.whole("search.fewest")
    return loosened_until_enough(search, sales_of(standpoint), standpoint.likeness_roughly, aim)


def most_alike(standpoint: Standpoint, search: sr.Search) -> list[Candidate]:
    """The most alike sales that a search finds: twelve, where the house has no other rule."""
    return candidates(standpoint, sold_rows(standpoint, search), standpoint.rules.whole("search.taken"))
