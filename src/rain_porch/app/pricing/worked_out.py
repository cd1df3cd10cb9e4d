"""How a figure of a workup was worked out: its rule in a sentence, and the steps to it with the figures filled in."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from pydantic import Field

from ...core.errors import NotEnough, NotFound
from ...core.facts.fields import line_label
from ...core.facts.house_rules import RULES
from ...core.facts.money import dollars, half_up, signed_pct
from ...core.price.grid import Adjusted
from ...core.price.worth import share_words
from ...documents.base import Doc, Worded
from ...store.records.homes import addresses_of
from .ask import Asking, asking
from .opened import Opened, priced, rival_rows
from .pricing import Pricing


class StepDoc(Doc):
    """what: of which part; figures: its formula, with the figures in it."""

    what: Worded
    figures: Worded


class HouseRuleShown(Doc):
    """One of the house's rules by which a figure was worked out."""

    label: str
    value: float
    unit: str


class WorkedDoc(Doc):
    """rule: in a sentence. result: as it is shown. house_rules: those that bear on it. more: where the page tells more of it."""

    title: Worded
    rule: Worded
    steps: list[StepDoc]
    result: Worded
    house_rules: list[HouseRuleShown] = Field(default_factory=list)
    more: Worded = ""


@dataclass(frozen=True)
class _Asked:
    """What a figure is worked out from. of: the comp's number, where the figure is one of a comp."""

    opened: Opened
    pricing: Pricing
    of: str
    list_price: float | None
    addresses: Mapping[str, str]

    @property
    def comp(self) -> int:
        """The comp's place. NotFound for none of those that are priced."""
        for i, a in enumerate(self.pricing.adjusted):
            if a.listing_id == self.of:
                return i
        raise NotFound(f"{self.of or 'That home'} is none of the comps: keep it first.", of=self.of)

    @property
    def value(self) -> float:
        if self.pricing.value is None:
            raise NotEnough("There is no indicated value yet: keep some comps first.")
        return self.pricing.value

    def rules(self, *names: str) -> list[HouseRuleShown]:
        rules = self.opened.standpoint.rules
        return [HouseRuleShown(label=RULES[n].label, value=rules[n], unit=RULES[n].unit) for n in names]


def worked_out(opened: Opened, figure: str, of: str = "", list_price: float | None = None) -> WorkedDoc:
    """One of FIGURES. of: the comp, for those that are a comp's. list_price: for a chance; the workup's own, else the indicated
    value where none is given. Raises NotFound for another figure or comp, NotEnough where there is no such figure yet."""
    make = FIGURES.get(figure)
    if make is None:
        raise NotFound(f"“{figure}” is no figure of a workup: ask for one of {', '.join(FIGURES)}.", figure=figure)
    pricing = priced(opened)
    named = addresses_of(opened.standpoint.records.db, [c.listing_id for c in pricing.adjusted])
    return make(_Asked(opened, pricing, of, list_price, named))


def _indicated(a: _Asked) -> WorkedDoc:
    p, value = a.pricing, a.value
    steps = [
        StepDoc(what=_named(a, c), figures=f"{100 * w:.1f} % × {dollars(c.adjusted_price)} = {dollars(w * c.adjusted_price)}")
        for c, w in zip(p.adjusted, p.weights, strict=True)
    ]  # fmt: skip
    if p.voice:
        said = p.voice.weight * p.voice.value
        steps.append(StepDoc(what="The model", figures=f"{100 * p.voice.weight:.1f} % × {dollars(p.voice.value)} = {dollars(said)}"))  # fmt: skip
    for x in p.apart:
        steps.append(StepDoc(what=f"{line_label(x.field)}, once for all", figures=_signed(x.amount or 0.0)))  # fmt: skip
    steps.append(
        StepDoc(what="Together", figures=f"{value:,.2f}, to the nearest {p.rounding:,} = {dollars(p.shown or 0.0)}")
    )
    return WorkedDoc(
        title="Indicated value",
        rule="The mean of the comps' adjusted prices and of the model's value, each by its weight; what is equal for all comps is added once.",
        steps=steps,
        result=f"${dollars(p.shown or 0.0)}",
        house_rules=a.rules("price.rounding"),
        more="Why each weighs what it does: press its likeness at the grid's foot.",
    )


def _range(a: _Asked) -> WorkedDoc:
    p, value, span, width = a.pricing, a.value, a.pricing.range, a.pricing.width
    assert span is not None and width is not None  # there is a value
    half, share = width.fit * width.times, share_words(span.coverage)
    steps = [StepDoc(what="By the fit", figures=f"±{_pct(width.fit)} for a home like this one, from these comps")]
    steps += [StepDoc(what="It is wider", figures=f"× {c.factor:.2f} already in it: {c.says}") for c in p.range_causes]
    if span.measured:
        words = f"× {width.times:.2f}: so wide it had to be for {share} past sales around here to fall inside"
    else:
        words = f"× {width.times:.2f}: not yet tested on past sales here; so wide it would be if errors were normal"
    steps.append(StepDoc(what="By past sales", figures=f"{words}; ±{_pct(half)}"))
    for what, sign, end in (("Low", -1, span.low), ("High", 1, span.high)):
        figures = f"{dollars(value)} {'×' if sign > 0 else '÷'} {math.exp(half):.4f}, to the nearest {p.rounding:,} = {dollars(end)}"
        steps.append(StepDoc(what=what, figures=figures))
    return WorkedDoc(
        title="Likely range",
        rule=f"As wide as it takes for {share} homes to sell within it when the same method is tried on past sales around here.",
        steps=steps,
        result=f"${dollars(span.low)} to ${dollars(span.high)}",
        house_rules=a.rules("price.range_pct", "price.rounding"),
        more="The test itself: Worth, How close would this have been?",
    )


def _chance(a: _Asked) -> WorkedDoc:
    told, price = _asking(a)
    here = told.here
    if here is None or here.chances is None or told.position is None:
        raise NotEnough("Too few homes were offered so far from their worth around here to say what a price would do.")
    soon = here.within(30) or here.chances[0]
    steps = [
        StepDoc(what="Against the value", figures=f"{dollars(price)} ÷ {dollars(price / told.position)} = {told.position:.3f}"),
        StepDoc(what="Learnt from", figures=f"{told.learnt:,} homes offered around here in three years, about {told.near:,} of them so far from their worth"),
        *(
            StepDoc(what=f"Within {c.days} days", figures=f"{c.pct} %; four times in five between {c.low_pct} and {c.high_pct} %")
            for c in here.chances
        ),
    ]  # fmt: skip
    if told.failed is not None:
        steps.append(
            StepDoc(
                what="Of those so far from it", figures=f"{100 * told.failed:.0f} % failed in the end, without a buyer"
            )
        )
    return WorkedDoc(
        title=f"Chance of a contract at ${dollars(price)}",
        rule="How fast homes around here found a buyer by how far they were listed from their worth; those still unsold count as unsold so far, "
        "and what the value may be off by is averaged over.",
        steps=steps,
        result=f"{soon.pct} % within {soon.days} days",
        more="The curve and the table: Worth, The ask.",
    )  # fmt: skip


def _asking(a: _Asked) -> tuple[Asking, float]:
    price = a.list_price or a.opened.state.list_price or a.pricing.shown
    if not price:
        raise NotEnough("There is no price to tell the chance of: keep some comps, or set a list price.")
    search = a.opened.state.search.search()
    return asking(a.opened.standpoint, a.pricing, search, rival_rows(a.opened), float(price)), float(price)


def _adjusted(a: _Asked) -> WorkedDoc:
    comp = a.pricing.adjusted[a.comp]
    steps = [StepDoc(what="Sold for", figures=dollars(comp.close_price)), *_lines(comp)]
    shown = dollars(comp.adjusted_price)
    steps.append(StepDoc(what="Adjusted", figures=f"{dollars(comp.close_price)} {_signed(comp.net)} = {shown}"))
    return WorkedDoc(
        title=f"Adjusted price of {_named(a, comp)}",
        rule="What it sold for, less where it is better than this home, more where it is less; each line is a difference times its rate.",
        steps=steps,
        result=f"${shown}",
        more="A rate: press its line's name in the grid.",
    )


def _net_gross(a: _Asked) -> WorkedDoc:
    comp = a.pricing.adjusted[a.comp]
    sold = dollars(comp.close_price)
    steps = [
        *_lines(comp),
        StepDoc(what="Net", figures=f"the lines added up, {_signed(comp.net)} ÷ {sold} = {signed_pct(comp.net_pct)}"),
        StepDoc(what="Gross", figures=f"the same without their signs, {dollars(comp.gross)} ÷ {sold} = {comp.gross_pct:.1f} %"),
        *(StepDoc(what="Beyond a limit", figures=words) for words in comp.over_limits),
    ]  # fmt: skip
    return WorkedDoc(
        title=f"Net and gross adjustment of {_named(a, comp)}",
        rule="The sum of its adjustments with, and without, regard to their signs, as a share of what it sold for.",
        steps=steps,
        result=f"{signed_pct(comp.net_pct)} · {comp.gross_pct:.1f} %",
        house_rules=a.rules("review.line_pct", "review.net_pct", "review.gross_pct"),
    )


def _lines(comp: Adjusted) -> Sequence[StepDoc]:
    return [
        StepDoc(what=line_label(x.field), figures=x.formula or _signed(x.amount))
        for x in comp.lines
        if x.amount and not x.apart
    ]


def _named(a: _Asked, comp: Adjusted) -> str:
    return a.addresses.get(comp.listing_id) or comp.listing_id


def _signed(amount: float) -> str:
    return f"{'−' if amount < 0 else '+'} {dollars(abs(half_up(amount)))}"


def _pct(log: float) -> str:
    return f"{100 * math.expm1(log):.1f} %"


FIGURES: Mapping[str, Callable[[_Asked], WorkedDoc]] = {
    "indicated_value": _indicated, "range": _range, "chance": _chance, "adjusted_price": _adjusted, "net_gross": _net_gross,
}  # fmt: skip
