"""The inside of a home for the camera: rooms whose finish and wear a person can tell apart at a glance.

Condition 1 new, 2 like new, 3 well kept, 4 ordinary wear, 5 worn, 6 damaged.
"""

from __future__ import annotations

import random
from typing import Protocol

from .sketch import H, W, circle, path, rect

_WALL = ("", "#F7F5F0", "#F1EEE6", "#EFE6D3", "#E2D7BF", "#CFC19F", "#B9AA8B")
_FLOORS = {
    "hardwood": ("#B98A57", "#A3774A"), "carpet": ("#C9C2B4", "#C0B8A8"), "tile": ("#DAD7CF", "#BFBBB0"),
    "laminate": ("#C7A77C", "#B7966B"),
}  # fmt: skip


class Seen(Protocol):
    """What the rooms need of a scene."""

    @property
    def condition(self) -> int: ...
    @property
    def flooring(self) -> str: ...
    @property
    def fireplace(self) -> bool: ...
    @property
    def chance(self) -> random.Random: ...


def _shell(scene: Seen, flooring: str | None = None) -> list[str]:
    """Wall, floor, skirting, and the wear that the condition brings."""
    floor, line = _FLOORS.get(flooring or scene.flooring, _FLOORS["hardwood"])
    out = [rect(0, 0, W, 300, _WALL[scene.condition]), rect(0, 300, W, H - 300, floor)]
    for i in range(9):
        out.append(path(f"M{-160 + i * 110} 420L{100 + i * 55} 300", "none", line, 2))
    if (flooring or scene.flooring) == "tile":
        for y in (324, 356, 392):
            out.append(path(f"M0 {y}H{W}", "none", line, 2))
    out.append(rect(0, 292, W, 8, "#FFFFFF" if scene.condition <= 3 else "#D8CDB8"))
    return out


def _wear(scene: Seen) -> list[str]:
    chance = scene.chance
    out: list[str] = []
    if scene.condition == 4:
        out += [rect(430, 60, 70, 60, "#D8CBAF", 0.5), path("M30 300q40 16 90 6", "none", "#8A6E4C", 3, 0.5)]
    if scene.condition >= 5:
        for _ in range(3 if scene.condition == 5 else 5):
            x, y = chance.uniform(30, 600), chance.uniform(10, 160)
            out.append(path(f"M{x:.0f} {y:.0f}q30 8 18 40q-20 22 -40 4q-16 -30 22 -44z", "#8E7B55", opacity=0.35))
            out.append(path(f"M{x:.0f} 0q10 30 -6 52q16 24 4 60", "none", "#6B5C45", 2, 0.7))
    if scene.condition == 6:
        out.append(path("M470 130l34 -16l30 22l8 40l-30 26l-40 -12l-14 -34z", "#3A322B"))
        for i in range(5):
            out.append(path(f"M{474 + i * 14} 122v78", "none", "#8A7452", 4))
        for i in range(9):
            out.append(path(f"M{60 + i * 60} {395 - (i % 3) * 18}l16 -9l12 10l-10 9z", "#9B8C74"))
    return out


def kitchen(scene: Seen) -> list[str]:
    c = scene.condition
    doors = ("", "#FDFDFB", "#3E5560", "#B98A57", "#C9A873", "#B99B6F", "#9C8462")[c]
    top = ("", "#E9E6E0", "#D9D6D0", "#CFC3AE", "#B8A88C", "#A3937A", "#8B7D67")[c]
    steel = "#B9C2C6" if c <= 3 else "#EFEBDD" if c == 4 else "#CFC6AE"
    out = _shell(scene, "tile" if c <= 2 else None)
    if c <= 2:
        for y in range(6):
            for x in range(22):
                out.append(
                    rect(x * 29.5 + (15 if y % 2 else 0) - 10, 128 + y * 13, 27, 11, "#FFFFFF" if c == 1 else "#E6ECEA")
                )
    for i in range(5):
        x = 20 + i * 122
        if i != 2 and not (c == 6 and i == 1):
            out += [
                rect(x, 26, 112, 96, doors),
                rect(x + 54, 32, 2, 84, "#00000022"),
                circle(x + 48, 110, 3, "#8C8C8C"),
            ]
        if not (c == 6 and i == 3):
            out += [
                rect(x, 212, 112, 104, doors),
                rect(x + 54, 220, 2, 90, "#00000022"),
                circle(x + 48, 228, 3, "#8C8C8C"),
            ]
        else:
            out.append(rect(x, 212, 112, 104, "#2F2A25"))
    out += [rect(10, 202, 620, 12, top), rect(264, 30, 112, 60, steel), rect(264, 206, 112, 110, steel)]
    for dx in (30, 82):
        out.append(circle(264 + dx, 208, 10, "#3A3F42"))
    out.append(rect(276, 232, 88, 50, "#2F3437" if c <= 3 else "#6B6455"))
    if c <= 2:
        for x in (150, 320, 490):
            out += [
                path(f"M{x} 0v34", "none", "#5A5A5A", 2),
                path(f"M{x - 18} 56q18 -34 36 0z", "#D9A227" if c == 1 else "#8A5743"),
            ]
    if c == 5:
        out.append(path("M20 212l112 8v104l-112 -8z", doors))
    return out + _wear(scene)


def living_room(scene: Seen) -> list[str]:
    c = scene.condition
    out = _shell(scene)
    out += [
        rect(60, 50, 150, 150, "#FFFFFF"),
        rect(68, 58, 134, 134, "#BFD6DF" if c < 6 else "#8B8273"),
        rect(132, 58, 5, 134, "#FFFFFF"),
    ]
    if c <= 3:
        out += [path("M44 40h34v180q-20 8 -34 0z", "#DCCFB6"), path("M192 40h34v180q-20 8 -34 0z", "#DCCFB6")]
    elif c >= 5:
        out.append(path("M40 44l190 10", "none", "#6B5C45", 5))
    if scene.fireplace:
        stone = "#A9654B" if c >= 3 else "#D9D6D0"
        out += [rect(390, 90, 170, 212, stone), rect(376, 84, 198, 14, "#8A6A47"), rect(426, 190, 98, 112, "#241F1C")]
        if c <= 4:
            out.append(path("M446 300q8 -46 28 -62q22 20 30 62z", "#D9A227"))
    else:
        out += [rect(420, 80, 120, 84, "#8A6A47"), rect(428, 88, 104, 68, "#C7D7C9" if c < 5 else "#A79C84")]
    if c <= 4:
        sofa = ("", "#5E7F8C", "#6E8B74", "#8C7A66", "#9A7F63")[c]
        out += [
            rect(60, 250, 250, 70, sofa),
            rect(60, 290, 250, 52, sofa),
            rect(46, 268, 30, 80, sofa),
            rect(294, 268, 30, 80, sofa),
        ]
        out += [path("M50 372h330l40 34H20z", "#D8C9B0" if c >= 3 else "#C2CDD0"), rect(200, 352, 130, 8, "#7C5C3D")]
        if c <= 2:
            out += [circle(350, 236, 30, "#6E9A5B"), rect(340, 262, 20, 40, "#C9B79C")]
    elif c == 5:
        out += [rect(60, 262, 210, 58, "#7E705C"), path("M60 300q60 24 110 6t100 10v26H60z", "#6F624F")]
    return out + _wear(scene)


def bath(scene: Seen) -> list[str]:
    c = scene.condition
    out = _shell(scene, "tile")
    tile = ("", "#DCE8EA", "#E6ECEA", "#DDE3DA", "#E5D9C3", "#D3C29F", "#B8A788")[c]
    for y in range(7):
        for x in range(16):
            if c == 6 and (x * 7 + y * 3) % 11 == 0:
                continue
            out.append(rect(x * 40 + 2, 120 + y * 25, 37, 22, tile))
    basin = "#FFFFFF" if c <= 4 else "#DDD3BC"
    out += [
        rect(60, 30, 150, 84, "#8A9AA0" if c <= 2 else "#A3937A"),
        rect(66, 36, 138, 72, "#DCE7EA" if c < 6 else "#8B8273"),
    ]
    out += [
        rect(50, 216, 170, 14, basin),
        rect(62, 230, 146, 90, ("", "#3E5560", "#8FA3A8", "#B98A57", "#C9A873", "#B99B6F", "#9C8462")[c]),
    ]
    out.append(path("M135 214v-22h22", "none", "#9AA3A6" if c <= 3 else "#A58F5A", 6))
    if c <= 2:
        out += [
            rect(400, 60, 200, 250, "#C9DCE2", 0.55),
            path("M400 60v250M500 60v250M600 60v250", "none", "#9AB4BC", 3),
            circle(560, 92, 14, "#9AA3A6"),
        ]
    else:
        out += [
            path("M380 232h230v50q-12 38 -50 38H430q-40 0 -50 -38z", basin),
            path("M596 232v-40h-22", "none", "#A3A3A0", 6),
        ]
        if c >= 4:
            out.append(path("M392 262q40 22 90 6t120 6", "none", "#A08A5C", 5, 0.6))
    out += [path("M276 236h60v14q0 40 -16 60h-28q-16 -20 -16 -60z", basin), rect(280, 180, 52, 58, basin)]
    return out + _wear(scene)


def bedroom(scene: Seen) -> list[str]:
    c = scene.condition
    out = _shell(scene, "carpet" if scene.flooring == "carpet" else None)
    out += [
        rect(430, 50, 130, 150, "#FFFFFF"),
        rect(438, 58, 114, 134, "#BFD6DF" if c < 6 else "#8B8273"),
        rect(493, 58, 4, 134, "#FFFFFF"),
    ]
    if c <= 4:
        cover = ("", "#C8D6DA", "#D9D2C2", "#B7C3B0", "#B8A68D")[c]
        out += [
            rect(120, 150, 240, 110, "#7C5C3D"),
            rect(112, 236, 256, 90, cover),
            rect(136, 214, 92, 36, "#FFFFFF"),
            rect(252, 214, 92, 36, "#FFFFFF"),
        ]
        out += [rect(60, 250, 46, 62, "#8A6A47"), path("M70 236q13 -34 26 0z", "#F0DFA8" if c <= 3 else "#C9B98F")]
        if c <= 2:
            out.append(path("M100 360h290l34 34H70z", "#DFE5E4"))
    else:
        out.append(path("M110 300h220l24 34H90z", "#A89A80"))
    return out + _wear(scene)
