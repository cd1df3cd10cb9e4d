"""How a feed is asked: one page at a time, tried again, at its own addresses alone."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Protocol
from urllib.parse import urlsplit

from ...core.errors import Refused
from ...core.intake.parsing import written

TRIES, WAIT_SECONDS, MAX_PAGES = 4, 0.5, 20_000


class Get(Protocol):
    """One request: (address, headers) → (status, JSON body or None). Raises OSError where nothing answers."""

    def __call__(self, url: str, headers: Mapping[str, str]) -> tuple[int, Any]: ...


class GetData(Protocol):
    """One request: (address, headers) → (status, what was answered as it is). Raises OSError where nothing answers."""

    def __call__(self, url: str, headers: Mapping[str, str]) -> tuple[int, bytes]: ...


class NotKnown(Refused):
    """The feed does not know what it was asked for: it was asked well, or not at all."""


@dataclass(frozen=True)
class Asking:
    """A feed's address with its token, and how it is asked."""

    address: str
    token: str
    get: Get
    wait: Callable[[float], None] = time.sleep

    @property
    def headers(self) -> dict[str, str]:
        return {"Authorization": f"Bearer {self.token}", "Accept": "application/json"}

    def pages(self, url: str) -> Iterator[tuple[list[dict[str, Any]], str | None]]:
        """(rows, the next page's address) of a page and all that follow it."""
        for _ in range(MAX_PAGES):
            body = self._page(url)
            following = body.get("@odata.nextLink")
            if following and not lies_within(str(following), self.address):
                raise Refused(f"The feed's next page lies elsewhere ({str(following)[:80]}): it is not followed.")
            yield body["value"], str(following) if following else None
            if not following:
                return
            url = str(following)

    def _page(self, url: str) -> dict[str, Any]:
        """One page; tried again, later each time, when the feed is busy or does not answer."""
        why = ""
        for attempt in range(TRIES):
            if attempt:
                self.wait(WAIT_SECONDS * 2**attempt)
            try:
                status, body = self.get(url, self.headers)
            except OSError as error:
                why = f"does not answer ({error})"
                continue
            if status in (401, 403):
                raise Refused("The feed does not let us in: check the token.")
            if status == 429 or status >= 500:
                why = f"is busy (answer {status})"
                continue
            if status in (400, 501):
                raise NotKnown(f"The feed does not know what it was asked for (answer {status}): check its address.")
            if status != 200 or not isinstance(body, dict) or not isinstance(body.get("value"), list):
                raise Refused(f"The feed sent no page of listings (answer {status}): check its address.")
            if not all(isinstance(row, dict) for row in body["value"]):
                raise Refused("The feed sent something that is no listing: check its address.")
            return body
        raise Refused(f"The feed {why}, {TRIES} times over. What came so far is kept: pull again to go on from there.")


def key_of(row: Mapping[str, Any]) -> str:
    """A row's listing number as the import has it: 1234.0 is 1234; "" for none."""
    key = row.get("ListingId")
    return "" if key is None else written(key) if isinstance(key, float) else str(key).strip()


def lies_within(url: str, address: str) -> bool:
    """Whether an address is of the very origin (scheme, host and port) and under the path for which the token was given."""
    usual = {"http": 80, "https": 443}
    there, here = urlsplit(url), urlsplit(address)
    try:
        same = (there.scheme, there.hostname, there.port or usual.get(there.scheme)) == (
            here.scheme, here.hostname, here.port or usual.get(here.scheme)
        )  # fmt: skip
    except ValueError:  # a port that is none
        return False
    path = here.path.rstrip("/")
    return same and (there.path == path or there.path.startswith(path + "/")) and "/../" not in there.path + "/"
