"""The language of the papers stands in language/en alone: no page holds words, and every phrase is used as it is written."""

from __future__ import annotations

import ast
import re
from collections import Counter
from collections.abc import Iterator
from pathlib import Path

import pytest
from fluent.runtime import FluentBundle, FluentResource
from fluent.syntax import FluentParser, FluentSerializer
from fluent.syntax import ast as written
from fluent.syntax.visitor import Transformer, Visitor

from rain_porch.core import phrases
from rain_porch.core.phrases import FOLDER, phrase
from rain_porch.report.papers import document

REPORT = FOLDER.parent
# modules of the report that hold no words of a paper: what they hold is for programs, or is refused
PROGRAMS = frozenset(("calendar_note.py", "bulletin_rows.py", "web_style.py", "typesetting.py"))
# what an answer lacks is worded for the paper there
MAKERS = [REPORT.parent / "app" / "handover" / name for name in ("report_input.py", "tours.py")]
USERS = [
    p for p in (REPORT, REPORT.parent / "app" / "handover") for p in sorted(p.rglob("*.py")) if p.name != "phrases.py"
]
PROSE = re.compile(r"[A-Za-z]{2,} [A-Za-z]{2,}|^[A-Z][a-z]{2,}|^ [a-z]+ $")
# no language: marks of pictures and of cells, fonts
NO_WORDS = re.compile(r"[<={};#]|^Figtree|^rain_porch")
# names by which something is asked for, and units, which the local form tells
NAMES = frozenset((
    "sq ft", "$/sq ft", "$ per sq ft", "share of 1", "None", "Closed", "Months", "Net proceeds", ", mean of",
    "look lines", "look sheet ", "look map", "offered for lease", "price changed", "rent changed", "main street",
    "LineString", "MultiLineString", "Polygon", "MultiPolygon", "lines of the map",
))  # fmt: skip


def messages() -> dict[str, written.Message]:
    out: dict[str, written.Message] = {}
    for file in sorted((FOLDER / "en").glob("*.ftl")):
        for entry in FluentParser().parse(file.read_text(encoding="utf-8")).body:
            assert not isinstance(entry, written.Junk), f"{file.name}: {entry.content}"
            if isinstance(entry, written.Message):
                assert entry.id.name not in out, f"{entry.id.name} stands twice"
                out[entry.id.name] = entry
    return out


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
        for m in (*REPORT.rglob("*.py"), *MAKERS) if m.name not in PROGRAMS
    }  # fmt: skip
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
            parts = [re.escape(str(v.value)) if isinstance(v, ast.Constant) else "[a-z_-]*" for v in node.values]
            if re.match("[a-z]+-", str(getattr(node.values[0], "value", ""))):
                made.append(re.compile("".join(parts)))
    within = Names()
    for message in there.values():
        within.visit(message)
    left = [k for k in there if k not in words | within.messages and not any(p.fullmatch(k) for p in made)]
    assert not left


class Loud(Transformer):
    """Every word of ours in another writing, as another language would be."""

    def visit_TextElement(self, node: written.TextElement) -> written.TextElement:
        node.value = re.sub("(?<!sq )(?<![a-z])(?!sq ft|mi\b|ft\b)[a-z]+", lambda m: m[0].upper(), node.value)
        return node


def test_pages_speak_another_language_when_the_files_do(whole, monkeypatch):
    """With every phrase in capitals no title, no note and no head of a page is left as it was."""
    before = document(whole, None)
    loud = FluentBundle(["en"], use_isolating=False)
    for file in sorted((FOLDER / "en").glob("*.ftl")):
        text = Loud().visit(FluentParser().parse(file.read_text(encoding="utf-8")))
        loud.add_resource(FluentResource(FluentSerializer().serialize(text)))
    monkeypatch.setattr(phrases, "_bundle", lambda: loud)
    after = document(whole, None)
    pages = list(zip(before["pages"], after["pages"], strict=True))
    assert len(pages) > 30
    theirs = {
        whole.title,
        *(p["title"] for p in before["pages"] if p["name"].startswith(("sheet", "bulletin", "market"))),
    }
    same = [a["title"] for a, b in pages if a["title"] == b["title"] and a["title"] not in theirs]
    assert not same and after["foot"] != before["foot"]
    heads = [h for _, p in pages for b in p.get("blocks", ()) if b["kind"] == "heading" for h in [b["text"]]]
    assert (
        len(heads) > 8 and sum(h.isupper() for h in heads) >= len(heads) - 6
    )  # those of bulletins are told by their parts


def test_nothing_is_said_twice():
    """A phrase of several words that another is to say too is referred to, so that both are changed together."""
    said = Counter(FluentSerializer().serialize_entry(m).partition("=")[2].strip() for m in messages().values())
    assert not [
        text for text, n in said.items() if n > 1 and len(text.split()) > 1 and not re.fullmatch(r"{ [a-z_-]+ }", text)
    ]


@pytest.mark.parametrize(("n", "words"), [(0, "0 homes"), (1, "1 home"), (2, "2 homes"), (1204, "1,204 homes")])
def test_a_number_chooses_its_form(n, words):
    assert phrase("count-homes", n=n) == words


def test_what_is_missing_is_no_empty_place():
    with pytest.raises(LookupError):
        phrase("no-such-phrase")
    with pytest.raises(KeyError, match="count-homes"):
        phrase("count-homes")
