"""The search read back as one plain sentence, in parts that the interface can open."""

from __future__ import annotations

import functools
from collections.abc import Sequence
from dataclasses import dataclass

from ..facts.dates import date_of, said
from ..facts.fields import BY_NAME, Field, Kind
from ..facts.places.parcels import words as parcel_words
from ..facts.words import COUNTED, RecordKind, Status, home_plural, record_words, status_words
from ..phrases import listed, phrase, sentence_case
from .search import Criterion, Search, Window


@dataclass(frozen=True)
class Part:
    """A run of the sentence; `part` names the part of the search that opens there, None for plain words."""

    text: str
    part: str | None = None


def parts(search: Search) -> list[Part]:
    """ "Detached homes within 1 mi, 1,562–2,062 sq ft, 2+ full baths; sold in the last 180 days, …"."""
    kinds = listed([home_plural(k) for k in search.home_kinds]) if search.home_kinds else phrase("homes-of-any-kind")
    out = [Part(sentence_case(kinds), "home_kinds")]
    if search.radius_miles is not None:
        out += [Part(" "), Part(within_words(search.radius_miles), "radius_miles")]
    if search.areas:
        out += [Part(f" {phrase('search-in')} "), Part(listed(list(search.areas)), "areas")]
    if search.not_areas:
        out += [Part(", "), Part(phrase("search-not-in", places=listed(list(search.not_areas))), "not_areas")]
    for inside in (True, False):
        if words := _drawn(search, inside):
            out += [Part(" " if inside else ", "), Part(words, "shapes")]
    if search.fences:
        names = [f.name or phrase("search-drawn-fence") for f in search.fences]
        out += [Part(", "), Part(phrase("search-not-across", fences=listed(list(dict.fromkeys(names)))), "fences")]
    if search.parcels:
        out += [Part(", "), Part(phrase("search-parcels", parcels=parcel_words(search.parcels)), "parcels")]
    for c in search.criteria:
        out += [Part(", "), Part(criterion_words(c), c.field)]
    if search.leave_out_new_construction:
        out += [Part(", "), Part(phrase("search-no-new-construction"), "leave_out_new_construction")]
    if search.leave_out_distressed:
        out += [Part(", "), Part(phrase("search-no-distressed-sales"), "leave_out_distressed")]
    now: list[str] = []
    windows: list[Part] = []
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
        when = _between(window.since, window.until) if dated else last_days(window.days)
        words = phrase("search-when", what=_said(kind, window), when=when)
        windows += [Part(", " if windows else "; "), Part(words, f"windows.{kind.value}")]
    out += windows
    if now:
        out += [Part(", " if windows else "; "), Part(phrase("search-now", what=listed(now)), "windows.now")]
    out.append(Part("."))
    return out


def _said(kind: RecordKind, window: Window) -> str:
    """What of a kind is looked for: the whole of it, or some of its statuses."""
    return either([status_words(Status(status)) for status in window.only]) if window.only else record_words(kind)


def either(items: Sequence[str]) -> str:
    """ "a", "a or b", "a or b or c"."""
    return functools.reduce(lambda before, last: phrase("list-or", before=before, last=last), items)


def within_words(miles: float) -> str:
    """ "within 1 mi"."""
    return phrase("search-within", miles=f"{miles:g}")


def last_days(days: int | None) -> str:
    """ "in the last 180 days"; "at any time" without a number of them."""
    return phrase("search-at-any-time") if days is None else phrase("search-last-days", n=days, days=str(days))


def _drawn(search: Search, inside: bool) -> str:
    """ "inside a drawn area", "not in 2 drawn areas", or nothing."""
    n = sum(s.inside == inside for s in search.shapes)
    if not n:
        return ""
    return phrase("search-inside-drawn" if inside else "search-not-in-drawn", n=n)


def _between(first: float | None, last: float | None) -> str:
    """ "since Jan 1, 2026", "up to Mar 31, 2026", "from … to …", "at any time"; days as dates.py counts them."""
    start, end = (None if day is None else said(date_of(int(day))) for day in (first, last))
    if start and end:
        return phrase("search-from-to", first=start, last=end)
    if start:
        return phrase("search-since", first=start)
    return phrase("search-up-to", last=end) if end else phrase("search-at-any-time")


def sentence(search: Search) -> str:
    """The search as one sentence."""
    return "".join(p.text for p in parts(search))


def criterion_words(c: Criterion) -> str:
    """A criterion as it is said in the sentence: "1,562–2,062 sq ft", "2+ full baths"."""
    f = BY_NAME[c.field]
    if c.words and f.kind == Kind.TEXT:
        words = either([phrase("quoted", words=word) for word in c.words])
        return phrase("criterion-text", label=f.label, words=words)
    words = _criterion_words(c, f)
    return phrase("criterion-known", criterion=words) if c.must_be_known else words


def _criterion_words(c: Criterion, f: Field) -> str:
    label = f.label
    if f.kind == Kind.DATE:
        return phrase("criterion-date", label=label, when=_between(c.low, c.high))
    if c.words:
        return phrase("criterion-words", label=label, words=either(c.words))
    if c.low is None and c.high is None:
        return any_words(c.field)
    if f.kind == Kind.YEAR and c.high is None:
        return phrase(
            "criterion-built" if c.field == "year_built" else "criterion-year-from", label=label, low=_shown(f, c.low)
        )
    low, high = _shown(f, c.low), _shown(f, c.high)
    size = (
        low
        if c.low == c.high
        else f"{low}–{high}"
        if low and high
        else f"{low}+"
        if low
        else phrase("criterion-up-to", high=high)
    )
    unit = "" if f.unit == "$" else f.unit
    amount = f"{size} {unit}" if unit else size
    if c.field == "living_area":
        return amount
    single = f.said("single") if c.high == 1 else ""
    return phrase("criterion-of", amount=amount, label=single or label)


def any_words(name: str) -> str:
    """A field without a limit: "any lot"."""
    return phrase("criterion-any", label=BY_NAME[name].label)


def _shown(f: Field, value: float | None) -> str:
    """A limit as it is written: a year without a mark between thousands, money with its sign; "" for none."""
    if value is None:
        return ""
    if f.kind == Kind.YEAR:
        return f"{value:.0f}"
    return (
        f"{'$' if f.unit == '$' else ''}{value:,.0f}"
        if f.step >= 10
        else f"{'$' if f.unit == '$' else ''}{value:,.10g}"
    )
