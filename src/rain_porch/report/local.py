"""A document model told in an office's form of numbers, days, money and sizes: the last thing done to it before it is set."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence
from html import escape, unescape
from typing import Any

from ..core.facts.local_form import USUAL, LocalForm, Quantity, told, told_head

_TEXT = re.compile(r"(<text[^>]*>)([^<]*)(</text>)")
_AS_THEY_ARE = frozenset(("page", "kind", "name", "path", "accent", "paper", "by", "by-line", "language"))
_PICTURES = frozenset(("svg", "logo", "portrait"))


def in_form(model: Mapping[str, Any], form: LocalForm) -> dict[str, Any]:
    """The same model in a form; what people wrote (OwnWords) as they wrote it."""
    return dict(model) if form == USUAL else _told(dict(model), form)


def _told(part: Any, form: LocalForm) -> Any:
    if isinstance(part, str):
        return told(part, form)
    if isinstance(part, Mapping):
        part = _headed(part, form)
        return {
            k: v if k in _AS_THEY_ARE else _drawn(v, form) if k in _PICTURES else _told(v, form)
            for k, v in part.items()
        }
    if isinstance(part, list | tuple):
        return [_told(v, form) for v in part]
    return part


def _drawn(picture: Any, form: LocalForm) -> Any:
    """A picture with its words told; one that waits to be drawn, once it is."""
    if callable(picture):
        draw: Callable[[], str] = picture
        return lambda: _drawn(draw(), form)
    if not isinstance(picture, str):
        return picture
    return _TEXT.sub(lambda m: f"{m[1]}{escape(told(unescape(m[2]), form), quote=False)}{m[3]}", picture)


def _headed(block: Mapping[str, Any], form: LocalForm) -> Mapping[str, Any]:
    """A block whose heads name the units in which its quantities will be told."""
    if not form.is_metric:
        return block
    kind = block.get("kind")
    if kind == "pairs":
        return {**block, "items": [_row_headed(r, form) for r in block["items"]]}
    if kind == "figures":
        return {**block, "items": [[*_row_headed(r[:2], form), *r[2:]] for r in block["items"]]}
    if isinstance(block.get("value"), Quantity):
        return {**block, "label": told_head(block["label"], form, block["value"].unit)}
    if kind == "matrix":
        return {**block, "rows": [{**r, "cells": _row_headed(r["cells"], form)} for r in block["rows"]]}
    if kind == "table":
        units = [
            next((r[i].unit for r in block["rows"] if i < len(r) and isinstance(r[i], Quantity)), "")
            for i in range(len(block["head"]))
        ]
        head = [told_head(h, form, unit) if unit else h for h, unit in zip(block["head"], units, strict=True)]
        return {**block, "head": head, "rows": [_row_headed(r, form) for r in block["rows"]]}
    return block


def _row_headed(cells: Sequence[str], form: LocalForm) -> list[str]:
    unit = next((c.unit for c in cells[1:] if isinstance(c, Quantity)), "")
    return [told_head(cells[0], form, unit), *cells[1:]] if unit and cells else list(cells)
