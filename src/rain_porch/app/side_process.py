"""Work done beside the application by a process of its own, told in JSON lines: the application stays quick meanwhile."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import threading
from collections.abc import Callable, Mapping
from typing import Any

Step = dict[str, Any]


class Beside:
    """A module run as a program: it is given one JSON line, and tells of itself in JSON lines until it ends.

    told: called with each line, from a thread of its own. ended: called once, when the process is gone.
    """

    def __init__(
        self, module: str, task: Mapping[str, Any], told: Callable[[Step], None], ended: Callable[[], None]
    ) -> None:
        self._process = subprocess.Popen(
            [sys.executable, "-m", module], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True, encoding="utf-8"
        )
        self.say(json.dumps(task))
        threading.Thread(target=self._follow, args=(told, ended), daemon=True).start()

    def say(self, line: str) -> None:
        """Give it one more line; nothing happens where it has gone already."""
        try:
            if self._process.stdin:
                self._process.stdin.write(line + "\n")
                self._process.stdin.flush()
        except OSError:
            return

    def stop(self, grace_seconds: float = 0.5) -> None:
        """Let it stop by itself where it waits for a line, else end it."""
        if self._process.poll() is None:
            if self._process.stdin:
                self._process.stdin.close()
            try:
                self._process.wait(grace_seconds)
            except subprocess.TimeoutExpired:
                self._process.kill()
                self._process.wait()

    def _follow(self, told: Callable[[Step], None], ended: Callable[[], None]) -> None:
        for line in self._process.stdout or ():
            told(json.loads(line))
        self._process.wait()
        ended()


def say(**step: Any) -> None:
    """One line of a process that runs beside. Where nobody listens any longer, it ends without a word."""
    try:
        print(json.dumps(step, ensure_ascii=False, default=str), flush=True)
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())  # what is left to be written goes nowhere
        raise SystemExit(1) from None
