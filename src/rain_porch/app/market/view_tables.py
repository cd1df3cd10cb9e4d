"""What a view and the year so far are as rows for a file."""

from __future__ import annotations

from .views import SoFarDoc, ViewAnswerDoc, ViewLineDoc


def column_name(line: ViewLineDoc) -> str:
    """What a column of a file holds: the measure, its unit, and the line's own name where there are several."""
    unit = {"share": "share of 1", "series": ""}.get(line.unit, line.unit)
    return ", ".join(x for x in (line.label, unit, line.part) if x)


def so_far_table(told: SoFarDoc) -> list[list[object]]:
    """The year so far as rows for a file."""
    year = told.end.year
    rows: list[list[object]] = [
        [
            "measure",
            "unit",
            f"{year} to {told.end:%m-%d}",
            *(f"same days of {year - k}" for k in (1, 2)),
            "change on the year",
        ]
    ]
    rows += [
        [r.label, r.unit, r.now.value, r.before.value, r.earlier.value, r.change.words if r.change else None]
        for r in told.rows
    ]
    return rows


def table_of(told: ViewAnswerDoc) -> list[list[object]]:
    """A view's answer as rows for a file: a head, then a row a period."""
    rows: list[list[object]] = [["period", "start", "end", "finished", *(column_name(line) for line in told.lines)]]
    for i, p in enumerate(told.periods):
        values = [None if (x := line.points[i]) is None else x.value for line in told.lines]
        rows.append([p.period, p.start, p.end, p.finished, *values])
    return rows
