"""One record, whole: what it is, its prices and days, every fact known of it, and the story of its home."""

from __future__ import annotations

import datetime as dt
import json
from typing import Any

import numpy as np

from ...core.errors import NotFound
from ...core.facts.dates import day_of
from ...core.facts.fields import BY_NAME, CATALOGUE, Field
from ...core.facts.places.addresses import called_by_place, with_unit
from ...core.facts.places.finding_places import SAID
from ...core.market.columns import RECORD_KINDS
from ...core.market.listing_facts import days_on_market, prices_of, status_said
from ...core.market.stages import NOTHING
from ...core.market.worked_record import worked_record
from ...documents.base import Doc, Value, Worded
from ...store.records import homes
from ..snapshot import Snapshot
from . import photos
from .story import story

_OWN_PLACE = frozenset({"public_remarks", "private_remarks", "list_agent_full_name", "list_office_name", "listing_id",
                        "standard_status", "local_status", "latitude", "longitude", "unparsed_address", "unit_number",
                        "days_on_market", "cumulative_days_on_market"})  # fmt: skip


class KnownDoc(Doc):
    """A fact with its name; kind as in the field catalogue."""

    field: str
    label: str
    unit: str
    kind: str
    value: Value


class StoryDoc(Doc):
    """Something that happened to the home; listing_id names the listing that tells it. per: "month" for a rent."""

    date: dt.date
    what: str
    price: float | None
    per: str
    note: Worded
    listing_id: str | None = None


class ToldByDoc(Doc):
    """A source that tells of this listing, and its number there."""

    source: str
    number: str


class FullRecordDoc(Doc):
    """A listing or deed sale. agent and office are for the agent's own screen, and never go on paper.

    given_days, given_cumulative_days: as the source counts them. worked: figure → how it was worked out, with its dates and prices.
    told_by: all sources that tell of it. place_from: how it was placed, where its source tells no coordinates.
    """

    listing_id: str
    address: str
    kind: str
    status: str
    local_status: str
    days: int | None
    cumulative_days: int | None
    given_days: int | None
    given_cumulative_days: int | None
    prices: dict[str, float]
    worked: dict[str, Worded]
    facts: list[KnownDoc]
    remarks: str
    agent: str
    office: str
    pictures: list[str]
    story: list[StoryDoc]
    told_by: list[ToldByDoc]
    place_from: str


def full_record(records: Snapshot, key: str, until: dt.date | None = None) -> FullRecordDoc:
    """One record as it stood at the end of a day, the newest day of the records unless given. Raises NotFound.

    Everything is rewound: what was paid, what was asked and which status it had later is not told.
    """
    columns = records.columns
    listing = homes.listing(records.db, key)
    if listing and listing["same_as"]:  # another source's record of the same listing stands for it
        key = listing["same_as"]
        listing = homes.listing(records.db, key)
    row = columns.row_of.get(key)
    deed = homes.transfer(records.db, key.removeprefix(homes.DEED)) if key.startswith(homes.DEED) else None
    held = listing or deed
    if held is None:
        raise NotFound(f"No listing has the number {key}.", listing=key)
    number = held["parcel_number"]
    parcel = (homes.parcel(records.db, number) if number else None) or {}
    told = listing or {
        **parcel,
        "close_price": held.get("price"),
        "close_date": held.get("sale_date") or held.get("recording_date"),
    }
    of_home = homes.listings_of_home(records.db, told["home_key"]) if told.get("home_key") else []
    deeds = homes.transfers_of_parcel(records.db, number) if number else []
    day = until or records.through()
    days, prices, worked, kind, status, local = None, {}, {}, "", "", ""
    if row is not None:
        view, at = columns.as_of(day_of(day)), np.array([row], dtype=np.int64)
        if view.kind[row] != NOTHING:
            own = days_on_market(columns, view, at)
            days = None if np.isnan(own[0]) else int(own[0])
            prices = prices_of(columns, view, at, own)[0]
            worked = worked_record(columns, view, row)
            kind = RECORD_KINDS[view.kind[row]].value
            status = status_said(columns, view, row)
            local = (told.get("local_status") or "") if status else ""
        told = _rewound(told, day, view.list_price[row])
    cumulative = prices.get("cumulative_days_on_market")
    unit = told.get("unit_number")
    return FullRecordDoc(
        listing_id=key,
        address=with_unit(told.get("unparsed_address") or called_by_place(key), unit),
        kind=kind,
        status=status,
        local_status=local,
        days=days,
        cumulative_days=None if cumulative is None else int(cumulative),
        given_days=_whole(told.get("days_on_market")),
        given_cumulative_days=_whole(told.get("cumulative_days_on_market")),
        prices=prices,
        worked=worked,
        facts=_known(told),
        remarks=told.get("public_remarks") or "",
        agent=told.get("list_agent_full_name") or "",
        office=told.get("list_office_name") or "",
        pictures=photos.captions(records, key) if listing else [],
        told_by=[ToldByDoc(source=s, number=n) for s, n in homes.told_by(records.db, key)] if listing else [],
        place_from=SAID.get(told.get("place_from") or "", ""),
        story=[StoryDoc.model_validate(p) for p in story(records, of_home, deeds, number, day)],
    )


_LATER = ("purchase_contract_date", "close_date", "off_market_date")
_OF_CLOSING = ("close_price", "concessions_amount")
_OF_NOW = ("days_on_market", "cumulative_days_on_market", "modification_timestamp")


def _rewound(row: dict[str, Any], day: dt.date, list_price: float) -> dict[str, Any]:
    """A stored record without what came after a day, with the list price of that day."""
    later = [name for name in _LATER if row.get(name) and row[name] > day.isoformat()]
    gone = {*later, *(_OF_CLOSING if "close_date" in later else ()), *(_OF_NOW if later else ())}
    out = {name: value for name, value in row.items() if name not in gone}
    if np.isfinite(list_price):
        out["list_price"] = float(list_price)
    return out


def _whole(value: Any) -> int | None:
    return None if value is None else int(value)


def _known(row: dict[str, Any]) -> list[KnownDoc]:
    """The catalogue's facts of a stored record that are known and believed, in the catalogue's order."""
    suspect = set(json.loads(row["suspect"])) if row.get("suspect") else set()

    def told(f: Field) -> bool:
        return f.stored and not f.private and f.name not in _OWN_PLACE and f.name not in suspect

    own = json.loads(row.get("own") or "{}")
    return [
        KnownDoc(field=f.name, label=f.label, unit=f.unit, kind=f.kind.value, value=row[f.name])
        for f in CATALOGUE
        if told(f) and row.get(f.name) not in (None, "")
    ] + [
        KnownDoc(field=name, label=BY_NAME[name].label, unit="", kind=BY_NAME[name].kind.value, value=value)
        for name, value in own.items()
        if name in BY_NAME
    ]
