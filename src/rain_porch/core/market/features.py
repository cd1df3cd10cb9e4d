"""The features of the hedonic fit, as the field catalogue has them: how each enters, what is believed of it beforehand.

The beliefs carry the fit only where sales are too few to speak.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from ..facts.fields import CATALOGUE, Effect, Field, Kind, own_field
from ..facts.words import LAND_KINDS, HomeKind
from .columns import Columns, Floats, Ints

OWN_EFFECT = 0.05  # of a spread of an own field on log prices, before any sale is seen


@dataclass(frozen=True)
class Feature(Effect):
    """A field with its effect on prices. either: it may raise or lower them; else more of it is taken to be worth more."""

    name: str = ""
    either: bool = False


def _of_catalogue(effect: Callable[[Field], Effect | None]) -> tuple[Feature, ...]:
    return tuple(Feature(**vars(e), name=f.name) for f in CATALOGUE if (e := effect(f)))


FEATURES = _of_catalogue(lambda f: f.effect)
LAND_FEATURES = _of_catalogue(lambda f: f.land_effect)
_BUILT_BY_NAME, _LAND_BY_NAME = ({f.name: f for f in group} for group in (FEATURES, LAND_FEATURES))


def size_of(home_kind: HomeKind) -> str:
    """The field that tells how large a home of a kind is."""
    return "lot_size_square_feet" if home_kind in LAND_KINDS else "living_area"


def features_of(home_kind: HomeKind) -> Mapping[str, Feature]:
    """The features of a kind of home by name, with its own house rules: a lot's size is most of the worth of land and
    little of a house's."""
    return _LAND_BY_NAME if home_kind in LAND_KINDS else _BUILT_BY_NAME


def own_features(columns: Columns, rows: Ints) -> tuple[Feature, ...]:
    """The office's own fields that are numbers, or yes or no, and that differ among these sales, at least half of which know them.
    Nothing is believed of them beforehand but that one spread of a field is seldom worth more than some percent."""
    out = []
    for name in columns.numbers:
        field = own_field(name)
        if field is None or field.kind not in (Kind.NUMBER, Kind.YES_NO):
            continue
        x = columns.numbers[name][rows]
        x = x[np.isfinite(x)]
        if x.size * 2 >= len(rows) and x.size and np.ptp(x) > 0:
            out.append(Feature(0.0, OWN_EFFECT / float(x.std()), only_where_told=True, name=name, either=True))
    return tuple(out)


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
