"""The home's own last sale: the last one at arm's length of the same thing."""

from __future__ import annotations

import numpy as np

from ..facts.dates import NO_DAY, date_of
from ..facts.homes import Subject
from .columns import DEED_SALE, HOME_KINDS, SOLD, AsOf, Bools, Columns, Ints


def sales_of_the_thing(columns: Columns, view: AsOf, rows: Ints, year_built: float | None = None) -> Bools:
    """Which of `rows`, (n,), are sales at arm's length of what stands there: no lease, no transfer inside a family, no
    deed of the bare lot, which is one of a year before that in which the house was built; (n,).

    year_built: what is known besides; the later of the two counts.
    """
    sold = np.isin(view.kind[rows], (SOLD, DEED_SALE)) & ~columns.lease[rows] & ~columns.not_arms_length[rows]
    built = np.fmax(columns.numbers["year_built"][rows], np.nan if year_built is None else year_built)
    closed = np.array([date_of(int(d)).year if d != NO_DAY else 0 for d in columns.close[rows]])
    bare_lot = columns.deed[rows] & (built > closed)
    return np.asarray(sold & ~bare_lot & (columns.close[rows] != NO_DAY) & np.isfinite(view.price[rows]))


def last_own_sale(columns: Columns, view: AsOf, subject: Subject) -> int | None:
    """The row of the subject's last own sale known at the view's day; None where there is none. The listing by which the
    home was named is not looked at."""
    if subject.home_id is None:
        return None
    rows = columns.rows_of_home(subject.home_id)
    rows = rows[columns.home_kind[rows] == HOME_KINDS.index(subject.home_kind)]
    rows = rows[sales_of_the_thing(columns, view, rows, subject.number("year_built"))]
    if (own := columns.row(subject.own_listing)) is not None:
        rows = rows[rows != own]
    return int(rows[np.argmax(columns.close[rows])]) if rows.size else None
