"""The homes that stand on the lots, each with its facts and its true worth."""

from __future__ import annotations

import datetime as dt
import math
from dataclasses import dataclass, field

import numpy as np

from ..core.facts.dates import day_of
from . import truth
from .plan import FT, Lot, Plan, postal_code, to_degrees
from .words import STYLES, TOWN

BASE_LEVEL = 2.0


@dataclass
class House:
    """One home: what the world knows (facts), what it is worth (log_worth on the last day), and its parcel."""

    parcel: str
    kind: str
    address: str
    unit: str
    lot: Lot
    latitude: float
    longitude: float
    facts: dict[str, float]
    style: str
    log_worth: float
    built_day: int | None = None  # day on which a new house can first be sold
    words: dict[str, str] = field(default_factory=dict)
    renovations: list[tuple[int, int]] = field(default_factory=list)  # day, condition from then on
    on_the_roll: float | None = None  # what the tax roll of the last year says
    log_land: float | None = None  # of its lot without a house, on the last day; None for a unit

    def condition_at(self, day: int) -> int:
        now = int(self.facts["condition"])
        for when, condition in self.renovations:
            if day >= when:
                now = condition
        return now

    def log_worth_at(self, day: int) -> float:
        """Log worth as it stood on a day, renovations included, trend and season apart."""
        return self.log_worth + truth.CONDITION_STEP * (self.condition_at(day) - self.facts["condition"])

    @property
    def postal_code(self) -> str:
        return postal_code(self.lot)

    @property
    def city(self) -> str:
        return TOWN


def build(plan: Plan, rng: np.random.Generator) -> list[House]:
    """A home on every lot, several in condominium buildings and rows, and the open land; parcel numbers by block."""
    houses: list[House] = []
    buildings = _buildings(plan, rng)
    for i, lot in enumerate(plan.lots):
        base = f"{1 + i // 1000:02d}-{i % 1000:04d}"
        if i in buildings:
            houses += _units(lot, base, buildings[i], rng)
            continue
        hood = lot.neighbourhood
        draw = rng.random()
        if draw < hood.attached:
            houses.append(_house(lot, base, "attached", rng))
        elif draw < hood.attached + hood.two_family:
            houses.append(_house(lot, base, "small_multi_family", rng))
        else:
            houses.append(_house(lot, base, "detached", rng))
    return houses + acreage(plan, rng)


def _buildings(plan: Plan, rng: np.random.Generator) -> dict[int, int]:
    """Lot index → number of units."""
    out: dict[int, int] = {}
    hoods = {lot.neighbourhood.name: lot.neighbourhood for lot in plan.lots}
    for name, hood in hoods.items():
        lots = [i for i, lot in enumerate(plan.lots) if lot.neighbourhood.name == name and lot.corner]
        for i in rng.choice(lots, hood.condo_buildings, replace=False):
            out[int(i)] = int(rng.integers(12, 37))
    return out


def _house(lot: Lot, parcel: str, kind: str, rng: np.random.Generator) -> House:
    hood = lot.neighbourhood
    year = _year(lot, rng)
    scale = {"detached": 1.0, "attached": 0.78, "small_multi_family": 1.45}[kind]
    median, spread = hood.area
    area = float(np.clip(10 * round(median * scale * math.exp(rng.normal(0, spread)) / 10), 560, 6800))
    stories = float(rng.choice([1.0, 1.5, 2.0], p=[0.52, 0.18, 0.30] if year < 1990 else [0.28, 0.10, 0.62]))
    if kind != "detached":
        stories = 2.0
    beds = float(np.clip(round(area / 620 + rng.normal(0.4, 0.6)), 1, 6))
    full = float(np.clip(round(area / 1150 + (year - 1950) / 60 + rng.normal(0, 0.45)), 1, 4))
    half = float(rng.random() < (0.62 if stories >= 1.5 else 0.22))
    garage = (
        float(np.clip(round((year - 1925) / 32 + rng.normal(0, 0.7)), 0, 3))
        if kind == "detached"
        else float(rng.random() < 0.5)
    )
    share = 0.55 if kind == "attached" else 1.0
    width = math.dist(lot.corners[0], lot.corners[1]) / FT
    depth = math.dist(lot.corners[1], lot.corners[2]) / FT
    lot_area = float(round(width * depth * share * math.exp(rng.normal(0, 0.07)) / 10) * 10)
    basement = float(rng.choice([0, 1, 2], p=[0.25, 0.35, 0.40] if year < 2000 else [0.10, 0.30, 0.60]))
    below = float(10 * round(area / stories * rng.uniform(0.35, 0.85) / 10)) if basement == 2 else 0.0
    facts = {
        "living_area": area, "bedrooms_total": beds, "bathrooms_full": full, "bathrooms_half": half,
        "garage_spaces": garage, "lot_size_square_feet": lot_area, "year_built": float(year), "stories": stories,
        "below_grade_finished_area": below,
        "fireplaces_total": float(rng.random() < 0.42) + float(rng.random() < 0.06),
        "pool_private_yn": float(rng.random() < (0.13 if lot_area > 9000 else 0.04) and kind == "detached"),
        "waterfront_yn": float(lot.waterfront),
        "backs_to_highway": float(lot.backs_to_highway),
        "condition": float(np.clip(round(3 + rng.normal(0, 0.9) + (0.4 if year < 1960 else -0.6 if year > 2005 else 0)), 1, 6)),
        "units": 2.0 if kind == "small_multi_family" else 1.0,
    }  # fmt: skip
    words = {"basement": ("None", "Full, unfinished", "Finished")[int(basement)], **_finishes(year, rng)}
    return _placed(lot, parcel, kind, "", facts, rng, words)


def _finishes(year: int, rng: np.random.Generator) -> dict[str, str]:
    """What the house is made of and heated with, by its age."""
    old = year < 1950
    return {
        "cladding": str(rng.choice(["Brick", "Clapboard", "Shingle", "Stucco", "Fibre Cement"], p=[0.35, 0.4, 0.1, 0.1, 0.05] if old else [0.2, 0.3, 0.05, 0.15, 0.3])),
        "roof": str(rng.choice(["Gable", "Hip", "Gambrel"], p=[0.62, 0.3, 0.08])),
        "heating": str(rng.choice(["Forced Air", "Radiator", "Heat Pump"], p=[0.45, 0.5, 0.05] if old else [0.72, 0.06, 0.22])),
        "cooling": str(rng.choice(["Central Air", "Window Unit", "None"], p=[0.35, 0.4, 0.25] if old else [0.8, 0.08, 0.12])),
        "flooring": str(rng.choice(["Hardwood", "Carpet", "Tile", "Laminate"], p=[0.6, 0.2, 0.1, 0.1] if old else [0.3, 0.35, 0.15, 0.2])),
    }  # fmt: skip


def acreage(plan: Plan, rng: np.random.Generator) -> list[House]:
    """Open land at the edge of town, by the acre."""
    out = []
    for i, lot in enumerate(plan.acres):
        x, y = lot.centre
        lon, lat = to_degrees(x, y)
        acres = math.dist(lot.corners[0], lot.corners[1]) * math.dist(lot.corners[1], lot.corners[2]) * 640
        worth = truth.ACRE_LOG_LEVEL + truth.ACRE_ELASTICITY * math.log(acres) + rng.normal(0, 0.1)
        facts = {"lot_size_square_feet": float(round(acres * 43_560, -2)), "condition": 3.0, "waterfront_yn": 0.0}
        parcel = f"90-{i:04d}"
        out.append(House(parcel, "acreage", f"{lot.number} {lot.street}", "", lot, lat, lon, facts, "", worth))
    return out


def _year(lot: Lot, rng: np.random.Generator) -> int:
    first, last = lot.neighbourhood.years
    if lot.neighbourhood.name == "Foxglove Meadow":
        # built outward from the west, street by street
        west, _, east, _ = lot.neighbourhood.box
        done = (lot.centre[0] - west) / (east - west)
        return int(np.clip(round(first + done * (last - first) + rng.normal(0, 1.0)), first, last))
    if rng.random() < 0.03:
        return int(rng.integers(last, 2018))
    return int(rng.integers(first, last + 1))


def _units(lot: Lot, base: str, n: int, rng: np.random.Generator) -> list[House]:
    year = int(rng.integers(1972, 2018))
    out = []
    per_floor = 4 if n <= 20 else 6
    for k in range(n):
        floor, door = 1 + k // per_floor, 1 + k % per_floor
        area = float(10 * round(rng.choice([640, 820, 980, 1240]) * math.exp(rng.normal(0, 0.06)) / 10))
        facts = {
            "living_area": area, "bedrooms_total": 1.0 + float(area > 760) + float(area > 1150),
            "bathrooms_full": 1.0 + float(area > 900), "bathrooms_half": float(rng.random() < 0.2),
            "garage_spaces": float(rng.random() < 0.6), "lot_size_square_feet": 0.0, "year_built": float(year),
            "stories": 1.0, "below_grade_finished_area": 0.0, "fireplaces_total": 0.0, "pool_private_yn": 0.0,
            "waterfront_yn": float(lot.waterfront), "backs_to_highway": float(lot.backs_to_highway),
            "condition": float(np.clip(round(3 + rng.normal(0, 0.8)), 1, 6)), "units": 1.0, "floor": float(floor),
        }  # fmt: skip
        unit = f"{floor}{door:02d}"
        out.append(
            _placed(
                lot,
                f"{base}-{unit}",
                "condominium",
                unit,
                facts,
                rng,
                {"building": f"The {lot.street.split()[-2]} House", "dues": "yes", **_finishes(year, rng)},
            )
        )
    return out


def _placed(
    lot: Lot,
    parcel: str,
    kind: str,
    unit: str,
    facts: dict[str, float],
    rng: np.random.Generator,
    words: dict[str, str],
) -> House:
    x, y = lot.centre
    lon, lat = to_degrees(x + rng.normal(0, 0.0012), y + rng.normal(0, 0.0012)) if not unit else to_degrees(x, y)
    place = BASE_LEVEL + lot.neighbourhood.level + _spot(x, y) + rng.normal(0, truth.HOME_NOISE)
    worth = {**facts, "lot_size_square_feet": facts["lot_size_square_feet"] or 1500.0}
    kind_level = {"detached": 0.0, "attached": -0.05, "condominium": -0.06, "small_multi_family": -0.10}[kind]
    log_worth = truth.log_worth(worth, place + kind_level)
    style = (
        str(rng.choice(STYLES[facts["stories"]]))
        if kind == "detached"
        else "Townhouse"
        if kind == "attached"
        else "Contemporary"
    )
    house = House(parcel, kind, f"{lot.number} {lot.street}", unit, lot, lat, lon, facts, style, log_worth, None, words)
    if not unit:
        house.log_land = truth.log_land_worth(facts["lot_size_square_feet"], place)
    if lot.neighbourhood.name == "Foxglove Meadow" and kind != "condominium":
        year = int(facts["year_built"])
        house.built_day = day_of(dt.date(year, 1, 1)) + int(rng.integers(60, 340))
    return house


def _spot(x: float, y: float) -> float:
    """How the place within a neighbourhood moves its worth: smooth, up to a few percent."""
    return 0.035 * math.sin(3.1 * x + 1.2) * math.cos(2.7 * y - 0.4) + 0.02 * math.sin(6.3 * y)
