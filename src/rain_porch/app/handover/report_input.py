"""A workup frozen as what its report is made from: everything computed, nothing private."""

from __future__ import annotations

import base64
import itertools
from collections.abc import Iterable, Sequence
from typing import Any

from ...core.errors import NotFound
from ...core.facts.dates import add_months, said
from ...core.facts.homes import Candidate
from ...core.market.columns import FOR_SALE
from ...core.price import proceeds as pr
from ...core.price.list_price import WITHIN_DAYS
from ...report.model import Paper, ReportInput
from ...report.pages.letter import item_pages
from ...store.health import sources
from ...store.records.homes import DEED
from .. import photos
from ..agent import Agent
from ..choices import agent_card
from ..market.letters import items_of, read_letter
from ..pricing.answers import candidate_docs, market_doc, pricing_doc, subject_doc
from ..pricing.ask import Asking, asking
from ..pricing.opened import Opened, found_candidates, priced
from ..pricing.opened import found as found_by
from ..pricing.pricing import Pricing
from ..snapshot import Snapshot
from ..story import story_of_home
from ..workups import open_workup
from .branding import brand, own_files
from .tours import housing, tour

AROUND, PICTURED, MONTHS = 300, 30, 36
INSIDE, INSIDE_PICTURES = 2, 3  # competing homes that are shown inside, with so many rooms each


def report_input(agent: Agent, workup_id: int) -> ReportInput:
    """What the pages are made from: the workup frozen as plain data, nothing private in it."""
    opened = open_workup(agent, workup_id)
    pricing = priced(opened)
    state, standpoint, records = opened.state, opened.standpoint, agent.records
    search = state.search.search()
    found = found_by(opened)
    aside = {key for key, made in state.decisions.items() if made.choice == "set_aside"}
    around = [c for c in found_candidates(opened) if c.listing_id not in aside][:AROUND]
    paper = Paper(**state.paper.model_dump())
    ask = None
    if state.list_price:
        rivals = found.rows[standpoint.view.kind[found.rows] == FOR_SALE]
        ask = asking(standpoint, pricing, search, rivals, state.list_price)
    place, market = _market(opened)
    return ReportInput(
        title=state.address,
        client=state.client,
        made_on=agent.now().date(),
        subject=subject_doc(opened.subject).model_dump(mode="json"),
        price=pricing_doc(standpoint, pricing, search, []).model_dump(mode="json"),
        comps=[c.model_dump(mode="json") for c in candidate_docs(standpoint, pricing.comps)],
        around=[c.model_dump(mode="json") for c in candidate_docs(standpoint, around)],
        counts=dict(found.counts),
        grid=_grid(pricing),
        list_price=state.list_price,
        through=records.through(),
        base_map=records.base_map(),
        paper=paper,
        agent={k: v for k, v in agent_card(agent).items() if k in ("name", "licence", "contact")},
        brand=brand(agent),
        own_pages=own_files(agent),
        tour=tour(standpoint, pricing.comps)
        if "tour" in paper.pages and pricing.comps and opened.subject.placed
        else None,
        housing=housing(records, opened.subject, search.radius_miles or 1.0, standpoint.view.day)
        if "housing" in paper.pages and opened.subject.placed
        else None,
        pictures=_pictures(agent, opened, pricing.comps, around) if paper.pictures else {},
        past=story_of_home(opened.standpoint.records, opened.home, state.effective_date),
        asking=None if ask is None else _asked(ask),
        recommendation=state.recommendation or (ask.sentence if ask else ""),
        sheets=[[(label, str(n)) for label, n in pr.net_sheet(s.scenario())] for s in state.scenarios],
        market=market,
        market_place=place,
        sources=_sources(records),
        market_letter=_market_letter(agent, paper),
    )


def _market_letter(agent: Agent, paper: Paper) -> list[dict[str, Any]]:
    """Pages of the chosen market letter; none where it is not on paper, or has been deleted since."""
    if paper.market_letter is None or "market_letter" not in paper.pages:
        return []
    try:
        letter = read_letter(agent, paper.market_letter)
    except NotFound:
        return []
    return item_pages(items_of(agent.records, letter))


def _sources(records: Snapshot) -> list[str]:
    """Each source of listings, parcels and deeds, with the newest day of its listings, else the day it came in."""

    def told() -> list[str]:
        out = []
        for s in sources(records.db):
            if {"listings", "parcels", "transfers"} & set(str(s["kinds"] or "").split(",")):
                day = str(s["through"] or s["last_import"] or "")
                when = f", {'newest' if s['through'] else 'taken in'} {said(day)}" if day else ""
                out.append(f"{s['name']}{when}")
        return out

    return records.remember("sources", told)


def _grid(pricing: Pricing) -> list[dict[str, Any]]:
    return [
        {
            "listing_id": a.listing_id,
            "lines": {line.field: line.amount for line in a.lines if not line.apart},
            "facts": {line.field: line.theirs for line in a.lines},
        }
        for a in pricing.adjusted
    ]


def _asked(ask: Asking) -> dict[str, Any]:
    return {
        "statements": list(ask.statements),
        "within_days": list(WITHIN_DAYS),
        "learnt": ask.learnt,
        "prices": [
            {"price": p.price, "own": p.price == ask.list_price,
             "chances": None if p.chances is None else [f"{c.pct} %" for c in p.chances],
             "likely": None if (soon := p.within(30)) is None else f"{soon.low_pct}–{soon.high_pct} %"}
            for p in ask.prices
        ],
    }  # fmt: skip


def _market(opened: Opened) -> tuple[str, dict[str, Any] | None]:
    """Months of the subject's kind of home in its city, else in all of the records."""
    s, records = opened.subject, opened.standpoint.records
    kind = s.home_kind.value
    city = s.word("city")
    end = opened.state.effective_date
    start = add_months(end.replace(day=1), 1 - MONTHS)
    where = [f"home_kind = {kind}"] if kind != "unknown" else []
    doc = records.remember(
        ("months on paper", kind, end),
        lambda: market_doc(records, ["median_price", "closings", "for_sale"], "month", start, end, None, where),
    )
    words = "homes" if kind == "unknown" else f"{kind.replace('_', ' ')} homes"
    return f"{words[0].upper()}{words[1:]}" + (f" around {city}" if city else ""), doc.model_dump(mode="json")


def _pictures(agent: Agent, opened: Opened, comps: Sequence[Candidate], around: Iterable[Candidate]) -> dict[str, str]:
    """Front pictures as SVG: the subject's under "", the comps' and those of the most alike homes of each kind."""
    records = agent.records
    out: dict[str, str] = {}
    if opened.state.photos:
        out[""] = framed(*photos.own_picture(records.folder, opened.state.photos[0].file))
    elif key := photos.front_listing(records, opened.home.listings):
        out[""] = framed(*photos.picture(records, key, 1))
    by_kind = itertools.groupby(sorted(around, key=lambda c: (c.kind, -c.likeness)), key=lambda c: c.kind)
    wanted = [c.listing_id for c in comps] + [c.listing_id for _, group in by_kind for c in itertools.islice(group, 6)]
    for key in dict.fromkeys(wanted):
        if len(out) > PICTURED:
            break
        if front := front_picture(records, key):
            out[key] = front
    for key in [c.listing_id for c in around if c.kind == "for_sale"][:INSIDE]:
        for number, caption in enumerate(photos.captions(records, key)[1 : 1 + INSIDE_PICTURES], start=2):
            out[f"{key} · {caption}"] = framed(*photos.picture(records, key, number))
    return out


def front_picture(records: Snapshot, key: str) -> str:
    """A listing's first picture as SVG, "" where it has none."""
    if key.startswith(DEED):
        return ""

    def made() -> str:
        return framed(*photos.picture(records, key, 1)) if photos.captions(records, key) else ""

    return records.pictures.get(key, made)


def framed(data: bytes, media: str) -> str:
    """Any picture as SVG, cut to three by two: a drawn one as it is, a photo inside a frame."""
    if media == "image/svg+xml":
        return data.decode()
    inside = f"data:{media};base64,{base64.b64encode(data).decode()}"
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 600 400" width="600" height="400">'
        f'<image href="{inside}" width="600" height="400" preserveAspectRatio="xMidYMid slice"/></svg>'
    )
