"""Messages: made by the standard library, sent through the mail server that the settings name."""

from __future__ import annotations

import smtplib
import ssl
from collections.abc import Sequence
from dataclasses import dataclass
from email.errors import MessageError
from email.headerregistry import Address
from email.message import EmailMessage
from email.policy import SMTP
from email.utils import formataddr, formatdate, make_msgid

from ...core.errors import BadInput, Refused
from ...core.phrases import phrase
from ...records.contacts import EMAIL
from ...settings import setting

TIMEOUT_SECONDS = 15.0


class NotNow(Refused):
    """The message could not go out, but may later."""


NOBODY = "agent@rain-porch.invalid"  # from whom a message is where the settings name nobody


@dataclass(frozen=True)
class Server:
    """Where messages go out. security: "none", "starttls" or "tls"."""

    host: str
    port: int
    user: str = ""
    password: str = ""
    security: str = "none"
    sender: str = ""

    @classmethod
    def from_settings(cls) -> Server | None:
        """The server of the settings; None where none is set up."""
        address = setting("RAIN_PORCH_SMTP")
        if not address:
            return None
        host, _, port = address.rpartition(":")
        if not host or not port.isdigit():
            raise BadInput("RAIN_PORCH_SMTP", f"“{address}” is no mail server: write host:port.")
        return cls(
            host, int(port), setting("RAIN_PORCH_SMTP_USER"), setting("RAIN_PORCH_SMTP_PASSWORD"),
            setting("RAIN_PORCH_SMTP_SECURITY"), setting("RAIN_PORCH_MAIL_FROM"),
        )  # fmt: skip


def sender() -> str:
    """The address from which messages go out."""
    server = Server.from_settings()
    return (server.sender if server else "") or NOBODY


def check_address(text: str) -> str:
    """An e-mail address, checked. Raises BadInput."""
    if not EMAIL.match(text) or len(text) > 254 or text.index("@") > 64:
        raise BadInput("email", f"“{text}” is no e-mail address: write one like name@place.example.")
    return text


@dataclass(frozen=True)
class Envelope:
    """From whom to whom. answers_to: where an answer goes, the sender's where it is empty."""

    sender: str
    sender_name: str
    answers_to: str
    to: str
    to_name: str
    subject: str


Attached = Sequence[tuple[bytes, str, str]]  # (data, kind: pdf or html, file name)
_TYPES = {"pdf": ("application", "pdf"), "html": ("text", "html")}


def message(envelope: Envelope, words: str, attached: Attached) -> bytes:
    """A message with papers attached, as .eml: plain words, the papers after them."""
    try:
        return _made(envelope, words, attached)
    except (ValueError, MessageError) as error:
        raise BadInput(
            "email", f"No message can be written to “{envelope.to}”: {error}. Check the address and the name."
        ) from error


def _made(envelope: Envelope, words: str, attached: Attached) -> bytes:
    mail = EmailMessage(policy=SMTP)
    name, sender = envelope.sender_name, envelope.sender
    mail["From"] = formataddr((name, sender)) if name else sender
    local, _, domain = envelope.to.rpartition("@")
    mail["To"] = Address(_line(envelope.to_name), local, domain)
    if envelope.answers_to:
        mail["Reply-To"] = formataddr((name, envelope.answers_to)) if name else envelope.answers_to
    mail["Subject"] = _line(envelope.subject)
    mail["Date"] = formatdate(localtime=True)
    mail["Message-ID"] = make_msgid(domain="rain-porch.invalid")
    mail.set_content(words if words.endswith("\n") else words + "\n")
    for data, kind, file in attached:
        main, sub = _TYPES[kind]
        mail.add_attachment(data, maintype=main, subtype=sub, filename=file)
    return mail.as_bytes()


def letter(reader: str, words: str, name: str) -> str:
    """A letter as it goes out: who it is to, where that is known, what it says, and who writes."""
    hello = f"{phrase('mail-hello', reader=reader.strip())}\n\n" if reader.strip() else ""
    return f"{hello}{words}\n\n{name}\n"


def _line(text: str) -> str:
    return " ".join(text.split())


def send(server: Server, sender: str, to: str, data: bytes) -> None:
    """Hand a message to the server. Raises Refused with what went wrong and what to do, NotNow where trying later may help."""
    try:
        kind = smtplib.SMTP_SSL if server.security == "tls" else smtplib.SMTP
        with kind(server.host, server.port, timeout=TIMEOUT_SECONDS) as smtp:
            if server.security == "starttls":
                smtp.starttls(context=ssl.create_default_context())
            if server.user:
                smtp.login(server.user, server.password)
            smtp.sendmail(sender, [to], data)
    except smtplib.SMTPRecipientsRefused as error:
        code, said = next(iter(error.recipients.values()))
        raise Refused(
            f"The mail server does not take mail for {to}: {code} {_said(said)}. Check the address."
        ) from error
    except smtplib.SMTPAuthenticationError as error:
        raise Refused("The mail server does not accept the name and password of the settings.") from error
    except smtplib.SMTPResponseException as error:
        kind_of_no = NotNow if 400 <= error.smtp_code < 500 else Refused
        raise kind_of_no(
            f"The mail server refused the message: {error.smtp_code} {_said(error.smtp_error)}."
        ) from error
    except UnicodeError as error:
        raise Refused(f"The mail server takes no address like {to}: use one in plain letters.") from error
    except (OSError, smtplib.SMTPException) as error:
        where = f"{server.host}:{server.port}"
        if isinstance(error, TimeoutError) or "timed out" in str(error):
            raise NotNow(
                f"The mail server {where} did not answer in {TIMEOUT_SECONDS:g} s: try again later."
            ) from error
        raise NotNow(f"The mail server {where} cannot be reached: try again later.") from error


def _said(text: bytes | str) -> str:
    return text.decode("utf-8", "replace") if isinstance(text, bytes) else str(text)
