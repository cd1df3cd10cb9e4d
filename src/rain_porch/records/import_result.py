"""What an import did, or would do: its counts, its reasons, and what its columns and words were taken for."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from ..core.facts.words import HomeKind, home_kind_of, plain
from ..core.intake.status_words import means_status
from .mapping.column_forms import FormRead


@dataclass(frozen=True)
class ColumnTaken:
    """Of which columns a field came, and why: `sure` from 0 to 1."""

    field: str
    label: str
    columns: list[str]
    sure: float
    why: str
    samples: list[str]


@dataclass(frozen=True)
class ColumnLeft:
    """A column that was left out; `perhaps` is the field that it may be, where one comes to mind; why: where it may not be kept."""

    column: str
    samples: list[str]
    perhaps: str | None
    sure: float
    why: str = ""


@dataclass(frozen=True)
class WordRead:
    """A source's own word, in how many rows, and what it was taken for; None where nobody can tell."""

    field: str
    word: str
    rows: int
    means: str | None


@dataclass
class ImportResult:
    """What an import did, or would do. reasons: how often each fault occurred; changes: how often each field changed;
    forms: how its numbers and dates were read, where they can be written in more than one form; columns, left_out, words:
    what its columns, and its words for statuses and kinds of home, were taken for; notes: what else came of it."""

    import_id: int | None
    kind: str
    rows: int = 0
    new: int = 0
    changed: int = 0
    same: int = 0
    suspect: int = 0
    rejected: int = 0
    reasons: dict[str, int] = field(default_factory=dict)
    changes: dict[str, int] = field(default_factory=dict)
    seconds: float = 0.0
    forms: list[FormRead] = field(default_factory=list)
    columns: list[ColumnTaken] = field(default_factory=list)
    left_out: list[ColumnLeft] = field(default_factory=list)
    words: list[WordRead] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)


_WORDS_SHOWN = 60


def words_read(counted: Mapping[tuple[str, str], int]) -> list[WordRead]:
    """What a source's words for statuses and kinds of home were taken for, those that nobody can tell first."""
    out = []
    for (name, word), rows in counted.items():
        if name == "standard_status":
            status = means_status(word)
            means = status.value if status else None
        else:
            kind = home_kind_of(None, word)
            means = None if kind is HomeKind.UNKNOWN else kind.value.replace("_", " ")
        if means is None or plain(means) != plain(word):
            out.append(WordRead(name, word[:80], rows, means))
    return sorted(out, key=lambda w: (w.means is not None, -w.rows))[:_WORDS_SHOWN]
