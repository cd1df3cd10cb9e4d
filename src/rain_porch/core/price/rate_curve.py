"""What one field is worth over its whole range, by the wide model: no rate is one number.

The model's value of this very home with the field set to each of some values, all else as it is; the slope at the home is what the
next foot, year or bath is worth to it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..facts.fields import BY_NAME, Kind
from ..facts.homes import Subject
from ..market.columns import Columns, Floats
from .evidence import Evidence
from .wide_model import WideModel

POINTS, MOST_COUNTED = 25, 12
_INNER = (3, 97)  # percentiles of the local sales between which the curve is drawn


@dataclass(frozen=True)
class Curve:
    """values, dollars: (n,) each. mine: the home's own value and its worth by the model. sales: the local sales' values, (m,)."""

    values: Floats
    dollars: Floats
    mine: float
    worth: float
    sales: Floats


def rate_curve(model: WideModel | None, found: Evidence, columns: Columns, subject: Subject, name: str) -> Curve | None:
    """None without a model, where it does not know the field, or where the home's own value is unknown."""
    mine = subject.number(name)
    if model is None or found.wide is None or found.local is None or found.model_value is None or mine is None:
        return None
    if name not in {f.name for f in model.told.features} or not subject.placed:
        return None
    known = columns.numbers[name][found.wide.rows[found.local]]
    known = known[np.isfinite(known)]
    if not known.size:
        return None
    values = _steps(known, mine, BY_NAME[name].kind)
    if len(values) < 2:
        return None
    homes = [replace(subject, facts={**subject.facts, name: float(v)}) for v in values]
    logs = np.array([worth.log_value for worth in model.worths(homes)])
    at = float(np.interp(mine, values, logs))
    return Curve(np.array(values), found.model_value * np.exp(logs - at), mine, found.model_value, known)


def _steps(known: Floats, mine: float, kind: Kind) -> Sequence[float]:
    low, high = (float(x) for x in np.percentile(known, _INNER))
    low, high = min(low, mine), max(high, mine)
    there = np.unique(known[(known >= low) & (known <= high)])
    if kind == Kind.YES_NO or len(there) <= MOST_COUNTED:
        return [float(v) for v in np.unique(np.append(there, mine))]
    return [float(v) for v in np.unique(np.append(np.linspace(low, high, POINTS), mine))]
