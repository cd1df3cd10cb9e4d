"""The town written as files in our records format, with a share of missing and faulty values."""

from __future__ import annotations

import csv
import json
import math
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path
from typing import Any

import numpy as np
import shapely

from ..core.dates import date_of
from .houses import House
from .plan import NEIGHBOURHOODS, Plan, highway_line, in_degrees, river_line, to_degrees
from .trading import Listing, Trade, worth_at
from .truth import LAST_DAY
from .words import TOWN

SUB_TYPE = {
    "detached": "Single Family Residence", "attached": "Townhouse", "condominium": "Condominium",
    "small_multi_family": "Duplex",
}  # fmt: skip


def write_town(folder: Path, plan: Plan, houses: Sequence[House], trade: Trade, rng: np.random.Generator) -> list[Path]:
    """Write all files of the town; returns them in the order in which they are to be imported."""
    folder.mkdir(parents=True, exist_ok=True)
    return [
        _areas(folder / "areas.geojson", plan),
        _csv(folder / "parcels.csv", (_parcel(h, rng) for h in houses)),
        _csv(folder / "listings.csv", (_listing(x, rng) for x in trade.listings if x.close is None or x.close >= 0)),
        _csv(folder / "history.csv", (row for x in trade.listings for row in _history(x))),
        _csv(folder / "transfers.csv", (_transfer(t) for t in trade.transfers)),
    ]


def _csv(path: Path, rows: Iterable[Mapping[str, Any]]) -> Path:
    with path.open("w", newline="", encoding="utf-8") as f:
        writer: Any = None
        for row in rows:
            if writer is None:
                writer = csv.writer(f)
                writer.writerow(row.keys())
            writer.writerow(row.values())
    return path


def _iso(day: int | None) -> str:
    return "" if day is None else date_of(day).isoformat()


def _number(value: float | None) -> str:
    return (
        ""
        if value is None or (isinstance(value, float) and math.isnan(value))
        else f"{value:g}"
        if value < 1e6
        else f"{value:.0f}"
    )


def _home(house: House) -> dict[str, Any]:
    f = house.facts
    return {
        "PropertyType": "Residential Income" if house.kind == "small_multi_family" else "Residential",
        "PropertySubType": SUB_TYPE[house.kind],
        "UnparsedAddress": house.address,
        "UnitNumber": house.unit,
        "City": TOWN,
        "PostalCode": house.postal_code,
        "SubdivisionName": house.words.get("building") or house.lot.subdivision,
        "Latitude": house.latitude,
        "Longitude": house.longitude,
        "LivingArea": _number(f["living_area"]),
        "BelowGradeFinishedArea": _number(f["below_grade_finished_area"]),
        "Basement": house.words.get("basement", ""),
        "LotSizeSquareFeet": _number(f["lot_size_square_feet"]) if f["lot_size_square_feet"] else "",
        "YearBuilt": _number(f["year_built"]),
        "BedroomsTotal": _number(f["bedrooms_total"]),
        "BathroomsFull": _number(f["bathrooms_full"]),
        "BathroomsHalf": _number(f["bathrooms_half"]),
        "Stories": _number(f["stories"]),
        "ArchitecturalStyle": house.style,
        "GarageSpaces": _number(f["garage_spaces"]),
        "FireplacesTotal": _number(f["fireplaces_total"]),
        "PoolPrivateYN": "Y" if f["pool_private_yn"] else "N",
        "WaterfrontYN": "Y" if f["waterfront_yn"] else "N",
    }


def _parcel(house: House, rng: np.random.Generator) -> dict[str, Any]:
    """The tax roll: no finished basements, garages sometimes wrong, values behind the market."""
    row = {"ParcelNumber": house.parcel, **_home(house)}
    last = (LAST_DAY.replace(month=1, day=1) - LAST_DAY.replace(year=1970, month=1, day=1)).days
    assessed = worth_at(house, last) * 0.91 * math.exp(rng.normal(0, 0.06))
    row["TaxAssessedValue"] = f"{100 * round(assessed / 100):.0f}"
    row["TaxAnnualAmount"] = f"{assessed * 0.0134:.0f}"
    if rng.random() < 0.05:
        row["GarageSpaces"] = _number(house.facts["garage_spaces"] + 1)
    if rng.random() < 0.04:
        row["BathroomsHalf"] = ""
    return row


def _listing(x: Listing, rng: np.random.Generator) -> dict[str, Any]:
    home = _home(x.house)
    if x.lease:
        home["PropertyType"] = "Residential Lease"
    for name, share in (
        ("LotSizeSquareFeet", 0.05),
        ("GarageSpaces", 0.04),
        ("BelowGradeFinishedArea", 0.12),
        ("FireplacesTotal", 0.2),
    ):
        if rng.random() < share:
            home[name] = ""
    if rng.random() < 0.012:
        home["LivingArea"] = ""
    elif rng.random() < 0.002:
        home["LivingArea"] = f"{float(home['LivingArea'] or 100) * 10:.0f}"
    if rng.random() < 0.001:
        home["YearBuilt"] = "20231"
    return {
        "ListingId": x.listing_id,
        "ParcelNumber": x.house.parcel,
        "StandardStatus": x.status,
        "MlsStatus": {"Active Under Contract": "Contingent", "Closed": "Sold"}.get(x.status, x.status),
        **home,
        "OnMarketDate": _iso(x.start),
        "PurchaseContractDate": "" if rng.random() < 0.06 else _iso(x.contract),
        "CloseDate": _iso(x.close),
        "OffMarketDate": _iso(x.off),
        "ListPrice": _number(x.price),
        "OriginalListPrice": _number(x.original),
        "ClosePrice": _number(x.close_price),
        "ConcessionsAmount": _number(x.concessions),
        "NewConstructionYN": "Y" if x.new_construction else "N",
        "BuilderName": x.builder,
        "SpecialListingConditions": x.condition_sale,
        "PropertyCondition": ("", "New", "Like new", "Well kept", "Ordinary wear", "Worn", "Damaged")[
            int(x.house.facts["condition"]) if not x.new_construction else 1
        ],
        "LotFeatures": ", ".join(
            w for w, there in (("Corner Lot", x.house.lot.corner), ("Near Highway", x.house.lot.backs_to_highway)) if there
        ),
        "PublicRemarks": _remarks(x),
        "ListAgentFullName": x.agent,
        "ListOfficeName": x.office,
        "ModificationTimestamp": f"{_iso(x.events[-1][0])}T12:00:00Z",
    }  # fmt: skip


def _remarks(x: Listing) -> str:
    f, h = x.house.facts, x.house
    kind = {
        "detached": "home",
        "attached": "townhouse",
        "condominium": "condominium",
        "small_multi_family": "two-family home",
    }[h.kind]
    out = [
        f"{h.style} {kind} of {f['living_area']:,.0f} square feet in {h.lot.neighbourhood.name}, built {f['year_built']:.0f}."
    ]
    garage = int(f["garage_spaces"])
    if garage:
        out.append(f"Garage for {('one car', 'two cars', 'three cars')[min(garage, 3) - 1]}.")
    if f["pool_private_yn"]:
        out.append("Pool in the garden.")
    if f["waterfront_yn"]:
        out.append("Steps from the river.")
    if f["below_grade_finished_area"]:
        out.append("Finished rooms below.")
    if f["fireplaces_total"]:
        out.append("Fireplace.")
    if f["condition"] <= 2:
        out.append("Freshly done throughout.")
    elif f["condition"] >= 5:
        out.append("Needs work, priced to match.")
    return " ".join(out)


def _history(x: Listing) -> Iterable[dict[str, str]]:
    for day, event, old, new in x.events:
        yield {
            "ListingId": x.listing_id,
            "Timestamp": f"{_iso(day)}T09:00:00",
            "Event": event,
            "OldValue": old,
            "NewValue": new,
        }


def _transfer(t: Any) -> dict[str, Any]:
    return {
        "ParcelNumber": t.parcel, "RecordingDate": _iso(t.recorded), "SaleDate": _iso(t.sale), "Price": _number(t.price),
        "DocumentType": t.deed, "Grantor": t.grantor, "Grantee": t.grantee, "ParcelCount": t.parcels,
    }  # fmt: skip


def _areas(path: Path, plan: Plan) -> Path:
    """Neighbourhoods and subdivisions as polygons; river, highway and streets for the map."""
    features: list[dict[str, Any]] = []

    def add(name: str, kind: str, geometry: Any, number: int = 0) -> None:
        shape = json.loads(shapely.to_geojson(geometry))
        features.append(
            {"type": "Feature", "id": number, "properties": {"name": name, "kind": kind}, "geometry": shape}
        )

    river = shapely.LineString(in_degrees(river_line()))
    add("Brindle River", "river", river.buffer(0.0011))
    for hood in NEIGHBOURHOODS:
        lots = [lot for lot in plan.lots if lot.neighbourhood is hood]
        shapes = shapely.union_all([_lot_shape(lot.corners).buffer(0.00014) for lot in lots])
        add(
            hood.name,
            "neighbourhood",
            shapely.simplify(shapely.unary_union(shapes.buffer(0.0006).buffer(-0.0005)), 0.00002),
        )
        for phase in sorted({lot.subdivision for lot in lots}):
            part = shapely.union_all(
                [_lot_shape(lot.corners).buffer(0.00014) for lot in lots if lot.subdivision == phase]
            )
            add(phase, "subdivision", shapely.simplify(part, 0.00003))
    add("Route 9", "highway", shapely.LineString(in_degrees(highway_line())))
    for i, (name, kind, line) in enumerate(plan.streets):
        add(name, "street" if kind == "local" else "main street", shapely.LineString(in_degrees(line)), i)
    path.write_text(json.dumps({"type": "FeatureCollection", "features": features}), encoding="utf-8")
    return path


def _lot_shape(corners: list[tuple[float, float]]) -> Any:
    return shapely.Polygon([to_degrees(x, y) for x, y in corners])
