"""What is possible but strange enough to be asked about before it is taken; usual limits are common practice."""

from __future__ import annotations

from .fields import BY_NAME, Kind
from .money import dollars

_FACTOR = 3.0  # a size that differs from what the records say by so much is more often a slip than a correction
_SIZES = {"living_area": (350.0, 10_000.0)}  # where no record says anything, sq ft
_PRICE_FACTOR = 3.0


def odd_fact(name: str, value: float, known: float | None, year: int) -> str | None:
    """The question that a corrected fact asks for, or None. known: what the records say; year: that of the workup.

    15,200 sq ft where they say 1,520 → a question; 2027 in a workup of 2026 → a question; 2.5 full baths → a question.
    """
    field = BY_NAME[name]
    said = (
        field.label
        if field.kind == Kind.YEAR
        else f"{field.label} {value:,.10g}{f' {field.unit}' if field.unit else ''}"
    )
    if name in ("year_built", "year_remodelled") and value > year:
        return f"{said} {value:.0f} is still to come."
    if value != int(value) and (why := field.said("whole")):
        return f"{field.label} {value:g}: {why}."
    if field.asked_above is not None and value > field.asked_above:
        return f"{field.label} {value:g} is unusually many."
    if field.slips and known and not 1 / _FACTOR < value / known < _FACTOR:
        return f"{said}, where the records say {known:,.10g}."
    low, high = _SIZES.get(name, (0.0, float("inf")))
    if not known and not low <= value <= high:
        return f"{said} is unusually {'small' if value < low else 'large'}."
    return None


def odd_price(price: float, usual: float | None) -> str | None:
    """The question that a list price asks for, or None. usual: what the kept comps or the homes found cost, in dollars."""
    if not usual or 1 / _PRICE_FACTOR < price / usual < _PRICE_FACTOR:
        return None
    times = price / usual
    much = f"{times:.0f} times" if times > 1 else f"{100 * times:.0f} % of"
    return f"A list price of {dollars(price)} is {much} what the comps cost, about {dollars(round(usual, -3))}."
