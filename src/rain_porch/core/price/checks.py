"""What an appraiser would ask of a price, each with what to do about it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ..facts.homes import Candidate, Subject
from ..facts.house_rules import USUAL, HouseRules
from ..facts.money import dollars, pct_words
from ..phrases import phrase
from .grid import Adjusted

ENOUGH_SALES = 3


@dataclass(frozen=True)
class Check:
    """One question. ok: nothing to do. says: what was found; do: the remedy, empty where it is ok. homes: whom it is about."""

    name: str
    label: str
    ok: bool
    says: str
    do: str = ""
    homes: tuple[str, ...] = ()


@dataclass(frozen=True)
class Asked:
    """What the checks look at, over the kept sold comps in one order. crossed: listing → what lies between.

    sellers: listing → who sold, where a deed or a builder's name tells. ages: days from the sale to the effective date.
    """

    subject: Subject
    comps: Sequence[Candidate]
    adjusted: Sequence[Adjusted]
    ages: Sequence[float]
    value: float | None
    list_price: float | None
    pct_per_month: float
    change_certain: bool
    crossed: Mapping[str, str]
    sellers: Mapping[str, str]
    notes: Sequence[str] = ()  # cautions of the evidence itself
    rules: HouseRules = USUAL


def cautions(
    subject: Subject, comps: Sequence[Candidate], adjusted: Sequence[Adjusted], value: float, rules: HouseRules = USUAL
) -> list[str]:
    """What the comps and the grid alone give reason to say, as sentences with the remedy."""
    a = Asked(subject, comps, adjusted, [], value, None, 0.0, True, {}, {}, rules=rules)
    return [f"{c.says} {c.do}" for c in _of_the_grid(a) if not c.ok]


def _of_the_grid(a: Asked) -> list[Check]:
    found = [
        _number(a), _bracket(a, "living_area", "Size", "sq ft"), _bracket(a, "year_built", "Age", ""), _spread(a),
        _inside(a), _adjustments(a),
    ]  # fmt: skip
    return [c for c in found if c is not None]


def checks(a: Asked) -> list[Check]:
    """All of them, those with something to do first."""
    if not a.comps:
        return [
            Check("number", "Number of sales", False, "No sold comps are kept.", "Keep at least three sales in Comps.")
        ]
    out = [
        *_of_the_grid(a), _distance(a), _age(a), _barrier(a), _new_construction(a), _change(a), _sellers(a),
        _evidence(a), _above_all(a),
    ]  # fmt: skip
    return sorted([c for c in out if c is not None], key=lambda c: c.ok)


def _number(a: Asked) -> Check:
    n = len(a.comps)
    ok = n >= ENOUGH_SALES
    return Check("number", "Number of sales", ok, f"{n} sold {'comp' if n == 1 else 'comps'}.",
                 "" if ok else "Keep at least three: loosen the search by one step, or go further back.")  # fmt: skip


def _about(a: Asked, chosen: Sequence[bool]) -> tuple[str, ...]:
    return tuple(c.listing_id for c, hit in zip(a.comps, chosen, strict=True) if hit)


def _distance(a: Asked) -> Check:
    limit = a.rules["review.far_miles"]
    beyond = "a mile" if limit == 1 else f"{limit:g} miles"
    far = _about(a, [c.distance_miles is not None and c.distance_miles > limit for c in a.comps])
    known = [c.distance_miles for c in a.comps if c.distance_miles is not None]
    if not known:
        return Check(
            "distance",
            "Distance",
            False,
            "It is not known where these sales or the home stand: distances cannot be told.",
            "Say where the home stands, or bring in parcels with their places.",
            (),
        )
    most = max(known)
    return Check("distance", "Distance", not far,
                 f"{len(far)} of {len(a.comps)} lie more than {beyond} away, the farthest {most:.1f} miles." if far
                 else f"All within {most:.2f} miles.",
                 "Say in the report why nearer sales were not alike, or put nearer ones in their place." if far else "", far)  # fmt: skip


def _age(a: Asked) -> Check:
    limit = a.rules.whole("review.old_days")
    old = _about(a, [age > limit for age in a.ages])
    return Check("age", "Age of the sales", not old,
                 f"{len(old)} of {len(a.comps)} were agreed more than {limit} days ago, the oldest {max(a.ages):.0f}." if old
                 else f"All within {limit} days, the oldest {max(a.ages):.0f}.",
                 "Use newer sales where there are any; else let the market change stand in the grid." if old else "", old)  # fmt: skip


def _bracket(a: Asked, field: str, label: str, unit: str) -> Check | None:
    mine = a.subject.number(field)
    theirs = [v for c in a.comps if isinstance(v := c.facts.get(field), float)]
    if mine is None or not theirs:
        return None
    low, high, sign = min(theirs), max(theirs), "," if unit else ""
    ok = low <= mine <= high
    tail = f" {unit}" if unit else ""
    where = "between" if ok else ("above all of" if mine > high else "below all of")
    more = ("larger" if mine > high else "smaller") if unit else ("newer" if mine > high else "older")
    return Check(f"bracket_{field}", f"{label} bracketed", ok,
                 f"The home's {mine:{sign}.0f}{tail} lies {where} the comps' {low:{sign}.0f} to {high:{sign}.0f}.",
                 "" if ok else f"Keep one {more} sale, even a less alike one.")  # fmt: skip


def _adjustments(a: Asked) -> Check:
    line, net, gross = (a.rules[f"review.{part}_pct"] for part in ("line", "net", "gross"))
    over = tuple(x.listing_id for x in a.adjusted if x.over_limits)
    most = max(a.adjusted, key=lambda x: x.gross_pct)
    return Check("adjustments", "Net and gross adjustment", not over,
                 f"{len(over)} of {len(a.adjusted)} exceed a limit (net {net:g} %, gross {gross:g} %, "
                 f"one line {line:g} %); the largest gross is {most.gross_pct:.1f} %." if over
                 else f"None exceeds a limit; the largest gross is {most.gross_pct:.1f} %.",
                 "Look at their largest lines, or put more alike sales in their place." if over else "", over)  # fmt: skip


def _barrier(a: Asked) -> Check:
    hit = _about(a, [c.listing_id in a.crossed for c in a.comps])
    what = sorted({a.crossed[key] for key in hit})
    return Check("barrier", "Across a barrier", not hit,
                 f"{len(hit)} of {len(a.comps)} lie across {', '.join(what)}." if hit else "None lies across a highway, railway or water.",
                 "Make it a fence in the search, or say why both sides are one market." if hit else "", hit)  # fmt: skip


def _new_construction(a: Asked) -> Check:
    new = _about(a, [phrase("flag-new-construction") in c.flags for c in a.comps])
    return Check("new_construction", "New construction", not new,
                 f"{len(new)} of {len(a.comps)} were new from the builder." if new else "None was new from the builder.",
                 "Builders' prices carry options and incentives: set them aside where resales are enough." if new else "", new)  # fmt: skip


def _change(a: Asked) -> Check:
    used = abs(a.pct_per_month) >= 0.005
    ok = not used or a.change_certain
    says = f"{pct_words(a.pct_per_month, sign=True)} % a month is used." if used else "No market change is used."
    return Check("market_change", "Market change", ok, says + ("" if ok else " Its band reaches across zero."),
                 "" if ok else "Open its evidence in the grid; where it stays uncertain, type 0 or lean on newer sales.")  # fmt: skip


def _sellers(a: Asked) -> Check:
    by: dict[str, list[str]] = {}
    for c in a.comps:
        if seller := a.sellers.get(c.listing_id):
            by.setdefault(seller.casefold(), []).append(c.listing_id)
    same = [homes for homes in by.values() if len(homes) > 1]
    hit = tuple(h for homes in same for h in homes)
    return Check("seller", "One seller for several", not same,
                 f"{len(hit)} comps come from {len(same)} {'seller' if len(same) == 1 else 'sellers'}." if same
                 else f"No seller stands twice ({len(a.sellers)} of {len(a.comps)} are known).",
                 "One seller's prices are one opinion: keep one of them." if same else "", hit)  # fmt: skip


def _inside(a: Asked) -> Check | None:
    if a.value is None or not a.adjusted:
        return None
    low, high = min(x.adjusted_price for x in a.adjusted), max(x.adjusted_price for x in a.adjusted)
    ok = low <= a.value <= high
    return Check("inside", "Value inside the comps", ok,
                 f"{dollars(a.value)} lies {'within' if ok else 'outside'} the adjusted {dollars(low)} to {dollars(high)}.",
                 "" if ok else "Look at weights set by hand, at typed cells, and at how far the model lies from the comps.")  # fmt: skip


def _spread(a: Asked) -> Check | None:
    if len(a.adjusted) < ENOUGH_SALES:
        return None
    before, after = ([getattr(x, of) for x in a.adjusted] for of in ("close_price", "adjusted_price"))
    ok = bool(np.std(after) <= np.std(before))
    return Check("spread", "Spread of the adjusted prices", ok,
                 "The adjusted prices lie nearer together than the prices themselves." if ok
                 else "The adjusted prices lie further apart than the prices themselves.",
                 "" if ok else "Look at the largest adjustments again.")  # fmt: skip


def _evidence(a: Asked) -> Check:
    ok = not a.notes
    return Check("evidence", "What the rates stand on", ok, "Sales around here." if ok else " ".join(a.notes),
                 "" if ok else "Open the rates in the grid, and type what you know better.")  # fmt: skip


def _above_all(a: Asked) -> Check | None:
    if not a.list_price:
        return None
    top = max(x.close_price for x in a.adjusted)
    ok = a.list_price <= top
    return Check("list_above_all", "List price against the sales", ok,
                 f"{dollars(a.list_price)} is {'within' if ok else 'above'} what the comps brought (up to {dollars(top)}).",
                 "" if ok else "An appraiser may not follow: show what makes this home worth more than every sale.")  # fmt: skip
