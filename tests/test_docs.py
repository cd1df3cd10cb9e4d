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
