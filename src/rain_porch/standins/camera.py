"""A stand-in for the photographer: pictures drawn from a listing's record, and true to it, each at an address of its own.

Every picture is an SVG of 640 × 420, a pure function of the record; the same record gives the same picture. Its address tells
the scene, as the address of a true photographer's picture would lead to it: `drawn:2?kind=detached&stories=2…`.
"""

from __future__ import annotations

import hashlib
import random
import re
from collections.abc import Mapping
from dataclasses import dataclass, fields
from functools import lru_cache
from typing import Any, get_type_hints
from urllib.parse import parse_qsl, urlencode

from ..core.errors import NotFound
from .rooms import bath, bedroom, kitchen, living_room
from .sketch import H, W, circle, path, picture, rect

CONDITIONS = ("", "new", "like new", "well kept", "ordinary wear", "worn", "damaged")
SEASONS = (
    "winter",
    "winter",
    "spring",
    "spring",
    "spring",
    "summer",
    "summer",
    "summer",
    "autumn",
    "autumn",
    "autumn",
    "winter",
)
_LEAF = {"winter": None, "spring": "#8FB573", "summer": "#5E8C4F", "autumn": "#C27F3A"}
_GRASS = {"winter": "#D9DEDB", "spring": "#A9C78B", "summer": "#93B675", "autumn": "#B5B072"}
_SKY = {"morning": ("#DCE9EF", "#F6EFE2"), "noon": ("#BFD9E8", "#E9F2F5"), "evening": ("#C9C3D6", "#F3D2B3")}
_WALLS = {
    "brick": ("#A9654B", "#8E523C"), "clapboard": ("#E5E1D4", "#CFC9B8"), "shingle": ("#9A8F7C", "#857A68"),
    "stucco": ("#E3D3B8", "#D6C4A6"), "fibre cement": ("#8FA3A8", "#7C9096"),
}  # fmt: skip


@dataclass(frozen=True)
class Scene:
    """What of a record can be seen in a picture."""

    seed: str
    kind: str
    stories: float
    style: str
    cladding: str
    garage: int
    fireplace: bool
    pool: bool
    water: bool
    age: int
    condition: int
    day: str
    roof: str
    flooring: str
    bedrooms: int

    @property
    def season(self) -> str:
        return SEASONS[int(self.day[5:7]) - 1]

    @property
    def light(self) -> str:
        """The light of the day the photographer came: low sun oftener in the short days of winter."""
        noons = {"winter": 2, "spring": 3, "summer": 5, "autumn": 3}[self.season]
        draw = int.from_bytes(hashlib.blake2b(self.day.encode(), digest_size=4).digest())
        return (*["noon"] * noons, "morning", "evening")[draw % (noons + 2)]

    @property
    def chance(self) -> random.Random:
        """The same draws for the same home, whatever is listed of it."""
        return random.Random(hashlib.blake2b(self.seed.encode(), digest_size=8).digest())


def scene_of(record: Mapping[str, Any]) -> Scene:
    """The scene that a listing's record describes; what it does not say is taken as plain."""
    walls = str(record.get("construction_materials") or "").lower()
    date = record.get("on_market_date") or record.get("close_date") or "2000-06-01"
    said = (record.get("property_condition") or "ordinary wear").lower()
    year = record.get("year_built") or 1980
    return Scene(
        seed=str(record.get("parcel_number") or record["listing_id"]),
        kind=str(record.get("home_kind") or "detached"),
        stories=float(record.get("stories") or 1),
        style=str(record.get("architectural_style") or "Ranch"),
        cladding=next((c for c in _WALLS if c in walls), "clapboard"),
        garage=int(record.get("garage_spaces") or 0),
        fireplace=bool(record.get("fireplaces_total")),
        pool=bool(record.get("pool_private_yn")),
        water=bool(record.get("waterfront_yn")),
        age=max(0, int(date[:4]) - int(year)),
        condition=CONDITIONS.index(said) if said in CONDITIONS[1:] else 4,
        day=str(date),
        roof=str(record.get("roof") or "Gable").lower(),
        flooring=str(record.get("flooring") or "Hardwood").lower(),
        bedrooms=int(record.get("bedrooms_total") or 0),
    )


def captions(scene: Scene) -> list[str]:
    """What is photographed of this home, in order: four to nine pictures of a home, two of land."""
    if scene.kind in ("land", "acreage"):
        return ["The land", "From the road"]
    out = ["Front", "Living room", "Kitchen", "Bath"]
    out += ["Bedroom"] * (1 if scene.bedrooms < 3 else 2)
    if scene.kind != "condominium":
        out.append("Garden")
    if scene.water:
        out.append("The river")
    return out


def draw(scene: Scene, number: int) -> str:
    """Picture `number` (from 1) of `captions` as SVG. Raises IndexError for one that is not there."""
    if number < 1:
        raise IndexError(number)
    caption = captions(scene)[number - 1]
    made = {
        "Front": front, "The land": land, "From the road": land, "Living room": living_room, "Kitchen": kitchen,
        "Bath": bath, "Bedroom": bedroom, "Garden": garden, "The river": river,
    }[caption]  # fmt: skip
    return picture(made(scene), f"{caption}, {CONDITIONS[scene.condition]}")


SCHEME = "drawn:"
_MOST = 200.0  # of anything that can be counted in a picture


def address_of(scene: Scene, number: int) -> str:
    """Where picture `number` (from 1) of a scene stands; what is plain is left out."""
    return f"{SCHEME}{number}?{_told(scene)}"


@lru_cache(maxsize=256)
def _told(scene: Scene) -> str:
    """A scene as all addresses of its pictures tell it."""
    told = {f.name: getattr(scene, f.name) for f in fields(Scene)}
    return urlencode({k: _short(v) for k, v in told.items() if v not in (0, "")})


def drawn_at(address: str) -> str:
    """The picture at an address, as SVG. NotFound for one that leads to no picture."""
    match = re.fullmatch(r"drawn:(\d{1,3})\?(.*)", address)
    missing = NotFound(f"No picture stands at {address[:80]}.")
    if match is None:
        raise missing
    given = dict(parse_qsl(match[2]))
    try:
        kinds = get_type_hints(Scene)
        scene = Scene(**{name: _read(kind, given.get(name, "")) for name, kind in kinds.items()})
        return draw(scene, int(match[1]))
    except (ValueError, IndexError, KeyError):
        raise missing from None


def _short(value: Any) -> str:
    return f"{value:g}" if isinstance(value, float) else str(int(value)) if isinstance(value, bool) else str(value)


def _read(kind: type, told: str) -> Any:
    """A value of the kind as an address tells it. Raises ValueError."""
    if kind is str:
        return told
    number = float(told or 0)
    if not 0 <= number <= _MOST:
        raise ValueError(told)
    return kind(number)


def _outside(scene: Scene) -> list[str]:
    top, low = _SKY[scene.light]
    out = [
        f'<defs><linearGradient id="sky" x2="0" y2="1"><stop stop-color="{top}"/><stop offset="1" stop-color="{low}"/>'
        "</linearGradient></defs>",
        rect(0, 0, W, 300, "url(#sky)"),
    ]
    out.append(path("M0 262Q160 225 330 254T640 236V300H0Z", "#B7C4BC", opacity=0.6))
    out.append(rect(0, 285, W, H - 285, _GRASS[scene.season]))
    return out


def _tree(x: float, base: float, size: float, scene: Scene) -> list[str]:
    leaf = _LEAF[scene.season]
    out = [rect(x - size * 0.06, base - size * 0.55, size * 0.12, size * 0.55, "#6B5847")]
    if leaf is None:
        for dx, dy in ((-0.22, -0.95), (0.2, -0.9), (-0.08, -1.05), (0.32, -0.7), (-0.34, -0.72)):
            out.append(
                path(
                    f"M{x} {base - size * 0.5}L{x + dx * size} {base + dy * size}",
                    "none",
                    "#6B5847",
                    max(1.5, size * 0.03),
                )
            )
        return out
    for dx, dy, r in ((0, -0.85, 0.34), (-0.25, -0.65, 0.26), (0.26, -0.66, 0.27)):
        out.append(circle(x + dx * size, base + dy * size, r * size, leaf))
    return out


def _walls(x: float, y: float, w: float, h: float, scene: Scene) -> list[str]:
    colour, line = _WALLS[scene.cladding]
    out = [rect(x, y, w, h, colour)]
    step = {"brick": 9, "clapboard": 8, "shingle": 12, "fibre cement": 16}.get(scene.cladding)
    if step:
        for i in range(1, int(h // step) + 1):
            out.append(path(f"M{x:.0f} {y + i * step:.0f}h{w:.0f}", "none", line, 1))
    if scene.condition >= 5:
        chance = scene.chance
        for _ in range(4 if scene.condition == 5 else 9):
            cx, cy = x + chance.random() * w, y + chance.random() * h
            out.append(path(f"M{cx:.0f} {cy:.0f}q8 14 -2 26q12 6 4 20", "none", "#5C5048", 1.6, 0.6))
            out.append(rect(cx - 9, cy - 4, 22, 30, "#6E6256", opacity=0.22))
    return out


def _window(x: float, y: float, w: float, h: float, scene: Scene, broken: bool = False) -> list[str]:
    glass = "#F7E2A6" if scene.light == "evening" else "#9DB9C6"
    frame = "#FFFFFF" if scene.condition <= 4 else "#C9C1B4"
    out = [rect(x - 3, y - 3, w + 6, h + 6, frame), rect(x, y, w, h, "#7C746A" if broken else glass)]
    if broken:
        out.append(path(f"M{x} {y}l{w} {h}M{x + w} {y}l{-w} {h}", "none", "#B8A98F", 6))
    else:
        out.append(path(f"M{x + w / 2} {y}v{h}M{x} {y + h / 2}h{w}", "none", frame, 2.5))
    if scene.condition <= 2:
        out += [rect(x - 13, y - 3, 9, h + 6, "#3D5A66"), rect(x + w + 4, y - 3, 9, h + 6, "#3D5A66")]
    return out


def front(scene: Scene) -> list[str]:
    """The house from the street: storeys, roof, cladding, garage doors, chimney, trees by age, season and light."""
    out = _outside(scene)
    chance = scene.chance
    if scene.kind == "condominium":
        return out + _block(scene)
    grown = 60 + min(scene.age, 60) * 2.1
    out += _tree(70, 318, grown, scene)
    if scene.age > 12:
        out += _tree(585, 312, grown * 0.8, scene)
    floors = 2 if scene.stories >= 2 else 1
    tall = 92 * floors + (26 if scene.stories == 1.5 else 0)
    width = 250 if scene.kind != "attached" else 150
    if floors == 1:
        width += 40
    x, base = 320 - (width + 62 * scene.garage) / 2, 330.0
    top = base - tall
    if scene.kind == "attached":  # the neighbours' walls on both sides
        out += [rect(x - 150, top + 8, 150, tall - 8, "#CFC7BA"), rect(x + width, top - 6, 150, tall + 6, "#C3BCAF")]
    out += _walls(x, top, width, tall, scene)
    out += _roof(x, top, width, scene)
    for f in range(floors):
        y = base - 92 * (f + 1) + 24
        n = max(2, int(width // 84))
        for i in range(n):
            wx = x + width * (i + 0.5) / n - 17
            if f == 0 and i == n // 2:
                continue
            out += _window(wx, y, 34, 42, scene, broken=scene.condition == 6 and (i + f) % 3 == 0)
    n = max(2, int(width // 84))
    door = x + width * (n // 2 + 0.5) / n - 18
    out += [
        rect(door - 4, base - 76, 44, 76, "#FFFFFF"),
        rect(door, base - 72, 36, 72, chance.choice(["#7A3B34", "#2F4B57", "#5B6E4D", "#8A6A3D"])),
    ]
    out.append(circle(door + 30, base - 36, 2.4, "#E6CF9A"))
    out.append(path(f"M{door - 6:.0f} {base}h48l26 90h-100z", "#CFC8BC"))
    if scene.garage:
        gx = x + width
        gw = 62 * scene.garage
        out += _walls(gx, base - 84, gw, 84, scene)
        out.append(
            path(f"M{gx - 6} {base - 84}L{gx + 16} {base - 108}H{gx + gw - 8}L{gx + gw + 8} {base - 84}Z", "#5F5A57")
        )
        for i in range(scene.garage):
            out.append(rect(gx + 7 + 62 * i, base - 62, 48, 62, "#F2EFE8" if scene.condition < 5 else "#B9B0A2"))
            for k in range(1, 4):
                out.append(path(f"M{gx + 7 + 62 * i} {base - 62 + 15 * k}h48", "none", "#C9C3B6", 1.5))
        out.append(path(f"M{gx + 4} {base}h{gw - 8}l30 90h{-gw - 30}z", "#B9B5AE"))
    if scene.condition <= 2:
        for i in range(9):
            out.append(circle(x + 14 + i * (width - 28) / 8, base + 4, 7, ["#B5566B", "#D9A227", "#6E9A5B"][i % 3]))
    elif scene.condition >= 5:
        for i in range(16):
            gx2 = x + i * width / 15
            out.append(
                path(f"M{gx2:.0f} {base + 6}q-4 -22 -9 -28M{gx2:.0f} {base + 6}q3 -24 9 -34", "none", "#7F8650", 2.2)
            )
    return out


def _roof(x: float, top: float, width: float, scene: Scene) -> list[str]:
    colour = "#5F5A57" if scene.condition <= 4 else "#7B6F62"
    rise = 70 if scene.stories >= 1.5 else 54
    a, b = x - 14, x + width + 14
    shapes = {
        "gable": f"M{a} {top}L{x + width * 0.24} {top - rise}H{x + width * 0.76}L{b} {top}Z",
        "hip": f"M{a} {top}L{x + width * 0.36} {top - rise}H{x + width * 0.64}L{b} {top}Z",
        "gambrel": f"M{a} {top}L{x + 14} {top - rise * 0.62}L{x + width * 0.3} {top - rise}H{x + width * 0.7}L{x + width - 14} {top - rise * 0.62}L{b} {top}Z",
    }  # fmt: skip
    out = []
    if scene.fireplace:
        out.append(rect(x + width * 0.66, top - rise - 26, 22, 54, "#8A5743"))
    out.append(path(shapes.get(scene.roof, shapes["gable"]), colour))
    if scene.stories == 1.5:
        for part in (0.3, 0.62):
            wx = x + width * part
            out += [
                path(f"M{wx - 6} {top - 8}V{top - 36}l20 -16l20 16V{top - 8}Z", "#EDE7DA"),
                *_window(wx + 4, top - 34, 20, 22, scene),
            ]
    if scene.condition == 6:
        out.append(
            path(f"M{x + width * 0.4} {top - rise * 0.7}q24 6 40 -4q10 24 -6 34q-26 6 -36 -8z", "#2E2A27", opacity=0.75)
        )
    return out


def _block(scene: Scene) -> list[str]:
    """A condominium building of four floors with balconies."""
    out = _tree(60, 320, 110, scene) + _walls(120, 70, 400, 260, scene)
    out.append(rect(112, 58, 416, 16, "#5F5A57"))
    for floor in range(4):
        for i in range(5):
            x, y = 146 + i * 76, 92 + floor * 60
            out += _window(x, y, 34, 34, scene)
            if i % 2 == 0 and floor < 3:
                out += [rect(x - 8, y + 30, 50, 4, "#4E5A60"), path(f"M{x - 6} {y + 18}h46", "none", "#4E5A60", 2)]
    out += [rect(292, 282, 56, 48, "#2F4B57"), path("M292 330h56l40 90H252z", "#CFC8BC")]
    return out


def garden(scene: Scene) -> list[str]:
    """Behind the house: lawn, trees by age, the pool where there is one, the river where it lies behind."""
    out = _outside(scene)
    if scene.water:
        out.append(path("M0 262Q200 250 420 266T640 258V292H0Z", "#8FB4C6"))
    out += _tree(110, 330, 70 + min(scene.age, 60) * 2.2, scene) + _tree(540, 322, 60 + min(scene.age, 60) * 1.8, scene)
    for i in range(27):
        out.append(rect(i * 24, 262, 20, 46, "#B99B77" if scene.condition < 5 or i % 4 else "#8E7C66"))
    if scene.pool:
        water = "#5FA8C4" if scene.condition < 5 else "#7C8F5E"
        out += [path("M190 352Q320 322 455 348Q490 380 430 400Q300 418 205 396Q160 374 190 352Z", "#E8E2D5"),
                path("M206 356Q320 332 444 353Q470 378 420 392Q305 406 216 390Q182 372 206 356Z", water)]  # fmt: skip
    else:
        out += [rect(250, 340, 130, 8, "#9A7B59"), rect(262, 348, 8, 26, "#7C6146"), rect(360, 348, 8, 26, "#7C6146")]
    if scene.condition >= 5:
        for i in range(30):
            x, y = (i * 53) % 640, 325 + (i * 37) % 85
            out.append(path(f"M{x} {y}q-4 -18 -9 -24M{x} {y}q4 -20 9 -28", "none", "#7F8650", 2.2))
    return out


def river(scene: Scene) -> list[str]:
    out = _outside(scene)
    out.append(path("M0 300Q180 270 360 296T640 284V390Q420 372 260 398T0 388Z", "#8FB4C6"))
    for i in range(7):
        out.append(path(f"M{40 + i * 85} {330 + (i % 3) * 14}q16 -6 32 0", "none", "#C7DCE5", 3))
    return out + _tree(90, 300, 120, scene) + _tree(580, 292, 95, scene)


def land(scene: Scene) -> list[str]:
    out = _outside(scene)
    out.append(path("M0 420L250 300H380L640 420Z", "#BDB7A0", opacity=0.5))
    out += _tree(80, 306, 90, scene) + _tree(540, 300, 120, scene)
    out += [rect(312, 318, 6, 54, "#7C6146"), rect(278, 300, 74, 34, "#FFFFFF"), rect(284, 306, 62, 22, "#A4572F")]
    return out
