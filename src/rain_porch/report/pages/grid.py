"""What each difference is worth: the sales brought to this home line by line, the rates in words, the ways to the number."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ...core.facts.fields import BY_NAME
from ...core.facts.local_form import LocalForm, Quantity
from ...core.facts.money import (
    adding_up,
    dollars,
    half_up,
    pct_words,
    priced,
    rate_rounded,
    rate_words,
    signed,
    signed_pct,
)
from ...core.phrases import joined, phrase
from ..blocks import Block, Nothing, columns, head_of_column, heading, line_of, listed, matrix, page, para, picture
from ..model import ReportInput
from ..pictures.dots import dots_svg
from ..pictures.maps import map_svg
from ..wording import amount, label
from .chosen import PER_BLOCK

# whose rates are said in words: what one of each is has a phrase of its own
SAID_OF = (
    "living_area", "below_grade_finished_area", "lot_size_square_feet", "year_built", "bedrooms_total", "bathrooms_full",
    "bathrooms_half", "garage_spaces", "fireplaces_total", "pool_private_yn", "waterfront_yn", "condition_grade", "year_remodelled",
)  # fmt: skip
LEAST_PCT = 1.0  # of a place that is worth a sentence


def grid_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Adjustments line by line, six sales to a block, with rates, net and gross, and what each sale then says.

    Where the price is not shown, what is adjusted and what it comes to are left out.
    """
    price, shown = given.price, given.paper.price == "shown"
    comps = price["comps"]
    if not comps:
        return Nothing(phrase("grid-none"))
    rates = {r["field"]: r for r in price["rates"]}
    lines = [_whole_lines(given, i) for i in range(len(comps))]
    model = price.get("model")
    whole = 100.0 - (100 * model["weight"] if model else 0.0)
    weights = adding_up([100 * c["weight"] for c in comps], whole, 0.1)
    blocks: list[Block | None] = []
    for first in range(0, len(comps), PER_BLOCK):
        part = comps[first : first + PER_BLOCK]
        mine = lines[first : first + PER_BLOCK]
        rows = [line_of([phrase("line-sold-for"), "", *(dollars(c["close_price"]) for c in part)])]
        for name in [n for n in given.grid[first]["lines"] if any(m.get(n) for m in mine)]:
            rows.append(
                line_of(
                    [label(name), _rate(name, rates, price), *(signed(m[name]) if m.get(name) else "" for m in mine)]
                )
            )
        if shown:
            rows += [
                line_of(
                    [phrase("line-as-this-home"), "", *(dollars(c["adjusted_price"]) for c in part)],
                    strong=True,
                    line=True,
                ),
                line_of([phrase("grid-net"), "", *(signed_pct(c["net_pct"]) for c in part)]),
                line_of([phrase("grid-gross"), "", *(f"{c['gross_pct']:.1f} %" for c in part)]),
                line_of([phrase("grid-weight"), "", *(f"{w:.1f} %" for w in weights[first : first + PER_BLOCK])]),
            ]
        heads = [
            head_of_column(first + i, c["address"] or c["listing_id"], given.front_of(c["listing_id"]))
            for i, c in enumerate(part, 1)
        ]
        blocks.append(matrix(heads, rows, PER_BLOCK, over=phrase("grid-a-unit")))
    apart = (
        [phrase("grid-apart-line", label=a["label"], amount=amount(a["amount"])) for a in price["apart"]]
        if shown
        else []
    )
    value = price["indicated_value"]
    return page(
        "grid", phrase("grid-title"), *blocks,
        para(_model_says(model)) if shown and model and model["weight"] else None,
        para(phrase("grid-apart", lines=", ".join(apart))) if apart else None,
        para(phrase("grid-net-and-gross"), small=True) if shown else None,
        lead=joined(phrase("grid-lead"), phrase("grid-together", value=priced(value)) if shown and value else ""),
    )  # fmt: skip


def _model_says(model: Mapping[str, float]) -> str:
    return phrase("grid-model", value=priced(model["value"]), pct=f"{100 * model['weight']:.1f}")


def rates_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """What each sale says of the home as a picture, and what the differences are worth in words; under the grid where there is room."""
    price, shown = given.price, given.paper.price == "shown"
    comps, value = price["comps"], price["indicated_value"]
    if not comps:
        return Nothing(phrase("grid-none"))
    told = in_words(given)
    where = _where(given) if "location" in {n for g in given.grid for n, v in g["lines"].items() if v} else None
    drawn = dots_svg(comps, value, price["range"], given.width) if shown and value else ""
    if not drawn and not told:
        return Nothing(phrase("rates-none"))
    words = columns([[listed(told)], [where]], (350, 166)) if where else listed(told)
    return page(
        "rates", phrase("rates-title" if drawn else "rates-title-in-words"),
        picture(drawn, phrase("rates-alt", n=len(comps), value=priced(value)), phrase("rates-key")) if drawn else None,
        heading(phrase("rates-in-words")) if told and drawn else None,
        words if told else None,
        flow=True,
    )  # fmt: skip


def _whole_lines(given: ReportInput, i: int) -> dict[str, float]:
    """The lines of one sale in whole dollars, which with what was paid add up to its adjusted price as printed."""
    comp, lines = given.price["comps"][i], given.grid[i]["lines"]
    total = half_up(comp["adjusted_price"]) - half_up(comp["close_price"])
    return dict(zip(lines, adding_up(list(lines.values()), total), strict=True))


def _rate(name: str, rates: Mapping[str, Any], price: Mapping[str, Any]) -> str:
    if name == "market_change":
        return phrase("grid-a-month", pct=pct_words(price["market_change"]["pct_per_month"], sign=True))
    return _rate_shown(rates[name]["dollars"], name) if name in rates else ""


def _rate_shown(dollars_a_unit: float, name: str) -> str:
    words = rate_words(dollars_a_unit)
    if name in BY_NAME and BY_NAME[name].unit == "sq ft" and dollars_a_unit >= 0:
        return Quantity(dollars_a_unit, "$/sq ft", len(words.partition(".")[2]), signed=True)
    return f"${words}".replace("$−", "−$")


def _one_of(field: str, form: LocalForm) -> str:
    return phrase(f"one-{field}", sizes=form.sizes)


def _rate_in(rate: Mapping[str, Any], form: LocalForm) -> str:
    """What one of it is worth, in dollars as `told` reads them: a rate for a square foot as one for what it is told in."""
    value = form.measured(rate["dollars"], f"$/{BY_NAME[rate['field']].unit}" if rate["field"] in BY_NAME else "")
    return rate_words(rate["dollars"] if value == rate["dollars"] else rate_rounded(value))


def in_words(given: ReportInput) -> list[str]:
    """What the rates are, and what the places are worth, as sentences; those that move a price here."""
    used = {n for g in given.grid for n, v in g["lines"].items() if v}
    out = [_location(given)] if "location" in used else []
    for r in given.price["rates"]:
        if r["field"] not in used or r["field"] not in SAID_OF or not r["dollars"]:
            continue
        judged = r["source"] == "typed" or not r["sales"]
        how = "as-judged" if judged else "unsure" if r["weak"] else "from-sales"
        one, rate = _one_of(r["field"], given.brand.form), _rate_in(r, given.brand.form)
        out.append(phrase(f"rates-worth-{how}", one=one, amount=rate, sales=r["sales"] or 0))
    change = given.price["market_change"]
    if "market_change" in used and change["pct_per_month"]:
        way = "rose" if change["pct_per_month"] > 0 else "fell"
        out.append(phrase(f"rates-prices-{way}", pct=pct_words(abs(change["pct_per_month"])), n=change["sales"]))
    return [s for s in out if s]


def _elsewhere(given: ReportInput) -> tuple[float, int] | None:
    """(percent, its place in the grid) of the sale whose spot differs most in what it is worth; None where none differs much."""
    places = [(g["facts"].get("location") or 0.0, i) for i, g in enumerate(given.grid)]
    pct, i = max(places, key=lambda p: abs(p[0]))
    return (pct, i) if abs(pct) >= LEAST_PCT else None


def _location(given: ReportInput) -> str:
    found = _elsewhere(given)
    if found is None:
        return ""
    pct, i = found
    name = given.price["comps"][i]["address"] or given.price["comps"][i]["listing_id"]
    return phrase(f"rates-location-{'above' if pct > 0 else 'below'}", home=name, pct=f"{abs(pct):.0f}")


def _where(given: ReportInput) -> Block | None:
    """A small map of this home and of that sale."""
    found = _elsewhere(given)
    if found is None or found[1] >= len(given.comps) or given.comps[found[1]]["latitude"] is None:
        return None
    i = found[1]
    drawn = map_svg(given.subject, (), [given.comps[i]], given.base_map, {}, 166, 130, numbers=[i + 1])
    return picture(drawn, phrase("rates-map-alt"), phrase("rates-map-key", number=str(i + 1)))
