"""Many listings from few: the town's own listings set down again and again beside it, for benchmarks.

Each copy of the town lies five miles on, with its own keys, city, prices and areas moved a little, so that no two rows
are alike. The same seed gives the same file.
"""

from __future__ import annotations

import csv
from pathlib import Path

import numpy as np

SPACING_DEGREES = 0.09
ACROSS = 14
_PRICES = ("ListPrice", "OriginalListPrice", "ClosePrice")


def write_crowd(listings: Path, out: Path, rows: int, seed: int = 1847) -> Path:
    """Write `rows` listings to `out`, made from the town's listings file."""
    rng = np.random.default_rng(seed)
    with listings.open(newline="", encoding="utf-8") as f:
        reader = csv.reader(f)
        head = next(reader)
        town = list(reader)
    at = {name: i for i, name in enumerate(head)}
    key, parcel, city, lat, lon, area = (
        at[n] for n in ("ListingId", "ParcelNumber", "City", "Latitude", "Longitude", "LivingArea")
    )
    prices = [at[n] for n in _PRICES]
    with out.open("w", newline="", encoding="utf-8") as f:
        writer = csv.writer(f)
        writer.writerow(head)
        for copy in range(-(-rows // len(town))):
            north, east = divmod(copy, ACROSS)
            level, grow = rng.uniform(0.7, 1.4), rng.uniform(0.97, 1.03, len(town))
            made = []
            for row, g in zip(town[: rows - copy * len(town)], grow, strict=False):
                new = row.copy()
                new[key] = f"{row[key]}-{copy}"
                new[parcel] = f"{copy:03d}-{row[parcel]}"
                new[city] = f"{row[city]} {copy}"
                new[lat] = f"{float(row[lat]) + north * SPACING_DEGREES:.6f}"
                new[lon] = f"{float(row[lon]) + east * SPACING_DEGREES:.6f}"
                if row[area]:
                    new[area] = f"{float(row[area]) * g:.0f}"
                for i in prices:
                    if row[i]:
                        new[i] = f"{float(row[i]) * level * g:.0f}"
                made.append(new)
            writer.writerows(made)
    return out
