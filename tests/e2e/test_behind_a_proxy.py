"""Behind a proxy, under a path, over TLS: all that a page asks for is found there, and the cookie goes over TLS alone."""

from __future__ import annotations

import re
import socket
import subprocess
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import Server
from tests.e2e.test_evening import find_home, room
from tests.e2e.test_office import PASSWORD

# as docs/serving.md has it, but for the test's own folders and ports
CONFIGURATION = """
daemon off; pid {folder}/nginx.pid; error_log {folder}/error.log; worker_processes 1;
events {{ worker_connections 64; }}
http {{
  access_log off; client_body_temp_path {folder}/body; proxy_temp_path {folder}/proxy;
  fastcgi_temp_path {folder}/f; uwsgi_temp_path {folder}/u; scgi_temp_path {folder}/s;
  server {{
    listen 127.0.0.1:{port} ssl;
    ssl_certificate {folder}/cert.pem; ssl_certificate_key {folder}/key.pem;
    client_max_body_size 0; proxy_request_buffering off;
    location /porch/ {{
      proxy_pass http://127.0.0.1:{behind}/;
      proxy_set_header Host $http_host;
      proxy_set_header X-Forwarded-Proto $scheme;
      proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
    }}
  }}
}}
"""


@pytest.fixture
def proxied(town: Path, tmp_path: Path) -> Iterator[tuple[Server, str]]:
    """The service on this machine alone, which nginx offers at https://…/porch/."""
    server = Server(town)
    server.path = "/porch"
    server.start()
    folder = tmp_path / "nginx"
    folder.mkdir(mode=0o755)
    subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=127.0.0.1",
         "-keyout", str(folder / "key.pem"), "-out", str(folder / "cert.pem")],
        check=True, capture_output=True,
    )  # fmt: skip
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        port = s.getsockname()[1]
    written = CONFIGURATION.format(folder=folder, port=port, behind=server.port)
    (folder / "nginx.conf").write_text(written, encoding="utf-8")
    process = subprocess.Popen(["/usr/sbin/nginx", "-p", str(folder), "-c", str(folder / "nginx.conf"), "-e", "stderr"])
    for _ in range(100):
        with socket.socket() as s:
            if s.connect_ex(("127.0.0.1", port)) == 0:
                break
        time.sleep(0.1)
    yield server, f"https://127.0.0.1:{port}/porch/"
    process.terminate()
    process.wait(10)
    server.stop()


def test_the_whole_stands_behind_a_proxy_under_a_path_over_tls(browser: Browser, proxied: tuple[Server, str]) -> None:
    server, address = proxied
    context = browser.new_context(
        ignore_https_errors=True, viewport={"width": 1280, "height": 800}, accept_downloads=True
    )
    page: Page = context.new_page()
    page.set_default_timeout(30_000)
    beside: list[str] = []
    page.on("request", lambda r: beside.append(r.url) if not r.url.startswith((address, "data:", "blob:")) else None)
    missing: list[str] = []
    page.on("response", lambda r: missing.append(f"{r.status} {r.url}") if r.status in (403, 404, 421) else None)

    # nobody who comes through a proxy is taken for somebody at this machine
    page.goto(address)
    page.get_by_label("Code").fill(server.app.state.porch.first_code)
    page.get_by_label("Name", exact=True).fill("Iris Vole")
    page.get_by_label("Password").fill(PASSWORD)
    page.keyboard.press("Enter")
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    (cookie,) = context.cookies()
    assert (cookie["secure"], cookie["httpOnly"], cookie["path"]) == (True, True, "/porch")  # type: ignore[typeddict-item]
    page.get_by_role("button", name=re.compile("most alike")).click()
    expect(page.get_by_text("Saved: 12 homes kept")).to_be_visible()
    expect(page.get_by_role("img", name="Front of the home")).to_have_js_property("complete", True)
    room(page, "Paper")
    expect(page.get_by_role("img", name=re.compile("^Page 1"))).to_have_js_property("complete", True)
    with page.expect_download() as download:
        page.get_by_role("link", name="Download PDF").click()
    assert download.value.path().read_bytes().startswith(b"%PDF")
    page.reload()
    expect(page.get_by_role("heading", name="630 Hedgerow Terrace")).to_be_visible()
    page.get_by_role("button", name="Hand it over").click()
    page.get_by_role("button", name="I hand it over myself").click()
    page.get_by_role("button", name="links").click()
    page.get_by_role("button", name="Make a link").click()
    link = page.get_by_label("The link").input_value()
    client = browser.new_context(ignore_https_errors=True).new_page()
    client.goto(link)
    expect(client.get_by_text("630 Hedgerow Terrace").first).to_be_visible()
    assert link.startswith(f"{address}api/read/") and not beside and not missing, (beside, missing)
    context.close()
