"""People from a file: vCards (RFC 6350 and its forerunners), or CSV with a name and an e-mail column."""

from __future__ import annotations

import csv
import io
import re
from dataclasses import dataclass

from ..core.errors import Refused

MOST_PEOPLE, MOST_LETTERS = 5000, 400
_COLUMNS = {
    "name": ("name", "full name", "client", "display name"),
    "email": ("email", "e-mail", "e mail", "mail", "email address", "e-mail address"),
    "phone": ("phone", "telephone", "mobile", "cell", "contact"),
    "address": ("address", "street", "home address", "mailing address"),
    "note": ("note", "notes", "comment", "remarks"),
}
EMAIL = re.compile(r"^[^@\s<>,;]+@[^@\s<>,;]+\.[^@\s<>,;]+$")


@dataclass(frozen=True)
class People:
    """people: name, email, phone, address, note. left: why a card or row was not taken, with its number."""

    people: list[dict[str, str]]
    left: list[str]


def read_people(data: bytes) -> People:
    """Everybody whom a vCard or CSV file names. Raises Refused for a file that is neither."""
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            text = data.decode(encoding)
            break
        except UnicodeDecodeError:
            continue
    else:
        raise Refused("The file is no text: export the people as vCard (.vcf) or CSV.")
    found = _cards(text) if "BEGIN:VCARD" in text[:2000].upper() else _rows(text)
    people: list[dict[str, str]] = []
    left: list[str] = []
    for number, person in enumerate(found, 1):
        if len(people) >= MOST_PEOPLE:
            left.append(f"{number}: more than {MOST_PEOPLE:,} people; split the file.")
            break
        clean = {k: re.sub(r"[\x00-\x1f\x7f]+", " ", v).strip()[:MOST_LETTERS] for k, v in person.items()}
        if not clean.get("name"):
            left.append(f"{number}: no name.")
        elif clean.get("email") and not EMAIL.match(clean["email"]):
            left.append(f"{number}, {clean['name']}: “{clean['email']}” is no e-mail address.")
        else:
            people.append(clean)
    return People(people, left)


def _cards(text: str) -> list[dict[str, str]]:
    unfolded = re.sub(r"\r?\n[ \t]", "", text)
    out: list[dict[str, str]] = []
    card: dict[str, str] | None = None
    for line in unfolded.splitlines():
        head, _, value = line.partition(":")
        name = head.split(";")[0].split(".")[-1].strip().upper()
        if name == "BEGIN" and value.strip().upper() == "VCARD":
            card = {}
        elif name == "END" and card is not None:
            out.append(card)
            card = None
        elif card is not None:
            _enter(card, name, value)
    return out


def _enter(card: dict[str, str], name: str, value: str) -> None:
    key = {"FN": "name", "EMAIL": "email", "TEL": "phone", "NOTE": "note", "ADR": "address"}.get(name)
    if name == "N" and not card.get("name"):
        last, first, *_ = [*_parts(value), "", ""]
        card["name"] = f"{first} {last}".strip()
    elif key == "address":
        card.setdefault(key, ", ".join(p for p in _parts(value) if p))
    elif key == "name":
        card[key] = _plain(value)
    elif key:
        card.setdefault(key, _plain(value).removeprefix("mailto:").removeprefix("tel:"))


def _parts(value: str) -> list[str]:
    return [_plain(p).strip() for p in re.split(r"(?<!\\);", value)]


def _plain(value: str) -> str:
    return re.sub(r"\\([,;\\])", r"\1", value.replace("\\n", " ").replace("\\N", " "))


def _rows(text: str) -> list[dict[str, str]]:
    sample = text[:4000]
    delimiter = max(",;\t", key=lambda d: sample.split("\n", 1)[0].count(d))
    try:
        reader = csv.reader(io.StringIO(text), delimiter=delimiter)
        head = [h.strip().lower() for h in next(reader, [])]
        at = {key: next((head.index(n) for n in names if n in head), None) for key, names in _COLUMNS.items()}
        first, last = (head.index(n) if n in head else None for n in ("first name", "last name"))
        if at["name"] is None and last is None:
            raise Refused(
                "The file has no column “name”: name it in the first row, beside “email”, “phone”, “address”, “note”."
            )
        out = []
        for row in reader:
            if not any(c.strip() for c in row):
                continue
            person = {k: row[i] for k, i in at.items() if i is not None and i < len(row)}
            if at["name"] is None:
                person["name"] = " ".join(
                    row[i].strip() for i in (first, last) if i is not None and i < len(row)
                ).strip()
            out.append(person)
    except csv.Error as error:
        raise Refused(f"The file cannot be read as CSV: {error}.") from error
    return out
