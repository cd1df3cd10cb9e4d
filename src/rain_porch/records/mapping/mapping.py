"""How a file's columns become fields: one part a field, from one column or several, with units and words changed.

A mapping is JSON: {"parts": [{"field": "lot_size_square_feet", "columns": ["Acres"], "times": 43560}, …]}. The short
form {column: field} is understood as well. A part's `how` says what several columns make:

    join        their words with `between` among them: number, street, unit
    date        year, month and, where given, day; without one the 15th is taken
    sum         their numbers added up
    difference  the first number less the others
    first       the first of them that holds something

A part's `take` says which of the facts that stand together in a cell is meant (core/intake/takes.py): the spaces of "2 Car
Attached", the half bath of "2/1", the city of a whole address.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from dataclasses import field as _field
from typing import Any, Literal, get_args

from ...core.errors import Refused
from ...core.facts.fields import Field, Kind, own_field
from ...core.facts.people import tells_who_lives_there
from ...core.facts.words import plain
from ...core.intake.forms import WORDS as FORM_WORDS
from ...core.intake.forms import forms_of
from ...core.intake.parsing import Unreadable, number, written
from ...core.intake.takes import TAKES, taken_from

How = Literal["join", "date", "sum", "difference", "first"]
_MONTHS = {
    m: i
    for i, m in enumerate(["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"], start=1)
}


@dataclass(frozen=True)
class Part:
    """Where one field comes from.

    times     numbers are multiplied by it (acres to square feet: 43,560)
    values    {word in the file: word to take for it}; "" makes the cell empty
    constant  the same text in every row, in place of columns
    take      which fact of the cell, where several stand in it; "" is the whole cell
    form      how its numbers or dates are written (forms.py); "" is judged from the whole column
    """

    field: str
    columns: tuple[str, ...] = ()
    how: How = "join"
    between: str = " "
    times: float = 1.0
    values: Mapping[str, str] = _field(default_factory=dict)
    constant: str | None = None
    form: str = ""
    take: str = ""

    def as_json(self) -> dict[str, Any]:
        out: dict[str, Any] = {"field": self.field, "columns": list(self.columns)}
        plain_part = Part(self.field)
        for name in ("how", "between", "times", "values", "constant", "form", "take"):
            if getattr(self, name) != getattr(plain_part, name):
                out[name] = dict(self.values) if name == "values" else getattr(self, name)
        return out


def read_mapping(document: Any, columns: Sequence[str], fields: Sequence[Field]) -> tuple[Part, ...]:
    """A mapping document against a file's columns. Refused names what is not there or makes no sense."""
    if not isinstance(document, Mapping):
        raise Refused("A mapping must be one JSON object: {column: field}, or {parts: [{field, columns}]}.")
    given = document.get("parts")
    if given is None or isinstance(given, str):
        given = [
            {"columns": [column], **(to if isinstance(to, Mapping) else {"field": to})}
            for column, to in document.items()
        ]
    if not isinstance(given, list) or not all(isinstance(p, Mapping) for p in given):
        raise Refused("The mapping's parts must be a list of objects with a field and its columns.")
    known = {f.name: f for f in fields} | {f.reso: f for f in fields}
    if takes_own(fields):
        known |= {n: own for p in given if (own := own_field(n := str(p.get("field")))) is not None}
    out: dict[str, Part] = {}
    for part in given:
        name = part.get("field")
        if name not in known:
            where = ", ".join(map(str, part.get("columns") or ())) or "a part"
            if tells_who_lives_there(str(name)):
                raise Refused(
                    f"The mapping keeps “{where}”, which tells who lives somewhere: no figure here may hang on it. Leave it out."
                )
            raise Refused(f"The mapping sends “{where}” to “{name}”, which is no field of this kind of file.")
        made = _part(known[name], part)
        for column in made.columns:
            if column not in columns:
                raise Refused(
                    f"The mapping names a column “{column}” that the file does not have: {', '.join(columns[:40])}."
                )
        if made.field in out:
            raise Refused(f"The mapping fills {known[name].reso} twice: leave one of the two out.")
        out[made.field] = made
    return tuple(out.values())


def mapping_alone(document: Any, fields: Sequence[Field]) -> dict[str, Any]:
    """A mapping document checked without a file, as it is kept under a name. Refused names what makes no sense."""
    given = document.get("parts", document) if isinstance(document, Mapping) else ()
    parts = given if isinstance(given, list) else [{"columns": [c]} for c in given]
    given_columns = [p.get("columns") or [p.get("column")] for p in parts if isinstance(p, Mapping)]
    columns = [c for some in given_columns if isinstance(some, list) for c in some if isinstance(c, str)]
    return {"parts": [p.as_json() for p in read_mapping(document, columns, fields)]}


def name_of_mapping(name: str) -> str:
    """A name under which a mapping can be kept. Refused for one that is empty, too long or cannot stand in an address."""
    name = " ".join(name.split())
    if not 1 <= len(name) <= 80 or "/" in name or not name.isprintable():
        raise Refused("A mapping's name has 1 to 80 signs, and no “/”: choose another.")
    return name


def takes_own(fields: Sequence[Field]) -> bool:
    """Whether files of these fields may bring columns of the office's own: those of homes."""
    return any(f.name == "living_area" for f in fields)


def _part(f: Field, given: Mapping[str, Any]) -> Part:
    where = f"The mapping of {f.reso}"
    columns = given.get("columns") or ([given["column"]] if given.get("column") else [])
    constant = given.get("constant")
    how = given.get("how", "join")
    values = given.get("values") or {}
    if not isinstance(columns, list) or not all(isinstance(c, str) for c in columns) or len(columns) > 8:
        raise Refused(f"{where}: columns must be a list of up to eight names.")
    if not columns and constant is None:
        raise Refused(f"{where}: name its columns, or give a constant.")
    if how not in get_args(How) or (how == "date" and f.kind != Kind.DATE):
        raise Refused(f"{where}: “{how}” is no way to make it; there are {', '.join(get_args(How))} (date for dates).")
    if not isinstance(values, Mapping) or not all(isinstance(v, str) for v in values.values()):
        raise Refused(f"{where}: values must be an object of words to words.")
    try:
        times = float(given.get("times", 1))
    except (TypeError, ValueError):
        times = 0.0
    if not 1e-9 < abs(times) < 1e9:
        raise Refused(f"{where}: times must be a number other than zero.")
    form = given.get("form") or ""
    if form and form not in (forms_of(f) or ()):
        known = " or ".join(f"“{x}” ({FORM_WORDS[x]})" for x in forms_of(f) or ()) or "none"
        raise Refused(f"{where}: “{form}” is no form of it; there is {known}.")
    take = given.get("take") or ""
    if take and take not in TAKES:
        raise Refused(f"{where}: “{take}” takes nothing from a cell; there is {', '.join(TAKES)}.")
    return Part(
        f.name, tuple(columns), how, str(given.get("between", " ")), times,
        {str(k): v for k, v in values.items()}, None if constant is None else str(constant), form, take,
    )  # fmt: skip


MADE = frozenset(TAKES) - {"street", "city", "postal", "postal_code", "unit", "without_unit"}  # written in our own form


@dataclass(frozen=True)
class Bound:
    """A part made ready for one file: texts(across, rows) gives its cells, one text a row; places are its columns'."""

    field: Field
    part: Part
    places: tuple[int, ...]
    texts: Callable[[Sequence[Sequence[str]], int], Sequence[str]]

    @property
    def form(self) -> str:
        """The form in which the texts are written: what was reckoned or put together is written in ours."""
        return "" if self.part.how not in ("join", "first") or self.part.take in MADE else self.part.form


def bind(parts: Sequence[Part], columns: Sequence[str], fields: Sequence[Field]) -> list[Bound]:
    """Parts with the places of their columns in this file, in the order of the fields."""
    by_name = {p.field: p for p in parts}
    place = {c: i for i, c in reversed(list(enumerate(columns)))}
    out = []
    own = [f for p in parts if (f := own_field(p.field)) is not None]
    for f in (*fields, *own):
        if part := by_name.get(f.name):
            places = tuple(place[c] for c in part.columns)
            out.append(Bound(f, part, places, _texts(part, places)))
    return out


def _texts(part: Part, places: Sequence[int]) -> Callable[[Sequence[Sequence[str]], int], Sequence[str]]:
    def one(across: Sequence[Sequence[str]], rows: int, i: int) -> Sequence[str]:
        return across[i] if i < len(across) else ("",) * rows

    def texts(across: Sequence[Sequence[str]], rows: int) -> Sequence[str]:
        if part.constant is not None:
            return (part.constant,) * rows
        cells = [one(across, rows, i) for i in places]
        made: Sequence[str]
        if len(cells) == 1 and part.how != "date":
            made = cells[0]
        elif part.how == "join":
            made = [part.between.join(c for c in map(str.strip, row) if c) for row in zip(*cells, strict=True)]
        elif part.how == "first":
            made = [next((c for c in row if c.strip()), "") for row in zip(*cells, strict=True)]
        elif part.how == "date":
            made = [_date_of(*row) for row in zip(*cells, strict=True)]
        else:
            made = [_reckoned(part, row) for row in zip(*cells, strict=True)]
        if part.take:
            facts = {c: taken_from(part.take, c) for c in set(made)}
            made = [facts[c] for c in made]
        if part.values:
            words = {plain(k) or k.strip(): v for k, v in part.values.items()}
            made = [words.get(plain(c) or c.strip(), c) for c in made]
        return made

    return texts


def _date_of(year: str, month: str = "", day: str = "") -> str:
    """ "2010", "5" → "2010-05-15"; "Mar" is a month too. What cannot be one is given back as it stood, to be told."""
    if not year.strip() and not month.strip():
        return ""
    try:
        m = _MONTHS.get(month.strip().lower()[:3]) or int(number(month.strip() or "7"))
        return dt.date(int(number(year.strip())), m, int(number(day.strip() or "15"))).isoformat()
    except (Unreadable, ValueError):
        return f"{year} {month} {day}".strip()


def _reckoned(part: Part, cells: Sequence[str]) -> str:
    """The sum, or the first less the others; unknown where the first is, or where all are."""
    known: list[float | None] = []
    for cell in cells:
        try:
            known.append(number(cell.strip(), part.form) if cell.strip() else None)
        except Unreadable:
            return cell
    first, rest = known[0], [v for v in known[1:] if v is not None]
    if part.how == "difference":
        return "" if first is None or len(rest) < len(known) - 1 else written(first - sum(rest))
    return "" if first is None and not rest else written((first or 0.0) + sum(rest))
