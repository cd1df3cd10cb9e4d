"""A small stand-in for a routing service: ways over the street network that came with the records, turn by turn."""

from __future__ import annotations

import bisect
import itertools
import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import networkx as nx
import shapely
from shapely import STRtree
from shapely.geometry import shape
from shapely.ops import substring

from ..core.facts.places.place import miles
from ..core.phrases import phrase

STREETS = ("street", "main street", "highway")
REACH_MILES = 0.6  # farther from any street a home is not reached by one
STRAIGHT = 30.0  # degrees within which a way goes straight on
Point = tuple[float, float]


@dataclass(frozen=True)
class Stop:
    name: str
    longitude: float
    latitude: float


@dataclass(frozen=True)
class Leg:
    """From one stop to the next. lines: what to do, in words. path: (longitude, latitude). miles: along the streets."""

    to: int
    miles: float
    lines: tuple[str, ...]
    path: tuple[Point, ...]


def _far(a: Point, b: Point) -> float:
    return float(miles(a[1], a[0], [b[1]], [b[0]])[0])


class Network:
    """Streets as a graph: crossings are nodes, the stretches between them edges with their name and length in miles."""

    def __init__(self, features: Iterable[Mapping[str, Any]]) -> None:
        named = [
            (str(f["properties"].get("name") or ""), shape(f["geometry"]))
            for f in features
            if f["properties"].get("kind") in STREETS
        ]
        lines = [line for _, line in named if line.geom_type == "LineString"]
        self.names = [name for name, line in named if line.geom_type == "LineString"]
        self.lines = lines
        self.tree = STRtree(lines)
        self.graph = nx.Graph()
        self._along: list[list[tuple[float, Point]]] = []  # of each street: its nodes by their place along it
        for i, line in enumerate(lines):
            self._along.append([(0.0, _key(line.coords[0])), (line.length, _key(line.coords[-1]))])
            for j in self.tree.query(line, predicate="intersects"):
                if j != i:
                    self._along[i] += [(line.project(p), _key(p.coords[0])) for p in _crossings(line, lines[j])]
            self._along[i].sort()
            for (a, first), (b, second) in itertools.pairwise(self._along[i]):
                self._edge(i, a, first, b, second)

    def _edge(self, street: int, a: float, first: Point, b: float, second: Point) -> None:
        """A stretch of a street between two of its nodes."""
        if first == second:
            return
        inner = list(substring(self.lines[street], a, b).coords)[1:-1]
        path = [first, *((x, y) for x, y, *_ in inner), second]
        length = sum(_far(p, q) for p, q in itertools.pairwise(path))
        held = self.graph.get_edge_data(first, second)
        if held is None or held["miles"] > length:
            self.graph.add_edge(first, second, miles=length, name=self.names[street], path=path)

    def reach(self, stop: Stop) -> Point | None:
        """The node at a home's own street: its stretch is cut where the home stands. None where no street is near."""
        at = shapely.Point(stop.longitude, stop.latitude)
        near = self.tree.query_nearest(at)
        own = [
            i for i in self.tree.query(at.buffer(0.004)) if self.names[i] and self.names[i].lower() in stop.name.lower()
        ]
        pick = min(own, key=lambda i: self.lines[i].distance(at)) if own else int(near[0]) if len(near) else None
        if pick is None:
            return None
        line = self.lines[pick]
        place = line.interpolate(line.project(at))
        if _far((place.x, place.y), (stop.longitude, stop.latitude)) > REACH_MILES:
            return None
        node = _key((place.x, place.y))
        if node not in self.graph:
            along = line.project(at)
            nodes = self._along[pick]
            n = bisect.bisect(nodes, (along, node))
            nodes.insert(n, (along, node))
            for (a, first), (b, second) in itertools.pairwise(nodes[max(0, n - 1) : n + 2]):
                self._edge(pick, a, first, b, second)
        return node if node in self.graph else None

    def tour(self, start: Stop, stops: Sequence[Stop]) -> tuple[list[Leg], list[int]]:
        """Legs through all stops that can be reached, in a short order; and the stops that cannot."""
        found = [self.reach(s) for s in (start, *stops)]
        home = found[0]
        if home is None:
            return [], list(range(len(stops)))
        nodes = {i: n for i, n in enumerate(found) if n is not None}
        far = {n: nx.single_source_dijkstra_path_length(self.graph, n, weight="miles") for n in set(nodes.values())}
        reached = [i for i, n in nodes.items() if n in far[home]]
        left = [i - 1 for i in range(1, len(found)) if i not in reached]
        order = short_order([[far[nodes[a]][nodes[b]] for b in reached] for a in reached])
        legs = []
        for a, b in itertools.pairwise(order):
            way = nx.shortest_path(self.graph, nodes[reached[a]], nodes[reached[b]], weight="miles")
            legs.append(self._leg(way, reached[b] - 1, (start, *stops)[reached[b]]))
        return legs, left

    def _leg(self, way: Sequence[Point], to: int, stop: Stop) -> Leg:
        steps: list[tuple[str, float, list[Point]]] = []
        for a, b in itertools.pairwise(way):
            edge = self.graph[a][b]
            path = edge["path"] if _key(edge["path"][0]) == a else edge["path"][::-1]
            if steps and steps[-1][0] == edge["name"]:
                name, length, held = steps[-1]
                steps[-1] = (name, length + edge["miles"], [*held, *path[1:]])
            else:
                steps.append((edge["name"], edge["miles"], list(path)))
        path = [p for _, _, part in steps for p in part]
        return Leg(to, sum(s[1] for s in steps), tuple(_words(steps, stop)), tuple(path))


def _key(p: Sequence[float]) -> Point:
    return round(p[0], 6), round(p[1], 6)


def _crossings(line: Any, other: Any) -> list[Any]:
    """Points where two streets meet; of a stretch that they share, its ends."""
    out = []
    for part in shapely.get_parts(line.intersection(other)):
        out += [part] if part.geom_type == "Point" else [shapely.Point(c) for c in (part.coords[0], part.coords[-1])]
    return [p for p in out if not p.is_empty]


def short_order(far: Sequence[Sequence[float]]) -> list[int]:
    """An order of visits that begins at 0 and ends anywhere: to the nearest each time, then improved by turning parts round.

    >>> short_order([[0, 1, 9], [1, 0, 3], [9, 3, 0]])
    [0, 1, 2]
    """
    order, rest = [0], set(range(1, len(far)))
    while rest:
        nearest = min(rest, key=lambda j: (far[order[-1]][j], j))
        order.append(nearest)
        rest.remove(nearest)

    def length(o: Sequence[int]) -> float:
        return sum(far[a][b] for a, b in itertools.pairwise(o))

    better = True
    while better:
        better = False
        for i, j in itertools.combinations(range(1, len(order)), 2):
            turned = order[:i] + order[i : j + 1][::-1] + order[j + 1 :]
            if length(turned) < length(order) - 1e-9:
                order, better = turned, True
    return order


def _bearing(a: Point, b: Point) -> float:
    east = (b[0] - a[0]) * math.cos(math.radians(a[1]))
    return math.degrees(math.atan2(east, b[1] - a[1])) % 360


def _words(steps: Sequence[tuple[str, float, list[Point]]], stop: Stop) -> Iterable[str]:
    before: float | None = None
    for name, length, path in steps:
        heading = _bearing(path[0], path[1])
        along = {"street": name or phrase("drive-the-street"), "far": _miles(length)}
        if before is None:
            yield phrase("drive-start", heading=phrase(f"drive-heading-{round(heading / 45) % 8}"), **along)
        else:
            turn = (heading - before + 180) % 360 - 180
            yield phrase(f"drive-{'straight' if abs(turn) < STRAIGHT else 'right' if turn > 0 else 'left'}", **along)
        before = _bearing(path[-2], path[-1])
    side = "drive-there"
    if steps and before is not None:
        end = steps[-1][2][-1]
        if _far(end, (stop.longitude, stop.latitude)) > 0.003:
            gap = (_bearing(end, (stop.longitude, stop.latitude)) - before + 180) % 360 - 180
            side = "drive-there-right" if gap > 0 else "drive-there-left"
    yield phrase(side, home=stop.name)


def _miles(length: float) -> str:
    return f"{length:.1f} mi" if length >= 0.1 else f"{50 * round(length * 5280 / 50):.0f} ft"
