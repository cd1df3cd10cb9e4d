"""The language of the papers stands in language/en alone: nothing printed holds words, every phrase is used as written."""

from __future__ import annotations

import ast
import json
import re
import subprocess
import sys
from collections import Counter
from collections.abc import Iterator
from pathlib import Path

from fluent.syntax import FluentSerializer
from fluent.syntax import ast as written
from fluent.syntax.visitor import Visitor

from rain_porch.core.phrases import FOLDER
from tests.conftest import copy_demo
from tests.report.language import messages

SOURCE = FOLDER.parent
REPORT = SOURCE / "report"
# modules of the report that hold no words of a paper: what they hold is for programs, or is refused
PROGRAMS = frozenset(("calendar_note.py", "bulletin_rows.py", "web_style.py", "typesetting.py"))
# what these modules of the core hold is read from files, or said on screen alone
SILENT = frozenset((
    "word_order.py", "people.py", "same_listing.py", "finding_places.py", "record_fields.py", "words.py", "local_form.py",
    "checks.py", "range_width.py", "track_record.py", "house_rules.py", "oddness.py", "relocation.py",
))  # fmt: skip
# what an answer says of its own figures comes to stand on paper as it is
SAYERS = [
    SOURCE / name
    for name in (
        *(f"app/{x}.py" for x in ("handover/report_input", "handover/tours", "bulletin/kept", "bulletin/market_at", "bulletin/figures",
                                  "bulletin/places", "market/views", "pricing/ask", "pricing/roads")),
        "core/meanings.py",
    )
] + [
    m
    for room in ("facts", "market", "search", "price")
    for m in (SOURCE / "core" / room).rglob("*.py")
    if m.name not in SILENT
]  # fmt: skip
USERS = sorted(SOURCE.rglob("*.py"))
PROSE = re.compile(r"[A-Za-z]{2,} [A-Za-z]{2,}|^[A-Z][a-z]{2,}|^ [a-z]+ $")
SENTENCE = re.compile(r"[A-Za-z]{2,} [A-Za-z]{2,}")
# no language: marks of pictures and of cells, fonts
NO_WORDS = re.compile(r"[<={};#]|^Figtree|^rain_porch")
# names by which something is asked for, and units, which the local form tells
NAMES = frozenset((
    "sq ft", "$/sq ft", "$ per sq ft", "share of 1", "None", "Closed", "Months", "Net proceeds", ", mean of",
    "look lines", "look sheet ", "look map", "offered for lease", "price changed", "rent changed", "main street",
    "part of a bulletin", "market view", "none yet", "by home", "by kind", "resold from", "it has none of its own", "heating or cooling",
    "basement finished", "deck or porch", "garden and paving", "personal property", "local sales", "wider market", "house rule", "paired sales", "typed",
    "LineString", "MultiLineString", "Polygon", "MultiPolygon", "lines of the map",
))  # fmt: skip


class Names(Visitor):
    """The values that a message takes, and the messages that it is made of."""

    def __init__(self) -> None:
        self.values: set[str] = set()
        self.messages: set[str] = set()

    def visit_VariableReference(self, node: written.VariableReference) -> None:
        self.values.add(node.id.name)

    def visit_MessageReference(self, node: written.MessageReference) -> None:
        self.messages.add(node.id.name)


def needs(key: str, all_of: dict[str, written.Message]) -> set[str]:
    found = Names()
    found.visit(all_of[key])
    return found.values.union(*(needs(other, all_of) for other in found.messages))


def literals(module: Path) -> Iterator[str]:
    """Strings of a module that may come to stand on paper: no docstrings, nothing that is raised."""
    tree = ast.parse(module.read_text())
    silent = [n for n in ast.walk(tree) if isinstance(n, ast.Raise)]
    silent += [n.value for n in ast.walk(tree) if isinstance(n, ast.Expr) and isinstance(n.value, ast.Constant)]
    inside = {id(x) for n in silent for x in ast.walk(n)}
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in inside:
            yield node.value


def test_no_module_that_makes_papers_holds_words():
    told = {
        m.name: [t for t in literals(m) if PROSE.search(t) and not NO_WORDS.search(t) and t not in NAMES]
        for m in REPORT.rglob("*.py") if m.name not in PROGRAMS
    }  # fmt: skip
    told |= {
        m.name: [t for t in literals(m) if SENTENCE.search(t) and not NO_WORDS.search(t) and t not in NAMES]
        for m in SAYERS
    }
    templates = {
        m.name: [t for t in re.findall(r'"[A-Z][a-z]+ [^"]*"|\[[A-Z][a-z]+[^\]#]*\]', re.sub("//.*", "", m.read_text())) if "Source Serif" not in t]
        for m in REPORT.glob("*.typ")
    }  # fmt: skip
    assert not {name: found for name, found in (told | templates).items() if found}


def calls() -> Iterator[tuple[str, list[ast.expr], set[str] | None]]:
    """(where, the keys, the values given) of the phrases that are asked for; None where the values are not written out."""
    for module in USERS:
        for node in ast.walk(ast.parse(module.read_text())):
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") in ("phrase", "phrases_of") and node.args:
                names = {k.arg for k in node.keywords}
                asked = node.args if node.func.id == "phrases_of" else node.args[:1]
                yield f"{module.name}:{node.lineno}", asked, None if None in names else {n for n in names if n}


def possible(key: ast.expr) -> set[str]:
    """The keys that an expression may come to, where it says them."""
    if isinstance(key, ast.Constant):
        return {str(key.value)} - {""}
    return possible(key.body) | possible(key.orelse) if isinstance(key, ast.IfExp) else set()


def test_every_phrase_that_is_asked_for_is_there_with_what_it_needs():
    there = messages()
    for where, asked, given in calls():
        for name in (key for part in asked for key in possible(part)):
            assert name in there, f"{where} asks for {name}"
            assert given is None or needs(name, there) <= given, f"{where}: {name} needs {needs(name, there)}"


def test_every_phrase_is_used():
    there = messages()
    words: set[str] = set()
    made: list[re.Pattern[str]] = []
    for module in USERS:
        tree = ast.parse(module.read_text())
        words.update(n.value for n in ast.walk(tree) if isinstance(n, ast.Constant) and isinstance(n.value, str))
        for node in (n for n in ast.walk(tree) if isinstance(n, ast.JoinedStr)):
            parts = [re.escape(str(v.value)) if isinstance(v, ast.Constant) else "[a-z0-9_-]*" for v in node.values]
            if re.match("[a-z]+-", str(getattr(node.values[0], "value", ""))):
                made.append(re.compile("".join(parts)))
    within = Names()
    for message in there.values():
        within.visit(message)
    left = [k for k in there if k not in words | within.messages and not any(p.fullmatch(k) for p in made)]
    assert not left


def test_papers_in_another_language_say_nothing_in_the_first(demo, tmp_path):
    """A report, bulletins and the papers of a look made where every phrase is in capitals: no word in small letters is left that no
    record and no person wrote."""
    copy_demo(demo, tmp_path)
    made = subprocess.run(
        [sys.executable, "-m", "tests.report.language", str(tmp_path)], capture_output=True, text=True, check=False
    )
    assert made.returncode == 0, made.stderr
    assert not json.loads(made.stdout)


def test_nothing_is_said_twice():
    """A phrase of several words that another is to say too is referred to, so that both are changed together."""
    said = Counter(FluentSerializer().serialize_entry(m).partition("=")[2].strip() for m in messages().values())
    assert not [
        text for text, n in said.items() if n > 1 and len(text.split()) > 1 and not re.fullmatch(r"{ [a-z_-]+ }", text)
    ]
