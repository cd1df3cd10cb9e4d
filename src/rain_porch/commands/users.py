"""The command line's accounts: `rain-porch user add|list|change|password|disable|enable`, and `--user NAME`."""

from __future__ import annotations

import argparse
import datetime as dt
import getpass
import sys
from contextlib import closing
from pathlib import Path

from ..app.office import accounts, sharing
from ..core.errors import BadInput, NotAllowed, Refused
from ..documents.accounts import AccountDoc
from ..settings import folder_with_records
from ..store.db import PORCH, Database
from .telling import show


def may_change_records(folder: Path, user: str | None) -> None:
    """Raises NotAllowed for an account that may not bring records in; who names none works as the folder's owner."""
    if user is None:
        return
    with closing(Database(folder, PORCH)) as porch:
        account = accounts.account_named(porch, user)
    if not account.may_change_records:
        raise NotAllowed(f"{account.name} may not change the records: a manager can let them.")


def note_act(folder: Path, args: argparse.Namespace, act: str) -> None:
    """Keep who did what, where the folder has accounts' own things to keep it beside; what only asks is no act."""
    if getattr(args, "act", "") == "list" or getattr(args, "dry_run", False) or getattr(args, "stand_in", None):
        return
    if not (folder / f"{PORCH}.db").is_file():
        return
    of_what = f"import {args.import_id}" if args.command == "undo" else ""
    with closing(Database(folder, PORCH)) as porch:
        account = accounts.account_named(porch, args.user, disabled_too=True)
        sharing.note_act(porch, account.account_id, f"{act}, on the command line,", of_what, dt.datetime.now())


def run_user(args: argparse.Namespace) -> int:
    with closing(Database(folder_with_records(args.data), PORCH)) as porch:
        _do(porch, args)
        docs = [accounts.account_doc(a) for a in accounts.all_accounts(porch)]
        if args.act != "list":
            doc = accounts.account_doc(accounts.account_named(porch, " ".join(args.name.split()), disabled_too=True))
            return show(args, doc, f"{doc.name}: {_said(doc)}")
    lines = "\n".join(f"{d.account_id:>3}  {d.name}: {_said(d)}" for d in docs)
    return show(args, [d.model_dump() for d in docs], lines)


def _do(porch: Database, args: argparse.Namespace) -> None:
    if args.act == "list":
        return
    if not args.name:
        raise BadInput("name", f"Say whose account: rain-porch user {args.act} NAME.")
    if args.act == "add":
        name = accounts.check_name(args.name)
        # the first is the folder's own account, with all that the folder holds: else its owner could not come back
        if not accounts.somebody_signs_in(porch):
            accounts.make_first(porch, name, _password(args))
        else:
            accounts.add_account(porch, name, args.role, args.may_import, _password(args))
        return
    a = accounts.account_named(porch, args.name, disabled_too=True)
    if args.act == "password":
        accounts.set_password(porch, a.account_id, _password(args))
    else:
        accounts.change_account(porch, a.account_id, a.name, a.role, a.may_import, args.act == "disable")


def _password(args: argparse.Namespace) -> str:
    """From the first line of the standard input with --password-stdin, else typed twice, unseen."""
    if args.password_stdin:
        return sys.stdin.readline().rstrip("\r\n")
    if not sys.stdin.isatty():
        raise Refused("There is nobody to type a password: send it with --password-stdin.")
    first = getpass.getpass("Password: ")
    if first != getpass.getpass("Once more: "):
        raise Refused("The two are not the same: nothing was changed.")
    return first


def _said(a: AccountDoc) -> str:
    parts: list[str] = [a.role]
    if a.may_import and a.role == "agent":
        parts.append("brings records in")
    if not a.signs_in:
        parts.append("no password yet")
    if a.disabled:
        parts.append("disabled")
    return ", ".join(parts)
