"""What some pages need beyond the price: the drive past the comps, and the housing around a home."""

from __future__ import annotations

from collections import Counter
from typing import Any

import numpy as np

from ...core.facts.fields import BY_NAME
from ...core.facts.homes import Candidate, Subject
from ...core.facts.local_form import Quantity
from ...core.facts.places.place import miles
from ...core.market.columns import SOLD
from ...core.phrases import phrase
from ...store.records.homes import parcels_within
from ..pricing.find_document import candidate_docs
from ..pricing.standpoint import Standpoint
from ..snapshot import Snapshot

HOUSING = ("year_built", "living_area", "lot_size_square_feet", "tax_annual_amount")


def tour(standpoint: Standpoint, comps: list[Candidate]) -> dict[str, Any]:
    """The drive past the comps from the home, over the streets of the records."""
    from ...standins.routing import Network, Stop

    network: Network = standpoint.records.remember(
        "streets", lambda: Network(standpoint.records.base_map()["features"])
    )
    subject = standpoint.subject
    start = Stop(subject.address or phrase("tour-the-home"), subject.longitude, subject.latitude)
    placed = [
        (i, c)
        for i, c in enumerate(candidate_docs(standpoint, comps), 1)
        if c.latitude is not None and c.longitude is not None
    ]
    stops = [Stop(c.address or c.listing_id, float(c.longitude or 0), float(c.latitude or 0)) for _, c in placed]
    legs, left = network.tour(start, stops)
    names = [f"{i}. {s.name}" for (i, _), s in zip(placed, stops, strict=True)]
    return {
        "legs": [{"name": names[leg.to], "miles": leg.miles, "lines": list(leg.lines), "path": [list(p) for p in leg.path]} for leg in legs],
        "miles": sum(leg.miles for leg in legs),
        "left": [names[i] for i in left],
    }  # fmt: skip


def _shown(field: str, value: float) -> str:
    if BY_NAME[field].unit == "sq ft":
        return Quantity(value, "sq ft")
    return f"{value:.0f}" if field == "year_built" else f"{value:,.0f}"


def housing(records: Snapshot, subject: Subject, radius_miles: float, day: int) -> dict[str, Any]:
    """Kinds, ages, sizes, lots and taxes of the homes on the tax roll within a radius; how many sold in a year."""
    rows = parcels_within(records.db, subject.latitude, subject.longitude, radius_miles, HOUSING)
    lats, lons = (np.array([r[k] for r in rows], dtype=float) for k in ("latitude", "longitude"))
    inside = miles(subject.latitude, subject.longitude, lats, lons) <= radius_miles if rows else np.zeros(0, dtype=bool)
    homes = [r for r, there in zip(rows, inside, strict=True) if there]
    figures = {}
    for field in HOUSING:
        known = np.array([r[field] for r in homes if r[field] is not None])
        if known.size >= 5:
            low, median, high = np.percentile(known, [10, 50, 90])
            figures[phrase(f"housing-{field}")] = {
                "count": int(known.size),
                **{k: _shown(field, float(v)) for k, v in (("low", low), ("median", median), ("high", high))},
            }
    columns, view = records.columns, records.columns.as_of(day)
    sold = view.rows_since(SOLD, day - 365)
    near = miles(subject.latitude, subject.longitude, columns.lats[sold], columns.lons[sold]) <= radius_miles
    n = int(near.sum())
    turnover = ""
    if homes and n:
        turnover = phrase("housing-turnover-one-in", n=n, share=f"{len(homes) / n:.0f}")
    elif homes:
        turnover = phrase("housing-turnover", n=n)
    kinds = Counter(r["home_kind"] for r in homes)
    return {
        "homes": len(homes), "place": phrase("housing-place", miles=f"{radius_miles:g}"), "kinds": dict(kinds.most_common()), "figures": figures,
        "turnover": turnover,
    }  # fmt: skip
