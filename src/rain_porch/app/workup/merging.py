"""Two changes of one document made side by side: what does not clash is kept of both."""

from __future__ import annotations

from typing import Any

_GONE = object()  # stands for a part that is not there


def merged(base: Any, mine: Any, theirs: Any, at: tuple[str, ...] = ()) -> tuple[Any, list[tuple[str, ...]]]:
    """The document with what either side changed, and where both changed the same part otherwise.

    base, mine, theirs: JSON values; objects are merged part by part, everything else, lists too, is one part. Where they clash
    theirs stands. The order of an object's parts is mine where I changed it, else theirs.
    """
    if _same(mine, base) or _same(mine, theirs):
        return theirs, []
    if _same(theirs, base):
        return mine, []
    if not (isinstance(mine, dict) and isinstance(theirs, dict)):
        return theirs, [at]
    held = base if isinstance(base, dict) else {}
    out, clashes = {}, []
    for name in _in_order(held, mine, theirs):
        value, found = merged(held.get(name, _GONE), mine.get(name, _GONE), theirs.get(name, _GONE), (*at, str(name)))
        clashes += found
        if value is not _GONE:
            out[name] = value
    return out, clashes


def _same(a: Any, b: Any) -> bool:
    """Equal, the order of an object's parts too: comps stand in the order in which they are kept."""
    if isinstance(a, dict) and isinstance(b, dict):
        return list(a) == list(b) and all(_same(a[k], b[k]) for k in a)
    return bool(a == b)


def _in_order(base: dict[str, Any], mine: dict[str, Any], theirs: dict[str, Any]) -> list[str]:
    moved = [k for k in mine if k in base] != [k for k in base if k in mine]
    first, then = (mine, theirs) if moved else (theirs, mine)
    return [*first, *(k for k in then if k not in first)]
