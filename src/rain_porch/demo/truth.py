"""What the generator knows: the worth of every feature, the trend, the seasons. Written here and nowhere else.

Only the tests read it; the application sees nothing but the records.
"""

from __future__ import annotations

import datetime as dt
import math
from functools import lru_cache
from typing import Any

import numpy as np

from ..core.facts.dates import day_of

FIRST_DAY = dt.date(2016, 7, 1)
LAST_DAY = dt.date(2026, 10, 31)

# effect on log price of one unit (of the logarithm for living area and lot)
RATES = {
    "living_area": 0.62,
    "bathrooms_full": 0.045,
    "bathrooms_half": 0.022,
    "garage_spaces": 0.038,
    "lot_size_square_feet": 0.10,
    "year_built": 0.0026,
    "below_grade_finished_area": 0.00007,
    "fireplaces_total": 0.018,
    "pool_private_yn": 0.03,
    "waterfront_yn": 0.16,
}
CONDITION_STEP = -0.045
BACKS_TO_HIGHWAY = -0.06
# a lot without a house is worth its place and its size, not the house that may come; an acre at the edge of town this much
LAND_LEVEL, LAND_ELASTICITY = 4.24, 0.6
ACRE_LOG_LEVEL, ACRE_ELASTICITY = 11.1, 0.62
# chance of a contract in a week at a price of worth × e^over, before the season
WEEKLY_CONTRACT, OVERPRICE_SLOPE = 0.13, 11.0
HOME_NOISE = 0.045
SALE_NOISE = 0.035
LOT_SALE_NOISE = 0.06

# trend: percent a month from the given day on
TREND = (
    (dt.date(2015, 1, 1), 0.40),
    (dt.date(2020, 6, 1), 1.00),
    (dt.date(2022, 6, 1), -0.35),
    (dt.date(2023, 7, 1), 0.15),
    (dt.date(2025, 2, 1), 0.38),
)
SEASON_HEIGHT = 0.018  # spring above, winter below
SEASON_PEAK_DAY = 150


def trend(day: Any) -> Any:
    """Log of the price level at a day (days since 1970), 0 on LAST_DAY. Works on numbers and arrays."""
    if isinstance(day, int | float):
        return _level(float(day)) - _level(_LAST)
    days = np.asarray(day, dtype=np.float64)
    level = np.zeros_like(days)
    for start, end, rate in _SPANS:
        level = level + rate * np.clip(days - start, 0, end - start)
    return level - _level(_LAST)


_STARTS = [float(day_of(start)) for start, _ in TREND]
_SPANS = [
    (start, end, math.log1p(pct / 100) / 30.4375)
    for start, end, (_, pct) in zip(_STARTS, [*_STARTS[1:], float(day_of(dt.date(2100, 1, 1)))], TREND, strict=True)
]  # from, to, rate a day
_LAST = float(day_of(LAST_DAY))


@lru_cache(maxsize=20_000)
def _level(day: float) -> float:
    """The same of one day, before it is set to 0 on the last."""
    return sum((rate * min(max(day - start, 0.0), end - start) for start, end, rate in _SPANS), 0.0)


def mortgage_rate(day: Any) -> Any:
    """The invented weekly mortgage rate, in percent: the market's growth answers it half a year later."""
    days = np.asarray(day, dtype=np.float64)
    ahead = (trend(days + 182 + 90) - trend(days + 182 - 90)) / (180 / 30.4375) * 100
    return 5.2 - 2.3 * ahead


def season(day: Any) -> Any:
    """Log effect of the time of year."""
    return SEASON_HEIGHT * np.cos(2 * np.pi * (np.asarray(day, dtype=np.float64) - SEASON_PEAK_DAY) / 365.25)


def log_land_worth(lot_square_feet: float, place: float) -> float:
    """Log of a bare lot's worth on LAST_DAY without season."""
    return place + LAND_LEVEL + LAND_ELASTICITY * math.log(lot_square_feet)


def log_worth(features: dict[str, float], place: float) -> float:
    """Log of a home's worth on LAST_DAY without season: place (neighbourhood and spot) plus its features."""
    out = place
    for name, rate in RATES.items():
        value = features.get(name, 0.0)
        out += rate * (math.log(value) if name in ("living_area", "lot_size_square_feet") else value)
    return out + CONDITION_STEP * (features["condition"] - 3) + BACKS_TO_HIGHWAY * features.get("backs_to_highway", 0.0)
