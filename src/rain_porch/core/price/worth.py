"""From adjusted comps to a number: indicated value, range, and the other ways."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..facts.dates import said
from ..facts.fields import OWN_LINE, line_label
from ..facts.homes import Candidate, Subject
from ..facts.money import dollars, half_up, signed
from ..market.columns import Floats
from ..phrases import has_phrase, listed, phrase, within
from ..statistics.summary import summarise
from .backtest import COVERAGE
from .evidence import Rate
from .grid import Adjusted, Own

ROUNDING = 100  # dollars


@dataclass(frozen=True)
class Method:
    """One way to the number, with its formula written out in the actual figures."""

    name: str
    label: str
    value: float
    formula: str


@dataclass(frozen=True)
class Range:
    """low–high is meant to hold `coverage` of such sales; `measured` says whether a backtest has shown it."""

    low: float
    high: float
    coverage: float = COVERAGE
    measured: bool = False


@dataclass(frozen=True)
class Voice:
    """The model beside the comps: its value in dollars, and its weight. The comps' weights and this add up to 1."""

    value: float
    weight: float


def indicated(
    adjusted: Sequence[Adjusted], weights: Floats, apart: Sequence[Own] = (), voice: Voice | None = None
) -> float:
    """Weighted mean of the adjusted prices and the model's voice, and what is equal for all of them added once; exact: what is
    shown of it is rounded by the house's rule.

    An improvement of 11,625 raises it by 11,625.
    """
    mean = float(np.dot([a.adjusted_price for a in adjusted], weights))
    said = voice.value * voice.weight if voice else 0.0
    return mean + said + sum(x.amount or 0.0 for x in apart)


def multiplied_out(figure: float, times: float) -> str:
    """A figure with as many digits as it takes for the product to be what is printed: 253.7854 × 1,920 = 487,268."""
    for digits in range(2, 9):
        text = f"{figure:,.{digits}f}"
        if half_up(float(text.replace(",", "")) * times) == half_up(figure * times):
            return text
    return f"{figure:,.9f}"


def value_range(
    value: float, half_width: float, measured: bool = False, coverage: float = COVERAGE, rounding: int = ROUNDING
) -> Range:
    """A band that is meant to hold `coverage` of such sales: value × e^(± half width of past errors in logarithms), to the nearest
    `rounding` dollars."""
    low, high = (half_up(value * float(np.exp(sign * half_width)), rounding) for sign in (-1, 1))
    return Range(low, high, coverage, measured)


def share_words(share: float) -> str:
    """A share as people say it.

    >>> share_words(0.8), share_words(0.77)
    ('four of five', '77 of a hundred')
    """
    pct = round(100 * share)
    return phrase(f"share-{pct}") if has_phrase(f"share-{pct}") else phrase("share-of-a-hundred", pct=str(pct))


def methods(
    subject: Subject,
    adjusted: Sequence[Adjusted],
    weights: Floats,
    per_sqft: Sequence[float],
    model_value: float | None,
    n_local: int,
    apart: Sequence[Own] = (),
    voice: Voice | None = None,
    fitted: dt.date | None = None,
) -> list[Method]:
    """Every way side by side. fitted: the day before which the sales of the wide model closed, where that answered. Mean 228.40 $/sq ft × 1,875 sq ft = 428,250. What stands apart is in the first alone."""
    out: list[Method] = []
    if adjusted:
        value = indicated(adjusted, weights, apart, voice)
        terms = " + ".join(
            f"{w * 100:.1f} % × {dollars(a.adjusted_price)}" for a, w in zip(adjusted, weights, strict=True)
        )
        added = "".join(f" {signed(x.amount or 0.0)[0]} {dollars(abs(x.amount or 0.0))} {_named(x)}" for x in apart)
        if voice:
            share = f"{voice.weight * 100:.1f}"
            terms += f" + {phrase('way-term-of-model', share=share, value=dollars(voice.value))}"
        out.append(_way("adjusted_comps", value, f"{terms}{added} = {dollars(value)}"))
    area = subject.number("living_area")
    s = summarise(per_sqft)
    if area and s.count:
        for part, figure in (("mean", s.mean), ("median", s.median), ("low", s.low), ("high", s.high)):
            assert figure is not None
            per = multiplied_out(figure, area)
            formula = phrase("way-worked-per-foot", per=per, area=f"{area:,.0f}", value=dollars(figure * area))
            out.append(_way(f"{part}_price_per_sqft", figure * area, formula))
    if model_value is not None:
        told = {"n": n_local, "value": dollars(model_value)}
        wide = (
            phrase("way-worked-model", **told, day=said(fitted)) if fitted else phrase("way-worked-local-fit", **told)
        )
        out.append(_way("model", model_value, wide))
    assessed = subject.number("tax_assessed_value")
    if assessed:
        year = subject.assessed_year
        roll = phrase("way-worked-tax-roll", year=str(year)) if year else phrase("way-worked-tax-roll-no-year")
        label = phrase("way-assessed_value-of", year=str(year)) if year else phrase("way-assessed_value")
        out.append(Method("assessed_value", label, assessed, roll))
    return out


def _way(name: str, value: float, formula: str) -> Method:
    return Method(name, phrase(f"way-{name}"), value, formula)


def _named(x: Own) -> str:
    """A line within a sentence: the agent's own as they wrote it."""
    return line_label(x.field) if x.field.startswith(OWN_LINE) else within(line_label(x.field))


def without(ways: Sequence[Method], apart: Sequence[Own]) -> list[Method]:
    """The ways, each of those that leave out what stands apart saying so."""
    if not apart:
        return list(ways)
    names = listed([f"{_named(x)} ({signed(x.amount or 0.0)})" for x in apart])
    return [
        way
        if way.name in ("adjusted_comps", "assessed_value")
        else replace(way, formula=phrase("way-worked-without", formula=way.formula, names=names))
        for way in ways
    ]


def size_corrected(subject: Subject, comps: Sequence[Candidate], rate: Rate | None) -> Method | None:
    """Price per square foot corrected for size: small homes bring more a foot, so each price is taken to the subject's
    area by the fit's power, price × (area ÷ theirs)^power; their mean. None without areas or without a power."""
    area = subject.number("living_area")
    known = [(c.price, a) for c in comps if c.price and isinstance(a := c.facts.get("living_area"), float) and a > 0]
    if not area or not known or rate is None or rate.elasticity is None:
        return None
    power = round(rate.elasticity, 2)  # as it is printed
    value = float(np.mean([price * (area / theirs) ** power for price, theirs in known]))
    formula = phrase(
        "way-worked-size-corrected", n=len(known), area=f"{area:,.0f}", power=f"{power:.2f}", value=dollars(value),
        per=f"{value / area:,.2f}",
    )  # fmt: skip
    return _way("size_corrected_price_per_sqft", value, formula)


def brought_forward(paid: float, on: dt.date, factor: float) -> Method:
    """The home's own earlier sale at today's prices; what was done to the home since is not in it."""
    value = paid * factor
    times = multiplied_out(factor, paid)
    formula = phrase("way-worked-brought-forward", paid=dollars(paid), day=said(on), factor=times, value=dollars(value))
    return _way("brought_forward", value, formula)


def per_sqft_values(per_sqft: Floats, area: float | None) -> dict[str, float]:
    """Mean and median price per square foot × the subject's area; none where either is unknown."""
    known = per_sqft[np.isfinite(per_sqft)]
    if not area or not known.size:
        return {}
    return {
        "mean_price_per_sqft": float(known.mean() * area),
        "median_price_per_sqft": float(np.median(known) * area),
    }
