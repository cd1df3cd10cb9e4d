from __future__ import annotations

import re
from pathlib import Path

import pytest

from rain_porch.core.facts.fields import ADJUSTED, BY_NAME, CATALOGUE, FIELDS, OWN_LINE, PRIVATE, field, line_label
from rain_porch.report.pages import chosen as pages
from rain_porch.report.pages import grid, opening
from rain_porch.report.workbooks import workbook


def test_the_catalogue_names_each_field_once_and_finds_it_by_either_name():
    assert len({f.name for f in FIELDS}) == len({f.reso for f in FIELDS}) == len(FIELDS)
    assert field("ClosePrice").name == "close_price" and field("close_price").reso == "ClosePrice"
    with pytest.raises(KeyError):
        field("Race")
    assert {"list_agent_full_name", "list_office_name", "private_remarks"} == PRIVATE
    assert set(ADJUSTED) >= {
        "living_area",
        "bathrooms_full",
        "bathrooms_half",
        "garage_spaces",
        "lot_size_square_feet",
        "year_built",
    }
    for f in FIELDS:
        assert not (f.private and (f.searched or f.shown)), f.name
        assert f.low is None or f.high is None or f.low < f.high
        assert not f.weight or f.tolerance or f.kind == "word", f.name


def test_what_is_adjusted_has_a_rule_for_prices_and_a_name_for_its_unit():
    """A row that is adjusted but lacks its rule would give a grid line that nothing can price."""
    for f in CATALOGUE:
        if f.adjusted and f.name not in ("concessions_amount", "location"):
            assert f.effect and f.effect.prior_sd > 0, f.name
            assert f.one or f.kind == "yes_no", f.name
        if f.effect or f.land_effect:
            assert f.adjusted and f.numeric, f.name
        assert f.pairing.same >= 0 and f.pairing.least <= f.pairing.most, f.name


def test_lines_are_called_by_their_field_and_ones_own_by_their_own_name():
    assert line_label("living_area") == "Living area" and line_label("market_change") == "Market change"
    assert line_label(OWN_LINE + "sauna") == "sauna"


def test_the_screens_and_papers_name_only_fields_that_there_are():
    root = Path(__file__).parents[3]
    named = {
        name
        for f in (root / "web/src").rglob("*.*")
        if f.suffix in (".ts", ".vue")
        for name in re.findall(r"['\"`]fact:(\w+)['\"`]", f.read_text())
    }
    assert len(named) > 8 and named <= BY_NAME.keys()
    rows = {*pages.FACT_ROWS, *pages.SHEET_FACTS, *opening.HOME_ROWS, *workbook.FACTS}
    assert rows - {"bathrooms"} <= BY_NAME.keys()
    assert not (rows | named) & PRIVATE
    assert set(grid.SAID_OF) <= {f.name for f in CATALOGUE if f.adjusted}, "rates are said of what is adjusted"
