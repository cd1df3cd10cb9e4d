"""Listings and deed sales read into columns for whole-market scans."""

from __future__ import annotations

import datetime as dt
import sqlite3
from array import array
from collections.abc import Callable, Iterable, Mapping, Sequence
from itertools import groupby
from operator import itemgetter
from typing import Any

import numpy as np

from ...core.facts.condition import grade_of
from ...core.facts.dates import NO_DAY, day_of
from ...core.facts.fields import FIELDS, RANK, Kind
from ...core.facts.word_order import order_told
from ...core.facts.words import plain, status_of
from ...core.market.columns import FAILED, KIND_CODE, NO_CHANGES, STATUSES, UNDER_CONTRACT, Columns, PriceChanges, Words
from ...core.market.packed import Names, Numbers, Packed, Texts, packed
from ...core.market.status_history import NO_STATUSES, StatusChanges, tells_more
from .gathering import DATES, NAMES, NUMBERS, WORDS, Gathering, by_code
from .incoming.imports import records_version
from .word_orders import word_orders

_DEED_FACTS = tuple(f.name for f in FIELDS if f.parcel and (f.numeric or f.kind == Kind.WORD))
_DEEDS = "t.listing_id IS NULL AND t.not_arms_length IS NULL AND t.suspect IS NULL"
_NEW_BUILD_YEARS = 1
_SAME_CHANGE_DAYS = 30

RowOf = Callable[[str], int | None]


def load_columns(db: sqlite3.Connection) -> Columns:
    """All listings and unmatched arm's-length transfers as columns; suspect values unknown; prices with their changes."""
    listed = int(db.execute("SELECT count(*) FROM listings WHERE same_as IS NULL").fetchone()[0])
    rows = listed + int(db.execute(f"SELECT count(*) FROM transfers t WHERE {_DEEDS}").fetchone()[0])
    held = Gathering(rows)
    held.take(db.execute(f"SELECT {', '.join(NAMES)} FROM listings WHERE same_as IS NULL ORDER BY row_id"))
    held.take(_deeds(db))
    dates = {name: held.array(name) for name in DATES}
    held.order = _by_date(dates, listed)
    dates = {name: days[held.order] for name, days in dates.items()}
    numbers = {name: held.numbers(name) for name in NUMBERS}
    numbers["living_area"] = _above_grade_first(numbers)
    numbers["bathrooms_total"] = _full_and_half(numbers)
    own_words = held.own_words()
    words = {name: held.words(name) for name in WORDS} | own_words
    numbers |= held.own_numbers()
    numbers["condition_grade"] = _grades(words["property_condition"])
    orders = _orders(word_orders(db), own_words)
    numbers |= {RANK + name: _ranks(words[name], order) for name, order in orders.items()}
    manner = held.array("manner")
    _, home_id = np.unique(held.array("home_key"), return_inverse=True)
    row_of = Names.of(Texts.of(held.array("listing_id")))
    said = _said_of(db, row_of.get)
    prices, statuses, newest = _changes(db, row_of.get)
    status = held.array("standard_status")
    _fill_from_history(dates, status, newest)
    new_construction = _new_construction(numbers, words, dates)
    for row, says in said["new_construction"].items():
        new_construction[row] = says == "1"
    return Columns(
        keys=row_of.texts,
        numbers=numbers,
        words=words,
        on_market=dates["on_market_date"],
        contract=dates["purchase_contract_date"],
        close=dates["close_date"],
        off_market=dates["off_market_date"],
        status=status,
        home_kind=held.array("home_kind"),
        deed=np.arange(rows) >= listed,
        lease=held.array("is_lease"),
        not_arms_length=manner == 2,
        distressed=manner == 1,
        new_construction=new_construction,
        no_quick_resale=frozenset(said["quick_resale"]),
        home_id=home_id.astype(np.int32),
        changes=prices,
        statuses=statuses,
        version=records_version(db),
        row_of=row_of,
        orders=orders,
    )


def _deeds(db: sqlite3.Connection) -> sqlite3.Cursor:
    """Arm's-length transfers that belong to no listing, with the facts of their parcel, in the shape of listings."""
    told = {
        "listing_id": "'deed:' || t.transfer_key",
        "standard_status": "'Closed'",
        "home_kind": "coalesce(p.home_kind, 'unknown')",
        "is_lease": "0",
        "manner": "'standard'",
        "home_key": "'parcel:' || t.parcel_number",
        "close_price": "t.price",
        "close_date": "coalesce(t.sale_date, t.recording_date)",
        "own": "p.own",
        **{name: f"p.{name}" for name in _DEED_FACTS},
    }
    return db.execute(
        f"SELECT {', '.join(told.get(name, 'NULL') for name in NAMES)} "
        "FROM transfers t LEFT JOIN parcels p ON p.parcel_number = t.parcel_number "
        f"WHERE {_DEEDS} ORDER BY t.row_id"
    )


def _by_date(dates: dict[str, Any], listed: int) -> Any:
    """The order of the columns: listings by their last date, so that what a window picks lies together, then deeds."""
    last = np.full(len(dates["close_date"]), NO_DAY, dtype=np.int32)
    for name in ("on_market_date", "purchase_contract_date", "off_market_date", "close_date"):
        last = np.where(dates[name] == NO_DAY, last, dates[name])
    return np.concatenate([np.argsort(last[:listed], kind="stable"), np.arange(listed, len(last))])


def _above_grade_first(numbers: dict[str, Numbers]) -> Packed:
    """The living area is what is finished above grade, where that is told apart."""
    above = numbers["above_grade_finished_area"][:]
    return packed(np.where(np.isfinite(above), above, numbers["living_area"][:]))


def _full_and_half(numbers: dict[str, Numbers]) -> Packed:
    """Full and half baths, each counted as one (RESO BathroomsTotalInteger); half ones nobody tells of are none."""
    full, half = numbers["bathrooms_full"][:], numbers["bathrooms_half"][:]
    return packed(full + np.where(np.isfinite(half), half, 0.0))


def _grades(words: Words) -> Packed:
    """The grade of condition that each row's word stands for; NaN where it says nothing."""
    return by_code(words.codes, [np.nan if (g := grade_of(word)) is None else g for word in words.words] + [np.nan])


def _orders(told: Mapping[str, Sequence[str]], own: Mapping[str, Words]) -> dict[str, tuple[str, ...]]:
    """Own field → its words from least to most: as the office has said, else as plain English tells; fields without an order left out."""
    out = {}
    for name, words in own.items():
        counts = np.bincount(words.codes[words.codes >= 0], minlength=len(words.words))
        out[name] = tuple(told[name]) if name in told else order_told(zip(words.words, counts.tolist(), strict=True))
    return {name: order for name, order in out.items() if order}


def _ranks(words: Words, order: Sequence[str]) -> Packed:
    """Where each row's word stands in the order, from 1; NaN where it does not."""
    rank = {word.casefold(): float(k) for k, word in enumerate(order, 1)}
    return by_code(words.codes, [rank.get(word.casefold(), np.nan) for word in words.words] + [np.nan])


def _new_construction(numbers: dict[str, Numbers], words: dict[str, Words], dates: dict[str, Any]) -> Any:
    """Said to be new, or sold by its builder in the year it was built or the next."""
    said = numbers["new_construction_yn"][:] == 1
    year = np.where(dates["close_date"] == NO_DAY, dates["on_market_date"], dates["close_date"])
    when = 1970 + year.astype(np.float64) / 365.2425
    young = np.abs(np.floor(when) - numbers["year_built"][:]) <= _NEW_BUILD_YEARS
    return said | (young & (words["builder_name"].codes >= 0))


def _said_of(db: sqlite3.Connection, row_of: RowOf) -> dict[str, dict[int, str]]:
    """What the agent says of conclusions that stand in no column of the records: about → row → word."""
    out: dict[str, dict[int, str]] = {"new_construction": {}, "quick_resale": {}}
    for r in db.execute(
        "SELECT record_key, about, says FROM rulings WHERE kind = 'listings' "
        "AND about IN ('new_construction', 'quick_resale')"
    ):
        if (row := row_of(r["record_key"])) is not None:
            out[r["about"]][row] = r["says"]
    return out


def _fill_from_history(dates: dict[str, Any], status: Any, newest: list[tuple[int, int, int]]) -> None:
    """Contract days of homes under contract, and off-market days of failed ones, that only their history tells.

    newest: (row, day, kind) of each listing's newest change of status.
    """
    for row, day, kind in newest:
        name = {UNDER_CONTRACT: "purchase_contract_date", FAILED: "off_market_date"}.get(kind)
        if name is not None and kind == KIND_CODE[status[row]] and dates[name][row] == NO_DAY:
            dates[name][row] = day


def _changes(db: sqlite3.Connection, row_of: RowOf) -> tuple[PriceChanges, StatusChanges, list[tuple[int, int, int]]]:
    """Price changes of all listings, changes of status of those whose dates do not tell their way, and the newest
    change of those under contract or failed, (row, day, kind)."""
    newest: list[tuple[int, int, int]] = []
    prices = array("q"), array("q"), array("d")
    statuses = array("q"), array("q"), array("q")
    events = db.execute(
        "SELECT listing_id, at, event, old_value, new_value FROM events "
        "WHERE old_value IS NOT NULL AND listing_id IS NOT NULL AND at IS NOT NULL ORDER BY listing_id, at"
    )
    for listing, told in groupby(events, itemgetter(0)):
        if (row := row_of(listing)) is None:
            continue
        way = [(dt.date.fromisoformat(at[:10]), plain(event), old, new) for _, at, event, old, new in told]
        for day, price in _price_changes((day, old, new) for day, what, old, new in way if what == "pricechange"):
            _put(prices, row, day_of(day), price)
        kinds = [
            (day, kind) for day, what, _, new in way if what == "statuschange" and (kind := _kind_of(new)) is not None
        ]
        if kinds and kinds[-1][1] in (UNDER_CONTRACT, FAILED):
            newest.append((row, day_of(kinds[-1][0]), kinds[-1][1]))
        if kinds and tells_more([kind for _, kind in kinds]):
            for day, kind in kinds:
                _put(statuses, row, day_of(day), kind)
    return (
        PriceChanges(*_in_order(prices)) if prices[0] else NO_CHANGES,
        StatusChanges(*_in_order(statuses, np.int8)) if statuses[0] else NO_STATUSES,
        newest,
    )


def _price_changes(told: Iterable[tuple[dt.date, str, str | None]]) -> Iterable[tuple[dt.date, float]]:
    """One listing's changes of price, (day, price before). One that a history file and an import both tell of counts
    once, at its first date."""
    first: dict[tuple[float, str | None], dt.date] = {}
    for day, old, new in told:
        try:
            change = float(old), new
        except ValueError:
            continue
        if change not in first or (day - first[change]).days > _SAME_CHANGE_DAYS:
            first[change] = day
            yield day, change[0]


def _kind_of(word: str | None) -> int | None:
    """The kind of record that a word for a status stands for; None where it is none."""
    status = status_of(word) if word else None
    return None if status is None else int(KIND_CODE[STATUSES.index(status)])


def _put(lists: tuple[Any, Any, Any], *values: Any) -> None:
    for held, value in zip(lists, values, strict=True):
        held.append(value)


def _in_order(lists: tuple[Any, Any, Any], dtype: Any = np.float64) -> tuple[Any, Any, Any]:
    """(rows, days, values) by row and day; what was told of one day stays as it was told."""
    rows, days, values = (np.array(held) for held in lists)
    order = np.lexsort((days, rows))
    return rows[order], days[order].astype(np.int32), values[order].astype(dtype)
