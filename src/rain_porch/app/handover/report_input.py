"""A workup frozen as what its report is made from: everything computed, nothing private."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from decimal import Decimal
from typing import Any

import numpy as np

from ...core.errors import NotFound
from ...core.facts.dates import NO_DAY, said
from ...core.facts.homes import Candidate
from ...core.facts.improvements import improvement_label
from ...core.facts.money import dollars
from ...core.facts.words import COUNTED
from ...core.market.columns import RECORD_KINDS, Ints
from ...core.phrases import phrase
from ...core.price import proceeds as pr
from ...documents.stored import ImprovementDoc, ScenarioDoc
from ...report.layouts import LAYOUTS
from ...report.model import Paper, ReportInput
from ...report.pages.bulletin import part_pages
from ...report.pictures.base_lines import base_lines
from ...store.health import sources
from ..bulletin.kept import parts_of, read_bulletin, ready
from ..home.story import story_of_home
from ..office.agent import Agent
from ..office.choices import agent_card
from ..office.local_form import local_form
from ..pricing.ask import asked_as_data, asking
from ..pricing.find_document import candidate_docs, subject_doc
from ..pricing.opened import Opened, found_candidates, found_rows, kept_unsold, priced, rival_rows
from ..pricing.price_document import pricing_doc
from ..pricing.pricing import Pricing
from ..snapshot import Snapshot
from ..workup.home_market import home_view
from ..workup.while_for_sale import while_for_sale
from ..workup.workups import open_workup
from .branding import brand, own_files, own_pages
from .bulletin_papers import drawn_parts
from .pictures import damaged, fronts, insides
from .tours import housing, tour


def report_input(agent: Agent, workup_id: int, layout: str | None = None) -> ReportInput:
    """What the pages are made from: the workup frozen as plain data, nothing private in it. What was set aside is in it for the
    appraiser's page alone. layout: one that comes with the product, else the workup's own pages are made. Made once for as long
    as nothing changes that stands on paper."""
    opened = open_workup(agent, workup_id)
    look = (
        str(agent_card(agent)),
        str(local_form(agent)),
        str([p.model_dump() for p in own_pages(agent)]),
        _bulletin_text(agent, opened),
    )
    key = ("paper", *opened.decided, layout, agent.owner, agent.now().date(), *look)
    return agent.records.papers.get(key, lambda: _report_input(agent, opened, layout))


def _bulletin_text(agent: Agent, opened: Opened) -> str:
    """The bulletin that goes with the report, as it is now."""
    number = opened.state.paper.bulletin
    try:
        return "" if number is None else read_bulletin(agent, number).model_dump_json()
    except NotFound:
        return "gone"


def _report_input(agent: Agent, opened: Opened, layout: str | None) -> ReportInput:
    pricing = priced(opened)
    state, standpoint, records = opened.state, opened.standpoint, opened.standpoint.records
    paper = Paper(**state.paper.model_dump())
    names = LAYOUTS.get(layout or "", paper.pages)
    rows, here = found_rows(opened), found_candidates(opened)
    aside = {key for key, made in state.decisions.items() if made.choice == "set_aside"}
    around = candidate_docs(standpoint, [c for c in here if c.listing_id not in aside])
    others = candidate_docs(standpoint, [c for c in kept_unsold(opened) if c.listing_id not in aside])
    comps = [c.model_dump(mode="json") for c in candidate_docs(standpoint, pricing.comps)]
    chosen = [*comps, *(c.model_dump(mode="json") for c in others)]
    shown = [c.model_dump(mode="json") for c in around]
    asked = (
        None
        if state.list_price is None
        else asking(standpoint, pricing, state.search.search(), rival_rows(opened), state.list_price)
    )
    wanted = [c["listing_id"] for c in chosen]
    pictured = [*wanted, *_most_alike(shown)]
    pictures = fronts(agent, opened, pictured) if paper.pictures else {}
    return ReportInput(
        title=state.address,
        client=state.client,
        made_on=agent.now().date(),
        subject=subject_doc(opened.subject).model_dump(mode="json"),
        price=pricing_doc(standpoint, pricing, state.search.search(), []).model_dump(mode="json"),
        comps=comps,
        chosen=chosen,
        around=shown,
        aside=_aside(opened, here) if "set_aside" in names else [],
        counts=_counts(opened, rows, aside),
        grid=_grid(pricing),
        list_price=state.list_price,
        through=records.through(),
        base_map=records.remember("lines of the map", lambda: base_lines(records.base_map())),
        paper=paper,
        agent={k: v for k, v in agent_card(agent).items() if k in ("name", "licence", "phone", "email", "contact")},
        brand=brand(agent),
        own_pages=own_files(agent),
        tour=tour(standpoint, pricing.comps) if "tour" in names and pricing.comps and opened.subject.placed else None,
        housing=housing(records, opened.subject, state.search.radius_miles or 1.0, standpoint.view.day)
        if "housing" in names and opened.subject.placed
        else None,
        while_for_sale=while_for_sale(opened) if "while_for_sale" in names else None,
        pictures=pictures,
        damaged=damaged(agent, opened, pictures, [*chosen, *shown]) if paper.pictures else [],
        inside=insides(
            agent, opened, [*wanted, *_rivals(shown)] if "sheets" in names else _rivals(chosen) or _rivals(shown)
        )
        if paper.pictures
        else {},
        past=story_of_home(opened.standpoint.records, opened.home, state.effective_date),
        done=[_improvement(x) for x in state.improvements],
        asking=None if asked is None else asked_as_data(asked),
        recommendation=state.recommendation or (asked.sentence if asked else ""),
        own_words=state.recommendation,
        knows_listings=bool((standpoint.columns.on_market != NO_DAY).any()),
        sheets=[[(x.label, str(x.amount)) for x in pr.net_sheet(s.scenario())] for s in state.scenarios],
        assumed=_assumed(state.scenarios),
        market=_market(opened),
        sources=_sources(records),
        bulletin=_bulletin(agent, records, paper) if "bulletin" in names else [],
    )


def _rivals(homes: Sequence[dict[str, Any]], most: int = 2) -> list[str]:
    """The first homes for sale, which are shown inside."""
    return [c["listing_id"] for c in homes if c["kind"] == "for_sale"][:most]


def _counts(opened: Opened, rows: Ints, aside: set[str]) -> dict[str, int]:
    """How many homes of each kind the search finds, without what was set aside."""
    columns, kinds = opened.standpoint.columns, opened.standpoint.view.kind
    out = [columns.row_of[k] for k in aside if k in columns.row_of]
    left = kinds[rows[~np.isin(rows, out)]]
    return {name: int((left == RECORD_KINDS.index(name)).sum()) for name in COUNTED}


def _aside(opened: Opened, here: Sequence[Candidate]) -> list[dict[str, Any]]:
    """What was set aside of the homes that the search finds, each with its reason."""
    reasons = {key: made.reason for key, made in opened.state.decisions.items() if made.choice == "set_aside"}
    told = candidate_docs(opened.standpoint, [c for c in here if c.listing_id in reasons])
    return [c.model_dump(mode="json") | {"reason": reasons[c.listing_id]} for c in told]


def _most_alike(shown: Sequence[dict[str, Any]], each: int = 6) -> list[str]:
    """The most alike homes of each kind, which stand on paper where a page speaks of all found."""
    by_kind = itertools.groupby(sorted(shown, key=lambda c: (c["kind"], -c["likeness"])), key=lambda c: c["kind"])
    return [c["listing_id"] for _, group in by_kind for c in itertools.islice(group, each)]


def _improvement(made: ImprovementDoc) -> str:
    """ "Kitchen, 2025, for $25,000"."""
    told = {"what": improvement_label(made.kind), "year": str(made.year), "cost": dollars(made.cost)}
    return (
        phrase("home-improvement-with-note", **told, note=made.note)
        if made.note
        else phrase("home-improvement", **told)
    )


def _assumed(scenarios: Sequence[ScenarioDoc]) -> list[list[str]]:
    """What net proceeds stand on: what was entered for each scenario, in words; lines that none of them has are left out."""

    def share(pct: Decimal | None) -> str:
        return f"{pct.normalize():f} %" if pct else ""

    told: list[tuple[str, Callable[[ScenarioDoc], str]]] = [
        (phrase("assumed-closing"), lambda s: said(s.closing)),
        (phrase("assumed-listing-side"), lambda s: share(s.listing_side_pct)),
        (phrase("assumed-buying-side"), lambda s: share(s.buying_side_pct)),
        (phrase("assumed-transfer-tax"), lambda s: share(s.transfer_tax_pct)),
        (
            phrase("assumed-owed"),
            lambda s: (
                phrase("dollars", amount=dollars(float(owed)))
                if (owed := sum(loan.balance for loan in s.loans))
                else ""
            ),
        ),
    ]
    return [row for name, tell in told if any((row := [name, *(tell(s) for s in scenarios)])[1:])]


def _bulletin(agent: Agent, records: Snapshot, paper: Paper) -> list[dict[str, Any]]:
    """Pages of the chosen bulletin; none where it is not on paper, or has been deleted since."""
    if paper.bulletin is None or "bulletin" not in paper.pages:
        return []
    try:
        made = read_bulletin(agent, paper.bulletin)
    except NotFound:
        return []
    return part_pages(drawn_parts(records, parts_of(records, made), local_form(agent).form()))


def _sources(records: Snapshot) -> list[str]:
    """Each source of listings, parcels and deeds, with the newest day of its listings, else the day it came in."""

    def told() -> list[str]:
        out = []
        for s in sources(records.db):
            if {"listings", "parcels", "transfers"} & set(str(s["kinds"] or "").split(",")):
                day = str(s["through"] or s["last_import"] or "")
                how = "source-newest" if s["through"] else "source-taken-in"
                out.append(phrase(how, source=s["name"], day=said(day)) if day else str(s["name"]))
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


def _market(opened: Opened) -> Sequence[dict[str, Any]]:
    """The market of the home's own place and kind on the effective day, as the parts of a bulletin."""
    records, day = opened.standpoint.records, opened.state.effective_date
    bulletin = ready("this_home", home_view(opened), phrase("market-title"))
    return parts_of(records, bulletin, min(day, records.through()))
