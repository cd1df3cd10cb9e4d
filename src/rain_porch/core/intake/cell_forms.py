"""How a single cell may be written: what it looks like, and the number or date it stands for."""

from __future__ import annotations

import re
from functools import lru_cache

from .parsing import Unreadable, date, number

EMPTY = frozenset({"", "na", "n/a", "null", "none", "nan", "-", "--", "unknown", "."})
LEADING = re.compile(r"[^\d\-]*(\d[\d,]*\.?\d*)")
ADDRESS = re.compile(r"^\s*(?:lot\s+)?\d+[a-z]?(?:[-/]\d+)?\s+(?:[nsew]{1,2}\.?\s+)?[\w'.-]*[a-z]{2}", re.IGNORECASE)
POINT = re.compile(r"^\s*(?:point\s*)?\(?\s*(-?\d{1,3}\.\d+)[\s,;]+(-?\d{1,3}\.\d+)\s*\)?\s*$", re.IGNORECASE)
DIMENSIONS = re.compile(r"^\D{0,3}(\d+(?:\.\d+)?)['ft. ]*\s*[xX×*]\s*(\d+(?:\.\d+)?)")
BEDS_BATHS = re.compile(r"^(\d{1,2})\s*(?:bd|br|beds?)?\s*[/|,]\s*(\d{1,2}(?:\.\d+)?)\s*(?:ba|baths?)?$", re.IGNORECASE)
BATHS = re.compile(
    r"^\s*(\d{1,2})\s*(?:\(?\s*(?:full|fb|f)\)?)?\s*(?:[/|,&+\-. ]|and)*\s*(?:(\d)\s*\(?\s*(?:half|hb|h|partial|p|1/2)?\)?)?s?\s*$", re.IGNORECASE
)  # fmt: skip
ACRE_CELL = re.compile(r"\d\s*(?:ac\b|acres?\b)", re.IGNORECASE)
COMPACT = re.compile(r"^(?:0[1-9]|1[0-2])(?:0[1-9]|[12]\d|3[01])(?:19|20)\d\d$")
SERIAL = re.compile(r"^[2-5]\d{4}(?:\.\d+)?$")
MONTH = re.compile(r"^(?:\d{4}[-/]\d{1,2}|\d{1,2}[-/]\d{4}|[A-Za-z]{3,9}[-\s,/]+\d{2,4})$")
_MAY_BE_DATE = re.compile(r"(?=.*\d)(?:\d{1,4}[-/. ]\s*\w|\d{8}|[A-Za-z]{3,9}[-. ,/]+\d)")


@lru_cache(maxsize=100_000)
def date_of(text: str) -> str | None:
    if len(text) > 40 or not _MAY_BE_DATE.match(text):
        return None
    for form in ("mdy", "dmy"):
        try:
            return date(text, form)
        except Unreadable:
            continue
    return None


@lru_cache(maxsize=100_000)
def number_of(text: str) -> float | None:
    try:
        return number(text)
    except Unreadable:
        try:
            return number(text, "comma")
        except Unreadable:
            return None
