"""The forms of one file's columns: judged from its first rows, from the whole file where these do not tell, or asked."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from pathlib import Path

from ...core.errors import Refused
from ...core.facts.fields import own_field
from ...core.intake.forms import DATES, NUMBERS, REMEDIES, WORDS, Evidence, Judged, forms_of, judge
from ...core.intake.parsing import parse_column
from ..files.readers import read_table
from .layouts import Layout
from .mapping import MADE, Part
from .reading import Reader

DEFAULT = ("", NUMBERS[0], DATES[0])  # how cells are read while nothing tells


@dataclass(frozen=True)
class FormsAsked:
    """What was said of a whole file: decimal "point" or "comma", dates "mdy" or "dmy"; "" where nothing was."""

    decimal: str = ""
    dates: str = ""


@dataclass(frozen=True)
class SampleRead:
    """A cell, and what became of it."""

    text: str
    value: str


@dataclass(frozen=True)
class FormRead:
    """How one column was read: its form with the reason, and some of its cells with what became of them. form "" is one
    that is still to be said."""

    field: str
    label: str
    columns: list[str]
    form: str
    words: str
    why: str
    samples: list[SampleRead]
    choices: list[str]


class ColumnForms:
    """The forms of the columns that a mapping takes from one file."""

    def __init__(
        self,
        path: Path,
        layout: Layout,
        parts: Sequence[Part],
        columns: Sequence[str],
        asked: FormsAsked,
        usual: Mapping[str, str],
    ) -> None:
        self.path, self.layout, self.columns = path, layout, columns
        self.usual = usual
        self._parts = tuple(parts)
        self._fields = {f.name: f for f in layout.fields} | {
            p.field: f for p in parts if (f := own_field(p.field)) is not None
        }
        self.asked = {
            p.field: form
            for p in parts
            if (kinds := forms_of(self._fields[p.field]))
            and (form := p.form or (asked.decimal if kinds is NUMBERS else asked.dates))
        }
        self._evidence: dict[str, Evidence] = {}
        self._judged: dict[str, Judged] = {}
        self._whole = False

    def look_at(self, sample: Sequence[Sequence[str]]) -> None:
        """Judge by the first rows; by the whole file where they leave anything open. Refused where that does too."""
        self.judge_by(sample)
        if self.open():
            self._look_at_all()

    def judge_by(self, sample: Sequence[Sequence[str]]) -> None:
        """Judge by some rows alone."""
        self._add(self._reader().look([(0, list(cells)) for cells in sample]))

    def still_holds(self, seen: Mapping[str, Evidence]) -> bool:
        """Take in what later cells say; False where the cells before were read in another form than they should be."""
        if self._whole:
            return True
        before = {name: j.form for name, j in self._judged.items()}
        self._add(seen)
        now = {name: j.form for name, j in self._judged.items()}
        if all(form == before[name] or (before[name] == "" and form in DEFAULT) for name, form in now.items()):
            return True
        self._look_at_all()
        return False

    def open(self) -> list[str]:
        """Fields whose columns can be read both ways."""
        return [name for name, j in self._judged.items() if j.form is None]

    def parts(self) -> tuple[Part, ...]:
        """The mapping with the forms in it."""
        forms = {name: j.form or "" for name, j in self._judged.items()}
        return tuple(replace(p, form=forms.get(p.field, "")) for p in self._parts)

    def read(self) -> list[FormRead]:
        """How each column whose cells can be written in more than one form was read."""
        out = []
        for part in self._parts:
            told = self._judged.get(part.field)
            if told is None or not told.examples:
                continue
            f = self._fields[part.field]
            forms = [told.form] if told.form else list(forms_of(f) or ())
            values = [parse_column(f, told.examples, form)[0] for form in forms]
            samples = [
                SampleRead(text, " or ".join(_shown(v[i]) for v in values)) for i, text in enumerate(told.examples)
            ]
            out.append(
                FormRead(part.field, f.label, list(part.columns), told.form or "", WORDS.get(told.form or "", ""),
                         told.why, samples, list(forms_of(f) or ()))
            )  # fmt: skip
        return out

    def _reader(self) -> Reader:
        return Reader(self.layout.kind, self._parts, self.columns)

    def _add(self, seen: Mapping[str, Evidence]) -> None:
        for name, said in seen.items():
            self._evidence.setdefault(name, Evidence()).add(said)
        columns = {
            p.field: (self._fields[p.field], self._evidence.get(p.field, Evidence()))
            for p in self._parts
            if p.how != "date" and p.take not in MADE
        }
        self._judged = judge(columns, self.asked, self.usual)

    def _look_at_all(self) -> None:
        reader = self._reader()
        self._evidence = {}
        for chunk in read_table(self.path).chunks:
            self._add(reader.look(chunk))
        self._whole = True
        if unsure := self.open():
            raise Refused(" ".join(self._question(name) for name in unsure[:4]), fields=unsure)

    def _question(self, name: str) -> str:
        told = next(r for r in self.read() if r.field == name)
        text, ways = told.samples[0].text, told.samples[0].value
        first, second = told.choices
        flag = REMEDIES[first]
        return (
            f"{self.path.name}: “{', '.join(told.columns)}” ({self._fields[name].reso}) can be read two ways: “{text}” is "
            f"{ways}. Say which: {flag} {first} ({WORDS[first]}) or {flag} {second} ({WORDS[second]}), or choose beside "
            "the column."
        )


def _shown(value: object) -> str:
    return "unreadable" if value is None else f"{value:,.10g}" if isinstance(value, float) else str(value)
