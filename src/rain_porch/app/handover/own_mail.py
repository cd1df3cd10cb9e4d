"""Messages to the agent's own address: what is set up to send them, and whether it works."""

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


def write_to_oneself(agent: Agent, subject: str, words: str) -> str:
    """Send a message to the agent's own address, which is answered. Refused where something is missing or the server does not take it,
    with what to do; NotNow where trying later may help."""
    server, card = mail.Server.from_settings(), agent_card(agent)
    if server is None:
        raise Refused("No mail server is set up: whoever runs the service sets RAIN_PORCH_SMTP to host:port.")
    if not card.get("email"):
        raise Refused("You have no mail address yet: give one on Paper, under You on paper.")
    envelope = mail.Envelope(mail.sender(), "", "", card["email"], card.get("name", ""), subject)
    mail.send(server, envelope.sender, envelope.to, mail.message(envelope, words, ()))
    return envelope.to


def try_mail(agent: Agent) -> str:
    """Send a message to the agent's own address to see whether mail works; what came of it, in a sentence. Raises as
    `write_to_oneself` does."""
    to = write_to_oneself(
        agent, "Mail from Rain Porch works", "This message was sent to see whether mail works. It does.\n"
    )
    return f"The server took a message to {to}: look whether it arrives."
