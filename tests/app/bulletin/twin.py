"""Market figures worked out apart from the product, with pandas on listings as SQL or a file gives them."""

from __future__ import annotations

import re
from dataclasses import dataclass

import pandas as pd

DAYS = ("on_market_date", "purchase_contract_date", "close_date", "off_market_date")


def frame_of(records, keys=None):
    """Listings of the records as they stand, arm's-length and no leases; of some keys alone."""
    rows = records.db.execute(
        "SELECT listing_id, home_kind, standard_status, on_market_date, purchase_contract_date, close_date, off_market_date, "
        "close_price, list_price, original_list_price, living_area, concessions_amount, suspect FROM listings WHERE is_lease = 0"
    )
    # a value that is marked suspect is not known; the rest of its record is
    frame = pd.DataFrame(
        [{k: None if k in (r["suspect"] or "") else v for k, v in dict(r).items() if k != "suspect"} for r in rows]
    )
    for name in DAYS:
        frame[name] = pd.to_datetime(frame[name])
    return frame if keys is None else frame[frame.listing_id.isin(keys)]


@dataclass(frozen=True)
class Twin:
    """frame: as frame_of makes it. Only what closings tell, and what stands for sale, is known here."""

    frame: pd.DataFrame

    def closed(self, start, end):
        f = self.frame
        return f[(f.standard_status == "Closed") & (f.close_date >= start) & (f.close_date <= end)]

    def value(self, measure, start, end):
        """(value, homes) of a measure over the days; None where this twin has no such measure."""
        sold = self.closed(pd.Timestamp(start), pd.Timestamp(end))
        series = {
            "median_price": sold.close_price, "median_price_per_sqft": sold.close_price / sold.living_area.where(sold.living_area > 0),
            "median_share_of_list": sold.close_price / sold.list_price, "median_share_of_original": sold.close_price / sold.original_list_price,
        }  # fmt: skip
        if measure == "closings":
            return float(len(sold)), len(sold)
        if measure in series:
            x = series[measure].dropna()
            return (None if x.empty else float(x.median())), len(x)
        if measure == "months_of_supply":
            there = self.for_sale(pd.Timestamp(end))
            year = self.closed(pd.Timestamp(end) + pd.Timedelta(days=1) - pd.DateOffset(months=12), pd.Timestamp(end))
            return (there / (len(year) / 12) if len(year) else None), there
        if measure == "for_sale":
            there = self.for_sale(pd.Timestamp(end))
            return float(there), there
        return None

    def for_sale(self, day):
        """Come on by a day and not yet under contract, off or closed; homes with a status that went back are no part of the test."""
        f = self.frame
        ended = f[["purchase_contract_date", "off_market_date", "close_date"]].min(axis=1)
        return int(((f.on_market_date <= day) & ~(ended <= day)).sum())


MONTHS = {
    m: i
    for i, m in enumerate(
        [
            "January",
            "February",
            "March",
            "April",
            "May",
            "June",
            "July",
            "August",
            "September",
            "October",
            "November",
            "December",
        ],
        1,
    )
}


def days_of(period, through):
    """First and last day of a period as a bulletin's table names it; None for one that is no span of days."""
    period = period.removesuffix(", so far")
    if found := re.fullmatch(r"the 12 months to (\w+) (\d{4})", period):
        end = pd.Timestamp(int(found[2]), MONTHS[found[1]], 1) + pd.offsets.MonthEnd(0)
        return end + pd.Timedelta(days=1) - pd.DateOffset(months=12), end
    if re.fullmatch(r"\d{4}-\d\d", period):
        start = pd.Timestamp(f"{period}-01")
        return start, min(start + pd.offsets.MonthEnd(0), pd.Timestamp(through))
    if re.fullmatch(r"\d{4}", period):
        return pd.Timestamp(f"{period}-01-01"), min(pd.Timestamp(f"{period}-12-31"), pd.Timestamp(through))
    if found := re.fullmatch(r"(\d{4}-\d\d-\d\d) to (\d{4}-\d\d-\d\d)", period):
        return pd.Timestamp(found[1]), pd.Timestamp(found[2])
    if found := re.fullmatch(r"(\d{4}) to (\d\d-\d\d)", period):
        return pd.Timestamp(f"{found[1]}-01-01"), pd.Timestamp(f"{found[1]}-{found[2]}")
    return None
