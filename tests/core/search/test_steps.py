"""Single steps of a search: their ladders, their words, and that there is always a way on or an end."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.search import steps
from rain_porch.core.search.search import Criterion, Search
from rain_porch.core.search.sentence import criterion_words, parts, sentence

BASE = Search(home_kinds=("detached",), leave_out_new_construction=False)


def step(search: Search, part: str, looser: bool) -> steps.Step | None:
    return next((s for s in steps.steps(search, looser) if s.part == part), None)


@pytest.mark.parametrize(
    ("radius", "looser", "tighter"),
    [(1.0, 1.25, 0.75), (0.25, 0.5, None), (25.0, None, 15.0), (1.1, 1.25, 1.0), (0.1, 0.25, None)],
)
def test_the_radius_goes_along_its_ladder(radius, looser, tighter):
    s = replace(BASE, radius_miles=radius)
    for wanted, up in ((looser, True), (tighter, False)):
        made = step(s, "radius_miles", up)
        assert (made.search.radius_miles if made else None) == wanted
        assert made is None or made.words == f"within {wanted:g} mi"


@pytest.mark.parametrize(
    ("days", "looser", "tighter"), [(180, 270, 120), (30, 60, None), (3650, None, 1825), (200, 270, 180)]
)
def test_the_window_goes_along_its_ladder(days, looser, tighter):
    s = BASE.with_days("sold", days)
    for wanted, up in ((looser, True), (tighter, False)):
        made = step(s, "windows.sold", up)
        assert (made.search.windows["sold"].days if made else None) == wanted


def test_an_open_radius_or_window_has_no_step():
    s = replace(BASE, radius_miles=None).with_days("sold", None)
    assert steps.steps(s, looser=True) == [] and steps.steps(s, looser=False) == []


@pytest.mark.parametrize(
    ("criterion", "looser", "tighter"),
    [
        (Criterion("living_area", 1550, 2050), (1500, 2100), (1600, 2000)),
        (Criterion("living_area", 1000, 3000), (800, 3200), (1200, 2800)),
        (Criterion("bathrooms_full", low=2), (1, None), (3, None)),
        (Criterion("year_built", 1980, 1990), (1975, 1995), None),
        (Criterion("close_price", high=400_000), (None, 401_000), (None, 399_000)),
    ],
)
def test_a_range_moves_by_its_fields_step_at_both_ends(criterion, looser, tighter):
    s = BASE.with_criterion(criterion)
    for wanted, up in ((looser, True), (tighter, False)):
        made = step(s, criterion.field, up)
        held = made.search.criterion(criterion.field) if made else None
        assert (None if held is None else (held.low, held.high)) == wanted
        if made and held:
            assert made.words == criterion_words(held)


def test_what_can_be_loosened_no_more_is_let_go():
    gone = step(BASE.with_criterion(Criterion("bathrooms_full", low=1)), "bathrooms_full", True)
    assert gone.search.criteria == () and gone.words == "any full baths"
    words = step(BASE.with_criterion(Criterion("city", words=("Alder",))), "city", True)
    assert words.search.criteria == () and step(words.search, "city", True) is None


def test_new_construction_is_let_in_as_a_step_and_never_shut_out_by_one():
    s = replace(BASE, leave_out_new_construction=True)
    made = step(s, "leave_out_new_construction", True)
    assert made.words == "new construction let in" and not made.search.leave_out_new_construction
    assert step(s, "leave_out_new_construction", False) is None


@given(
    st.floats(0.05, 30),
    st.integers(10, 4000),
    st.integers(300, 6000),
    st.integers(10, 3000),
)
def test_loosening_one_step_at_a_time_comes_to_an_end(radius, days, low, width):
    s = (
        replace(BASE, radius_miles=radius)
        .with_days("sold", days)
        .with_criterion(Criterion("living_area", low, low + width))
    )
    for _ in range(120):
        options = steps.steps(s, looser=True)
        if not options:
            break
        before, s = s, options[-1].search
        assert s != before
    assert not steps.steps(s, looser=True)
    assert sentence(s).endswith(".")


@given(st.integers(300, 6000), st.integers(50, 3000))
def test_a_tighter_range_lies_inside_and_a_looser_one_outside(low, width):
    c = Criterion("living_area", float(low), float(low + width))
    s = BASE.with_criterion(c)
    wider, closer = step(s, "living_area", True), step(s, "living_area", False)
    if wider and (w := wider.search.criterion("living_area")):
        assert w.low <= c.low and w.high > c.high
    if closer and (t := closer.search.criterion("living_area")):
        assert t.low > c.low and t.high < c.high and t.low <= t.high


@given(st.sampled_from([0.25, 1.0, 25.0, None]), st.sampled_from([30, 180, None]), st.booleans())
def test_the_sentence_is_its_phrases_and_names_every_part_that_limits(radius, days, new):
    s = replace(BASE, radius_miles=radius, leave_out_new_construction=new).with_days("sold", days)
    made = parts(s)
    assert "".join(p.text for p in made) == sentence(s)
    named = {p.part for p in made}
    assert ("radius_miles" in named) == (radius is not None)
    assert ("leave_out_new_construction" in named) == new
    assert "  " not in sentence(s) and " ," not in sentence(s)
