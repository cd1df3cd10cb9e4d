"""Listings and deed sales read into columns for whole-market scans."""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
from array import array
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import replace
from itertools import groupby
from operator import itemgetter
from typing import Any

import numpy as np

from ...core.facts.condition import grade_of
from ...core.facts.dates import NO_DAY, day_of
from ...core.facts.fields import FIELDS, OWN, RANK, Kind
from ...core.facts.word_order import order_told
from ...core.facts.words import plain, status_of
from ...core.market.columns import FAILED, KIND_CODE, NO_CHANGES, STATUSES, UNDER_CONTRACT, Columns, PriceChanges, Words
from ...core.market.merging import Put, carry, merged
from ...core.market.packed import Names, Numbers, Packed, Texts, packed
from ...core.market.status_history import NO_STATUSES, StatusChanges, tells_more
from .gathering import DATES, NAMES, NUMBERS, WORDS, Gathering, by_code
from .incoming.changed import Changed
from .incoming.imports import records_version
from .word_orders import word_orders

_DEED_FACTS = tuple(f.name for f in FIELDS if f.parcel and (f.numeric or f.kind == Kind.WORD))
_DEEDS = "t.listing_id IS NULL AND t.not_arms_length IS NULL AND t.suspect IS NULL"
_NEW_BUILD_YEARS = 1
_SAME_CHANGE_DAYS = 30

RowOf = Callable[[str], int | None]


def load_columns(db: sqlite3.Connection) -> Columns:
    """All listings and unmatched arm's-length transfers as columns; suspect values unknown; prices with their changes."""
    return _ranked(db, _read(db, "1", "1", {}))


def changed_columns(db: sqlite3.Connection, before: Columns, changed: Changed, put: Put = np.asarray) -> Columns:
    """The columns of the records as they are now, from those of before and what changed since. put: where the new arrays stand."""
    keys = {
        "listings": json.dumps(changed.listings),
        "transfers": json.dumps(changed.transfers),
        "parcels": json.dumps(changed.parcels),
    }
    part = _read(db, _LISTING_CHANGED, _TRANSFER_CHANGED, keys)
    leaving = np.zeros(len(before), dtype=np.bool_)
    of_parcels = db.execute(
        "SELECT 'deed:' || transfer_key FROM transfers WHERE parcel_number IN (SELECT value FROM json_each(:parcels))",
        {"parcels": keys["parcels"]},
    )
    deeds = [f"deed:{key}" for key in changed.transfers] + [r[0] for r in of_parcels]
    leaving[[row for key in (*changed.listings, *deeds) if (row := before.row_of.get(key)) is not None]] = True
    home_id = _homes_among(db, before, leaving, part)
    unranked, move = merged(before, leaving, part, home_id, put)
    now = _ranked(db, unranked)
    carry(before, now, move)
    return now


_LISTING_CHANGED = "listing_id IN (SELECT value FROM json_each(:listings))"
_TRANSFER_CHANGED = (
    "t.row_id IN (SELECT row_id FROM transfers WHERE transfer_key IN (SELECT value FROM json_each(:transfers)) "
    "UNION SELECT row_id FROM transfers WHERE parcel_number IN (SELECT value FROM json_each(:parcels)))"
)


def _homes_among(db: sqlite3.Connection, before: Columns, leaving: Any, part: Columns) -> Any:
    """The number of the home of each record of `part`: as a record of the same home that has not changed tells it, else a new one."""
    keys = {"keys": json.dumps(list(part.keys))}
    own = db.execute(
        "SELECT listing_id, home_key FROM listings WHERE listing_id IN (SELECT value FROM json_each(:keys)) UNION ALL "
        "SELECT 'deed:' || transfer_key, 'parcel:' || parcel_number FROM transfers "
        "WHERE transfer_key IN (SELECT substr(value, 6) FROM json_each(:keys) WHERE value LIKE 'deed:%')",
        keys,
    )
    home_of = dict(map(tuple, own))
    number_of: dict[str, int] = {}
    wanted = {"homes": json.dumps(sorted(set(home_of.values())))}
    for home, key in db.execute(
        "SELECT home_key, listing_id FROM listings WHERE home_key IN (SELECT value FROM json_each(:homes)) UNION ALL "
        "SELECT 'parcel:' || parcel_number, 'deed:' || transfer_key FROM transfers "
        "WHERE parcel_number IN (SELECT substr(value, 8) FROM json_each(:homes) WHERE value LIKE 'parcel:%')",
        wanted,
    ):
        row = before.row_of.get(key)
        if row is not None and not leaving[row]:
            number_of[home] = int(before.home_id[row])
    following = int(before.home_id.max(initial=-1)) + 1
    for home in home_of.values():
        if home not in number_of:
            number_of[home], following = following, following + 1
    return np.array([number_of[home_of[key]] for key in part.keys], dtype=np.int32)


def _ranked(db: sqlite3.Connection, read: Columns) -> Columns:
    """With the ranks of words of the office's own, whose order may hang on all records."""
    orders = _orders(word_orders(db), {name: words for name, words in read.words.items() if name.startswith(OWN)})
    ranks = {RANK + name: _ranks(read.words[name], order) for name, order in orders.items()}
    return replace(read, numbers={**read.numbers, **ranks}, orders=orders, version=records_version(db))


def _read(db: sqlite3.Connection, listings: str, transfers: str, keys: dict[str, str]) -> Columns:
    """Those listings and transfers `t` as columns of their own, by conditions on which they are, without ranks."""
    which = f"same_as IS NULL AND {listings}"
    listed = int(db.execute(f"SELECT count(*) FROM listings WHERE {which}", keys).fetchone()[0])
    rows = listed + int(
        db.execute(f"SELECT count(*) FROM transfers t WHERE {_DEEDS} AND {transfers}", keys).fetchone()[0]
    )
    held = Gathering(rows)
    held.take(db.execute(f"SELECT {', '.join(NAMES)} FROM listings WHERE {which} ORDER BY row_id", keys))
    held.take(_deeds(db, transfers, keys))
    dates = {name: held.array(name) for name in DATES}
    sort_key = _sort_key(dates, held.array("row_id"), listed)
    held.order = np.argsort(sort_key, kind="stable")
    dates = {name: days[held.order] for name, days in dates.items()}
    numbers = {name: held.numbers(name) for name in NUMBERS}
    numbers["living_area"] = _above_grade_first(numbers)
    numbers["bathrooms_total"] = _full_and_half(numbers)
    words = {name: held.words(name) for name in WORDS} | held.own_words()
    numbers |= held.own_numbers()
    numbers["condition_grade"] = _grades(words["property_condition"])
    manner = held.array("manner")
    _, home_id = np.unique(held.array("home_key"), return_inverse=True)
    row_of = Names.of(Texts.of(held.array("listing_id")))
    said = _said_of(db, row_of.get)
    prices, statuses, newest = _changes(db, row_of.get, listings, keys)
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
        row_of=row_of,
        sort_key=sort_key[held.order],
    )


def _deeds(db: sqlite3.Connection, which: str, keys: dict[str, str]) -> sqlite3.Cursor:
    """Arm's-length transfers that belong to no listing, with the facts of their parcel, in the shape of listings."""
    told = {
        "row_id": "t.row_id",
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
        f"WHERE {_DEEDS} AND {which} ORDER BY t.row_id",
        keys,
    )


def _sort_key(dates: dict[str, Any], row_id: Any, listed: int) -> Any:
    """What the rows are in the order of: listings by their last date, so that what a window picks lies together, then as they
    came; then deeds."""
    last = np.full(len(row_id), NO_DAY, dtype=np.int64)
    for name in ("on_market_date", "purchase_contract_date", "off_market_date", "close_date"):
        last = np.where(dates[name] == NO_DAY, last, dates[name])
    last[listed:] = 2**31 - 1
    return (last << 32) + row_id


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


def _changes(
    db: sqlite3.Connection, row_of: RowOf, which: str, keys: dict[str, str]
) -> tuple[PriceChanges, StatusChanges, list[tuple[int, int, int]]]:
    """Price changes of those listings, changes of status of those whose dates do not tell their way, and the newest
    change of those under contract or failed, (row, day, kind)."""
    newest: list[tuple[int, int, int]] = []
    prices = array("q"), array("q"), array("d")
    statuses = array("q"), array("q"), array("q")
    events = db.execute(
        "SELECT listing_id, at, event, old_value, new_value FROM events "
        f"WHERE old_value IS NOT NULL AND listing_id IS NOT NULL AND at IS NOT NULL AND {which} ORDER BY listing_id, at",
        keys,
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
