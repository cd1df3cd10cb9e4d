"""Typesetting: a document model through the template to PDF or page pictures."""

from __future__ import annotations

import hashlib
import json
from functools import cache
from importlib.resources import files
from pathlib import Path
from typing import Any, Literal

import typst

from ..core.memo import Memo

_HERE = Path(str(files("rain_porch.report")))
_MEDIA = {".png": "image/png", ".jpg": "image/jpeg", ".webp": "image/webp"}


@cache
def _fonts() -> typst.Fonts:
    """Read from their files once."""
    return typst.Fonts(include_system_fonts=False, font_paths=[str(_HERE / "fonts")])


Form = Literal["pdf", "png", "svg"]


def compiled(model: dict[str, Any], form: Form, template: str = "report.typ", dots_per_inch: int = 150) -> Any:
    """A model laid out: one PDF, or a picture a sheet. What was just made is not made again."""
    data = json.dumps(pooled(model), ensure_ascii=False)
    key = (hashlib.blake2b(data.encode(), digest_size=16).digest(), form, template)
    return _set_before().get(key, lambda: _compiled(data, form, template, dots_per_inch))


@cache
def _set_before() -> Memo:
    """The papers that were set last; not the models they were set from, which hold every picture."""
    return Memo(24)


def _compiled(data: str, form: Form, template: str, dots_per_inch: int) -> Any:
    """A PDF is made as PDF/UA-1 wants it; where a page of the agent's own does not allow that, as a tagged one."""
    if form != "pdf":
        return _set(data, form, template, ppi=dots_per_inch)
    try:
        return _set(data, form, template, pdf_standards=["ua-1"])
    except typst.TypstError:
        return _set(data, form, template)


def _set(data: str, form: Form, template: str, **how: Any) -> Any:
    return typst.compile(
        str(_HERE / template),
        root="/",  # the agent's own pages stand elsewhere; the template reads no file that its data does not name
        font_paths=_fonts(),
        sys_inputs={"data": data},
        format=form,
        **how,
    )


_PICTURES = ("svg", "logo", "portrait")


def pooled(model: dict[str, Any]) -> dict[str, Any]:
    """The same model with each picture once, in `pictures` under a key, however many blocks show it; what waits to be drawn is."""
    keys: dict[str, str] = {}

    def walk(part: Any) -> Any:
        if isinstance(part, dict):
            drawn = {k: v() if callable(v) else v for k, v in part.items()}
            return {
                k: keys.setdefault(v, f"p{len(keys)}") if k in _PICTURES and isinstance(v, str) and v else walk(v)
                for k, v in drawn.items()
            }
        return [walk(v) for v in part] if isinstance(part, list | tuple) else part

    out = walk(model)
    return {**out, "pictures": {key: svg for svg, key in keys.items()}}


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
