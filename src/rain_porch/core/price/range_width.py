"""How wide the range is before past prices have measured it, and what makes it wide here.

With the wide model, in logarithms:

    half = 2 · usual^0.8 · typical^0.2 · ((gross + 5) ÷ 27)^0.3 · ((gap + 5) ÷ 8)^0.1 · (1.7 ÷ heard)^0.1

times √(1 + u²) where facts of the home are unknown: u, what such facts move prices by among homes that are alike in what is known,
against the width without it.

usual, typical: what the model misses of such a home's price and of the middle home's; gross: percent of the price that is adjusted,
weighted over the comps; gap: percent between the comps and the model; heard: weight of like sales around (1 is one next door, sold
now). Without it, the local fit's own spread. The powers were found on the first half of the early county's years and held on the
second (docs/accuracy.md); the conformal factor of a backtest then sets the scale.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..facts.fields import line_label
from ..facts.homes import Subject
from ..statistics.regression import Z80
from .evidence import Evidence
from .wide_model import ModelWorth

_MISSED, _GROSS, _GAP, _HEARD = 0.8, 0.3, 0.1, 0.1  # powers
_USUAL_GROSS, _USUAL_GAP, _USUAL_HEARD = 22.0, 3.0, 1.7
_NARROWEST, _WIDEST = 0.03, 0.7
TELLING = 1.08  # a cause that widens the range by this much is told


@dataclass(frozen=True)
class Cause:
    """One of the reasons for a range's width. factor: times the range of a usual home. says: what was found; do: what narrows it."""

    name: str
    factor: float
    says: str
    do: str


def half_width(found: Evidence, subject: Subject, comps_value: float, gross_pct: float) -> float:
    """Half the width of the range, in logarithms. comps_value: what the comps alone say; gross_pct: weighted over them."""
    half = _usual_half(found)
    for cause in causes(found, subject, comps_value, gross_pct):
        half *= cause.factor
    return min(max(half, _NARROWEST), _WIDEST)


def _usual_half(found: Evidence) -> float:
    return found.half_width if found.model is None else 2.0 * found.model.typical


def causes(found: Evidence, subject: Subject, comps_value: float, gross_pct: float) -> Sequence[Cause]:
    """Why the range is wider or narrower than a usual home's here, each cause with its factor; without the wide model, only what is
    unknown of the home."""
    told = [] if found.model is None else _of_the_model(found, found.model, comps_value, gross_pct)
    half = _usual_half(found) * float(np.prod([c.factor for c in told]))
    unknown, together = _unknown(found, subject)
    if not unknown:
        return told
    factor = float(np.sqrt(1 + (Z80 * together / half) ** 2))
    most = max(unknown, key=lambda n: unknown[n])
    more = (
        f", and {len(unknown) - 1} more facts"
        if len(unknown) > 2
        else ", and one more fact"
        if len(unknown) > 1
        else ""
    )
    says = (
        f"of the home it is not known: {line_label(most).lower()}{more}; among homes that are else alike that moves prices by some "
        f"{100 * together:.0f} %"
    )
    return [*told, Cause("unknown", factor, says, "Give it in Home.")]


def _unknown(found: Evidence, subject: Subject) -> tuple[dict[str, float], float]:
    """Facts of which sales around here tell and the home does not: what one spread of each moves prices by, in logarithms, and what
    all of them do together. A spread is that among sales of the same known facts:

        Σ = S_uu − S_uk S_kk⁻¹ S_ku,   each |b_j| √Σ_jj,   together √(b' Σ b)

    S: covariance of the features, each sale against its neighbours; u: unknown of the home, k: known; b: their coefficients.
    """
    if found.wide is None or found.coef is None:
        return {}, 0.0
    names = [f.name for f in found.wide.features]
    missing = np.array([subject.number(name) is None for name in names], dtype=np.bool_)
    if not missing.any():
        return {}, 0.0
    s, b = found.wide.covariance, found.coef[missing]
    across = s[np.ix_(missing, ~missing)]
    left = s[np.ix_(missing, missing)] - across @ np.linalg.pinv(s[np.ix_(~missing, ~missing)]) @ across.T
    each = np.abs(b) * np.sqrt(np.maximum(np.diag(left), 0.0))
    unknown = [name for name, gone in zip(names, missing, strict=True) if gone]
    return dict(zip(unknown, each.tolist(), strict=True)), float(np.sqrt(max(b @ left @ b, 0.0)))


def _of_the_model(found: Evidence, told: ModelWorth, comps_value: float, gross_pct: float) -> list[Cause]:
    model_value = found.model_value or comps_value
    gap = min(100 * abs(comps_value / model_value - 1), 60.0)
    heard = max(told.heard, 0.05)
    return [
        Cause(
            "home", (told.usual / told.typical) ** _MISSED,
            f"homes of such a price, size, age and place sell {100 * told.usual:.0f} % off what is known of them, "
            f"the middle one here {100 * told.typical:.0f} %",
            "Say what no field tells of it: its condition, what was done to it, what is odd about it.",
        ),
        Cause(
            "adjusting", ((max(gross_pct, 0.0) + 5) / (_USUAL_GROSS + 5)) ** _GROSS,
            f"the comps are adjusted by {gross_pct:.0f} % of their prices in all, usual are {_USUAL_GROSS:.0f} %",
            "Keep sales that are more alike, and set aside those that need the most adjusting.",
        ),
        Cause(
            "model", ((gap + 5) / (_USUAL_GAP + 5)) ** _GAP,
            f"the comps and the model are {gap:.0f} % apart",
            "Look at the comps that lie farthest from the model: a sale that was odd for its kind says little.",
        ),
        Cause(
            "sales", (_USUAL_HEARD / heard) ** _HEARD,
            "few like homes have sold close by of late" if heard < _USUAL_HEARD else "many like homes have sold close by of late",
            "Nothing but more sales: bring in other records for here, or look further back.",
        ),
    ]  # fmt: skip


def why_wide(found: Evidence, subject: Subject, comps_value: float, gross_pct: float) -> list[Cause]:
    """The causes that make the range wider than usual, the strongest first."""
    wide = [c for c in causes(found, subject, comps_value, gross_pct) if c.factor >= TELLING]
    return sorted(wide, key=lambda c: -c.factor)
