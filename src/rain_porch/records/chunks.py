"""A file's rows taken into staging a chunk at a time, column by column, with the count of what they would do."""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
from collections import Counter
from collections.abc import Sequence
from itertools import repeat
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..core.facts.fields import own_field
from ..core.intake.status_words import FAILED
from ..store.records.incoming import imports as store
from .checking import Checker, Odd
from .mapping.layouts import Layout
from .mapping.mapping import Part
from .mapping.reading import Read, unpacked
from .places import CELLS_PER_DEGREE, Places
from .tally import Tally, other_home, own_changes, without_their_date

AGAIN = ""  # why a row is left out that says the same as an earlier one
LATER = "left as a later import has it"
PLACE = ("latitude", "longitude")
MOST_WORDS = 2_000  # more than that are no words of a list
SHOWN = 50  # rows that change nothing, kept to be looked at


class ChunkWork:
    """Takes chunks of rows; `staged` names the columns that the file brings or that are worked out from them."""

    def __init__(
        self,
        db: sqlite3.Connection,
        layout: Layout,
        parts: Sequence[Part],
        columns: Sequence[str],
        today: dt.date,
        places: str = "",
        source: str = "",
        mends: int | None = None,
    ) -> None:
        """mends: the import whose file is read again; what a later one said of a record stands."""
        self.mends = mends
        self.gone = store.gone_since(db, mends) if mends is not None else set()
        self.db, self.layout, self.columns = db, layout, columns
        self.source = source
        self.names = {f.name: f.reso for f in layout.fields}
        mapped = {p.field for p in parts}
        self.expires = "expiration_date" in mapped
        if self.expires:
            mapped.add("off_market_date")
        brought = [f.name for f in layout.fields if f.name in mapped and f.name != layout.key_column]
        self.own = [f for p in parts if (f := own_field(p.field)) is not None]
        self.names |= {f.name: f.label for f in self.own}
        if self.own:
            brought.append("own")
        self.staged = (*brought, *(d for d in layout.derived if d not in brought))
        if layout.kind == "listings" and "standard_status" not in self.staged:
            self.staged = ("standard_status", *self.staged)
        self.checker = Checker(layout, today)
        placed = {"latitude", "longitude"} <= mapped
        self.places = Places(store.cells_held(db, CELLS_PER_DEGREE), places) if placed else None
        self.rulings = store.rulings(db, layout.kind)
        self.empty = store.is_empty(db, layout.table)
        self.seen: dict[str, int] = {}
        self.tally = Tally()
        self.staged_rows = 0
        self.placed: list[tuple[NDArray[Any], ...]] = []  # of the staged rows whose place is new and believed so far
        self.words: Counter[tuple[str, str]] = Counter()  # a source's words for statuses and kinds of home

    def take(self, read: Read) -> None:
        """Check and stage one chunk."""
        self.tally.rows += len(read.numbers)
        came, refused, faults = read.came, dict(read.broken), dict[int, list[str]]()
        for name, bad in read.unread.items():
            for n in bad:
                faults.setdefault(n, []).append(f"unreadable {self.names[name]}")
                if name in self.checker.needed:
                    refused.setdefault(n, f"unreadable {self.names[name]}")
        self.checker.learn(came)
        self._count_words(came)
        doubted = self._doubted(came)
        keys = self._keys(read, refused)
        before = self._before(keys, refused)
        if self.layout.kind == "listings" and before:
            keys, before = self._apart(keys, came, before, refused)
        if self.mends is not None:
            self._leave_later(keys, before, refused)
        held = self._with_what_is_there(came, keys, before)
        if self.own:
            held["own"] = came["own"] = self._own(came, before)
        derived, unusable = self.layout.derive(held, keys)
        for n, why in unusable.items():
            refused.setdefault(n, why)
        held.update(derived)
        if self.expires:
            held["off_market_date"] = came["off_market_date"] = self._left_the_market(held)
        if self.layout.kind == "listings":
            for n, why in without_their_date(held):
                if n in refused:
                    continue
                faults.setdefault(n, []).append(why)
        odd = self.checker.suspects(came, held)
        self._judge_places(came, before, doubted, odd)
        for n, old in before.items():
            if old["suspect"]:
                kept = [name for name in json.loads(old["suspect"]) if name not in came]
                if kept:
                    odd[n] = list(dict.fromkeys([*kept, *odd.get(n, [])]))
        if self.rulings:
            self._overrule(keys, held, odd)
        self._stage(read, keys, held, before, refused, faults, odd, doubted)

    def _leave_later(self, keys: Sequence[str], before: dict[int, dict[str, Any]], refused: dict[int, str]) -> None:
        """Rows of which a later import said something stay as that has it."""
        later = [
            n
            for n, key in enumerate(keys)
            if key in self.gone or (n in before and before[n]["last_import"] > (self.mends or 0))
        ]
        later = [n for n in later if n not in refused]
        refused.update((n, AGAIN) for n in later)
        if later:
            self.tally.reasons[LATER] += len(later)

    def _own(self, came: dict[str, list[object]], before: dict[int, dict[str, Any]]) -> list[object]:
        """Each row's columns of the office's own as one document, with those that it had before."""
        n = len(next(iter(came.values())))
        rows: list[dict[str, object]] = [json.loads((before.get(i) or {}).get("own") or "{}") for i in range(n)]
        for f in self.own:
            for row, value in zip(rows, came[f.name], strict=True):
                if value is None:
                    row.pop(f.name, None)
                else:
                    row[f.name] = value
        return [json.dumps(row, ensure_ascii=False, sort_keys=True) if row else None for row in rows]

    def _count_words(self, came: dict[str, list[object]]) -> None:
        for name in ("standard_status", "property_sub_type") if len(self.words) < MOST_WORDS else ():
            for word, n in Counter(came.get(name, ())).items():
                if isinstance(word, str):
                    self.words[name, word] += n

    def _left_the_market(self, held: dict[str, Sequence[object]]) -> list[object]:
        """Off-market days; of a failed listing that has none, the day on which it was to expire, once that is past."""
        latest, failed = self.checker.latest, {s.value for s in FAILED}
        rows = zip(held["off_market_date"], held["expiration_date"], held["standard_status"], strict=True)
        return [
            expires if off is None and status in failed and isinstance(expires, str) and expires <= latest else off
            for off, expires, status in rows
        ]

    def _doubted(self, came: dict[str, list[object]]) -> dict[int, str]:
        if self.places is None:
            return {}
        self.places.learn(came["latitude"], came["longitude"])
        return self.places.put_right(came["latitude"], came["longitude"])

    def _judge_places(
        self, came: dict[str, list[object]], before: dict[int, dict[str, Any]], doubted: dict[int, str], odd: Odd
    ) -> None:
        """Mark the doubted places; one that is stored already stays what it was judged to be."""
        if self.places is None:
            return
        for n, old in before.items():
            if all(old[name] == came[name][n] for name in PLACE):
                doubted.pop(n, None)
                if old["suspect"] and set(PLACE) & set(json.loads(old["suspect"])):
                    doubted[n] = "suspect place"
        for n in doubted:
            odd[n] = list(dict.fromkeys([*odd.get(n, []), *PLACE]))

    def _note_places(
        self, fresh: Sequence[int | None], held: dict[str, Sequence[object]], suspects: Sequence[str | None]
    ) -> None:
        """Keep the places of rows that are about to be staged, with their postal code or city, for when all are judged."""
        first, self.staged_rows = self.staged_rows + 1, self.staged_rows + len(fresh)
        if self.places is None:
            return
        lats, lons = held["latitude"], held["longitude"]
        groups = [held[name] for name in ("postal_code", "city") if name in self.staged]
        rows, of = [], []
        for i, n in enumerate(fresh, start=first):
            if n is None or lats[n] is None or lons[n] is None or "itude" in (suspects[n] or ""):
                continue
            group = next((g[n] for g in groups if g[n] is not None), None)
            rows.append((i, lats[n], lons[n]))
            of.append(hash(str(group).strip().lower()[:40]) | 1 if group else 0)
        if rows:
            at = np.array(rows, dtype=np.float64)
            self.placed.append((at[:, 0].astype(np.int64), at[:, 1], at[:, 2], np.array(of, dtype=np.int64)))

    def settle(self) -> None:
        """Judge the staged places, all of the file before one; called once, when the last chunk is taken."""
        if self.places is None:
            return
        if not self.placed:
            return
        rowids, lats, lons, of = (np.concatenate(column) for column in zip(*self.placed, strict=True))
        if not len(rowids):
            return
        _, numbers = np.unique(of, return_inverse=True)
        told = self.places.judge(lats, lons, np.where(of != 0, numbers, -1).astype(np.int64))
        if told:
            self.tally.suspect += store.doubt_staged(
                self.db, {int(rowids[n]): why for n, why in told.items()}, PLACE, self.staged
            )
            self.tally.reasons.update(told.values())

    def _keys(self, read: Read, refused: dict[int, str]) -> list[str]:
        """Give every row its key; a key that stands twice with different facts refuses the later row."""
        came = read.came
        given = came.get(self.layout.key_column)
        out: list[str] = []
        seen, names = self.seen, list(came)
        for n, facts in enumerate(map(hash, read.cells)):
            key = str(given[n]) if given is not None and given[n] is not None else None
            made = key is None
            if n in refused:
                out.append(key or "")
                continue
            if key is None:
                key = self.layout.make_key({name: came[name][n] for name in names})
            if key is None:
                refused[n] = "nothing that names the row"
                out.append("")
                continue
            if made:
                base, copy = key, 1
                while seen.get(key, facts) != facts:
                    copy += 1
                    key = f"{base}_{copy}"
            if key in seen:
                refused[n] = AGAIN if seen[key] == facts else "its key stands twice in the file with different facts"
            else:
                seen[key] = facts
            out.append(key)
        return out

    def _before(self, keys: Sequence[str], refused: dict[int, str]) -> dict[int, dict[str, Any]]:
        if self.empty:
            return {}
        layout = self.layout
        usable = {key: n for n, key in enumerate(keys) if n not in refused}
        there = store.existing(self.db, layout.table, layout.key_column, layout.columns, list(usable))
        return {usable[key]: row for key, row in there.items()}

    def _apart(
        self, keys: list[str], came: dict[str, list[object]], before: dict[int, dict[str, Any]], refused: dict[int, str]
    ) -> tuple[list[str], dict[int, dict[str, Any]]]:
        """Keys and stored rows, where a number that another source gave to another home is that source's alone."""
        own = store.source_id_of(self.db, self.source)
        names = ("parcel_number", "unparsed_address", "unit_number", "on_market_date")
        strangers = {
            n for n, old in before.items()
            if old["source_id"] != own and other_home(tuple(came[name][n] if name in came else None for name in names), tuple(old[name] for name in names))
        }  # fmt: skip
        if not strangers:
            return keys, before
        keys = [f"{key} ({self.source})" if n in strangers else key for n, key in enumerate(keys)]
        renamed = self._before([key if n in strangers else "" for n, key in enumerate(keys)], refused)
        return keys, {**{n: old for n, old in before.items() if n not in strangers}, **renamed}

    def _with_what_is_there(
        self, came: dict[str, list[object]], keys: Sequence[str], before: dict[int, dict[str, Any]]
    ) -> dict[str, Sequence[object]]:
        """All columns of the rows: what the file brings, else what is stored, else unknown."""
        unknown: Sequence[object] = [None] * len(keys)
        held: dict[str, Sequence[object]] = {}
        for name in self.layout.facts:
            if name in came:
                held[name] = came[name]
            elif before:
                held[name] = [before[n][name] if n in before else None for n in range(len(keys))]
            else:
                held[name] = unknown
        held[self.layout.key_column] = keys
        return held

    def _overrule(self, keys: Sequence[str], held: dict[str, Sequence[object]], odd: Odd) -> None:
        """What the agent has said of a record stands against what was worked out from it."""
        for n, key in enumerate(keys):
            for about, says in self.rulings.get(key, {}).items():
                if about.startswith("suspect:"):
                    left = [name for name in odd.get(n, []) if name != about[8:]]
                    odd.pop(n, None)
                    if left:
                        odd[n] = left
                elif about in self.layout.derived:
                    column = list(held[about])
                    column[n] = says or None
                    held[about] = column

    def _stage(
        self,
        read: Read,
        keys: Sequence[str],
        held: dict[str, Sequence[object]],
        before: dict[int, dict[str, Any]],
        refused: dict[int, str],
        faults: dict[int, list[str]],
        odd: Odd,
        doubted: dict[int, str],
    ) -> None:
        tally = self.tally
        reported: list[tuple[int, str, str, str]] = []
        suspects: list[str | None] = [None] * len(keys)
        for n in sorted({*refused, *faults, *odd}):
            why = refused.get(n)
            if why == AGAIN:
                continue
            fault = faults.get(n, [])
            strange = odd.get(n, []) if why is None else []
            told = [doubted[n] if name in PLACE and n in doubted else f"suspect {name}" for name in strange]
            reasons = list(dict.fromkeys([*([why] if why else []), *fault, *told]))
            if not reasons:
                continue
            outcome = "rejected" if why is not None else "suspect" if strange else "blanked"
            tally.reasons.update([why] if why is not None else reasons)
            tally.rejected += outcome == "rejected"
            tally.suspect += outcome == "suspect"
            if strange:
                suspects[n] = json.dumps(strange)
            reported.append((read.numbers[n], outcome, json.dumps(reasons), self._original(unpacked(read.cells[n]))))
        ready: list[tuple[Any, ...]] = []
        fresh: list[int | None] = []  # of each staged row where it stands in the chunk, where its place is new
        same: list[str] = []
        columns = [held[name] for name in self.staged]
        if not before and not refused:
            tally.new += len(keys)
            self._note_places(range(len(keys)), held, suspects)
            store.stage(self.db, self.staged, zip(read.numbers, keys, repeat("new"), repeat(None), suspects, *columns))
            store.report_rows(self.db, reported)
            return
        for n, (key, suspect, row) in enumerate(zip(keys, suspects, zip(*columns, strict=True), strict=True)):
            if n in refused:
                tally.same += refused[n] == AGAIN
                continue
            old = before.get(n)
            if old is None:
                tally.new += 1
                ready.append((read.numbers[n], key, "new", None, suspect, *row))
                fresh.append(n)
                continue
            changed = {name: old[name] for name, value in zip(self.staged, row, strict=True) if old[name] != value}
            if old["suspect"] != suspect:
                changed["suspect"] = old["suspect"]
            if changed:
                tally.changed += 1
                tally.changes.update(name for name in changed if name not in self.layout.derived and name != "own")
                if "own" in changed:
                    tally.changes.update(own_changes(changed["own"], held["own"][n]))
                ready.append((read.numbers[n], key, "changed", json.dumps(changed), suspect, *row))
                fresh.append(n if any(name in changed for name in PLACE) else None)
            else:
                tally.same += 1
                if len(same) < SHOWN:
                    same.append(key)
        self._note_places(fresh, held, suspects)
        store.stage(self.db, self.staged, ready)
        store.report_rows(self.db, reported, same)

    def _original(self, cells: Sequence[str]) -> str:
        return json.dumps(dict(zip(self.columns, (c[:2000] for c in cells), strict=False)), ensure_ascii=False)
