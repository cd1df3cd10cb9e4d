"""What other pages of the web, and names that are not ours, are refused; and what every answer carries."""

from __future__ import annotations

import re

import pytest
from fastapi.testclient import TestClient

from rain_porch.api.app import WEB, create_app
from tests.conftest import LOCAL

ELSEWHERE = "https://place.example"


@pytest.fixture(scope="module")
def client(tmp_path_factory):
    return TestClient(create_app(tmp_path_factory.mktemp("porch"), hosts=["porch.office.example"]), base_url=LOCAL)


@pytest.mark.parametrize(
    "host", ["127.0.0.1", "127.0.0.1:8040", "localhost:8040", "[::1]:8040", "10.0.0.7", "porch.office.example:443"]
)
def test_it_answers_to_its_addresses_and_to_the_names_it_was_told(client, host):
    assert client.get("/api/health", headers={"host": host}).status_code == 200


@pytest.mark.parametrize(
    "host",
    ["rebound.example", "rebound.example:8040", "localhost.evil.example", "127.0.0.1.evil.example", "office.example", "", "@127.0.0.1",
     "localhost/x", "2130706433.example", "a" * 300],
)  # fmt: skip
@pytest.mark.parametrize("path", ["/api/workups", "/", "/assets/x.js"])
def test_a_name_that_points_here_is_not_answered(client, host, path):
    """A page that had its own name point to this machine would else read everything."""
    answer = client.get(path, headers={"host": host})
    assert answer.status_code == 421 and "RAIN_PORCH_HOSTS" in answer.json()["message"]


CHANGING = [
    ("POST", "/api/records/imports/1/undo"), ("POST", "/api/workups"), ("DELETE", "/api/workups/1"), ("PUT", "/api/columns"),
]  # fmt: skip


@pytest.mark.parametrize(("method", "path"), CHANGING)
@pytest.mark.parametrize(
    "headers",
    [{"origin": ELSEWHERE}, {"origin": "null"}, {"origin": "http://127.0.0.1:9999"}, {"sec-fetch-site": "cross-site"},
     {"sec-fetch-site": "same-site"}, {"origin": LOCAL, "sec-fetch-site": "cross-site"}],
)  # fmt: skip
def test_no_other_page_changes_anything(client, method, path, headers):
    answer = client.request(method, path, headers=headers)
    assert answer.status_code == 403 and "Another page" in answer.json()["message"]


@pytest.mark.parametrize(
    "headers", [{}, {"origin": LOCAL}, {"origin": LOCAL, "sec-fetch-site": "same-origin"}, {"sec-fetch-site": "none"}]
)
def test_its_own_page_and_programs_do(client, headers):
    assert client.post("/api/records/imports/1/undo", headers=headers).status_code == 404, "asked, and there is none"


def test_every_operation_that_changes_is_guarded(client):
    """From the service's own description, so that a new one cannot be forgotten."""
    operations = [
        (method.upper(), re.sub(r"\{[^}]*\}", "1", path))
        for path, methods in client.get("/openapi.json").json()["paths"].items()
        for method in methods
        if method.upper() not in ("GET", "HEAD", "OPTIONS")
    ]
    assert len(operations) > 40
    for method, path in operations:
        assert client.request(method, path, headers={"origin": ELSEWHERE}).status_code == 403, (method, path)


@pytest.mark.parametrize(
    "path", ["/", "/api/health", "/api/workups", "/api/nothing", "/api/docs", "/openapi.json", "/settings"]
)
def test_every_answer_says_how_it_may_be_used(client, path):
    headers = client.get(path).headers
    assert headers["x-content-type-options"] == "nosniff" and headers["referrer-policy"] == "same-origin"
    assert headers["cross-origin-resource-policy"] == headers["cross-origin-opener-policy"] == "same-origin"
    if path.startswith("/api/"):
        assert headers["cache-control"] == "no-store"


def test_an_address_of_the_service_that_is_none_is_no_page(client):
    answer = client.get("/api/nothing/at/all")
    assert answer.status_code == 404 and "/api/docs" in answer.json()["message"]


@pytest.mark.skipif(
    not (WEB / "index.html").is_file(), reason="the interface is not built here: make test builds it first"
)
def test_the_page_runs_its_own_scripts_alone_and_stands_in_no_frame(client):
    one, two = client.get("/"), client.get("/settings")
    policy = one.headers["content-security-policy"]
    told = dict(part.strip().split(" ", 1) for part in policy.split(";"))
    assert (
        told["script-src"] == "'self'" and told["frame-ancestors"] == told["object-src"] == told["base-uri"] == "'none'"
    )
    assert "unsafe" not in policy and "http" not in policy
    (nonce,) = re.findall(r"'nonce-([^']+)'", told["style-src"])
    assert f'<style nonce="{nonce}">' in one.text and "{nonce}" not in one.text
    assert nonce not in two.headers["content-security-policy"], "each answer has its own"
    assert not re.findall(r"<script(?![^>]*src=)", one.text)


def test_what_is_handed_out_as_a_page_runs_nothing_and_fetches_nothing(client):
    policy = client.get("/api/docs").headers["content-security-policy"]
    assert "default-src 'none'" in policy and "sandbox" in policy and "script" not in policy
