"""Papers that a process beside makes are those that the service would make, of the workup as it is; where it cannot, the service does."""

from __future__ import annotations

import json
import subprocess
import sys
import threading
import time

import pytest

from rain_porch.app.handover import paper_process as pp
from rain_porch.app.handover.report_input import report_input
from rain_porch.app.pricing.opened import suggested
from rain_porch.app.workup.workups import open_workup
from rain_porch.core.errors import BadInput
from tests.app.workup.test_changes import begun, change


@pytest.fixture
def workup(agent):
    n = begun(agent)
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    return n


@pytest.fixture
def given(agent, workup):
    return report_input(agent, workup)


@pytest.fixture
def beside():
    """The process, ready."""
    process = pp.PaperProcess()
    process.start()
    until_ready(process)
    yield process
    process.stop()


def until_ready(process):
    until = time.monotonic() + 60
    while not process._ready:
        assert time.monotonic() < until, "it never got ready"
        time.sleep(0.05)


def page(number=1, form="svg", layout=None):
    return pp.Wanted(layout=layout, number=number, form=form)


def test_it_makes_the_same_papers_of_the_workup_as_it_is_and_leaves_to_the_service_what_it_cannot(
    agent, workup, given, beside
):
    for wanted in (page(), page(2, "png"), page(None, "html"), page(None, "html", "one_page")):
        made = beside.made(given, wanted)
        assert made is not None and made == pp.paper_made(given, wanted), wanted
    before = beside.made(given, page())
    change(agent, workup, change="set_list_price", list_price=351_000)
    changed = report_input(agent, workup)
    assert beside.made(changed, page()) == pp.paper_made(changed, page()) != before

    assert beside.made(given, page(99)) is None
    with pytest.raises(BadInput, match="There is no page 99"):
        pp.paper_made(given, page(99))
    assert beside.made(given, page()) == before, "it goes on with the next"


def test_where_it_is_killed_at_work_the_service_goes_on_and_the_next_finds_a_new_one(given, beside):
    threading.Timer(0.02, beside._beside._process.kill).start()
    for _ in range(50):
        if beside.made(given, page(2, "png")) is None:
            break
    else:
        pytest.fail("nobody noticed that it is gone")
    beside.start()
    until_ready(beside)
    assert beside.made(given, page()) == pp.paper_made(given, page())
    process = beside._beside._process
    beside.stop()
    assert process.wait(5) is not None
    assert beside.made(given, page()) is None, "a new one is not ready at once"


def test_where_there_is_no_room_for_another_process_the_service_makes_the_papers(given, monkeypatch):
    def full(*_args):
        raise OSError("no room")

    monkeypatch.setattr(pp, "Beside", full)
    process = pp.PaperProcess()
    process.start()
    assert process.made(given, page()) is None


def test_where_the_service_is_gone_before_it_is_ready_it_ends_without_a_word():
    command = [sys.executable, "-m", pp.MODULE]
    process = subprocess.Popen(
        command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True
    )
    process.stdin.write(json.dumps({}) + "\n")
    process.stdin.flush()
    process.stdout.close()
    assert process.wait(60) == 1 and process.stderr.read() == ""
