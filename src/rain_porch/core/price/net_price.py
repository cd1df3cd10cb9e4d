"""What a seller was left with: the price less concessions."""

from __future__ import annotations

import numpy as np

from ..market.columns import Columns, Floats, Ints


def net_price(columns: Columns, rows: Ints) -> Floats:
    """Close price less known concessions."""
    given = np.nan_to_num(columns.numbers["concessions_amount"][rows])
    price = columns.numbers["close_price"][rows]
    return np.asarray(np.where(given < price * 0.5, price - given, price))
