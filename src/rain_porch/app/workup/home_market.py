"""The market around a workup's home: its own place and kind, as a view."""

from __future__ import annotations

from ...core.errors import NotFound
from ...core.facts.dates import day_of
from ...core.market.columns import Bools
from ...core.market.view_reading import twelve_months
from ...documents.search import ShapeDoc
from ..market.outlines import KeptOutlineDoc
from ..market.views import ViewDoc, market_of
from ..office.agent import Agent
from ..pricing.opened import Opened
from .workups import open_workup, titles

ENOUGH = 12  # closings in twelve months without which a subdivision says too little
CIRCLES = 12  # newest workups whose circles are offered


def home_view(opened: Opened) -> ViewDoc:
    """The home's kind in its own subdivision where enough sold there, else within the search's radius, at least a mile, else in all
    of the records."""
    s = opened.subject
    kind = s.home_kind.value
    view = ViewDoc(measures=["median_price", "closings"], home_kind="" if kind == "unknown" else kind)
    name = s.word("subdivision_name")
    if name and (mask := _area(opened, name)) is not None and mask.any():
        own = view.model_copy(update={"places": [name]})
        if _closings(opened, own) >= ENOUGH:
            return own
    if not s.placed:
        return view
    shape, drawn = _circle(opened)
    return view.model_copy(update={"shapes": [shape], "drawn": drawn})


def _closings(opened: Opened, view: ViewDoc) -> int:
    day = opened.state.effective_date
    now, _ = twelve_months(day)
    market = market_of(opened.standpoint.records, view, view.places, through=day)
    return len(market.within("close", day_of(now.start), day_of(now.end)))


def _area(opened: Opened, name: str) -> Bools | None:
    try:
        return opened.standpoint.records.area_mask((name,))
    except NotFound:
        return None


def _circle(opened: Opened) -> tuple[ShapeDoc, str]:
    """The circle of the home's search, and the same in words."""
    s = opened.subject
    miles = max(1.0, opened.state.search.radius_miles or 1.0)
    circle = ShapeDoc(points=[[s.longitude, s.latitude]], radius_miles=miles, name="")
    return circle, f"within {miles:g} mi of {opened.state.address}"


def circles(agent: Agent) -> list[KeptOutlineDoc]:
    """The circles of the newest workups, as places of a view; one for several workups that look around one home alike."""
    out: dict[str, KeptOutlineDoc] = {}
    for number, _ in titles(agent)[:CIRCLES]:
        try:
            opened = open_workup(agent, number)
        except NotFound:  # a colleague's, or of a home that is in the records no more
            continue
        if opened.subject.placed:
            shape, drawn = _circle(opened)
            out.setdefault(drawn, KeptOutlineDoc(outline_id=None, name=drawn, drawn=drawn, shapes=[shape]))
    return list(out.values())
