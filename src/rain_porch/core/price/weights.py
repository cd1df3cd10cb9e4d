"""What each comp weighs in the indicated value, and the model beside them; why the heaviest weighs most."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ..market.columns import Floats
from ..phrases import phrase

WEIGHT_STEPS = 1000
MODEL = "model"  # its name among weights that are set by hand
# the wide model as one more voice: its least and its greatest weight, and how far apart is much (docs/decisions/11-wide-model.md)
_QUIET, _LOUD, _APART_PCT = 0.2, 0.5, 12.0


def comp_weights(likeness: Floats, days: Floats, gross_pct: Floats, from_model_pct: Floats | None = None) -> Floats:
    """likeness⁴ × ½^(days since sale ÷ 365) ÷ (1 + (gross % ÷ 30)²) ÷ (1 + (% from the model ÷ 12)²), scaled to add up to
    1, in tenths of a percent. Shape (n,).

    from_model_pct: how far each adjusted price lies from the model's value; a sale that stands alone, above or below,
    had something that no field tells. Left out where there is no model.
    """
    raw = np.prod(list(_weight_parts(likeness, days, gross_pct, from_model_pct).values()), axis=0)
    raw = np.maximum(raw, 1e-9)
    return in_steps(raw / raw.sum())


def weigh(prices: Floats, gross_pct: Floats, likeness: Floats, days: Floats, model_value: float | None) -> Floats:
    """The weights of comps with these adjusted prices, (n,). days since each price was agreed; one ahead counts as 0."""
    return comp_weights(likeness, np.maximum(days, 0), gross_pct, from_model(prices, model_value))


def _weight_parts(
    likeness: Floats, days: Floats, gross_pct: Floats, from_model_pct: Floats | None
) -> dict[str, Floats]:
    """The factors of `comp_weights` by name, each (n,)."""
    parts = {
        "likeness": (likeness / 100) ** 4,
        "days": np.asarray(0.5 ** (days / 365)),
        "gross": 1 / (1 + (gross_pct / 30) ** 2),
    }
    if from_model_pct is not None:
        parts["model"] = 1 / (1 + (from_model_pct / 12) ** 2)
    return parts


@dataclass(frozen=True)
class Factor:
    """One factor of a comp's weight. says: the comp's own figure; usual: the middle comp's; times: how many times the middle of all the
    comps' factors it is."""

    name: str
    says: str
    usual: str
    times: float


def weight_factors(
    likeness: Floats, days: Floats, gross_pct: Floats, from_model_pct: Floats | None = None
) -> list[list[Factor]]:
    """Why each comp weighs what it does: its factors, the strongest in lifting it first."""
    parts = _weight_parts(likeness, days, gross_pct, from_model_pct)
    middle = {name: float(np.exp(np.log(np.maximum(x, 1e-9)).mean())) for name, x in parts.items()}
    usual = {
        "likeness": f"{np.median(likeness):.0f}", "days": f"{np.median(days):.0f}", "gross": f"{np.median(gross_pct):.1f} %",
        "model": "" if from_model_pct is None else f"{np.median(np.abs(from_model_pct)):.1f} %",
    }  # fmt: skip
    out = []
    for i in range(len(likeness)):
        told = {
            "likeness": phrase("weighs-likeness", n=f"{likeness[i]:.0f}"), "days": phrase("weighs-days", n=f"{days[i]:.0f}"),
            "gross": phrase("weighs-gross", pct=f"{gross_pct[i]:.1f}"),
            "model": "" if from_model_pct is None else phrase("weighs-model", pct=f"{abs(from_model_pct[i]):.1f}"),
        }  # fmt: skip
        mine = [Factor(n, told[n], usual[n], float(x[i]) / middle[n]) for n, x in parts.items()]
        out.append(sorted(mine, key=lambda f: -f.times))
    return out


def why_heaviest(names: Sequence[str], weights: Floats, factors: Sequence[Sequence[Factor]]) -> str:
    """A sentence on the comp that weighs most: which factors of its weight lift it above the others, and which lower it."""
    top = int(np.argmax(weights))
    told = {"home": names[top], "pct": f"{100 * weights[top]:.1f}"}
    if len(weights) < 2:
        return phrase("weighs-most-alone", **told)
    better = [f for f in factors[top] if f.times > 1.05][:3]
    worse = [f for f in factors[top] if f.times < 0.9]
    if not better:
        return phrase("weighs-most-in-all", **told)
    why = ", ".join(phrase("weighs-beside", says=f.says, usual=f.usual) for f in better)
    if worse:
        return phrase("weighs-most-though", **told, why=why, though=worse[0].says)
    return phrase("weighs-most", **told, why=why)


def in_steps(weights: Floats) -> Floats:
    """Weights, (n,), in tenths of a percent that add up to the whole: what is printed is what is reckoned with.

    By largest remainders: each is rounded down, and the tenths that are left go to those that lost most.
    """
    exact = weights * WEIGHT_STEPS
    out = np.floor(exact + 1e-9)
    left = round(WEIGHT_STEPS - float(out.sum()))
    out[np.argsort(-(exact - out), kind="stable")[:left]] += 1
    return np.asarray(out / WEIGHT_STEPS)


def from_model(adjusted: Floats, model_value: float | None) -> Floats | None:
    """How far adjusted prices lie from the model's value, in percent; None without a model."""
    return np.asarray(100 * (adjusted / model_value - 1)) if model_value else None


def with_set_weights(weights: Floats, fixed: Mapping[int, float]) -> Floats:
    """Weights, (n,), with some set by hand (index → share); the rest are rescaled so that all sum to 1, in tenths of a percent."""
    out = weights.copy()
    held = np.array([i in fixed for i in range(len(weights))])
    share = min(1.0, sum(fixed.values()))
    for i, value in fixed.items():
        out[i] = value
    rest = weights[~held].sum()
    if held.all() or rest <= 0:
        return in_steps(out / out.sum())
    out[~held] *= (1 - share) / rest
    return in_steps(out / out.sum())


def model_weight(comps_value: float, model_value: float | None) -> float:
    """1 − 0.8 ÷ (1 + (% between the comps and the model ÷ 12)²), at most ½; 0 without a model: a fifth where they agree, more the
    farther the comps are from what all sales of the kind say."""
    if not model_value:
        return 0.0
    apart = 100 * (comps_value / model_value - 1)
    return min(_LOUD, 1 - (1 - _QUIET) / (1 + (apart / _APART_PCT) ** 2))


def beside_model(weights: Floats, model_weight: float, fixed: Mapping[int, float]) -> tuple[Floats, float]:
    """The comps' weights, (n,), and the model's, which add up to 1 in tenths of a percent.

    weights: of the comps among themselves. model_weight: 0 for none. fixed: shares set by hand, index → share, the model's at n:
    the others are rescaled to what these leave.
    """
    every = in_steps(np.append(weights * (1 - model_weight), model_weight))
    every = with_set_weights(every, fixed) if fixed else every
    return every[:-1], float(every[-1])
