"""Which files of the photos folder porch.db names: pictures and pages of the agents' own."""

from __future__ import annotations

import re

from .db import Db

_FILE = re.compile(r"[0-9a-f]{32}\.(?:jpg|png|webp|pdf)")  # as they are named by what they hold


def named(porch: Db) -> set[str]:
    """Every file that an account has brought in, or that a workup, an earlier state of one, or a choice names."""
    out = {r[0] for r in porch.execute("SELECT name FROM own_files")}
    for text in (
        "SELECT document FROM workups",
        "SELECT document FROM workup_revisions",
        "SELECT value FROM settings",
        "SELECT document FROM kept",
    ):
        for (document,) in porch.execute(text):
            out |= set(_FILE.findall(document))
    return out
