"""The town written as files in our records format, with a share of missing and faulty values."""

from __future__ import annotations

import csv
import json
import math
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path
from typing import Any

import numpy as np

from ..core.facts.dates import date_of
from ..standins import camera
from . import truth
from .areas import footprint, standing, write_areas
from .houses import House
from .plan import Plan
from .trading import LAST_DAY as LAST
from .trading import Listing, Trade, worth_at
from .truth import LAST_DAY
from .words import TOWN

CONDITIONS = ("", "New", "Like new", "Well kept", "Ordinary wear", "Worn", "Damaged")
SUB_TYPE = {
    "detached": "Single Family Residence", "attached": "Townhouse", "condominium": "Condominium",
    "small_multi_family": "Duplex",
}  # fmt: skip


def write_town(folder: Path, plan: Plan, houses: Sequence[House], trade: Trade, rng: np.random.Generator) -> list[Path]:
    """Write all files of the town; returns them in the order in which they are to be imported."""
    folder.mkdir(parents=True, exist_ok=True)
    faults: list[dict[str, str]] = []
    made = [
        write_areas(folder / "areas.geojson", plan, [footprint(h) for h in standing(houses)]),
        _csv(folder / "parcels.csv", (_parcel(h, rng) for h in houses)),
        _csv(folder / "listings.csv", (_listing(x, rng, faults) for x in trade.listings)),
        _csv(folder / "history.csv", (row for x in trade.listings for row in _history(x))),
        _csv(folder / "pictures.csv", (row for x in trade.listings for row in _pictures(x))),
        _csv(folder / "transfers.csv", (_transfer(t) for t in trade.transfers)),
        _csv(folder / "assessments.csv", (row for h in houses for row in _assessments(h, rng))),
        _csv(folder / "mortgage rates.csv", _rates(rng)),
    ]
    (folder.parent / "truth.json").write_text(json.dumps(_truth(houses, faults)), encoding="utf-8")
    return made


def _truth(houses: Sequence[House], faults: list[dict[str, str]]) -> dict[str, Any]:
    """What the generator knows and the application never sees: worths, renovations, rates, faulty rows."""
    return {
        "rates": truth.RATES,
        "trend": [[start.isoformat(), pct] for start, pct in truth.TREND],
        "log_worth": {h.parcel: round(h.log_worth, 5) for h in houses},
        "log_land": {h.parcel: round(h.log_land, 5) for h in houses if h.log_land is not None},
        "condition": {h.parcel: h.facts["condition"] for h in houses},
        "renovations": {h.parcel: h.renovations for h in houses if h.renovations},
        "faults": faults,
    }


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


def _home(house: House, land: bool = False) -> dict[str, Any]:
    """The facts of a home as files have them; of bare land when `land`."""
    f = {} if land else house.facts
    w = {} if land else house.words
    bare = land or house.kind == "acreage"

    def number(name: str) -> str:
        return "" if bare or name not in f else _number(f[name])

    def yes(name: str) -> str:
        return "" if bare else "Y" if f[name] else "N"

    lot = house.facts["lot_size_square_feet"]
    return {
        "PropertyType": "Farm" if house.kind == "acreage" else "Land" if land else "Residential Income"
        if house.kind == "small_multi_family" else "Residential",
        "PropertySubType": "Agriculture" if house.kind == "acreage" else "Unimproved Land" if land else SUB_TYPE[house.kind],
        "UnparsedAddress": house.address,
        "UnitNumber": house.unit,
        "City": TOWN,
        "PostalCode": house.postal_code,
        "SubdivisionName": w.get("building") or house.lot.subdivision,
        "Latitude": house.latitude,
        "Longitude": house.longitude,
        "LivingArea": number("living_area"),
        "BelowGradeFinishedArea": number("below_grade_finished_area"),
        "Basement": w.get("basement", ""),
        "LotSizeSquareFeet": _number(lot) if lot else "",
        "YearBuilt": number("year_built"),
        "BedroomsTotal": number("bedrooms_total"),
        "BathroomsFull": number("bathrooms_full"),
        "BathroomsHalf": number("bathrooms_half"),
        "Stories": number("stories"),
        "ArchitecturalStyle": "" if bare else house.style,
        "GarageSpaces": number("garage_spaces"),
        "FireplacesTotal": number("fireplaces_total"),
        "NumberOfUnitsTotal": number("units"),
        "PoolPrivateYN": yes("pool_private_yn"),
        "WaterfrontYN": "Y" if house.facts.get("waterfront_yn") else "N",
        "Heating": w.get("heating", ""),
        "Cooling": w.get("cooling", ""),
        "View": "River" if house.facts.get("waterfront_yn") else "",
        "AboveGradeFinishedArea": number("living_area"),
        **_site(house),
    }  # fmt: skip


_ZONING = {
    "detached": "One home a lot", "attached": "Homes in rows", "condominium": "Many homes a lot",
    "small_multi_family": "Up to four homes a lot", "acreage": "Farming and open land",
}  # fmt: skip


def _site(house: House) -> dict[str, Any]:
    """What may be built on a lot, what reaches it, and how far it lies along its street."""
    served = house.kind != "acreage"
    (ax, ay), (bx, by) = house.lot.corners[:2] if served else house.lot.corners[1:3]  # Orchard Road runs north
    return {
        "Zoning": _ZONING[house.kind],
        "Sewer": "Public Sewer" if served else "Septic Tank",
        "WaterSource": "Public" if served else "Well",
        "FrontageLength": "" if house.unit else f"{math.hypot(ax - bx, ay - by) * 5280:.0f}",
    }


def _parcel(house: House, rng: np.random.Generator) -> dict[str, Any]:
    """The tax roll: garages sometimes wrong, half baths sometimes missing, values behind the market."""
    standing = house.built_day is None or house.built_day <= LAST
    row = {"ParcelNumber": house.parcel, **_home(house, land=not standing)}
    assessed = _assessed(house, LAST_DAY.year, rng)
    if not standing and house.log_land is not None:
        assessed *= math.exp(house.log_land - house.log_worth)
    house.on_the_roll = assessed
    row["TaxAssessedValue"] = f"{assessed:.0f}"
    row["TaxAnnualAmount"] = f"{assessed * 0.0134:.0f}"
    if standing and "garage_spaces" in house.facts and rng.random() < 0.05:
        row["GarageSpaces"] = _number(house.facts["garage_spaces"] + 1)
    if rng.random() < 0.04:
        row["BathroomsHalf"] = ""
    return row


def _assessed(house: House, year: int, rng: np.random.Generator) -> float:
    """What the assessor says at the start of a year: nine tenths of the worth, give or take."""
    day = int((np.datetime64(f"{year}-01-01") - np.datetime64("1970-01-01")).astype(int))
    return 100 * round(worth_at(house, day) * 0.91 * math.exp(rng.normal(0, 0.06)) / 100)


def _assessments(house: House, rng: np.random.Generator) -> Iterable[dict[str, Any]]:
    for year in range(LAST_DAY.year - 3, LAST_DAY.year + 1):
        if house.built_day is not None and date_of(house.built_day).year >= year:
            continue
        total = _assessed(house, year, rng)
        if year == LAST_DAY.year and house.on_the_roll is not None:
            total = house.on_the_roll
        land = 100 * round(total * rng.uniform(0.18, 0.3) / 100)
        yield {
            "ParcelNumber": house.parcel, "TaxYear": year, "LandValue": f"{land:.0f}",
            "ImprovementValue": f"{total - land:.0f}", "TotalValue": f"{total:.0f}", "TaxAmount": f"{total * 0.0134:.0f}",
        }  # fmt: skip


def _rates(rng: np.random.Generator) -> Iterable[dict[str, str]]:
    for day in range(LAST - 10 * 365, LAST + 1, 7):
        yield {"Date": _iso(day), "Value": f"{float(truth.mortgage_rate(day)) + rng.normal(0, 0.04):.2f}"}


def _listing(x: Listing, rng: np.random.Generator, faults: list[dict[str, str]]) -> dict[str, Any]:
    """One row of the feed, with the gaps and slips that feeds have; what was done to it goes into `faults`."""
    home = _home(x.house, x.land)
    bare = x.land or x.house.kind == "acreage"
    if x.lease:
        home["PropertyType"] = "Residential Lease"

    def spoil(name: str, value: str, kind: str) -> None:
        faults.append({"listing": x.listing_id, "field": name, "kind": kind})
        home[name] = value

    for name, share in (
        ("LotSizeSquareFeet", 0.05),
        ("GarageSpaces", 0.04),
        ("BelowGradeFinishedArea", 0.12),
        ("FireplacesTotal", 0.2),
    ):
        if rng.random() < share and home[name]:
            spoil(name, "", "missing")
    draw = rng.random()
    if not bare and draw < 0.012:
        spoil("LivingArea", "", "missing")
    elif not bare and draw < 0.014:
        spoil("LivingArea", f"{float(home['LivingArea']) * 12:.0f}", "absurd")
    elif not bare and draw < 0.015:
        spoil("YearBuilt", "20231", "absurd")
    elif draw < 0.0165:
        spoil("Latitude", str(home["Longitude"]), "wrong place")
    elif draw < 0.018:
        spoil("Latitude", "0", "wrong place")
        home["Longitude"] = "0"
    no_contract = x.contract is not None and rng.random() < 0.06
    if no_contract:
        faults.append({"listing": x.listing_id, "field": "PurchaseContractDate", "kind": "missing"})
    w = {} if bare else x.house.words
    return {
        "ListingId": x.listing_id,
        "ParcelNumber": x.house.parcel,
        "StandardStatus": x.status,
        "MlsStatus": {"Active Under Contract": "Contingent", "Closed": "Sold"}.get(x.status, x.status),
        **home,
        "OnMarketDate": _iso(x.start),
        "PurchaseContractDate": "" if no_contract else _iso(x.contract),
        "CloseDate": _iso(x.close),
        "OffMarketDate": _iso(x.off),
        "ListPrice": _number(x.price),
        "OriginalListPrice": _number(x.original),
        "ClosePrice": _number(x.close_price),
        "ConcessionsAmount": _number(x.concessions),
        "NewConstructionYN": "Y" if x.new_construction else "N",
        "BuilderName": x.builder,
        "SpecialListingConditions": x.condition_sale,
        "PropertyCondition": "" if bare else CONDITIONS[_condition(x)],
        "Flooring": w.get("flooring", ""),
        "ConstructionMaterials": w.get("cladding", ""),
        "Roof": w.get("roof", ""),
        "Utilities": "" if x.house.kind == "acreage" else "Sewer Connected, Water Connected",
        "AssociationFee": f"{180 + 0.14 * x.house.facts['living_area']:.0f}" if w.get("dues") else "",
        "AssociationFeeFrequency": "Monthly" if w.get("dues") else "",
        "TaxAnnualAmount": f"{worth_at(x.house, x.start) * 0.0122:.0f}" if not x.land else "",
        "LotFeatures": ", ".join(
            t for t, there in (("Corner Lot", x.house.lot.corner), ("Near Highway", x.house.lot.backs_to_highway)) if there
        ),
        "PublicRemarks": _remarks(x),
        "ListAgentFullName": x.agent,
        "ListOfficeName": x.office,
        "ModificationTimestamp": f"{_iso(x.events[-1][0])}T12:00:00Z",
    }  # fmt: skip


def _condition(x: Listing) -> int:
    return 1 if x.new_construction else x.house.condition_at(x.start)


def _remarks(x: Listing) -> str:
    f, h = x.house.facts, x.house
    if x.land or h.kind == "acreage":
        size = (
            f"{f['lot_size_square_feet'] / 43_560:.1f} acres"
            if h.kind == "acreage"
            else f"{f['lot_size_square_feet']:,.0f} square feet"
        )
        return f"{size} of open land in {h.lot.neighbourhood.name}, ready for your plans."
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
    out.append(f"{h.words['cladding']} outside, {h.words['flooring'].lower()} floors.")
    if f["pool_private_yn"]:
        out.append("Pool in the garden.")
    if f["waterfront_yn"]:
        out.append("Steps from the river.")
    if f["below_grade_finished_area"]:
        out.append("Finished rooms below.")
    if f["fireplaces_total"]:
        out.append("Fireplace.")
    if h.renovations and x.start >= h.renovations[-1][0]:
        out.append("Renovated throughout this year.")
    elif _condition(x) <= 2:
        out.append("Freshly done throughout.")
    elif _condition(x) >= 5:
        out.append("Needs work, priced to match.")
    if x.condition_sale != "Standard":
        out.append("Sold by the bank, as it stands.")
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


def _pictures(x: Listing) -> Iterable[dict[str, Any]]:
    """What the photographer saw of a home that day, at the addresses of the pictures."""
    f, w, h = x.house.facts, x.house.words, x.house
    scene = camera.scene_of({
        **f, **w, "listing_id": x.listing_id, "parcel_number": h.parcel, "home_kind": "land" if x.land else h.kind,
        "architectural_style": h.style, "construction_materials": w.get("cladding", ""), "on_market_date": _iso(x.start),
        "property_condition": CONDITIONS[_condition(x)],
    })  # fmt: skip
    for place, caption in enumerate(camera.captions(scene), start=1):
        yield {
            "ListingId": x.listing_id, "Order": place, "MediaURL": camera.address_of(scene, place), "ShortDescription": caption,
        }  # fmt: skip


def _transfer(t: Any) -> dict[str, Any]:
    return {
        "ParcelNumber": t.parcel, "RecordingDate": _iso(t.recorded), "SaleDate": _iso(t.sale), "Price": _number(t.price),
        "DocumentType": t.deed, "Grantor": t.grantor, "Grantee": t.grantee, "ParcelCount": t.parcels,
    }  # fmt: skip
