"""A frozen value taken apart into its arrays and what can be written as JSON, and put together again, exactly."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

Arrays = dict[str, NDArray[Any]]


def taken_apart(value: Any, arrays: Arrays, at: str = "value") -> Any:
    """What of a value can be written as JSON; its arrays are put into `arrays` by where they stand.

    Dataclasses, tuples, mappings with names, arrays, numbers, words and None; a TypeError for anything else.
    """
    if isinstance(value, np.ndarray):
        arrays[at] = value
        return {"array": at}
    if is_dataclass(value) and not isinstance(value, type):
        parts = {f.name: taken_apart(getattr(value, f.name), arrays, f"{at}.{f.name}") for f in fields(value) if f.init}
        return {"of": type(value).__name__, "parts": parts}
    if isinstance(value, tuple):
        return {"tuple": [taken_apart(x, arrays, f"{at}.{i}") for i, x in enumerate(value)]}
    if isinstance(value, Mapping):
        return {"named": [[name, taken_apart(x, arrays, f"{at}[{name}]")] for name, x in value.items()]}
    if value is None or isinstance(value, bool | int | float | str):
        return value
    raise TypeError(f"{at} is a {type(value).__name__}, which is not taken apart.")


def put_together(told: Any, arrays: Mapping[str, NDArray[Any]], kinds: Mapping[str, type]) -> Any:
    """The value again. kinds: the dataclasses by name that may stand in it."""
    if not isinstance(told, dict):
        return told
    if "array" in told:
        return arrays[told["array"]]
    if "tuple" in told:
        return tuple(put_together(x, arrays, kinds) for x in told["tuple"])
    if "named" in told:
        return {name: put_together(x, arrays, kinds) for name, x in told["named"]}
    return kinds[told["of"]](**{name: put_together(x, arrays, kinds) for name, x in told["parts"].items()})
