"""The form in which an office reads numbers, days, money and sizes.

The program reckons and writes everything in one form: "$412,500", "Aug 31, 2026", "1,520 sq ft". Sentences and papers are told
in the office's form where they leave it (`told`); what people wrote, and what programs read, stays as it is.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from ..phrases import phrase
from .dates import month_name
from .money import rate_digits
from .sizes import SQFT_PER_ACRE, SQFT_PER_SQUARE_METRE

NUMBERS = {"1,234.5": (",", "."), "1.234,5": (".", ","), "1 234,5": ("\u00a0", ","), "1’234.5": ("’", ".")}
DAYS = ("Aug 31, 2026", "31 Aug 2026", "2026-08-31")
NO_BREAK = "\u00a0"
METRES_PER_MILE, METRES_PER_FOOT = 1609.344, 0.3048

# a unit as it is written here: the same in metres, and how many of those one of it is
_METRIC: dict[str, tuple[str, float]] = {
    "sq ft": ("m²", 1 / SQFT_PER_SQUARE_METRE),
    "acres": ("ha", SQFT_PER_ACRE / SQFT_PER_SQUARE_METRE / 10_000),
    "mi": ("km", METRES_PER_MILE / 1000),
    "miles": ("km", METRES_PER_MILE / 1000),
    "ft": ("m", METRES_PER_FOOT),
}
_UNIT = {"acre": "acres", "mile": "miles", "feet": "ft"}


@dataclass(frozen=True)
class LocalForm:
    """numbers, days: an example of each, as in NUMBERS and DAYS; sign: of money; sign_stands: before it or after; sizes: in
    which sizes and distances are shown."""

    numbers: str = "1,234.5"
    days: str = "Aug 31, 2026"
    sign: str = "$"
    sign_stands: str = "before"
    sizes: str = "feet"

    @property
    def is_metric(self) -> bool:
        return self.sizes == "metres"

    def unit(self, unit: str) -> str:
        """What a unit is called: "sq ft" → "m²" in metres, "$/sq ft" → "€/m²"."""
        if unit == "$" or unit.startswith("$/"):
            return self.sign + self.unit(unit[1:])
        if unit.startswith("/"):
            return "/" + self.unit(unit[1:])
        return _METRIC[unit][0] if self.is_metric and unit in _METRIC else unit

    def measured(self, value: float, unit: str) -> float:
        """A size or a distance in the unit that `unit` gives; a price for one unit in that for one of those."""
        per, _, bare = unit.rpartition("/")
        if not self.is_metric or bare not in _METRIC:
            return value
        return value / _METRIC[bare][1] if per else value * _METRIC[bare][1]

    def number(self, value: float, digits: int = 0) -> str:
        """1520.5 → "1,521" with the marks of this form, and a true minus sign."""
        return self._marked(f"{value:,.{digits}f}".replace("-", "−"))

    def money(self, digits: str) -> str:
        """Digits with the sign of money: "412,500" → "$412,500", "412,500 €", "Fr. 412,500"."""
        if self.sign_stands == "after":
            return f"{digits}{NO_BREAK}{self.sign}"
        return f"{self.sign}{NO_BREAK if self.sign[-1:].isalnum() or self.sign.endswith('.') else ''}{digits}"

    def _marked(self, canonical: str) -> str:
        group, point = NUMBERS[self.numbers]
        return canonical if group == "," else canonical.translate({44: group, 46: point})

    def _day(self, canonical: str) -> str:
        month, day, year = canonical.replace(",", "").split()
        if self.days == DAYS[1]:
            return f"{day} {month} {year}"
        return f"{year}-{_months().index(month) + 1:02}-{int(day):02}" if self.days == DAYS[2] else canonical


USUAL = LocalForm()


class Quantity(str):
    """A size, a distance, or a price for one of a unit, written alone in a cell of a paper: which unit is said by the head of its
    row or column. signed: with the sign of money."""

    value: float
    unit: str
    digits: int
    signed: bool

    def __new__(cls, value: float, unit: str, digits: int = 0, signed: bool = False) -> Quantity:
        made = super().__new__(cls, f"{'$' if signed else ''}{value:,.{digits}f}")
        made.value, made.unit, made.digits, made.signed = value, unit, digits, signed
        return made


class OwnWords(str):
    """What people wrote: it is told as it is, figures and all."""


_FIGURE = r"(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d+)?"
_ALONE = r"(?<![\w.,/$\-])"  # no part of a word, a number with dashes, a version
_QUOTED = re.compile("“[^”]*”")  # somebody's words within ours
_MONEY = re.compile(rf"\$({_FIGURE})")
_NUMBER = re.compile(rf"{_ALONE}{_FIGURE}(?![\d]|[.,/]\d|-\d)")
_SUM = re.compile("[×÷]")  # it is left in the units in which it was reckoned, so that it comes out
_HOLD = re.compile("\ue000(\\d+)\ue001")


@cache
def _months() -> list[str]:
    return [month_name(n) for n in range(1, 13)]


@cache
def _words_of(key: str) -> str:
    """Any of some words of the language, as a pattern has them."""
    return "|".join(map(re.escape, phrase(key).split("|")))


@cache
def _rate_pattern() -> re.Pattern[str]:
    return re.compile(rf"{_ALONE}(\$?)({_FIGURE})( (?:{_words_of('joining-rates')}) | ?/ ?)(sq ft|acre|mile)\b")


@cache
def _named_rate_pattern() -> re.Pattern[str]:
    """As in "the median price per sq ft of … was $243.31"."""
    return re.compile(rf"\b(?:{_words_of('named-rates')}) sq ft\b([^.;:$]*)\$({_FIGURE})")


@cache
def _size_pattern() -> re.Pattern[str]:
    between = rf" ?– ?| (?:{_words_of('joining-sizes')}) "
    return re.compile(rf"{_ALONE}({_FIGURE})(?:({between})({_FIGURE}))?(\+? )(sq ft|acres?|miles?|mi|feet|ft)\b")


@cache
def _day_pattern() -> re.Pattern[str]:
    return re.compile(rf"\b(?:{'|'.join(map(re.escape, _months()))}) \d{{1,2}}, \d{{4}}\b")


def told(text: str, form: LocalForm) -> str:
    """A sentence or a figure of ours in a local form; people's own words, also those that a sentence quotes, as they are.

    >>> euros = LocalForm("1.234,5", "31 Aug 2026", "€", "after", "metres")
    >>> told("Sold at $412,500 on Aug 31, 2026: 1,520 sq ft, 0.5 mi away, 3.5 % less", euros)
    'Sold at 412.500\\xa0€ on 31 Aug 2026: 141 m², 0,8 km away, 3,5 % less'
    """
    if form == USUAL or isinstance(text, OwnWords):
        return text
    if isinstance(text, Quantity):
        value = form.measured(text.value, text.unit)
        digits = text.digits if value == text.value else _digits(value, text.unit, text.digits)
        return form.money(form.number(value, digits)) if text.signed else form.number(value, digits)
    if not any(c.isdecimal() or c == "$" for c in text):
        return text
    done: list[str] = []

    def hold(words: str) -> str:
        done.append(words)
        return f"\ue000{len(done) - 1}\ue001"

    def rate(m: re.Match[str]) -> str:
        unit = _UNIT.get(m[4], m[4])
        value = form.measured(_read(m[2]), f"$/{unit}")
        digits = form.number(value, rate_digits(value)) if in_metres else form._marked(m[2])
        per = m[3].replace("an ", "a ") if in_metres else m[3]
        return hold(f"{form.money(digits) if m[1] else digits}{per}{form.unit(unit) if in_metres else m[4]}")

    def size(m: re.Match[str]) -> str:
        unit = _UNIT.get(m[5], m[5])
        low, high = (p and _in_metres(p, unit, form) for p in (m[1], m[3]))
        return hold(f"{low}{m[2] or ''}{high or ''}{m[4]}{form.unit(unit)}")

    def named_rate(m: re.Match[str]) -> str:
        value = form.measured(_read(m[2]), "$/sq ft")
        return f"{m[0][: m[0].index('sq ft')]}{form.unit('sq ft')}{m[1]}" + hold(
            form.money(form.number(value, rate_digits(value)))
        )

    in_metres = form.is_metric and not _SUM.search(text)
    text = _QUOTED.sub(lambda m: hold(m[0]), text)
    text = _day_pattern().sub(lambda m: hold(form._day(m[0])), text)
    text = _rate_pattern().sub(rate, text)
    if in_metres:
        text = _named_rate_pattern().sub(named_rate, text)
        text = _size_pattern().sub(size, text)
    text = _MONEY.sub(lambda m: hold(form.money(form._marked(m[1]))), text)
    text = _NUMBER.sub(lambda m: form._marked(m[0]), text).replace("$", form.sign)
    return _HOLD.sub(lambda m: done[int(m[1])], text)


def told_head(text: str, form: LocalForm, unit: str) -> str:
    """What stands over figures of a unit, with what they are told in: "Living area, sq ft" → "Living area, m²"."""
    bare = unit.rpartition("/")[2]
    names = "miles|Miles|mi" if bare in ("mi", "miles") else "[Ss]q ft" if bare == "sq ft" else re.escape(bare)
    return re.sub(rf"(?<!\d )\b(?:{names})\b", form.unit(bare), text) if form.is_metric else text


def _in_metres(figure: str, unit: str, form: LocalForm) -> str:
    value = form.measured(_read(figure), unit)
    shown = f"{value:,.{min(2, _digits(value, unit, _places(figure)))}f}"
    return form._marked(shown.rstrip("0").rstrip(".") if unit in ("mi", "miles") and "." in shown else shown)


def _read(figure: str) -> float:
    return float(figure.replace(",", ""))


def _places(figure: str) -> int:
    return len(figure.partition(".")[2])


def _digits(value: float, unit: str, given: int) -> int:
    """How many digits after the point a size in metres is written with: as many as it says in feet, and one where it is small."""
    if unit.startswith("$/"):
        return rate_digits(value)
    if unit == "acres":
        return max(given, 2)
    return max(given if unit in ("mi", "miles") else 0, 1) if 0 < abs(value) < 10 else 0
