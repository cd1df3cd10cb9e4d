"""Marks that would lie on one another are moved apart, each tied to its place by a line."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
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
    most = np.maximum(least, most)
    true = _inside(np.array([complex(x, y) for x, y in points]), least, most)
    away = np.exp(
        2.399963j * np.arange(len(points))
    )  # the golden angle: equal points leave each other in all directions
    twice = np.concatenate([away, away])
    at = true + 0.01 * away
    others = _Others.of(r, fixed)
    if not others.push(true).any():
        return [(float(z.real), float(z.imag)) for z in true]
    for left in range(ROUNDS, 0, -1):
        pulled = left > ROUNDS - PULLED
        if pulled:
            at = at + 0.03 * (true - at)
        push = others.push(at)
        far = np.abs(push)
        moved = far > 0.02
        if not pulled and not moved.any():
            break
        push = push * np.minimum(1.0, 14.0 / np.maximum(far, 1e-9))
        turn = -left % len(away)
        at = at + push + 0.02 * twice[turn : turn + len(away)] * moved  # a nudge, lest marks in a row stay one
        over = _inside(at, least, most) - at
        if over.any():  # off the edge a little further than it was over
            at = _inside(at + 1.3 * over, least, most)
    return [(float(z.real), float(z.imag)) for z in at]


def _inside(at: Any, least: Any, most: Any) -> Any:
    """Points, x + iy, brought within a frame of (n, 2)."""
    held = np.minimum(np.maximum(at.view(float).reshape(-1, 2), least), most)
    return held.view(complex)[:, 0]


@dataclass(frozen=True)
class _Others:
    """What marks must not lie on: one another, and what keeps its place. near: distances within which two of them overlap,
    (n, n + fixed); share: of an overlap by which a mark gives way, half to another mark, wholly to what keeps its place."""

    fixed: Any
    near: Any
    share: Any

    @classmethod
    def of(cls, r: Any, fixed: Sequence[tuple[float, float, float]]) -> _Others:
        at, radii = np.array([complex(x, y) for x, y, _ in fixed]), np.array([f[2] for f in fixed], dtype=float)
        near = r[:, None] + np.concatenate([r, radii])[None, :] + GAP
        np.fill_diagonal(near, -1.0)
        return cls(at, near, np.where(np.arange(near.shape[1]) < len(r), 0.5, 1.0)[None, :])

    def push(self, at: Any) -> Any:
        """How far each mark is pushed by what it overlaps, x + iy."""
        apart = at[:, None] - np.concatenate([at, self.fixed])[None, :]
        far = np.abs(apart)
        over = np.maximum(0.0, self.near - far) * self.share
        moved = (apart * (over / np.maximum(far, 1e-9))).sum(axis=1)
        # marks on one and the same point push each other nowhere: they count as overlapping all the same
        same = (far[:, : len(at)] < 1e-9).sum(axis=1) > 1
        return np.where(same & (moved == 0), 1e-6 + 0j, moved) if same.any() else moved


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
