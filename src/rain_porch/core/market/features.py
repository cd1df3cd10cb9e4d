"""The features of the hedonic fit: how each field enters, and what is believed of it before any sale is seen.

`prior` and `prior_sd` are house rules: the usual effect on log price of one unit (of the logarithm where `log`),
and how far markets stray from it. They carry the fit only where sales are too few to speak. `only_where_told`: a line of the
grid only where the sales here tell that it matters beyond the rest (a bedroom beyond the area that it takes).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ..facts.words import LAND_KINDS, HomeKind
from .columns import Columns, Floats, Ints


@dataclass(frozen=True)
class Feature:
    name: str
    log: bool
    prior: float
    prior_sd: float
    only_where_told: bool = False


FEATURES: tuple[Feature, ...] = (
    Feature("living_area", True, 0.62, 0.15),
    Feature("bathrooms_full", False, 0.04, 0.04),
    Feature("bathrooms_half", False, 0.02, 0.03),
    Feature("bedrooms_total", False, 0.0, 0.015, only_where_told=True),
    Feature("garage_spaces", False, 0.04, 0.03),
    Feature("lot_size_square_feet", True, 0.08, 0.08),
    Feature("year_built", False, 0.003, 0.003),
    Feature("below_grade_finished_area", False, 0.00006, 0.00006),
    Feature("fireplaces_total", False, 0.025, 0.025),
    Feature("pool_private_yn", False, 0.03, 0.04),
    Feature("waterfront_yn", False, 0.12, 0.12),
    Feature("condition_grade", False, 0.05, 0.04),
    Feature("year_remodelled", False, 0.001, 0.0015),
)
LAND_FEATURES: tuple[Feature, ...] = (
    Feature("lot_size_square_feet", True, 0.6, 0.25),
    Feature("waterfront_yn", False, 0.2, 0.2),
)
_BUILT_BY_NAME, _LAND_BY_NAME = ({f.name: f for f in group} for group in (FEATURES, LAND_FEATURES))


def size_of(home_kind: HomeKind) -> str:
    """The field that tells how large a home of a kind is."""
    return "lot_size_square_feet" if home_kind in LAND_KINDS else "living_area"


def features_of(home_kind: HomeKind) -> Mapping[str, Feature]:
    """The features of a kind of home by name, with its own house rules: a lot's size is most of the worth of land and
    little of a house's."""
    return _LAND_BY_NAME if home_kind in LAND_KINDS else _BUILT_BY_NAME


def transformed(feature: Feature, values: Floats) -> Floats:
    """The feature's values as the fit sees them; unknown and impossible ones NaN."""
    if not feature.log:
        return values
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.where(values > 0, np.log(np.where(values > 0, values, 1.0)), np.nan)


def matrix(columns: Columns, rows: Ints, features: tuple[Feature, ...]) -> tuple[tuple[Feature, ...], Floats]:
    """The features that these sales know and that differ among them, and their values (n, k), gaps at the mean.

    A feature known for fewer than half of the sales is left out: the rest would stand for something else.
    """
    kept: list[Feature] = []
    out: list[Floats] = []
    for feature in features:
        if feature.name not in columns.numbers:
            continue
        x = transformed(feature, columns.numbers[feature.name][rows])
        known = np.isfinite(x)
        if known.sum() * 2 < len(rows) or not known.any() or np.ptp(x[known]) == 0:
            continue
        kept.append(feature)
        out.append(np.where(known, x, x[known].mean()))
    return tuple(kept), (np.column_stack(out) if out else np.zeros((len(rows), 0)))


def matrix_like(columns: Columns, rows: Ints, features: tuple[Feature, ...], gaps: Floats) -> Floats:
    """The same features of other rows, (n, k); what they do not know stands at `gaps`, (k,)."""
    out = np.empty((len(rows), len(features)))
    for j, feature in enumerate(features):
        x = transformed(feature, columns.numbers[feature.name][rows])
        out[:, j] = np.where(np.isfinite(x), x, gaps[j])
    return out
