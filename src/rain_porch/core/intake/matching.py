"""Which column is what: heads and values weighed together, the best assignment over all columns at once, the kind of file.

A column's score for a target is its head's nearness to the table of words (vocabulary.py) times how its cells fit (cells.py),
times how it agrees with the columns that are settled (list and close price lie together, dates follow one another). The
assignment is the one with the largest sum of scores (Hungarian method, scipy.optimize.linear_sum_assignment).
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..facts.fields import BY_NAME, CATALOGUE, Field
from ..facts.record_fields import ASSESSMENTS, EVENTS, SERIES, TRANSFERS
from ..facts.words import plain
from .agreement import agreement
from .cells import Profile
from .heads import words_of
from .shapes import fit
from .units import unit_of
from .vocabulary import TARGETS, Target

SURE = 0.75  # a column below this is shown and not taken
POSSIBLE = 0.5
EXACT, NEARLY, LABELLED = 0.97, 0.9, 0.995
_WEIGHTS = {
    "yn": 0.15, "on": 0.2, "for": 0.2, "to": 0.4, "by": 0.4, "per": 0.6, "number": 0.6, "date": 0.8, "price": 0.8, "code": 0.4, "name": 0.5,
    "total": 0.5, "description": 0.4, "type": 0.7, "current": 0.45, "property": 0.35, "sqft": 0.7, "area": 0.7, "size": 0.5,
    "count": 0.4, "approx": 0.15, "est": 0.15, "situs": 0.35, "month": 0.35, "features": 0.5, "year": 0.9, "value": 0.7, "amount": 0.5,
    "actual": 0.3, "final": 0.3, "calculated": 0.3, "mls": 0.8, "location": 0.35, "000": 0.05, "thousands": 0.05, "status": 0.9, "main": 0.7, "building": 0.7, "annual": 0.5, "home": 0.4, "timestamp": 0.6,
    "original": 1.3, "half": 1.4, "full": 1.1, "agent": 1.4, "office": 1.4, "school": 1.6, "previous": 1.5, "percent": 1.5, "owner": 1.5, "mailing": 1.6,
    "lot": 1.1, "garage": 1.3, "basement": 1.3, "buyer": 1.5, "phone": 1.5, "email": 1.5, "garden": 1.0, "list": 1.1, "close": 1.1, "acres": 1.2,
}  # fmt: skip
_NOTHING = 0.1  # what a column that is left out is worth
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


def _own_fields(kind: str) -> Sequence[Field]:
    others: Mapping[str, Sequence[Field]] = {
        "transfers": TRANSFERS, "assessments": ASSESSMENTS, "history": EVENTS, "series": SERIES,
    }  # fmt: skip
    return others.get(kind, CATALOGUE)


@lru_cache(maxsize=16)
def _standard(kind: str) -> dict[str, int]:
    """The standard's and our names, folded → place of the target."""
    place = {target.name: i for i, target in enumerate(TARGETS[kind])}
    return {n: place[f.name] for f in _own_fields(kind) if f.name in place for n in (plain(f.reso), plain(f.name))}


@lru_cache(maxsize=16)
def _labels(kind: str) -> dict[str | tuple[str, ...], int]:
    """What people see in place of the names, in small letters, → place of the target; as plain words too, where those are one
    field's alone ("Unit" and "Units" are two)."""
    place = {target.name: i for i, target in enumerate(TARGETS[kind])}
    labels = [(f.label, place[f.name]) for f in _own_fields(kind) if f.name in place]
    held = Counter(words_of(label) for label, _ in labels)
    by_words = {words_of(label): i for label, i in labels if held[words_of(label)] == 1}
    as_written: dict[str | tuple[str, ...], int] = {label.casefold(): i for label, i in labels}
    return as_written | by_words


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
    labels = _labels(kind)
    if (labelled := labels.get(head.strip().casefold(), labels.get(words))) is not None:
        out[labelled] = (LABELLED, "its name here")
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
    factors, told = agreement(chosen, scores, columns, targets, heads)
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
    taken = np.flatnonzero(gains.max(axis=1) > _NOTHING)
    best = gains[taken].argmax(axis=1)
    if len(np.unique(best)) == len(best):  # each has its best, and no two want the same: no sum is larger
        return {int(rows[r]): int(t) for r, t in zip(taken, best, strict=True)}
    from scipy.optimize import linear_sum_assignment  # 45 MB that a file of standard heads needs none of

    nothing = np.full((len(rows), len(rows)), _NOTHING)
    chosen_rows, chosen = linear_sum_assignment(np.hstack([gains, nothing]), maximize=True)
    return {
        int(rows[r]): int(t)
        for r, t in zip(chosen_rows, chosen, strict=True)
        if t < scores.shape[1] and scores[rows[r], t] > 0
    }
