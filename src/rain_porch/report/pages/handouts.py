"""Pages for the client's hand: a sheet a comp, the drive past them, price per square foot against size, the housing around."""

from __future__ import annotations

from typing import Any

import numpy as np

from ...core.facts.money import dollars, priced
from ...core.statistics.summary import summarise
from ..blocks import figures, heading, note, page, para, picture, table
from ..model import ReportInput
from ..pictures import ink
from ..pictures.maps import map_svg
from ..pictures.plot import Plot
from ..wording import amount, day, distance, fact, label

SHEET_FACTS = ("living_area", "below_grade_finished_area", "bedrooms_total", "bathrooms", "garage_spaces", "lot_size_square_feet",
               "year_built", "stories", "architectural_style", "property_condition", "fireplaces_total", "heating", "cooling")  # fmt: skip


def comp_sheets(given: ReportInput) -> list[dict[str, Any]]:
    """A sheet for each comp: its picture, it beside the subject, what differs, and how its price was brought to the subject."""
    if not given.comps:
        return [page("sheets", "A sheet a comp", note("No comps are kept yet. Keep some sales in Comps."))]
    worth = {c["listing_id"]: c for c in given.price["comps"]}
    lines = {g["listing_id"]: g["lines"] for g in given.grid}
    return [
        _sheet(given, i, c, worth.get(c["listing_id"]), lines.get(c["listing_id"], {}))
        for i, c in enumerate(given.comps, 1)
    ]


def _sheet(given: ReportInput, number: int, comp: Any, worth: Any, lines: Any) -> dict[str, Any]:
    mine, theirs = given.subject["facts"], comp["facts"]
    front = given.pictures.get(comp["listing_id"]) if given.paper.pictures else None
    rows = [
        [label(n), a, b]
        for n in SHEET_FACTS
        if (a := fact(theirs, n)) != "—" or fact(mine, n) != "—"
        for b in [fact(mine, n)]
    ]
    shown = given.paper.price == "shown" and worth is not None
    steps = [["Close price", dollars(comp["price"])]]
    steps += [[label(n), amount(v)] for n, v in lines.items() if v]
    if worth is not None:
        steps.append(["Adjusted to this home", dollars(worth["adjusted_price"])])
    per = f"{comp['price_per_sqft']:,.2f} per sq ft" if comp["price_per_sqft"] else ""
    days = "" if comp["days_on_market"] is None else f"{comp['days_on_market']} days on the market"
    return page(
        f"sheet {number}", f"{number}. {comp['address'] or comp['listing_id']}",
        picture(front, f"Front of {comp['address']}", width=0.58) if front else None,
        para(", ".join(comp["differences"]).capitalize() + "." if comp["differences"] else "Much like this home."),
        table(["", "this sale", given.title], rows, widths=(1.4, 1, 1)),
        heading("Brought to this home") if shown else None,
        table(["", ""], steps, widths=(2, 1), last=True) if shown else None,
        lead=" · ".join(x for x in (f"Sold {day(comp['date'])} for {priced(comp['price'])}", per, days,
                                    comp["distance_miles"] is not None and f"{distance(comp['distance_miles'])} mi away") if x),
    )  # fmt: skip


def tour_page(given: ReportInput) -> dict[str, Any]:
    """Past the comps in a good order, turn by turn."""
    tour = given.tour
    title = "A drive past the comps"
    if not given.comps:
        return page("tour", title, note("No comps are kept yet. Keep some sales in Comps."))
    if not tour or not tour["legs"]:
        return page(
            "tour",
            title,
            note("The records hold no streets that reach these homes: bring in a file of areas with streets."),
        )
    stops = []
    for n, leg in enumerate(tour["legs"], 1):
        stops.append([f"{n}", leg["name"], "; ".join(leg["lines"][:-1]), f"{leg['miles']:.1f}"])
    drawn = map_svg(given.subject, (), given.comps, given.base_map, {}, 520, 300, [leg["path"] for leg in tour["legs"]])
    left = list(tour["left"])
    return page(
        "tour", title,
        picture(drawn, "Map of the drive", "The house is where it begins; numbers are those of the comps' pages."),
        table(["", "To", "How", "miles"], stops, words=3, widths=(0.3, 1.5, 4, 0.5)),
        para(f"Not reached by a street of the records: {', '.join(left)}.", small=True) if left else None,
        lead=f"{len(stops)} homes, {tour['miles']:.1f} miles, starting at {given.title}.",
    )  # fmt: skip


def size_page(given: ReportInput) -> dict[str, Any]:
    """Price per square foot against size: why a small home's figure says little of a large one."""
    sales = {c["listing_id"]: c for c in (*given.around, *given.comps) if c["kind"] in ("sold", "deed_sale")}
    known = [c for c in sales.values() if c["price_per_sqft"] and c["facts"].get("living_area")]
    title = "Price per square foot, and size"
    if len(known) < 5:
        return page(
            "size", title, note("Fewer than five sales with a known size were found: too few to draw."), flow=True
        )
    kept = {c["listing_id"]: i for i, c in enumerate(given.comps, 1)}
    area = [float(c["facts"]["living_area"]) for c in known]
    per = [float(c["price_per_sqft"]) for c in known]
    mine = given.subject["facts"].get("living_area")
    slope, base = np.polyfit(np.log(area), np.log(per), 1)
    said = para(
        "The larger a home, the less each further square foot adds: small homes show higher figures. "
        "So an average per square foot fits only homes of about the average size."
        if slope < -0.05
        else "Here the price per square foot hardly changes with size."
    )
    likely = None
    if mine:
        here = float(np.exp(base + slope * np.log(mine)))
        s = summarise(per)
        likely = figures(
            [
                ("At this home's size", f"${here:,.0f} per sq ft", "moss"),
                ("Median of these sales", f"${s.median or 0:,.0f}", "slate"),
            ]
        )
    drawn = _scatter(area, per, [kept.get(c["listing_id"]) for c in known], mine, (float(slope), float(base)))
    return page("size", title, said, likely, picture(drawn, f"{len(known)} sales by size and price per square foot",
                "Numbered: comps. Discs: other sales. The line is the curve through them; the house marks this home's size."))  # fmt: skip


def _scatter(
    area: list[float], per: list[float], numbers: list[int | None], mine: float | None, curve: tuple[float, float]
) -> str:
    plot = Plot([*area, *([mine] if mine else [])], per)
    lo_x, hi_x = min(plot.xs), max(plot.xs)
    body = plot.frame("sq ft")
    slope, base = curve
    line = [plot.at(float(x), float(np.exp(base + slope * np.log(x)))) for x in np.linspace(lo_x, hi_x, 40)]
    body.append(
        f'<path d="M{"L".join(f"{x:.1f} {y:.1f}" for x, y in line)}" fill="none" stroke="{ink.MOSS}" stroke-width="1.4"/>'
    )
    for x, y, n in sorted(zip(area, per, numbers, strict=True), key=lambda v: v[2] is not None):
        px, py = plot.at(x, y)
        if n is None:
            body.append(ink.mark("sold", px, py, 2.8))
        else:
            body += [
                ink.mark("sold", px, py, 6.2, ink.SLATE, ring=True),
                ink.text(px, py + 2.8, str(n), 7.5, ink.PAPER, weight=600),
            ]
    if mine:
        px, py = plot.at(mine, float(np.exp(base + slope * np.log(mine))))
        body.append(ink.house(px, py, 6))
    return ink.svg(plot.width, plot.height, body)


def housing_page(given: ReportInput) -> dict[str, Any]:
    """The housing around: kinds, ages, sizes, lots, turnover, taxes, dues. Nothing of who lives there."""
    told = given.housing
    title = "The housing around"
    if not told or not told["homes"]:
        return page("housing", title, note("The tax roll of the records holds no homes around here."), flow=True)
    rows = [
        [name, f"{s['count']:,}", s["low"], s["median"], s["high"]]
        for name, s in told["figures"].items()
    ]  # fmt: skip
    kinds = [
        [k.replace("_", " ").capitalize(), f"{n:,}", f"{100 * n / told['homes']:.0f} %"]
        for k, n in told["kinds"].items()
    ]
    return page(
        "housing", title,
        table(["Kind", "homes", "share"], kinds, widths=(2, 1, 1)),
        heading("Ages, sizes, costs"),
        table(["", "homes", "lower tenth", "median", "upper tenth"], rows, widths=(2, 1, 1, 1, 1)),
        para(told["turnover"]),
        lead=f"{told['homes']:,} homes {told['place']}, by the tax roll.",
        flow=True,
    )  # fmt: skip
