"""What an agent can do to a workup: each change is a small document, applied by a pure function that says what it did."""

from __future__ import annotations

import datetime as dt
import re
from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field

from ...core.errors import BadInput
from ...core.facts.condition import said as condition_said
from ...core.facts.dates import said
from ...core.facts.fields import ADJUSTED, BY_NAME, OWN_LINE, Kind, own_field
from ...core.facts.house_rules import HouseRules
from ...core.facts.house_rules import checked as checked_rule
from ...core.facts.improvements import check_improvement
from ...core.facts.money import dollars
from ...core.price.proceeds import net_sheet
from ...core.price.weights import MODEL
from ...documents.base import Doc, FiniteNumber, Line, Value, check_line
from ...documents.search import Place, SearchDoc
from ...documents.stored import DecisionDoc, FeatureDoc, ImprovementDoc, PaperDoc, PhotoDoc, ScenarioDoc, WorkupDoc
from ...report.layouts import PAGES, SPEAKING
from ...report.pages.opening import HOME_ROWS
from ...report.pages.readings import STATISTICS
from ..home.homes import checked_corrections

MAX_PRICE = 5e8


class CorrectFact(Doc):
    """The agent's word on a fact; null takes the fact away, `back` returns to the records."""

    change: Literal["correct_fact"]
    field: str
    value: Value | None = None
    back: bool = False
    sure: bool = False  # the agent has been asked about a strange value, and means it


class SetSearch(Doc):
    change: Literal["set_search"]
    search: SearchDoc


class Decide(Doc):
    """Keep, set aside (with a reason), or leave undecided; several at once."""

    change: Literal["decide"]
    listing_ids: list[str] = Field(min_length=1, max_length=2000)
    choice: Literal["kept", "set_aside", "undecided"]
    reason: str = Field("", max_length=500)


class SetRate(Doc):
    """A rate typed over (dollars a unit; percent a month for market_change); null returns to the evidence."""

    change: Literal["set_rate"]
    field: str
    value: FiniteNumber | None


class SetCell(Doc):
    """One cell of the grid typed over, in dollars; null returns to the computed amount."""

    change: Literal["set_cell"]
    listing_id: str
    field: str
    amount: FiniteNumber | None


class SetListPrice(Doc):
    change: Literal["set_list_price"]
    list_price: FiniteNumber | None
    sure: bool = False


class SetWeight(Doc):
    """A comp's share of the indicated value, 0 to 1, set by hand; null leaves it to the formula again."""

    change: Literal["set_weight"]
    listing_id: str
    weight: FiniteNumber | None


class SetOrder(Doc):
    """The order in which the kept comps stand in the grid and on paper: all of them, each once."""

    change: Literal["set_order"]
    listing_ids: list[str] = Field(max_length=60)


class RateCondition(Doc):
    """The condition of another home as the agent sees it, 6 new to 1 damaged; null returns to the record's."""

    change: Literal["rate_condition"]
    listing_id: str = Field(max_length=200)
    grade: Annotated[int, Field(ge=1, le=6)] | None


class SetScenarios(Doc):
    """Up to three scenarios of net proceeds."""

    change: Literal["set_scenarios"]
    scenarios: list[ScenarioDoc] = Field(max_length=3)


class SetRecommendation(Doc):
    """The sentence of recommendation in the agent's own words; an empty one returns to the written one."""

    change: Literal["set_recommendation"]
    text: str = Field(max_length=2000)


class SetFeatures(Doc):
    """The home's features that no field holds, each with an amount or left to judgement."""

    change: Literal["set_features"]
    features: list[FeatureDoc] = Field(max_length=20)


class SetImprovements(Doc):
    """Recent work on the home: what, when, cost, quality."""

    change: Literal["set_improvements"]
    improvements: list[ImprovementDoc] = Field(max_length=30)


class SetPlace(Doc):
    """Where the home stands, [longitude, latitude]; null returns to the records' place."""

    change: Literal["set_place"]
    place: Place | None


class SetPhotos(Doc):
    """The agent's own pictures, in their order."""

    change: Literal["set_photos"]
    photos: list[PhotoDoc] = Field(max_length=40)


class SetPaper(Doc):
    """Pages, their order, and what of the numbers the client sees."""

    change: Literal["set_paper"]
    paper: PaperDoc


class SetDate(Doc):
    change: Literal["set_date"]
    effective_date: dt.date


class KeepRules(Doc):
    """rules: of the house, by which the workup is priced from now on, those that are not as usual; None: it follows the house."""

    change: Literal["keep_rules"]
    rules: Annotated[dict[Annotated[str, Field(max_length=80)], FiniteNumber], Field(max_length=200)] | None = None


class SetClient(Doc):
    change: Literal["set_client"]
    client: Line = Field(max_length=200)


Change = Annotated[
    CorrectFact
    | SetSearch
    | Decide
    | SetRate
    | SetCell
    | SetWeight
    | SetOrder
    | RateCondition
    | SetListPrice
    | SetScenarios
    | SetRecommendation
    | SetFeatures
    | SetImprovements
    | SetPlace
    | SetPhotos
    | SetPaper
    | SetDate
    | SetClient
    | KeepRules,
    Field(discriminator="change"),
]


OWN_PAGE = re.compile(r"^own:[0-9a-f]{32}\.(jpg|png|webp|pdf|page)$")


def _known(field: str, names: Sequence[str], there: Sequence[str]) -> None:
    odd = [n for n in names if n not in there]
    if odd:
        raise BadInput(field, f"“{odd[0]}” cannot be shown here: use {', '.join(there)}.")


def apply(state: WorkupDoc, change: Change) -> tuple[WorkupDoc, str]:
    """The state after the change, and what was done in words. Raises BadInput; the state given is never altered."""
    if isinstance(change, CorrectFact):
        return _correct(state, change)
    if isinstance(change, SetSearch):
        change.search.search()
        return state.model_copy(update={"search": change.search}), "search changed"
    if isinstance(change, Decide):
        return _decide(state, change)
    if isinstance(change, SetWeight):
        return _weight(state, change)
    if isinstance(change, SetOrder):
        if sorted(change.listing_ids) != sorted(state.kept()):
            raise BadInput("listing_ids", "An order names every kept comp once: read the workup again and repeat.")
        others = {k: d for k, d in state.decisions.items() if k not in change.listing_ids}
        decisions = {k: state.decisions[k] for k in change.listing_ids} | others
        return state.model_copy(update={"decisions": decisions}), "comps put in another order"
    if isinstance(change, RateCondition):
        held = {k: g for k, g in state.conditions.items() if k != change.listing_id}
        if change.grade is None:
            return state.model_copy(update={"conditions": held}), "condition back to the record"
        held[change.listing_id] = change.grade
        return state.model_copy(update={"conditions": held}), f"condition rated {condition_said(change.grade)}"
    if isinstance(change, SetScenarios):
        for scenario in change.scenarios:
            net_sheet(scenario.scenario())
        return state.model_copy(update={"scenarios": change.scenarios}), "net proceeds changed"
    if isinstance(change, SetRecommendation):
        text = change.text.strip()
        return state.model_copy(update={"recommendation": text}), "recommendation " + (
            "edited" if text else "as written"
        )
    if isinstance(change, SetRate):
        return _rate(state, change)
    if isinstance(change, SetCell):
        return _cell(state, change)
    if isinstance(change, SetListPrice):
        return _list_price(state, change)
    if isinstance(change, SetFeatures | SetImprovements | SetPlace | SetPhotos):
        return _of_the_home(state, change)
    if isinstance(change, SetPaper):
        unknown = [name for name in change.paper.pages if name not in PAGES and not OWN_PAGE.match(name)]
        if unknown:
            raise BadInput("pages", f"There is no page “{unknown[0]}”: use {', '.join(PAGES)}.")
        _known(
            "facts",
            change.paper.facts,
            HOME_ROWS,
        )
        _known("statistics", change.paper.statistics, list(STATISTICS))
        _known("speaks_of", list(change.paper.speaks_of), list(SPEAKING))
        if len(set(change.paper.pages)) < len(change.paper.pages):
            raise BadInput("pages", "A page stands there twice: each can be on or off.")
        return state.model_copy(update={"paper": change.paper}), "paper changed"
    if isinstance(change, SetDate):
        if not dt.date(1950, 1, 1) <= change.effective_date <= dt.date(2100, 1, 1):
            raise BadInput("effective_date", f"{said(change.effective_date)} is no usable date: give one from 1950 on.")
        return state.model_copy(
            update={"effective_date": change.effective_date}
        ), f"date set to {said(change.effective_date)}"
    if isinstance(change, KeepRules):
        if change.rules is None:
            return state.model_copy(update={"rules": None}), "the house's rules of today taken"
        for name, value in change.rules.items():
            checked_rule(name, value, HouseRules.of(change.rules))
        return state.model_copy(update={"rules": change.rules}), "the house's rules kept as they are"
    return state.model_copy(update={"client": change.client.strip()}), "client changed"


def _of_the_home(
    state: WorkupDoc, change: SetFeatures | SetImprovements | SetPlace | SetPhotos
) -> tuple[WorkupDoc, str]:
    if isinstance(change, SetFeatures):
        for f in change.features:
            check_line("label", f.label)
        labels = [f.label.strip().casefold() for f in change.features]
        if len(set(labels)) < len(labels):
            raise BadInput("label", "A feature stands there twice: give each a name of its own.")
        return state.model_copy(update={"features": change.features}), "the home's own features changed"
    if isinstance(change, SetImprovements):
        for x in change.improvements:
            check_improvement(x.improvement(), state.effective_date.year)
        return state.model_copy(update={"improvements": change.improvements}), "improvements changed"
    if isinstance(change, SetPhotos):
        return state.model_copy(update={"photos": change.photos}), "photos changed"
    if change.place is not None:
        lon, lat = change.place
        if not (-180 <= lon <= 180 and -90 <= lat <= 90):
            raise BadInput("place", f"{lat:g}, {lon:g} is no place: latitude −90 to 90, longitude −180 to 180.")
    return state.model_copy(update={"place": change.place}), "place " + ("moved" if change.place else "as recorded")


def _correct(state: WorkupDoc, change: CorrectFact) -> tuple[WorkupDoc, str]:
    label = BY_NAME[change.field].label if change.field in BY_NAME else change.field
    corrections = dict(state.corrections)
    if change.back:
        corrections.pop(change.field, None)
        return state.model_copy(update={"corrections": corrections}), f"{label.lower()} back to the records"
    corrections |= checked_corrections({change.field: change.value})
    shown = (
        "unknown"
        if change.value is None
        else _said(change.field, change.value)
        if isinstance(change.value, float)
        else change.value
    )
    return state.model_copy(update={"corrections": corrections}), f"{label.lower()} set to {shown}"


def _said(name: str, value: float) -> str:
    """A corrected fact as it is said: years without a thousands mark, yes and no as words."""
    kind = BY_NAME[name].kind
    if kind == Kind.YES_NO:
        return "yes" if value else "no"
    return f"{value:.0f}" if kind == Kind.YEAR else f"{value:,.10g}"


def _weight(state: WorkupDoc, change: SetWeight) -> tuple[WorkupDoc, str]:
    key, weight = change.listing_id, change.weight
    if key not in (*state.kept(), MODEL):
        raise BadInput("listing_id", f"{key} is no kept comp: keep it first.")
    whose = "the model" if key == MODEL else key
    weights = {k: v for k, v in state.weights.items() if k != key}
    if weight is None:
        return state.model_copy(update={"weights": weights}), f"weight of {whose} left to the formula"
    if not 0 <= weight <= 1 or sum(weights.values()) + weight > 1 + 1e-9:
        left = max(0.0, 1 - sum(weights.values()))
        raise BadInput("weight", f"A weight is a share: give 0 to {100 * left:.0f} %, what the other set ones leave.")
    return state.model_copy(
        update={"weights": {**weights, key: weight}}
    ), f"weight of {whose} set to {100 * weight:.1f} %"


def _decide(state: WorkupDoc, change: Decide) -> tuple[WorkupDoc, str]:
    decisions = dict(state.decisions)
    for key in change.listing_ids:
        if change.choice == "undecided":
            decisions.pop(key, None)
        elif key in decisions and decisions[key].choice == change.choice == "kept":
            continue
        else:
            decisions[key] = DecisionDoc(choice=change.choice, reason=change.reason)
    if sum(d.choice == "kept" for d in decisions.values()) > 60:
        raise BadInput("listing_ids", "More than 60 comps would be kept: set some aside first.")
    n = len(change.listing_ids)
    done = {"kept": "kept", "set_aside": "set aside", "undecided": "left undecided"}[change.choice]
    return state.model_copy(update={"decisions": decisions}), f"{n} {'home' if n == 1 else 'homes'} {done}"


def _has_a_line(name: str) -> bool:
    """Whether a field may have a line in the grid: an adjustable one, or a number or yes of the office's own."""
    own = own_field(name)
    return name in ADJUSTED or (own is not None and own.kind in (Kind.NUMBER, Kind.YES_NO))


def _rate(state: WorkupDoc, change: SetRate) -> tuple[WorkupDoc, str]:
    rates = dict(state.rates)
    name = change.field
    if name != "market_change" and not _has_a_line(name):
        raise BadInput("field", f"“{name}” has no rate: use market_change or one of {', '.join(ADJUSTED)}.")
    label = "market change" if name == "market_change" else BY_NAME[name].label.lower()
    if change.value is None:
        rates.pop(name, None)
        return state.model_copy(update={"rates": rates}), f"{label} rate back to the evidence"
    limit = 10.0 if name == "market_change" else 1e6
    if abs(change.value) > limit:
        unit = " % a month" if name == "market_change" else " dollars"
        raise BadInput(
            "value", f"A {label} rate of {change.value:,.10g}{unit} makes no sense: give at most {limit:,.10g}."
        )
    rates[name] = change.value
    return state.model_copy(update={"rates": rates}), f"{label} rate set to {change.value:,.10g}"


def _cell(state: WorkupDoc, change: SetCell) -> tuple[WorkupDoc, str]:
    own = change.field == "improvements" or change.field in {OWN_LINE + f.label for f in state.features}
    if not own and change.field not in ("concessions", "market_change") and not _has_a_line(change.field):
        raise BadInput("field", f"“{change.field}” has no line in the grid.")
    cells = {key: dict(row) for key, row in state.cells.items()}
    row = cells.setdefault(change.listing_id, {})
    if change.amount is None:
        row.pop(change.field, None)
        done = "adjustment back to the computed one"
    else:
        if abs(change.amount) > MAX_PRICE:
            raise BadInput("amount", f"An adjustment of {dollars(change.amount)} makes no sense.")
        row[change.field] = change.amount
        done = f"adjustment set to {dollars(change.amount)}"
    cells = {key: r for key, r in cells.items() if r}
    return state.model_copy(update={"cells": cells}), done


def _list_price(state: WorkupDoc, change: SetListPrice) -> tuple[WorkupDoc, str]:
    price = change.list_price
    if price is None:
        return state.model_copy(update={"list_price": None}), "list price left open"
    if not 1000 <= price <= MAX_PRICE:
        raise BadInput("list_price", f"A list price of {dollars(price)} makes no sense: give at least 1,000.")
    return state.model_copy(update={"list_price": price}), f"list price set to {dollars(price)}"
