"""Papers that a process beside makes are those that the service would make, of the workup as it is; where it cannot, the service does."""

from __future__ import annotations

import json
import subprocess
import sys
import threading
import time
from dataclasses import replace

import pytest

from rain_porch.app.handover import paper_process as pp
from rain_porch.app.pricing.opened import suggested
from rain_porch.app.records import Records
from rain_porch.app.workup.workups import open_workup
from rain_porch.core.errors import BadInput
from rain_porch.store.db import RECORDS, Database, atomic
from rain_porch.store.records.incoming.changed import new_state
from tests.app.workup.test_changes import begun, change


@pytest.fixture
def workup(agent):
    n = begun(agent)
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    return n


@pytest.fixture
def beside(agent):
    """The process, ready."""
    process = pp.PaperProcess(agent.records.folder)
    process.start()
    until_ready(process)
    yield process
    process.stop()


def until_ready(process):
    until = time.monotonic() + 60
    while not process._ready:
        assert time.monotonic() < until, "it never got ready"
        time.sleep(0.05)


def page(workup, number=1, form="svg", layout=None):
    return pp.Wanted(workup=workup, layout=layout, number=number, form=form)


def test_it_makes_the_same_papers_of_the_workup_as_it_is_and_leaves_to_the_service_what_it_cannot(
    agent, workup, beside
):
    for wanted in (page(workup), page(workup, 2, "png"), page(workup, None, "html", "one_page")):
        made = beside.made(agent, wanted)
        assert made is not None and made == pp.paper_made(agent, wanted), wanted
    before = beside.made(agent, page(workup))
    change(agent, workup, change="set_list_price", list_price=351_000)
    assert beside.made(agent, page(workup)) == pp.paper_made(agent, page(workup)) != before

    assert beside.made(agent, page(workup, 99)) is None
    with pytest.raises(BadInput, match="There is no page 99"):
        pp.paper_made(agent, page(workup, 99))
    assert beside.made(agent, page(workup)) is not None, "it goes on with the next"

    beside.prepare(agent, workup)
    beside.prepare(agent, 99)
    assert beside.made(agent, page(workup)) == pp.paper_made(agent, page(workup)), (
        "what is only prepared answers nobody"
    )

    live = Database(agent.records.folder, RECORDS)
    with atomic(live):
        new_state(live)
    live.close()
    assert beside.made(agent, page(workup)) == pp.paper_made(agent, page(workup)), "still those that the request reads"
    records = Records(agent.records.folder, today=agent.records.today)
    newer = replace(agent, records=records.snapshot())
    assert beside.made(newer, page(workup)) == pp.paper_made(newer, page(workup)), (
        "and the newer ones for who reads those"
    )
    assert beside.made(agent, page(workup)) == pp.paper_made(agent, page(workup)), (
        "of two it has both: one serves while the other gets ready"
    )
    records.close()
    live = Database(agent.records.folder, RECORDS)
    for _ in range(2):
        with atomic(live):
            new_state(live)
        newest = Records(agent.records.folder, today=agent.records.today)
        assert beside.made(replace(agent, records=newest.snapshot()), page(workup)) is not None
        newest.close()
    live.close()
    assert beside.made(agent, page(workup)) is None, "records that have gone"


def test_where_it_is_killed_at_work_the_service_goes_on_and_the_next_finds_a_new_one(agent, workup, beside):
    threading.Timer(0.02, beside._beside._process.kill).start()
    for _ in range(50):
        if beside.made(agent, page(workup, 2, "png")) is None:
            break
    else:
        pytest.fail("nobody noticed that it is gone")
    beside.start()
    until_ready(beside)
    assert beside.made(agent, page(workup)) == pp.paper_made(agent, page(workup))
    process = beside._beside._process
    beside.stop()
    assert process.wait(5) is not None
    assert beside.made(agent, page(workup)) is None, "a new one is not ready at once"


def test_where_there_is_no_room_for_another_process_the_service_makes_the_papers(agent, workup, monkeypatch):
    def full(*_args):
        raise OSError("no room")

    monkeypatch.setattr(pp, "Beside", full)
    process = pp.PaperProcess(agent.records.folder)
    process.prepare(agent, workup)
    assert process.made(agent, page(workup)) is None


def test_a_workup_is_prepared_once_for_a_version_of_the_records_however_often_it_is_opened(agent, workup, monkeypatch):
    said = []

    class Listening:
        def __init__(self, *_args):
            pass

        def say(self, line):
            said.append(line)

    monkeypatch.setattr(pp, "Beside", Listening)
    process = pp.PaperProcess(agent.records.folder)
    begun = [process.prepare(agent, workup) for _ in range(3)]
    assert len(said) == 1 and [p.done() for p in begun] == [False, True, True]
    process._ended()
    assert begun[0].done(), "nobody waits for a process that has gone"


def test_where_the_service_is_gone_before_it_is_ready_it_ends_without_a_word(town):
    command = [sys.executable, "-m", pp.MODULE]
    process = subprocess.Popen(
        command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True
    )
    process.stdin.write(json.dumps({"folder": str(town)}) + "\n")
    process.stdin.flush()
    process.stdout.close()
    assert process.wait(60) == 1 and process.stderr.read() == ""
