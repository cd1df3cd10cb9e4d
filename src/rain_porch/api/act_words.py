"""What was done, in words, for the list of who did what."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

_WORDS = {
    "POST /api/workups": "began a workup",
    "POST /api/workups/by-hand": "began a workup by hand",
    "POST /api/around/workup": "began a workup of a look",
    "POST /api/searches": "kept a search",
    "PUT /api/watches": "watched, or watched no more,",
    "POST /api/watches/seen": "saw the news of",
    "PUT /api/local-form": "chose the form of figures of the office",
    "PUT /api/map/sources": "set up the map of the office,",
    "POST /api/mail/try": "tried the mail",
    "PUT /api/house-rules/{name}": "changed a rule of the house",
    "POST /api/workups/{workup_id}/changes": "changed",
    "POST /api/workups/{workup_id}/undo": "took a change back in",
    "POST /api/workups/{workup_id}/photos": "added a picture to",
    "POST /api/workups/{workup_id}/backtest": "measured how close prices come around",
    "DELETE /api/workups/{workup_id}/backtest": "stopped measuring around",
    "POST /api/workups/{workup_id}/searches": "kept the search of",
    "POST /api/workups/{workup_id}/deliveries": "delivered the report of",
    "DELETE /api/workups/{workup_id}": "deleted",
    "POST /api/workups/{workup_id}/copy": "copied",
    "PUT /api/workups/{workup_id}/archived": "put away or took out",
    "DELETE /api/workups/{workup_id}/photos/{file}": "erased a picture of",
    "POST /api/clients/{client_id}/erase": "erased, with all that was delivered to them,",
    "PUT /api/workups/{workup_id}/shares/{account_id}": "shared",
    "DELETE /api/workups/{workup_id}/shares/{account_id}": "shared no longer",
    "POST /api/workups/{workup_id}/owner": "handed over",
    "POST /api/bulletins": "began a bulletin",
    "POST /api/bulletins/ready": "began a bulletin",
    "PUT /api/bulletins/{bulletin_id}": "changed",
    "DELETE /api/bulletins/{bulletin_id}": "deleted",
    "POST /api/bulletins/{bulletin_id}/editions": "made or sent",
    "POST /api/outlines": "kept an outline on the map",
    "DELETE /api/outlines/{outline_id}": "deleted an outline on the map",
    "POST /api/deliveries/{delivery_id}/again": "sent again",
    "POST /api/deliveries/{delivery_id}/copy": "sent a copy of",
    "POST /api/own-pages/written": "wrote a page of their own",
    "POST /api/deliveries/{delivery_id}/links": "made a link to",
    "DELETE /api/links/{link_id}": "withdrew",
    "POST /api/records/incoming": "brought a file",
    "DELETE /api/records/incoming/{file_id}": "let a file go",
    "POST /api/records/incoming/{file_id}/accept": "took a file into the records",
    "POST /api/records/imports/{import_id}/undo": "took back",
    "DELETE /api/records/imports/{import_id}/undo": "stopped taking back",
    "POST /api/records/imports/{import_id}/mend": "took up again the mapping of",
    "PUT /api/records/mappings/{name}": "saved a mapping of columns",
    "DELETE /api/records/mappings/{name}": "deleted a mapping of columns",
    "PUT /api/records/word-orders/{field}": "said the order of a field's words",
    "POST /api/records/feed": "pulled a feed",
    "POST /api/records/inbox": "looked into the watched folder",
    "POST /api/records/rulings": "said what is wrong with records",
    "POST /api/accounts": "added an account",
    "PUT /api/accounts/{account_id}": "changed",
    "PUT /api/accounts/{account_id}/password": "gave a new password to",
    "PUT /api/password": "changed their password",
    "DELETE /api/sessions": "signed out everywhere",
    "PUT /api/card": "changed their name and contact on paper",
    "POST /api/clients/file": "brought clients in",
}
_VERBS = {"POST": "added", "PUT": "changed", "DELETE": "deleted"}
_NAMED = ("client_id", "workup_id", "delivery_id", "link_id", "import_id", "account_id", "bulletin_id")


def act_in_words(method: str, path: str, named: Mapping[str, Any]) -> tuple[str, str]:
    """(what was done, of what: “workup 12”, or nothing)."""
    of_what = next((f"{n.removesuffix('_id')} {named[n]}" for n in _NAMED if n in named), "")
    what = _WORDS.get(f"{method} {path}")
    if what is None:
        kind = path.removeprefix("/api/").split("/{")[0].replace("-", " ").replace("/", " ")
        what = f"{_VERBS.get(method, method.lower())} {kind}"
    return what, of_what
