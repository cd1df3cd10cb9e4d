"""A large file read by a process of its own while the chunk before is checked and staged: `python -m` this module."""

from __future__ import annotations

import gc
import os
import pickle
import queue
import struct
import subprocess
import sys
import threading
from collections.abc import Generator, Iterator, Sequence
from contextlib import closing, contextmanager, suppress
from pathlib import Path
from typing import IO

from ..core.errors import RainPorchError, Refused
from .files.readers import read_table
from .mapping.mapping import Part
from .mapping.reading import Read, Reader

_LENGTH = struct.Struct(">Q")
LARGE = 4_000_000  # bytes from which a process of its own pays


@contextmanager
def read_ahead(path: Path, kind: str, parts: Sequence[Part], columns: Sequence[str]) -> Generator[Iterator[Read]]:
    """The whole file's chunks; those of a large one are read by a process of its own while the last is made use of."""
    if path.stat().st_size < LARGE:
        reader = Reader(kind, parts, columns)
        yield map(reader.read, read_table(path).chunks)
        return
    with subprocess.Popen(
        [sys.executable, "-m", "rain_porch.records.read_ahead"], stdin=subprocess.PIPE, stdout=subprocess.PIPE
    ) as process:
        assert process.stdin and process.stdout
        pickle.dump((path.absolute(), kind, tuple(parts), tuple(columns)), process.stdin)
        process.stdin.flush()
        with closing(_received(process, process.stdout)) as chunks:
            yield chunks


def _received(process: subprocess.Popen[bytes], stream: IO[bytes]) -> Generator[Read]:
    """The chunks that come; while one is made use of, a thread takes the next off the pipe."""
    waiting: queue.Queue[bytes] = queue.Queue(maxsize=1)
    taker = threading.Thread(target=_take_off, args=(stream, waiting), daemon=True)
    taker.start()
    try:
        while sent := waiting.get():
            got = pickle.loads(sent)
            if isinstance(got, RainPorchError):
                raise got
            if got is None:
                return
            yield got
        raise Refused("Reading the file stopped half way: bring it in again.")
    finally:
        process.kill()
        while taker.is_alive():
            with suppress(queue.Empty):
                waiting.get(timeout=0.05)


def _take_off(stream: IO[bytes], waiting: queue.Queue[bytes]) -> None:
    with suppress(OSError, ValueError):  # closed
        while head := stream.read(_LENGTH.size):
            waiting.put(stream.read(*_LENGTH.unpack(head)))
    waiting.put(b"")


def _send(what: object) -> None:
    sent = pickle.dumps(what, pickle.HIGHEST_PROTOCOL)
    sys.stdout.buffer.write(_LENGTH.pack(len(sent)) + sent)
    sys.stdout.buffer.flush()


def main() -> None:
    """Read the file that standard input names; write its chunks to standard output, and None when all are read."""
    gc.disable()  # many small values and no cycles among them
    os.nice(5)  # whoever looks at a screen meanwhile goes first
    path, kind, parts, columns = pickle.load(sys.stdin.buffer)
    with suppress(BrokenPipeError):  # nobody listens any longer
        try:
            reader = Reader(kind, parts, columns)
            for chunk in read_table(path).chunks:
                _send(reader.read(chunk))
            _send(None)
        except RainPorchError as error:
            _send(Refused(error.message))


if __name__ == "__main__":
    main()
