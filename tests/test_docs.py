"""What the documents name is there: a file that was moved or renamed is found by the reader, too."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
ROOMS = (ROOT, ROOT / "src/rain_porch", ROOT / "web/src", ROOT / "web/src/workup", ROOT / "docs")
PAGES = sorted([*ROOT.glob("docs/**/*.md"), ROOT / "README.md", ROOT / "CONTRIBUTING.md", ROOT / "Makefile"])
_FILE = re.compile(r"(?<![\w/.:{}<>-])(?:[\w-]+/)+[\w.-]+\.(?:py|vue|ts|sql|typ|md|png|sh|svg)\b(?!/)")
# made by the build; a name that shows how photos are called
NO_FILES = ("web/openapi.json", "web/src/shared/api/schema.d.ts", "A1/2.png")


def named_in(page: Path) -> set[str]:
    return {m[0] for m in _FILE.finditer(page.read_text(encoding="utf-8"))}


@pytest.mark.parametrize("page", PAGES, ids=lambda p: str(p.relative_to(ROOT)))
def test_every_file_that_a_page_names_is_there(page: Path) -> None:
    missing = {
        name
        for name in named_in(page)
        if name not in NO_FILES and not any((room / name).is_file() for room in (*ROOMS, page.parent))
    }
    assert not missing, f"{page.name} names what is not there: {', '.join(sorted(missing))}"


def test_the_pages_name_many_files() -> None:
    assert sum(len(named_in(page)) for page in PAGES) > 100


GUIDE = sorted(ROOT.glob("docs/guide/*.md"))


def test_what_the_guide_sets_in_bold_stands_on_the_screen() -> None:
    """Names of buttons and tables, and keys: whoever looks for them finds them so called. Questions begin with their number."""
    screens = " ".join(p.read_text(encoding="utf-8") for p in sorted((ROOT / "web/src").rglob("*.vue")))
    screens += " ".join(p.read_text(encoding="utf-8") for p in sorted((ROOT / "web/src").rglob("*.ts")))
    screens = re.sub(r"\s+", " ", screens).lower()
    bold = {
        (page.name, re.sub(r"\s+", " ", words))
        for page in GUIDE
        for words in re.findall(r"\*\*([^*]+)\*\*", page.read_text(encoding="utf-8"))
    }
    assert len(bold) > 40
    missing = sorted(
        f"{page}: {words}" for page, words in bold if not words[0].isdigit() and words.lower() not in screens
    )
    assert not missing


def test_the_guide_has_a_page_for_each_room_and_twenty_questions() -> None:
    places = {m[1] for m in re.finditer(r"label: '(\w+)'", (ROOT / "web/src/App.vue").read_text(encoding="utf-8"))}
    rooms = {"Home", "Comps", "Worth", "Paper"} | places - {"Workups"}
    index = (ROOT / "docs/guide/index.md").read_text(encoding="utf-8")
    for room in rooms:
        assert f"[{room}]({room.lower()}.md)" in index, room
        page = (ROOT / f"docs/guide/{room.lower()}.md").read_text(encoding="utf-8")
        assert "](../screenshots/" in page, f"{room} has no picture"
    asked = re.findall(r"^\*\*(\d+)\. ", (ROOT / "docs/guide/questions.md").read_text(encoding="utf-8"), re.MULTILINE)
    assert asked == [str(n) for n in range(1, 21)]
