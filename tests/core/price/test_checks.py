"""An appraiser's questions: each is raised by what it asks about, alone, and says what to do."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rain_porch.core.facts.homes import Candidate
from rain_porch.core.price.checks import Asked, cautions, checks
from rain_porch.core.price.grid import Adjusted
from tests.made import subject


def comp(key: str, **other) -> Candidate:
    facts = {"living_area": other.pop("area", 1800.0), "year_built": other.pop("built", 1990.0)}
    made = Candidate(0, key, "sold", 0.4, None, 400_000, None, 222, 20, 90, 1, facts, (), ())
    return replace(made, **other)


def column(key: str, paid=400_000.0, adjusted=405_000.0, over=()) -> Adjusted:
    return Adjusted(key, paid, (), adjusted, adjusted - paid, abs(adjusted - paid), over)


FINE = Asked(
    subject(living_area=1800.0, year_built=1990.0),
    [comp("A", area=1700.0, built=1985.0), comp("B"), comp("C", area=1900.0, built=1999.0)],
    [column("A", 390_000, 395_000), column("B"), column("C", 420_000, 415_000)],
    [40.0, 90.0, 170.0],
    405_000.0,
    409_000.0,
    0.3,
    True,
    {},
    {"A": "Ada Marl", "B": "Bo Fenn"},
)


def raised(asked: Asked) -> dict[str, tuple[str, ...]]:
    found = checks(asked)
    assert all(bool(c.do) != c.ok for c in found), "a remedy where there is something to do, and only there"
    assert [c.ok for c in found] == sorted(c.ok for c in found), "what is to be done stands first"
    return {c.name: c.homes for c in found if not c.ok}


def test_a_sound_price_raises_nothing():
    assert raised(FINE) == {} and len(checks(FINE)) == 14


@pytest.mark.parametrize(
    ("change", "name", "homes"),
    [
        ({"comps": FINE.comps[:2], "adjusted": FINE.adjusted[:2], "ages": [40.0, 90.0],
          "subject": subject(living_area=1750.0, year_built=1987.0), "value": 400_000.0, "list_price": None}, "number", ()),
        ({"comps": [comp("A", area=1700.0, built=1985.0, distance_miles=1.3), *FINE.comps[1:]]}, "distance", ("A",)),
        ({"ages": [40.0, 181.0, 170.0]}, "age", ("B",)),
        ({"subject": subject(living_area=2400.0, year_built=1990.0)}, "bracket_living_area", ()),
        ({"subject": subject(living_area=1800.0, year_built=1950.0)}, "bracket_year_built", ()),
        ({"adjusted": [column("A", 390_000, 395_000, ("net: 16.0 % is above 15 %",)), *FINE.adjusted[1:]]},
         "adjustments", ("A",)),
        ({"crossed": {"C": "Highway 9"}}, "barrier", ("C",)),
        ({"comps": [*FINE.comps[:2], comp("C", area=1900.0, built=1999.0, flags=("new construction",))]},
         "new_construction", ("C",)),
        ({"change_certain": False}, "market_change", ()),
        ({"sellers": {"A": "Ada Marl", "C": "ADA MARL", "B": "Bo Fenn"}}, "seller", ("A", "C")),
        ({"value": 420_000.0}, "inside", ()),
        ({"list_price": 425_000.0}, "list_above_all", ()),
        ({"adjusted": [column("A", adjusted=350_000), column("B"), column("C", paid=410_000, adjusted=460_000)]},
         "spread", ()),
        ({"notes": ["Fewer than five sales around here: the rates are house rules."]}, "evidence", ()),
    ],
)  # fmt: skip
def test_each_question_is_raised_by_its_own_cause(change, name, homes):
    assert raised(replace(FINE, **change)) == {name: homes}


def test_without_comps_there_is_one_thing_to_do():
    only = checks(replace(FINE, comps=[], adjusted=[], ages=[]))
    assert [c.name for c in only] == ["number"] and not only[0].ok


def test_no_market_change_needs_no_certainty():
    assert raised(replace(FINE, pct_per_month=0.0, change_certain=False)) == {}


def test_the_prices_warnings_are_the_same_questions_with_their_remedies():
    two = [comp("A", area=1900.0), comp("B", area=2100.0, built=1970.0)]
    told = " ".join(cautions(subject(), two, [column("A", adjusted=4e5), column("B", adjusted=4.1e5)], 4.05e5))
    assert "2 sold comps." in told and "at least three" in told and "below all of the comps' 1,900 to 2,100" in told
    assert "newer" not in told and "older" not in told
    wider = [column("A", 4e5, 3.5e5), column("B", 4.05e5, 4.1e5), column("C", 4.1e5, 4.6e5)]
    same = [comp(k, area=v, built=v) for k, v in (("A", 1700.0), ("B", 1800.0), ("C", 2000.0))]
    told = " ".join(cautions(subject(), same, wider, 5e5))
    assert "further apart" in told and "lies outside the adjusted" in told
    assert cautions(FINE.subject, FINE.comps, FINE.adjusted, 405_000.0) == []
