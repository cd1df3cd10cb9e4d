"""Facts that stand in a cell with others: the spaces of "2 Car Attached", the half bath of "2/1", the city of an address.

A take is a function from a cell's text to the text of one fact, "" where the cell does not tell it. What cannot be taken apart
comes back as it stood, so that it is told as unreadable.
"""

from __future__ import annotations

import datetime as dt
import re
from collections.abc import Callable, Mapping

from ..facts.sizes import SQFT_PER_ACRE
from .cell_forms import BATHS, BEDS_BATHS, COMPACT, DIMENSIONS, EMPTY, POINT, SERIAL, number_of
from .parsing import written

_NUMBER = re.compile(r"-?\d[\d,]*(?:\.\d+)?|-?\.\d+")
_NONE = re.compile(r"^(?:no\b|none\b|n$|0$|not\b|false$|n/a$|no garage)", re.IGNORECASE)
_WORD_NUMBERS = {"one": 1, "single": 1, "ranch": 1, "two": 2, "three": 3, "four": 4, "bi-level": 2, "bilevel": 2, "tri-level": 3, "trilevel": 3, "split": 2, "1 1/2": 1.5, "one and one half": 1.5, "one and a half": 1.5, "2 1/2": 2.5}  # fmt: skip
_CITY = re.compile(
    r"^(?P<street>.+?)\s*,\s*(?P<city>[A-Za-z][A-Za-z .'’-]*?)\s*,?\s+(?:(?P<state>[A-Za-z]{2})\.?(?=[\s,]|$))?[\s,]*(?P<postal>\d{5}(?:-\d{4})?)?\s*$|"
    r"^(?P<street2>.+?)\s*,\s*(?P<city2>[A-Za-z][A-Za-z .'’-]*?)\s*$"
)
_UNIT = re.compile(r"[,\s]+(?:#|apt\.?|unit|ste\.?|suite)\s*#?\s*([\w-]+)\s*$", re.IGNORECASE)
_MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"]


def _first_number(text: str) -> str:
    if _NONE.match(text):
        return "0"
    found = _NUMBER.search(text)
    return found[0].replace(",", "") if found else text


def _yes_counts(text: str) -> str:
    """A count of which some cells say only yes or no."""
    low = text.lower()
    return (
        "1" if low in ("y", "yes", "true", "x") else "0" if low in ("n", "no", "false", "none") else _first_number(text)
    )


def _garage(text: str) -> str:
    if _NONE.match(text) or text.lower() in ("carport", "street", "off street", "driveway"):
        return "0"
    found = re.search(r"\d+(?:\.\d+)?", text)
    if found:
        return found[0]
    word = next(
        (
            n
            for w, n in (("one", 1), ("two", 2), ("three", 3), ("four", 4), ("single", 1), ("double", 2), ("triple", 3))
            if re.search(rf"\b{w}\b", text, re.IGNORECASE)
        ),
        None,
    )
    return (
        str(word)
        if word is not None
        else ""
        if re.search("att|det|garage|carport|yes|built|oversize", text, re.IGNORECASE)
        else text
    )


def _attached(text: str) -> str:
    low = text.lower()
    if re.search(r"\bdet|unattach|not attach", low):
        return "no"
    return "yes" if re.search(r"\batt|built.?in|basement|tuck|under", low) else ""


def full_and_half(text: str) -> tuple[float, float] | None:
    """ "2.5" and "2/1" and "2F 1H" and "2.1" → (2, 1); "1.75" → (2, 0): three quarters of a bath are a bath."""
    value = number_of(text)
    if value is not None and "/" not in text:
        whole, part = divmod(round(value, 2), 1.0)
        part = round(part, 2)
        if part in (0.0,):
            return whole, 0.0
        if part == 0.5:
            return whole, 1.0
        if part == 0.75:
            return whole + 1, 0.0
        if part == 0.25:
            return whole, 1.0
        if len(text.strip().split(".")[-1]) == 1:  # 2.1: two full, one half
            return whole, round(part * 10)
        return None
    found = BATHS.match(text)
    if found is None:
        half = re.match(r"^\s*(\d+)\s*(?:1/2|½)\s*$", text)
        return (float(half[1]), 1.0) if half else _said(text)
    return float(found[1]), float(found[2] or 0)


def _said(text: str) -> tuple[float, float] | None:
    if listed := re.fullmatch(
        r"\d+(?:\.\d+)?\s*\((\d+)[\s,|/]+(\d+)(?:[\s,|/]+(\d+))?\)", text.strip()
    ):  # 3 (2 0 1): full, three quarters, half
        return float(listed[1]) + (float(listed[2]) if listed[3] else 0.0), float(listed[3] or listed[2])
    full = re.search(r"(\d+)\s*(?:full|f\b|fb\b)|(?:full|f)\s*[:=]?\s*(\d+)", text, re.IGNORECASE)
    half = re.search(
        r"(\d+)\s*(?:half|h\b|hb\b|partial|part|p\b)|(?:half|h|partial)\s*[:=]?\s*(\d+)", text, re.IGNORECASE
    )
    if full is None and half is None:
        return None
    return float((full and (full[1] or full[2])) or 0), float((half and (half[1] or half[2])) or 0)


def _full(text: str) -> str:
    told = full_and_half(text)
    return text if told is None else written(told[0])


def _half(text: str) -> str:
    told = full_and_half(text)
    return text if told is None else written(told[1])


def _stories(text: str) -> str:
    low = text.lower()
    for word, n in sorted(_WORD_NUMBERS.items(), key=lambda x: -len(x[0])):
        if low.startswith(word) or re.search(rf"\b{re.escape(word)}\b", low):
            return written(float(n))
    return _first_number(text)


def _lot(text: str) -> str:
    """A lot's size with its unit beside it, or its sides, in square feet."""
    if sides := DIMENSIONS.match(text.replace(",", "")):
        return written(float(sides[1]) * float(sides[2]))
    found = _NUMBER.search(text)
    if not found:
        return text
    value = float(found[0].replace(",", ""))
    return (
        written(value * SQFT_PER_ACRE)
        if re.search(r"\bac|acre", text[found.end() :], re.IGNORECASE)
        else written(value)
    )


def _side(text: str) -> str:
    sides = DIMENSIONS.match(text.replace(",", ""))
    return sides[1] if sides else ""


def _in_address(what: str) -> Callable[[str], str]:
    def take(text: str) -> str:
        found = _CITY.match(text)
        if found is None:
            return text if what == "street" else ""
        return (found[what] or (found[what + "2"] if what in ("street", "city") else "") or "").strip()

    return take


def _without_unit(text: str) -> str:
    return _UNIT.sub("", text)


def _unit(text: str) -> str:
    found = _UNIT.search(text)
    return found[1] if found else ""


def _compact_date(text: str) -> str:
    """ "03142024" → 2024-03-14; a day's number as spreadsheets count them is one too."""
    if COMPACT.match(text):
        return f"{text[4:]}-{text[:2]}-{text[2:4]}"
    if SERIAL.match(text):
        return (dt.date(1899, 12, 30) + dt.timedelta(days=int(float(text)))).isoformat()
    return text


def _month_date(text: str) -> str:
    """A month alone: its 15th is taken. "2024-03", "3/2024", "Mar-24", "March 2024"."""
    low = text.strip().lower()
    if found := re.fullmatch(r"(\d{4})[-/](\d{1,2})", low):
        return f"{found[1]}-{int(found[2]):02d}-15"
    if found := re.fullmatch(r"(\d{1,2})[-/](\d{4})", low):
        return f"{found[2]}-{int(found[1]):02d}-15"
    if (found := re.fullmatch(r"([a-z]{3})[a-z]*[-\s,/]+(\d{2}|\d{4})", low)) and found[1] in _MONTHS:
        year = found[2] if len(found[2]) == 4 else f"20{found[2]}" if int(found[2]) < 69 else f"19{found[2]}"
        return f"{year}-{_MONTHS.index(found[1]) + 1:02d}-15"
    return text


def _bed(text: str) -> str:
    found = BEDS_BATHS.match(text)
    return found[1] if found else text


def _baths_of(take: Callable[[str], str]) -> Callable[[str], str]:
    def of(text: str) -> str:
        found = BEDS_BATHS.match(text)
        return take(found[2]) if found else text

    return of


def _of_point(longitude: bool) -> Callable[[str], str]:
    def take(text: str) -> str:
        found = POINT.match(text)
        if found is None:
            return text
        first, second = found[1], found[2]
        lon_first = text.strip().lower().startswith("point") or abs(float(first)) > 90  # WKT names x before y
        return first if lon_first == longitude else second

    return take


def _has(text: str) -> str:
    """Yes or no of a feature that some sources describe: "In Ground" → yes; "None", "Community" → no."""
    low = text.lower()
    if low in ("y", "yes", "true", "t", "1", "x", "1.0"):
        return "yes"
    if _NONE.match(low) or low in ("f", "0", "0.0", "community", "community pool", "association", "shared"):
        return "no"
    found = number_of(text)
    return ("yes" if found > 0 else "no") if found is not None else "yes"


def _postal(text: str) -> str:
    bare = text.removesuffix(".0")
    return (
        bare.zfill(5)
        if bare.isdigit() and len(bare) == 4
        else f"{bare[:5]}-{bare[5:]}"
        if bare.isdigit() and len(bare) == 9
        else bare
    )


TAKES: Mapping[str, Callable[[str], str]] = {
    "first_number": _first_number, "count": _yes_counts, "garage": _garage, "attached": _attached, "full_baths": _full, "half_baths": _half,
    "stories": _stories, "lot": _lot, "side": _side, "street": _in_address("street"), "city": _in_address("city"), "postal": _in_address("postal"),
    "without_unit": _without_unit, "unit": _unit, "compact_date": _compact_date, "month_date": _month_date, "bed": _bed,
    "bed_full_baths": _baths_of(_full), "bed_half_baths": _baths_of(_half), "latitude": _of_point(False), "longitude": _of_point(True),
    "has": _has, "postal_code": _postal,
}  # fmt: skip


_SAYS_NONE = frozenset({"garage", "has", "count"})  # where “none” is told, not unknown


def taken_from(take: str, text: str) -> str:
    """One fact of a cell, "" where it holds none. "2 Car Attached", garage → "2"."""
    bare = text.strip()
    if not bare or (bare.lower() in EMPTY and take not in _SAYS_NONE):
        return ""
    return TAKES[take](bare)
