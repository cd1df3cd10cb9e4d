"""Land and small markets of other kinds go the same way, with features of their own."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.words import HomeKind
from rain_porch.core.price.evidence import evidence
from rain_porch.core.search.matching import run
from rain_porch.core.search.proposed import proposed_search
from tests.made import CENTRE, DAY, away, market, sale


def lots(n: int = 120, elasticity: float = 0.6) -> list[dict]:
    """Bare lots whose price grows with size by a known elasticity."""
    rng = np.random.default_rng(4)
    rows = []
    for i in range(n):
        size = float(rng.integers(4000, 20_000))
        price = float(np.exp(6.0 + elasticity * np.log(size) + rng.normal(0, 0.06)))
        rows.append(
            sale(
                int(rng.integers(5, 700)),
                price,
                home_kind="land",
                lot_size_square_feet=size,
                living_area=None,
                bathrooms_full=None,
                bathrooms_half=None,
                garage_spaces=None,
                year_built=None,
                latitude=away(float(rng.normal(0, 0.4))),
                key=f"lot{i}",
            )
        )
    return rows


LOT = Subject({"lot_size_square_feet": 9000.0}, *CENTRE, HomeKind.LAND)


def test_land_is_searched_by_its_size_among_land():
    columns = market([*lots(), *(sale(20) for _ in range(20))])
    search = proposed_search(LOT, 2025)
    assert search.criterion("lot_size_square_feet").low == pytest.approx(7650)
    found = run(search.with_days("sold", 730), columns, columns.as_of(DAY), LOT)
    assert found.rows.size > 5
    assert {columns.home_kind[r] for r in found.rows} == {list(HomeKind).index(HomeKind.LAND)}
    sizes = columns.numbers["lot_size_square_feet"][found.rows]
    assert sizes.min() >= 7650 and sizes.max() <= 10_350


def test_the_worth_of_size_is_recovered_for_land():
    columns = market(lots())
    e = evidence(columns, columns.as_of(DAY), LOT)
    rate = e.rates["lot_size_square_feet"]
    assert rate.elasticity == pytest.approx(0.6, abs=0.08)
    assert rate.dollars == pytest.approx(0.6 * e.model_value / 9000, rel=0.15)
    assert e.model_value == pytest.approx(np.exp(6.0 + 0.6 * np.log(9000)), rel=0.05)
    assert "living_area" not in e.rates and "garage_spaces" not in e.rates


def test_houses_are_no_evidence_for_land_nor_land_for_houses():
    columns = market([*lots(30), *(sale(30 + i, 9e6) for i in range(30))])
    assert evidence(columns, columns.as_of(DAY), LOT).n_wide == 30
    house = replace(LOT, home_kind=HomeKind.DETACHED, facts={"living_area": 1800.0})
    assert evidence(columns, columns.as_of(DAY), house).n_wide == 30


def test_a_kind_of_home_that_is_unknown_is_a_kind_of_its_own():
    rows = [sale(20 + i, home_kind="unknown") for i in range(9)] + [sale(20, home_kind="detached")]
    columns = market(rows)
    me = Subject({"living_area": 1800.0}, *CENTRE, HomeKind.UNKNOWN)
    found = run(proposed_search(me, 2025), columns, columns.as_of(DAY), me)
    assert found.rows.tolist() == list(range(9))


@pytest.mark.parametrize("kind", ["attached", "condominium", "small_multi_family", "manufactured"])
def test_every_kind_is_searched_among_its_own(kind):
    rows = [
        sale(20, home_kind=k) for k in ("detached", "attached", "condominium", "small_multi_family", "manufactured")
    ]
    columns = market(rows)
    me = Subject({"living_area": 1800.0, "bathrooms_full": 2.0}, *CENTRE, HomeKind(kind))
    found = run(proposed_search(me, 2025), columns, columns.as_of(DAY), me)
    assert [list(HomeKind)[columns.home_kind[r]] for r in found.rows] == [kind]
