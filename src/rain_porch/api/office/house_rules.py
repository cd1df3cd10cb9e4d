"""The house's rules: what they are, what another would change, and another chosen."""

from __future__ import annotations

from typing import Annotated

from fastapi import Path
from pydantic import BaseModel, Field

from ...app.office import house_rules as house
from ...app.workup.rule_effects import effects
from ...app.workup.workups import open_workup
from ...core.facts.house_rules import GROUPS, RULES, HouseRules, checked, rule_named
from ...documents.base import FiniteNumber, Worded
from ..routing import api_router
from ..state import Porch

router = api_router("house rules")
Name = Annotated[str, Path(max_length=80)]


class HouseRuleDoc(BaseModel):
    """A rule with its value for the asker. office: the office's value; own: theirs, where they have one; may: set for oneself;
    may_office: for everybody."""

    name: str
    group: str
    label: str
    meaning: Worded
    unit: str
    usual: float
    low: float
    high: float
    whole: bool
    options: tuple[float, ...]
    value: float
    office: float
    own: float | None
    may: bool
    may_office: bool


class RuleChangeDoc(BaseModel):
    """One change: from and to, None for the usual value. own: of the asker's own, else the office's."""

    name: str
    before: float | None
    value: float | None
    own: bool
    who: str | None
    made_at: str


class RuleGroupDoc(BaseModel):
    name: str
    label: str


class HouseRulesDoc(BaseModel):
    groups: list[RuleGroupDoc]
    rules: list[HouseRuleDoc]
    changes: list[RuleChangeDoc]


class RuleChoice(BaseModel):
    """value None: as usual; for one's own, as the office has it."""

    value: FiniteNumber | None
    for_office: bool = False


class EffectsAsk(BaseModel):
    """value None: what is chosen is taken back, one's own value first."""

    value: FiniteNumber | None
    name: str = Field(max_length=80)
    workup_id: int = Field(ge=1, le=2**53)


class EffectDoc(BaseModel):
    what: Worded
    before: Worded
    after: Worded


class EffectsDoc(BaseModel):
    """keeps: the workup goes by the rules it was delivered with, and nothing of it changes."""

    title: str
    keeps: bool
    effects: list[EffectDoc]


@router.get("/house-rules")
def house_rules(porch: Porch) -> HouseRulesDoc:
    """Every rule with its meaning, range and value, and what was changed, newest first."""
    now, office, own = house.rules_of(porch.agent), house.office_rules(porch.agent), house.own_rules(porch.agent)
    return HouseRulesDoc(
        groups=[RuleGroupDoc(name=name, label=label) for name, label in GROUPS.items()],
        rules=[
            HouseRuleDoc(
                **{name: getattr(r, name) for name in ("name", "group", "label", "meaning", "unit", "usual", "low", "high", "whole", "options")},
                value=now[r.name], office=office[r.name], own=own.get(r.name), may=r.own, may_office=porch.agent.is_manager,
            )
            for r in RULES.values()
        ],
        changes=[RuleChangeDoc(**c) for c in house.rule_changes(porch.agent)],
    )  # fmt: skip


@router.put("/house-rules/{name}", status_code=204)
def choose_house_rule(porch: Porch, name: Name, body: RuleChoice) -> None:
    """Choose a rule's value from now on, for oneself or for the office."""
    house.choose(porch.agent, name, body.value, body.for_office)


@router.post("/house-rules/effects")
def rule_effects(porch: Porch, body: EffectsAsk) -> EffectsDoc:
    """What another value would change on a workup; nothing is saved."""
    opened = open_workup(porch.agent, body.workup_id)
    now, usual = house.rules_of(porch.agent), rule_named(body.name).usual
    if body.name in house.own_rules(porch.agent):
        usual = house.office_rules(porch.agent)[body.name]
    value = checked(body.name, usual if body.value is None else body.value, now)
    would = HouseRules.of({**dict(now.changed), body.name: value})
    keeps = opened.state.rules is not None
    told = [] if keeps else effects(porch.agent, body.workup_id, now, would)
    return EffectsDoc(title=opened.state.address, keeps=keeps, effects=[EffectDoc(**vars(effect)) for effect in told])
