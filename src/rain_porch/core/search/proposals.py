"""What a search could become in one press: every fact of the home as a limit; the one change that helps most."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np

from ..facts.fields import BY_NAME, FIELDS, OWN, Kind
from ..facts.homes import Subject
from ..facts.house_rules import USUAL, HouseRules
from ..market.columns import Floats, Ints
from .proposed import area_band, share_band
from .search import Criterion, Search
from .steps import Sales, Step, adds_most_alike, steps

PERCENT, YEARS = 25, 10
COUNTS = 10  # up to which a whole number of a field of the office's own is taken for a count
MOST_STEPS = 12


def match_everything(search: Search, subject: Subject, rules: HouseRules = USUAL) -> Search:
    """The search with a criterion for every fact of the home that likeness looks at.

    Living area by its band, the lot and other amounts within 25 %, years within 10, counts, yes/no and words equal. What
    the search has already stays as it is.
    """
    for f in FIELDS:
        if not f.weight or not f.searched or search.criterion(f.name) is not None:
            continue
        criterion = matching(f.name, f.kind, subject, rules)
        if criterion is not None:
            search = search.with_criterion(criterion)
    return search


def matching(name: str, kind: Kind, subject: Subject, rules: HouseRules = USUAL) -> Criterion | None:
    """The criterion on one field that homes like the subject meet; None where the subject's value is unknown."""
    word, number = subject.word(name), subject.number(name)
    if word is not None:
        return Criterion(name, words=(word,))
    if number is None:
        return None
    if name == "living_area":
        return Criterion(name, *area_band(number, rules))
    if name == "lot_size_square_feet":
        low, high = share_band(number, PERCENT)
        return Criterion(name, round(low, -1), round(high, -1))
    if kind == Kind.YEAR:
        return Criterion(name, number - YEARS, number + YEARS)
    if _is_amount(name, number):
        step = BY_NAME[name].step
        low, high = share_band(number, PERCENT)
        return Criterion(name, math.floor(low / step) * step, math.ceil(high / step) * step)
    return Criterion(name, number, number)


def _is_amount(name: str, number: float) -> bool:
    """Whether a number was measured or paid, so that hardly another home has the very same. None at all is a count: as it is here."""
    if not number:
        return False
    if name.startswith(OWN):
        return number != int(number) or abs(number) > COUNTS
    return BY_NAME[name].step > 1


def helps_most(
    search: Search, sales: Sales, likeness_of: Callable[[Ints], Floats], rules: HouseRules = USUAL
) -> tuple[Step, int] | None:
    """The single change that helps most, with the sales after it; None where 6 to 15 sales (the house's rules) are
    found already.

    Too few: the loosening that adds the most alike sales; where no single step adds any, the limit that does in the
    fewest steps. Too many: the tightening that keeps as many as are enough and leaves out the least alike.
    """
    rows, aim = sales.found(search), (rules.whole("search.fewest"), rules.whole("search.most"))
    if rows.size < aim[0]:
        return _lets_in(search, aim[0] - rows.size, rows.size, sales, likeness_of)
    return None if rows.size <= aim[1] else _leaves_out(search, rows, aim, sales, likeness_of)


def _lets_in(
    search: Search, missing: int, n: int, sales: Sales, likeness_of: Callable[[Ints], Floats]
) -> tuple[Step, int] | None:
    ways = steps(search, looser=True)
    added = sales.added(search, ways)
    if not any(more.size for more in added):
        far = [_until_something(search, step, sales) for step in ways]
        nearest = min((taken for taken, _ in far), default=MOST_STEPS)
        ways = [step for taken, step in far if taken == nearest < MOST_STEPS]
        added = sales.added(search, ways)
    best = adds_most_alike(added, missing, likeness_of)
    return None if best is None else (ways[best], n + added[best].size)


def _leaves_out(
    search: Search, rows: Ints, aim: tuple[int, int], sales: Sales, likeness_of: Callable[[Ints], Floats]
) -> tuple[Step, int] | None:
    best: tuple[float, Step, int] | None = None
    for step in steps(search, looser=False):
        after = sales.found(step.search)
        lost = np.setdiff1d(rows, after, assume_unique=True)
        if not lost.size or after.size < aim[0]:
            continue
        gain = float(np.minimum(lost.size, rows.size - aim[1]) * (100 - likeness_of(lost).mean()))
        if best is None or gain > best[0]:
            best = gain, step, int(after.size)
    return None if best is None else (best[1], best[2])


def _until_something(search: Search, step: Step, sales: Sales) -> tuple[int, Step]:
    """The same limit loosened further until sales come in, and how many more steps that takes; MOST_STEPS: never."""
    for taken in range(1, MOST_STEPS):
        further = next((s for s in steps(step.search, looser=True) if s.part == step.part), None)
        if further is None:
            break
        step = further
        if sales.added(search, [step])[0].size:
            return taken, step
    return MOST_STEPS, step
