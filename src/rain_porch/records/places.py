"""Which of a file's places are to be believed: judged against its neighbours in the file and what is held already.

Two passes. While the file is read, what stands at 0, 0 and what looks swapped is told (a swapped place may be put right at
once). When all of it is staged, each new place is judged: it is believed where enough rows of its own postal code or city lie
around it, or, where there are few of these, enough rows of the file or places that are held; whichever way the file is sorted.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

CELLS_PER_DEGREE = 4
FAR_CELLS = 6  # 1.5 degrees, some 100 miles: around what is held
GROUP_CELLS = 2  # half a degree: around those of the same postal code or city
NEW_AREA_CELLS = 60  # 15 degrees: a new area lies no farther from all that is held, else it is asked about
ENOUGH = 20  # rows that lie together make an area of their own
GROUP_ENOUGH = 8  # rows of one postal code or city that tell where it is
TOGETHER = 3  # rows of a chunk in one cell that tell where the file is
ZERO_DEGREES = 0.01

AT_ZERO = "place at 0, 0"
SWAPPED = "latitude and longitude look swapped"
FAR = "place far from everything held"
APART = "place far from others of its city or postal code"
ASKED = ("", "swap", "new")  # put right what looks swapped; believe what is far: a new area

Cell = tuple[int, int]
Known = Sequence[object]
Ints = NDArray[np.int64]


def cell_of(latitude: float, longitude: float) -> Cell:
    return math.floor(latitude * CELLS_PER_DEGREE), math.floor(longitude * CELLS_PER_DEGREE)


class Places:
    """held: the cells, a quarter of a degree wide, in which there are places already."""

    def __init__(self, held: Iterable[Cell], asked: str = "") -> None:
        self.asked = asked
        self.held = {*held}
        self._near: set[Cell] = set()
        for cell in self.held:
            self._take_in(cell)
        self._taken: set[Cell] = set(self.held)

    def _take_in(self, cell: Cell) -> None:
        reach = range(-FAR_CELLS, FAR_CELLS + 1)
        self._near |= {(cell[0] + i, cell[1] + j) for i in reach for j in reach}

    def learn(self, latitudes: Known, longitudes: Known) -> None:
        """Where the file is: the cells in which several of these rows lie. Where much is held, that tells."""
        if self.held:
            return
        places = np.array([latitudes, longitudes], dtype=np.float64)
        cells = np.floor(places[:, np.isfinite(places).all(axis=0)] * CELLS_PER_DEGREE).astype(np.int64)
        if not cells.shape[1]:
            return
        distinct, counts = np.unique(cells, axis=1, return_counts=True)
        usual = max(TOGETHER, ENOUGH if cells.shape[1] >= 10 * ENOUGH else 0)
        for lat, lon in distinct[:, counts >= usual].T.tolist():
            if (lat, lon) not in self._taken and (lon, lat) not in self._taken:
                self._taken.add((lat, lon))
                self._take_in((lat, lon))

    def doubts(self, latitudes: Known, longitudes: Known) -> dict[int, str]:
        """Position → why a place is not to be believed, as far as the rows read so far tell."""
        out: dict[int, str] = {}
        for n in self._to_look_at(latitudes, longitudes):
            lat, lon = latitudes[n], longitudes[n]
            assert isinstance(lat, float) and isinstance(lon, float)
            if abs(lat) < ZERO_DEGREES and abs(lon) < ZERO_DEGREES:
                out[n] = AT_ZERO
            elif cell_of(lon, lat) in self._near and not (cell_of(lat, lon) in self._near and abs(lat) <= 90):
                out[n] = SWAPPED
        return out

    def _to_look_at(self, latitudes: Known, longitudes: Known) -> list[int]:
        """Positions of the known places that may be doubted: those in no cell that is near what is known, or at zero. Few of
        many rows lie elsewhere, so the cells are looked up, not the rows."""
        places = np.array([latitudes, longitudes], dtype=np.float64)  # None becomes NaN
        known = np.flatnonzero(np.isfinite(places).all(axis=0))
        cells = np.floor(places[:, known] * CELLS_PER_DEGREE).astype(np.int64)
        distinct, which = np.unique(cells[0] * 10_000 + cells[1], return_inverse=True)
        first = np.zeros(len(distinct), dtype=np.int64)
        first[which] = np.arange(len(known))
        odd = np.array([(int(cells[0, k]), int(cells[1, k])) not in self._near for k in first], dtype=np.bool_)
        zero = (np.abs(places[:, known]) < ZERO_DEGREES).all(axis=0)
        return known[odd[which] | zero].tolist() if known.size else []

    def put_right(self, latitudes: list[object], longitudes: list[object]) -> dict[int, str]:
        """What is left to doubt after doing what was asked: swapped places are swapped back in the lists themselves."""
        doubts = self.doubts(latitudes, longitudes)
        for n, why in list(doubts.items()):
            if why == SWAPPED and self.asked == "swap":
                latitudes[n], longitudes[n] = longitudes[n], latitudes[n]
                del doubts[n]
        return doubts

    def judge(self, latitudes: NDArray[np.float64], longitudes: NDArray[np.float64], groups: Ints) -> dict[int, str]:
        """Position → why a place of the whole file is not to be believed. groups: a number for each postal code or city, −1
        where neither is known."""
        n = len(latitudes)
        lat, lon = (np.floor(x * CELLS_PER_DEGREE).astype(np.int64) for x in (latitudes, longitudes))
        cells = lat * 10_000 + lon
        distinct, which, counts = np.unique(cells, return_inverse=True, return_counts=True)
        around = _sums(distinct, counts, FAR_CELLS)
        near_held = np.array(
            [(int(c + 5_000) // 10_000, int((c + 5_000) % 10_000) - 5_000) in self._near for c in distinct]
        )
        if not self.held:
            near_held[:] = False
        least = ENOUGH if self.held else min(ENOUGH, max(2, n // 50)) if n >= ENOUGH else 0
        believed = near_held | ((around >= least) & self._within_reach(distinct))
        out = {} if self.asked == "new" else {int(k): FAR for k in np.flatnonzero(~believed[which])}
        for k in np.flatnonzero(self._apart(cells, groups)):
            out.setdefault(int(k), APART)
        return out

    def _within_reach(self, cells: Ints) -> NDArray[np.bool_]:
        """Whether each cell is no farther from what is held than a new area may be."""
        if not self.held:
            return np.ones(len(cells), dtype=np.bool_)
        held = np.array(sorted(self.held), dtype=np.int64)
        lat, lon = (cells + 5_000) // 10_000, (cells + 5_000) % 10_000 - 5_000
        out = np.zeros(len(cells), dtype=np.bool_)
        for k in range(len(cells)):
            out[k] = (np.maximum(np.abs(held[:, 0] - lat[k]), np.abs(held[:, 1] - lon[k])) <= NEW_AREA_CELLS).any()
        return out

    def _apart(self, cells: Ints, groups: Ints) -> NDArray[np.bool_]:
        """Rows around which too few of their own group lie, where the group is large enough to tell. A name that stands for
        several towns has several middles."""
        out = np.zeros(len(cells), dtype=np.bool_)
        order = np.lexsort((cells, groups))
        bounds = (
            np.flatnonzero(np.diff(groups[order], prepend=groups[order][0] - 1))
            if len(order)
            else np.array([], dtype=np.int64)
        )
        for start, end in zip(bounds, [*bounds[1:], len(order)], strict=True):
            rows = order[start:end]
            if groups[rows[0]] < 0 or len(rows) < GROUP_ENOUGH:
                continue
            distinct, which, counts = np.unique(cells[rows], return_inverse=True, return_counts=True)
            if len(distinct) == 1:
                continue
            support = _sums(distinct, counts, GROUP_CELLS)
            out[rows] = (support < max(TOGETHER, 0.02 * len(rows)))[which]
        return out


def _sums(cells: Ints, counts: Ints, reach: int) -> Ints:
    """For each cell how many rows lie in it and within so many cells of it. cells: latitude × 10,000 + longitude, sorted."""
    held = dict(zip(cells.tolist(), counts.tolist(), strict=True))
    if len(cells) < 400:
        lat, lon = (cells + 5_000) // 10_000, (cells + 5_000) % 10_000
        close = (np.abs(lat[:, None] - lat[None, :]) <= reach) & (np.abs(lon[:, None] - lon[None, :]) <= reach)
        return np.asarray(close @ counts)
    steps = [i * 10_000 + j for i in range(-reach, reach + 1) for j in range(-reach, reach + 1)]
    return np.array([sum(held.get(cell + step, 0) for step in steps) for cell in held], dtype=np.int64)
