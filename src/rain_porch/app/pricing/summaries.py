"""The figures of all that a search finds, by kind of record, and beside them those of the homes that were chosen."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np
from pydantic import Field

from ...core.facts.words import COUNTED
from ...core.market.bulletin.home_figures import home_figures
from ...core.market.columns import FOR_SALE, RECORD_KINDS, UNDER_CONTRACT, Floats, Ints
from ...core.statistics.summary import DISPLAY_STEP, far_from_rest, pulls, summarise
from ...documents.base import Doc
from ...store.records.homes import addresses_of
from .opened import Opened, found_rows
from .standpoint import Standpoint

FAR = 12  # values a figure that are named because they lie far from the rest

LABELS = {
    "list_price": ("List price", "money"),
    "original_list_price": ("First list price", "money"),
    "price": ("Price paid or asked", "money"),
    "price_per_sqft": ("Price per sq ft", "per"),
    "living_area": ("Sq ft", "number"),
    "list_price_per_sqft": ("List price per sq ft", "per"),
    "days_on_market": ("Days on market", "number"),
    "cumulative_days_on_market": ("Cumulative days", "number"),
    "share_of_list": ("% of list", "share"),
    "share_of_original": ("% of first list", "share"),
}


class OutlyingDoc(Doc):
    """A value beyond Tukey's fences. mean_without: the mean of its kind with this one left out."""

    listing_id: str
    address: str
    value: float
    mean_without: float


class SummaryDoc(Doc):
    """kind: a kind of record, "" for all. Shares are of 1."""

    kind: str
    count: int
    low: float
    lower_quartile: float
    mean: float
    median: float
    upper_quartile: float
    high: float
    modes: list[float]
    far: list[OutlyingDoc]


class FieldSummaryDoc(Doc):
    """show: how its values are written: money, per (dollars a square foot), number, share. kinds: of all found. chosen: of
    those kept, or ticked, alone. home: the value of the home itself, where it is now for sale or has a list price."""

    field: str
    label: str
    show: str
    kinds: list[SummaryDoc]
    chosen: list[SummaryDoc] = Field([])
    home: float | None = None


class SummariesDoc(Doc):
    """left_out: how many of the homes found were set aside, and are in no figure."""

    left_out: int
    fields: list[FieldSummaryDoc]


def summaries_of_workup(opened: Opened) -> SummariesDoc:
    """Each field's summary by kind, of all found but what was set aside, and of the kept; nothing found where the search
    cannot be run."""
    row_of = opened.standpoint.columns.row_of
    decided = {c: [row_of[k] for k, made in opened.state.decisions.items() if made.choice == c and k in row_of]
               for c in ("kept", "set_aside")}  # fmt: skip
    rows = found_rows(opened)
    out = np.isin(rows, decided["set_aside"])
    kept = np.array(decided["kept"], dtype=np.int64)
    return summaries(opened.standpoint, rows[~out], kept, int(out.sum()), opened.state.list_price)


def summaries(
    standpoint: Standpoint, rows: Ints, chosen: Ints, left_out: int = 0, list_price: float | None = None
) -> SummariesDoc:
    """Each field's summary by kind: of some rows, and of those that were chosen. list_price: what the home is to be offered at,
    where that is said."""
    home = own_figures(standpoint, list_price)
    of_all, of_chosen = _by_kind(standpoint, rows), _by_kind(standpoint, chosen)
    called = _called(standpoint, of_all)
    return SummariesDoc(
        left_out=left_out,
        fields=[
            FieldSummaryDoc(
                field=name, label=LABELS[name][0], show=LABELS[name][1], home=home.get(name),
                kinds=[_summary(k, name, own, x, called) for k, own, x in of_all[name] if np.isfinite(x).any()],
                chosen=[_summary(k, name, own, x, {}) for k, own, x in of_chosen[name] if np.isfinite(x).any()],
            )
            for name in LABELS
        ] if len(rows) or len(chosen) else [],
    )  # fmt: skip


def own_figures(standpoint: Standpoint, list_price: float | None) -> dict[str, float]:
    """The home's own list price, price per square foot and days, as they are now: of the list price given, else of the listing
    with which it is for sale or under contract. Empty where there is neither."""
    columns, view, subject = standpoint.columns, standpoint.view, standpoint.subject
    area = subject.number("living_area")
    out: dict[str, float] = {"living_area": area} if area else {}
    now = np.zeros(0, dtype=np.int64)
    if subject.home_id is not None:
        now = columns.rows_of_home(subject.home_id)
        now = now[np.isin(view.kind[now], (FOR_SALE, UNDER_CONTRACT)) & np.isfinite(view.list_price[now])]
    if len(now):
        newest = now[np.argmax(view.date[now])][None]
        told = home_figures(columns, view, newest)
        names = ("list_price", "original_list_price", "days_on_market", "cumulative_days_on_market")
        out |= {name: float(told[name][0]) for name in names if np.isfinite(told[name][0])}
    if list_price is not None:
        out["list_price"] = list_price
    if "list_price" in out:
        out["price"] = out["list_price"]
        if area:
            out["price_per_sqft"] = out["list_price_per_sqft"] = out["list_price"] / area
    return out if "list_price" in out else {}


Groups = dict[str, list[tuple[str, Ints, Floats]]]


def _by_kind(standpoint: Standpoint, rows: Ints) -> Groups:
    """Field → (kind, rows, values) of each kind of record, "" for all."""
    values = home_figures(standpoint.columns, standpoint.view, rows)
    kinds = [(k.value, standpoint.view.kind[rows] == RECORD_KINDS.index(k)) for k in COUNTED]
    groups = [*kinds, ("", np.ones(len(rows), dtype=bool))]
    return {name: [(k, rows[of], values[name][of]) for k, of in groups] for name in LABELS}


def _called(standpoint: Standpoint, told: Groups) -> dict[int, tuple[str, str]]:
    """Row → (number, address) of the rows of which a value lies far from the rest."""
    far = np.unique([r for parts in told.values() for _, own, x in parts for r in own[far_from_rest(x, FAR)]]).astype(
        np.int64
    )
    keys = [str(k) for k in standpoint.columns.keys[far]]
    shown = addresses_of(standpoint.records.db, keys)
    return {int(r): (k, shown.get(k, k)) for r, k in zip(far, keys, strict=True)}


def _summary(kind: str, name: str, rows: Ints, x: Floats, called: Mapping[int, tuple[str, str]]) -> SummaryDoc:
    times = 100.0 if LABELS[name][1] == "share" else 1.0  # the step of a share is in percent
    s = summarise(x * times, DISPLAY_STEP[name])
    without = np.full(len(x), np.nan)
    without[np.isfinite(x)] = pulls(x[np.isfinite(x)])
    low, quarter, mean, median, upper, high = (
        float(v or 0) / times for v in (s.low, s.lower_quartile, s.mean, s.median, s.upper_quartile, s.high)
    )
    return SummaryDoc(
        kind=kind, count=s.count, low=low, lower_quartile=quarter, mean=mean, median=median, upper_quartile=upper,
        high=high, modes=[m / times for m in s.modes],
        far=[
            OutlyingDoc(listing_id=called[int(rows[i])][0], address=called[int(rows[i])][1], value=float(x[i]),
                   mean_without=float(without[i]))
            for i in far_from_rest(x, FAR)
            if int(rows[i]) in called
        ],
    )  # fmt: skip
