"""The house's rules as they stand for an agent: their own, else the office's, else the usual ones."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from ...core.errors import NotAllowed
from ...core.facts.house_rules import RULES, HouseRules, checked, rule_named
from ...store.porch import house_rules as store
from .agent import Agent

if TYPE_CHECKING:  # who only asks for the rules does not wait for it to be read
    from ...documents.stored import WorkupDoc

SHOWN = 60  # changes


def rules_of(agent: Agent) -> HouseRules:
    """Of whose work it is: their own values where they have any, else the office's."""
    office, own = store.chosen(agent.porch, None), store.chosen(agent.porch, agent.owner)
    return HouseRules.of(office | {name: v for name, v in own.items() if name in RULES and RULES[name].own})


def office_rules(agent: Agent) -> HouseRules:
    return HouseRules.of(store.chosen(agent.porch, None))


def own_rules(agent: Agent) -> dict[str, float]:
    """The agent's own values."""
    return store.chosen(agent.porch, agent.owner)


def rules_for(agent: Agent, state: WorkupDoc) -> HouseRules:
    """By which a workup is priced: those that it was delivered with, else those of the house today."""
    return rules_of(agent) if state.rules is None else HouseRules.of(state.rules)


def choose(agent: Agent, name: str, value: float | None, for_office: bool) -> None:
    """Let a value stand for a rule from now on; None takes the choice back. for_office: for everybody who has none of their own.
    BadInput for a value that makes no sense, NotAllowed for who may not."""
    rule, office = rule_named(name), office_rules(agent)
    would = value if value is not None else rule.usual if for_office else office[name]
    checked(name, would, office if for_office else rules_of(agent))
    if for_office and not agent.is_manager:
        raise NotAllowed("Only a manager changes a rule for the whole office.", field="for_office")
    if not for_office and not rule.own:
        raise NotAllowed(f"“{rule.label}” is the same for the whole office: a manager changes it.", field="for_office")
    store.choose(agent.porch, None if for_office else agent.owner, name, value, agent.account_id, agent.stamp())


def rule_changes(agent: Agent) -> list[dict[str, Any]]:
    """What was changed, newest first: the office's changes and the agent's own; of rules that there are."""
    return [c for c in store.changes(agent.porch, agent.owner, SHOWN) if c["name"] in RULES]
