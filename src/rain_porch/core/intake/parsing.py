"""Text cells to values, a column at a time. What cannot be read becomes None and its row is told."""

from __future__ import annotations

import datetime as dt
import math
import re
from collections.abc import Callable, Sequence
from functools import lru_cache

from ..facts.fields import Field, Kind

_SIGNS = re.compile(r"[$€£\s\u00a0\u202f]|USD|usd|EUR|eur")
_NUMBER_TAIL = re.compile(r"\s*(sq\.?\s*ft\.?|sqft|sf|square feet)\s*$", re.IGNORECASE)
_THOUSANDS = re.compile(r"\d+(?:\.\d+)?[kK]")  # 389K
_YES = {"y", "yes", "true", "t", "1", "1.0"}
_NO = {"n", "no", "false", "f", "0", "0.0"}
_EMPTY = {"", "na", "n/a", "null", "none", "nan", "-", "--", "unknown"}
_DATE_FORMS = (
    "%Y/%m/%d",
    "%Y%m%d",
    "%d %b %Y",
    "%b %d, %Y",
    "%B %d, %Y",
    "%d-%b-%Y",
    "%d-%b-%y",
    "%d %B %Y",
    "%b %d %Y",
    "%B %d %Y",
    "%b-%d-%Y",
    "%a %b %d %Y",
    "%A, %B %d, %Y",
)
# day and month as numbers, in either order, then the year; a time may follow
LOCAL_DATE = re.compile(r"(\d{1,2})([/.\-])(\d{1,2})\2(\d{4}|\d{2})(?=$|[ T])")
_POINT = re.compile(r"[+-]?(\d{1,3}(,\d{2,3})*,\d{3}|\d*)(\.\d*)?")
_COMMA = re.compile(r"[+-]?(\d{1,3}(\.\d{2,3})*\.\d{3}|\d*)(,\d*)?")
_ISO = re.compile(r"\d{4}-\d{2}-\d{2}")
MAX_TEXT = 20_000


class Unreadable(ValueError):
    """The cell holds something that is no value of its kind."""


def bare_number(text: str) -> str:
    """A number without signs of money, spaces and units; what is in brackets is negative. " $1,875 sq ft" → "1,875"."""
    bare = _NUMBER_TAIL.sub("", _SIGNS.sub("", text))
    return "-" + bare[1:-1] if bare.startswith("(") and bare.endswith(")") else bare


def number(text: str, form: str = "point") -> float:
    """ "$412,500" → 412500.0; "1,875 sq ft" → 1875.0; "(250)" → −250.0. form "comma": "412.500,00" → 412500.0.

    A thousands mark stands before groups of three (or, as in lakhs, two) digits; elsewhere the cell is unreadable.
    """
    try:
        value = float(text) if form != "comma" else float(text.replace(".", "x"))
    except ValueError:
        bare = bare_number(text)
        if _THOUSANDS.fullmatch(bare):
            return float(bare[:-1]) * 1000
        marks, decimal, written = (".", ",", _COMMA) if form == "comma" else (",", ".", _POINT)
        if marks in bare or decimal == ",":
            if not written.fullmatch(bare):
                raise Unreadable from None
            bare = bare.replace(marks, "").replace(decimal, ".")
        try:
            value = float(bare)
        except ValueError:
            raise Unreadable from None
    if not math.isfinite(value) or abs(value) > 1e15 or "_" in text:
        raise Unreadable
    return value


@lru_cache(maxsize=50_000)
def date(text: str, form: str = "mdy") -> str:
    """Any usual local form to an ISO date; form: "mdy" or "dmy", for those in which day and month are numbers."""
    if _ISO.match(text):
        try:
            return dt.date.fromisoformat(text[:10]).isoformat()
        except ValueError:
            raise Unreadable from None
    if local := LOCAL_DATE.match(text):
        first, second, year = int(local[1]), int(local[3]), int(local[4])
        if len(local[4]) == 2:
            year += 1900 if year >= 69 else 2000
        month, day = (second, first) if form == "dmy" else (first, second)
        try:
            return dt.date(year, month, day).isoformat()
        except ValueError:
            raise Unreadable from None
    for written in _DATE_FORMS:
        try:
            return dt.datetime.strptime(text, written).date().isoformat()
        except ValueError:
            continue
    head = text.split(" ", 1)[0]
    if head != text and "/" in head:
        return date(head, form)
    raise Unreadable


def timestamp(text: str, form: str = "mdy") -> str:
    """An ISO time, kept as it is; a bare date is allowed."""
    try:
        dt.datetime.fromisoformat(text)
    except ValueError:
        return date(text, form)
    return text


def yes_no(text: str, form: str = "") -> float:
    word = text.lower()
    if word in _YES:
        return 1.0
    if word in _NO:
        return 0.0
    raise Unreadable


_STARTS_FORMULA = ("=", "+", "-", "@", "\t", "\r", "'")


def guarded(text: str) -> str:
    """Text for a cell of a CSV file: a quote goes before what a spreadsheet would take for a formula."""
    return "'" + text if text.startswith(_STARTS_FORMULA) else text


def unguarded(text: str) -> str:
    """What `guarded` was given."""
    return text[1:] if text[0] == "'" and text[1:2] in _STARTS_FORMULA else text


def words(text: str, form: str = "") -> str:
    if len(text) > MAX_TEXT:
        raise Unreadable
    return unguarded(text).replace("\x00", "")


_PARSERS: dict[Kind, Callable[[str, str], object]] = {
    Kind.NUMBER: number,
    Kind.MONEY: number,
    Kind.YEAR: number,
    Kind.YES_NO: yes_no,
    Kind.DATE: date,
    Kind.TIME: timestamp,
    Kind.WORD: words,
    Kind.TEXT: words,
}
Column = list[object]


def parse_column(f: Field, cells: Sequence[str], form: str = "") -> tuple[Column, list[int]]:
    """Values of one column, and the positions that could not be read. form: one of forms.py, where it is known.

    A column of clean numbers or of short texts is read in one sweep; any other has each distinct cell read once, and
    its equal cells are one value.
    """
    if not any(cells):
        return [None] * len(cells), []
    if f.kind is Kind.TEXT:
        joined = "".join(cells)
        if max(map(len, cells), default=0) <= MAX_TEXT and "\x00" not in joined:
            out: Column = [c.strip() or None for c in cells]
            if "'" in joined:
                out = [unguarded(v) if isinstance(v, str) and v[0] == "'" else v for v in out]
            return out, []
    elif f.kind in (Kind.NUMBER, Kind.MONEY, Kind.YEAR) and form != "comma":
        clean = _clean_numbers(cells)
        if clean is not None:
            return clean, []
    return _each_distinct(f, cells, form)


def _clean_numbers(cells: Sequence[str]) -> Column | None:
    """The numbers of cells that are all plain numbers or empty; None where any is not."""
    try:
        out: Column = [float(c) if c else None for c in cells]
    except ValueError:
        return None
    total = sum(filter(None, out))  # type: ignore[arg-type]
    return out if math.isfinite(total) and abs(total) < 1e15 and "_" not in "".join(cells) else None


def _each_distinct(f: Field, cells: Sequence[str], form: str) -> tuple[Column, list[int]]:
    read = _PARSERS[f.kind]
    textual = f.kind in (Kind.TEXT, Kind.WORD)
    values: dict[str, object] = {}
    unreadable: set[str] = set()
    for cell in set(cells):
        text = cell.strip()
        if not text or (not textual and text.lower() in _EMPTY):
            values[cell] = None
            continue
        try:
            values[cell] = read(text, form)
        except Unreadable:
            values[cell] = None
            unreadable.add(cell)
    out = [values[cell] for cell in cells]
    return out, [i for i, cell in enumerate(cells) if cell in unreadable] if unreadable else []


_EITHER_WAY = re.compile(r"-?[1-9]\d{0,2}\.\d{3}")


def written(value: float) -> str:
    """A number as our files have it: whole ones without a point, and none that could be taken for thousands."""
    text = str(int(value)) if math.isfinite(value) and value == int(value) else repr(value)
    return text + "0" if _EITHER_WAY.fullmatch(text) else text
