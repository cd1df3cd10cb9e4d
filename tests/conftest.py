"""What several tests stand on: the demo town, made once a run, and folders with a copy of its records."""

from __future__ import annotations

import datetime as dt
import os
import shutil
import sys
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import argon2
import pytest
from hypothesis import settings

from rain_porch.app.office import accounts
from rain_porch.app.office.agent import Agent, folders_agent
from rain_porch.app.pricing.wide_models import wide_model
from rain_porch.app.records import Records
from rain_porch.app.snapshot import Snapshot
from rain_porch.core.facts.homes import Subject
from rain_porch.core.facts.words import HomeKind
from rain_porch.demo.town import prepare_demo
from rain_porch.records.import_result import ImportResult
from rain_porch.records.importing import import_file

NOW = dt.datetime(2026, 11, 2, 19, 30)
LOCAL = "http://127.0.0.1"  # the service answers to no name of which it was not told
# machines are shared and noisy: how long one example takes is no fault of the code
settings.register_profile("calm", deadline=None, derandomize=True)
settings.register_profile("fuzz", deadline=None, max_examples=400, print_blob=True)
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "calm"))


# what takes a worker longest begins first, so that none works alone in the end
LONG = (
    "test_backtesting", "test_report", "test_boxes", "test_feed", "test_house_rules", "test_kills", "test_undo", "test_set_aside",
    "test_api", "test_killed", "test_kept_columns", "test_exporting", "test_stateful", "test_town", "test_changed_columns",
)  # fmt: skip


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Files that take long first, each as a whole; within a file as it is written."""
    rank = {name: k for k, name in enumerate(LONG)}
    items.sort(key=lambda item: rank.get(item.path.stem, len(LONG)))


def pytest_make_parametrize_id(val: object, argname: str) -> str | None:
    """A case is never named after bytes: those of a packed file tell the second it was made at, and two processes
    that collected a second apart would not know each other's cases."""
    return argname if isinstance(val, bytes | bytearray) else None


@pytest.fixture(scope="session", autouse=True)
def cheap_passwords() -> Iterator[None]:
    """Passwords are kept by a cost that is high on purpose; tests that look at something else take the least that there is."""
    with pytest.MonkeyPatch.context() as patched:
        patched.setattr(accounts, "HASHER", argon2.PasswordHasher(time_cost=1, memory_cost=8, parallelism=1))
        yield


@pytest.fixture(scope="session")
def demo(tmp_path_factory: pytest.TempPathFactory, worker_id: str) -> Path:
    """The demo town's folder, made once for all processes of a run, or before it (`make test`). Read only: tests that write take
    `town`."""
    if (made := os.environ.get("RAIN_PORCH_TEST_DEMO", "")) and (Path(made) / "demo.txt").is_file():
        return Path(made)
    if worker_id == "master":
        folder = tmp_path_factory.mktemp("demo")
        _make_demo(folder)
        return folder
    shared = tmp_path_factory.getbasetemp().parent
    folder, done = shared / "demo", shared / "demo-is-made"
    try:
        (shared / "demo-is-being-made").mkdir()
    except FileExistsError:
        until = time.monotonic() + 300
        while not done.exists() and time.monotonic() < until:
            time.sleep(0.1)
        return folder
    _make_demo(folder)
    done.touch()
    return folder


def _make_demo(folder: Path) -> None:
    prepare_demo(folder, with_work=False)
    held = Records(folder, today=lambda: NOW.date())
    now = held.snapshot()  # from now on its columns lie beside the records, and the model of houses
    wide_model(now, Subject({}, *now.middle(), HomeKind.DETACHED), now.effective_day(None))
    held.close()


def copy_demo(demo: Path, folder: Path) -> None:
    """The demo's records and columns, for a test that writes."""
    folder.mkdir(exist_ok=True)
    for file in (demo / "records.db", demo / "demo.txt", *demo.glob("records.[cm]*")):
        shutil.copy(file, folder / file.name)


@pytest.fixture
def town(demo: Path, tmp_path: Path) -> Path:
    """A folder of its own with the demo's records."""
    folder = tmp_path / "town"
    copy_demo(demo, folder)
    return folder


@pytest.fixture(scope="session")
def demo_records(demo: Path) -> Iterator[Snapshot]:
    records = Records(demo, today=lambda: NOW.date())
    yield records.snapshot()
    records.close()


@pytest.fixture
def agent(town: Path) -> Iterator[Agent]:
    records = Records(town, today=lambda: NOW.date())
    with folders_agent(records.snapshot(), now=lambda: NOW) as held:
        yield held
    records.close()


@pytest.fixture
def records(tmp_path: Path) -> Iterator[Records]:
    """Empty records."""
    held = Records(tmp_path / "porch", today=lambda: NOW.date())
    yield held
    held.close()


@pytest.fixture
def bring(records: Records, tmp_path: Path) -> Callable[..., ImportResult]:
    """Import text as a file into the empty records."""

    def bring_in(text: str | bytes, name: str = "file.csv", **options) -> ImportResult:
        path = tmp_path / name
        path.write_bytes(text if isinstance(text, bytes) else text.encode())
        with records.connection() as db:
            return import_file(db, path, folder=records.folder, now=NOW, **options)

    return bring_in


if __name__ == "__main__":
    _make_demo(Path(sys.argv[1]))
