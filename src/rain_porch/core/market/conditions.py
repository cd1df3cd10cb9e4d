"""Conditions written as text ("living_area >= 2000", "city in Alder, Birch") and tested on the columns."""

from __future__ import annotations

import fnmatch
import re
from dataclasses import dataclass

import numpy as np

from ..errors import BadInput
from ..facts.fields import BY_NAME, BY_RESO, Kind
from ..facts.words import SELLERS, seller_of
from .columns import HOME_KINDS, Bools, Columns, Floats, Ints

WORKED_OUT = ("home_kind", "seller", "price")  # asked for like fields, and held by no column of their own
_FORM = re.compile(r"^\s*([A-Za-z_]+)\s*(<=|>=|!=|=|<|>|\bin\b|\blike\b)\s*(.+?)\s*$", re.IGNORECASE)


@dataclass(frozen=True)
class Condition:
    """A field, how it is compared, and with what, as it was typed."""

    field: str
    op: str
    value: str


def read_condition(text: str) -> Condition:
    """ "field op value", op one of = != < <= > >= in like. Raises BadInput naming what is wrong."""
    found = _FORM.match(text)
    if not found:
        raise BadInput("where", f"“{text}” is no condition: write field, one of = != < <= > >= in like, and a value.")
    name, op, value = found.group(1), found.group(2).lower(), found.group(3).strip().strip("'\"")
    if name not in WORKED_OUT:
        f = BY_NAME.get(name) or BY_RESO.get(name.lower())
        if f is None or f.kind in (Kind.DATE, Kind.TIME, Kind.TEXT) or f.private:
            raise BadInput("where", f"“{name}” is no field that can be asked for.")
        name = f.name
    return Condition(name, op, value)


def condition_mask(condition: Condition, columns: Columns) -> Bools:
    """Rows for which the condition holds; a row that does not know the field never does."""
    name, op, value = condition.field, condition.op, condition.value
    if name == "home_kind":
        codes, words = columns.home_kind.astype(np.int64), tuple(HOME_KINDS)
        return _words_mask(codes, tuple(str(w) for w in words), op, value)
    if name == "seller":
        return _words_mask(columns.memo.get("sellers", lambda: _sellers(columns)), SELLERS, op, value)
    if name == "price" or name in columns.numbers:
        return _numbers_mask(values_of(columns, name), name, op, value)
    if name in columns.words:
        held = columns.words[name]
        return _words_mask(held.codes.astype(np.int64), held.words, op, value)
    raise BadInput("where", f"“{name}” is not held for whole-market questions.")


def values_of(columns: Columns, name: str) -> Floats:
    """A field's numbers, (n,); "price" is the close price of closed ones, else the list price."""
    if name != "price":
        return np.asarray(columns.numbers[name][:])
    closed = columns.numbers["close_price"][:]
    return np.asarray(np.where(np.isfinite(closed), closed, columns.numbers["list_price"][:]))


def _sellers(columns: Columns) -> Ints:
    held = columns.words["special_listing_conditions"]
    plain = np.array([SELLERS.index(seller_of(word, False)) for word in (*held.words, None)])[held.codes]
    return np.where((plain == SELLERS.index("owner")) & columns.new_construction, SELLERS.index("builder"), plain)


def _numbers_mask(x: Floats, name: str, op: str, value: str) -> Bools:
    field = BY_NAME["list_price" if name == "price" else name]

    def number(text: str) -> float:
        word = text.strip().lower()
        if field.kind == Kind.YES_NO and word in ("yes", "true", "y", "no", "false", "n"):
            return 1.0 if word in ("yes", "true", "y") else 0.0
        try:
            return float(word.replace(",", "").replace("$", ""))
        except ValueError:
            raise BadInput("where", f"{name} {op} “{text}”: {field.label} takes a number.") from None

    if op == "in":
        return np.isin(x, [number(part) for part in value.strip("()").split(",")])
    if op == "like":
        raise BadInput("where", f"{name} like …: “like” is for words; use a comparison.")
    v = number(value)
    known = np.isfinite(x)
    made = {"=": x == v, "!=": x != v, "<": x < v, "<=": x <= v, ">": x > v, ">=": x >= v}[op]
    return np.asarray(made & known)


def _words_mask(
    codes: np.ndarray[tuple[int], np.dtype[np.int64]], words: tuple[str, ...], op: str, value: str
) -> Bools:
    folded = [w.casefold() for w in words]
    want = value.casefold()
    if op in ("=", "!="):
        hit = [w == want for w in folded]
    elif op == "in":
        wanted = {part.strip().strip("'\"") for part in want.strip("()").split(",")}
        hit = [w in wanted for w in folded]
    elif op == "like":
        hit = [fnmatch.fnmatchcase(w, want.replace("%", "*")) for w in folded]
    else:
        raise BadInput("where", f"“{op}” compares numbers; for words use =, !=, in or like.")
    mask = np.array([*hit, False], dtype=np.bool_)[codes]
    return np.asarray((~mask & (codes >= 0)) if op == "!=" else mask)
