"""Ten years of the market: who lists when and for how much, what sells, what fails, what is relisted, and the deeds."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

import numpy as np

from ..core.facts.dates import day_of
from . import truth
from .houses import House
from .words import BUILDERS, FIRST, LAST, OFFICES

FIRST_DAY = day_of(truth.FIRST_DAY)
LAST_DAY = day_of(truth.LAST_DAY)
# share of list over the year in which homes come to the market, by month
_MONTHS = np.array([0.6, 0.8, 1.2, 1.4, 1.5, 1.4, 1.2, 1.1, 0.9, 0.8, 0.6, 0.5])


@dataclass
class Listing:
    """One listing as a feed would carry it at the end of the records. Days since 1970; None where it never came."""

    house: House
    listing_id: str
    status: str
    start: int
    original: float
    price: float
    contract: int | None = None
    close: int | None = None
    off: int | None = None
    close_price: float | None = None
    concessions: float | None = None
    condition_sale: str = "Standard"
    new_construction: bool = False
    builder: str = ""
    lease: bool = False
    land: bool = False
    agent: str = ""
    office: str = ""
    events: list[tuple[int, str, str, str]] = field(default_factory=list)


@dataclass
class Transfer:
    parcel: str
    sale: int
    recorded: int
    price: float
    deed: str
    grantor: str
    grantee: str
    parcels: int = 1


@dataclass
class Trade:
    listings: list[Listing] = field(default_factory=list)
    transfers: list[Transfer] = field(default_factory=list)


def worth_at(house: House, day: int) -> float:
    return math.exp(house.log_worth_at(day) + float(truth.trend(day)) + float(truth.season(day)))


class Market:
    """Runs every home through the years. All chance comes from one generator, so that a seed gives one town."""

    def __init__(
        self,
        rng: np.random.Generator,
        first_day: int = FIRST_DAY,
        last_day: int = LAST_DAY,
        sale_noise: float = truth.SALE_NOISE,
    ) -> None:
        self.rng, self.sale_noise = rng, sale_noise
        self.first, self.last = first_day, last_day
        self.out = Trade()
        self.number = 100_000
        days = np.arange(first_day - 400, last_day + 1)
        self._level = truth.trend(days) + truth.season(days)
        self._offset = first_day - 400

    def worth(self, house: House, day: int) -> float:
        return self._at(house.log_worth_at(day), day)

    def _at(self, log_worth: float, day: int) -> float:
        """Dollars on a day of what is worth so much on the last one."""
        return math.exp(log_worth + float(self._level[min(max(day, self._offset), self.last) - self._offset]))

    def run(self, houses: list[House]) -> Trade:
        for house in houses:
            self._years_of(house)
        self.out.listings.sort(key=lambda x: (x.start, x.listing_id))
        for i, listing in enumerate(self.out.listings):
            listing.listing_id = f"BF{self.number + i}"
        self.out.transfers.sort(key=lambda t: (t.recorded, t.parcel))
        return self.out

    def _years_of(self, house: House) -> None:
        rng = self.rng
        day = self.first - 200
        if house.built_day is not None and house.built_day > self.first - 200:
            self._as_land(house)
            if house.built_day > self.last:
                return
            day = self._first_sale(house)
        rate = house.lot.neighbourhood.turnover * (1.35 if house.kind == "condominium" else 1.0) / 365
        while True:
            day += int(rng.exponential(1 / rate))
            if day >= self.last:
                return
            month = int((np.datetime64("1970-01-01") + day).astype("datetime64[M]").astype(int) % 12)
            day += int(rng.integers(0, 45)) if rng.random() > _MONTHS[month] / 1.5 else 0
            if day >= self.last:
                return
            chance = rng.random()
            if chance < 0.07:
                day = self._deed_only(house, day)
            elif chance < 0.10:
                self._family(house, day)
            elif chance < 0.13 and house.kind != "acreage":
                self._lease(house, day)
            elif chance < 0.155 and self._weak_year(day):
                day = self._bank_sale(house, day)
            else:
                day = self._offered(house, day)

    def _weak_year(self, day: int) -> bool:
        return float(truth.trend(day) - truth.trend(day - 365)) < 0.03

    # --- ordinary listings

    def _offered(self, house: House, day: int) -> int:
        """A home comes to market, perhaps several times over, until it sells or its owner gives up; returns the day after."""
        rng = self.rng
        over = float(np.clip(rng.normal(0.025, 0.055), -0.10, 0.30))
        for attempt in range(4):
            listing = self._new_listing(house, day, self.worth(house, day) * math.exp(over))
            end = self._course(listing)
            if listing.close is not None and house.condition_at(day) >= 5 and rng.random() < 0.4:
                done = listing.close + int(rng.integers(70, 190))  # bought to be done up and sold on
                house.renovations.append((done, 2))
                return self._offered(house, done + 5) if done + 5 < self.last else self.last
            if listing.close is not None or listing.off is None:
                return (listing.close or end) + int(rng.integers(300, 500))
            if attempt == 3 or rng.random() < 0.38:
                return end + int(rng.integers(200, 700))
            day = end + int(rng.integers(3, 85)) if rng.random() < 0.8 else end + int(rng.integers(95, 200))
            if day >= self.last:
                return day
            over = math.log(listing.price / self.worth(house, day)) - float(rng.uniform(0.0, 0.06))
        return day

    def _new_listing(self, house: House, day: int, price: float) -> Listing:
        rng = self.rng
        step = 1000 if price < 800_000 else 5000
        shown = step * round(price / step) - (100 if rng.random() < 0.6 else 0)
        who = f"{FIRST[int(rng.integers(len(FIRST)))]} {LAST[int(rng.integers(len(LAST)))]}"
        listing = Listing(
            house,
            "",
            "Active",
            day,
            float(shown),
            float(shown),
            agent=who,
            office=OFFICES[int(rng.integers(len(OFFICES)))],
        )
        listing.events.append((day, "New Listing", "", f"{shown:.0f}"))
        self.out.listings.append(listing)
        return listing

    def _course(self, listing: Listing) -> int:
        """Step through the weeks until contract, failure or the end of the records. Overpriced homes wait longer.

        Chance of a contract in a week: 0.13 × e^(−11 × overpricing), less in winter, never above 0.6.
        """
        rng, house = self.rng, listing.house
        day, patience = listing.start, int(rng.integers(100, 200))
        next_cut = listing.start + int(rng.integers(18, 45))
        while True:
            day += int(rng.integers(3, 11))
            if day > self.last:
                return self.last
            over = math.log(listing.price / self.worth(house, day))
            weekly = min(0.6, truth.WEEKLY_CONTRACT * math.exp(-truth.OVERPRICE_SLOPE * over)) * (
                1 + 8 * float(truth.season(day))
            )
            if rng.random() < weekly:
                if rng.random() < 0.06:  # a contract that falls through
                    back = day + int(rng.integers(8, 35))
                    if back > self.last:
                        listing.contract, listing.status = day, "Active Under Contract"
                        listing.events.append((day, "Status Change", "Active", "Active Under Contract"))
                        return self.last
                    listing.events.append((day, "Status Change", "Active", "Active Under Contract"))
                    listing.events.append((back, "Status Change", "Active Under Contract", "Active"))
                    day = back
                    continue
                return self._contract(listing, day, over)
            if day - listing.start > patience:
                return self._fail(listing, day)
            if day >= next_cut:
                next_cut = day + int(rng.integers(20, 45))
                if rng.random() < 0.55:
                    self._reprice(listing, day, over)

    def _reprice(self, listing: Listing, day: int, over: float) -> None:
        rng = self.rng
        rises = rng.random() < (0.4 if over < -0.03 else 0.06)
        change = float(rng.uniform(0.01, 0.03)) if rises else -float(rng.uniform(0.01, 0.045))
        new = 1000 * round(listing.price * (1 + change) / 1000) - (100 if rng.random() < 0.6 else 0)
        if new != listing.price:
            listing.events.append((day, "Price Change", f"{listing.price:.0f}", f"{new:.0f}"))
            listing.price = float(new)

    def _contract(self, listing: Listing, day: int, over: float) -> int:
        rng, house = self.rng, listing.house
        listing.contract = day
        close = day + int(np.clip(rng.normal(38, 9), 18, 80))
        status = "Active Under Contract" if rng.random() < 0.45 else "Pending"
        listing.events.append((day, "Status Change", "Active", status))
        if close > self.last:
            listing.status = status
            return self.last
        anchor = 0.25 * float(np.clip(over, -0.08, 0.08))
        agreed = self.worth(house, day) * math.exp(anchor + rng.normal(0, self.sale_noise))
        given = 500 * round(float(rng.uniform(2000, 11_000)) / 500) if rng.random() < 0.22 else 0
        listing.concessions = float(given) if given or rng.random() < 0.6 else None
        listing.close_price = float(100 * round((agreed + given) / 100))
        listing.close, listing.off, listing.status = close, day, "Closed"
        listing.events.append((close, "Status Change", status, "Closed"))
        self._deed(house, close, listing.close_price, "Warranty Deed")
        return close

    def _fail(self, listing: Listing, day: int) -> int:
        listing.status = str(self.rng.choice(["Expired", "Withdrawn", "Canceled"], p=[0.55, 0.2, 0.25]))
        listing.off = day
        listing.events.append((day, "Status Change", "Active", listing.status))
        return day

    # --- the other ways in which a home changes hands

    def _first_sale(self, house: House) -> int:
        """A builder sells a new house, mostly through a listing."""
        assert house.built_day is not None
        rng, day = self.rng, house.built_day
        price = self.worth(house, day) * math.exp(0.05 + rng.normal(0, 0.02))
        if day < self.first or rng.random() < 0.25:
            close = day + 20
            if self.first <= close <= self.last:
                self._deed(house, close, 100.0 * round(price / 100), "Special Warranty Deed", grantor=BUILDERS[0])
            return close + 700
        listing = self._new_listing(house, day, price * 1.01)
        listing.new_construction, listing.builder = True, BUILDERS[int(rng.integers(len(BUILDERS)))]
        end = self._course(listing)
        return end + 700

    def _as_land(self, house: House) -> None:
        """The lot of a new house, sold to its builder before, or still to be had."""
        assert house.built_day is not None
        rng = self.rng
        day = house.built_day - int(rng.integers(330, 640))
        if house.built_day > self.last:
            day = self.last - int(rng.integers(5, 500))
        if day < self.first or rng.random() < 0.45:
            return
        assert house.log_land is not None
        luck = float(rng.normal(0, truth.LOT_SALE_NOISE))
        contract = day + int(rng.integers(15, 200))
        price = self._at(house.log_land, min(contract, self.last)) * math.exp(luck)  # of the day on which it was agreed
        close = contract + int(rng.integers(20, 50))
        before = min(self.last, house.built_day - 60)
        if close > before and house.built_day <= self.last:
            return
        listing = self._new_listing(house, day, price * 1.03)
        listing.land = True
        if close <= before:
            listing.status, listing.contract, listing.close, listing.off = "Closed", contract, close, contract
            listing.close_price = float(100 * round(price / 100))
            self._deed(
                house, close, listing.close_price, "Warranty Deed", grantee=BUILDERS[int(rng.integers(len(BUILDERS)))]
            )

    def _deed_only(self, house: House, day: int) -> int:
        """Sold without ever being listed: only the deed tells."""
        agreed = self.worth(house, day) * math.exp(self.rng.normal(-0.01, self.sale_noise * 1.3))
        self._deed(house, day, 500.0 * round(agreed / 500), "Warranty Deed")
        return day + 300

    def _family(self, house: House, day: int) -> None:
        kind = str(self.rng.choice(["Quitclaim Deed", "Family Transfer", "Trust Deed"]))
        self._deed(house, day, float(self.rng.choice([0, 1, 10, 100])), kind)

    def _lease(self, house: House, day: int) -> None:
        rent = 50.0 * round(self.worth(house, day) * 0.0052 / 50)
        listing = self._new_listing(house, day, self.worth(house, day))
        listing.lease, listing.price, listing.original = True, rent, rent
        listing.events = [(day, "New Listing", "", f"{rent:.0f}")]
        end = day + int(self.rng.integers(6, 50))
        if end <= self.last:
            listing.status, listing.contract, listing.close, listing.off = "Closed", end, end, end
            listing.close_price = rent

    def _bank_sale(self, house: House, day: int) -> int:
        rng = self.rng
        price = self.worth(house, day) * math.exp(rng.normal(-0.17, 0.05))
        self._deed(house, day, 100.0 * round(price * 0.9 / 100), "Sheriff's Deed", grantee="Tallow Bank")
        start = day + int(rng.integers(40, 120))
        if start >= self.last:
            return start
        listing = self._new_listing(house, start, price * 1.02)
        listing.condition_sale = "Real Estate Owned"
        contract = start + int(rng.integers(10, 60))
        close = contract + int(rng.integers(20, 45))
        if close <= self.last:
            listing.status, listing.contract, listing.close, listing.off = "Closed", contract, close, contract
            listing.close_price = 100.0 * round(price / 100)
            listing.concessions = 0.0
            self._deed(house, close, listing.close_price, "Special Warranty Deed", grantor="Tallow Bank")
        return close + 500

    def _deed(self, house: House, day: int, price: float, kind: str, grantor: str = "", grantee: str = "") -> None:
        rng = self.rng
        recorded = day + int(rng.integers(2, 25))
        if recorded > self.last or day < self.first:
            return
        many = 2 if kind == "Warranty Deed" and rng.random() < 0.006 else 1

        def person() -> str:
            return f"{LAST[int(rng.integers(len(LAST)))]} {FIRST[int(rng.integers(len(FIRST)))]}"

        self.out.transfers.append(
            Transfer(house.parcel, day, recorded, price, kind, grantor or person(), grantee or person(), many)
        )
