"""What tells who lives somewhere: no field, filter or price may hang on it (fair housing, docs/decisions/10-no-who-lives-there.md)."""

from __future__ import annotations

import re

WHO_LIVES_THERE = "tells who lives somewhere: never kept"

# heads of columns as words with single spaces or run together; what a home or a lease has of its own (family room, gross income, school district)
# is none of these
_TOLD = re.compile(
    r"\b(?:rac(?:e|es|ial)|ethnic\w*|hispanics?|latin[oax]s?|minorit\w+|religio\w+|ancestry|nationalit\w+|national ?origins?|immigrants?|foreign ?born"
    r"|languages?|population\w*|demographics?|inhabitants|residents?|households?|families|familial ?status|family ?(?:size|income|status)"
    r"|(?:median|mean|average|avg|per ?capita|household|family|personal) ?(?:household ?|family ?|personal ?)?(?:incomes?|age)|poverty|welfare|unemploy\w+"
    r"|children|kids|pupils?|students?|disabilit\w+|disabled|gender|sex|marital|crimes?|offenders?|renters|owner ?occup\w* ?(?:rate|share|pct|percent)"
    r"|(?:pct|percent|share|rate) ?(?:of )?(?:owner|renter|white|black|asian)\w*|schools? ?(?:ratings?|scores?|ranks?|rankings?|grades?|tests?))\b"
)


def tells_who_lives_there(head: str) -> bool:
    """Whether a column's head, or an own field's name, speaks of people. "Median household income" does; "Family room" does not."""
    spaced = re.sub(r"(?<=[a-z])(?=[A-Z])", " ", head.replace("%", " percent "))
    return _TOLD.search(" ".join(re.findall(r"[a-z0-9]+", spaced.lower()))) is not None
