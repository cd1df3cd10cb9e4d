"""What differs between a record and the subject, as an agent would say it."""

from __future__ import annotations

from ..facts.condition import said
from ..facts.fields import CATALOGUE, Field, Kind
from ..facts.homes import Subject, Value
from ..facts.words import HomeKind
from ..phrases import phrase
from .columns import HOME_KINDS, Columns, Ints

_SAID: tuple[Field, ...] = tuple(
    sorted((f for f in CATALOGUE if f.apart), key=lambda f: -f.weight)  # what weighs most comes first
)


def differences(columns: Columns, rows: Ints, subject: Subject) -> list[tuple[str, ...]]:
    """What differs from the subject in each row: "220 sq ft larger", "1 full bath fewer"; what is unknown on either side is not said."""
    known = [(f, mine) for f in _SAID if (mine := _of_subject(f, subject)) is not None]
    out = []
    for row, theirs in zip(rows.tolist(), columns.facts(rows, [f.name for f, _ in known]), strict=True):
        said = [_apart(f, theirs[f.name], mine) for f, mine in known if f.name in theirs]
        if subject.home_kind != HomeKind.UNKNOWN and (kind := HOME_KINDS[columns.home_kind[row]]) != subject.home_kind:
            said.append(phrase(f"one-kind-{kind.value}"))
        out.append(tuple(filter(None, said)))
    return out


def _of_subject(field: Field, subject: Subject) -> Value | None:
    return subject.number(field.name) if field.numeric else subject.word(field.name)


def _apart(field: Field, theirs: Value, mine: Value) -> str:
    """One field's difference in words; "" where there is none worth saying."""
    assert field.apart is not None
    if isinstance(theirs, str) or isinstance(mine, str):
        return "" if str(theirs).casefold() == str(mine).casefold() else str(theirs).lower()
    if field.name == "condition_grade":
        return "" if theirs == mine else said(theirs)
    gap = theirs - mine
    size, least = abs(gap), field.apart.least * (mine if field.apart.share else 1.0)
    if not gap or size < least or (field.apart.share and not mine):
        return ""
    if not (theirs and mine) and (whether := field.said("some" if theirs else "none")):
        return whether
    measured = field.unit or field.kind == Kind.YEAR
    return field.said("more" if gap > 0 else "fewer", n=f"{size:,.0f}" if measured else size)
