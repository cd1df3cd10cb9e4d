"""A column's head as the plain words it stands for: split at case, signs and digits, long words that were written together
taken apart, the trade's abbreviations written out. "Sold $" → close price; "YrBlt" → year built; "LivSqFt" → living sqft."""

from __future__ import annotations

import re
from functools import lru_cache

# what a word or an abbreviation is called in the table of words; "" is left out. Words of one meaning are one word.
_FOLDED: dict[str, str] = {
    # what happens to a home
    "sold": "close", "sale": "close", "sales": "close", "sell": "close", "closed": "close", "closing": "close",
    "settled": "close", "settlement": "close", "settle": "close", "sld": "close", "cls": "close", "clsd": "close", "clos": "close",
    "coe": "close", "transfer": "close", "conveyance": "close", "listing": "list", "listed": "list", "asking": "list", "ask": "list", "asked": "list", "lst": "list",
    "lstg": "list", "offering": "list", "lsting": "list", "pend": "pending", "pnd": "pending", "pended": "pending", "pendg": "pending", "contr": "contract",
    "cntrct": "contract", "contracted": "contract", "ctr": "contract", "ratified": "contract", "ratification": "contract", "binding": "contract",
    "acceptance": "accepted", "accept": "accepted", "withdrawn": "withdrawn", "withdrawal": "withdrawn", "wd": "withdrawn", "wdn": "withdrawn", "wthdrwn": "withdrawn", "withdrn": "withdrawn",
    "cancelled": "canceled", "cancel": "canceled", "cancellation": "canceled", "cxl": "canceled", "canc": "canceled", "terminated": "canceled", "termination": "canceled",
    "expire": "expired", "expires": "expired", "expiration": "expired", "expiry": "expired", "exp": "expired", "expir": "expired", "xpire": "expired",
    "recorded": "recording", "record": "recording", "rec": "recording", "recd": "recording", "recrd": "recording", "rcd": "recording", "reception": "recording",
    # money and numbers
    "amount": "price", "amt": "price", "dollars": "price", "prc": "price", "pr": "price", "cost": "price", "pric": "price",
    "num": "number", "no": "number", "nbr": "number", "id": "number", "nmbr": "number", "numb": "number", "numbr": "number", "key": "number", "identifier": "number",
    "val": "value", "valuation": "value", "vl": "value", "assessed": "assessed", "assd": "assessed", "asd": "assessed", "asmt": "assessed", "assmt": "assessed", "assess": "assessed", "assmnt": "assessed",
    "assessment": "assessed", "assessor": "assessor", "appraised": "appraised", "apprsd": "appraised", "appr": "appraised", "appraisal": "appraised",
    "pct": "percent", "ratio": "percent", "orig": "original", "initial": "original", "begin": "original", "beginning": "original", "origl": "original", "starting": "original",
    "curr": "current", "cur": "current", "latest": "current", "crnt": "current", "prev": "previous", "prior": "previous", "prv": "previous", "old": "previous",
    "tot": "total", "ttl": "total", "totl": "total", "tl": "total", "cnt": "count", "qty": "count",
    # time
    "dt": "date", "dte": "date", "dates": "date", "yr": "year", "years": "year", "mo": "month", "mth": "month", "mkt": "market", "mrkt": "market", "mktg": "marketing",
    "dom": "days market", "adom": "active days market", "cdom": "cumulative days market", "cumdom": "cumulative days market", "cum": "cumulative", "cumul": "cumulative", "cumltv": "cumulative",
    "daysonmarket": "days market", "modified": "changed", "modification": "changed", "updated": "changed", "update": "changed", "mod": "changed", "chg": "changed", "change": "changed", "changes": "changed",
    "timestamp": "timestamp", "ts": "timestamp", "time": "timestamp", "datetime": "timestamp", "upd": "changed",
    # the home
    "bedrooms": "bed", "bedroom": "bed", "beds": "bed", "br": "bed", "brs": "bed", "bdrm": "bed", "bdrms": "bed", "bd": "bed", "bds": "bed", "bedrms": "bed", "bedrm": "bed", "bdr": "bed", "bdrs": "bed",
    "baths": "bath", "bathrooms": "bath", "bathroom": "bath", "ba": "bath", "bth": "bath", "bths": "bath", "bthrm": "bath", "bathrms": "bath", "bthrms": "bath", "bathrm": "bath",
    "hlf": "half", "halfs": "half", "powder": "half", "fulls": "full", "fl": "full", "hb": "half bath", "fb": "full bath",
    "sqft": "sqft", "sf": "sqft", "sqf": "sqft", "sqfeet": "sqft", "sqfoot": "sqft", "sqfootage": "sqft", "squarefootage": "sqft", "footage": "sqft", "sft": "sqft", "ftsq": "sqft",
    "gla": "living area", "tla": "living area", "liv": "living", "lvg": "living", "livable": "living", "liveable": "living", "lvng": "living",
    "heated": "living", "htd": "living", "ht": "ht", "conditioned": "living", "habitable": "living", "resid": "residential",
    "fin": "finished", "finish": "finished", "fnshd": "finished", "finshd": "finished", "unfin": "unfinished", "unf": "unfinished", "abv": "above", "grd": "grade", "abvgrd": "above grade", "abvgr": "above grade", "ag": "above grade",
    "blw": "below", "bel": "below", "blwgr": "below grade", "bg": "below grade", "bsmt": "basement", "bsmnt": "basement", "bsm": "basement", "basmt": "basement", "bmt": "basement",
    "blt": "built", "bld": "built", "build": "built", "construct": "built", "constructed": "built", "yb": "year built", "yrblt": "year built", "ybuilt": "year built", "eyb": "effective year built", "ayb": "actual year built",
    "remod": "remodelled", "remodeled": "remodelled", "remodel": "remodelled", "renovated": "remodelled", "renov": "remodelled", "renovation": "remodelled", "updtd": "remodelled", "eff": "effective", "effyr": "effective year",
    "gar": "garage", "grg": "garage", "gge": "garage", "gara": "garage", "cars": "car", "spaces": "spaces", "space": "spaces", "spc": "spaces", "spcs": "spaces", "sp": "sp", "stalls": "spaces", "stall": "spaces", "bays": "spaces",
    "bay": "spaces", "cap": "capacity", "pkg": "parking", "prkg": "parking", "prk": "parking", "att": "attached", "attach": "attached", "attchd": "attached",
    "ac": "acres", "acre": "acres", "acreage": "acres", "acr": "acres", "acs": "acres", "lt": "lot", "dim": "dimensions", "dims": "dimensions", "dimension": "dimensions",
    "storeys": "stories", "storey": "stories", "story": "stories", "levels": "stories", "level": "level", "lvls": "stories", "lvl": "level", "floors": "floors", "flrs": "floors", "flr": "floor", "stry": "stories", "stories": "stories", "strys": "stories", "stor": "stories",
    "arch": "architectural", "architecture": "architectural", "architect": "architectural", "archit": "architectural", "styl": "style",
    "fireplaces": "fireplace", "fp": "fireplace", "fpl": "fireplace", "fplc": "fireplace", "frplc": "fireplace", "fps": "fireplace", "frpl": "fireplace", "firepl": "fireplace", "hearths": "fireplace",
    "pl": "pool", "swimming": "pool", "swim": "pool", "wtrfrnt": "waterfront", "wf": "waterfront", "wtrfront": "waterfront", "wtfrt": "waterfront", "htg": "heating", "heat": "heating", "cool": "cooling", "clg": "cooling",
    "aircond": "cooling", "airconditioning": "cooling", "conditioning": "cooling", "ext": "exterior", "exter": "exterior", "constr": "construction", "const": "construction", "matl": "materials", "material": "materials", "mat": "materials",
    "siding": "walls", "wall": "walls", "util": "utilities", "utils": "utilities", "utility": "utilities", "swr": "sewer", "sew": "sewer", "wtr": "water", "zone": "zoning", "zng": "zoning", "zon": "zoning", "znd": "zoning", "zoned": "zoning",
    "cond": "condition", "cndtn": "condition", "qual": "quality", "qlty": "quality", "front": "frontage", "ffront": "frontage", "frntg": "frontage", "frtg": "frontage", "frnt": "frontage",
    "flooring": "flooring", "flrg": "flooring", "roofing": "roof", "rf": "roof", "units": "unit", "un": "unit", "apt": "unit", "apartment": "unit", "ste": "unit", "suite": "unit",
    # the place
    "subdiv": "subdivision", "subd": "subdivision", "subdv": "subdivision", "sbdv": "subdivision", "sbdvsn": "subdivision", "subdivn": "subdivision", "subdivisn": "subdivision",
    "nbhd": "neighborhood", "nbrhd": "neighborhood", "neighbourhood": "neighborhood", "hood": "neighborhood", "nghbrhd": "neighborhood", "nhood": "neighborhood", "neigh": "neighborhood", "neighbor": "neighborhood",
    "addr": "address", "addrs": "address", "adr": "address", "adress": "address", "addrss": "address", "str": "street", "strt": "street", "strname": "street name", "hse": "house", "stname": "street name", "stno": "street number", "stnum": "street number", "hseno": "house number", "houseno": "house number",
    "dir": "direction", "predir": "pre direction", "postdir": "post direction", "directional": "direction", "sfx": "suffix", "suf": "suffix", "suff": "suffix", "sufx": "suffix", "prefix": "pre", "pfx": "pre",
    "zip": "postal", "zipcode": "postal code", "postcode": "postal code", "postalcode": "postal code", "zcode": "postal code", "zp": "postal", "cd": "code", "cty": "city", "town": "city", "municipality": "city", "muni": "city", "township": "city", "twp": "city",
    "lat": "latitude", "latit": "latitude", "lon": "longitude", "lng": "longitude", "long": "longitude", "longit": "longitude", "coord": "coordinate", "coords": "coordinate", "geolat": "latitude", "geolon": "longitude", "geolng": "longitude",
    "apn": "parcel number", "pin": "parcel number", "parc": "parcel", "prcl": "parcel", "pcl": "parcel", "prcel": "parcel", "parid": "parcel number", "pid": "parcel number", "folio": "parcel number", "ain": "parcel number", "strap": "parcel number", "bbl": "parcel number", "gpin": "parcel number",
    "prop": "property", "prpty": "property", "realty": "property", "bldg": "building", "bldng": "building", "dev": "development", "devel": "development", "proj": "project", "comm": "community", "cmplx": "complex",
    # the listing
    "mls": "mls", "mlsno": "mls number", "mlsnum": "mls number", "mlsid": "mls number", "ml": "mls", "lp": "list price", "olp": "original list price", "cp": "close price", "ld": "list date", "ltype": "type", "lid": "list number",
    "stat": "status", "sts": "status", "sta": "status", "desc": "description", "descr": "description", "descrip": "description", "descriptn": "description", "rmks": "remarks", "rmrks": "remarks", "remark": "remarks", "rem": "remarks", "comments": "remarks", "comment": "remarks", "notes": "notes",
    "pub": "public", "publ": "public", "priv": "private", "pvt": "private", "confidential": "private", "agt": "agent", "agnt": "agent", "la": "list agent", "lo": "list office", "ofc": "office", "offc": "office", "brokerage": "office", "firm": "office", "broker": "broker", "brok": "broker", "brkr": "broker", "bkr": "broker",
    "concess": "concessions", "concession": "concessions", "conc": "concessions", "concssn": "concessions", "credits": "credit", "contribution": "credit", "contrib": "credit", "contributions": "credit", "slr": "seller", "sellers": "seller", "paid": "paid",
    "hoa": "association", "assoc": "association", "assn": "association", "asn": "association", "poa": "association", "fees": "fee", "dues": "fee", "maint": "maintenance", "freq": "frequency", "frq": "frequency", "term": "term",
    "taxes": "tax", "tx": "tax", "txs": "tax", "annual": "annual", "ann": "annual", "annl": "annual", "yearly": "annual", "impr": "improvement", "imp": "improvement", "imprv": "improvement", "imps": "improvement", "improvements": "improvement", "impv": "improvement", "improv": "improvement", "lnd": "land", "gtor": "grantor", "gtee": "grantee",
    "seller": "seller", "buyer": "buyer", "instr": "instrument", "inst": "instrument", "doc": "document", "docs": "document", "typ": "type", "tp": "type", "ty": "type", "cat": "category", "class": "class", "sub": "sub", "subtype": "sub type", "kind": "type", "nm": "name", "names": "name", "elem": "school", "elementary": "school", "middle": "school", "high": "school", "hs": "school", "sch": "school", "schl": "school", "schools": "school", "district": "district", "dist": "district",
    "pool": "pool", "of": "", "the": "", "in": "", "on": "on", "is": "", "a": "", "has": "", "and": "", "or": "", "for": "for", "by": "by", "to": "to", "usd": "", "us": "", "yn": "yn", "flag": "yn", "ind": "yn", "indicator": "yn", "info": "", "which": "", "went": "", "came": "", "txt": "", "char": "", "int": "", "flt": "", "f": "full", "h": "half", "sz": "size", "plot": "lot", "own": "owner", "apr": "appraised", "sfla": "living area", "rmbed": "bed", "fixbath": "full bath", "fixhalf": "half bath", "ctrct": "contract", "lstd": "list", "rm": "room", "ownr": "owner", "blgd": "building", "residence": "residence", "levied": "levied", "got": "close", "fetched": "close", "agreed": "agreed", "brd": "bed", "flbth": "full bath", "hfbth": "half bath", "fbth": "full bath", "hbth": "half bath", "with": "", "s": "", "loc": "location", "acct": "account", "mktval": "market value", "details": "",
}  # fmt: skip
_SPLIT = re.compile(r"[A-Z]+(?![a-z])|[A-Z]?[a-z]+|\d+")
_BEFORE = (
    (re.compile(r"(?:\b|_)1\s*/\s*2(?:\b|_)|½"), " half "), (re.compile(r"(?:\b|_)3\s*/\s*4(?:\b|_)|¾"), " threequarter "),
    (re.compile(r"\$\s*/|(?:price|prc|\$)\s*(?:per|/)\s*", re.IGNORECASE), " price per "), (re.compile(r"\$"), " dollars "), (re.compile(r"#"), " number "),
    (re.compile(r"%"), " percent "), (re.compile(r"\by\s*/\s*n\b|_yn\b|\(y\)", re.IGNORECASE), " yn "), (re.compile(r"\ba\s*/\s*c\b", re.IGNORECASE), " cooling "),
    (re.compile(r"\bsq(?:uare)?[\s._]*(?:ft|feet|foot|footage)\b|\bft(?:²|2|\^2)|(?<=[a-z_\s])sq[\s._]*ft", re.IGNORECASE), " sqft "),
    (re.compile(r"SqFt|SQFT|Sqft|sqft|SquareFeet|SqFeet|SqFoot|SquareFootage|SquareFoot"), " sqft "),
    (re.compile(r"\bm(?:²|2)\b|\bsq(?:uare)?\.?\s*m(?:et(?:er|re)s?)?\b|\bsqm\b", re.IGNORECASE), " sqm "),
    (re.compile(r"(?<=[A-Za-z])YN$|(?<=[a-z])Yn$"), " yn "), (re.compile(r"\bYr\b|(?<![A-Za-z])YR(?=[A-Z])"), " year "),
)  # fmt: skip
_SIGNS = re.compile(r"[^A-Za-z0-9]+")
_WHOLE = {  # words of several parts that splitting at case would tear apart or that are often written together
    "waterfront", "fireplace", "basement", "subdivision", "neighborhood", "neighbourhood", "remodelled", "timestamp", "township",
    "bathrooms", "bedrooms", "withdrawn", "unfinished", "footage", "townhouse",
}  # fmt: skip
_MORE = [
    "above", "account", "acres", "address", "after", "agent", "amount", "annual", "architectural", "area", "assessed", "association", "attached",
    "basement", "bath", "bed", "before", "below", "book", "building", "built", "buyer", "canceled", "car", "changed", "city", "close", "code",
    "concessions", "condition", "conditions", "construction", "contract", "cooling", "count", "county", "cumulative", "current", "date", "days", "deed",
    "depth", "description", "dimensions", "direction", "district", "document", "dwelling", "effective", "entry", "event", "exemption", "expired",
    "exterior", "features", "fee", "feet", "finished", "fireplace", "first", "frequency", "front", "frontage", "full", "garage", "grade", "grantee",
    "grantor", "gross", "half", "heating", "homestead", "house", "improvement", "instrument", "just", "land", "last", "latitude", "legal", "level",
    "levy", "list", "living", "longitude", "lot", "mail", "mailing", "main", "market", "master", "materials", "mls", "name", "net", "new", "number",
    "off", "office", "old", "on", "original", "owner", "page", "parcel", "parcels", "pending", "per", "percent", "photo", "pool", "postal", "prefix",
    "price", "private", "property", "public", "quality", "recorded", "recording", "remarks", "residential", "roll", "roof", "room", "rooms", "sale",
    "school", "seller", "sewer", "site", "situs", "size", "sold", "spaces", "special", "state", "status", "stories", "street", "style", "sub",
    "subdivision", "suffix", "tax", "taxable", "timestamp", "total", "tour", "transaction", "type", "unit", "units", "value", "view", "virtual", "walls",
    "water", "waterfront", "width", "withdrawn", "year", "zoning",
]  # fmt: skip


def _known() -> frozenset[str]:
    return frozenset({*(w for w in _FOLDED if len(w) > 2), *_MORE, *_WHOLE})


_KNOWN = _known()
_LONGEST = max(map(len, _KNOWN))


@lru_cache(maxsize=20_000)
def words_of(head: str) -> tuple[str, ...]:
    """The plain words of a head, in its order; those of no meaning ("the", "USD") are left out."""
    text = head
    for pattern, to in _BEFORE:
        text = pattern.sub(to, text)
    out: list[str] = []
    for whole in _SIGNS.split(text):
        for word in [whole] if whole.lower() in _FOLDED else _SPLIT.findall(whole):
            low = word.lower()
            for part in [low] if low in _FOLDED or low in _KNOWN or len(low) < 5 else _apart(low):
                out += _FOLDED.get(part, part).split()
    told = [w for w in out if not w.isdigit() or len(w) == 4 or w in "23456789"]
    return tuple(w for w in told if len(w) > 1 or w.isdigit()) or tuple(told)


def _apart(word: str) -> list[str]:
    """A long word as the known words of which it is made ("yearbuilt" → year, built); as it is where it is not."""
    best: list[tuple[float, list[str]] | None] = [(0.0, []), *([None] * len(word))]
    for end in range(2, len(word) + 1):
        for start in range(max(0, end - _LONGEST), end - 1):
            before = best[start]
            part = word[start:end]
            if before is None or (part not in _KNOWN and not (len(part) == 2 and part in _PAIRS)):
                continue
            cost = before[0] + 1.0 + (1.5 if len(part) == 2 else 0.6 if len(part) == 3 else 0.0)
            if best[end] is None or cost < best[end][0]:  # type: ignore[index]
                best[end] = cost, [*before[1], part]
    found = best[len(word)]
    return found[1] if found is not None and found[0] < 1.4 + 0.55 * len(word) else [word]


_PAIRS = {
    "pr",
    "pd",
    "sz",
    "lt",
    "rm",
    "bd",
    "sq",
    "hb",
    "fb",
    "id",
    "no",
    "dt",
    "yr",
    "sf",
    "br",
    "ba",
    "ac",
    "fp",
    "yn",
    "of",
    "on",
    "in",
    "st",
    "nm",
    "mo",
    "cd",
}
