"""The search that a home itself suggests."""

from __future__ import annotations

from dataclasses import replace

from ..facts.homes import Subject
from ..facts.house_rules import USUAL, HouseRules
from ..facts.words import LAND_KINDS, HomeKind, RecordKind
from .search import DEFAULT_WINDOWS, Criterion, Search, Window

_BANDS = ((1000, 200), (2000, 250), (3000, 300), (4000, 400), (5000, 500))


def area_band(living_area: float, rules: HouseRules = USUAL) -> tuple[float, float]:
    """Living-area band of the proposed search, in sq ft (common practice). 1,600 → 1,350–1,850."""
    half = next((h for limit, h in _BANDS if living_area < limit), 1000) * rules["search.area_band_pct"] / 100
    return max(0.0, living_area - half), living_area + half


def share_band(value: float, percent: float) -> tuple[float, float]:
    """A band in percent of a value: 4,000 at 15 % → 3,400–4,600."""
    return value * (1 - percent / 100), value * (1 + percent / 100)


DISTRESSED_MARKET = 0.25


def _own_project(subject: Subject) -> list[Criterion]:
    """A unit is looked for inside its own building or project first."""
    for name_of in ("building_name", "subdivision_name"):
        name = subject.word(name_of)
        if name:
            return [Criterion(name_of, words=(name,))]
    return []


def proposed_search(
    subject: Subject, effective_year: int, distressed_share: float = 0.0, rules: HouseRules = USUAL
) -> Search:
    """The search that a home itself suggests: same kind, 1 mile, sold in 180 days, area band, full baths; a unit starts
    inside its own project.

    distressed_share: of the year's sales; distressed ones are kept where they are a quarter of the market or more.
    """
    criteria: list[Criterion] = []
    area, lot, baths = (subject.number(n) for n in ("living_area", "lot_size_square_feet", "bathrooms_full"))
    if subject.home_kind in LAND_KINDS:
        if lot:
            criteria.append(Criterion("lot_size_square_feet", *share_band(lot, rules["search.land_lot_pct"])))
    else:
        if subject.home_kind in (HomeKind.CONDOMINIUM, HomeKind.COOPERATIVE):
            criteria += _own_project(subject)
        if area:
            criteria.append(Criterion("living_area", *area_band(area, rules)))
        if baths:
            criteria.append(Criterion("bathrooms_full", low=baths - 1 if baths >= 3 else baths))
    built = subject.number("year_built")
    if not subject.placed:
        return Search(
            home_kinds=(subject.home_kind.value,),
            radius_miles=None,
            windows=_windows(rules),
            criteria=(*_neighbourhood(subject), *criteria),
            leave_out_new_construction=built is None or built < effective_year - 1,
            leave_out_distressed=distressed_share < DISTRESSED_MARKET,
        )
    return Search(
        home_kinds=(subject.home_kind.value,),
        radius_miles=rules["search.radius_miles"],
        windows=_windows(rules),
        criteria=tuple(criteria),
        leave_out_new_construction=built is None or built < effective_year - 1,
        leave_out_distressed=distressed_share < DISTRESSED_MARKET,
    )


def _windows(rules: HouseRules) -> dict[str, Window]:
    """The usual windows, as far back as the rules say."""
    sold, failed = rules.whole("search.sold_days"), rules.whole("search.failed_days")
    days = {RecordKind.SOLD: sold, RecordKind.DEED_SALE: sold, RecordKind.FAILED: failed}
    return {kind: replace(w, days=days.get(RecordKind(kind), w.days)) for kind, w in DEFAULT_WINDOWS.items()}


def _neighbourhood(subject: Subject) -> list[Criterion]:
    """What stands in the place of a radius where it is not known where the home stands: its postal code, else its city,
    else its subdivision."""
    for name in ("postal_code", "city", "subdivision_name"):
        if (word := subject.word(name)) is not None:
            return [Criterion(name, words=(word,))]
    return []
