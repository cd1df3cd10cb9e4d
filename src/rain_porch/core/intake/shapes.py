"""How a column's cells would look if it were a target: one function a shape, from 0 to 1 (vocabulary.py names them)."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence

import numpy as np

from ..facts.condition import grade_of
from ..facts.places.addresses import DIRECTIONS, STREET_TYPES
from ..facts.words import HomeKind, home_kind_of, sale_manner
from .cell_forms import ADDRESS, BATHS, BEDS_BATHS, DIMENSIONS, POINT, date_of, number_of
from .cells import Profile
from .status_words import means_status

_YES_NO = frozenset({"y", "n", "yes", "no", "true", "false", "t", "f", "0", "1", "x"})
_HAS = _YES_NO | {
    "none",
    "private",
    "inground",
    "in ground",
    "above ground",
    "community",
    "yes, inground",
    "waterfront",
}
_POSTAL = re.compile(r"^\d{5}(?:[- ]?\d{4})?$|^\d{9}$|^\d{4}$|^[A-Z]\d[A-Z] ?\d[A-Z]\d$")
_LISTED = re.compile(r"^\d+(?:\.\d+)?\s*\(\d+[\s,|/]+\d+(?:[\s,|/]+\d+)?\)$|^\d+ ?(?:full|f|fb)\b.*\d", re.IGNORECASE)
_DEEDS = (
    "deed",
    "wd",
    "qc",
    "warranty",
    "quit",
    "swd",
    "gwd",
    "sheriff",
    "trust",
    "foreclos",
    "transfer",
    "bargain",
    "grant",
    "qcd",
    "cert",
    "executor",
    "fiduciary",
)
_EVENTS = ("price", "status", "listed", "sold", "pending", "change", "active", "closed", "withdrawn", "new", "expired")
_MANNERS = (
    "standard",
    "short sale",
    "reo",
    "bank",
    "foreclos",
    "auction",
    "arms",
    "family",
    "normal",
    "estate",
    "relocation",
    "probate",
    "hud",
    "fair market",
    "conventional",
    "not applicable",
)
_KIND_OF_CLASS = (
    "resid",
    "land",
    "lease",
    "income",
    "commercial",
    "farm",
    "single",
    "condo",
    "multi",
    "vacant",
    "mobile",
    "res",
    "town",
)


# further words at the end of a street's name, which no address is folded by
_FURTHER_TYPES = frozenset(
    {"loop", "path", "run", "pt", "point", "cv", "cove", "xing", "crossing", "bend", "pass", "walk", "ridge", "rdg", "hl", "hill", "view",
     "vw", "wy", "close", "green", "grove", "landing", "mews", "park"}
)  # fmt: skip


def _is_street_type(cell: str) -> bool:
    word = cell.lower().rstrip(".")
    return word in STREET_TYPES or word in _FURTHER_TYPES


def _is_direction(cell: str) -> bool:
    return cell.lower().replace(" ", "").rstrip(".") in DIRECTIONS


def _money(p: Profile, low: float, high: float) -> float:
    return min(p.within(low, high), 1.0 if p.numeric > 0.5 else 0.3)


def _years(p: Profile) -> bool:
    """Whether its numbers are years, as those of “Tax Year” are."""
    return p.numeric > 0.95 and p.whole > 0.99 and p.within(1950, 2060) > 0.99 and len(p.counts) < 40


def _words(p: Profile) -> float:
    """Few distinct texts, no numbers and no long prose."""
    if p.length > 120 or p.dated > 0.5:
        return 0.2
    return 1.0 if p.lettered > 0.5 else 0.75 if p.distinct < 0.3 or len(p.counts) < 15 else 0.4


def _is_status(c: str) -> bool:
    return means_status(c) is not None


def _is_home_kind(c: str) -> bool:
    return home_kind_of(None, c) not in (HomeKind.UNKNOWN,)


def _middle_of_some(p: Profile) -> float:
    """The middle one of the numbers above zero; large where there are none."""
    known = p.numbers[np.isfinite(p.numbers) & (p.numbers > 0)]
    return float(np.median(known)) if len(known) else 1e9


def _any_of(p: Profile, words: Sequence[str]) -> float:
    return p.share(lambda c: any(w in c.lower() for w in words))


def _identity(p: Profile) -> float:
    if p.dated > 0.8 and p.share(lambda c: "/" in c or c.count("-") == 2) > 0.8:
        return 0.1
    short = p.share(lambda c: 1 <= len(c) <= 40 and any(x.isdigit() for x in c) and len(c.split()) <= 3)
    return short * (1.0 if p.distinct > 0.5 or len(p.known) < 20 else 0.6)


SHAPES: Mapping[str, Callable[[Profile], float]] = {
    "any": lambda p: 0.9,
    "id": _identity,
    "address": lambda p: max(p.share(ADDRESS.match), 0.15 * (p.lettered > 0.9) * (p.distinct > 0.3)),
    "short": lambda p: p.share(lambda c: len(c) <= 12 and len(c.split()) <= 2),
    "place": lambda p: p.share(lambda c: any(x.isalpha() for x in c) and not ADDRESS.match(c) and 2 <= len(c) <= 60 and date_of(c) is None),
    "name": lambda p: p.share(lambda c: sum(x.isalpha() for x in c) >= 2 and "@" not in c and "://" not in c and len(c) <= 90),
    "postal": lambda p: p.share(lambda c: _POSTAL.match(c.removesuffix(".0").upper())),
    "latitude": lambda p: p.within(-90, 90) * (p.numeric > 0.9) * (p.whole < 0.5) * (0.9 if abs(p.middle) <= 90 else 0.1),
    "longitude": lambda p: p.share(lambda c: (v := number_of(c)) is not None and abs(v) <= 180) * (p.whole < 0.5) * (1.0 if abs(p.middle) > 5 else 0.5),
    "point": lambda p: p.share(POINT.match),
    "number": lambda p: p.within(0, 1e9),
    "direction": lambda p: p.share(_is_direction),
    "street": lambda p: p.share(lambda c: any(x.isalpha() for x in c) and not ADDRESS.match(c) and len(c) < 50) * (0.35 if p.share(_is_direction) > 0.5 or p.share(_is_street_type) > 0.5 else 1.0),
    "street_type": lambda p: p.share(_is_street_type),
    "state": lambda p: p.share(lambda c: (len(c) == 2 and c.isalpha()) or (c.replace(" ", "").isalpha() and len(c) < 20)) * (1.0 if len(p.counts) <= 4 else 0.2),
    "words": _words,
    "text": lambda p: 1.0 if p.length > 25 or p.share(lambda c: len(c.split()) > 3) > 0.4 else 0.5 if p.lettered > 0.8 else 0.1,
    "kind": lambda p: max(0.75 * _words(p), _any_of(p, _KIND_OF_CLASS)),
    "home_kind": lambda p: p.share(_is_home_kind) * 0.97 if p.lettered > 0.5 else 0.2,
    "area": lambda p: min(p.within(100, 25_000), p.within(150, 20_000) + 0.05) * (0.35 if p.marked else 1.0),
    "below": lambda p: p.within(0, 12_000) * (1.0 if _middle_of_some(p) > 60 else 0.2),
    "lot": lambda p: p.within(0.005, 5e8) if not p.share(DIMENSIONS.match) > 0.5 else 0.1,
    "acres": lambda p: p.within(0, 50_000),
    "dimensions": lambda p: p.share(DIMENSIONS.match),
    "feet": lambda p: p.within(0, 50_000),
    "year": lambda p: p.within(1600, 2100) * (p.numeric > 0.5) if p.share(lambda c: len(c) > 12) < 0.3 else 0.0,
    "count": lambda p: max(p.within(0, 40) * (0.5 + 0.5 * (p.whole if p.numeric > 0.5 else 1.0)) * (p.dated < 0.5), 0.9 * (p.share(lambda c: c.lower() in _YES_NO) > 0.95 and p.lettered < 0.5)),
    "baths": lambda p: p.share(lambda c: BATHS.match(c) is not None or _LISTED.match(c) is not None or ((v := number_of(c)) is not None and 0 <= v <= 25)),
    "beds_baths": lambda p: p.share(lambda c: BEDS_BATHS.match(c) and not c.isdigit()),
    "stories": lambda p: max(p.within(0.5, 70), p.share(lambda c: c.lower().split()[0].rstrip("-") in ("one", "two", "three", "multi", "split", "bi-level", "tri-level", "1.5", "ranch", "single", "four"))),
    "garage": lambda p: max(p.within(0, 15), p.share(lambda c: any(w in c.lower() for w in ("car", "attach", "detach", "none", "no garage", "garage"))) * 0.95),
    "level": lambda p: p.within(-5, 150),
    "yes_no": lambda p: p.share(lambda c: c.lower() in _YES_NO),
    "has": lambda p: max(p.share(lambda c: c.lower() in _HAS), 0.8 * (p.lettered > 0.9 and p.length < 60)),
    "condition": lambda p: max(p.share(lambda c: grade_of(c) is not None), 0.7 * _words(p)),
    "quality": lambda p: max(0.85 * _words(p), 0.9 * p.within(1, 10)),
    "price": lambda p: _money(p, 0, 2e8),
    "price_small": lambda p: _money(p, 0, 2e6) * (0.3 if _years(p) else 1.0),
    "percent": lambda p: p.share(lambda c: (v := number_of(c.rstrip("% "))) is not None and -100 <= v <= 300),
    "date": lambda p: p.dated,
    "time": lambda p: max(p.share(lambda c: len(c) > 10 and ":" in c), 0.9 * p.dated),
    "status": lambda p: p.share(_is_status) if len(p.counts) <= 60 else 0.1,
    "manner": lambda p: max(_any_of(p, _MANNERS), p.share(lambda c: sale_manner(c) != "standard"), 0.55 * _words(p)),
    "deed": lambda p: max(_any_of(p, _DEEDS), 0.8 * (len(p.counts) <= 60 and p.lettered > 0.7 and p.length < 40)),
    "event": lambda p: _any_of(p, _EVENTS) * (len(p.counts) < 60),
    "days": lambda p: p.within(0, 10_000) * (0.6 + 0.4 * p.whole),
}  # fmt: skip


def fit(shape: str, middle: tuple[float, float] | None, p: Profile, times: float = 1.0) -> float:
    """How well a column's cells are what a target's would be, from 0 to 1."""
    out = float(SHAPES[shape](p))
    if middle is not None and out > 0 and np.isfinite(p.middle):
        value = p.middle * times
        low, high = middle
        if not low <= value <= high:
            away = max(low - value, value - high) / max(abs(high - low), 1e-9)
            out *= 0.72 if value == 0 else 0.7 if away < 0.5 else 0.45
    return min(1.0, out)
