"""Which listings of other sources tell of the same one: `same_as` names the one that stands for it in all that is computed."""

from __future__ import annotations

from itertools import islice

import numpy as np

from ....core.facts.same_listing import UNKNOWN, Told, pairs, same_home, standing
from ...db import WritableDb

_TOLD = (
    "row_id, listing_id, source_id, standard_status, parcel_number, unparsed_address, unit_number, city, postal_code, "
    "(living_area IS NOT NULL) + (year_built IS NOT NULL) + (latitude IS NOT NULL) + (concessions_amount IS NOT NULL) + "
    "(purchase_contract_date IS NOT NULL) + (public_remarks IS NOT NULL)"
)
_BATCH = 20_000


def settle(db: WritableDb) -> None:
    """Work `same_as` out anew. Nothing is read where all listings come from one source."""
    sources = db.execute(
        "SELECT count(DISTINCT source_id) FROM imports WHERE kind = 'listings' AND undone_at IS NULL"
    ).fetchone()[0]
    if sources < 2:
        db.execute("UPDATE listings SET same_as = NULL WHERE same_as IS NOT NULL")
        return
    rows = _agreeing(db)
    wanted = _groups(db, rows) if rows else {}
    held = {r[0]: r[1] for r in db.execute("SELECT row_id, same_as FROM listings WHERE same_as IS NOT NULL").fetchall()}
    changes: list[tuple[str | None, int]] = [(None, row) for row in held if row not in wanted]
    changes += [(key, row) for row, key in wanted.items() if held.get(row) != key]
    db.executemany("UPDATE listings SET same_as = ? WHERE row_id = ?", changes)


def _agreeing(db: WritableDb) -> list[tuple[int, int]]:
    """Row numbers of listings of two sources that agree in house number, price and day."""
    numbers: list[np.ndarray] = []
    cursor = db.execute(
        "SELECT row_id, source_id, CAST(unparsed_address AS INTEGER), CAST(julianday(close_date) AS INTEGER), "
        "CAST(round(close_price / 100) AS INTEGER), CAST(julianday(on_market_date) AS INTEGER), "
        "CAST(round(coalesce(original_list_price, list_price) / 100) AS INTEGER) FROM listings "
        "WHERE is_lease = 0"
    )
    rows = iter(cursor)
    while batch := list(islice(rows, _BATCH)):
        numbers.append(np.array([[UNKNOWN if v is None else v for v in row] for row in batch], dtype=np.int64))
    if not numbers:
        return []
    row, source, house, closed, price, start, asked = np.concatenate(numbers).T
    found = {*pairs(source, closed, price, house), *pairs(source, start, asked, house)}
    return [(int(row[a]), int(row[b])) for a, b in found]


def _groups(db: WritableDb, found: list[tuple[int, int]]) -> dict[int, str]:
    """Row → the listing that stands for it, of all rows that another stands for."""
    wanted = sorted({row for pair in found for row in pair})
    told: dict[int, Told] = {}
    for first in range(0, len(wanted), 900):
        part = wanted[first : first + 900]
        marks = ", ".join("?" * len(part))
        for r in db.execute(f"SELECT {_TOLD} FROM listings WHERE row_id IN ({marks})", part).fetchall():
            told[r[0]] = Told(*tuple(r))
    root: dict[int, int] = {}

    def top(row: int) -> int:
        while row in root:
            row = root[row]
        return row

    for a, b in found:
        if same_home(told[a], told[b]) and top(a) != top(b):
            root[top(b)] = top(a)
    groups: dict[int, list[Told]] = {}
    for row in told:
        groups.setdefault(top(row), []).append(told[row])
    out = {}
    for group in groups.values():
        if len(group) > 1:
            first_of = standing(group)
            out.update({t.row: first_of.key for t in group if t is not first_of and t.source != first_of.source})
    return out
