"""What a list price would mean, and what would be left of it."""

from __future__ import annotations

from typing import Annotated

from fastapi import Query
from pydantic import BaseModel

from ...app.pricing.ask import AtPrice, asking
from ...app.pricing.opened import priced, rival_rows
from ...app.workup.workups import open_workup
from ...core.price import proceeds as pr
from ...core.price.chances.list_price import WITHIN_DAYS, Group
from ...documents.base import Worded
from ...store.records.homes import addresses_of
from ..routing import api_router
from ..state import Number, Porch

router = api_router("workups")


class GroupDoc(BaseModel):
    """What became of homes first listed at such a ratio to their worth then. chances: shares under contract within 14, 30, 60,
    90 days; None below 8 listings."""

    low: float | None
    high: float | None
    n: int
    sold: int
    chances: list[float] | None
    share_of_list: float | None
    failed: float | None


class ChanceDoc(BaseModel):
    """A chance of a contract within so many days, in whole percent as it is shown, and the interval that holds it four times
    in five."""

    days: int
    pct: int
    low_pct: int
    high_pct: int


class AtPriceDoc(BaseModel):
    """What would become of this home at a list price; position: price ÷ worth. chances None where nothing can be said."""

    price: float
    position: float
    chances: list[ChanceDoc] | None


class RivalDoc(BaseModel):
    listing_id: str
    address: str
    price: float
    price_per_sqft: float | None
    days: int | None


class AskingDoc(BaseModel):
    list_price: float
    position: float | None
    within_days: list[int]
    prices: list[AtPriceDoc]
    here: AtPriceDoc | None
    curve: list[tuple[int, float]]
    learnt: int
    near: int
    share_of_list: float | None
    failed: float | None
    groups: list[GroupDoc]
    quick_per_sqft: float | None
    quick_n: int
    slow_per_sqft: float | None
    slow_n: int
    rivals: list[RivalDoc]
    rank: int
    rank_per_sqft: int | None
    statements: list[Worded]
    thresholds: list[float]
    sentence: Worded


def _group(g: Group) -> GroupDoc:
    return GroupDoc(
        low=g.low, high=g.high, n=g.n, sold=g.sold, chances=None if g.chances is None else list(g.chances),
        share_of_list=g.share_of_list, failed=g.failed,
    )  # fmt: skip


def _at(p: AtPrice) -> AtPriceDoc:
    chances = None if p.chances is None else [
        ChanceDoc(days=c.days, pct=c.pct, low_pct=c.low_pct, high_pct=c.high_pct) for c in p.chances
    ]  # fmt: skip
    return AtPriceDoc(price=p.price, position=p.position, chances=chances)


@router.get("/workups/{workup_id}/asking")
def ask(porch: Porch, workup_id: Number, list_price: Annotated[float, Query(gt=1000, lt=1e9)]) -> AskingDoc:
    """Time against price, the ladder of competing homes, and what the price stands above, for one list price."""
    opened = open_workup(porch.agent, workup_id)
    pricing = priced(opened)
    a = asking(opened.standpoint, pricing, opened.state.search.search(), rival_rows(opened), list_price)
    shown = addresses_of(porch.records.db, [r.listing_id for r in a.rivals])
    return AskingDoc(
        list_price=a.list_price, position=a.position, within_days=list(WITHIN_DAYS), groups=[_group(g) for g in a.groups],
        prices=[_at(p) for p in a.prices], here=_at(a.here) if a.here else None, curve=a.curve, learnt=a.learnt, near=a.near,
        share_of_list=a.share_of_list, failed=a.failed,
        quick_per_sqft=a.quick[0] if a.quick else None, quick_n=a.quick[1] if a.quick else 0,
        slow_per_sqft=a.slow[0] if a.slow else None, slow_n=a.slow[1] if a.slow else 0,
        rivals=[
            RivalDoc(listing_id=r.listing_id, address=shown.get(r.listing_id, ""), price=r.price,
                     price_per_sqft=r.price_per_sqft, days=r.days)
            for r in a.rivals
        ],
        rank=a.rank, rank_per_sqft=a.rank_per_sqft, statements=a.statements, thresholds=a.thresholds, sentence=a.sentence,
    )  # fmt: skip


class NetLineDoc(BaseModel):
    """amount in dollars and exact cents, as text. worked: its formula in figures, where it is worked out."""

    label: str
    amount: str
    worked: Worded = ""


@router.get("/workups/{workup_id}/proceeds")
def proceeds(porch: Porch, workup_id: Number) -> list[list[NetLineDoc]]:
    """Net sheets of the workup's scenarios; the last line of each is the sum of the others."""
    scenarios = open_workup(porch.agent, workup_id).state.scenarios
    return [
        [NetLineDoc(label=x.label, amount=str(x.amount), worked=x.worked) for x in pr.net_sheet(s.scenario())]
        for s in scenarios
    ]
