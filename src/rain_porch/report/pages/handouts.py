"""Pages for the client's hand: the drive past the comps, price per square foot against size, the housing around."""

from __future__ import annotations

from typing import Any

import numpy as np

from ...core.facts.local_form import Quantity
from ...core.statistics.summary import summarise
from ..blocks import Nothing, figures, heading, page, para, picture, table
from ..model import ReportInput
from ..pictures.maps import map_svg
from ..pictures.size import size_svg
from ..speaking import SOLD
from ..wording import many

LEAST = 5  # sales through which a curve is drawn


def tour_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Past the comps in a good order, turn by turn."""
    tour = given.tour
    title = "A drive past the comps"
    if not given.comps:
        return Nothing("No sale is kept yet, so there is nowhere to drive: keep some in Comps.")
    if not tour or not tour["legs"]:
        return Nothing("The records hold no streets that reach these homes: bring in a file of areas with streets.")
    stops = []
    for n, leg in enumerate(tour["legs"], 1):
        stops.append([f"{n}", leg["name"], "; ".join(leg["lines"][:-1]), Quantity(leg["miles"], "miles", 1)])
    drawn = map_svg(
        given.subject, (), given.comps, given.base_map, {}, given.width, 300, [leg["path"] for leg in tour["legs"]]
    )
    left = list(tour["left"])
    return page(
        "tour", title,
        picture(drawn, "Map of the drive", "The house is where it begins; numbers are those of the comps' pages."),
        table(["", "To", "How", "miles"], stops, words=3, widths=(0.3, 1.5, 4, 0.5)),
        para(f"Not reached by a street of the records: {', '.join(left)}.", small=True) if left else None,
        lead=f"{many(len(stops), 'home')}, {tour['miles']:.1f} miles, starting at {given.title}.",
    )  # fmt: skip


def size_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Price per square foot against size: why a small home's figure says little of a large one."""
    sold = [c for c in given.chosen if c["kind"] in SOLD]
    numbers = {c["listing_id"] for c in sold}
    sales = [*sold, *(c for c in given.around if c["kind"] in SOLD and c["listing_id"] not in numbers)]
    known = [c for c in sales if c["price_per_sqft"] and c["facts"].get("living_area")]
    if len(known) < LEAST:
        return Nothing(f"Fewer than {LEAST} sales with a known size were found: too few to draw.")
    area = [float(c["facts"]["living_area"]) for c in known]
    per = [float(c["price_per_sqft"]) for c in known]
    mine = given.subject["facts"].get("living_area")
    slope, base = (float(v) for v in np.polyfit(np.log(area), np.log(per), 1))
    foot = "square metre" if given.brand.form.is_metric else "square foot"
    said = para(
        f"The larger a home, the less each further {foot} adds: small homes show higher figures. "
        f"So an average per {foot} fits only homes of about the average size."
        if slope < -0.05
        else f"Here the price per {foot} hardly changes with size."
    )

    def curve(size: float) -> float:
        return float(np.exp(base + slope * np.log(size)))

    here = curve(mine) if mine else None
    middle = summarise(per).median or 0
    likely = [("At this home's size", Quantity(here, "$/sq ft", signed=True), "moss")] if here else []
    drawn = size_svg(
        [(given.number_of(c["listing_id"]), c) for c in known],
        mine,
        here,
        given.width,
        300,
        of="price_per_sqft",
        curve=curve,
        form=given.brand.form,
    )
    middle_shown = Quantity(middle, "$/sq ft", signed=True)
    return page("size", f"Price per {foot}, and size", figures([*likely, (f"Median of {len(known)} sales", middle_shown, "slate")]), said,
                picture(drawn, f"{len(known)} sales by size and price per {foot}",
                        "Numbered: the chosen sales. Discs: the others found. The line is the curve through them; the house stands at this home's size."))  # fmt: skip


def housing_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """The housing around: kinds, ages, sizes, lots, turnover, taxes, dues. Nothing of who lives there."""
    told = given.housing
    title = "The housing around"
    if not told or not told["homes"]:
        return Nothing("The tax roll of the records holds no homes around here.")
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
        table(["Kind", "homes", "share"], kinds, widths=(2, 1, 1), share=0.6),
        heading("Ages, sizes, costs"),
        table(["", "homes", "lower tenth", "median", "upper tenth"], rows, widths=(2, 1, 1, 1, 1)),
        para(told["turnover"]),
        lead=f"{told['homes']:,} homes {told['place']}, by the tax roll.",
        flow=True,
    )  # fmt: skip
