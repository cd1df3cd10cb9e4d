"""Which of a file's places are to be believed: judged from the first row on against the places that are held already."""

from __future__ import annotations

import math
import statistics
from collections.abc import Iterable, Sequence

import numpy as np

CELLS_PER_DEGREE = 4
FAR_CELLS = 6  # 1.5 degrees, some 100 miles
ENOUGH = 20  # rows of a file that tell where it is, where nothing is held yet
ZERO_DEGREES = 0.01

AT_ZERO = "place at 0, 0"
SWAPPED = "latitude and longitude look swapped"
FAR = "place far from everything held"
ASKED = ("", "swap", "new")  # put right what looks swapped; believe what is far: a new area

Cell = tuple[int, int]
Known = Sequence[object]


def cell_of(latitude: float, longitude: float) -> Cell:
    return math.floor(latitude * CELLS_PER_DEGREE), math.floor(longitude * CELLS_PER_DEGREE)


class Places:
    """held: the cells, a quarter of a degree wide, in which there are places already."""

    def __init__(self, held: Iterable[Cell], asked: str = "") -> None:
        self.asked = asked
        self._near: set[Cell] = set()
        for cell in held:
            self._take_in(cell)
        self._learnt = bool(self._near)

    def _take_in(self, cell: Cell) -> None:
        reach = range(-FAR_CELLS, FAR_CELLS + 1)
        self._near |= {(cell[0] + i, cell[1] + j) for i in reach for j in reach}

    def learn(self, latitudes: Known, longitudes: Known) -> None:
        """Where nothing is held: where the file is, from its first rows; too few tell nothing."""
        if self._learnt:
            return
        self._learnt = True
        known = _known(latitudes, longitudes)
        if len(known) >= ENOUGH:
            self._take_in(cell_of(*(statistics.median(x) for x in zip(*(p for _, p in known), strict=True))))

    def doubts(self, latitudes: Known, longitudes: Known) -> dict[int, str]:
        """Position → why a place is not to be believed."""
        out: dict[int, str] = {}
        for n in self._to_look_at(latitudes, longitudes):
            lat, lon = latitudes[n], longitudes[n]
            assert isinstance(lat, float) and isinstance(lon, float)
            if abs(lat) < ZERO_DEGREES and abs(lon) < ZERO_DEGREES:
                out[n] = AT_ZERO
            elif not self._near or (cell_of(lat, lon) in self._near and abs(lat) <= 90):
                continue
            elif cell_of(lon, lat) in self._near:
                out[n] = SWAPPED
            else:
                out[n] = FAR
        return out

    def _to_look_at(self, latitudes: Known, longitudes: Known) -> list[int]:
        """Positions of the known places that may be doubted: those in no cell that is near what is held, or at zero. Few of
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
            elif why == FAR and self.asked == "new":
                del doubts[n]
        return doubts


def _known(latitudes: Known, longitudes: Known) -> list[tuple[int, tuple[float, float]]]:
    pairs = enumerate(zip(latitudes, longitudes, strict=True))
    return [(n, (lat, lon)) for n, (lat, lon) in pairs if isinstance(lat, float) and isinstance(lon, float)]
