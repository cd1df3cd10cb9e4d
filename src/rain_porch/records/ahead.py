"""A large file read by a process of its own while the chunk before is checked and staged: `python -m` this module."""

from __future__ import annotations

import gc
import os
import pickle
import subprocess
import sys
from collections.abc import Generator, Iterator, Sequence
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import IO

from ..core.errors import RainPorchError, Refused
from .mapping import Part
from .readers import read_table
from .reading import Read, Reader

LARGE = 16_000_000  # bytes from which a process of its own pays


@contextmanager
def read_ahead(path: Path, kind: str, parts: Sequence[Part], columns: Sequence[str]) -> Generator[Iterator[Read]]:
    """The whole file's chunks; those of a large one are read by a process of its own while the last is made use of."""
    if path.stat().st_size < LARGE:
        reader = Reader(kind, parts, columns)
        yield map(reader.read, read_table(path).chunks)
        return
    with subprocess.Popen(
        [sys.executable, "-m", "rain_porch.records.ahead"], stdin=subprocess.PIPE, stdout=subprocess.PIPE
    ) as process:
        assert process.stdin and process.stdout
        pickle.dump((path.absolute(), kind, tuple(parts), tuple(columns)), process.stdin)
        process.stdin.flush()
        try:
            yield _received(process.stdout)
        finally:
            process.kill()


def _received(stream: IO[bytes]) -> Iterator[Read]:
    while True:
        try:
            got = pickle.load(stream)
        except EOFError:
            raise Refused("Reading the file stopped half way: bring it in again.") from None
        if isinstance(got, RainPorchError):
            raise got
        if got is None:
            return
        yield got


def main() -> None:
    """Read the file that standard input names; write its chunks to standard output, and None when all are read."""
    gc.disable()  # many small values and no cycles among them
    os.nice(5)  # whoever looks at a screen meanwhile goes first
    path, kind, parts, columns = pickle.load(sys.stdin.buffer)
    with suppress(BrokenPipeError):  # nobody listens any longer
        try:
            reader = Reader(kind, parts, columns)
            for chunk in read_table(path).chunks:
                pickle.dump(reader.read(chunk), sys.stdout.buffer, pickle.HIGHEST_PROTOCOL)
                sys.stdout.buffer.flush()
            pickle.dump(None, sys.stdout.buffer)
        except RainPorchError as error:
            pickle.dump(Refused(error.message), sys.stdout.buffer)
        sys.stdout.buffer.flush()


if __name__ == "__main__":
    main()
