"""Pages for the client's hand: the drive past the comps, price per square foot against size, the housing around."""

from __future__ import annotations

from typing import Any

import numpy as np

from ...core.facts.local_form import Quantity
from ...core.phrases import phrase, phrases_of, sentence_case
from ...core.statistics.summary import summarise
from ..blocks import Nothing, figures, heading, page, para, picture, table
from ..model import ReportInput
from ..pictures.maps import map_svg
from ..pictures.size import size_svg
from ..speaking import SOLD

LEAST = 5  # sales through which a curve is drawn


def tour_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Past the comps in a good order, turn by turn."""
    tour = given.tour
    if not given.comps:
        return Nothing(phrase("tour-none"))
    if not tour or not tour["legs"]:
        return Nothing(phrase("tour-no-streets"))
    stops = []
    for n, leg in enumerate(tour["legs"], 1):
        stops.append([f"{n}", leg["name"], "; ".join(leg["lines"][:-1]), Quantity(leg["miles"], "miles", 1)])
    drawn = map_svg(
        given.subject, (), given.comps, given.base_map, {}, given.width, 300, [leg["path"] for leg in tour["legs"]]
    )
    left = list(tour["left"])
    return page(
        "tour", phrase("tour-title"),
        picture(drawn, phrase("tour-alt"), phrase("tour-key")),
        table(phrases_of("", "tour-to", "tour-how", "head-miles"), stops, words=3, widths=(0.3, 1.5, 4, 0.5)),
        para(phrase("tour-left", left=", ".join(left)), small=True) if left else None,
        lead=phrase("tour-lead", n=len(stops), miles=f"{tour['miles']:.1f}", home=given.title),
    )  # fmt: skip


def size_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """Price per square foot against size: why a small home's figure says little of a large one."""
    sold = [c for c in given.chosen if c["kind"] in SOLD]
    numbers = {c["listing_id"] for c in sold}
    sales = [*sold, *(c for c in given.around if c["kind"] in SOLD and c["listing_id"] not in numbers)]
    known = [c for c in sales if c["price_per_sqft"] and c["facts"].get("living_area")]
    if len(known) < LEAST:
        return Nothing(phrase("size-too-few", n=LEAST))
    area = [float(c["facts"]["living_area"]) for c in known]
    per = [float(c["price_per_sqft"]) for c in known]
    mine = given.subject["facts"].get("living_area")
    slope, base = (float(v) for v in np.polyfit(np.log(area), np.log(per), 1))
    sizes = given.brand.form.sizes
    said = para(phrase("size-smaller-higher" if slope < -0.05 else "size-hardly-changes", sizes=sizes))

    def curve(size: float) -> float:
        return float(np.exp(base + slope * np.log(size)))

    here = curve(mine) if mine else None
    middle = summarise(per).median or 0
    likely = [(phrase("size-at-this"), Quantity(here, "$/sq ft", signed=True), "moss")] if here else []
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
    of_all = (phrase("size-median", n=len(known)), Quantity(middle, "$/sq ft", signed=True), "slate")
    return page(
        "size", phrase("size-title", sizes=sizes), figures([*likely, of_all]), said,
        picture(drawn, phrase("size-alt", n=len(known), sizes=sizes), phrase("size-key")),
    )  # fmt: skip


def housing_page(given: ReportInput) -> dict[str, Any] | Nothing:
    """The housing around: kinds, ages, sizes, lots, turnover, taxes, dues. Nothing of who lives there."""
    told = given.housing
    if not told or not told["homes"]:
        return Nothing(phrase("housing-none"))
    rows = [
        [name, f"{s['count']:,}", s["low"], s["median"], s["high"]]
        for name, s in told["figures"].items()
    ]  # fmt: skip
    kinds = [
        [sentence_case(phrase(f"one-kind-{k}")), f"{n:,}", f"{100 * n / told['homes']:.0f} %"]
        for k, n in told["kinds"].items()
    ]
    return page(
        "housing", phrase("housing-title"),
        table(phrases_of("housing-kind", "head-homes", "housing-share"), kinds, widths=(2, 1, 1), share=0.6),
        heading(phrase("housing-ages")),
        table(phrases_of("", "head-homes", "housing-lower-tenth", "head-median", "housing-upper-tenth"), rows, widths=(2, 1, 1, 1, 1)),
        para(told["turnover"]),
        lead=phrase("housing-lead", n=told["homes"], place=told["place"]),
        flow=True,
    )  # fmt: skip
