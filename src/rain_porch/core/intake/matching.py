"""Which column is what: heads and values weighed together, the best assignment over all columns at once, the kind of file.

A column's score for a target is its head's nearness to the table of words (vocabulary.py) times how its cells fit (cells.py),
times how it agrees with the columns that are settled (list and close price lie together, dates follow one another). The
assignment is the one with the largest sum of scores (Hungarian method, scipy.optimize.linear_sum_assignment).
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.optimize import linear_sum_assignment

from ..facts.fields import BY_NAME, CATALOGUE, Field
from ..facts.record_fields import ASSESSMENTS, EVENTS, SERIES, TRANSFERS
from ..facts.words import plain
from .cells import Profile, fit
from .heads import words_of
from .vocabulary import TARGETS, Target

SURE = 0.75  # a column below this is shown and not taken
POSSIBLE = 0.5
EXACT, NEARLY = 0.97, 0.9
_WEIGHTS = {
    "yn": 0.15, "on": 0.2, "for": 0.2, "to": 0.4, "by": 0.4, "per": 0.6, "number": 0.6, "date": 0.8, "price": 0.8, "code": 0.4, "name": 0.5,
    "total": 0.5, "description": 0.4, "type": 0.7, "current": 0.45, "property": 0.35, "sqft": 0.7, "area": 0.7, "size": 0.5,
    "count": 0.4, "approx": 0.15, "est": 0.15, "situs": 0.35, "month": 0.35, "features": 0.5, "year": 0.9, "value": 0.7, "amount": 0.5,
    "actual": 0.3, "final": 0.3, "calculated": 0.3, "mls": 0.8, "location": 0.35, "000": 0.05, "thousands": 0.05, "status": 0.9, "main": 0.7, "building": 0.7, "annual": 0.5, "home": 0.4, "timestamp": 0.6,
    "original": 1.3, "half": 1.4, "full": 1.1, "agent": 1.4, "office": 1.4, "school": 1.6, "previous": 1.5, "percent": 1.5, "owner": 1.5, "mailing": 1.6,
    "lot": 1.1, "garage": 1.3, "basement": 1.3, "buyer": 1.5, "phone": 1.5, "email": 1.5, "garden": 1.0, "list": 1.1, "close": 1.1, "acres": 1.2,
}  # fmt: skip
_PREFIX = re.compile(r"^[A-Za-z]{1,12}[_.:\-]+(?=.)")


@dataclass(frozen=True)
class Found:
    """What a column was taken for: its place, the target's name, how sure from 0 to 1, and why in a few words."""

    column: int
    target: str
    sure: float
    why: str


def _weight(word: str) -> float:
    return _WEIGHTS.get(word, 1.0)


@lru_cache(maxsize=16)
def _phrases(kind: str) -> list[tuple[int, frozenset[str], float]]:
    """(place of the target, the phrase's words, their weight) of all phrases of a kind of file."""
    out = []
    for i, target in enumerate(TARGETS[kind]):
        texts = [*target.phrases]
        if (f := BY_NAME.get(target.name)) is not None:
            texts += [f.label, f.reso]
        for words in {frozenset(words_of(text)) for text in texts}:
            if words:
                out.append((i, words, sum(map(_weight, words))))
    return out


@lru_cache(maxsize=16)
def _standard(kind: str) -> dict[str, int]:
    """The standard's and our names, folded → place of the target."""
    own: Sequence[Field] = {
        "transfers": TRANSFERS,
        "assessments": ASSESSMENTS,
        "history": EVENTS,
        "series": SERIES,
    }.get(kind, CATALOGUE)
    names = {f.name: (plain(f.reso), plain(f.name)) for f in own}
    out: dict[str, int] = {}
    for i, target in enumerate(TARGETS[kind]):
        for name in names.get(target.name, ()):
            out.setdefault(name, i)
    return out


def _named(head: str, kind: str) -> dict[int, tuple[float, str]]:
    """Target's place → (nearness of the head's name, why)."""
    bare = plain(head)
    standard = _standard(kind)
    if bare in standard:
        return {standard[bare]: (1.0, "its standard name")}
    out: dict[int, tuple[float, str]] = {}
    if 8 <= len(bare) <= 10:  # heads cut at ten signs, as a Shapefile has them
        for name, i in standard.items():
            if len(name) > len(bare) and name.startswith(bare):
                out[i] = (0.93, "its standard name, cut short")
    words = words_of(head)
    have = frozenset(words)
    if not have:
        return out
    weight = sum(map(_weight, have))
    for i, phrase, theirs in _phrases(kind):
        common = have & phrase
        if not common:
            continue
        near = 2 * sum(map(_weight, common)) / (weight + theirs)
        if 0.93 * near > out.get(i, (0.0, ""))[0]:
            held = 0.93 if not TARGETS[kind][i].name.startswith("other:") else 0.85
            out[i] = (0.99, "a known name") if have == phrase else (held * near, "a name like it")
    if not out:
        return out
    best = max(n for n, _ in out.values())
    least = NEARLY if best >= EXACT else best - 0.2
    return {i: told for i, told in out.items() if told[0] >= max(least, 0.45)}


def without_prefix(heads: Sequence[str]) -> list[str]:
    """Heads without what nearly all of them begin with: "L_City", "L_Zip", … → City, Zip."""
    starts = Counter(found[0] for h in heads if (found := _PREFIX.match(h)))
    common, n = starts.most_common(1)[0] if starts else ("", 0)
    if n < 4 or n < 0.8 * len(heads):
        return list(heads)
    return [h.removeprefix(common) or h for h in heads]


def match(heads: Sequence[str], columns: Sequence[Profile], kind: str) -> list[Found]:
    """What each column of a file of a kind is, surest first; a column that is nothing known is not among them."""
    targets, heads = TARGETS[kind], without_prefix(heads)
    scores = np.zeros((len(heads), len(targets)))
    whys: dict[tuple[int, int], str] = {}
    for c, (head, profile) in enumerate(zip(heads, columns, strict=True)):
        for t, (near, why) in _named(head, kind).items():
            score, said = _scored(near, why, targets[t], profile, head)
            if score >= 0.3:
                scores[c, t], whys[c, t] = score, said
        _by_values(c, profile, targets, scores, whys)
    chosen = _assigned(scores)
    factors, told = _agreement(chosen, scores, columns, targets, heads)
    if (factors < 1).any():
        scores = scores * factors
        chosen = _assigned(scores)
    for c, t in chosen.items():
        agrees = told.get((c, t), ())
        if POSSIBLE <= scores[c, t] < SURE and len(agrees) > 1 and min(agrees) >= 0.97:
            scores[c, t], whys[c, t] = 0.78, f"{whys[c, t]}, and it agrees with the other columns"
    out = [
        Found(c, targets[t].name, round(float(scores[c, t]), 3), whys[c, t])
        for c, t in chosen.items()
        if scores[c, t] >= POSSIBLE
    ]
    return sorted(out, key=lambda f: -f.sure)


def _scored(near: float, why: str, target: Target, profile: Profile, head: str) -> tuple[float, str]:
    if profile.empty:
        return near * 0.97, why
    fitting = fit(target.shape, target.middle, profile, unit_of(head, target.name, profile))
    score = near * (0.35 + 0.65 * fitting) if near < 1.0 else 0.88 + 0.12 * fitting  # a standard's name is believed
    if near >= EXACT and not target.name.startswith(("other:", "part:")):
        score += 0.002  # of two that fit, a field rather than what no field holds
    return min(1.0, score), f"{why}, {fitting:.0%} of values fit"


def _by_values(
    c: int, profile: Profile, targets: Sequence[Target], scores: np.ndarray, whys: dict[tuple[int, int], str]
) -> None:
    """What can be told by values alone, whatever the head says: addresses, status words, places."""
    if len(profile.known) < 20 or scores[c].max(initial=0.0) >= 0.8:
        return
    for t, target in enumerate(targets):
        least = {"unparsed_address": 0.9, "standard_status": 0.95, "part:point": 0.95}.get(target.name)
        if least is None or scores[c, t] >= 0.8 or len(profile.counts) < 2:
            continue
        if target.name == "standard_status" and (profile.length < 2 or len(profile.counts) > 25):
            continue
        if fit(target.shape, target.middle, profile) >= least:
            scores[c, t], whys[c, t] = 0.8, "by what stands in it"


def _assigned(scores: np.ndarray) -> dict[int, int]:
    """Column → target: the assignment with the largest sum; no target twice, a column may be nothing."""
    rows = np.flatnonzero(scores.max(axis=1, initial=0.0) > 0)
    if not len(rows):
        return {}
    gains = scores[rows] ** 3
    nothing = np.full((len(rows), len(rows)), 0.1)
    chosen_rows, chosen = linear_sum_assignment(np.hstack([gains, nothing]), maximize=True)
    return {
        int(rows[r]): int(t)
        for r, t in zip(chosen_rows, chosen, strict=True)
        if t < scores.shape[1] and scores[rows[r], t] > 0
    }


Numbers = np.ndarray
_Holds = Callable[[Numbers, Numbers], Numbers]


def _ratio(low: float, high: float) -> _Holds:
    return lambda a, b: (b >= low * a) & (b <= high * a)


def _not_more(a: Numbers, b: Numbers) -> Numbers:
    return np.asarray(a <= b * 1.001 + 1e-9)


_NUMBERS_AGREE: tuple[tuple[str, str, _Holds], ...] = (
    ("list_price", "close_price", _ratio(0.55, 1.6)),
    ("original_list_price", "close_price", _ratio(0.45, 1.7)),
    ("list_price", "original_list_price", _ratio(0.6, 1.8)),
    ("bathrooms_full", "part:baths", _not_more),
    ("bathrooms_half", "part:baths", _not_more),
    ("year_built", "year_remodelled", _not_more),
    ("above_grade_finished_area", "living_area", _not_more),
    ("land_value", "total_value", _not_more),
    ("improvement_value", "total_value", _not_more),
    ("days_on_market", "cumulative_days_on_market", _not_more),
    ("tax_annual_amount", "tax_assessed_value", _ratio(4.0, 1e5)),
)
_DATES_FOLLOW: tuple[tuple[str, str], ...] = (
    ("on_market_date", "purchase_contract_date"),
    ("on_market_date", "close_date"),
    ("on_market_date", "off_market_date"),
    ("purchase_contract_date", "close_date"),
    ("sale_date", "recording_date"),
)
_KNOWN_TOGETHER = (("close_price", "close_date"),)
_ENOUGH = 8


def _agreement(
    chosen: Mapping[int, int],
    scores: np.ndarray,
    columns: Sequence[Profile],
    targets: Sequence[Target],
    heads: Sequence[str],
) -> tuple[np.ndarray, dict[tuple[int, int], list[float]]]:
    """For each column and target how well they agree with the columns that are chosen for the others, from 0.6 to 1; and
    with what shares of rows."""
    place = {target.name: t for t, target in enumerate(targets)}
    column_of = {t: c for c, t in chosen.items()}
    shares: dict[tuple[int, int], list[float]] = {}

    def judge(c: int, t: int, share: float | None) -> None:
        if share is not None:
            shares.setdefault((c, t), []).append(share)

    for first, second, holds in _NUMBERS_AGREE:
        for a, b, turned in ((first, second, False), (second, first, True)):
            if a in place and b in place and (other := column_of.get(place[b])) is not None:
                for c in np.flatnonzero(scores[:, place[a]] > 0).tolist():
                    if c != other:
                        x = columns[c].numbers * unit_of(heads[c], a, columns[c])
                        y = columns[other].numbers * unit_of(heads[other], b, columns[other])
                        judge(c, place[a], _share(holds, *((y, x) if turned else (x, y))))
    for first, second in _DATES_FOLLOW:
        for a, b, turned in ((first, second, False), (second, first, True)):
            if a in place and b in place and (other := column_of.get(place[b])) is not None:
                for c in np.flatnonzero(scores[:, place[a]] > 0).tolist():
                    if c != other:
                        pair = (columns[other], columns[c]) if turned else (columns[c], columns[other])
                        judge(c, place[a], _follow(*pair))
    for a, b in _KNOWN_TOGETHER:
        for mine, theirs in ((a, b), (b, a)):
            if mine in place and theirs in place and (other := column_of.get(place[theirs])) is not None:
                for c in np.flatnonzero(scores[:, place[mine]] > 0).tolist():
                    if c != other:
                        judge(c, place[mine], _together(columns[c], columns[other]))
    out = np.ones(scores.shape)
    for (c, t), told in shares.items():
        out[c, t] = 0.6 + 0.4 * float(np.mean(told)) if np.mean(told) < 0.9 else 1.0
    return out, shares


def _together(a: Profile, b: Profile) -> float | None:
    """How often both hold something or neither does."""
    both = [bool(x) == bool(y) for x, y in zip(a.cells, b.cells, strict=True)]
    return sum(both) / len(both) if len(both) >= _ENOUGH and not b.empty else None


def _share(holds: _Holds, a: Numbers, b: Numbers) -> float | None:
    known = np.isfinite(a) & np.isfinite(b) & (a != 0) & (b != 0)
    return float(holds(a[known], b[known]).mean()) if known.sum() >= _ENOUGH else None


def _follow(a: Profile, b: Profile) -> float | None:
    pairs = [(x, y) for x, y in zip(a.dates, b.dates, strict=True) if x and y]
    return sum(x <= y for x, y in pairs) / len(pairs) if len(pairs) >= _ENOUGH else None


ACRE = 43_560.0
SQUARE_METRE = 10.763910417


def unit_of(head: str, target: str, profile: Profile) -> float:
    """What the numbers are to be multiplied by: acres or square metres to square feet, thousands to dollars."""
    words = set(words_of(head))
    low = head.lower()
    if target in (
        "lot_size_square_feet",
        "living_area",
        "above_grade_finished_area",
        "below_grade_finished_area",
        "part:acres",
    ):
        if "sqm" in words:
            return SQUARE_METRE / (ACRE if target == "part:acres" else 1.0)
        if target == "lot_size_square_feet" and ("acres" in words or _looks_like_acres(words, profile)):
            return ACRE
        return 1.0
    f = BY_NAME.get(target)
    money = f is not None and f.unit == "$" and (f.low or 0) >= 200
    if money or target in ("price", "land_value", "improvement_value", "total_value"):
        said = "000" in low or "thousand" in low or low.rstrip(")").endswith("$k") or "($k" in low
        if said and np.isfinite(profile.middle) and profile.middle < 20_000:
            return 1000.0
    return 1.0


def _looks_like_acres(words: set[str], profile: Profile) -> bool:
    """A lot's size with no unit said, whose numbers are those of acres: small, with decimals."""
    return not words & {"sqft", "feet"} and not profile.empty and profile.middle < 60 and profile.whole < 0.6


_DISTINCTIVE: Mapping[str, Mapping[str, float]] = {
    "listings": {
        "listing_id": 2.0, "standard_status": 1.5, "list_price": 2.0, "original_list_price": 1.0, "on_market_date": 1.2, "close_price": 1.0,
        "close_date": 1.0, "days_on_market": 1.2, "list_agent_full_name": 1.0, "list_office_name": 0.8, "public_remarks": 0.8,
        "purchase_contract_date": 0.8, "off_market_date": 0.8, "living_area": 0.3, "latitude": 0.2, "unparsed_address": 0.3,
        "concessions_amount": 0.8, "expiration_date": 0.6, "part:street": 0.2, "bedrooms_total": 0.2, "special_listing_conditions": 0.4,
    },
    "parcels": {
        "parcel_number": 1.0, "living_area": 0.9, "year_built": 0.9, "lot_size_square_feet": 0.6, "part:acres": 0.7, "bedrooms_total": 0.5, "stories": 0.3,
        "bathrooms_full": 0.3, "part:baths": 0.3, "unparsed_address": 0.7, "zoning": 0.4, "tax_assessed_value": 0.4, "other:owner": 0.5, "part:street": 0.4,
        "other:legal": 0.3, "subdivision_name": 0.3, "property_type": 0.3, "latitude": 0.3, "other:mailing": 0.3, "other:sale": 0.2, "property_sub_type": 0.2,
        "other:number": 0.2, "part:point": 0.3, "tax_annual_amount": 0.2, "construction_quality": 0.2, "year_remodelled": 0.2,
    },
    "transfers": {
        "parcel_number": 0.7, "grantor": 2.0, "grantee": 2.0, "document_type": 1.8, "recording_date": 1.8, "sale_date": 0.7, "price": 0.7,
        "parcel_count": 0.7, "other:book": 0.7, "other:qualified": 0.4,
    },
    "assessments": {
        "parcel_number": 0.7, "tax_year": 2.0, "land_value": 1.4, "improvement_value": 1.4, "total_value": 1.2, "tax_amount": 0.8,
    },
    "history": {"listing_id": 0.6, "at": 1.3, "event": 1.6, "old_value": 1.6, "new_value": 1.6},
}  # fmt: skip
_NEEDED: Mapping[str, tuple[frozenset[str], ...]] = {
    "listings": (
        frozenset({"listing_id", "unparsed_address", "part:street", "latitude", "part:point"}),
        frozenset({"standard_status", "close_date", "close_price", "list_price", "on_market_date"}),
    ),
    "parcels": (frozenset({"parcel_number"}),),
    "transfers": (frozenset({"parcel_number"}), frozenset({"sale_date", "recording_date"})),
    "assessments": (frozenset({"parcel_number"}), frozenset({"tax_year"})),
    "history": (frozenset({"listing_id"}), frozenset({"at"}), frozenset({"event"})),
}


def kind_of(heads: Sequence[str], columns: Sequence[Profile]) -> str | None:
    """The kind of file that has these columns, by what its columns would be; None where it is none."""
    best, kind = 1.2, None
    for name, points in _DISTINCTIVE.items():
        found = {f.target for f in match(heads, columns, name) if f.sure >= 0.7}
        if not all(found & group for group in _NEEDED[name]):
            continue
        score = sum(points.get(t, 0.0) for t in found)
        others = len(heads) - sum(1 for _ in found)
        score -= {"transfers": 0.25, "assessments": 0.3, "history": 0.4}.get(name, 0.0) * min(others, 12)
        if score > best:
            best, kind = score, name
    if kind is None and len(heads) <= 4 and {"date", "value"} <= {f.target for f in match(heads, columns, "series")}:
        return "series"
    return kind
