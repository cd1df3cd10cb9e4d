"""Small markets made in memory, for tests of the core: a list of dicts becomes Columns."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any

import numpy as np

from rain_porch.core.facts.dates import NO_DAY, day_of
from rain_porch.core.facts.fields import BY_NAME, FIELDS, OWN, Kind
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.market.columns import HOME_KINDS, KIND_CODE, NO_CHANGES, STATUSES, Columns, PriceChanges, Words
from rain_porch.core.market.status_history import NO_STATUSES, StatusChanges

NUMBERS = [f.name for f in FIELDS if f.numeric]
WORDS = [f.name for f in FIELDS if f.kind == Kind.WORD]
TODAY = dt.date(2025, 6, 30)
DAY = day_of(TODAY)
CENTRE = (41.2, -38.4)


def date(text: str | dt.date | None) -> int:
    if text is None:
        return NO_DAY
    return day_of(dt.date.fromisoformat(text) if isinstance(text, str) else text)


def market(rows: Sequence[dict[str, Any]], changes: Sequence[tuple[str, str, float]] = ()) -> Columns:
    """Rows hold catalogue names, status, dates as ISO text, home_kind, lease, deed, home; all have a default.

    changes: (key, day of the change, list price before it). A row's "way" is its changes of status, (day, status).
    """
    n = len(rows)

    def numbers(name: str) -> Any:
        default = {"latitude": CENTRE[0], "longitude": CENTRE[1]}.get(name)
        return np.array([np.nan if (v := r.get(name, default)) is None else v for r in rows], dtype=float).reshape(n)

    def words(name: str) -> Words:
        index: dict[str, int] = {}
        codes = [-1 if (v := r.get(name)) is None else index.setdefault(v, len(index)) for r in rows]
        return Words(np.array(codes, dtype=np.int32).reshape(n), tuple(index))

    def days(name: str) -> Any:
        return np.array([date(r.get(name)) for r in rows], dtype=np.int32).reshape(n)

    def flags(name: str) -> Any:
        return np.array([bool(r.get(name, False)) for r in rows], dtype=bool).reshape(n)

    keys = [str(r.get("key", f"L{i}")) for i, r in enumerate(rows)]
    row_of = {k: i for i, k in enumerate(keys)}
    own = {name for r in rows for name in r if name.startswith(OWN)}
    own_words = sorted(name for name in own if BY_NAME[name].kind == Kind.WORD)
    held = NO_CHANGES
    if changes:
        ordered = sorted((row_of[k], date(d), old) for k, d, old in changes)
        held = PriceChanges(*(np.array(x) for x in zip(*ordered, strict=True)))
    ways = [
        (i, date(day), int(KIND_CODE[STATUSES.index(to)])) for i, r in enumerate(rows) for day, to in r.get("way", ())
    ]
    told = StatusChanges(*(np.array(x) for x in zip(*ways, strict=True))) if ways else NO_STATUSES
    return Columns(
        keys=np.array(keys, dtype=object),
        numbers={name: numbers(name) for name in (*NUMBERS, *sorted(own - {*own_words}))},
        words={name: words(name) for name in (*WORDS, *own_words)},
        on_market=days("on_market_date"),
        contract=days("purchase_contract_date"),
        close=days("close_date"),
        off_market=days("off_market_date"),
        status=np.array([STATUSES.index(r.get("status", "Closed")) for r in rows], dtype=np.int8).reshape(n),
        home_kind=np.array([HOME_KINDS.index(r.get("home_kind", "detached")) for r in rows], dtype=np.int8).reshape(n),
        deed=flags("deed"),
        lease=flags("lease"),
        not_arms_length=flags("not_arms_length"),
        distressed=flags("distressed"),
        new_construction=flags("new_construction"),
        row_of=row_of,
        home_id=np.array([r.get("home", 1000 + i) for i, r in enumerate(rows)], dtype=np.int64).reshape(n),
        changes=held,
        statuses=told,
    )


def sale(days_ago: int = 30, price: float = 400_000, **facts: Any) -> dict[str, Any]:
    """A closed sale `days_ago` before TODAY, with the facts of a plain house."""
    close = TODAY - dt.timedelta(days=days_ago)
    return {
        "close_date": close,
        "close_price": price,
        "list_price": price,
        "original_list_price": price,
        "on_market_date": close - dt.timedelta(days=70),
        "purchase_contract_date": close - dt.timedelta(days=35),
        "living_area": 1800.0,
        "bathrooms_full": 2.0,
        "bathrooms_half": 1.0,
        "bedrooms_total": 3.0,
        "garage_spaces": 2.0,
        "lot_size_square_feet": 8000.0,
        "year_built": 1985.0,
        **facts,
    }


def subject(**facts: Any) -> Subject:
    own = {
        "living_area": 1800.0,
        "bathrooms_full": 2.0,
        "bathrooms_half": 1.0,
        "bedrooms_total": 3.0,
        "garage_spaces": 2.0,
        "lot_size_square_feet": 8000.0,
        "year_built": 1985.0,
        **facts,
    }
    return Subject(
        {k: v for k, v in own.items() if v is not None},
        CENTRE[0],
        CENTRE[1],
        HomeKind.DETACHED,
        address="1 Made Street",
    )


def away(miles_north: float) -> float:
    """Latitude of a point so many miles north of the centre, near enough for tests that do not hang on feet."""
    return CENTRE[0] + miles_north / 69.0
