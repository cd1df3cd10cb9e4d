"""Requests that build on one another: what one answer names, the next asks for, changes and deletes; never a server error."""

from __future__ import annotations

import random
from collections import Counter
from contextlib import suppress

import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, seed, settings
from hypothesis.errors import FlakyStrategyDefinition
from hypothesis.stateful import run_state_machine_as_test

from rain_porch.api.app import create_app
from tests.conftest import LOCAL, NOW, copy_demo

CALM = settings.default.derandomize  # the cases of every day; `make fuzz` takes others, and more of them


def test_no_chain_of_requests_makes_a_server_error(demo, tmp_path):
    copy_demo(demo, tmp_path)
    app = create_app(tmp_path, now=lambda: NOW, hosts=["testserver"])
    client = TestClient(app, base_url=LOCAL)
    hit = client.get("/api/lookup", params={"text": "630 Hedgerow Terrace"}).json()["hits"][0]
    for _ in range(2):
        client.post("/api/workups", json={"kind": hit["kind"], "key": hit["key"]})
    client.post("/api/clients", json={"name": "Wilma Carrow"})
    client.post("/api/workups/1/deliveries", json={"client": "Wilma Carrow"})
    schema = schemathesis.openapi.from_asgi("/openapi.json", app)
    seen: Counter[tuple[str, str]] = Counter()
    faults: list[tuple[str, str, str]] = []

    class Chain(schema.as_state_machine()):
        def validate_response(self, response, case, **_):
            if response.status_code >= 500:
                faults.append((case.method, case.path, response.text))
            if response.status_code < 300:
                seen[(case.method, case.path)] += 1

    # one chain at a time: the service remembers what the one before has done, so that none could be made again within a run
    first = 0 if CALM else random.SystemRandom().randrange(10**6)
    for n in range(first, first + (24 if CALM else 400)):
        print(f"chain {n}")  # told where it fails
        with suppress(
            FlakyStrategyDefinition
        ):  # a chain that is begun twice meets with what it has done itself: faults are told below
            run_state_machine_as_test(
                seed(n)(Chain),
                settings=settings(
                    max_examples=1, stateful_step_count=16, deadline=None, derandomize=False, database=None,
                    suppress_health_check=list(HealthCheck), phases=[Phase.generate],
                ),
            )  # fmt: skip
        assert not faults, faults
    app.state.porch.close()
    linked = {path for _, path in seen if "{" in path}
    assert len(linked) > 8, f"chains reached few things by their number: {sorted(linked)}"
