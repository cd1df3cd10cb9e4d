"""Typesetting: a document model through the template to PDF or page pictures."""

from __future__ import annotations

import json
from functools import cache
from importlib.resources import files
from pathlib import Path
from typing import Any, Literal

import typst

_HERE = Path(str(files("rain_porch.report")))
_MEDIA = {".png": "image/png", ".jpg": "image/jpeg", ".webp": "image/webp"}


@cache
def _fonts() -> typst.Fonts:
    """Read from their files once."""
    return typst.Fonts(include_system_fonts=False, font_paths=[str(_HERE / "fonts")])


def compiled(model: dict[str, Any], form: Literal["pdf", "png", "svg"]) -> Any:
    return typst.compile(
        str(_HERE / "report.typ"),
        root="/",  # the agent's own pages stand elsewhere; the template reads no file that its data does not name
        font_paths=_fonts(),
        sys_inputs={"data": json.dumps(model, ensure_ascii=False)},
        format=form,
        ppi=150,
    )


def own_picture(path: str, number: int) -> tuple[bytes, str]:
    """One page of a PDF, or a picture as it is, with its media type."""
    file = Path(path)
    if file.suffix != ".pdf":
        return file.read_bytes(), _MEDIA[file.suffix]
    model = {
        "title": "", "by": "", "foot": "",
        "pages": [{"page": "own", "title": "", "path": path, "number": number}],
    }  # fmt: skip
    made = compiled(model, "png")
    return bytes(made[0] if isinstance(made, list) else made), "image/png"
