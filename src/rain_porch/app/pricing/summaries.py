"""The figures of all that a workup's search finds, by kind of record, without what was set aside."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from ...core.errors import BadInput, NotFound
from ...core.facts.words import COUNTED
from ...core.market.columns import RECORD_KINDS, Floats, Ints
from ...core.market.home_figures import home_figures
from ...core.statistics.summary import DISPLAY_STEP, far_from_rest, pulls, summarise
from ...documents.base import Doc
from ...store.records.homes import addresses_of
from .opened import Opened, found

FAR = 12  # values a figure that are named because they lie far from the rest

LABELS = {
    "list_price": ("List price", "money"),
    "original_list_price": ("First list price", "money"),
    "price": ("Price paid or asked", "money"),
    "price_per_sqft": ("Price per sq ft", "per"),
    "living_area": ("Sq ft", "number"),
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
    """show: how its values are written: money, per (dollars a square foot), number, share."""

    field: str
    label: str
    show: str
    kinds: list[SummaryDoc]


class SummariesDoc(Doc):
    """left_out: how many of the homes found were set aside, and are in no figure."""

    left_out: int
    fields: list[FieldSummaryDoc]


def summaries(opened: Opened) -> SummariesDoc:
    """Each field's summary by kind; nothing where the search cannot be run."""
    standpoint, columns = opened.standpoint, opened.standpoint.columns
    try:
        rows = found(opened).rows
    except (BadInput, NotFound):
        return SummariesDoc(left_out=0, fields=[])
    aside = [
        columns.row_of[k]
        for k, made in opened.state.decisions.items()
        if made.choice == "set_aside" and k in columns.row_of
    ]
    out = np.isin(rows, aside)
    rows = rows[~out]
    values = home_figures(columns, standpoint.view, rows)
    kinds = [(k.value, standpoint.view.kind[rows] == RECORD_KINDS.index(k)) for k in COUNTED]
    groups = [*kinds, ("", np.ones(len(rows), dtype=bool))]
    told = {name: [(k, rows[of], values[name][of]) for k, of in groups] for name in LABELS}
    far = np.unique([r for parts in told.values() for _, own, x in parts for r in own[far_from_rest(x, FAR)]]).astype(
        np.int64
    )
    keys = [str(k) for k in columns.keys[far]]
    shown = addresses_of(standpoint.records.db, keys)
    called = {int(r): (k, shown.get(k, k)) for r, k in zip(far, keys, strict=True)}
    return SummariesDoc(
        left_out=int(out.sum()),
        fields=[
            FieldSummaryDoc(
                field=name, label=LABELS[name][0], show=LABELS[name][1],
                kinds=[_summary(k, name, own, x, called) for k, own, x in parts if np.isfinite(x).any()],
            )
            for name, parts in told.items()
        ],
    )  # fmt: skip


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
        ],
    )  # fmt: skip
