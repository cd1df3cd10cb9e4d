"""The one place from which the application asks another machine for something."""

from __future__ import annotations

import ipaddress
import json
import socket
from collections.abc import Mapping
from typing import Any

from ...core.errors import Refused

SECONDS, MAX_BYTES = 30.0, 50_000_000


def fetch(url: str, headers: Mapping[str, str]) -> tuple[int, Any]:
    """GET a JSON document: (status, body), the body None where it is no JSON. OSError where nothing answers."""
    return _json(_fetched(url, headers, None))


def fetch_from_afar(url: str, headers: Mapping[str, str]) -> tuple[int, Any]:
    """The same, but never from a machine of the office's own network, nor from this one: whoever asks sits elsewhere, and shall
    not look into it through us. What counts is the address that is connected to, whatever name leads there."""
    return _json(_fetched(url, headers, _transport()))


def fetch_data(url: str, headers: Mapping[str, str]) -> tuple[int, bytes]:
    """GET something as it is, a picture say: (status, its bytes). OSError where nothing answers."""
    return _fetched(url, headers, None)


def fetch_data_from_afar(url: str, headers: Mapping[str, str]) -> tuple[int, bytes]:
    """The same, never from the office's own network."""
    return _fetched(url, headers, _transport())


def line(nearby: bool) -> dict[str, Any]:
    """What a pull of a feed asks through: {get, get_data}. nearby: machines of the office's own network too."""
    return {
        "get": fetch if nearby else fetch_from_afar,
        "get_data": fetch_data if nearby else fetch_data_from_afar,
    }


def _json(answer: tuple[int, bytes]) -> tuple[int, Any]:
    try:
        return answer[0], json.loads(answer[1])
    except ValueError:
        return answer[0], None


def _transport() -> Any:
    import httpcore
    import httpx

    transport = httpx.HTTPTransport()
    transport._pool = httpcore.ConnectionPool(ssl_context=httpx.create_ssl_context(), network_backend=_afar())
    return transport


def _afar() -> Any:
    """Connections to addresses of the public net alone."""
    import httpcore

    class Afar(httpcore.SyncBackend):
        def connect_tcp(self, host: str, port: int, *args: Any, **options: Any) -> httpcore.NetworkStream:
            found = {str(x[4][0]) for x in socket.getaddrinfo(host, port, type=socket.SOCK_STREAM)}
            if not found or not all(ipaddress.ip_address(x).is_global for x in found):
                raise Refused(
                    f"{host} is on a private network: whoever runs Rain Porch can allow feeds from there with "
                    "RAIN_PORCH_FEEDS_NEARBY=yes."
                )
            return super().connect_tcp(sorted(found)[0], port, *args, **options)

    return Afar()


def _fetched(url: str, headers: Mapping[str, str], transport: Any) -> tuple[int, bytes]:
    import httpx  # here and below: a large package that most runs of the application never need

    try:
        with (
            httpx.Client(
                transport=transport, timeout=SECONDS, follow_redirects=False, trust_env=transport is None
            ) as asking,
            asking.stream("GET", url, headers=dict(headers)) as answer,
        ):
            data = b""
            for part in answer.iter_bytes():
                data += part
                if len(data) > MAX_BYTES:
                    raise OSError(f"an answer of more than {MAX_BYTES // 1_000_000} MB")
    except (httpx.HTTPError, httpx.InvalidURL, UnicodeError) as error:
        raise OSError(str(error) or type(error).__name__) from None
    return answer.status_code, data


def post(url: str, token: str) -> None:
    """POST without a body, with a token. Refused where nothing answers or the answer is no success."""
    import httpx

    try:
        answer = httpx.post(url, headers={"Authorization": f"Bearer {token}"}, timeout=SECONDS)
    except (httpx.HTTPError, httpx.InvalidURL) as error:
        raise Refused(f"{url} does not answer: {error}.") from None
    if not answer.is_success:
        raise Refused(f"{url} answers {answer.status_code}: check the address and the token.")
