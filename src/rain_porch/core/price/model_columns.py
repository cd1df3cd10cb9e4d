"""What the wide model knows of a home, as columns: curves of size, lot and age, steps of what is counted, words, products.

Knots and means are learnt from the sales that the model is fitted to, and kept with it, so that any home is described alike.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ..facts.fields import OWN, Kind, own_field
from ..facts.homes import Subject
from ..facts.words import HomeKind
from ..market.columns import HOME_KINDS, Columns, Floats, Ints
from ..market.features import Feature, features_of, size_of, transformed

FURTHER = (
    "stories", "attached_garage_yn", "number_of_units_total", "gross_scheduled_income", "entry_level", "association_fee", "frontage_length",
)  # fmt: skip
KIND = "home_kind"  # a word of every record where sales of several kinds are fitted together
WORDS = (
    KIND, "construction_materials", "architectural_style", "basement", "property_sub_type", "construction_quality", "building_name", "zoning",
    "utilities", "sewer",
)  # fmt: skip
_CURVED = ("living_area", "lot_size_square_feet")
_COUNTED_MOST, _STEPS, _RARE = (
    12,
    3,
    0.02,
)  # values that a counted field has, steps it gets, the least share on each side of one
_COMMON_WORD, _MOST_WORDS = 0.01, 8
_QUANTILES = (0.15, 0.4, 0.7, 0.9)
_YEAR_QUANTILES = (0.02, 0.1, 0.2, 0.35, 0.5, 0.65, 0.8, 0.9, 0.97)
_YEARS_APART = 4.0
_CORE = ("bathrooms_full", "bathrooms_half", "garage_spaces")

Numbers = Callable[[str], Floats]  # a field's numbers, (n,), NaN where unknown
Texts = Callable[[str], Sequence[str | None]]


def numbers_of(columns: Columns, rows: Ints) -> Numbers:
    return lambda name: np.asarray(columns.numbers[name][rows], dtype=np.float64)


def texts_of(columns: Columns, rows: Ints) -> Texts:
    def of(name: str) -> Sequence[str | None]:
        if name == KIND:
            return [HOME_KINDS[code].value for code in columns.home_kind[rows]]
        held = columns.words[name]
        known = np.array([*held.words, None], dtype=object)
        return list(known[held.codes[rows]])

    return of


def numbers_of_homes(subjects: Sequence[Subject]) -> Numbers:
    def of(name: str) -> Floats:
        return np.array([np.nan if (value := s.number(name)) is None else value for s in subjects])

    return of


def texts_of_homes(subjects: Sequence[Subject]) -> Texts:
    return lambda name: [s.home_kind.value if name == KIND else s.word(name) for s in subjects]


def hats(values: Floats, knots: Floats) -> Floats:
    """Piecewise-linear hat functions at ascending knots, (n, k): rows add up to 1; beyond the ends the outer one stands."""
    x = np.clip(values, knots[0], knots[-1])
    right = np.clip(np.searchsorted(knots, x, side="right"), 1, len(knots) - 1)
    share = (x - knots[right - 1]) / (knots[right] - knots[right - 1])
    out = np.zeros((len(x), len(knots)))
    at = np.arange(len(x))
    out[at, right - 1] = 1 - share
    out[at, right] = share
    return out


def _spaced(knots: Floats, least: float) -> Floats:
    kept = [float(knots[0])]
    for k in knots[1:]:
        if k - kept[-1] >= least:
            kept.append(float(k))
    return np.array(kept)


@dataclass(frozen=True)
class Described:
    """columns: (n, k), of mean 0 and spread 1 over the sales. core: (n, c), the size, lot, year and year² first, then what is counted
    most: what products are made of."""

    columns: Floats
    core: Floats


@dataclass(frozen=True)
class ModelColumns:
    """features with their gaps; knots of curves; steps by field; words by field; means and spreads of all columns."""

    features: tuple[Feature, ...]
    gaps: Floats
    curves: Mapping[str, Floats]
    years: Floats
    steps: Mapping[str, tuple[float, ...]]
    words: Mapping[str, tuple[str, ...]]
    size: str
    middle: Floats
    spread: Floats
    core_middle: Floats
    core_spread: Floats

    @classmethod
    def learnt(
        cls, numbers: Numbers, texts: Texts, known: Mapping[str, object], words: Mapping[str, object], kind: HomeKind
    ) -> ModelColumns:
        """From sales of one kind: fields that fewer than half of them know, or that do not differ, are left out."""
        features, gaps, curves, steps = [], [], {}, {}
        for f in (*features_of(kind).values(), *_further(known)):
            if f.name not in known:
                continue
            x = transformed(f, numbers(f.name))
            there = x[np.isfinite(x)]
            if there.size * 2 < x.size or there.size < 2 or np.ptp(there) == 0:
                continue
            features.append(f)
            gaps.append(float(there.mean()))
            if f.name in _CURVED:
                curves[f.name] = np.unique(np.quantile(there, _QUANTILES))
            values = np.unique(there)
            if f.name != "year_built" and 2 < values.size <= _COUNTED_MOST:
                shares = [
                    (abs((there >= v).mean() - 0.5), float(v))
                    for v in values[1:]
                    if _RARE <= (there >= v).mean() <= 1 - _RARE
                ]
                steps[f.name] = tuple(sorted(v for _, v in sorted(shares)[:_STEPS]))
        years = np.zeros(0)
        if any(f.name == "year_built" for f in features):
            built = numbers("year_built")
            years = _spaced(np.unique(np.quantile(built[np.isfinite(built)], _YEAR_QUANTILES)), _YEARS_APART)
        told = (*(w for w in WORDS if w in words or w == KIND), *(w for w in words if w.startswith(OWN)))
        common = {name: _common(texts(name)) for name in told}
        bare = cls(
            tuple(features), np.array(gaps), curves, years if years.size > 1 else np.zeros(0), steps, {k: v for k, v in common.items() if v},
            size_of(kind), np.zeros(0), np.zeros(0), np.zeros(0), np.zeros(0),
        )  # fmt: skip
        raw, core = bare._raw(numbers, texts)
        return cls(
            bare.features, bare.gaps, bare.curves, bare.years, bare.steps, bare.words, bare.size, raw.mean(axis=0), np.maximum(raw.std(axis=0), 1e-6),
            core.mean(axis=0), np.maximum(core.std(axis=0), 1e-6),
        )  # fmt: skip

    def of(self, numbers: Numbers, texts: Texts) -> Described:
        """Homes as the model sees them; what is unknown of them stands at the sales' mean."""
        raw, core = self._raw(numbers, texts)
        return Described((raw - self.middle) / self.spread, (core - self.core_middle) / self.core_spread)

    def _raw(self, numbers: Numbers, texts: Texts) -> tuple[Floats, Floats]:
        parts: list[Floats] = []
        seen: dict[str, Floats] = {}
        for f, gap in zip(self.features, self.gaps, strict=True):
            x = transformed(f, numbers(f.name))
            x = np.where(np.isfinite(x), x, gap)
            seen[f.name] = x
            parts.append(x[:, None])
            if f.name in self.curves:
                parts.append(np.maximum(x[:, None] - self.curves[f.name][None, :], 0.0))
            if f.name == "year_built" and self.years.size:
                parts.append(hats(x, self.years)[:, 1:])
            if f.name in self.steps:
                parts.append((x[:, None] >= np.array(self.steps[f.name])[None, :]).astype(np.float64))
        for name, known in self.words.items():
            told = np.array([t or "" for t in texts(name)], dtype=object)
            parts.append(np.column_stack([told == w for w in known]).astype(np.float64))
        n = len(parts[0]) if parts else 0
        nothing = np.zeros(n)
        size, lot = seen.get(self.size, nothing), seen.get("lot_size_square_feet", nothing)
        year = seen.get("year_built", nothing)
        mid = float(self.gaps[[f.name for f in self.features].index("year_built")]) if "year_built" in seen else 0.0
        old = (year - mid) / 28.0
        s = size - (float(self.gaps[[f.name for f in self.features].index(self.size)]) if self.size in seen else 0.0)
        parts.append(np.column_stack([s * old, s * old**2, s * lot, old * lot]))
        core = np.column_stack([size, lot, old, old**2, *(seen[name] for name in _CORE if name in seen)])
        return np.hstack(parts), core


def _further(known: Mapping[str, object]) -> list[Feature]:
    """Fields that enter the wide model alone: of which nothing is believed beforehand, and fields of the office's own."""
    names = [*FURTHER, *(name for name in known if (own := own_field(name)) and own.kind in (Kind.NUMBER, Kind.YES_NO))]
    return [Feature(prior=0.0, prior_sd=1.0, name=name) for name in names]


def _common(told: Sequence[str | None]) -> tuple[str, ...]:
    """The words that enough of the sales bear, the commonest left out: it is what the others are set against."""
    counted = Counter(t or "" for t in told)
    least = max(30, _COMMON_WORD * len(told))
    kept = [word for word, n in sorted(counted.items(), key=lambda item: (-item[1], item[0])) if n >= least]
    return tuple(w for w in kept[1 : 1 + _MOST_WORDS] if w)
