"""What is dear to work out and asked for again: kept under explicit keys, so many and no more."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterable
from typing import Any, TypeVar

T = TypeVar("T")


class Memo:
    """Values by key, the `most` newest asked for; each is made once, however many threads ask for it meanwhile.

    A key says all that its value depends on, beside what the owner of the memo stands for. What fails is not kept.
    Copies of a memo share what it holds: forked children and `dataclasses.replace` go on with it.

    >>> Memo(2).get(("twice", 4), lambda: 8)
    8
    """

    def __init__(self, most: int) -> None:
        self.most = most
        self._made: OrderedDict[Hashable, Any] = OrderedDict()
        self._making: dict[Hashable, threading.RLock] = {}
        self._lock = threading.Lock()

    def __len__(self) -> int:
        return len(self._made)

    def kept(self) -> list[Hashable]:
        """The keys of what is kept, what was asked for longest ago first."""
        with self._lock:
            return list(self._made)

    def peek(self, key: Hashable, otherwise: T) -> T:
        """What is kept under the key, else the other; nothing is made, and nobody waits."""
        with self._lock:
            if key in self._made:
                self._made.move_to_end(key)
                otherwise = self._made[key]
            return otherwise

    def held(self) -> list[tuple[Hashable, Any]]:
        """What is kept, each with its key, what was asked for longest ago first."""
        with self._lock:
            return list(self._made.items())

    def clear(self) -> None:
        """Keep nothing of it any more; what is asked for again is made again."""
        with self._lock:
            self._made.clear()

    def take(self, made: Iterable[tuple[Hashable, Any]]) -> None:
        """Keep what was made elsewhere; what is kept already stays."""
        with self._lock:
            for key, value in made:
                self._made.setdefault(key, value)
            while len(self._made) > self.most:
                self._made.popitem(last=False)

    def put(self, key: Hashable, value: Any) -> None:
        """Keep this under the key, whatever was kept there."""
        with self._lock:
            self._made[key] = value
            while len(self._made) > self.most:
                self._made.popitem(last=False)

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        """What is kept under the key, else what `make` gives; whatever it raises goes to all who wait for it in turn."""
        with self._lock:
            if key in self._made:
                self._made.move_to_end(key)
                held: T = self._made[key]
                return held
            turn = self._making.setdefault(key, threading.RLock())
        with turn:
            with self._lock:
                if key in self._made:
                    held = self._made[key]
                    return held  # noqa: RET504
            try:
                made = make()
                self.put(key, made)
                return made
            finally:
                with self._lock:
                    self._making.pop(key, None)

    def __reduce__(self) -> tuple[Any, ...]:
        return Memo, (self.most,)  # what is kept stays behind where its owner is sent to another process
