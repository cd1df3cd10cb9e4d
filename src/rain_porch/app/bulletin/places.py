"""Places of a market beside each other, and what has moved since a bulletin was made last."""

from __future__ import annotations

import datetime as dt

from ...core.facts.dates import add_months
from ...core.market import measures as mk
from ...core.market.bulletin import bulletin_sections as sections
from ...documents.base import Doc, Worded
from ..market import closer_looks as looks
from ..market.views import ChangeDoc, PointDoc, change_doc, label_of
from ..snapshot import Snapshot
from .figures import KEY_FIGURES
from .market_at import MarketAt, point_doc, told

MOST = 24
PLACE_FIGURES = ("closings", "median_price", "same_home_price", "median_days", "months_of_supply")


class PlaceDoc(Doc):
    """change: of the median price on the year; None where too few sold to say. rings: its outline, (longitude, latitude)."""

    place: str
    values: dict[str, PointDoc]
    before: dict[str, PointDoc]
    change: ChangeDoc | None
    rings: list[list[list[float]]]


class PlacesDoc(Doc):
    """whole: everywhere together. labels: measure → label and unit."""

    span: Worded
    sentence: Worded
    labels: dict[str, tuple[str, str]]
    places: list[PlaceDoc]
    whole: PlaceDoc


class SinceLineDoc(Doc):
    label: str
    unit: str
    then: PointDoc
    now: PointDoc
    change: ChangeDoc | None


class SinceDoc(Doc):
    """Key figures as they stood on an earlier day and as they stand now, and what happened between."""

    since: dt.date
    through: dt.date
    lines: list[SinceLineDoc]
    happened: looks.ChangesDoc


def places(at: MarketAt) -> PlacesDoc:
    """The view's places beside each other, else the neighbourhoods of the map; with the whole of them."""
    names = at.view.places if len(at.view.places) > 1 else neighbourhoods(at.records)
    out = [p for name in names[:MOST] if (p := _place(at, name)).values["closings"].value]
    moved = [
        sections.Moved(
            p.place, p.change.size if p.change else None, *(int(v["closings"].value or 0) for v in (p.values, p.before))
        )
        for p in out
    ]
    labels = {name: label_of(at.records, name) for name in PLACE_FIGURES}
    return PlacesDoc(span=at.span, sentence=sections.places(moved), labels=labels, places=out, whole=_place(at, ""))


def neighbourhoods(records: Snapshot) -> list[str]:
    """The named neighbourhoods of the map."""
    of = [f["properties"] for f in records.base_map()["features"]]
    return sorted({p["name"] for p in of if p["kind"] == "neighbourhood" and p["name"]})


def _place(at: MarketAt, name: str) -> PlaceDoc:
    now, before = (p.values for p in told(at.of_places((name,) if name else ()), PLACE_FIGURES, at.year))
    few = min(now["closings"].value or 0, before["closings"].value or 0) < mk.SMALL
    return PlaceDoc(
        place=name, values={k: point_doc(v) for k, v in now.items()}, before={k: point_doc(v) for k, v in before.items()},
        change=None if few else change_doc(now["median_price"].value, before["median_price"].value, "$"),
        rings=_rings(at.records, name),
    )  # fmt: skip


def _rings(records: Snapshot, name: str) -> list[list[list[float]]]:
    for f in records.base_map()["features"] if name else ():
        if f["properties"]["name"] == name and f["geometry"]["type"] in ("Polygon", "MultiPolygon"):
            parts = f["geometry"]["coordinates"]
            outer = [parts[0]] if f["geometry"]["type"] == "Polygon" else [polygon[0] for polygon in parts]
            return [[[float(x), float(y)] for x, y, *_ in ring] for ring in outer]
    return []


def since(at: MarketAt, day: dt.date | None) -> SinceDoc:
    """What moved since a day, else since the same day a month before: both sides as the market stood then."""
    then = MarketAt(at.records, at.view, min(day or add_months(at.through, -1), at.through))
    old, new = then.figures, at.figures
    lines = []
    for name in ("for_sale", *KEY_FIGURES):
        label, unit = label_of(at.records, name)
        a, b = old.of(name), new.of(name)
        if b.value is not None:
            few = unit != "" and min(a.n, b.n) < mk.SMALL
            change = None if few else change_doc(b.value, a.value, unit)
            lines.append(SinceLineDoc(label=label, unit=unit, then=point_doc(a), now=point_doc(b), change=change))
    ask = looks.ChangesAsk(view=at.view, since=min(then.through + dt.timedelta(days=1), at.through))
    return SinceDoc(
        since=then.through, through=at.through, lines=lines, happened=looks.changes(at.records, ask, at.through)
    )
