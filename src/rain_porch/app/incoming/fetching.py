"""The one place from which the application asks another machine for something."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from ...core.errors import Refused

SECONDS, MAX_BYTES = 30.0, 50_000_000


def fetch(url: str, headers: Mapping[str, str]) -> tuple[int, Any]:
    """GET a JSON document: (status, body), the body None where it is no JSON. OSError where nothing answers."""
    import httpx  # here and below: a large package that most runs of the application never need

    try:
        with httpx.stream("GET", url, headers=dict(headers), timeout=SECONDS, follow_redirects=False) as answer:
            data = b""
            for part in answer.iter_bytes():
                data += part
                if len(data) > MAX_BYTES:
                    raise OSError(f"an answer of more than {MAX_BYTES // 1_000_000} MB")
    except (httpx.HTTPError, httpx.InvalidURL) as error:
        raise OSError(str(error) or type(error).__name__) from None
    try:
        return answer.status_code, json.loads(data)
    except ValueError:
        return answer.status_code, None


def post(url: str, token: str) -> None:
    """POST without a body, with a token. Refused where nothing answers or the answer is no success."""
    import httpx

    try:
        answer = httpx.post(url, headers={"Authorization": f"Bearer {token}"}, timeout=SECONDS)
    except (httpx.HTTPError, httpx.InvalidURL) as error:
        raise Refused(f"{url} does not answer: {error}.") from None
    if not answer.is_success:
        raise Refused(f"{url} answers {answer.status_code}: check the address and the token.")
