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
from ..blocks import Block, Nothing, columns, head_of_column, heading, line_of, listed, matrix, page, para, picture
from ..model import ReportInput
from ..pictures.dots import dots_svg
from ..pictures.maps import map_svg
from ..wording import amount, label, many
from .chosen import PER_BLOCK

# what one of it is, as a seller says it
ONE_OF = {
    "living_area": "a square foot of living area", "below_grade_finished_area": "a finished square foot below grade",
    "lot_size_square_feet": "a square foot of lot", "year_built": "a year newer", "bedrooms_total": "a bedroom",
    "bathrooms_full": "a full bath", "bathrooms_half": "a half bath", "garage_spaces": "a garage space",
    "fireplaces_total": "a fireplace", "pool_private_yn": "a pool", "waterfront_yn": "standing on the water",
    "condition_grade": "a step of condition", "year_remodelled": "a year since it was last done up",
}  # fmt: skip
NET_AND_GROSS = (
    "Net and gross: the sum of a sale's adjustments with, and without, regard to their signs, as a share of what was paid. "
    "Weight: its share in the indicated value; the more alike, the newer and the less adjusted, the more."
)
LEAST_PCT = 1.0  # of a place that is worth a sentence


def grid_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Adjustments line by line, six sales to a block, with rates, net and gross, and what each sale then says.

    Where the price is not shown, what is adjusted and what it comes to are left out.
    """
    price, shown = given.price, given.paper.price == "shown"
    comps = price["comps"]
    if not comps:
        return Nothing("No sale is kept yet, so there is nothing to adjust: keep some in Comps.")
    rates = {r["field"]: r for r in price["rates"]}
    lines = [_whole_lines(given, i) for i in range(len(comps))]
    model = price.get("model")
    whole = 100.0 - (100 * model["weight"] if model else 0.0)
    weights = adding_up([100 * c["weight"] for c in comps], whole, 0.1)
    blocks: list[Block | None] = []
    for first in range(0, len(comps), PER_BLOCK):
        part = comps[first : first + PER_BLOCK]
        mine = lines[first : first + PER_BLOCK]
        rows = [line_of(["Sold for", "", *(dollars(c["close_price"]) for c in part)])]
        for name in [n for n in given.grid[first]["lines"] if any(m.get(n) for m in mine)]:
            rows.append(
                line_of(
                    [label(name), _rate(name, rates, price), *(signed(m[name]) if m.get(name) else "" for m in mine)]
                )
            )
        if shown:
            rows += [
                line_of(["As this home", "", *(dollars(c["adjusted_price"]) for c in part)], strong=True, line=True),
                line_of(["Net", "", *(signed_pct(c["net_pct"]) for c in part)]),
                line_of(["Gross", "", *(f"{c['gross_pct']:.1f} %" for c in part)]),
                line_of(["Weight", "", *(f"{w:.1f} %" for w in weights[first : first + PER_BLOCK])]),
            ]
        heads = [
            head_of_column(first + i, c["address"] or c["listing_id"], given.front_of(c["listing_id"]))
            for i, c in enumerate(part, 1)
        ]
        blocks.append(matrix(heads, rows, PER_BLOCK, over="a unit"))
    apart = [f"{a['label']} {amount(a['amount'])}" for a in price["apart"]] if shown else []
    value = price["indicated_value"]
    told = f" Weighed together they come to {priced(value)}." if shown and value else ""
    return page(
        "grid", "What each difference is worth", *blocks,
        para(_model_says(model)) if shown and model and model["weight"] else None,
        para(f"Added once, after these are weighed together: {', '.join(apart)}.") if apart else None,
        para(NET_AND_GROSS, small=True) if shown else None,
        lead=f"Plus where the sale lacks something that your home has, minus where it has more.{told}",
    )  # fmt: skip


def _model_says(model: Mapping[str, float]) -> str:
    return (
        f"Beside these sales speaks the model, all sales of homes of this kind around here together: it says {priced(model['value'])} and weighs "
        f"{100 * model['weight']:.1f} %."
    )


def rates_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """What each sale says of the home as a picture, and what the differences are worth in words; under the grid where there is room."""
    price, shown = given.price, given.paper.price == "shown"
    comps, value = price["comps"], price["indicated_value"]
    if not comps:
        return Nothing("No sale is kept yet, so there is nothing to adjust: keep some in Comps.")
    told = in_words(given)
    where = _where(given) if "location" in {n for g in given.grid for n, v in g["lines"].items() if v} else None
    drawn = dots_svg(comps, value, price["range"], given.width) if shown and value else ""
    if not drawn and not told:
        return Nothing("No difference moves a price here, so there is nothing to put in words.")
    words = columns([[listed(told)], [where]], (350, 166)) if where else listed(told)
    return page(
        "rates", "What each sale says of your home" if drawn else "What the differences are worth",
        picture(drawn, f"Adjusted prices of {len(comps)} sales around {priced(value)}",
                "Small dot: what was paid. Numbered: what it comes to for this home. Band: the likely range.") if drawn else None,
        heading("In words") if told and drawn else None,
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
        return f"{pct_words(price['market_change']['pct_per_month'], sign=True)} % / mo"
    return _rate_shown(rates[name]["dollars"], name) if name in rates else ""


def _rate_shown(dollars_a_unit: float, name: str) -> str:
    words = rate_words(dollars_a_unit)
    if name in BY_NAME and BY_NAME[name].unit == "sq ft" and dollars_a_unit >= 0:
        return Quantity(dollars_a_unit, "$/sq ft", len(words.partition(".")[2]), signed=True)
    return f"${words}".replace("$−", "−$")


def _one_of(field: str, form: LocalForm) -> str:
    return (ONE_OF[field].replace("square foot", "square metre") if form.is_metric else ONE_OF[field]).capitalize()


def _rate_in(rate: Mapping[str, Any], form: LocalForm) -> str:
    """What one of it is worth, as `told` reads it: a rate for a square foot as one for what it is told in."""
    value = form.measured(rate["dollars"], f"$/{BY_NAME[rate['field']].unit}" if rate["field"] in BY_NAME else "")
    return f"${rate_words(rate['dollars'] if value == rate['dollars'] else rate_rounded(value))}"


def in_words(given: ReportInput) -> list[str]:
    """What the rates are, and what the places are worth, as sentences; those that move a price here."""
    used = {n for g in given.grid for n, v in g["lines"].items() if v}
    out = [_location(given)] if "location" in used else []
    for r in given.price["rates"]:
        if r["field"] not in used or r["field"] not in ONE_OF or not r["dollars"]:
            continue
        unsure = ", though they leave it uncertain" if r["weak"] else ""
        by = (
            f" (from {many(r['sales'], 'sale')} around here{unsure})"
            if r["sales"] and r["source"] != "typed"
            else " (as your agent judges it)"
        )
        out.append(f"{_one_of(r['field'], given.brand.form)} is worth about {_rate_in(r, given.brand.form)} here{by}.")
    change = given.price["market_change"]
    if "market_change" in used and change["pct_per_month"]:
        way = "rose" if change["pct_per_month"] > 0 else "fell"
        out.append(f"Prices of like homes {way} by {pct_words(abs(change['pct_per_month']))} % a month ({change['sales']:,} sales); each sale is brought forward from the day its price was agreed.")  # fmt: skip
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
    return f"Location: where {name} stands, homes sell about {abs(pct):.0f} % {'above' if pct > 0 else 'below'} this street for the same home."


def _where(given: ReportInput) -> Block | None:
    """A small map of this home and of that sale."""
    found = _elsewhere(given)
    if found is None or found[1] >= len(given.comps) or given.comps[found[1]]["latitude"] is None:
        return None
    i = found[1]
    drawn = map_svg(given.subject, (), [given.comps[i]], given.base_map, {}, 166, 130, numbers=[i + 1])
    return picture(drawn, "Map of this home and the sale whose place differs most", f"Where {i + 1} stands.")
