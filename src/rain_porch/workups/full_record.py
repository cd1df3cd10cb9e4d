"""One record, whole: what it is, its prices and days, every fact known of it, and the story of its home."""

from __future__ import annotations

import datetime as dt
import json
from typing import Any

import numpy as np

from ..core.columns import RECORD_KINDS
from ..core.dates import day_of
from ..core.errors import NotFound
from ..core.fields import CATALOGUE, Field
from ..core.listing_facts import days_on_market, prices_of
from ..core.stages import NOTHING
from ..store import homes
from . import photos
from .documents import Doc, Value
from .records import Records
from .story import story

_OWN_PLACE = frozenset({"public_remarks", "private_remarks", "list_agent_full_name", "list_office_name", "listing_id",
                        "standard_status", "local_status", "latitude", "longitude", "unparsed_address", "unit_number",
                        "days_on_market", "cumulative_days_on_market"})  # fmt: skip
DEED = "deed:"


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
    note: str
    listing_id: str | None = None


class FullRecordDoc(Doc):
    """A listing or deed sale. agent and office are for the agent's own screen, and never go on paper.

    given_days, given_cumulative_days: as the source counts them.
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
    facts: list[KnownDoc]
    remarks: str
    agent: str
    office: str
    pictures: list[str]
    story: list[StoryDoc]


def full_record(records: Records, key: str, until: dt.date | None = None) -> FullRecordDoc:
    """Everything known of one record up to a day, the newest day of the records unless given. Raises NotFound."""
    columns = records.columns()
    row = columns.row_of.get(key)
    listing = homes.listing(records.db, key)
    deed = homes.transfer(records.db, key.removeprefix(DEED)) if key.startswith(DEED) else None
    held = listing or deed
    if held is None:
        raise NotFound(f"No listing has the number {key}.", listing=key)
    number = held["parcel_number"]
    parcel = homes.parcel(records.db, number) if number else None
    of_home = homes.listings_of_home(records.db, (listing or parcel or {}).get("home_key") or "")
    day = until or records.through()
    view = columns.as_of(day_of(day))
    days, prices, kind = None, {}, ""
    if row is not None and view.kind[row] != NOTHING:
        at = np.array([row], dtype=np.int64)
        own = days_on_market(columns, view, at)
        days = None if np.isnan(own[0]) else int(own[0])
        prices = prices_of(columns, view, at, own)[0]
        kind = RECORD_KINDS[view.kind[row]].value
    shown = listing or parcel or {}
    unit = shown.get("unit_number")
    told = listing or {}
    cumulative = prices.get("cumulative_days_on_market")
    return FullRecordDoc(
        listing_id=key,
        address=f"{shown.get('unparsed_address') or ''}{f', unit {unit}' if unit else ''}",
        kind=kind,
        status=told.get("standard_status") or "",
        local_status=told.get("local_status") or "",
        days=days,
        cumulative_days=None if cumulative is None else int(cumulative),
        given_days=_whole(told.get("days_on_market")),
        given_cumulative_days=_whole(told.get("cumulative_days_on_market")),
        prices=prices,
        facts=_known(listing or {**(parcel or {}), "close_price": held.get("price"), "close_date": held.get("sale_date")}),
        remarks=told.get("public_remarks") or "",
        agent=told.get("list_agent_full_name") or "",
        office=told.get("list_office_name") or "",
        pictures=photos.captions(records, key) if listing else [],
        story=[
            StoryDoc.model_validate(p)
            for p in story(records, of_home, homes.transfers_of_parcel(records.db, number) if number else [], number, day)
        ],
    )  # fmt: skip


def _whole(value: Any) -> int | None:
    return None if value is None else int(value)


def _known(row: dict[str, Any]) -> list[KnownDoc]:
    """The catalogue's facts of a stored record that are known and believed, in the catalogue's order."""
    suspect = set(json.loads(row["suspect"])) if row.get("suspect") else set()

    def told(f: Field) -> bool:
        return f.stored and not f.private and f.name not in _OWN_PLACE and f.name not in suspect

    return [
        KnownDoc(field=f.name, label=f.label, unit=f.unit, kind=f.kind.value, value=row[f.name])
        for f in CATALOGUE
        if told(f) and row.get(f.name) not in (None, "")
    ]
