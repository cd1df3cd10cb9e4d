"""What a typed text may mean: a workup, a place, a parcel or listing number, an address in parts."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Literal

import numpy as np
from pydantic import Field

from ..core.facts.dates import NO_DAY, date_of, said
from ..core.facts.places.addresses import called_by_place
from ..core.facts.words import HomeKind, as_typed
from ..core.market.columns import FOR_SALE, HOME_KINDS, SOLD, Days
from ..documents.base import Doc, Worded
from ..store.records import homes
from .home.homes import parcel_of
from .office.agent import Agent
from .snapshot import Snapshot
from .workup.workups import titles

MOST_WORKUPS, MOST_PLACES, MOST_HOMES, MOST_UNITS = 4, 4, 14, 120
UNIT = ", unit "
_TO_BEGIN_WITH = (HomeKind.DETACHED, HomeKind.ATTACHED, HomeKind.CONDOMINIUM, HomeKind.LAND)


class HitDoc(Doc):
    """Something that the command field may mean. kind: parcel, listing, workup or area."""

    kind: Literal["parcel", "listing", "workup", "area"]
    key: str
    shown: str
    note: Worded = ""


class HitsDoc(Doc):
    """nearest: what comes close, where nothing fits."""

    hits: list[HitDoc]
    nearest: list[HitDoc] = Field(default=[])


def hit_doc(hit: homes.Hit, note: str = "") -> HitDoc:
    return HitDoc(kind="parcel" if hit.kind == "parcel" else "listing", key=hit.key, shown=hit.shown, note=note)


def looked_up(agent: Agent, text: str) -> HitsDoc:
    """Places first, then workups, then homes: by number, then by address, with every unit of a building that is named;
    where nothing fits, those whose number begins so."""
    records, text = agent.records, text.strip()
    if not text:
        return HitsDoc(hits=[])
    titled = [(n, title) for n, title in titles(agent) if text.casefold() in title.casefold()][:MOST_WORKUPS]
    hits = [
        *_places(records, text),
        *(HitDoc(kind="workup", key=str(n), shown=title, note="workup") for n, title in titled),
        *_by_number(records, text),
        *map(hit_doc, _with_its_units(homes.search_address(records.db, text, records.address_terms(), MOST_UNITS))),
    ]
    hits = hits or _begun_numbers(records, text)
    near = [] if hits else homes.nearest_addresses(records.db, text, records.address_terms())
    return HitsDoc(hits=hits, nearest=[hit_doc(h) for h in near])


def homes_to_begin_with(records: Snapshot) -> list[HitDoc]:
    """Of each of a few kinds the home that came on the market last and is still for sale; where none is, the one that sold last.
    A home without an address is called by its place or its number."""
    if not len(records.columns):
        return []
    columns, view = records.columns, records.columns.as_of(records.effective_day(None))

    def newest(status: int, days: Days, since: str) -> list[HitDoc]:
        out = []
        for kind in _TO_BEGIN_WITH:
            of_kind = (view.kind == status) & (columns.home_kind == HOME_KINDS.index(kind)) & ~columns.lease
            rows = np.flatnonzero(of_kind & (days != NO_DAY))
            if rows.size:
                row = int(rows[np.argmax(days[rows])])
                key = str(columns.keys[row])
                shown = homes.addresses_of(records.db, [key]).get(key) or key
                note = f"{kind.value}, {since} {said(date_of(int(days[row])))}"
                out.append(hit_doc(homes.Hit("listing", key, shown), note))
        return out

    return newest(FOR_SALE, columns.on_market, "for sale since") or newest(SOLD, columns.close, "sold")


def _places(records: Snapshot, text: str) -> list[HitDoc]:
    """Places whose name begins with the text: a neighbourhood, a subdivision, a project, a city, a postal code."""
    wanted = as_typed(text)
    if len(wanted) < 3:
        return []
    named = records.remember("places as typed", lambda: [(as_typed(p["name"]), p) for p in records.named_places()])
    found = [place for name, place in named if name.startswith(wanted)]
    return [HitDoc(kind="area", key=p["name"], shown=p["name"], note=p["kind"]) for p in found[:MOST_PLACES]]


def _by_number(records: Snapshot, text: str) -> list[HitDoc]:
    out = []
    if parcel := parcel_of(records, text):
        number = parcel["parcel_number"]
        out.append(hit_doc(homes.Hit("parcel", number, parcel["unparsed_address"] or number), f"parcel {number}"))
    if listing := homes.listing(records.db, text) or homes.listing(records.db, text.upper()):
        key = listing["listing_id"]
        out.append(
            hit_doc(
                homes.Hit("listing", key, listing["unparsed_address"] or called_by_place(key) or key), f"listing {key}"
            )
        )
    return out


def _begun_numbers(records: Snapshot, text: str) -> list[HitDoc]:
    """Homes whose number begins with the text, once it has a digit and is long enough to mean some of them."""
    if len(text) < 3 or not any(ch.isdigit() for ch in text):
        return []
    found = homes.numbered(records.db, text, MOST_HOMES) or homes.numbered(records.db, text.upper(), MOST_HOMES)
    return [hit_doc(replace(h, shown=called_by_place(h.shown) or h.shown), f"{h.kind} {h.key}") for h in found]


def _with_its_units(found: Sequence[homes.Hit]) -> list[homes.Hit]:
    """The first of the homes found; where they are units of one building, all of them."""
    first = found[0].shown.split(UNIT)[0] if found else ""
    return [h for i, h in enumerate(found) if i < MOST_HOMES or h.shown.split(UNIT)[0] == first]
