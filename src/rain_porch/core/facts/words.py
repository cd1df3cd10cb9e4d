"""The words of the job: statuses, kinds of record, kinds of home, and how source words map to them.

Statuses are RESO StandardStatus. Kinds of record group them the way an agent reads them.
"""

from __future__ import annotations

import re
from enum import StrEnum

from ..phrases import phrase


class Status(StrEnum):
    """The standard statuses of a listing, as the RESO Data Dictionary spells them."""

    COMING_SOON = "Coming Soon"
    ACTIVE = "Active"
    ACTIVE_UNDER_CONTRACT = "Active Under Contract"
    PENDING = "Pending"
    CLOSED = "Closed"
    EXPIRED = "Expired"
    WITHDRAWN = "Withdrawn"
    CANCELED = "Canceled"
    HOLD = "Hold"


class RecordKind(StrEnum):
    """What a record is on a day: the kinds that searches and statistics keep apart."""

    SOLD = "sold"
    DEED_SALE = "deed_sale"
    UNDER_CONTRACT = "under_contract"
    FOR_SALE = "for_sale"
    FAILED = "failed"
    PAUSED = "paused"


COUNTED = (
    RecordKind.SOLD,
    RecordKind.DEED_SALE,
    RecordKind.UNDER_CONTRACT,
    RecordKind.FOR_SALE,
    RecordKind.FAILED,
)

KIND_OF_STATUS = {
    Status.COMING_SOON: RecordKind.FOR_SALE,
    Status.ACTIVE: RecordKind.FOR_SALE,
    Status.ACTIVE_UNDER_CONTRACT: RecordKind.UNDER_CONTRACT,
    Status.PENDING: RecordKind.UNDER_CONTRACT,
    Status.CLOSED: RecordKind.SOLD,
    Status.EXPIRED: RecordKind.FAILED,
    Status.WITHDRAWN: RecordKind.FAILED,
    Status.CANCELED: RecordKind.FAILED,
    Status.HOLD: RecordKind.PAUSED,
}


class HomeKind(StrEnum):
    """The kinds of home."""

    DETACHED = "detached"
    ATTACHED = "attached"
    CONDOMINIUM = "condominium"
    COOPERATIVE = "cooperative"
    MANUFACTURED = "manufactured"
    SMALL_MULTI_FAMILY = "small_multi_family"
    LAND = "land"
    ACREAGE = "acreage"
    UNKNOWN = "unknown"


LAND_KINDS = (HomeKind.LAND, HomeKind.ACREAGE)

TOLD_APART = (Status.ACTIVE_UNDER_CONTRACT, Status.PENDING, Status.EXPIRED, Status.WITHDRAWN, Status.CANCELED)
"""The statuses that an agent tells apart within one kind of record."""


def record_words(kind: RecordKind) -> str:
    """A kind of record within a sentence: "sold by deed"."""
    return phrase(f"kind-{kind.value}")


def home_plural(kind: HomeKind | str) -> str:
    """A kind of home, in many: "detached homes"."""
    return phrase(f"homes-of-kind-{HomeKind(kind).value}")


def status_words(status: Status) -> str:
    """A status within a sentence: "under contract with conditions"."""
    return phrase(f"standard-status-{status.name.lower()}")


_PLAIN = re.compile(r"[^a-z0-9]+")
_BETWEEN = re.compile(r"[\W_]+")

_STATUS_WORDS = {
    "comingsoon": Status.COMING_SOON,
    "active": Status.ACTIVE,
    "forsale": Status.ACTIVE,
    "new": Status.ACTIVE,
    "activeundercontract": Status.ACTIVE_UNDER_CONTRACT,
    "undercontract": Status.ACTIVE_UNDER_CONTRACT,
    "contingent": Status.ACTIVE_UNDER_CONTRACT,
    "pending": Status.PENDING,
    "closed": Status.CLOSED,
    "sold": Status.CLOSED,
    "expired": Status.EXPIRED,
    "withdrawn": Status.WITHDRAWN,
    "canceled": Status.CANCELED,
    "cancelled": Status.CANCELED,
    "terminated": Status.CANCELED,
    "hold": Status.HOLD,
    "onhold": Status.HOLD,
    "temporarilyoffmarket": Status.HOLD,
}

_HOME_WORDS = (
    ("cooperative", HomeKind.COOPERATIVE),
    ("stockcoop", HomeKind.COOPERATIVE),
    ("coop", HomeKind.COOPERATIVE),
    ("condo", HomeKind.CONDOMINIUM),
    ("apartment", HomeKind.CONDOMINIUM),
    ("manufactured", HomeKind.MANUFACTURED),
    ("mobile", HomeKind.MANUFACTURED),
    ("duplex", HomeKind.SMALL_MULTI_FAMILY),
    ("triplex", HomeKind.SMALL_MULTI_FAMILY),
    ("quadruplex", HomeKind.SMALL_MULTI_FAMILY),
    ("multifamily", HomeKind.SMALL_MULTI_FAMILY),
    ("residentialincome", HomeKind.SMALL_MULTI_FAMILY),
    ("fourplex", HomeKind.SMALL_MULTI_FAMILY),
    ("twofamily", HomeKind.SMALL_MULTI_FAMILY),
    ("threefamily", HomeKind.SMALL_MULTI_FAMILY),
    ("fourfamily", HomeKind.SMALL_MULTI_FAMILY),
    ("multifam", HomeKind.SMALL_MULTI_FAMILY),
    ("townhouse", HomeKind.ATTACHED),
    ("townhome", HomeKind.ATTACHED),
    ("rowhouse", HomeKind.ATTACHED),
    ("semidetached", HomeKind.ATTACHED),
    ("singlefamilyattached", HomeKind.ATTACHED),
    ("twnhs", HomeKind.ATTACHED),
    ("twinhome", HomeKind.ATTACHED),
    ("villa", HomeKind.ATTACHED),
    ("patiohome", HomeKind.DETACHED),
    ("singlefamily", HomeKind.DETACHED),
    ("singlefam", HomeKind.DETACHED),
    ("onefamily", HomeKind.DETACHED),
    ("onefam", HomeKind.DETACHED),
    ("1family", HomeKind.DETACHED),
    ("1fam", HomeKind.DETACHED),
    ("unattached", HomeKind.DETACHED),
    ("detached", HomeKind.DETACHED),
    ("attached", HomeKind.ATTACHED),
    ("house", HomeKind.DETACHED),
    ("acreage", HomeKind.ACREAGE),
    ("farm", HomeKind.ACREAGE),
    ("land", HomeKind.LAND),
    ("vacant", HomeKind.LAND),
    ("lot", HomeKind.LAND),
)
# letters and abbreviations, which mean a kind only where they stand alone
HOME_CODES = {
    code: kind
    for kind, codes in {
        HomeKind.DETACHED: "sf sfr sfd sfh sfam sgl sglfam det dtch snglfam singlfam single sfres detch sfdet resdet sngfam",
        HomeKind.ATTACHED: "th twn twnh twnhm twnhs twnhse thse town sfa att attch rowhome rowhse thm twhs row townhm",
        HomeKind.CONDOMINIUM: "co cnd cond con cndo apt unit flat cdo hirise midrise loft cnda highrise",
        HomeKind.COOPERATIVE: "cp cop coopunit",
        HomeKind.MANUFACTURED: "mh mfd mfg mob mobi manuf mnf manu mobl dwmobile mfh modular dwmh swmh doublewide singlewide",
        HomeKind.SMALL_MULTI_FAMILY: "mf mul mult multi mfam dup dplx duplx twofmcon 2fmcon 2fam 24fam 24units 2to4 24plex 2family 3family 4family multi24 fmly2 24 inc income rinc plex 4plex 3plex 2plex 2unit 3unit 4unit quad",
        HomeKind.LAND: "lnd lots vac vl ll lotsland",
        HomeKind.ACREAGE: "acr farmranch ranchland frm ag agri",
    }.items()
    for code in codes.split()
}


def plain(text: str) -> str:
    """Lower case, letters and digits only: how two spellings of one word are compared."""
    return _PLAIN.sub("", text.lower())


def as_typed(text: str) -> str:
    """Small letters and digits of any alphabet, with one blank for all signs between: how what is typed of a name is compared
    with it. "North_Ames" → north ames."""
    return _BETWEEN.sub(" ", text.casefold()).strip()


def status_of(word: str) -> Status | None:
    """The standard status that a source's word means, or None. "Sold" → Closed."""
    return _STATUS_WORDS.get(plain(word))


def home_kind_of(property_type: str | None, property_sub_type: str | None) -> HomeKind:
    """The kind of home from RESO PropertySubType, else PropertyType.

    "Single Family Residence" → detached; "Townhouse" → attached; nothing known → unknown, a kind of its own.
    """
    for text in (property_sub_type, property_type):
        word = plain(text or "")
        if word in HOME_CODES:
            return HOME_CODES[word]
        for part, kind in _HOME_WORDS:
            if part in word:
                return kind
    return HomeKind.UNKNOWN


def is_lease(property_type: str | None) -> bool:
    """Leases never count as sales. RESO PropertyType "Residential Lease", "Commercial Lease"."""
    word = plain(property_type or "")
    return "lease" in word or "rental" in word


_NOT_ARMS_LENGTH = ("family", "notarmslength", "relocationinternal", "nonarms", "related")
_DISTRESSED = (
    "bankowned",
    "reo",
    "foreclos",
    "auction",
    "shortsale",
    "realestateowned",
    "sheriff",
    "hud",
    "abnorml",
)


def sale_manner(special_listing_conditions: str | None) -> str:
    """ "standard", "distressed" or "not_arms_length" from RESO SpecialListingConditions."""
    word = plain(special_listing_conditions or "")
    if any(part in word for part in _NOT_ARMS_LENGTH):
        return "not_arms_length"
    if any(part in word for part in _DISTRESSED):
        return "distressed"
    return "standard"


SELLERS = ("owner", "builder", "bank", "auction")
_BANK = ("bankowned", "reo", "realestateowned", "foreclos", "hud", "abnorml", "sheriff")


def seller_of(special_listing_conditions: str | None, new_construction: bool) -> str:
    """Who sells: "auction" or "bank" from RESO SpecialListingConditions, "builder" of new construction, else "owner"."""
    word = plain(special_listing_conditions or "")
    if "auction" in word:
        return "auction"
    if any(part in word for part in _BANK):
        return "bank"
    return "builder" if new_construction else "owner"
