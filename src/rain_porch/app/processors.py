"""On how many processors one computation runs."""

from __future__ import annotations

from contextlib import AbstractContextManager

from threadpoolctl import threadpool_limits


def on_one_processor() -> AbstractContextManager[object]:
    """Linear algebra on one processor: sums of several differ in their last digits, so that service, command line and the processes
    beside would not tell the same, and what prices one home takes more of the machine on two of them than on one."""
    limits: AbstractContextManager[object] = threadpool_limits(1, user_api="blas")
    return limits
