"""Signing in: accounts with a password (Argon2id), sessions kept here, guesses slowed down, the first account.

A folder in which nobody has a password yet belongs to whoever sits at this machine: see `api/who.py`.
"""

from __future__ import annotations

import datetime as dt
import hashlib
import secrets
import threading
from functools import lru_cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from ...core.errors import BadInput, NotAllowed, NotFound, NotSignedIn
from ...documents.accounts import AccountDoc
from ...documents.base import check_line
from ...store.db import Database, Db, atomic
from ...store.porch import accounts as store
from ...store.porch.accounts import AGENT, MANAGER
from ...store.porch.accounts import Account as Account

LEAST_SIGNS, MOST_SIGNS = 10, 200  # of a password
LONGEST, IDLE = dt.timedelta(days=60), dt.timedelta(days=14)  # of a session: from its beginning, since it was seen last
SEEN_EVERY = dt.timedelta(minutes=5)
FREE_TRIES, LONGEST_WAIT = 4, dt.timedelta(minutes=5)
ROLES = (AGENT, MANAGER)
HASHER = PasswordHasher()
_one = threading.Lock()  # a password takes 64 MB to check: one at a time, however many are tried


def check_name(name: str) -> str:
    """A name for an account. Raises BadInput."""
    name = " ".join(name.split())
    check_line("name", name)
    if not 2 <= len(name) <= 80:
        raise BadInput("name", "A name has 2 to 80 signs.")
    return name


def check_password(password: str, name: str) -> str:
    """A password that is not guessed at once. Raises BadInput."""
    if not LEAST_SIGNS <= len(password) <= MOST_SIGNS:
        raise BadInput("password", f"A password has {LEAST_SIGNS} to {MOST_SIGNS} signs; several words are good.")
    if len(set(password)) < 5 or name.casefold() in password.casefold():
        raise BadInput("password", "This password is guessed at once: take several words that do not name you.")
    return password


def hashed(password: str) -> str:
    with _one:
        return HASHER.hash(password)


def _fits(password_hash: str, password: str) -> bool:
    with _one:
        try:
            return HASHER.verify(password_hash, password)
        except (VerificationError, InvalidHashError):
            return False


@lru_cache(maxsize=1)
def _nobodys() -> str:
    """A hash that no password fits: a name that is none takes as long to refuse as a wrong password."""
    return hashed(secrets.token_urlsafe(32))


# --- accounts


def add_account(porch: Database, name: str, role: str, may_import: bool, password: str) -> int:
    """A new account; its number. Raises BadInput."""
    name = check_name(name)
    _check_role(role)
    check_password(password, name)
    if store.named(porch, name):
        raise BadInput("name", f"There is an account “{name}” already: choose another name.")
    return store.add(porch, name, role, may_import or role == MANAGER, hashed(password))


def change_account(porch: Database, account_id: int, name: str, role: str, may_import: bool, disabled: bool) -> None:
    _check_role(role)
    store.change(porch, account_id, check_name(name), role, may_import or role == MANAGER, disabled)


def set_password(porch: Database, account_id: int, password: str) -> None:
    """Give an account a password; it is signed out everywhere."""
    check_password(password, store.read(porch, account_id).name)
    store.set_password(porch, account_id, hashed(password))


def change_own_password(porch: Database, account: Account, old: str, new: str, now: dt.datetime) -> str:
    """Another password of one's own: all sessions end, and the text of a new one's cookie is returned. Raises BadInput where
    the old one is another; guesses at it are slowed down like those at the door."""
    key = _key(account.name)
    _count(porch, key, now)
    if account.password_hash is not None and not _fits(account.password_hash, old):
        raise BadInput("old", "That is not your password as it is now.")
    store.forget_failures(porch, key)
    set_password(porch, account.account_id, new)
    return begin_session(porch, account, now)


def make_first(porch: Database, name: str, password: str) -> Account:
    """Give the folder's own account its name and password. Raises NotAllowed where somebody has one already."""
    name = check_name(name)
    check_password(password, name)
    made = hashed(password)
    with atomic(porch):
        if store.any_password(porch):
            raise NotAllowed("The first account is made already: sign in, or ask the office's manager for one.")
        owner = store.listed(porch)[0].account_id
        store.change(porch, owner, name, MANAGER, True, False)
        store.set_password(porch, owner, made)
        return store.read(porch, owner)


def account_named(porch: Db, name: str | None, disabled_too: bool = False) -> Account:
    """The account of a name; the folder's own where none is given. Raises NotFound, NotAllowed for one that is disabled."""
    if name is None:
        return store.listed(porch)[0]
    found = store.named(porch, name)
    if found is None:
        known = ", ".join(a.name for a in store.listed(porch))
        raise NotFound(f"There is no account “{name}”. There are: {known}.", name=name)
    if found.disabled and not disabled_too:
        raise NotAllowed(f"The account {found.name} is disabled.")
    return found


def _check_role(role: str) -> None:
    if role not in ROLES:
        raise BadInput("role", f"“{role}” is no role: it is one of {', '.join(ROLES)}.")


def account_doc(account: Account) -> AccountDoc:
    return AccountDoc(
        account_id=account.account_id, name=account.name, role="manager" if account.is_manager else "agent",
        may_import=account.may_change_records, disabled=account.disabled, signs_in=account.password_hash is not None,
    )  # fmt: skip


def read_account(porch: Db, account_id: int) -> Account:
    """Raises NotFound."""
    return store.read(porch, account_id)


def all_accounts(porch: Db) -> list[Account]:
    return store.listed(porch)


def somebody_signs_in(porch: Db) -> bool:
    """Whether anybody has a password yet."""
    return store.any_password(porch)


# --- signing in and out


def sign_in(porch: Database, name: str, password: str, now: dt.datetime) -> tuple[Account, str]:
    """The account, and the text for its cookie. Raises NotSignedIn; after some wrong guesses only later ones are looked at."""
    key = _key(name)
    _count(porch, key, now)
    account = store.named(porch, name)
    known = account.password_hash if account else None
    right = _fits(known or _nobodys(), password[: MOST_SIGNS + 1])
    if account is None or not right or account.disabled:
        raise NotSignedIn("The name or the password is not right.")
    store.forget_failures(porch, key)
    return account, begin_session(porch, account, now)


def begin_session(porch: Database, account: Account, now: dt.datetime) -> str:
    """Let an account in: the text for its cookie, of which only a digest is kept."""
    token = secrets.token_urlsafe(32)
    with atomic(porch):
        store.forget_old_sessions(porch, _text(now - LONGEST), _text(now - IDLE))
        store.begin_session(porch, digest(token), account.account_id, _text(now))
    return token


def _key(name: str) -> str:
    return name.strip().casefold()[:80]


def wait_after(failures: int) -> dt.timedelta:
    """How long after so many failures in a row the next guess is looked at: not at all, then 2, 4, 8 … seconds."""
    if failures <= FREE_TRIES:
        return dt.timedelta(0)
    return min(dt.timedelta(seconds=2 ** min(failures - FREE_TRIES, 20)), LONGEST_WAIT)


def _count(porch: Database, key: str, now: dt.datetime) -> None:
    """Count a guess before it is looked at, so that many at once are slowed down as those one after the other; a right one is
    forgotten. Raises NotSignedIn where the last was too short a while ago."""
    with atomic(porch):
        failed = store.failures(porch, key)
        if failed is not None:
            until = dt.datetime.fromisoformat(failed[1]) + wait_after(failed[0])
            if now < until:
                seconds = round((until - now).total_seconds()) + 1
                raise NotSignedIn(f"Too many wrong guesses: wait {seconds} seconds and try again.", wait=seconds)
        store.note_failure(porch, key, _text(now))


def is_code(porch: Database, given: str, code: str, what: str, now: dt.datetime) -> bool:
    """Whether the code is right; wrong ones slow down the next, counted under `what`. Raises NotSignedIn."""
    _count(porch, what, now)
    right = secrets.compare_digest(given.strip().upper().encode("utf-8", "replace"), code.encode())
    if right:
        store.forget_failures(porch, what)
    return right


def account_of(porch: Database, token: str, now: dt.datetime) -> Account | None:
    """The account whose session this is; None for one that ran out or was ended."""
    found = store.session(porch, digest(token), _text(now - LONGEST), _text(now - IDLE))
    if found is None:
        return None
    account, seen = found
    if now - dt.datetime.fromisoformat(seen) > SEEN_EVERY:
        store.see_session(porch, digest(token), _text(now))
    return account


def sign_out(porch: Database, token: str) -> None:
    store.end_session(porch, digest(token))


def sign_out_everywhere(porch: Database, account_id: int) -> None:
    store.end_sessions(porch, account_id)


def digest(token: str) -> str:
    """What is kept of a random text, so that the file alone opens nothing."""
    return hashlib.sha256(token.encode("utf-8", "replace")).hexdigest()


def _text(moment: dt.datetime) -> str:
    return moment.isoformat(timespec="seconds")
