"""Whether mail goes out: what is set up, and a message to the agent's own address."""

from __future__ import annotations

from ...core.errors import Refused
from ...documents.base import Doc
from ..office.agent import Agent
from ..office.choices import agent_card
from . import mail


class MailDoc(Doc):
    """server: host and port, "" where none is set up. to: the agent's own address on paper."""

    server: str
    sender: str
    to: str


def mail_set_up(agent: Agent) -> MailDoc:
    server = mail.Server.from_settings()
    return MailDoc(
        server=f"{server.host}:{server.port}" if server else "",
        sender=server.sender if server else "",
        to=agent_card(agent).get("email", ""),
    )


def try_mail(agent: Agent) -> str:
    """Send a message to the agent's own address; what came of it, in a sentence. Refused where something is missing or the server
    does not take it, with what to do."""
    server, card = mail.Server.from_settings(), agent_card(agent)
    if server is None:
        raise Refused("No mail server is set up: whoever runs the service sets RAIN_PORCH_SMTP to host:port.")
    if not card.get("email"):
        raise Refused("You have no mail address yet: give one on Paper, under You on paper.")
    sender = server.sender or "agent@rain-porch.invalid"
    envelope = mail.Envelope(sender, "", "", card["email"], card.get("name", ""), "Mail from Rain Porch works")
    words = f"This message was sent to see whether mail works, through {server.host}:{server.port}. It does.\n"
    mail.send(server, sender, card["email"], mail.message(envelope, words, ()))
    return f"The server took a message to {card['email']}: look whether it arrives."
