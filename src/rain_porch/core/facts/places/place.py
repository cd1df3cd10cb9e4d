"""Distance on the ellipsoid, radius, membership of areas, fences.

Coordinates are degrees on WGS-84; distances are statute miles of 1,609.344 m.
"""

from __future__ import annotations

from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

METRES_PER_MILE = 1609.344
_A = 6378137.0
_F = 1 / 298.257223563
_B = _A * (1 - _F)
_E2 = _F * (2 - _F)

MILES_NORTH, MILES_EAST = 69.0, 69.17  # of a degree, about; eastward at the equator

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]


def on_a_plane(lats: Floats, lons: Floats, about: float) -> Floats:
    """Places in miles north and east, (n, 2), on a plane that is true to half a percent near the latitude `about`: to find
    what lies near what."""
    return np.column_stack([lats * MILES_NORTH, lons * (MILES_EAST * np.cos(np.radians(about)))])


def miles(lat1: float, lon1: float, lat2: Any, lon2: Any) -> Floats:
    """Geodesic distance in miles from one point to many, shape (n,). Unknown (NaN) places give NaN.

    Vincenty's inverse formula on WGS-84 (T. Vincenty, Survey Review 176, 1975), good to a millimetre at the
    distances that matter here. Points nearly opposite on the globe, where it fails, give NaN.
    """
    la2 = np.radians(np.atleast_1d(np.asarray(lat2, dtype=np.float64)))
    dlon = np.radians(np.atleast_1d(np.asarray(lon2, dtype=np.float64)) - lon1)
    dlon = (dlon + np.pi) % (2 * np.pi) - np.pi
    u1 = np.arctan((1 - _F) * np.tan(np.radians(lat1)))
    u2 = np.arctan((1 - _F) * np.tan(la2))
    su1, cu1, su2, cu2 = np.sin(u1), np.cos(u1), np.sin(u2), np.cos(u2)
    lam = dlon.copy()
    with np.errstate(invalid="ignore", divide="ignore"):
        for _ in range(12):
            sl, cl = np.sin(lam), np.cos(lam)
            sin_s = np.hypot(cu2 * sl, cu1 * su2 - su1 * cu2 * cl)
            cos_s = su1 * su2 + cu1 * cu2 * cl
            sig = np.arctan2(sin_s, cos_s)
            sin_a = np.where(sin_s == 0, 0.0, cu1 * cu2 * sl / np.where(sin_s == 0, 1.0, sin_s))
            cos2a = 1 - sin_a**2
            c2m = np.where(cos2a == 0, 0.0, cos_s - 2 * su1 * su2 / np.where(cos2a == 0, 1.0, cos2a))
            c = _F / 16 * cos2a * (4 + _F * (4 - 3 * cos2a))
            new = dlon + (1 - c) * _F * sin_a * (sig + c * sin_s * (c2m + c * cos_s * (2 * c2m**2 - 1)))
            done = np.nanmax(np.abs(new - lam), initial=0.0) < 1e-13
            lam = new
            if done:
                break
        k = cos2a * (_A**2 - _B**2) / _B**2
        a1 = 1 + k / 16384 * (4096 + k * (-768 + k * (320 - 175 * k)))
        b1 = k / 1024 * (256 + k * (-128 + k * (74 - 47 * k)))
        inner = cos_s * (2 * c2m**2 - 1) - b1 / 6 * c2m * (4 * sin_s**2 - 3) * (4 * c2m**2 - 3)
        metres = _B * a1 * (sig - b1 * sin_s * (c2m + b1 / 4 * inner))
    return np.where(np.abs(lam) > np.pi, np.nan, metres / METRES_PER_MILE)


def near_miles(lat1: float | Floats, lon1: float | Floats, lat2: Floats, lon2: Floats) -> Floats:
    """Distance in miles by the middle-latitude formula: within 0.01 % up to 25 miles, one pass, for weights and prefilters."""
    mid = np.radians((lat1 + lat2) / 2)
    w2 = 1 - _E2 * np.sin(mid) ** 2
    north = np.radians(lat2 - lat1) * _A * (1 - _E2) / (w2 * np.sqrt(w2))
    dlon = (lon2 - lon1 + 180.0) % 360.0 - 180.0
    east = np.radians(dlon) * _A * np.cos(mid) / np.sqrt(w2)
    out: Floats = np.hypot(north, east) / METRES_PER_MILE
    return out


def in_box(lat: float, lon: float, radius_miles: float, lats: Floats, lons: Floats) -> Bools:
    """Which of the points lie in a box around the circle: all within the radius, and some beyond. Unknown places do not."""
    dlat = np.degrees(radius_miles * METRES_PER_MILE / (_A * (1 - _E2))) * 1.01
    dlon = min(180.0, dlat / max(0.01, np.cos(np.radians(min(89.0, abs(lat) + dlat)))))
    across = np.abs(lons - lon)
    return np.asarray((np.abs(lats - lat) <= dlat) & ((across <= dlon) | (across >= 360 - dlon)))


def within_radius(lat: float, lon: float, radius_miles: float, lats: Floats, lons: Floats) -> Bools:
    """Which of the points lie within the radius, its edge included. Unknown places do not.

    A box first, then the middle-latitude formula, then the geodesic for the few near the edge.
    """
    inside = np.zeros(len(lats), dtype=np.bool_)
    rows = np.flatnonzero(in_box(lat, lon, radius_miles, lats, lons))
    if rows.size:
        rough = near_miles(lat, lon, lats[rows], lons[rows])
        sure = rough <= radius_miles * 0.999
        edge = ~sure & (rough <= radius_miles * 1.001)
        if radius_miles > 60:
            edge = np.ones(rows.size, dtype=np.bool_)
        if edge.any():
            exact = miles(lat, lon, lats[rows][edge], lons[rows][edge])
            sure[edge] = exact <= radius_miles * (1 + 1e-12)
        inside[rows] = sure
    return inside


def in_area(area: Any, lats: Floats, lons: Floats) -> Bools:
    """Which points lie in a shapely (multi)polygon; holes are out, the edge is in. Unknown places are out."""
    shapely.prepare(area)
    inside = np.zeros(len(lats), dtype=np.bool_)
    west, south, east, north = shapely.bounds(area)
    rows = np.flatnonzero((lats >= south) & (lats <= north) & (lons >= west) & (lons <= east))
    if rows.size:
        inside[rows] = shapely.intersects_xy(area, lons[rows], lats[rows])
    return inside


def across_fence(fence: Any, lat: float, lon: float, lats: Floats, lons: Floats) -> Bools:
    """Which points are across the fence: the straight segment from (lat, lon) to them crosses or touches its line."""
    ends = np.empty((len(lats), 2, 2))
    ends[:, 0] = (lon, lat)
    ends[:, 1, 0] = np.nan_to_num(lons, nan=lon)
    ends[:, 1, 1] = np.nan_to_num(lats, nan=lat)
    out: Bools = shapely.intersects(shapely.linestrings(ends), fence)
    return out & np.isfinite(lats) & np.isfinite(lons)


def feet_to(shape: Any, lat: float, lon: float) -> float:
    """Distance in feet from a point to a shapely geometry nearby, 0 inside it; on the plane that touches the point.

    Good to 0.1 % within a few miles.
    """
    mid = np.radians(lat)
    w2 = 1 - _E2 * np.sin(mid) ** 2
    north = np.radians(1.0) * _A * (1 - _E2) / (w2 * np.sqrt(w2))
    east = np.radians(1.0) * _A * np.cos(mid) / np.sqrt(w2)
    flat = shapely.transform(shape, lambda c: (c - [lon, lat]) * [east, north])
    return float(shapely.distance(flat, shapely.Point(0, 0))) / METRES_PER_MILE * 5280
