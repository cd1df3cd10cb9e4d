"""The search read back as one plain sentence, in parts that the interface can open."""

from __future__ import annotations

from dataclasses import dataclass

from ..facts.dates import date_of, said
from ..facts.fields import BY_NAME, Kind
from ..facts.places.parcels import words as parcel_words
from ..facts.words import COUNTED, HOME_PLURAL, RECORD_LABEL, STATUS_SAID, HomeKind, RecordKind, Status
from .search import Criterion, Search, Window


@dataclass(frozen=True)
class Phrase:
    """A run of the sentence; `part` names the part of the search that opens there, None for plain words."""

    text: str
    part: str | None = None


def _and(items: list[str]) -> str:
    return items[0] if len(items) == 1 else f"{', '.join(items[:-1])} and {items[-1]}"


def phrases(search: Search) -> list[Phrase]:
    """ "Detached homes within 1 mi, 1,562–2,062 sq ft, 2+ full baths; sold in the last 180 days, …"."""
    kinds = _and([HOME_PLURAL[HomeKind(k)] for k in search.home_kinds]) if search.home_kinds else "homes of any kind"
    out = [Phrase(kinds[0].upper() + kinds[1:], "home_kinds")]
    if search.radius_miles is not None:
        out += [Phrase(" "), Phrase(f"within {search.radius_miles:g} mi", "radius_miles")]
    if search.areas:
        out += [Phrase(" in "), Phrase(_and(list(search.areas)), "areas")]
    if search.not_areas:
        out += [Phrase(", "), Phrase(f"not in {_and(list(search.not_areas))}", "not_areas")]
    for words in (_drawn(search, True), _drawn(search, False)):
        if words:
            out += [Phrase(", " if words.startswith("not") else " "), Phrase(words, "shapes")]
    if search.fences:
        names = [f.name or "a drawn fence" for f in search.fences]
        out += [Phrase(", "), Phrase(f"not across {_and(list(dict.fromkeys(names)))}", "fences")]
    if search.parcels:
        out += [Phrase(", "), Phrase(f"parcels {parcel_words(search.parcels)}", "parcels")]
    for c in search.criteria:
        out += [Phrase(", "), Phrase(criterion_words(c), c.field)]
    if search.leave_out_new_construction:
        out += [Phrase(", "), Phrase("no new construction", "leave_out_new_construction")]
    if search.leave_out_distressed:
        out += [Phrase(", "), Phrase("no distressed sales", "leave_out_distressed")]
    now: list[str] = []
    windows: list[Phrase] = []
    for kind in COUNTED:
        window = search.windows.get(kind)
        if window is None or not window.on:
            continue
        if (
            window.days is None
            and window.since is None
            and window.until is None
            and kind in (RecordKind.UNDER_CONTRACT, RecordKind.FOR_SALE)
        ):
            now.append(_said(kind, window))
            continue
        dated = window.since is not None or window.until is not None
        days = (
            "at any time"
            if window.days is None
            else f"in the last {window.days} {'day' if window.days == 1 else 'days'}"
        )
        when = _between(window.since, window.until) if dated else days
        windows += [Phrase(", " if windows else "; "), Phrase(f"{_said(kind, window)} {when}", f"windows.{kind.value}")]
    out += windows
    if now:
        out += [Phrase(", " if windows else "; "), Phrase(f"{_and(now)} now", "windows.now")]
    out.append(Phrase("."))
    return out


def _said(kind: RecordKind, window: Window) -> str:
    """What of a kind is looked for: the whole of it, or some of its statuses."""
    if window.only:
        return " or ".join(STATUS_SAID[Status(status)] for status in window.only)
    return "sold by deed" if kind == RecordKind.DEED_SALE else RECORD_LABEL[kind]


def _drawn(search: Search, inside: bool) -> str:
    """ "inside a drawn area", "not in 2 drawn areas", or nothing."""
    n = sum(s.inside == inside for s in search.shapes)
    if not n:
        return ""
    return f"{'inside' if inside else 'not in'} {'a drawn area' if n == 1 else f'{n} drawn areas'}"


_EVENT = {"on_market_date": "on the market", "purchase_contract_date": "contract", "close_date": "closed",
          "off_market_date": "off the market"}  # fmt: skip


def _between(first: float | None, last: float | None) -> str:
    """ "since Jan 1, 2026", "up to Mar 31, 2026", "from … to …", "at any time"; days as dates.py counts them."""
    start, end = (None if day is None else said(date_of(int(day))) for day in (first, last))
    if start and end:
        return f"from {start} to {end}"
    return f"since {start}" if start else f"up to {end}" if end else "at any time"


def sentence(search: Search) -> str:
    """The search as one sentence."""
    return "".join(p.text for p in phrases(search))


_ONE = {
    "baths": "bath",
    "bedrooms": "bedroom",
    "spaces": "space",
    "storeys": "storey",
    "fireplaces": "fireplace",
    "units": "unit",
}


def _one_of(label: str) -> str:
    """ "full baths" → "full bath"."""
    return " ".join(_ONE.get(word, word) for word in label.split())


def criterion_words(c: Criterion) -> str:
    """A criterion as it is said in the sentence: "1,562–2,062 sq ft", "2+ full baths"."""
    f = BY_NAME[c.field]

    if f.kind == Kind.DATE:
        return f"{_EVENT.get(c.field, f.label.lower())} {_between(c.low, c.high)}{', known' if c.must_be_known else ''}"

    def show(value: float) -> str:
        if f.kind == Kind.YEAR:
            return f"{value:.0f}"
        return f"{value:,.0f}" if f.step >= 10 else f"{value:,.10g}"

    money = "$" if f.unit == "$" else ""
    unit = f" {f.unit}" if f.unit and not money else ""
    label = _one_of(f.label.lower()) if c.high == 1 else f.label.lower()
    tail = unit if c.field == "living_area" else f"{unit} {label}"
    known = ", known" if c.must_be_known else ""
    if c.words and f.kind == Kind.TEXT:
        return f"“{'” or “'.join(c.words)}” in the {f.label.lower()}"
    if c.words:
        return f"{f.label.lower()} {' or '.join(c.words)}{known}"
    if c.low is not None and c.high is not None:
        same = c.low == c.high
        return f"{money}{show(c.low)}{'' if same else f'–{money}{show(c.high)}'}{tail}{known}"
    if c.low is not None:
        if f.kind == Kind.YEAR:
            return (
                f"built {show(c.low)} or later{known}"
                if c.field == "year_built"
                else f"{f.label.lower()} from {show(c.low)}{known}"
            )
        return f"{money}{show(c.low)}+{tail}{known}"
    if c.high is not None:
        return f"up to {money}{show(c.high)}{tail}{known}"
    return f"any {f.label.lower()}{known}"
