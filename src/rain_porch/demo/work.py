"""Work that the demo opens with: a workup just begun, one with its comps kept, one handed over, and a bulletin."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator

from ..app.bulletin.kept import add_bulletin, ready
from ..app.handover.delivering import DeliverAsk, deliver
from ..app.home.homes import HomeRef
from ..app.market.views import ViewDoc
from ..app.office.agent import Agent
from ..app.pricing.opened import priced, suggested
from ..app.workup.changes import Change, Decide, SetClient, SetListPrice
from ..app.workup.workups import begin_workup, change_workup, delete_workup, open_workup
from ..core.facts.money import half_up
from ..store.records.homes import parcels_of_kind

ENOUGH_COMPS = 8  # of a home that is shown as an example
EARLIER = dt.timedelta(days=60)  # how long ago the first of them was begun: something has happened since


def furnish(agent: Agent) -> None:
    """Begin the work. The same records give the same."""
    homes = _examples(agent)
    first = next(homes)
    begun = begin_workup(agent, first, agent.records.through() - EARLIER)
    _change(agent, begun, SetClient(change="set_client", client="Orla Grayle"))
    kept = _with_comps(agent, next(homes))
    _price(agent, kept, above=1.03)
    handed = _with_comps(agent, next(homes))
    _change(agent, handed, SetClient(change="set_client", client="Bram Tolliver"))
    _price(agent, handed, above=1.01)
    deliver(agent, handed, DeliverAsk(client="Bram Tolliver"))
    add_bulletin(
        agent, ready("one_page", ViewDoc(measures=["median_price"], home_kind="detached"), "The market this month")
    )


def _examples(agent: Agent) -> Iterator[HomeRef]:
    """Detached homes with sales enough around them, far from each other in the order of the parcels."""
    numbers = parcels_of_kind(agent.records.db, "detached")
    step = max(1, len(numbers) // 7)
    for start in range(step):
        for number in numbers[start::step]:
            ref = HomeRef("parcel", number)
            tried = begin_workup(agent, ref)
            has_enough = len(suggested(open_workup(agent, tried))) >= ENOUGH_COMPS
            delete_workup(agent, tried)
            if has_enough:
                yield ref


def _with_comps(agent: Agent, ref: HomeRef) -> int:
    number = begin_workup(agent, ref)
    comps = suggested(open_workup(agent, number))
    _change(agent, number, Decide(change="decide", listing_ids=comps, choice="kept", reason=""))
    return number


def _price(agent: Agent, number: int, above: float) -> None:
    value = priced(open_workup(agent, number)).value
    if value:
        _change(agent, number, SetListPrice(change="set_list_price", list_price=half_up(value * above, 1000) - 100))


def _change(agent: Agent, number: int, change: Change) -> None:
    change_workup(agent, number, open_workup(agent, number).revision, change)
