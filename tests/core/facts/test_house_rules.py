"""The table of house rules: every row can be read and held, and what stands against it is refused with the remedy."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.errors import BadInput
from rain_porch.core.facts.fields import BY_NAME, CATALOGUE
from rain_porch.core.facts.house_rules import GROUPS, RULES, USUAL, HouseRules, checked, prior_of, tolerance_of

ANY = st.sampled_from(list(RULES.values()))


def test_every_rule_says_what_it_is_and_its_usual_value_may_stand():
    assert len(RULES) > 70 and {r.group for r in RULES.values()} == {*GROUPS}
    for rule in RULES.values():
        assert rule.label and rule.meaning and rule.low < rule.high, rule.name
        assert checked(rule.name, rule.usual) == rule.usual == USUAL[rule.name]
        assert not rule.whole or rule.usual == round(rule.usual)
        assert not rule.options or (
            rule.usual in rule.options and {*rule.options} <= {x for x in rule.options if rule.low <= x <= rule.high}
        )
    shown = [(r.group, r.label) for r in RULES.values()]
    assert len(set(shown)) == len(shown), "two rules of a group read alike"


@given(ANY, st.floats(-1e6, 1e6))
def test_a_value_out_of_its_range_is_refused_by_the_rule_s_own_words(rule, value):
    if (
        rule.low <= value <= rule.high
        and (not rule.whole or value == round(value))
        and value in (rule.options or (value,))
    ):
        return
    with pytest.raises(BadInput) as told:
        checked(rule.name, value)
    assert rule.label in told.value.message


def test_rules_that_contradict_each_other_are_refused_and_so_is_a_rule_that_is_none():
    with pytest.raises(BadInput, match="change the other first"):
        checked("search.fewest", 16)
    assert checked("search.fewest", 16, HouseRules.of({"search.most": 20})) == 16
    for nonsense in ("", "search", "search.radius", "x" * 500):
        with pytest.raises(BadInput, match="no house rule"):
            checked(nonsense, 1)


@given(st.dictionaries(st.sampled_from([*RULES, "of a newer program"]), st.floats(0, 5)))
def test_the_same_rules_are_one_value_and_the_usual_ones_leave_no_trace(chosen):
    rules = HouseRules.of(chosen)
    assert rules == HouseRules.of(dict(reversed(chosen.items()))) and hash(rules) == hash(HouseRules.of(chosen))
    for name, rule in RULES.items():
        assert rules[name] == chosen.get(name, rule.usual)
    assert (
        (rules == USUAL)
        == all(rules.chosen(n) is None for n in RULES)
        == all(chosen.get(n, r.usual) == r.usual for n, r in RULES.items())
    )
    assert HouseRules.of(dict(rules.changed)) == rules


def test_the_usual_rules_are_those_of_the_catalogue():
    for f in CATALOGUE:
        assert tolerance_of(f, USUAL) == f.tolerance and prior_of("rates", f.name, USUAL) is None
        assert f"likeness.{f.name}.weight" not in RULES or USUAL[f"likeness.{f.name}.weight"] == f.weight > 0
    area = BY_NAME["living_area"]
    assert tolerance_of(area, HouseRules.of({"likeness.living_area.tolerance": 100})) == pytest.approx(math.log(2))
    assert prior_of("rates", "living_area", HouseRules.of({"rates.living_area": 5})) == pytest.approx(0.5)
    assert prior_of("land", "waterfront_yn", HouseRules.of({"land.waterfront_yn": 30})) == pytest.approx(0.3)
    assert prior_of("rates", "no field", USUAL) is None
