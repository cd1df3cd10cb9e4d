"""Points on paper stand inside their field, in their order; marks bear the numbers of the homes they are."""

from __future__ import annotations

import math
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.report.pictures.plot import Plot
from rain_porch.report.pictures.scale import rounded_span
from rain_porch.report.pictures.size import NUMBERED, size_svg
from rain_porch.report.pictures.small_charts import places_svg

NUMBERS = st.lists(st.floats(1, 1e7), min_size=1, max_size=20)


@given(st.lists(st.tuples(st.floats(1, 1e7), st.floats(1, 1e7)), min_size=1, max_size=20))
def test_points_stand_inside_and_in_their_order(points):
    plot = Plot([x for x, _ in points], [y for _, y in points])
    placed = [plot.at(x, y) for x, y in points]
    for x, y in placed:
        assert plot.left <= x <= plot.width - plot.right and plot.top <= y <= plot.height - plot.foot
    assert [x for x, _ in sorted(placed)] == [plot.at(x, points[0][1])[0] for x in sorted(x for x, _ in points)]
    lowest, highest = min(points, key=lambda p: p[1]), max(points, key=lambda p: p[1])
    assert plot.at(*lowest)[1] >= plot.at(*highest)[1], "more is higher"
    assert len(plot.frame("sq ft")) == 15


@given(st.floats(0, 1e7), st.floats(1, 1e7))
def test_ends_and_quarters_of_a_span_are_round_and_hold_it(low, wide):
    start, end = rounded_span((low, low + wide))
    assert start <= low + wide * 1e-6 and end >= low + wide * (1 - 1e-6)
    assert end - start <= 4 * wide, "most of the field is used"
    step = round((end - start) / 4, 6)
    lead = step / 10 ** math.floor(math.log10(step * (1 + 1e-9)))
    assert min(abs(lead - nice) for nice in (1, 1.5, 2, 2.5, 5)) < 1e-6
    assert abs(start / step - round(start / step)) < 1e-4


def test_places_keep_their_shape_at_any_latitude():
    """A square mile is a square on paper, as far north as homes stand."""
    for lat in (5.0, 41.0, 64.0):
        wide = 0.01 / math.cos(math.radians(lat))
        ring = [[20.0, lat], [20.0 + wide, lat], [20.0 + wide, lat + 0.01], [20.0, lat + 0.01], [20.0, lat]]
        drawn = places_svg([{"number": 1, "rings": [ring], "change": None}], ())
        points = [tuple(map(float, p.split())) for p in re.search(r'd="M([^"z]+)z" fill="#', drawn).group(1).split("L")]
        xs, ys = zip(*points, strict=True)
        assert max(xs) - min(xs) == pytest.approx(max(ys) - min(ys), rel=0.01)


def home(price, area):
    return {"kind": "sold", "price": price, "facts": {"living_area": area} if area else {}}


def test_marks_bear_the_homes_numbers_also_where_one_has_no_size():
    homes = [(1, home(300_000, 1500)), (2, home(310_000, None)), (None, home(315_000, 1650)), (3, home(320_000, 1700))]
    numbers = re.findall(r'font-weight="600"[^>]*>(\d+)<', size_svg(homes, 1600, 315_000))
    assert numbers == ["1", "3"], "as in the table beside it"
    assert size_svg([(1, home(300_000, 1500)), (2, home(None, 1400))], None, None) == ""
    many = size_svg([(n, home(300_000 + n, 1000 + n)) for n in range(NUMBERED + 1)], None, None)
    assert not re.findall(r'font-weight="600"', many)
