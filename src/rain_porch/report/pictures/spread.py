"""Marks that would lie on one another are moved apart, each tied to its place by a line."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import numpy as np

from . import ink

ROUNDS, PULLED, GAP = 500, 40, 1.5  # rounds at most; in so many of them marks are drawn to their places


def spread(
    points: Sequence[tuple[float, float]],
    radii: Sequence[float],
    width: float,
    height: float,
    fixed: Sequence[tuple[float, float, float]] = (),
    top: float = 0.0,
) -> list[tuple[float, float]]:
    """Where to draw marks of such radii so that none lies on another, on one of the fixed (x, y, radius), or over the edge
    (width × height, from `top` on), each as near to its own point as that allows. The same points give the same places."""
    if not points:
        return []
    r = np.array(radii, dtype=float)
    least, most = np.column_stack([r + 1, top + r + 1]), np.column_stack([width - r - 1, height - r - 1])
    true = np.clip(np.array(points, dtype=float), least, np.maximum(least, most))
    turn = np.arange(len(points)) * 2.399963  # the golden angle: equal points leave each other in all directions
    away = np.column_stack([np.cos(turn), np.sin(turn)])
    at = true + 0.01 * away
    block = np.array(fixed, dtype=float).reshape(-1, 3)
    if not _pushed(true, r, block).any():
        return [(float(x), float(y)) for x, y in true]
    for left in range(ROUNDS, 0, -1):
        at += 0.03 * (true - at) * (left > ROUNDS - PULLED)
        push = _pushed(at, r, block)
        far = np.hypot(push[:, 0], push[:, 1])
        if left <= ROUNDS - PULLED and not (far > 0.02).any():
            break
        push *= np.minimum(1.0, 14.0 / np.where(far > 0, far, 1.0))[:, None]
        at += push + 0.02 * np.roll(away, left, axis=0) * (far > 0.02)[:, None]  # a nudge, lest marks in a row stay one
        over = np.maximum(0.0, least - at) - np.maximum(0.0, at - most)
        at = np.clip(at + 1.3 * over, least, np.maximum(least, most))  # off the edge a little further than it was over
    return [(float(x), float(y)) for x, y in at]


def _pushed(at: Any, r: Any, block: Any) -> Any:
    """How far each mark is pushed by what it overlaps: half by another mark, wholly by what keeps its place."""
    moved = _apart(at, r, at, r, 0.5, True) + _apart(at, r, block[:, :2], block[:, 2], 1.0, False)
    # marks on one and the same point push each other nowhere: they count as overlapping all the same
    same = (np.hypot(*(at[:, None, :] - at[None, :, :]).transpose(2, 0, 1)) < 1e-9).sum(axis=1) > 1
    return np.where(same[:, None] & (moved == 0), 1e-6, moved)


def _apart(at: Any, r: Any, other: Any, other_r: Any, share: float, same: bool) -> Any:
    """How far each mark is pushed by the others that it overlaps."""
    if not len(other):
        return np.zeros_like(at)
    apart = at[:, None, :] - other[None, :, :]
    far = np.hypot(apart[..., 0], apart[..., 1])
    over = np.maximum(0.0, r[:, None] + other_r[None, :] + GAP - far)
    if same:
        np.fill_diagonal(over, 0.0)
    return (apart / np.where(far > 1e-9, far, 1.0)[..., None] * (over * share)[..., None]).sum(axis=1)


def leader(at: tuple[float, float], true: tuple[float, float], radius: float) -> list[str]:
    """The line from a mark that was moved to where it belongs; nothing where it hardly was."""
    if math.hypot(at[0] - true[0], at[1] - true[1]) <= radius:
        return []
    return [
        f'<path d="M{at[0]:.1f} {at[1]:.1f}L{true[0]:.1f} {true[1]:.1f}" stroke="{ink.SLATE}" stroke-width="0.7"/>'
        f'<circle cx="{true[0]:.1f}" cy="{true[1]:.1f}" r="1.4" fill="{ink.SLATE}"/>'
    ]


def numbered(kind: str, x: float, y: float, number: int) -> list[str]:
    """A mark with its home's number: sold a filled disc, deed sale a filled diamond, under contract a ring whose lower half is
    struck through beneath the number, for sale a ring, failed a ring with a slash at its shoulder. Told apart in grey too."""
    r = NUMBER_RADIUS
    if kind in ("sold", "deed_sale"):
        shape = (
            f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r}" fill="{ink.SLATE}" stroke="{ink.PAPER}" stroke-width="1"/>'
            if kind == "sold"
            else f'<path d="M{x:.1f} {y - r - 1.6:.1f}l{r + 1.6} {r + 1.6}l{-r - 1.6} {r + 1.6}l{-r - 1.6} {-r - 1.6}z" fill="{ink.SLATE}" '
            f'stroke="{ink.PAPER}" stroke-width="1"/>'
        )
        return [shape, ink.text(x, y + 3.1, str(number), NUMBER_SIZE, ink.PAPER, weight=600)]
    body = [
        f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r - 0.6}" fill="{ink.PAPER}" stroke="{ink.RAIN}" stroke-width="1.6"/>'
    ]
    if kind == "under_contract":  # a double ring: half way to a sale
        body.append(
            f'<path d="M{x - r:.1f} {y:.1f}a{r} {r} 0 0 0 {2 * r} 0" fill="none" stroke="{ink.RAIN}" stroke-width="3.6"/>'
        )
    if kind == "failed":
        d = r * 0.72
        body.append(
            f'<path d="M{x - d - 2:.1f} {y + d + 2:.1f}l4.5 -4.5M{x + d + 2:.1f} {y - d - 2:.1f}l-4.5 4.5" stroke="{ink.CLAY}" stroke-width="1.8"/>'
        )
    return [*body, ink.text(x, y + 3.1, str(number), NUMBER_SIZE, ink.SLATE, weight=600)]


NUMBER_RADIUS, NUMBER_SIZE = 7.6, 9
