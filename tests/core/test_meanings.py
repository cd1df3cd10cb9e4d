"""One glossary for hovering and for paper: what the interface points at is in it, and no sentence is half one."""

from __future__ import annotations

import re
from pathlib import Path

from rain_porch.core.facts.house_rules import USUAL, HouseRules
from rain_porch.core.market.measures import MEASURES
from rain_porch.core.meanings import OF_PAPER, meanings_by, of_paper

MEANINGS = meanings_by(USUAL)

WEB = Path(__file__).parents[2] / "web/src"


def test_every_word_that_the_interface_points_at_has_a_meaning():
    named = set()
    for file in (*WEB.rglob("*.vue"), *WEB.rglob("*.ts")):
        text = file.read_text(encoding="utf-8")
        named |= {m[1] for m in re.finditer(r"""v-word="(?:\{ name: |\{\s*name: )?'(\w+)'""", text)}
        named |= {m[1] for m in re.finditer(r"\bword: '(\w+)'", text)}
    assert len(named) >= 12 and named <= {*MEANINGS}, named - {*MEANINGS}


def test_a_meaning_is_one_sentence_that_can_stand_beside_its_word():
    for name, meaning in MEANINGS.items():
        assert meaning.word and meaning.says and not meaning.says.endswith("."), name
        assert meaning.says[0].islower() or not meaning.says[0].isalpha(), name
        assert not {*"{}"} & {*meaning.says}, name
        assert meaning.word.lower() != meaning.says.lower() and len(meaning.says) < 180, name


def test_meanings_say_what_the_house_has_chosen_and_those_of_the_paper_hang_on_none_of_it():
    other = meanings_by(HouseRules.of({"market.gap_days": 45, "market.supply_months": 1, "price.range_pct": 90}))
    assert "within 45 days" in other["cumulative_days"].says and "of the last month" in other["months_of_supply"].says
    assert "nine of ten" in other["range"].says
    assert all(other[name] == meaning for name, meaning in MEANINGS.items() if name in OF_PAPER)


def test_the_papers_words_are_of_the_same_glossary():
    told = dict(of_paper())
    assert len(told) >= 8 and all(says.endswith(".") and says[0].isupper() for says in told.values())
    assert {"Comp", "Indicated value", "Market change"} <= {*told}
    assert {*MEANINGS} & {*MEASURES} >= {"months_of_supply", "median_days", "closings"}
