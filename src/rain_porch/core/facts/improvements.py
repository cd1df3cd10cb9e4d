"""What recent work on a home returns of its cost when it is sold: house rules, all of them below the whole.

Value = cost × share returned for the kind × factor for the quality × (1 − years since ÷ life), never below 0. A
kitchen of 40,000 done well 3 years ago: 40,000 × 0.65 × 1 × (1 − 3/15) = 20,800. Personal property returns nothing.
Source: ours; the shares lie within what the trade's yearly cost surveys usually report (from memory).
"""

from __future__ import annotations

from dataclasses import dataclass

from ..errors import BadInput
from ..phrases import phrase
from .money import dollars, half_up

# kind → (share returned, years over which it fades)
KINDS: dict[str, tuple[float, int]] = {
    "kitchen": (0.65, 15), "bath": (0.62, 15), "roof": (0.60, 20), "windows": (0.62, 20), "siding": (0.68, 25),
    "heating or cooling": (0.55, 15), "flooring": (0.60, 12), "basement finished": (0.60, 20), "addition": (0.55, 40),
    "garage": (0.60, 40), "deck or porch": (0.58, 15), "pool": (0.35, 15), "solar, owned": (0.45, 20),
    "garden and paving": (0.40, 12), "paint": (0.50, 6), "personal property": (0.0, 1),
}  # fmt: skip
QUALITIES = {"plain": 0.9, "good": 1.0, "luxury": 0.75}
MAX_COST = 5e6


@dataclass(frozen=True)
class Improvement:
    """kind: of KINDS. year: in which it was done. cost in dollars. quality: plain, good or luxury."""

    kind: str
    year: int
    cost: float
    quality: str = "good"
    note: str = ""


def improvement_label(kind: str) -> str:
    """A kind as a label: "heating or cooling" → "Heating or cooling"."""
    return phrase(f"improvement-{kind.replace(', ', '-').replace(' ', '-')}")


def check_improvement(x: Improvement, this_year: int) -> None:
    """BadInput, naming the field and the remedy, for what makes no sense."""
    if x.kind not in KINDS:
        raise BadInput("kind", f"“{x.kind}” is no kind of improvement: use one of {', '.join(KINDS)}.")
    if x.quality not in QUALITIES:
        raise BadInput("quality", f"“{x.quality}” is no quality: use {', '.join(QUALITIES)}.")
    if not 0 <= x.cost <= MAX_COST:
        raise BadInput("cost", f"A cost of {x.cost:,.0f} makes no sense: give 0 to {dollars(MAX_COST)}.")
    if not this_year - 100 <= x.year <= this_year:
        raise BadInput("year", f"The year {x.year} makes no sense: give {this_year - 100} to {this_year}.")


def returned(x: Improvement, this_year: int, share: float | None = None) -> tuple[float, str]:
    """What the improvement adds to the price, in dollars, and the sum behind it in words. share: of its cost that comes back,
    where the house has another than the kind's usual one."""
    usual, life = KINDS[x.kind]
    share = usual if share is None else share
    factor = QUALITIES[x.quality]
    left = max(0.0, 1 - max(0, this_year - x.year) / life)
    value = half_up(x.cost * share * factor * left)  # whole dollars, so that what is printed adds up
    return value, phrase(
        "improvement-worked", cost=dollars(x.cost), share=f"{100 * share:.0f}", factor=f"{factor:g}",
        quality=phrase(f"quality-{x.quality}"), left=f"{100 * left:.0f}", life=str(life), value=dollars(value),
    )  # fmt: skip
