"""Addresses as words that can be compared: case, direction words, street types and unit marks are folded."""

from __future__ import annotations

import re
from functools import lru_cache

from ...phrases import phrase

_DIRECTIONS = {
    "north": "n", "south": "s", "east": "e", "west": "w",
    "northeast": "ne", "northwest": "nw", "southeast": "se", "southwest": "sw",
}  # fmt: skip
_TYPES = {
    "street": "st", "str": "st", "avenue": "ave", "av": "ave", "road": "rd", "drive": "dr", "drv": "dr", "lane": "ln",
    "court": "ct", "crt": "ct", "place": "pl", "boulevard": "blvd", "circle": "cir", "terrace": "ter", "trail": "trl",
    "terr": "ter", "tce": "ter", "parkway": "pkwy", "highway": "hwy", "square": "sq", "crescent": "cres", "alley": "aly", "row": "row", "way": "way",
}  # fmt: skip
DIRECTIONS = frozenset({*_DIRECTIONS, *_DIRECTIONS.values()})
STREET_TYPES = frozenset({*_TYPES, *_TYPES.values()})
_UNITS = {"unit", "apt", "apartment", "suite", "ste", "no", "number"}
_OF_HOUSES_TOO = {"#", "no", "number"}  # before a first number they mark the house
_WORD = re.compile(r"[a-z]+|\d+[a-z]?(?![a-z])|\d+[a-z]+|#")


def words(address: str) -> list[str]:
    """The folded words of an address, in order. "No. 14 North Ferry Lane, Apt 3" → 14 n ferry ln unit3."""
    number, _, street = address.partition(" ")
    if number.isascii() and number.isdigit():  # most are a number and one of the few streets of the place
        return [number, *_folded_words(street, False)]
    return list(_folded_words(address, True))


@lru_cache(maxsize=65_536)
def _folded_words(text: str, from_start: bool) -> tuple[str, ...]:
    """from_start: nothing stands before the text, so that a first "No." marks the house, not a unit."""
    out: list[str] = []
    raw = _WORD.findall(text.lower().replace(".", " ").replace("'", ""))
    unit_next = False
    for i, word in enumerate(raw):
        at_start = from_start and i == 0
        if unit_next:
            out.append(f"unit{word}")
            unit_next = False
        elif at_start and (word in _OF_HOUSES_TOO or (word in _UNITS and len(raw) == 1)):
            continue
        elif word == "#" or (word in _UNITS and i + 1 < len(raw)):
            unit_next = True
        else:
            out.append(_DIRECTIONS.get(word) or _TYPES.get(word) or word)
    return tuple(out)


@lru_cache(maxsize=4096)
def _place_words(city: str) -> tuple[str, ...]:
    return tuple(words(city))


def folded(
    address: str | None, unit: str | None = None, city: str | None = None, postal_code: str | None = None
) -> str:
    """All words by which a home's address may be looked up, as one text."""
    parts = words(address or "")
    if unit and not any(p.startswith("unit") for p in parts):
        parts.append("unit" + unit.lower().lstrip("#").strip())
    parts += _place_words(city or "")
    if postal_code:
        parts.append(postal_code.strip()[:5].lower())
    return " ".join(parts)


def key(address: str | None, unit: str | None, city: str | None, postal_code: str | None) -> str | None:
    """One text for one home: equal for two spellings of the same address; None without a street address."""
    parts = words(address or "")
    if not parts:
        return None
    parts = folded(address, unit).split()
    place = (postal_code or "").strip()[:5] or " ".join(words(city or ""))
    return " ".join(parts) + ("|" + place if place else "")


def readings(parts: list[str]) -> list[list[str]]:
    """Other ways to read folded words that fit no address: a second number as a unit, two words as one, and without
    direction words and street types, which people leave out or get wrong."""
    out: list[list[str]] = []
    numbers = [i for i, p in enumerate(parts) if p[0].isdigit()]
    if len(numbers) > 1:
        out.append([*(p for i, p in enumerate(parts) if i != numbers[-1]), "unit" + parts[numbers[-1]]])
    for i in range(len(parts) - 1):
        if parts[i].isalpha() and parts[i + 1].isalpha():
            out.append([*parts[:i], parts[i] + parts[i + 1], *parts[i + 2 :]])
    usual = {*_DIRECTIONS.values(), *_TYPES.values()}
    bare = [p for p in parts if p not in usual]
    if len(bare) < len(parts) and any(p.isalpha() for p in bare):
        out.append(bare)
    return out


def slips_of_usual(word: str) -> list[str]:
    """Folded street types and directions whose long form is one slip away: "terace" → ter."""
    return sorted(
        {short for long, short in {**_DIRECTIONS, **_TYPES}.items() if len(long) > 4 and one_slip(long, word)}
    )


def unfinished(word: str) -> list[str]:
    """The folded words that a word not typed to its end may become: "la" → ln; "no" → n."""
    whole = {**_DIRECTIONS, **_TYPES}
    return sorted({short for long, short in whole.items() if long.startswith(word)})


def one_slip(a: str, b: str) -> bool:
    """Whether one letter dropped, added, changed or swapped with its neighbour turns a into b."""
    if a == b:
        return True
    if abs(len(a) - len(b)) > 1:
        return False
    i = 0
    while i < min(len(a), len(b)) and a[i] == b[i]:
        i += 1
    if len(a) == len(b):
        return a[i + 1 :] == b[i + 1 :] or (a[i : i + 2] == b[i : i + 2][::-1] and a[i + 2 :] == b[i + 2 :])
    return a[i + 1 :] == b[i:] if len(a) > len(b) else a[i:] == b[i + 1 :]


_AT = re.compile(r"at_(-?\d+\.\d+)_(-?\d+\.\d+)_")


def with_unit(address: str, unit: str | None) -> str:
    """An address with the unit of its building, where it has one: "14 Mast Street, unit 101"."""
    return phrase("address-with-unit", address=address, unit=unit) if unit else address


def called_by_place(key: str) -> str:
    """How a listing without an address is called whose number was made from its place; "" for any other number.

    >>> called_by_place("at_42.054592_-93.626537_2010-04-15"), called_by_place("BF105908")
    ('42.05459 N, 93.62654 W', '')
    """
    found = _AT.match(key)
    if not found:
        return ""
    lat, lon = float(found[1]), float(found[2])
    return f"{abs(lat):.5f} {'N' if lat >= 0 else 'S'}, {abs(lon):.5f} {'E' if lon >= 0 else 'W'}"
