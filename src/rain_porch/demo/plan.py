"""The lie of the town: neighbourhoods, streets, lots, river, highway, as shapes on a bent plane.

Everything is laid out in miles on a straight grid and then bent by one smooth map, so that streets curve and
lots stay beside them. Place names are ours; the spot is open ocean.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from .words import CROSS_TYPES, POSTAL_CODES, STREET_TYPES, STREET_WORDS

ORIGIN = (41.2, -38.4)
MILES_PER_DEGREE_LAT = 69.0
FT = 1 / 5280


@dataclass(frozen=True)
class Neighbourhood:
    """box: west, south, east, north in miles; turn in degrees. Lots in feet. level: log price of its place."""

    name: str
    box: tuple[float, float, float, float]
    turn: float
    lot_width: float
    lot_depth: float
    years: tuple[int, int]
    area: tuple[float, float]  # median living area, spread of its logarithm
    level: float
    turnover: float
    attached: float = 0.0
    condo_buildings: int = 0
    two_family: float = 0.0


NEIGHBOURHOODS = (
    Neighbourhood("Old Landing", (-0.96, 0.12, 0.01, 0.58), 4, 54, 112, (1895, 1940), (1350, 0.26), 0.10, 0.052, 0.10, 7, 0.05),
    Neighbourhood("Millrace", (-1.00, -0.59, 0.09, -0.12), -3, 58, 116, (1915, 1955), (1250, 0.22), -0.14, 0.055, 0.14, 0, 0.06),
    Neighbourhood("Lantern Hill", (-1.07, 0.68, -0.01, 1.38), -6, 82, 132, (1955, 1978), (1950, 0.24), 0.22, 0.048),
    Neighbourhood("Quarry Bend", (0.31, 0.13, 1.23, 0.62), 5, 68, 118, (1960, 1985), (1550, 0.22), -0.06, 0.055, 0.05),
    Neighbourhood("Alder Flats", (0.30, 0.73, 1.32, 1.38), -4, 76, 124, (1976, 2000), (1750, 0.22), 0.02, 0.056, 0.10, 3),
    Neighbourhood("Heron Reach", (1.55, -0.41, 1.94, -0.04), 8, 130, 190, (1968, 2004), (2900, 0.22), 0.34, 0.009),
    Neighbourhood("Foxglove Meadow", (-0.88, -1.34, 0.80, -0.76), 3, 66, 118, (2004, 2028), (2100, 0.20), 0.05, 0.060, 0.12),
)  # fmt: skip


@dataclass
class Lot:
    """One lot: its corners in miles (before bending), its address, and what lies around it."""

    corners: list[tuple[float, float]]
    number: int
    street: str
    neighbourhood: Neighbourhood
    subdivision: str
    corner: bool = False
    waterfront: bool = False
    backs_to_highway: bool = False

    @property
    def centre(self) -> tuple[float, float]:
        return sum(c[0] for c in self.corners) / 4, sum(c[1] for c in self.corners) / 4


@dataclass
class Plan:
    lots: list[Lot] = field(default_factory=list)
    streets: list[tuple[str, str, list[tuple[float, float]]]] = field(default_factory=list)  # name, class, line
    acres: list[Lot] = field(default_factory=list)


def bend(x: float, y: float) -> tuple[float, float]:
    """The one smooth map from the straight grid to the lie of the land, in miles."""
    return (
        x + 0.060 * math.sin(1.9 * y + 0.6) + 0.022 * math.sin(4.1 * y + 1.3 * x),
        y + 0.070 * math.sin(1.6 * x + 0.4) + 0.020 * math.sin(4.3 * x - 1.1 * y),
    )


def to_degrees(x: float, y: float) -> tuple[float, float]:
    """(longitude, latitude) of a point of the straight grid."""
    bx, by = bend(x, y)
    lat = ORIGIN[0] + by / MILES_PER_DEGREE_LAT
    lon = ORIGIN[1] + bx / (69.17 * math.cos(math.radians(ORIGIN[0])))
    return round(lon, 6), round(lat, 6)


def river_line() -> list[tuple[float, float]]:
    return [(x, 0.03 * math.sin(2.2 * x)) for x in np.linspace(-4.5, 5.0, 240)]


def highway_line() -> list[tuple[float, float]]:
    return [(0.18 + 0.04 * math.sin(1.3 * y), y) for y in np.linspace(-4.0, 4.0, 180)]


def lay_out(
    rng: np.random.Generator, hoods: Sequence[Neighbourhood] = NEIGHBOURHOODS, edges: Sequence[Neighbourhood] = ()
) -> Plan:
    """Streets and lots of all neighbourhoods; the same for the same generator state. edges: where the open land lies."""
    plan = Plan()
    names = list(STREET_WORDS)
    rng.shuffle(names)
    taken = iter(_street_names(names))
    for hood in hoods:
        _lay_out_one(plan, hood, rng, taken)
    for number, edge in enumerate(edges or (EDGE,)):
        _lay_out_acres(plan, rng, edge, f"{EDGE_WAYS[number]}Orchard Road")
    return plan


EDGE_WAYS = ("", "Upper ", "Lower ", "Old ", "New ", "Far ")
EDGE = Neighbourhood("Far Orchard", (1.62, 0.35, 2.30, 1.35), 6, 0, 0, (0, 0), (0, 0), 0.0, 0.045)


def _lay_out_acres(plan: Plan, rng: np.random.Generator, edge: Neighbourhood, street: str) -> None:
    """Strips of open land either side of one road at the eastern edge."""
    west, south, east, north = edge.box
    road = (west + east) / 2
    y, number = south, 10
    while y < north:
        height = float(rng.uniform(0.035, 0.075))
        for x0, x1 in ((west, road - 0.005), (road + 0.005, east)):
            corners = [(x0, y), (x1, y), (x1, y + height), (x0, y + height)]
            plan.acres.append(Lot(corners, number, street, edge, edge.name))
            number += 2
        y += height
    plan.streets.append((street, "collector", [(road, v) for v in np.linspace(south - 0.1, north + 0.05, 16)]))


# open shapes of the map: name, kind, corners in miles
GREENS = (
    ("Landing Green", "park", [(-0.62, 0.035), (-0.10, 0.030), (-0.10, 0.105), (-0.62, 0.110)]),
    ("Lantern Hill Park", "park", [(-1.30, 0.85), (-1.12, 0.85), (-1.12, 1.20), (-1.30, 1.20)]),
    ("Quarry Common", "park", [(1.28, 0.22), (1.48, 0.20), (1.50, 0.52), (1.30, 0.50)]),
    ("Foxglove Meadows", "park", [(-0.90, -0.72), (0.70, -0.72), (0.70, -0.64), (-0.90, -0.66)]),
    ("Alder School", "school", [(1.36, 0.80), (1.54, 0.80), (1.54, 0.98), (1.36, 0.98)]),
    ("Millrace School", "school", [(-1.24, -0.52), (-1.06, -0.52), (-1.06, -0.34), (-1.24, -0.34)]),
    ("Quarry Pond", "pond", [(1.34, 0.30), (1.42, 0.27), (1.46, 0.34), (1.44, 0.43), (1.36, 0.45), (1.32, 0.37)]),
)
CREEK = [(1.36, 0.30), (1.10, 0.12), (0.98, 0.06), (0.94, 0.02)]
RAILWAY = [(x, -0.655 + 0.02 * math.sin(2.0 * x)) for x in np.linspace(-3.5, 3.5, 60)]


def _street_names(words: list[str]) -> list[tuple[str, str]]:
    """(base name, "") pairs in a shuffled order, each base once for streets and once for crossings."""
    return [(w, "") for w in words] + [(w, "Upper ") for w in words] + [(w, "Lower ") for w in words]


def _lay_out_one(plan: Plan, hood: Neighbourhood, rng: np.random.Generator, taken: object) -> None:
    west, south, east, north = hood.box
    cx, cy = (west + east) / 2, (south + north) / 2
    a = math.radians(hood.turn)

    def turned(x: float, y: float) -> tuple[float, float]:
        dx, dy = x - cx, y - cy
        return cx + dx * math.cos(a) - dy * math.sin(a), cy + dx * math.sin(a) + dy * math.cos(a)

    road, depth, width = 52 * FT, hood.lot_depth * FT, hood.lot_width * FT
    block_lots = 9 if hood.lot_width < 100 else 5
    block = block_lots * width
    xs = np.arange(west, east - block + 1e-9, block + road)
    rows = np.arange(south, north - 2 * depth - road / 2 + 1e-9, 2 * depth + road)
    right = xs[-1] + block
    for j, y in enumerate(rows):
        street = _name(taken, STREET_TYPES[int(rng.integers(len(STREET_TYPES)))])
        middle = y + depth  # the street runs between a row of lots south of it and one north of it
        kind = "collector" if j == len(rows) // 2 else "local"
        line = [turned(x, middle) for x in np.linspace(west - road / 2, right + road / 2, 28)]
        plan.streets.append((street, kind, _to_the_highway(line) if kind == "collector" else line))
        phase = f"{hood.name} {'North' if j >= len(rows) / 2 else 'South'}"
        for b, x in enumerate(xs):
            for k in range(block_lots):
                for side in (0, 1):
                    x0, x1 = x + k * width, x + (k + 1) * width
                    y0, y1 = (
                        (middle - road / 2 - depth, middle - road / 2)
                        if side == 0
                        else (middle + road / 2, middle + road / 2 + depth)
                    )
                    y0, y1 = (y0, y1)
                    corners = [turned(x0, y0), turned(x1, y0), turned(x1, y1), turned(x0, y1)]
                    number = 100 * (b + 1) + 4 * k + (2 if side else 1)
                    lot = Lot(corners, number, street, hood, phase, corner=k in (0, block_lots - 1))
                    _surroundings(lot)
                    plan.lots.append(lot)
    for i, x in enumerate(xs):
        street = _name(taken, CROSS_TYPES[int(rng.integers(len(CROSS_TYPES)))])
        line = [turned(x - road / 2, y) for y in np.linspace(south - 0.02, rows[-1] + 2 * depth + road, 20)]
        plan.streets.append((street, "collector" if i == len(xs) // 2 else "local", line))


def _to_the_highway(line: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """A street led on, straight, until it has crossed the highway."""
    (x0, y0), (x1, y1) = line[0], line[-1]
    past = 0.012

    def on(x: float, y: float, slope: float, side: float) -> tuple[float, float]:
        there = 0.18 + 0.04 * math.sin(1.3 * y) + side * past
        return there, y + slope * (there - x)

    slope = (y1 - y0) / (x1 - x0)
    if x0 > 0.18:
        return [on(x0, y0, slope, -1), *line]
    return [*line, on(x1, y1, slope, 1)]


def _name(taken: object, kind: str) -> str:
    word, before = next(taken)  # type: ignore[call-overload]
    return f"{before}{word} {kind}"


def _surroundings(lot: Lot) -> None:
    x, y = lot.centre
    lot.waterfront = abs(y - 0.03 * math.sin(2.2 * x)) < (0.16 if lot.neighbourhood.name == "Heron Reach" else 0.125)
    lot.backs_to_highway = abs(x - (0.18 + 0.04 * math.sin(1.3 * y))) < 0.15


def postal_code(lot: Lot) -> str:
    x, y = lot.centre
    return POSTAL_CODES[0] if y < 0 else POSTAL_CODES[1] if x < 0.24 else POSTAL_CODES[2]


def in_degrees(line: list[tuple[float, float]]) -> list[list[float]]:
    return [list(to_degrees(x, y)) for x, y in line]
