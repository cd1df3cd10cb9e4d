"""Settings in one table: name, default, help."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path


@dataclass(frozen=True)
class Setting:
    name: str
    default: str
    help: str


SETTINGS = (
    Setting("RAIN_PORCH_DATA", "~/.rain-porch", "folder that holds records, workups and photos"),
    Setting("RAIN_PORCH_HOST", "127.0.0.1", "address on which the application listens"),
    Setting("RAIN_PORCH_PORT", "8040", "port on which the application listens"),
)


def setting(name: str) -> str:
    """The environment's value, else the table's default."""
    return os.environ.get(name) or next(s.default for s in SETTINGS if s.name == name)


def data_folder(given: str | None) -> Path:
    return Path(given or setting("RAIN_PORCH_DATA")).expanduser()
