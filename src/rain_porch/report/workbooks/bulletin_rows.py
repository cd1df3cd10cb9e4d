"""Every figure of a bulletin as one long table: for a sheet, for CSV. Values are whole, with all their digits."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import Any

HEAD = ("part", "measure", "label", "unit", "of", "period", "value", "homes")
Row = tuple[str, str, str, str, str, str, float | None, int | None]
Part = Mapping[str, Any]
UNITS = {"share": "share of 1", "$/sq ft": "$ per sq ft", "a month": "homes a month", "": "homes"}


def rows_of(parts: Sequence[Part]) -> list[Row]:
    """The figures of all parts in their order; parts that only explain have none."""
    return [row for part in parts if part["kind"] in _OF for row in _OF[part["kind"]](part)]


def _row(part: Part, measure: str, label: str, unit: str, of: str, period: str, point: Mapping[str, Any] | None) -> Row:
    value, n = (None, None) if point is None else (point["value"], point["n"])
    return (str(part["title"]), measure, label, UNITS.get(unit, unit), of, period, value, n)


def _headline(part: Part) -> Iterator[Row]:
    told = part["answer"]
    for f in told["figures"]:
        for of, period, point in (
            (told["where"], told["span"], f["value"]), (told["where"], "the same months a year before", f["before"]),
            (told["everywhere"], told["span"], f["whole"]),
        ):  # fmt: skip
            if point is not None:
                yield _row(part, f["measure"], f["label"], f["unit"], of, period, point)


def _by_period(part: Part, periods: Sequence[Part], labels: Mapping[str, Any], of: str) -> Iterator[Row]:
    for name, (label, unit) in labels.items():
        for p in periods:
            period = p["period"] + ("" if p["finished"] else ", so far")
            yield _row(part, name, label, unit, of, period, p["values"][name])


def _months(part: Part) -> Iterator[Row]:
    told = part["answer"]
    yield from _by_period(part, told["months"], told["labels"], told["where"])
    if told["rates"]:
        for m, value in zip(told["months"], told["rates"]["values"], strict=True):
            yield _row(part, "series", told["rates"]["name"], "series", "", m["period"], {"value": value, "n": None})


def _years(part: Part) -> Iterator[Row]:
    told = part["answer"]
    yield from _by_period(part, told["years"], told["labels"], "")


def _heat(part: Part) -> Iterator[Row]:
    told = part["answer"]
    for year, points in told["years"].items():
        for month, point in enumerate(points, 1):
            yield _row(part, told["measure"], told["label"], told["unit"], "", f"{year}-{month:02d}", point)


def _places(part: Part) -> Iterator[Row]:
    told = part["answer"]
    for place in (*told["places"], told["whole"]):
        of = place["place"] or "all together"
        for period, values in ((told["span"], place["values"]), ("the same months a year before", place["before"])):
            for name, point in values.items():
                label, unit = told["labels"][name]
                yield _row(part, name, label, unit, of, period, point)


def _bands(part: Part) -> Iterator[Row]:
    told = part["answer"]
    period = f"{told['start']} to {told['end']}"
    for band in (*told["size"], *told["price"]):
        for name, point in band["values"].items():
            label, unit = told["labels"][name]
            yield _row(part, name, label, unit, band["label"], period, point)


def _conditions(part: Part) -> Iterator[Row]:
    told = part["answer"]
    for line in told["lines"]:
        for (start, end, _), point in zip(told["windows"], line["values"], strict=True):
            yield _row(part, "", line["label"], line["unit"], told["where"], f"{start} to {end}", point)


def _so_far(part: Part) -> Iterator[Row]:
    told = part["answer"]
    year = int(str(told["end"])[:4])
    for r in told["rows"]:
        for back, name in enumerate(("now", "before", "earlier")):
            yield _row(
                part, r["measure"], r["label"], r["unit"], "", f"{year - back} to {str(told['end'])[5:]}", r[name]
            )


def _view(part: Part) -> Iterator[Row]:
    told = part["answer"]
    for line in told["lines"]:
        for p, point in zip(told["periods"], line["points"], strict=True):
            period = p["period"] + ("" if p["finished"] else ", so far")
            yield _row(part, line["measure"], line["label"], line["unit"], line["part"], period, point)


def _since(part: Part) -> Iterator[Row]:
    told = part["answer"]
    for line in told["lines"]:
        for name, day in (("then", told["since"]), ("now", told["through"])):
            yield _row(part, "", line["label"], line["unit"], "", f"as of {day}", line[name])


_OF: Mapping[str, Callable[[Part], Iterator[Row]]] = {
    "headline": _headline, **dict.fromkeys(("prices", "price_ways", "pace", "flow", "shares"), _months), "years": _years,
    "heat": _heat, "places": _places, "bands": _bands, "market_conditions": _conditions, "so_far": _so_far, "view": _view,
    "since_last": _since,
}  # fmt: skip
