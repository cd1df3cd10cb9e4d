"""Clients, and what was delivered to them."""

from __future__ import annotations

from typing import Literal

from fastapi import Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, Field

from ...app.handover import delivering
from ...app.handover.delivering import ChangeDoc, DeliverAsk, DeliveryDoc, deliver, send_again
from ...app.office import accounts, erasing
from ...app.office import clients as people
from ...core.errors import BadInput
from ...documents.base import Line
from ...records.contacts import EMAIL, read_people
from ..attachments import MEDIA
from ..bodies import read_body
from ..routing import api_router
from ..state import AskedNumber, Number, Porch

router = api_router("clients")
MOST_BYTES = 5_000_000


class PersonDoc(BaseModel):
    name: Line = Field(min_length=1, max_length=200, pattern=r"\S")
    email: Line = Field("", max_length=254)
    phone: Line = Field("", max_length=100)
    address: str = Field("", max_length=400)
    note: str = Field("", max_length=400)


class ClientDoc(PersonDoc):
    client_id: int


class ErasedDoc(BaseModel):
    """deliveries: how many went."""

    deliveries: int


class TakenDoc(BaseModel):
    """taken: how many people are in the list now that came with the file; left: why the others were not taken."""

    taken: int
    left: list[str]


def _checked(person: PersonDoc) -> dict[str, str]:
    if person.email and not EMAIL.match(person.email):
        raise BadInput("email", f"“{person.email}” is no e-mail address: write one like name@place.example.")
    return {k: v.strip() for k, v in person.model_dump().items()}


@router.get("/clients")
def clients(porch: Porch) -> list[ClientDoc]:
    return [ClientDoc(**c) for c in people.list_clients(porch.agent)]


@router.post("/clients", status_code=201)
def add_client(porch: Porch, body: PersonDoc) -> ClientDoc:
    (number,) = people.add_clients(porch.agent, [_checked(body)])
    return ClientDoc(client_id=number, **body.model_dump())


@router.put("/clients/{client_id}")
def change_client(porch: Porch, client_id: Number, body: PersonDoc) -> ClientDoc:
    people.change_client(porch.agent, client_id, _checked(body))
    return ClientDoc(client_id=client_id, **body.model_dump())


@router.delete("/clients/{client_id}", status_code=204)
def delete_client(porch: Porch, client_id: Number) -> None:
    people.delete_client(porch.agent, client_id)


@router.post("/clients/{client_id}/erase")
def erase_client(porch: Porch, client_id: Number) -> ErasedDoc:
    """A client for good: with what was delivered to them, its messages and links, and their name in workups."""
    return ErasedDoc(deliveries=erasing.erase_client(porch.agent, client_id))


@router.post("/clients/file")
async def bring_in_clients(porch: Porch, request: Request) -> TakenDoc:
    """People from a vCard or CSV file, sent as the body."""
    data = await read_body(request, MOST_BYTES, remedy="split it")
    found = await run_in_threadpool(read_people, data)
    return TakenDoc(taken=len(await run_in_threadpool(people.add_clients, porch.agent, found.people)), left=found.left)


@router.post("/workups/{workup_id}/deliveries", status_code=201)
def deliver_report(porch: Porch, request: Request, workup_id: Number, body: DeliverAsk) -> DeliveryDoc:
    """Freeze the report as it is now and keep it; with an e-mail address it is sent."""
    return _told(porch, deliver(porch.agent, workup_id, body, _link_base(porch, request)))


def _link_base(porch: Porch, request: Request) -> str | None:
    """The service's address, where who reads by a link needs no account but others do."""
    return str(request.base_url) if accounts.somebody_signs_in(porch.state.porch) else None


def _told(porch: Porch, number: int) -> DeliveryDoc:
    porch.state.schedule.wake()
    return next(DeliveryDoc(**d) for d in delivering.deliveries(porch.agent) if d["delivery_id"] == number)


@router.get("/workups/{workup_id}/deliveries")
def deliveries_of_workup(porch: Porch, workup_id: Number) -> list[DeliveryDoc]:
    return [DeliveryDoc(**d) for d in delivering.deliveries(porch.agent, workup_id)]


@router.get("/deliveries")
def deliveries(porch: Porch, workup_id: AskedNumber = None) -> list[DeliveryDoc]:
    return [DeliveryDoc(**d) for d in delivering.deliveries(porch.agent, workup_id)]


@router.post("/deliveries/{delivery_id}/copy", status_code=201)
def deliver_copy(porch: Porch, request: Request, delivery_id: Number, body: DeliverAsk) -> DeliveryDoc:
    """The same papers once more, to the same people or to others."""
    return _told(porch, delivering.deliver_copy(porch.agent, delivery_id, body, _link_base(porch, request)))


@router.get("/deliveries/{delivery_id}/changes/{other_id}")
def compare(porch: Porch, delivery_id: Number, other_id: Number) -> list[ChangeDoc]:
    """What changed from one delivery to another."""
    return delivering.compared(porch.agent, delivery_id, other_id)


@router.post("/deliveries/{delivery_id}/again", status_code=204)
def try_again(porch: Porch, delivery_id: Number) -> None:
    """Send a message that waits."""
    send_again(porch.agent, delivery_id)
    porch.state.schedule.wake()


@router.get("/deliveries/{delivery_id}/paper.{form}", response_class=Response)
def delivered_paper(porch: Porch, delivery_id: Number, form: Literal["pdf", "html", "eml", "json"]) -> Response:
    """A delivered paper, just as it went out."""
    data = delivering.delivered_paper(porch.agent, delivery_id, form)
    shown = "inline" if form == "pdf" else "attachment"
    return Response(
        data,
        media_type=MEDIA[form],
        headers={"Content-Disposition": f'{shown}; filename="delivered-{delivery_id}.{form}"'},
    )
