"""Sixty ways, all but one, in which people head and write the same records: what stands under each head, and how it is written.

A style is a line of “head = fact form”, columns divided by “|”. Facts are those of `Truth`; the forms are in FORMS below. All
records are invented. The values that should come of a style are known, so that the share read right can be counted.
"""

from __future__ import annotations

import csv
import datetime as dt
import io
import random
from collections.abc import Callable, Iterator
from typing import Any

STREETS = (
    "Ferry",
    "Alder",
    "Lantern Hill",
    "Mill",
    "Sparrow",
    "Orchard",
    "Quarry",
    "Willow Bend",
    "Stone",
    "Heron",
    "Maple",
    "River",
)
TYPES = (("Lane", "Ln"), ("Street", "St"), ("Avenue", "Ave"), ("Court", "Ct"), ("Drive", "Dr"))
CITIES = (("Brindle", "00017"), ("Upper Alder", "00023"), ("Stonewick", "00031"))
PLACES = ("Lantern Hill", "Ferry Bank", "Old Mill Acres", "Heron Park", "Quarry View")
KINDS = ("Single Family Residence", "Townhouse", "Condominium")
AGENTS = ("Iris Vole", "Joan Tern", "Hugh Marlow", "Nell Sedge")
OFFICES = ("Reed and Heron Homes", "Bank Street Homes", "Alder Homes")
REMARKS = (
    "Bright rooms and a wide porch, close to the river path.",
    "Quiet street; new roof two years ago, large yard.",
    "Kitchen redone, two car garage and a view of the hill.",
)
STATUSES = (
    "Active",
    "Pending",
    "Closed",
    "Closed",
    "Closed",
    "Closed",
    "Expired",
    "Withdrawn",
    "Canceled",
    "Active Under Contract",
)

Row = dict[str, Any]


def listings(n: int = 160, seed: int = 7) -> list[Row]:
    rng = random.Random(seed)
    out = []
    for i in range(n):
        status = STATUSES[i % len(STATUSES)] if i < 60 else rng.choice(STATUSES)
        start = dt.date(2024, 1, 3) + dt.timedelta(days=rng.randrange(600))
        contract = start + dt.timedelta(days=rng.randrange(4, 90))
        close = contract + dt.timedelta(days=rng.randrange(15, 60))
        sold, under = status == "Closed", status in ("Pending", "Active Under Contract")
        failed = status in ("Expired", "Withdrawn", "Canceled")
        area = rng.randrange(880, 3900)
        first = round(area * rng.uniform(170, 240) / 100) * 100
        last = first - rng.choice((0, 0, 5000, 9900))
        kind = rng.choice(KINDS)
        city, postal = rng.choice(CITIES)
        long, short = rng.choice(TYPES)
        lot = rng.randrange(3200, 42_000)
        out.append({
            "id": f"RF{24_000_000 + i * 37}", "parcel": f"{rng.randrange(10, 99)}-{rng.randrange(100, 999)}-{1000 + i}", "status": status, "kind": kind,
            "number": str(rng.randrange(3, 9800)), "dir": rng.choice(("N", "S", "E", "W", "", "")), "street": rng.choice(STREETS), "type": short, "type_long": long,
            "unit": str(rng.randrange(1, 40)) if kind == "Condominium" else "", "city": city, "postal": postal, "subdivision": rng.choice(PLACES),
            "lat": 41.2 + rng.uniform(-0.05, 0.05), "lon": -38.4 + rng.uniform(-0.05, 0.05), "start": start,
            "contract": contract if sold or under else None, "close": close if sold else None,
            "off": (start + dt.timedelta(days=rng.randrange(30, 120))) if failed else None, "list": last, "first": first,
            "price": round(last * rng.uniform(0.94, 1.03) / 100) * 100 if sold else None, "concessions": rng.choice((0, 0, 3000, 6500)) if sold else None,
            "area": area, "lot": lot, "year": rng.randrange(1921, 2024), "beds": rng.randrange(2, 6), "full": rng.randrange(1, 4), "half": rng.randrange(0, 3),
            "stories": rng.choice((1, 1, 2, 2, 1.5)), "garage": rng.randrange(0, 4), "attached": rng.random() < 0.7, "pool": rng.random() < 0.2,
            "fireplaces": rng.randrange(0, 3), "dues": rng.choice((0, 45, 120, 310)), "tax": rng.randrange(1200, 9800), "assessed": round(first * 0.8 / 100) * 100,
            "dom": (contract - start).days, "agent": rng.choice(AGENTS), "office": rng.choice(OFFICES), "remarks": rng.choice(REMARKS), "style": rng.choice(("Ranch", "Colonial", "Cape", "Split Level")),
            "owner": f"{rng.choice(('A', 'B', 'C'))} {rng.choice(('Sedge', 'Rill', 'Fenn'))}", "other": rng.randrange(100, 999),
            "seen": dt.date(2025, 12, 1), "book": rng.randrange(100, 999), "page": rng.randrange(1, 400), "land": round(first * 0.2 / 100) * 100,
            "deed": rng.choice(("Warranty Deed", "Quitclaim Deed", "Special Warranty Deed")), "grantor": f"{rng.choice(('Rowan', 'Ivy', 'Moss'))} {rng.choice(('Sedge', 'Rill', 'Fenn'))}",
            "grantee": f"{rng.choice(('Elm', 'Fern', 'Reed'))} {rng.choice(('Marsh', 'Holt', 'Dale'))}", "recorded": close + dt.timedelta(days=4), "sold": close, "paid": round(last / 100) * 100,
            "tax_year": 2024 + i % 2,
        })  # fmt: skip
        out[-1]["building"] = out[-1]["assessed"] - out[-1]["land"]
        if i % 11 == 0:
            out[-1] |= {"lot": None, "year": None}
    return out


def _day(form: str) -> Callable[[Any], str]:
    return lambda d: d.strftime(form) if d else ""


LETTERS = {
    "Active": "A",
    "Pending": "P",
    "Closed": "S",
    "Expired": "X",
    "Withdrawn": "W",
    "Canceled": "T",
    "Active Under Contract": "U",
}
SHORT = {
    "Active": "ACT",
    "Pending": "PND",
    "Closed": "SLD",
    "Expired": "EXP",
    "Withdrawn": "WDN",
    "Canceled": "CAN",
    "Active Under Contract": "CTG",
}
SAID = {
    "Active": "For Sale",
    "Pending": "Pending - Do Not Show",
    "Closed": "Sold",
    "Expired": "Expired",
    "Withdrawn": "Withdrawn",
    "Canceled": "Terminated",
    "Active Under Contract": "Contingent",
}
C_CLOSED = {**LETTERS, "Closed": "C", "Canceled": "K", "Active Under Contract": "B"}
CODES = {"Single Family Residence": "SFR", "Townhouse": "TH", "Condominium": "CND"}
SAID_KINDS = {"Single Family Residence": "Detached", "Townhouse": "Townhome", "Condominium": "Condo"}


def _money(v: Any) -> str:
    return "" if v is None else f"${v:,.0f}"


def _plain(v: Any) -> str:
    return "" if v is None else str(v)


FORMS: dict[str, Callable[[Any], str]] = {
    "": _plain, "$": _money, "$.": lambda v: "" if v is None else f"${v:,.2f}", ",": lambda v: "" if v is None else f"{v:,}", "k": lambda v: "" if v is None else f"{v / 1000:g}",
    "mdy": _day("%m/%d/%Y"), "mdy2": _day("%m/%d/%y"), "dmy": _day("%d.%m.%Y"), "iso": _day("%Y-%m-%d"), "mon": _day("%d-%b-%Y"), "long": _day("%b %d, %Y"), "compact": _day("%Y%m%d"), "us8": _day("%m%d%Y"),
    "stamp": _day("%Y-%m-%dT00:00:00Z"), "timed": _day("%m/%d/%Y 12:00:00 AM"), "serial": lambda d: str((d - dt.date(1899, 12, 30)).days) if d else "",
    "letter": LETTERS.__getitem__, "short": SHORT.__getitem__, "said": SAID.__getitem__, "c": C_CLOSED.__getitem__, "code": CODES.__getitem__, "kind": SAID_KINDS.__getitem__,
    "acres": lambda v: "" if v is None else f"{v / 43_560:.4f}", "ac": lambda v: "" if v is None else f"{v / 43_560:.4f} ac", "sf": lambda v: "" if v is None else f"{v:,} sq ft",
    "yn": lambda v: "Y" if v else "N", "01": lambda v: "1" if v else "0", "words": lambda v: "In Ground" if v else "None", "cars": lambda v: "None" if not v else f"{v} Car", "upper": lambda v: str(v).upper(),
    "comma": lambda v: "" if v is None else f"{v:,.2f}".replace(",", "x").replace(".", ",").replace("x", "."), "deg": lambda v: f"{v:.6f}", "float": lambda v: "" if v is None else f"{v:.1f}",
}  # fmt: skip


def facts(row: Row) -> Row:
    """What a row's composite cells are made of."""
    street = " ".join(filter(None, (row["number"], row["dir"], row["street"], row["type"])))
    cars = row["garage"]
    return {
        **row, "address": street, "full_address": f"{street}, {row['city']}, ST {row['postal']}", "unit_address": street + (f" #{row['unit']}" if row["unit"] else ""),
        "baths": f"{row['full']}/{row['half']}", "baths_point": row["full"] + 0.5 * min(row["half"], 1), "baths_said": f"{row['full']} full, {row['half']} half", "baths_all": row["full"] + row["half"],
        "beds_baths": f"{row['beds']}/{row['full'] + 0.5 * min(row['half'], 1):g}", "garage_said": "None" if not cars else f"{cars} Car {'Attached' if row['attached'] else 'Detached'}",
        "street_whole": " ".join(filter(None, (row["dir"], row["street"], row["type"]))), "per": None if not row["area"] else round((row["price"] or row["list"]) / row["area"], 2),
        "empty": "", "county": "Heron County", "state": "ST", "point": f"POINT ({row['lon']:.6f} {row['lat']:.6f})", "ratio": "" if not row["price"] else f"{row['price'] / row['list']:.1%}", "constant": "x",
    }  # fmt: skip


# style → (kind of file, its columns)
STYLES: dict[str, tuple[str, str]] = {
    "reso": ("listings", "ListingId = id | StandardStatus = status | PropertySubType = kind | UnparsedAddress = address | City = city | PostalCode = postal | Latitude = lat deg | Longitude = lon deg | OnMarketDate = start iso | PurchaseContractDate = contract iso | CloseDate = close iso | OffMarketDate = off iso | ListPrice = list | OriginalListPrice = first | ClosePrice = price | LivingArea = area | LotSizeSquareFeet = lot | YearBuilt = year | BedroomsTotal = beds | BathroomsFull = full | BathroomsHalf = half | GarageSpaces = garage | PoolPrivateYN = pool yn"),
    "number sign and dollars": ("listings", "MLS # = id | Status = status letter | Type = kind code | Address = address | City = city | Zip = postal | Sq Ft = area | Yr Blt = year | Beds = beds | Full Baths = full | Half Baths = half | List $ = list $ | Orig List $ = first $ | Sold Date = close mdy | Sold $ = price $ | List Date = start mdy | Pend Date = contract mdy | Off Mkt Date = off mdy | Gar = garage | Subdiv = subdivision | DOM = dom"),
    "no numbers, no list price": ("listings", "Street Address = address | Town = city | Zip Code = postal | Sale Price = price $ | Sale Date = close mdy | Square Feet = area , | Year Built = year | Bedrooms = beds | Baths = baths_point"),
    "expiration or withdrawn": ("listings", "ML Number = id | Listing Status = status said | Address = unit_address | City = city | Postal Code = postal | List Price = list , | Sold Price = price , | Listing Date = start mon | Contract Date = contract mon | Closing Date = close mon | Expiration/Withdrawn Date = off mon | Bedrooms = beds | Bathrooms = baths | Approx Sq Ft = area | Lot Acres = lot acres | Built = year"),
    "capitals": ("listings", "LISTNUM = id | STATUS = status upper | PROPTYPE = kind upper | HOUSENUM = number | STREETDIR = dir | STREETNAME = street | STREETSUFFIX = type | UNITNUM = unit | CITY = city | ZIP = postal | LISTPRICE = list | ORIGPRICE = first | SOLDPRICE = price | LISTDATE = start compact | CONTRACTDATE = contract compact | SOLDDATE = close compact | OFFMARKETDATE = off compact | SQFT = area | LOTSQFT = lot | YEARBUILT = year | BEDROOMS = beds | FULLBATHS = full | HALFBATHS = half | STORIES = stories | GARAGE = garage | DOM = dom"),
    "snake": ("listings", "listing_number = id | current_status = status | home_type = kind | street_address = address | city = city | zip_code = postal | lat = lat deg | lng = lon deg | list_price = list | original_price = first | sold_price = price | date_listed = start iso | pending_date = contract iso | date_sold = close iso | withdrawn_date = off iso | sqft_living = area | lot_sqft = lot | yr_built = year | num_bedrooms = beds | full_baths = full | half_baths = half | garage_cars = garage | has_pool = pool 01"),
    "camel": ("listings", "mlsNumber = id | mlsStatus = status | propertyType = kind | fullAddress = full_address | listPrice = list | closePrice = price | listDate = start stamp | pendingDate = contract stamp | closeDate = close stamp | offMarketDate = off stamp | livingSqFt = area | lotAcres = lot acres | yearBuilt = year | bedrooms = beds | bathsFull = full | bathsHalf = half | garageSpaces = garage | subdivisionName = subdivision | agentName = agent"),
    "spaces and units": ("listings", "Listing No. = id | Listing Status = status | Property Address = address | City = city | Zip = postal | Asking Price ($) = list , | Selling Price ($) = price , | Date Listed = start long | Under Contract Date = contract long | Date Closed = close long | Date Off Market = off long | Living Area (sq ft) = area , | Lot Size (acres) = lot acres | Year Built = year | # Bedrooms = beds | # Full Baths = full | # Half Baths = half | # Garage Stalls = garage | HOA Dues ($/mo) = dues"),
    "short": ("listings", "ML# = id | ST = status short | Addr = address | Cty = city | ZP = postal | LP = list | OLP = first | SP = price | LD = start mdy2 | CD = close mdy2 | SF = area | Ac = lot acres | YB = year | BR = beds | FB = full | HB = half | Gar = garage_said | DOM = dom | CDOM = dom"),
    "two facts in one": ("listings", "MLS Number = id | Status = status said | Address = full_address | Beds/Baths = beds_baths | Sq. Ft. = area sf | Lot = lot ac | Garage = garage_said | Price = list $ | Closed Price = price $ | Listed = start mdy | Closed = close mdy | Off Market = off mdy | Year = year"),
    "comma decimals": ("listings", "Listing Number = id | Status = status | Address = address | City = city | Postal Code = postal | List Price = list comma | Close Price = price comma | List Date = start dmy | Contract Date = contract dmy | Close Date = close dmy | Off Market Date = off dmy | Living Area = area comma | Lot Size = lot comma | Year Built = year | Bedrooms = beds | Full Baths = full | Half Baths = half"),
    "timestamps": ("listings", "Listing ID = id | Status = status | Street # = number | Street Dir = dir | Street Name = street | Street Type = type | Unit # = unit | City = city | State = state | Zip = postal | County = county | List Price = list $. | Sold Price = price $. | Original List Price = first $. | Listing Contract Date = start timed | Pending Date = contract timed | Sold Date = close timed | Cancel Date = off timed | SqFt - Total = area | SqFt Lot = lot | Year Built = year | Bedrooms Total = beds | Baths Full = full | Baths Half = half | # of Stories = stories | Garage Capacity = garage"),
    "c for closed": ("listings", "MLS = id | S = constant | Stat = status c | Property Address = address | City = city | Zip Code = postal | Current Price = list | Close Price = price | Begin Date = start mdy | Accepted Date = contract mdy | COE Date = close mdy | Off Mkt = off mdy | Finished SqFt = area | Lot SF = lot | Yr Built = year | Bdrms = beds | Total Baths = baths_point"),
    "agents and offices too": ("listings", "MLS # = id | Status = status | List Agent = agent | List Office = office | Selling Agent = agent | Selling Office = office | Address = address | City = city | State = state | Zip = postal | County = county | Area = other | Subdivision = subdivision | List Price = list | Sold Price = price | $/SqFt = per | SP/LP % = ratio | List Date = start mdy | Sold Date = close mdy | Pending Date = contract mdy | Off Market Date = off mdy | Beds = beds | Baths Full = full | Baths Half = half | SqFt = area | Acres = lot acres | Year Built = year | Remarks = remarks | Photo Count = other | Virtual Tour = empty"),
    "one head twice": ("listings", "Number = id | Status = status | Address = address | City = city | Zip = postal | Price = list | Price = price | Date = start iso | Close Date = close iso | Off Market = off iso | Contract Date = contract iso | Sq Ft = area | Year = year | Beds = beds | Full = full | Half = half"),
    "total baths": ("listings", "Listing Key = id | Status = status | Site Address = address | Site City = city | Site Zip = postal | List Amount = list | Sale Amount = price | On Market = start iso | Contract = contract iso | Settlement Date = close iso | Removed Date = off iso | Total Baths = baths_all | Half Baths = half | Total Bedrooms = beds | Above Grade Finished SqFt = area | Lot Size SqFt = lot | Year Constructed = year | Fireplaces = fireplaces"),
    "thousands": ("listings", "MLS No = id | Status = status | Address = address | City = city | Zip = postal | List Price (000s) = list k | Sale Price (000s) = price k | List Date = start mdy | Sale Date = close mdy | Off Date = off mdy | Area (SF) = area | Lot (SF) = lot | Built = year | Bed = beds | Full Bath = full | Half Bath = half"),
    "wkt place": ("listings", "Listing Number = id | Status = status | Address = address | Location = point | City = city | Zip = postal | List Price = list | Close Price = price | On Market Date = start iso | Close Date = close iso | Off Market Date = off iso | Square Footage = area | Lot Square Footage = lot | Yr. Built = year | Bedroom Count = beds | Bathroom Count = baths_said"),
    "attached apart": ("listings", "MLS ID = id | Listing Status = status | Street Number = number | Street Name = street_whole | City = city | Zip = postal | Asking = list $ | Sold For = price $ | Listed On = start mdy | Sold On = close mdy | Off Market On = off mdy | Heated Sq Ft = area , | Lot Size = lot sf | Year Built = year | Beds = beds | Baths Full = full | Baths Partial = half | Garage Spaces = garage | Attached Garage = attached yn | Pool = pool words | Stories = stories"),
    "serial days": ("listings", "Listing # = id | Status = status | Address = address | City = city | Zip = postal | List Price = list | Sold Price = price | List Date = start serial | Closed Date = close serial | Off Market Date = off serial | Sq.Ft. = area | Acreage = lot acres | Year Built = year | Beds = beds | Full Baths = full | 1/2 Baths = half"),
    "parcel number too": ("listings", "Listing ID = id | Tax ID = parcel | Status = status | Address = address | City = city | Zip Code = postal | Latitude = lat deg | Longitude = lon deg | Listing Price = list | Closed Price = price | Listing Date = start iso | Closed Date = close iso | Off-Market Date = off iso | Finished Sq Ft = area | Lot Area = lot | Yr Blt = year | Bedrooms = beds | Bathrooms Full = full | Bathrooms Half = half | Annual Taxes = tax | Assessed Value = assessed | HOA Fee = dues | Concessions = concessions"),
    "cut at ten": ("listings", "LISTINGID = id | STANDARDST = status | UNPARSEDAD = address | CITY = city | POSTALCODE = postal | LISTPRICE = list | CLOSEPRICE = price | ONMARKETDA = start iso | CLOSEDATE = close iso | OFFMARKETD = off iso | LIVINGAREA = area | LOTSIZESQU = lot | YEARBUILT = year | BEDROOMSTO = beds | BATHROOMSF = full | BATHROOMSH = half | GARAGESPAC = garage"),
    "wordy": ("listings", "Number of the listing = id | Status of the listing = status | Address of the property = address | City or town = city | Postal code = postal | Price asked = list | Price sold = price | Date of listing = start iso | Date of contract = contract iso | Date of closing = close iso | Date off the market = off iso | Square feet of living area = area | Square feet of lot = lot | Year in which built = year | Number of bedrooms = beds | Number of full baths = full | Number of half baths = half"),
    "dotted": ("listings", "mls.number = id | mls.status = status short | addr.full = address | addr.city = city | addr.zip = postal | price.list = list | price.original = first | price.sold = price | date.listed = start iso | date.pending = contract iso | date.sold = close iso | date.off_market = off iso | size.sqft = area | lot.sqft = lot | year.built = year | rooms.beds = beds | baths.full = full | baths.half = half"),
    "parcels plain": ("parcels", "ParcelNumber = parcel | UnparsedAddress = address | City = city | PostalCode = postal | LivingArea = area | LotSizeSquareFeet = lot | YearBuilt = year | BedroomsTotal = beds | BathroomsFull = full | BathroomsHalf = half | Stories = stories | Latitude = lat deg | Longitude = lon deg"),
    "assessor": ("parcels", "PARID = parcel | SITUS ADDRESS = address | SITUS CITY = city | SITUS ZIP = postal | OWNER NAME = owner | YRBLT = year | LIV AREA = area | LAND SQFT = lot | BEDROOMS = beds | FULL BATHS = full | HALF BATHS = half | STORIES = stories | TOTAL ASSESSED VALUE = assessed"),
    "assessor, acres": ("parcels", "APN = parcel | Property Address = address | Municipality = city | Zip = postal | Owner = owner | Mailing Address = owner | Calc Acres = lot acres | Yr Built = year | Total Living Area = area | Bedrms = beds | Bath Full = full | Bath Half = half | Bldg Value = building | Land Value = land | Total Value = assessed | Sale Date = sold iso | Sale Price = paid"),
    "account": ("parcels", "Account Number = parcel | Loc No = number | Loc Dir = dir | Loc Street = street | Loc Suffix = type | Loc City = city | Loc Zip = postal | Year Built = year | Bldg Sq Ft = area | Lot Sq Ft = lot | Num Beds = beds | Num Full Baths = full | Num Half Baths = half | Neighborhood = subdivision | Quality Grade = style"),
    "parcel map": ("parcels", "PIN = parcel | SITE_ADDR = address | SITE_CITY = city | SITE_ZIP = postal | GIS_ACRES = lot acres | BLT_YEAR = year | RES_SQFT = area | BEDS = beds | FBATH = full | HBATH = half | OBJECTID = other | SHAPE_AREA = other"),
    "tax roll": ("parcels", "Parcel ID = parcel | Location Address = address | City = city | Zip Code = postal | Actual Year Built = year | Heated Area = area | Acres = lot acres | No. Bedrooms = beds | Baths = baths_point | Stories = stories float | Just Value = assessed"),
    "deeds plain": ("transfers", "ParcelNumber = parcel | RecordingDate = recorded iso | SaleDate = sold iso | Price = paid | DocumentType = deed | Grantor = grantor | Grantee = grantee"),
    "recorder": ("transfers", "Parcel ID = parcel | Date Recorded = recorded mdy | Deed Date = sold mdy | Consideration = paid $ | Deed Type = deed | Seller = grantor | Buyer = grantee | Book = book | Page = page"),
    "sales file": ("transfers", "PIN = parcel | SALEDATE = sold compact | RECDATE = recorded compact | SALEAMT = paid | INSTRTYPE = deed | GRANTOR = grantor | GRANTEE = grantee | DOCNUM = book"),
    "conveyances": ("transfers", "Parcel No = parcel | Conveyance Date = sold iso | Filing Date = recorded iso | Conveyance Amount = paid , | Instrument Type = deed | From = grantor | To = grantee"),
    "transfer list": ("transfers", "Account = parcel | Transfer Date = sold us8 | Record Date = recorded us8 | Transfer Price = paid | Type of Deed = deed | Seller Name = grantor | Buyer Name = grantee"),
    "values plain": ("assessments", "ParcelNumber = parcel | TaxYear = tax_year | LandValue = land | ImprovementValue = building | TotalValue = assessed | TaxAmount = tax"),
    "roll": ("assessments", "PARCEL_ID = parcel | TAX_YR = tax_year | LAND_AV = land | BLDG_AV = building | TOT_AV = assessed | TAXES = tax"),
    "assessor's history": ("assessments", "Parcel Number = parcel | Assessment Year = tax_year | Assessed Land = land $ | Assessed Improvements = building $ | Total Assessed Value = assessed $ | Total Tax = tax $."),
    "values by year": ("assessments", "Tax Key = parcel | Year = tax_year | Land = land , | Improvements = building , | Total = assessed , | Net Tax = tax ,"),
    "market values": ("assessments", "Acct No = parcel | Roll Year = tax_year | Market Land Value = land | Market Improvement Value = building | Total Market Value = assessed | Tax Billed = tax"),
    "abbreviated": ("listings", "Listing Nbr = id | Lst Stat = status short | Prop Cat = kind | Hse Nbr = number | Str Dir = dir | Str Nm = street | Str Typ = type | Town = city | Zip5 = postal | Lst Dt = start mdy | Ctrct Dt = contract mdy | Cls Dt = close mdy | OffMkt Dt = off mdy | Lst Prc = list | Orig Prc = first | Cls Prc = price | Lvg Area = area | Lot Sz = lot | Yr Built = year | BRs = beds | F Ba = full | H Ba = half | Gar Spc = garage"),
    "hyphens": ("listings", "listing-id = id | state = status | street-address = address | city = city | price-asked = list | price-got = price | date-on = start iso | date-off = off iso | date-agreed = contract iso | date-closed = close iso | sqft = area | beds = beds | baths-full = full | baths-half = half | built = year"),
    "run together": ("listings", "MLSNUM = id | STAT = status letter | ADDRESS = address | CITY = city | ZIPCODE = postal | LISTPR = list | SOLDPR = price | DTLIST = start mdy | DTPEND = contract mdy | DTSOLD = close mdy | DTOFF = off mdy | TOTSQFT = area | ACRES = lot acres | YRBLT = year | BDRM = beds | FULLBTH = full | HALFBTH = half | GARSTALL = garage"),
    "one prefix": ("listings", "L_ListingID = id | L_Status = status | L_Address = address | L_City = city | L_Zip = postal | L_AskingPrice = list | L_OriginalPrice = first | L_SoldPrice = price | L_ListingDate = start iso | L_ContractDate = contract iso | L_ClosingDate = close iso | L_OffMarketDate = off iso | L_SquareFeet = area | L_LotSize = lot | L_YearBuilt = year | L_Bedrooms = beds | L_FullBaths = full | L_HalfBaths = half"),
    "signs": ("listings", "ListingNo = id | Status = status said | Asking $ = list $ | Closing $ = price $ | Listed Dt = start mdy | Closing Dt = close mdy | Off Mrkt = off mdy | Addr Line = address | City/Town = city | Zip = postal | #Bds = beds | #FBa = full | #HBa = half | SF Fin = area | Lot SF = lot | Constr Yr = year | Gar Sp = garage"),
    "units as endings": ("listings", "ListPrice_usd = list | ClosePrice_usd = price | LivingArea_sqft = area | LotSize_acres = lot acres | ListingNumber_txt = id | Status_cd = status short | Addr_txt = address | City_nm = city | Zip_cd = postal | List_dt = start compact | Close_dt = close compact | Contract_dt = contract compact | OffMarket_dt = off compact | Bedrooms_cnt = beds | FullBaths_cnt = full | HalfBaths_cnt = half | YearBuilt_yr = year"),
    "in plain words": ("listings", "Agent = agent | Brokerage = office | MLS Listing Number = id | Property Status = status | Address = address | City = city | Zip = postal | Final Price = price $ | Last List Price = list $ | Starting Price = first $ | Close of Escrow = close mdy | Marketing Start = start mdy | Went Pending = contract mdy | Came Off Market = off mdy | Approx. Living Area = area | Approx. Lot Size = lot | Yr. Blt = year | Bd = beds | Ba Full = full | Ba Half = half | Subdivision/Complex = subdivision"),
    "short capitals": ("listings", "ID = id | STATUS = status | STREET = address | TOWN = city | ZIP = postal | LP = list | CP = price | LISTED = start mdy | UC = contract mdy | CLOSED = close mdy | OFF MARKET = off mdy | FIN SQ FT = area | LOT ACRES = lot acres | YEAR BLT = year | BEDROOMS = beds | BATHROOMS = baths_point | GARAGE = garage cars | HOA/MO = dues"),
    "approximate": ("listings", "Mls Num = id | Sale Status = status | Full Street Address = address | Municipality = city | Zip = postal | List Price = list | Sale Price = price | Date on Market = start iso | Sale Date = close iso | Date Withdrawn = off iso | Tot Fin SqFt = area | Lot Sq Footage = lot | Built Yr = year | Tot Beds = beds | Tot Full Baths = full | Tot Half Baths = half | Garage # = garage | Pool? = pool yn | Seller Concession Amt = concessions"),
    "assessor, run together": ("parcels", "PARCELNO = parcel | PROPADDR = address | PROPCITY = city | PROPZIP = postal | ACREAGE = lot acres | YEARBLT = year | TOTLIVAREA = area | NO_BEDRMS = beds | NO_FULLBATH = full | NO_HALFBATH = half | NOSTORIES = stories"),
    "assessor's codes": ("parcels", "Parcel = parcel | Situs = address | City = city | ZIP Code = postal | Lot Sq. Ft. = lot | SFLA = area | Year Blt = year | RMBED = beds | FIXBATH = full | FIXHALF = half | Stories = stories | Grade = style | Taxable Val = assessed"),
    "map, block and lot": ("parcels", "MapBlockLot = parcel | StreetNum = number | StreetNm = street_whole | Town = city | LotAcres = lot acres | GLA = area | YrBuilt = year | NumBeds = beds | NumBaths = full | NumHalfBaths = half | TotalAssessment = assessed"),
    "old and new owner": ("transfers", "PARID = parcel | SALEDT = sold iso | PRICE = paid | INSTRTYP = deed | OLDOWN = grantor | OWN1 = grantee | RECORDDT = recorded iso"),
    "transactions": ("transfers", "Parcel Number = parcel | Transaction Date = sold mdy | Recording Dt = recorded mdy | Sale Amt = paid $ | Document Type = deed | Grantor Name(s) = grantor | Grantee Name(s) = grantee | Instrument No. = book"),
    "deed book": ("transfers", "Tax Parcel = parcel | Sold = sold iso | Sold Price = paid | Deed = deed | Seller 1 = grantor | Buyer 1 = grantee | Deed Book = book | Deed Page = page"),
    "appraised": ("assessments", "PIN = parcel | TAXYR = tax_year | APRLAND = land | APRBLDG = building | APRTOT = assessed"),
    "cut words": ("assessments", "Parcel = parcel | Yr = tax_year | LandVal = land | ImpVal = building | TotVal = assessed | Tax Amt = tax"),
    "assessments cut short": ("assessments", "parcel_id = parcel | year = tax_year | Lnd Asmt = land | Imp Asmt = building | Tot Asmt = assessed | Tax Bill = tax"),
    "fiscal years": ("assessments", "APN = parcel | Fiscal Yr = tax_year | Land Assessment = land | Structure Assessment = building | Full Assessment = assessed | Taxes Levied = tax"),
}  # fmt: skip

# fact → (field, how it comes out)
_SAME: dict[str, str] = {
    "id": "listing_id", "parcel": "parcel_number", "status": "standard_status", "city": "city", "postal": "postal_code", "lat": "latitude", "lon": "longitude", "start": "on_market_date",
    "contract": "purchase_contract_date", "close": "close_date", "off": "off_market_date", "list": "list_price", "first": "original_list_price", "price": "close_price", "concessions": "concessions_amount",
    "area": "living_area", "lot": "lot_size_square_feet", "year": "year_built", "beds": "bedrooms_total", "full": "bathrooms_full", "half": "bathrooms_half", "stories": "stories", "garage": "garage_spaces",
    "attached": "attached_garage_yn", "pool": "pool_private_yn", "fireplaces": "fireplaces_total", "dues": "association_fee", "subdivision": "subdivision_name", "dom": "days_on_market", "agent": "list_agent_full_name",
    "office": "list_office_name", "remarks": "public_remarks", "unit": "unit_number", "address": "unparsed_address", "unit_address": "unparsed_address", "deed": "document_type", "grantor": "grantor", "grantee": "grantee",
    "recorded": "recording_date", "sold": "sale_date", "paid": "price", "tax_year": "tax_year", "land": "land_value", "building": "improvement_value",
}  # fmt: skip


def columns_of(style: str) -> list[tuple[str, str, str]]:
    """(head, fact, form) of a style's columns."""
    out = []
    for column in STYLES[style][1].split(" | "):
        head, what = column.rsplit(" = ", 1)
        fact, _, form = what.partition(" ")
        out.append((head, fact, form))
    return out


def table(style: str, rows: list[Row]) -> list[list[str]]:
    columns = columns_of(style)
    told = [facts(r) for r in rows]
    return [[head for head, _, _ in columns], *([FORMS[form](r[fact]) for _, fact, form in columns] for r in told)]


def as_csv(lines: list[list[str]], delimiter: str = ",") -> str:
    out = io.StringIO()
    csv.writer(out, delimiter=delimiter).writerows(lines)
    return out.getvalue()


def wanted(style: str, row: Row) -> Iterator[tuple[str, Any]]:
    """(field, value) of all that a row of a style should become."""
    kind = STYLES[style][0]
    heads = [fact for _, fact, _ in columns_of(style)]
    for head, fact, _ in columns_of(style):
        given = facts(row)
        match fact:
            case "full_address":
                yield from (
                    ("unparsed_address", given["address"]),
                    ("city", row["city"]),
                    ("postal_code", row["postal"]),
                )
            case "number":
                yield "unparsed_address", given["address"]
            case "baths" | "baths_said":
                yield from (("bathrooms_full", row["full"]), ("bathrooms_half", row["half"]))
            case "baths_point":
                yield from (("bathrooms_full", row["full"]), ("bathrooms_half", min(row["half"], 1)))
            case "baths_all":
                yield "bathrooms_full", row["full"]
            case "beds_baths":
                yield from (
                    ("bedrooms_total", row["beds"]),
                    ("bathrooms_full", row["full"]),
                    ("bathrooms_half", min(row["half"], 1)),
                )
            case "garage_said":
                yield from (
                    ("garage_spaces", row["garage"]),
                    ("attached_garage_yn", None if not row["garage"] else float(row["attached"])),
                )
            case "point":
                yield from (("latitude", row["lat"]), ("longitude", row["lon"]))
            case "kind":
                yield (
                    "home_kind",
                    {"Single Family Residence": "detached", "Townhouse": "attached", "Condominium": "condominium"}[
                        row["kind"]
                    ],
                )
            case "assessed":
                yield ("total_value" if kind == "assessments" else "tax_assessed_value"), row["assessed"]
            case "tax":
                yield ("tax_amount" if kind == "assessments" else "tax_annual_amount"), row["tax"]
            case "area" if "above" in head.lower():
                yield "above_grade_finished_area", row["area"]
            case "agent" | "office" if heads.index(fact) != [h for h, _, _ in columns_of(style)].index(head):
                continue
            case "sold" | "paid" | "land" | "building" if kind == "parcels":
                continue
            case _ if fact in _SAME:
                yield _SAME[fact], given[fact]
