"""Calendar dates as whole days since 1970-01-01, as the columns hold them. No clock and no time zone."""

from __future__ import annotations

import datetime as dt

from ..phrases import phrase

NO_DAY = -(2**31)
DAYS_PER_MONTH = 30.4375
_EPOCH = dt.date(1970, 1, 1).toordinal()


def day_of(date: dt.date) -> int:
    """Days from 1970-01-01 to a date."""
    return date.toordinal() - _EPOCH


def date_of(day: int) -> dt.date:
    """The date so many days after 1970-01-01."""
    return dt.date.fromordinal(day + _EPOCH)


def said(given: dt.date | str) -> str:
    """The one form in which a day is read, on screen and on paper: "Aug 31, 2026". A text is ISO, also with a time."""
    date = given if isinstance(given, dt.date) else dt.date.fromisoformat(given[:10])
    return f"{month_name(date.month)} {date.day}, {date.year}"


def month_name(month: int) -> str:
    """The name of a month as days have it: 8 → "Aug"."""
    return phrase(f"month-{month}.short")


def month_said(date: dt.date) -> str:
    """The month of a day, in full: "August 2026"."""
    return phrase("month-of-year", month=phrase(f"month-{date.month}"), year=str(date.year))


def period_said(period: str) -> str:
    """The period of a figure as it is read; the month or quarter alone where years lie over each other.

    >>> period_said("2026-08"), period_said("2026-Q3"), period_said("2026"), period_said("08")
    ('Aug 2026', 'Q3 2026', '2026', 'Aug')
    """
    year, _, part = period.partition("-")
    return f"{_part_said(part)} {year}" if part else _part_said(year)


def period_mark(period: str) -> str:
    """What stands under a period on an axis: a year where it begins, else the month or quarter alone.

    >>> period_mark("2025-12"), period_mark("2026-01"), period_mark("2026-Q3"), period_mark("2026")
    ('Dec', '2026', 'Q3', '2026')
    """
    year, _, part = period.partition("-")
    return _part_said(year if part in ("", "01", "Q1") else part)


def _part_said(part: str) -> str:
    return month_name(int(part)) if len(part) == 2 and part.isdecimal() else part


def add_months(date: dt.date, months: int) -> dt.date:
    """The same day `months` later, the month's last day where it has no such day."""
    index = date.year * 12 + date.month - 1 + months
    year, month = divmod(index, 12)
    month += 1
    last = (dt.date(year + month // 12, month % 12 + 1, 1) - dt.timedelta(days=1)).day
    return dt.date(year, month, min(date.day, last))
