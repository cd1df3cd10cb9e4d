"""The market as columns: one row a listing or deed sale, arrays all of one length, in the order of the records.

Scans over the whole market run on these; the database stays the truth. Unknown is NaN, code −1 or NO_DAY.
Suspect values arrive here already unknown, so that no statistic sees them.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..facts.dates import NO_DAY, date_of
from ..facts.fields import BY_NAME, OWN, Kind
from ..facts.homes import Subject
from ..facts.words import KIND_OF_STATUS, HomeKind, RecordKind, Status
from ..memo import Memo
from .market_rules import USUAL_MARKET, MarketRules
from .packed import Numbers, Texts
from .stages import NOTHING, Told, stages_by_dates, told_by_history
from .status_history import NO_STATUSES, StatusChanges

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Rows = NDArray[np.int32]  # row numbers where many are kept
Days = NDArray[np.int32]
Codes = NDArray[np.signedinteger[Any]]
Bools = NDArray[np.bool_]

STATUSES = tuple(Status)
RECORD_KINDS = tuple(RecordKind)
HOME_KINDS = tuple(HomeKind)
KIND_CODE = np.array([RECORD_KINDS.index(KIND_OF_STATUS[s]) for s in STATUSES], dtype=np.int8)
SOLD, DEED_SALE, UNDER_CONTRACT, FOR_SALE, FAILED, PAUSED = range(6)
# the columns, beside numbers and words, that say something of a record
PLAIN = (
    "on_market", "contract", "close", "off_market", "status", "home_kind", "deed", "lease", "not_arms_length", "distressed",
    "new_construction",
)  # fmt: skip
MANY = 200_000  # rows: where there are more, less is kept of what can be worked out again


@dataclass(frozen=True)
class Words:
    """A column of words: `codes` index `words`; −1 is unknown."""

    codes: Codes
    words: tuple[str, ...]

    def __getitem__(self, row: int) -> str | None:
        code = int(self.codes[row])
        return None if code < 0 else self.words[code]

    def mask(self, wanted: frozenset[str], rows: Ints | None = None) -> Bools:
        """Which of some rows, or of all, have a word that, case folded, is among `wanted`; unknown ones do not."""
        hit = np.array([w.casefold() in wanted for w in self.words] + [False], dtype=np.bool_)
        return hit[self.codes if rows is None else self.codes[rows]]


@dataclass(frozen=True)
class PriceChanges:
    """List price before each change, sorted by row and day: enough to rewind a price to any date."""

    rows: Ints
    days: Days
    old: Floats

    @cached_property
    def _when(self) -> Ints:
        return (self.rows << 32) + self.days

    def next_after(self, rows: Ints, day: int) -> Ints:
        """The place of each row's first change after `day`, −1 where it has none; (n,)."""
        if not self.rows.size:
            return np.full(len(rows), -1)
        at = np.searchsorted(self._when, (rows << 32) + day, side="right")
        there = self.rows[np.minimum(at, self.rows.size - 1)]
        return np.where((at < self.rows.size) & (there == rows), at, -1)


NO_CHANGES = PriceChanges(np.zeros(0, np.int64), np.zeros(0, np.int32), np.zeros(0))


@dataclass(frozen=True)
class Columns:
    """All records as columns, each (n,): a number NaN, a day NO_DAY, a word −1 where unknown or suspect."""

    keys: Texts | NDArray[Any]
    numbers: Mapping[str, Numbers]
    words: Mapping[str, Words]
    on_market: Days
    contract: Days
    close: Days
    off_market: Days
    status: NDArray[np.int8]
    home_kind: NDArray[np.int8]
    deed: Bools
    lease: Bools
    not_arms_length: Bools
    distressed: Bools
    new_construction: Bools
    home_id: Rows  # the same number for all records of one home
    row_of: Mapping[str, int] = field(repr=False)  # key → row
    changes: PriceChanges = NO_CHANGES
    statuses: StatusChanges = NO_STATUSES
    no_quick_resale: frozenset[int] = frozenset()  # rows of which the agent has said so
    version: int = 0
    sort_key: Ints = field(
        default_factory=lambda: np.zeros(0, np.int64), repr=False
    )  # rows are in its order, ascending
    orders: Mapping[str, tuple[str, ...]] = field(default_factory=dict)  # own field → its words from least to most
    rules: MarketRules = USUAL_MARKET
    memo: Memo = field(init=False, default_factory=lambda: Memo(32), repr=False, compare=False)
    _views: Memo = field(init=False, default_factory=lambda: Memo(9), repr=False, compare=False)

    def __post_init__(self) -> None:
        if len(self) > MANY:
            self._views.most = 3

    def __len__(self) -> int:
        return len(self.keys)

    def by(self, rules: MarketRules) -> Columns:
        """The same records counted by other rules; itself by its own."""
        return self if rules == self.rules else replace(self, rules=rules)

    def row(self, key: str | None) -> int | None:
        """The row of a record; None where it is none of these."""
        return None if key is None else self.row_of.get(key)

    @property
    def kinds_today(self) -> NDArray[np.int8]:
        """The kind of record that each status stands for, (n,)."""
        return np.asarray(KIND_CODE[self.status])

    @cached_property
    def told(self) -> Told:
        """The ways of the listings whose history tells more than their dates."""
        return told_by_history(self)

    def by_home(self) -> tuple[Rows, Rows]:
        """(rows in the order of their homes, those homes), (n,) each; worked out once."""

        def find() -> tuple[Rows, Rows]:
            order = np.argsort(self.home_id, kind="stable").astype(np.int32)
            return order, self.home_id[order]

        return self.memo.get("by home", find)

    def rows_of_home(self, home_id: int) -> Ints:
        """All records of one home, in the order of the records."""
        order, sorted_ids = self.by_home()
        first, last = np.searchsorted(sorted_ids, np.array([home_id, home_id + 1], dtype=sorted_ids.dtype))
        return order[first:last].astype(np.int64)

    @property
    def lats(self) -> Floats:
        """Latitudes in degrees, (n,), NaN where unknown."""
        return np.asarray(self.numbers["latitude"][:])

    @property
    def lons(self) -> Floats:
        """Longitudes in degrees, (n,), NaN where unknown."""
        return np.asarray(self.numbers["longitude"][:])

    @cached_property
    def own(self) -> tuple[str, ...]:
        """Names of the columns of the office's own that any record has."""
        return tuple(sorted(n for n in (*self.numbers, *self.words) if n.startswith(OWN)))

    def ranked(self, subject: Subject) -> Subject:
        """The subject with the ranks of its words in the orders of these records."""
        ranks = {}
        for name, order in self.orders.items():
            word = (subject.word(name) or "").casefold()
            if word in (known := [w.casefold() for w in order]):
                ranks[name] = float(known.index(word) + 1)
        return replace(subject, ranks=ranks) if ranks else subject

    def last_day(self) -> int:
        """The newest event date in the records; NO_DAY when there is none."""
        return max(int(d.max(initial=NO_DAY)) for d in (self.on_market, self.contract, self.close, self.off_market))

    def as_of(self, day: int) -> AsOf:
        """The market as it stood at the end of `day`. Kept, since every search of a workup asks for the same day."""
        return self._views.get(day, lambda: rewind(self, day))

    def give_way(self) -> None:
        """Keep no view of days any more: others serve from now on."""
        self._views.clear()

    def values(self, name: str, rows: Ints) -> Floats | None:
        """A field's numbers in some rows, or its days as dates.py counts them, NaN where unknown; None for words."""
        if name in self.numbers:
            return np.asarray(self.numbers[name][rows])
        days = {"on_market_date": self.on_market, "purchase_contract_date": self.contract,
                "close_date": self.close, "off_market_date": self.off_market}.get(name)  # fmt: skip
        if days is None:
            return None
        return np.where(days[rows] == NO_DAY, np.nan, days[rows])

    def fact(self, row: int, name: str) -> float | str | None:
        """One catalogue value of one row; None when unknown."""
        if name in self.numbers:
            value = float(self.numbers[name][row])
            return None if np.isnan(value) else _shown(name, value)
        return self.words[name][row] if name in self.words else None

    def facts(self, rows: Ints, names: Sequence[str]) -> list[dict[str, float | str]]:
        """The known values of some fields in some rows, a dictionary a row, its names in the order given."""
        out: list[dict[str, float | str]] = [{} for _ in range(len(rows))]
        for name in names:
            if name in self.numbers:
                values = self.numbers[name][rows]
                known = np.flatnonzero(~np.isnan(values)).tolist()
                found: list[Any] = values.tolist()
                if name.startswith(OWN) and BY_NAME[name].kind == Kind.DATE:
                    found = [None if v != v else _shown(name, v) for v in found]
            elif name in self.words:
                held = self.words[name]
                codes = held.codes[rows]
                known = np.flatnonzero(codes >= 0).tolist()
                found = [held.words[code] if code >= 0 else None for code in codes.tolist()]
            else:
                continue
            for i in known:
                out[i][name] = found[i]
        return out


def _shown(name: str, value: float) -> float | str:
    """A number as a fact: the days of a date of the office's own as the date."""
    return date_of(int(value)).isoformat() if name.startswith(OWN) and BY_NAME[name].kind == Kind.DATE else value


@dataclass(frozen=True)
class AsOf:
    """Each row at one date: kind of record (NOTHING if not there yet), its date, list price and price then.

    open_to_search  there at the date, no lease, and priced
    date   the day that its kind's window looks at: close, sale, contract, on-market or off-market day
    price  the close price of sold ones, else the list price of that day
    """

    day: int
    kind: NDArray[np.int8]
    date: Days
    list_price: Floats
    price: Floats
    open_to_search: Bools
    _sorted: Memo = field(default_factory=lambda: Memo(1), repr=False, compare=False)

    @property
    def _by_kind(self) -> dict[int, tuple[Ints, Days]]:
        """Rows open to search by kind, in the order of their dates, and those dates; sorted once for all days of a month."""
        return self._sorted.get("by kind", self._sort)

    def _sort(self) -> dict[int, tuple[Ints, Days]]:
        out = {}
        for code in range(len(RECORD_KINDS)):
            rows = np.flatnonzero((self.kind == code) & self.open_to_search)
            rows = rows[np.argsort(self.date[rows], kind="stable")]
            out[code] = (rows, self.date[rows])
        return out

    def sales_until(self, day: int) -> AsOf:
        """The same view for its sales alone, as they were known on an earlier day: only later sales are hidden."""
        return replace(self, day=day)

    def rows_since(self, code: int, first_day: int | None) -> Ints:
        """Rows of a kind whose date lies from `first_day` to the view's day; all of the kind where it is None."""
        return self.rows_between(code, first_day, self.day)

    def rows_between(self, code: int, first_day: int | None, last_day: int) -> Ints:
        """Rows of a kind whose date lies between two days, both included; where `first_day` is None and the last is
        the view's, all of the kind, those without a date too."""
        rows, dates = self._by_kind[code]
        if first_day is None and last_day >= self.day:
            return rows
        first = NO_DAY + 1 if first_day is None else first_day
        start, end = np.searchsorted(dates, np.array([first, last_day + 1], dtype=dates.dtype))
        return rows[start:end]


def list_price_at(columns: Columns, rows: Ints | None, day: int) -> Floats:
    """List prices as they were at the end of `day`: of some rows, or of all."""
    changes = columns.changes
    if rows is None:
        undo = changes.days > day
        if not undo.any():
            return np.asarray(columns.numbers["list_price"][:])
        price = np.array(columns.numbers["list_price"][:])
        # the oldest change after `day` tells the price of that day: write the newest first, the oldest last
        price[changes.rows[undo][::-1]] = changes.old[undo][::-1]
        return price
    price = np.array(columns.numbers["list_price"][rows])
    at = changes.next_after(rows, day)
    price[at >= 0] = changes.old[at[at >= 0]]
    return price


def rewind(columns: Columns, day: int) -> AsOf:
    """Kinds, dates and prices as of the end of `day` (rules: everything is rewound; what a record is: stages.py)."""
    stages = stages_by_dates(columns)
    kind = stages.on(day)
    rows, told, since = columns.told.on(day)
    kind[rows] = told
    date = np.full(len(columns), NO_DAY, dtype=np.int32)
    for code, source in (
        (SOLD, columns.close),
        (DEED_SALE, columns.close),
        (UNDER_CONTRACT, columns.contract),
        (FOR_SALE, columns.on_market),
        (FAILED, columns.off_market),
        (PAUSED, columns.on_market),
    ):
        date = np.where(kind == code, source, date)
    dated = np.isin(told, (UNDER_CONTRACT, FAILED))
    date[rows[dated]] = since[dated]

    list_price = list_price_at(columns, None, day)
    closed = (kind == SOLD) | (kind == DEED_SALE)
    price = np.where(closed, columns.numbers["close_price"][:], list_price)
    usable = (kind != NOTHING) & ~columns.lease & np.isfinite(price)
    return AsOf(day, kind, date.astype(np.int32), list_price, price, usable)
