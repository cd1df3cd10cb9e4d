"""What a source's word for a status means: the trade's letters, abbreviations and phrases for each status of the standard.

Letters that mean one thing here and another there ("C", "T") are told by the dates and prices that stand beside them.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from ..facts.words import Status, plain, status_of

_PHRASES: tuple[tuple[Status, str], ...] = (
    (Status.COMING_SOON, "coming soon, cs, csn, soon, pre market, premarket, cmg, c soon, delayed, coming soon no show, registered"),
    (Status.ACTIVE, "active, act, a, actv, av, available, avail, for sale, new, new listing, n, nl, back on market, bom, on market, price change, price changed, "
                    "price reduced, price reduction, price decrease, price increase, pch, pc, reactivated, re activated, extended, extension, ext, relisted, current, "
                    "open, listed, active rfr, reac, active no contract, activ, act new, ac, price adjustment, amended, on the market, in effect, live, still for sale"),
    (Status.ACTIVE_UNDER_CONTRACT, "active under contract, under contract, uc, u, auc, active contingent, contingent, ctg, cont, ctgt, cont no show, cont show, a c, "
                                   "active with contract, active w contract, under contract show, under contract taking backups, accepting backups, accepting backup offers, "
                                   "active option, option, option pending, opt, ao, active option contract, kick out, active kick out, ko, active ko, contingent kick out, "
                                   "first right of refusal, first right, right of first refusal, rfr, contract, under agreement, ua, offer accepted, act cont, active cont, "
                                   "contingent show, show for backups, backup, backups, taking backups, active backup, bk, bkup, cntg, contg, under contr, undr cntrct, uctg, act under contract, "
                                   "accepted offer, sale in progress, conditional, conditionally sold, active conditional, contingency, in contract, contract with contingency, under contract bkups, "
                                   "active subject to, auct, uag, offer, active ctg"),
    (Status.PENDING, "pending, pend, pnd, p, pndg, pen, pe, sale pending, pending sale, pending inspection, pending do not show, pending no show, pending taking backups, "
                     "pending with contingency, pending contingent, pending continue to show, pending short sale, ps, psb, psc, pending backup, awaiting closing, in escrow, escrow, firm, "
                     "under contract no show, pending firm, pending sold, pnc, closing pending, pending settlement, contract pending, pending close, contract no contingencies, pending release, pdg"),
    (Status.CLOSED, "closed, sold, settled, s, sld, cls, clsd, cld, cl, closed sale, comp, comp sold, comparable, sold inside mls, sold before listing, sold other, sold off mls, off market sold, "
                    "sold not listed, non mls sold, nonmls, sc, sf, sold conventional, sold cash, sale closed, closed sold, transaction closed, settled sale, sale, so, sol, clo, sold out, completed, complete, "
                    "closed mls, sold mls, entered for comp, sold comp, final, clzd, sale completed, cs sold, sold private, transferred, conveyed"),
    (Status.EXPIRED, "expired, exp, x, e, xp, ex, expd, expr, lapsed, listing expired, xpd, off market expired, ep, expire, autoexpired, exprd, expirado"),
    (Status.WITHDRAWN, "withdrawn, wdn, wd, w, wth, wthd, withd, with, wdrn, withdrn, withdrawn conditional, withdrawn unconditional, off market, om, off mkt, withdraw, "
                       "wit, wthdrn, w d, offmarket, taken off market, removed, withdrawn from market, wc, wu, pulled, off the market, inactive"),
    (Status.CANCELED, "canceled, cancelled, can, canc, cncl, cxl, cnl, cld listing, k, terminated, term, trm, t, released, rel, rescinded, cancel, cncld, void, "
                      "cancelation, canceled listing, canx, cx, conditionally withdrawn released, terminated listing, listing terminated, cancelled listing, ca, unconditionally withdrawn, cnx, tm"),
    (Status.HOLD, "hold, on hold, h, hld, temp off market, temporarily off market, temporary off market, tom, temporarily withdrawn, temp withdrawn, toff, temp off, suspended, paused, "
                  "hold do not show, temp, temporary hold, temporary withdrawn, tw, ta, active no showings, held"),
)  # fmt: skip
_BY_WORD: dict[str, Status] = {plain(w): status for status, words in _PHRASES for w in words.split(",")}
_UNSURE = {  # what else a letter or a word may mean, the usual meaning first
    "c": (Status.CLOSED, Status.ACTIVE_UNDER_CONTRACT, Status.CANCELED), "t": (Status.CANCELED, Status.HOLD), "w": (Status.WITHDRAWN,),
    "cl": (Status.CLOSED, Status.CANCELED), "ca": (Status.CANCELED, Status.ACTIVE_UNDER_CONTRACT), "b": (Status.ACTIVE_UNDER_CONTRACT, Status.ACTIVE),
    "cld": (Status.CLOSED, Status.CANCELED), "off": (Status.WITHDRAWN, Status.CLOSED), "o": (Status.WITHDRAWN, Status.ACTIVE_UNDER_CONTRACT),
    "r": (Status.CANCELED, Status.ACTIVE), "comp": (Status.CLOSED,), "cs": (Status.COMING_SOON, Status.CLOSED), "f": (Status.CLOSED, Status.EXPIRED),
    "ex": (Status.EXPIRED, Status.ACTIVE), "ac": (Status.ACTIVE, Status.ACTIVE_UNDER_CONTRACT), "om": (Status.WITHDRAWN,),
    "d": (Status.CANCELED,), "1": (Status.ACTIVE,), "2": (Status.CLOSED, Status.PENDING), "3": (Status.CLOSED, Status.EXPIRED), "4": (Status.EXPIRED, Status.WITHDRAWN),
    "i": (Status.WITHDRAWN,), "inactive": (Status.WITHDRAWN, Status.CLOSED),
}  # fmt: skip
_LEASES = frozenset(
    map(
        plain,
        ("leased", "rented", "closed lease", "lease", "rnt", "lsd", "rented out", "closed leased", "lease pending"),
    )
)
_SPLIT = re.compile(r"\s*[-–—:/(,|]\s*")
FAILED = frozenset({Status.EXPIRED, Status.WITHDRAWN, Status.CANCELED})


def means_status(word: str) -> Status | None:
    """The standard status of a source's word: "S", "SLD", "Sold", "Closed - Cash" → Closed; None for one not known."""
    key = plain(word)
    found = status_of(word) or _BY_WORD.get(key)
    if found is None and key in _LEASES:
        return Status.CLOSED
    if found is None and len(key) > 3:
        for part in _SPLIT.split(word):
            found = status_of(part) or (_BY_WORD.get(plain(part)) if len(plain(part)) > 1 else None)
            if found is not None:
                break
        else:
            words = word.split()
            for n in range(len(words) - 1, 0, -1):  # "Sold 03/12/24", "Active as of May"
                found = status_of("".join(words[:n])) or (
                    _BY_WORD.get(plain("".join(words[:n]))) if n > 1 or len(words[0]) > 2 else None
                )
                if found is not None:
                    break
    if found is None and key in _UNSURE:
        return _UNSURE[key][0]
    return found


@lru_cache(maxsize=4096)
def is_lease_word(word: object) -> bool:
    return isinstance(word, str) and plain(word) in _LEASES


@dataclass(frozen=True)
class Meaning:
    """What a source's word was taken for, in how many rows, and why; None where nobody can tell."""

    word: str
    status: Status | None
    rows: int
    why: str


@dataclass
class Beside:
    """What stands beside a status word: in how many of its rows there is a close date or price, a date off the market, a
    contract date."""

    rows: int = 0
    closed: int = 0
    off: int = 0
    contract: int = 0

    def evidence(self, status: Status) -> float:
        """How well the dates agree with a status, from −1 to 1."""
        n = max(1, self.rows)
        closed, off, contract = self.closed / n, self.off / n, self.contract / n
        if status is Status.CLOSED:
            return 2 * closed - 1
        if status in FAILED:
            return off * (1 - closed) * 2 - 1 if off or closed else 0.0
        if status in (Status.PENDING, Status.ACTIVE_UNDER_CONTRACT):
            return (1 - closed) * (contract * 2 - 1 if contract else -0.2)
        return 0.4 * (1 - 2 * max(closed, contract, off))


def meanings(
    words: Sequence[str], closed: Sequence[bool], off: Sequence[bool], contract: Sequence[bool]
) -> list[Meaning]:
    """What each distinct word of a column means, those that may mean several told by what stands beside them."""
    beside: dict[str, Beside] = {}
    for word, c, o, k in zip(words, closed, off, contract, strict=True):
        if word:
            b = beside.setdefault(word, Beside())
            b.rows, b.closed, b.off, b.contract = b.rows + 1, b.closed + c, b.off + o, b.contract + k
    told_anywhere = any(b.closed for b in beside.values())
    sure = {s for w in beside if plain(w) not in _UNSURE and (s := means_status(w)) is not None}
    out = []
    for word, b in beside.items():
        options = _UNSURE.get(plain(word))
        found = means_status(word)
        if status_of(word) is not None or not options or len(options) < 2 or not told_anywhere:
            out.append(Meaning(word, found, b.rows, "a known word" if found else "not known"))
            continue
        ranked = sorted(
            options,
            key=lambda s: -(b.evidence(s) - 0.4 * (s in sure) + 0.5 * (s == options[0]) - 0.01 * options.index(s)),
        )
        out.append(Meaning(word, ranked[0], b.rows, "by the dates beside it"))
    return out
