"""Settings in one table: name, default, help."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path

from .core.errors import Refused

FEED_PORT = 8041  # of the stand-in for a listing feed


@dataclass(frozen=True)
class Setting:
    name: str
    default: str
    help: str


SETTINGS = (
    Setting("RAIN_PORCH_DATA", "~/.rain-porch", "folder that holds records, workups and photos"),
    Setting("RAIN_PORCH_HOST", "127.0.0.1", "address on which the application listens"),
    Setting("RAIN_PORCH_PORT", "8040", "port on which the application listens"),
    Setting(
        "RAIN_PORCH_PATH", "", "path under which a proxy offers the application, and which it takes off, such as /porch"
    ),
    Setting(
        "RAIN_PORCH_HOSTS",
        "",
        "names under which the application is opened, with commas; addresses in figures need none",
    ),
    Setting(
        "RAIN_PORCH_FEEDS_NEARBY", "", "yes: accounts may pull feeds from addresses of the office's own network too"
    ),
    Setting("RAIN_PORCH_SMTP", "", "mail server, host:port; none: messages wait in the outbox"),
    Setting("RAIN_PORCH_SMTP_SECURITY", "none", "none, starttls or tls"),
    Setting("RAIN_PORCH_SMTP_USER", "", "name at the mail server"),
    Setting("RAIN_PORCH_SMTP_PASSWORD", "", "password at the mail server"),
    Setting("RAIN_PORCH_MAIL_FROM", "", "address from which messages go out"),
)


def setting(name: str) -> str:
    """The environment's value, else the table's default."""
    return os.environ.get(name) or next(s.default for s in SETTINGS if s.name == name)


def feeds_nearby() -> bool:
    """Whether what feeds and lists name may be fetched from the office's own network too, whoever brought them in."""
    return setting("RAIN_PORCH_FEEDS_NEARBY") == "yes"


def data_folder(given: str | None) -> Path:
    return Path(given or setting("RAIN_PORCH_DATA")).expanduser()


def folder_with_records(given: str | None) -> Path:
    """The data folder of a command that only reads or changes what is there. Refused where there is none: a name that was
    mistyped makes no empty folder."""
    folder = data_folder(given)
    if not (folder / "records.db").is_file():
        what = "no records yet" if folder.is_dir() else "no such folder"
        raise Refused(
            f"{folder}: {what}. Give the folder with --data, or bring records in: rain-porch import --data {folder} FILE."
        )
    return folder
