"""Every figure of a workup comes out of the steps by which it is told."""

from __future__ import annotations

import math
import re

import pytest

from rain_porch.app.office import house_rules as house
from rain_porch.app.pricing.candidates import most_alike
from rain_porch.app.pricing.opened import priced
from rain_porch.app.pricing.worked_out import FIGURES, WorkedDoc, worked_out
from rain_porch.app.workup.workups import open_workup
from rain_porch.core.errors import NotEnough, NotFound
from tests.app.workup.test_changes import begun, change
from tests.reckoning import both_sides


@pytest.fixture
def opened(agent):
    number = begun(agent)
    first = open_workup(agent, number)
    keys = [c.listing_id for c in most_alike(first.standpoint, first.state.search.search())]
    change(agent, number, change="decide", listing_ids=keys, choice="kept")
    return open_workup(agent, number)


def figures(worked: WorkedDoc) -> dict[str, str]:
    return {s.what: s.figures for s in worked.steps}


def amount(text: str) -> float:
    return float(re.findall(r"[\d,]*\.?\d+", text)[-1].replace(",", ""))


def test_the_indicated_value_is_what_its_terms_add_up_to(opened):
    worked, pricing = worked_out(opened, "indicated_value"), priced(opened)
    terms = [both_sides(s.figures) for s in worked.steps if "%" in s.figures]
    assert len(terms) == len(pricing.adjusted) + 1, "each comp's and the model's"
    for left, right in terms:
        assert left == pytest.approx(right, rel=5e-3)
    assert sum(right for _, right in terms) == pytest.approx(pricing.value, abs=len(terms))
    assert f"= {pricing.shown:,.0f}" in figures(worked)["Together"] and worked.result == f"${pricing.shown:,.0f}"


@pytest.mark.parametrize("pct", [80, 95])
def test_the_range_is_the_value_times_the_width_that_is_told(agent, opened, pct):
    house.choose(agent, "price.range_pct", pct, True)
    opened = open_workup(agent, opened.workup_id)
    worked, pricing = worked_out(opened, "range"), priced(opened)
    told = figures(worked)
    times = float(re.search(r"× ([\d.]+)", told["By past sales"])[1])
    assert math.exp(pricing.width.fit * times) == pytest.approx(pricing.range.high / pricing.value, rel=3e-3)
    for end, sign in (("Low", "÷"), ("High", "×")):
        value, by = re.match(rf"([\d,]+) {sign} ([\d.]+)", told[end]).groups()
        reckoned = float(value.replace(",", "")) * (float(by) if sign == "×" else 1 / float(by))
        assert reckoned == pytest.approx(amount(told[end]), abs=80)
    assert [r.value for r in worked.house_rules] == [pct, 100]


def test_a_comp_s_lines_make_its_adjusted_price_and_its_net_and_gross(opened):
    for comp in priced(opened).adjusted:
        adjusted = worked_out(opened, "adjusted_price", comp.listing_id)
        assert adjusted.result == f"${comp.adjusted_price:,.0f}"
        left, right = both_sides(figures(adjusted)["Adjusted"])
        assert left == pytest.approx(right, abs=1.01) and right == pytest.approx(comp.adjusted_price, abs=0.51)
        shown = figures(worked_out(opened, "net_gross", comp.listing_id))
        left, right = both_sides(shown["Net"])
        assert left == pytest.approx(comp.net / comp.close_price, abs=1e-4) and right == pytest.approx(
            abs(left), abs=6e-4
        )
        left, right = both_sides(shown["Gross"])
        assert left == pytest.approx(right, abs=6e-4) and right == pytest.approx(comp.gross_pct / 100, abs=6e-4)


def test_a_chance_is_told_at_the_price_that_is_asked_of_and_for_the_list_price_else(agent, opened):
    value = priced(opened).shown
    at, higher = (worked_out(opened, "chance", list_price=p) for p in (value, 1.06 * value))
    assert at.title.endswith(f"${value:,.0f}") and figures(at)["Against the value"].endswith("= 1.000")
    assert int(higher.result.split()[0]) < int(at.result.split()[0])
    assert worked_out(opened, "chance") == at
    change(agent, opened.workup_id, change="set_list_price", list_price=value + 5000)
    assert worked_out(open_workup(agent, opened.workup_id), "chance").title.endswith(f"${value + 5000:,.0f}")


def test_what_is_no_figure_and_what_is_not_there_yet_are_told_so(agent, opened):
    with pytest.raises(NotFound, match="is no figure of a workup"):
        worked_out(opened, "nonsense")
    for figure in ("adjusted_price", "net_gross"):
        with pytest.raises(NotFound, match="none of the comps"):
            worked_out(opened, figure, "NO-1")
    bare = open_workup(agent, begun(agent))
    for figure in ("indicated_value", "range", "chance"):
        with pytest.raises(NotEnough, match="keep some comps"):
            worked_out(bare, figure)
    assert {*FIGURES} == {"indicated_value", "range", "chance", "adjusted_price", "net_gross"}
