"""The field catalogue: one row a field, the single source for search, grid, table, report and interface.

Names are those of the RESO Data Dictionary (an open standard) in snake_case; `reso` is the standard's own
spelling, which is also the native column name of our files.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from ..phrases import has_phrase, phrase
from .people import tells_who_lives_there


class Kind(StrEnum):
    """What a field holds, and so how it is read, compared and shown."""

    NUMBER = "number"
    MONEY = "money"
    YEAR = "year"
    DATE = "date"
    TIME = "time"
    YES_NO = "yes_no"
    WORD = "word"  # one of a few words: can be listed and counted
    TEXT = "text"  # free text


NUMERIC = frozenset({Kind.NUMBER, Kind.MONEY, Kind.YEAR, Kind.YES_NO})


@dataclass(frozen=True)
class Effect:
    """What a feature does to a price as believed before any sale is seen: a house rule of the fit.

    prior            effect on log price of one unit (of the logarithm where `log`); prior_sd: how far markets stray from it
    only_where_told  a line of the grid only where the sales here tell that it matters beyond the rest (a bedroom beyond
                     the area that it takes)
    """

    prior: float
    prior_sd: float
    log: bool = False
    only_where_told: bool = False


@dataclass(frozen=True)
class Pairing:
    """Of two sales that are compared in one feature: how far they may differ in a feature that they are to agree on
    (`same`), and the least and most by which they differ in the feature itself: more is another kind of home.
    As shares where the field is `relative`."""

    same: float = 0.0
    least: float = 1.0
    most: float = 2.0


@dataclass(frozen=True)
class Apart:
    """A difference from the subject is said, by phrases of the field. least: smaller ones are not (a share of the subject's value
    where `share`)."""

    least: float = 1e-9
    share: bool = False


@dataclass(frozen=True)
class Field:
    """One field of a record.

    step       display and what-if step, in the field's unit
    low, high  what is believable; values outside are kept but marked suspect
    asked_above, slips  what is asked about before a correction is taken: an unusual number; three times what the records say
    tolerance  difference at which likeness falls to 0 (as a share of the subject's value where `relative`)
    weight     weight in likeness
    adjusted   has a line in the grid
    effect, land_effect  in the fit of prices, of built homes and of land
    pairing    in paired sales; apart: in words of difference
    private    never reaches a client's paper
    stored     a column of the records; else worked out when it is needed
    called     the label of an office's own field, in whose name its head stands; all others have theirs in language/
    """

    name: str
    reso: str
    kind: Kind
    unit: str = ""
    group: str = "home"
    step: float = 1.0
    low: float | None = None
    high: float | None = None
    tolerance: float = 0.0
    relative: bool = False
    weight: float = 0.0
    adjusted: bool = False
    effect: Effect | None = None
    land_effect: Effect | None = None
    pairing: Pairing = Pairing()
    apart: Apart | None = None
    asked_above: float | None = None
    slips: bool = False
    searched: bool = True
    shown: bool = False
    parcel: bool = False
    private: bool = False
    stored: bool = True
    called: str = ""

    @property
    def label(self) -> str:
        """What it is called."""
        return self.called or phrase(f"field-{self.name}")

    @property
    def short(self) -> str:
        """What it is called over a narrow column; "" where its label is short enough."""
        return self.said("short")

    @property
    def one(self) -> str:
        """What one unit of it is called in the grid; "" where it has no line there."""
        return phrase("one-step-of-rank") if self.name.startswith(RANK) else self.said("one")

    def said(self, part: str, **values: str | float) -> str:
        """A part of its phrase, such as "more"; "" where it has none."""
        key = f"field-{self.name}.{part}"
        return phrase(key, **values) if not self.called and has_phrase(key) else ""

    @property
    def numeric(self) -> bool:
        """Whether it is held as a number (yes and no are 1 and 0)."""
        return self.kind in NUMERIC


N, M, Y, D, B, W, T = (
    Kind.NUMBER,
    Kind.MONEY,
    Kind.YEAR,
    Kind.DATE,
    Kind.YES_NO,
    Kind.WORD,
    Kind.TEXT,
)

CATALOGUE: tuple[Field, ...] = (
    # what it is
    Field("listing_id", "ListingId", T, group="record", searched=False),
    Field("parcel_number", "ParcelNumber", T, group="record", parcel=True),
    Field("standard_status", "StandardStatus", W, group="record", searched=False),
    Field("local_status", "MlsStatus", W, group="record"),
    Field("property_type", "PropertyType", W, group="record", parcel=True),
    Field("property_sub_type", "PropertySubType", W, group="record", parcel=True),
    # where it is
    Field("unparsed_address", "UnparsedAddress", T, group="place", parcel=True),
    Field("unit_number", "UnitNumber", T, group="place", parcel=True),
    Field("city", "City", W, group="place", parcel=True),
    Field("postal_code", "PostalCode", W, group="place", parcel=True),
    Field("subdivision_name", "SubdivisionName", W, group="place", weight=0.6, parcel=True),
    Field("location", "Location", N, "%", "place", adjusted=True, searched=False, stored=False),
    Field("latitude", "Latitude", N, "°", "place", searched=False, low=-90, high=90, parcel=True),
    Field("longitude", "Longitude", N, "°", "place", searched=False, low=-180, high=180, parcel=True),
    # when
    Field("on_market_date", "OnMarketDate", D, group="dates"),
    Field("purchase_contract_date", "PurchaseContractDate", D, group="dates"),
    Field("close_date", "CloseDate", D, group="dates"),
    Field("off_market_date", "OffMarketDate", D, group="dates"),
    Field("expiration_date", "ExpirationDate", D, group="dates", searched=False),
    Field("modification_timestamp", "ModificationTimestamp", Kind.TIME, group="dates", searched=False),
    # money
    Field("list_price", "ListPrice", M, "$", "price", step=1000, low=200, high=5e7, shown=True),
    Field("original_list_price", "OriginalListPrice", M, "$", "price", step=1000, low=200, high=5e7),
    Field("close_price", "ClosePrice", M, "$", "price", step=1000, low=200, high=5e7, shown=True),
    Field("concessions_amount", "ConcessionsAmount", M, "$", "price", step=500, low=0, high=500_000,
          adjusted=True),
    # the home
    Field("living_area", "LivingArea", N, "sq ft", step=50, low=150, high=20_000,
          tolerance=0.40, relative=True, weight=2.2, adjusted=True, shown=True, parcel=True,
          effect=Effect(0.62, 0.15, log=True), pairing=Pairing(0.06, 0.10, 0.45), slips=True,
          apart=Apart(1)),
    Field("above_grade_finished_area", "AboveGradeFinishedArea", N, "sq ft", step=50,
          low=150, high=20_000, parcel=True,
          slips=True),
    Field("below_grade_finished_area", "BelowGradeFinishedArea", N, "sq ft",
          step=50, low=0, high=10_000, tolerance=1200, weight=0.5, adjusted=True, parcel=True,
          effect=Effect(0.00006, 0.00006), pairing=Pairing(150, 250, 2500),
          apart=Apart(50)),
    Field("basement", "Basement", W, parcel=True),
    Field("lot_size_square_feet", "LotSizeSquareFeet", N, "sq ft", step=500, low=200, high=5e8,
          tolerance=1.5, relative=True, weight=0.6, adjusted=True, shown=True, parcel=True,
          effect=Effect(0.08, 0.08, log=True), land_effect=Effect(0.6, 0.25, log=True),
          pairing=Pairing(0.25, 0.4, 2.0), slips=True,
          apart=Apart(0.15, share=True)),
    Field("year_built", "YearBuilt", Y, step=5, low=1700, high=2100, tolerance=45,
          weight=1.2, adjusted=True, shown=True, parcel=True,
          effect=Effect(0.003, 0.003), pairing=Pairing(8, 12, 60),
          apart=Apart(3)),
    Field("year_remodelled", "YearBuiltEffective", Y, step=5, low=1700,
          high=2100, adjusted=True, parcel=True,
          effect=Effect(0.001, 0.0015), pairing=Pairing(12, 15, 60)),
    Field("bedrooms_total", "BedroomsTotal", N, low=0, high=20, tolerance=3, weight=0.5,
          adjusted=True, shown=True, parcel=True,
          effect=Effect(0.0, 0.015, only_where_told=True), asked_above=12,
          apart=Apart()),
    Field("bathrooms_full", "BathroomsFull", N, low=0, high=15, tolerance=2.5,
          weight=0.8, adjusted=True, shown=True, parcel=True,
          effect=Effect(0.04, 0.04), asked_above=8,
          apart=Apart()),
    Field("bathrooms_half", "BathroomsHalf", N, low=0, high=10, tolerance=2.5,
          weight=0.4, adjusted=True, shown=True, parcel=True,
          effect=Effect(0.02, 0.03), asked_above=5,
          apart=Apart()),
    Field("bathrooms_total", "BathroomsTotalInteger", N, group="sums", low=0, high=25, stored=False),
    Field("stories", "Stories", N, low=1, high=60, step=0.5, tolerance=1.6, weight=0.5, parcel=True,
          apart=Apart()),
    Field("architectural_style", "ArchitecturalStyle", W, weight=0.3, parcel=True,
          apart=Apart()),
    Field("garage_spaces", "GarageSpaces", N, low=0, high=12, tolerance=3, weight=0.5,
          adjusted=True, shown=True, parcel=True,
          effect=Effect(0.04, 0.03), asked_above=8,
          apart=Apart()),
    Field("attached_garage_yn", "AttachedGarageYN", B, parcel=True),
    Field("fireplaces_total", "FireplacesTotal", N, low=0, high=10, tolerance=3, weight=0.2, adjusted=True, parcel=True,
          effect=Effect(0.025, 0.025), asked_above=6),
    Field("main_level_bedrooms", "MainLevelBedrooms", N, low=0, high=10),
    Field("number_of_units_total", "NumberOfUnitsTotal", N, low=1, high=1000, parcel=True),
    Field("pool_private_yn", "PoolPrivateYN", B, tolerance=1.01, weight=0.3, adjusted=True, parcel=True,
          effect=Effect(0.03, 0.04), apart=Apart()),
    Field("waterfront_yn", "WaterfrontYN", B, tolerance=1.01, weight=0.5, adjusted=True, parcel=True,
          effect=Effect(0.12, 0.12), land_effect=Effect(0.2, 0.2),
          apart=Apart()),
    Field("new_construction_yn", "NewConstructionYN", B),
    Field("builder_name", "BuilderName", W),
    Field("property_condition", "PropertyCondition", W),
    Field("condition_grade", "ConditionGrade", N, step=1, low=1, high=6,
          tolerance=3, weight=0.6, adjusted=True, searched=False, stored=False,
          effect=Effect(0.05, 0.04), pairing=Pairing(0.5, 1.0, 3.0), apart=Apart()),
    Field("heating", "Heating", W, parcel=True),
    Field("cooling", "Cooling", W, parcel=True),
    Field("utilities", "Utilities", W),
    Field("flooring", "Flooring", W),
    Field("construction_materials", "ConstructionMaterials", W, parcel=True),
    Field("roof", "Roof", W, parcel=True),
    Field("construction_quality", "ConstructionQuality", W, parcel=True),
    Field("building_name", "BuildingName", W, group="place", parcel=True),
    Field("entry_level", "EntryLevel", N, low=-3, high=120, parcel=True),
    Field("sewer", "Sewer", W, parcel=True),
    Field("water_source", "WaterSource", W, parcel=True),
    Field("zoning", "Zoning", W, parcel=True),
    Field("frontage_length", "FrontageLength", N, "ft", low=0, high=50_000, step=10, parcel=True),
    Field("land_lease_yn", "LandLeaseYN", B, parcel=True),
    Field("gross_scheduled_income", "GrossScheduledIncome", M, "$", "costs", low=0, high=5e6, step=1000),
    Field("lot_features", "LotFeatures", W, parcel=True),
    Field("view", "View", W, parcel=True),
    Field("special_listing_conditions", "SpecialListingConditions", W),
    # costs
    Field("association_fee", "AssociationFee", M, "$", "costs", step=10, low=0, high=20_000),
    Field("association_fee_frequency", "AssociationFeeFrequency", W, group="costs"),
    Field("tax_annual_amount", "TaxAnnualAmount", M, "$", "costs", step=100, low=0, high=500_000,
          parcel=True,
          slips=True),
    Field("tax_assessed_value", "TaxAssessedValue", M, "$", "costs", step=1000, low=0, high=5e7,
          parcel=True,
          slips=True),
    # as the source counts
    Field("days_on_market", "DaysOnMarket", N, "days", "source", low=0, high=5000),
    Field("cumulative_days_on_market", "CumulativeDaysOnMarket", N, "days", "source",
          low=0, high=10_000),
    # words
    Field("public_remarks", "PublicRemarks", T, group="words"),
    Field("private_remarks", "PrivateRemarks", T, group="words", private=True, searched=False),
    Field("list_agent_full_name", "ListAgentFullName", T, group="words", private=True, searched=False),
    Field("list_office_name", "ListOfficeName", T, group="words", private=True, searched=False),
)  # fmt: skip

FIELDS: tuple[Field, ...] = tuple(f for f in CATALOGUE if f.stored)

OWN = "own_"  # before the name of a column that a file brought and that is no field of the catalogue
RANK = (
    "rank_of_"  # before the name of an own field whose words have an order: where its word stands, from 1 for the least
)
OWN_KINDS: dict[str, Kind] = {"number": Kind.NUMBER, "words": Kind.WORD, "yes": Kind.YES_NO, "date": Kind.DATE}
_OWN = re.compile(r"own_(number|words|yes|date)_([a-z0-9]+(?:_[a-z0-9]+)*)")


def own_name(kind: str, head: str) -> str:
    """The name under which a column is kept as a field of the office's own. "words", "Zone Cd." → own_words_zone_cd."""
    parts = re.findall(r"[a-z0-9]+", head.lower())
    return f"{OWN}{kind}_{'_'.join(parts)[:48].strip('_') or 'column'}"


def own_field(name: str) -> Field | None:
    """The field that an own name stands for: its name alone says what it is; None for any other name, and for what would tell who
    lives somewhere."""
    found = _OWN.fullmatch(name.removeprefix(RANK))
    if found is None or len(name.removeprefix(RANK)) > 64:
        return None
    label = found[2].replace("_", " ")
    if tells_who_lives_there(label):
        return None
    called = label[0].upper() + label[1:]
    if name.startswith(RANK):
        return Field(name, name, Kind.NUMBER, group="own", called=called) if found[1] == "words" else None
    return Field(name, name, OWN_KINDS[found[1]], group="own", parcel=True, called=called)


class _Catalogue(dict[str, Field]):
    """Fields by name; those of the office's own are made of their names."""

    def __missing__(self, name: str) -> Field:
        made = own_field(name) if isinstance(name, str) else None
        if made is None:
            raise KeyError(name)
        return made

    def __contains__(self, name: object) -> bool:
        return super().__contains__(name) or (isinstance(name, str) and own_field(name) is not None)

    def get(self, name: str, default: Any = None) -> Any:
        try:
            return self[name]
        except KeyError:
            return default


BY_NAME: dict[str, Field] = _Catalogue({f.name: f for f in CATALOGUE})
BY_RESO: dict[str, Field] = {f.reso.lower(): f for f in FIELDS}

ADJUSTED: tuple[str, ...] = tuple(f.name for f in CATALOGUE if f.adjusted and f.name != "concessions_amount")
PARCEL: tuple[Field, ...] = tuple(f for f in FIELDS if f.parcel)
HOME_FACTS: tuple[str, ...] = tuple(f.name for f in FIELDS if f.group == "home")
PRIVATE: frozenset[str] = frozenset(f.name for f in FIELDS if f.private)


def names(fields: Iterable[Field]) -> tuple[str, ...]:
    """The names of fields, in their order."""
    return tuple(f.name for f in fields)


def field(name: str) -> Field:
    """The field called `name` (ours or RESO's spelling). Raises KeyError for a name that is neither."""
    return BY_NAME.get(name) or BY_RESO[name.lower()]


# lines of the grid that no field of the records holds
_LINES = ("concessions", "market_change", "improvements")
OWN_LINE = "own: "  # before the name of a feature of the agent's own


def line_label(name: str) -> str:
    """A grid line's name as people read it; one of the agent's own by its own name."""
    if name in _LINES:
        return phrase(f"grid-line-{name}")
    return BY_NAME[name].label if name in BY_NAME else name.removeprefix(OWN_LINE)
