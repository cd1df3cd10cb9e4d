"""What is kept under a key: made once whoever asks meanwhile, so many and no more, and never a failure."""

from __future__ import annotations

import threading
import time
from collections import Counter

import pytest

from rain_porch.core.memo import Memo


def test_a_value_is_made_once_by_however_many_threads_ask_and_others_do_not_wait_for_it():
    memo, made, got = Memo(10), Counter(), []

    def make(key: int) -> int:
        made[key] += 1
        time.sleep(0.05)
        return key * key

    threads = [
        threading.Thread(target=lambda k=k: got.append((k, memo.get(k, lambda: make(k))))) for k in [1, 2, 3] * 8
    ]
    start = time.perf_counter()
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    assert made == {1: 1, 2: 1, 3: 1} and all(v == k * k for k, v in got) and len(got) == 24
    assert time.perf_counter() - start < 24 * 0.05, "keys are made side by side"


def test_the_newest_asked_for_are_kept():
    memo = Memo(2)
    for key in (1, 2, 1, 3):
        memo.get(key, lambda key=key: [key])
    assert len(memo) == 2
    first = memo.get(1, lambda: pytest.fail("kept"))
    assert memo.get(2, lambda: "made anew") == "made anew" and first == [1]


def test_a_failure_is_told_to_all_and_kept_for_none():
    memo, tries = Memo(2), []

    def fails() -> int:
        tries.append(1)
        raise ValueError("no")

    for _ in range(2):
        with pytest.raises(ValueError, match="no"):
            memo.get("x", fails)
    assert len(tries) == 2 and len(memo) == 0 and memo.get("x", lambda: 5) == 5


def test_one_value_may_need_another():
    memo = Memo(4)
    assert memo.get("a", lambda: memo.get("b", lambda: 2) + 1) == 3


def test_what_was_made_elsewhere_is_taken_over_and_what_is_here_stays():
    memo = Memo(3)
    memo.get("here", lambda: 1)
    memo.take([("there", 2), ("here", 9)])
    assert memo.held() == [("here", 1), ("there", 2)]
    assert memo.peek("here", 0) == 1 and memo.peek("nowhere", 0) == 0 and len(memo) == 2
    memo.take([("more", 3), ("most", 4)])
    assert memo.kept() == ["here", "more", "most"], "looked at last, it stays; the oldest goes"
