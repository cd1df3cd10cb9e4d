"""What came of an import, or of taking one back, as documents."""

from __future__ import annotations

from .base import Doc, Worded


class SampleReadDoc(Doc):
    text: str
    value: str


class FormReadDoc(Doc):
    """How a column's numbers or dates were read: in which form, why, and some cells with what became of them. form ""
    where it can be read both ways and is still to be said."""

    field: str
    label: str
    columns: list[str]
    form: str
    words: str
    why: str
    samples: list[SampleReadDoc]
    choices: list[str]


class ColumnTakenDoc(Doc):
    """sure: from 0 to 1; why in a few words."""

    field: str
    label: str
    columns: list[str]
    sure: float
    why: str
    samples: list[str]


class ColumnLeftDoc(Doc):
    """perhaps: the field that it may be; say so in a mapping to have it taken. why: where it may never be kept."""

    column: str
    samples: list[str]
    perhaps: str | None
    sure: float
    why: str = ""


class WordReadDoc(Doc):
    """means: the standard's word; None where nobody can tell what the source means."""

    field: str
    word: str
    rows: int
    means: str | None


class ImportDoc(Doc):
    import_id: int | None
    kind: str
    rows: int
    new: int
    changed: int
    same: int
    suspect: int
    rejected: int
    reasons: dict[str, int]
    changes: dict[str, int]
    seconds: float
    forms: list[FormReadDoc] = []
    columns: list[ColumnTakenDoc] = []  # what was taken for what, the least sure first
    left_out: list[ColumnLeftDoc] = []
    words: list[WordReadDoc] = []  # of statuses and kinds of home, those that nobody can tell first
    notes: list[Worded] = []  # what else came of it: pictures of a feed, what is no longer at the source
    swapped: int = 0  # rows whose latitude and longitude look swapped: --places swap puts them right
    far: int = 0  # rows far from everything held: --places new believes them


class KeptDoc(Doc):
    key: str
    changed_by: int


class UndoneDoc(Doc):
    """kept: records that a later import changed too; they stay as they are until that one is undone."""

    import_id: int
    removed: int
    restored: int
    kept: list[KeptDoc]
