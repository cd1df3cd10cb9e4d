"""Reports of every length: the frozen workup with so many homes, the longest names, with and without pictures, on both papers."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from rain_porch.report.layouts import PAGES
from rain_porch.report.model import Brand, Paper, ReportInput

COUNTS = (0, 1, 3, 12, 40)
LONG = "12345 Upper Saint Bartholomew-in-the-Meadows Promenade North, Unit 1204B"
UNSOLD = ("under_contract", "for_sale", "failed")


def with_homes(given: ReportInput, n: int, long: bool, pictures: bool, size: str, backwards: bool) -> ReportInput:
    """The same workup with n sales kept, n others of each kind found, and a third of them kept; every page there is."""
    sales = [_like(given.comps, i, "sold", long) for i in range(n)]
    others = [_like(given.comps, i, kind, long) for kind in UNSOLD for i in range(n)]
    kept = [h for h in others if int(h["listing_id"].split("-")[1]) % 3 == 0]
    worth = [_like(given.price["comps"], i, "", long) | {"weight": 1 / n} for i in range(n)]
    names = list(PAGES)
    fronts = list(given.pictures.values())
    shown = {h["listing_id"]: fronts[i % len(fronts)] for i, h in enumerate([*sales, *others])} | {"": fronts[0]}
    inside = dict.fromkeys(["", *(h["listing_id"] for h in [*sales, *kept])], given.inside[""])
    price = {**given.price, "comps": worth} | ({} if n else {"indicated_value": None, "range": None, "methods": []})
    return replace(
        given,
        title=LONG if long else given.title,
        client="Wilhelmina Featherstonehaugh-Cholmondeley and Bartholomew Montgomery-Massingberd" if long else "Orla Grayle",
        agent={"name": "Perrin Vale", "licence": "L-7", "phone": "555 0100", "email": "perrin@vale.example"},
        brand=Brand(size=size, colour="#8D7700"),
        comps=sales, chosen=[*sales, *kept], around=[*sales, *others],
        counts={"sold": n, **dict.fromkeys(UNSOLD, n)},
        grid=[given.grid[i % len(given.grid)] | {"listing_id": h["listing_id"]} for i, h in enumerate(sales)],
        price=price, pictures=shown if pictures else {}, inside=inside if pictures else {},
        aside=[{**h, "reason": "Another street, and a longer reason than most: it backs on the railway."} for h in others[:3]],
        paper=Paper(pages=tuple(reversed(names) if backwards else names), pictures=pictures, notes={"grid": "A word of the agent's."},
                    speaks_of={"failed": "found", "for_sale": "found"}),
    )  # fmt: skip


def _like(homes: Any, i: int, kind: str, long: bool) -> dict[str, Any]:
    """One of the homes again under another number, a little apart in price and place."""
    told = dict(homes[i % len(homes)])
    told["listing_id"] = f"{kind or 'sold'}-{i}"
    told["address"] = (
        LONG.replace("12345", str(10000 + i)) if long else f"{100 + i} {told['address'].split(' ', 1)[-1]}"
    )
    if kind:
        told |= {
            "kind": kind,
            "price": told["price"] + 1700 * i,
            "status": {"sold": "Closed", "failed": "Expired"}.get(kind, "Active"),
        }
        told["latitude"] += 0.0002 * (i // len(homes))
    else:
        told |= {"adjusted_price": told["adjusted_price"] + 900 * (i // len(homes))}
    return told
