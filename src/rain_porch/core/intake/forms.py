"""The form of numbers and dates in a file: which sign divides the cents, and which comes first, day or month.

A form is judged over a whole column: a cell that only one form can read decides it (13/4/2025, 1.850,50). Where every cell
can be read both ways it is told by what the field can be (a living area of 1.85 sq ft is none, money has no thousandths),
else by the file's other columns, else by how this source's columns were read before, else it is asked: nothing is guessed.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field

from ..facts.fields import Field, Kind
from .parsing import LOCAL_DATE, Unreadable, bare_number, number

NUMBERS, DATES = ("point", "comma"), ("mdy", "dmy")
WORDS = {
    "point": "a point before the decimals", "comma": "a comma before the decimals",
    "mdy": "the month first", "dmy": "the day first",
}  # fmt: skip
REMEDIES = {**dict.fromkeys(NUMBERS, "--decimal"), **dict.fromkeys(DATES, "--dates")}
STRAYS = 0.02  # a column in which at most this share stands against the rest is read as the rest; the strays are listed
FITTING, NOT_FITTING = 0.9, 0.5
SHOWN = 3
_GROUPED = {sign: re.compile(rf"\d{{1,3}}({re.escape(sign)}\d{{2,3}})*{re.escape(sign)}\d{{3}}") for sign in ".,"}


def forms_of(f: Field) -> tuple[str, str] | None:
    """The two forms in which a field's cells may be written; None where there is but one."""
    if f.kind in (Kind.NUMBER, Kind.MONEY, Kind.YEAR):
        return NUMBERS
    return DATES if f.kind in (Kind.DATE, Kind.TIME) else None


@dataclass
class Evidence:
    """What a column's cells say of its form. first, second: cells that only the first or the second of its forms can
    read; either: cells that both read, with how many of these make a believable value in the first and in the second."""

    first: int = 0
    second: int = 0
    either: int = 0
    fits_first: int = 0
    fits_second: int = 0
    examples: list[str] = field(default_factory=list)

    def add(self, other: Evidence) -> None:
        for name in ("first", "second", "either", "fits_first", "fits_second"):
            setattr(self, name, getattr(self, name) + getattr(other, name))
        self.examples = list(dict.fromkeys([*self.examples, *other.examples]))[:SHOWN]

    @property
    def any(self) -> bool:
        return bool(self.first or self.second or self.either)


@dataclass(frozen=True)
class Judged:
    """A column's form, "" where its cells do not need one; None where it can be read both ways. why in a few words."""

    form: str | None
    why: str
    examples: tuple[str, ...] = ()


_ONE_POINT = re.compile(
    r"[+-]?\d*\.(?:\d{1,2}|\d{4,})"
).fullmatch  # most cells that tell; the rest is looked at closely


def evidence_of(f: Field, cells: Iterable[str], times: float = 1.0) -> Evidence:
    """What the cells of one column say. Equal cells count once."""
    out = Evidence()
    kinds = forms_of(f)
    if kinds is None:
        return out
    for cell in set(cells):
        if kinds is NUMBERS and _ONE_POINT(cell):
            out.first += 1
            out.examples.append(cell[:40])
            continue
        text = cell.strip()
        side = _number_side(text) if kinds is NUMBERS else _date_side(text)
        if side is None:
            continue
        if side == 0:
            out.either += 1
            out.fits_first += _fits(f, text, kinds[0], times)
            out.fits_second += _fits(f, text, kinds[1], times)
        elif side == 1:
            out.first += 1
        else:
            out.second += 1
        out.examples.append(text[:40])
    out.examples = sorted(out.examples, key=len, reverse=True)[:SHOWN]
    return out


def _number_side(text: str) -> int | None:
    """1: only with a point before the decimals; 2: only with a comma; 0: both ways; None: it does not tell."""
    bare = bare_number(text).lstrip("+-")
    points, commas = bare.count("."), bare.count(",")
    if not points and not commas:
        return None
    if points and commas:
        sign = max(".,", key=bare.rfind)
        return None if bare.count(sign) > 1 else 1 if sign == "." else 2
    sign, as_decimal, as_mark = (".", 1, 2) if points else (",", 2, 1)
    if points + commas > 1:
        return as_mark if _GROUPED[sign].fullmatch(bare) else None
    head, tail = bare.split(sign)
    if not (head + tail).isdigit():
        return None
    return 0 if len(tail) == 3 and 1 <= len(head) <= 3 and head[0] != "0" else as_decimal


def _date_side(text: str) -> int | None:
    """1: the month must stand first; 2: the day; 0: both ways; None: it does not tell."""
    found = LOCAL_DATE.match(text)
    if found is None:
        return None
    a, b = int(found[1]), int(found[3])
    if a == b or max(a, b) > 31 or min(a, b) > 12:
        return None
    return 2 if a > 12 else 1 if b > 12 else 0


def _fits(f: Field, text: str, form: str, times: float) -> bool:
    """Whether a cell that can be read both ways makes a believable value in one form."""
    if form in DATES:
        return True
    if f.kind is Kind.MONEY and bare_number(text)[-4:-3] == (".,"[NUMBERS.index(form)]):
        return False  # money has cents, no thousandths
    try:
        value = number(text, form) * times
    except Unreadable:
        return False
    return (f.low is None or value >= f.low) and (f.high is None or value <= f.high)


def judge(
    columns: Mapping[str, tuple[Field, Evidence]],
    asked: Mapping[str, str] | None = None,
    usual: Mapping[str, str] | None = None,
) -> dict[str, Judged]:
    """The form of every column, by its field. asked: forms that were said, which stand; usual: those of the last time."""
    out: dict[str, Judged] = {}
    open_yet: list[str] = []
    for name, (f, seen) in columns.items():
        kinds = forms_of(f)
        examples = tuple(seen.examples)
        if kinds is None:
            continue
        if asked and name in asked:
            out[name] = Judged(asked[name], "as you said", examples)
        elif not seen.any:
            out[name] = Judged("", "")
        elif (own := _own(seen)) is not None:
            out[name] = Judged(kinds[own], "by its own cells", examples)
        elif (fitting := _by_sense(seen)) is not None and not (seen.first or seen.second):
            out[name] = Judged(kinds[fitting], "by what it can be", examples)
        else:
            open_yet.append(name)
    for name in open_yet:
        f, seen = columns[name]
        kinds = forms_of(f)
        assert kinds is not None
        votes = {
            told.form for other, told in out.items() if told.form in kinds and other not in ("latitude", "longitude")
        }
        if len(votes) == 1 and not (seen.first and seen.second):
            out[name] = Judged(votes.pop(), "as the file's other columns", tuple(seen.examples))
        elif usual and usual.get(name) in kinds:
            out[name] = Judged(usual[name], "as the last time", tuple(seen.examples))
        else:
            out[name] = Judged(None, "it can be read both ways", tuple(seen.examples))
    return out


def _own(seen: Evidence) -> int | None:
    """The form that cells of which only one form is possible decide: 0 or 1; None where they do not."""
    if seen.first and seen.second <= STRAYS * seen.first:
        return 0
    if seen.second and seen.first <= STRAYS * seen.second:
        return 1
    return None


def _by_sense(seen: Evidence) -> int | None:
    if seen.fits_first >= FITTING * seen.either and seen.fits_second < NOT_FITTING * seen.either:
        return 0
    if seen.fits_second >= FITTING * seen.either and seen.fits_first < NOT_FITTING * seen.either:
        return 1
    return None


def likely(f: Field, cells: Sequence[str]) -> str:
    """The form of one column by its own cells alone, "" where they do not tell."""
    told = judge({f.name: (f, evidence_of(f, cells))}).get(f.name)
    return (told.form or "") if told else ""
