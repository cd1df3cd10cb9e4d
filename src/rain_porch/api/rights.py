"""Who may ask for what: every operation of the service has its right here, and what has none is refused to everybody."""

from __future__ import annotations

import re
from collections.abc import Mapping
from enum import StrEnum
from typing import Any


class Right(StrEnum):
    """ANYONE: also who has not signed in. SIGNED_IN: every account, on the shared records and on what is its own.
    READ_WORKUP, EDIT_WORKUP: whose it is, a manager, and those it is shared with, for the latter to edit. OWN_WORKUP: whose it
    is, and a manager. OWN_DELIVERY: the same of what was delivered. RECORDS: who may bring records in. MANAGER: managers."""

    ANYONE = "anyone"
    SIGNED_IN = "signed in"
    READ_WORKUP = "reads the workup"
    EDIT_WORKUP = "edits the workup"
    OWN_WORKUP = "owns the workup"
    OWN_DELIVERY = "owns the delivery"
    RECORDS = "brings records in"
    MANAGER = "manager"


_TABLE = {
    Right.ANYONE: """
        GET /api/health   GET /api/session   POST /api/session   DELETE /api/session   POST /api/first-account
        GET /api/read/{token}.{form}
    """,
    Right.SIGNED_IN: """
        DELETE /api/sessions   PUT /api/password   GET /api/colleagues
        GET /api/lookup   GET /api/homes-to-begin-with   GET /api/nearest   GET /api/fields   GET /api/meanings   GET /api/words   GET /api/record-statuses   GET /api/home-kinds
        GET /api/map   GET /api/map/middle   GET /api/map/fine   GET /api/map/barriers   GET /api/areas
        GET /api/workups   POST /api/workups   POST /api/workups/by-hand
        POST /api/around   POST /api/around/counts   POST /api/around/spread   POST /api/around/proposals
        POST /api/around/summaries   POST /api/around/likeness/{listing_id}   POST /api/around/workup
        POST /api/around/paper.{form}   POST /api/searches   POST /api/searches/{search_id}/around
        GET /api/local-form   PUT /api/local-form   GET /api/map/shown   GET /api/map/sources   PUT /api/map/sources   GET /api/map/files
        GET /api/map/tiles/{layer}/{z}/{x}/{y}
        GET /api/watches   PUT /api/watches   POST /api/watches/seen   GET /api/mail   POST /api/mail/try
        GET /api/searches   DELETE /api/searches/{search_id}   GET /api/columns   PUT /api/columns
        GET /api/outcomes   GET /api/house-rules   PUT /api/house-rules/{name}   POST /api/house-rules/effects
        GET /api/listings/{listing_id}   GET /api/listings/{listing_id}/pictures/{number}
        GET /api/measures   GET /api/market   POST /api/market/view   POST /api/market/year-so-far   GET /api/market/series
        POST /api/market/view.{form}   POST /api/market/year-so-far.{form}   POST /api/market/bands.{form}
        POST /api/market/behind   POST /api/market/changes   POST /api/market/bands
        GET /api/views   POST /api/views   PUT /api/views/{view_id}   DELETE /api/views/{view_id}
        POST /api/market/glance   POST /api/market/heat   POST /api/market/value-spread
        GET /api/outlines   POST /api/outlines   DELETE /api/outlines/{outline_id}
        GET /api/bulletins   POST /api/bulletins   POST /api/bulletins/ready   PUT /api/bulletins/{bulletin_id}
        DELETE /api/bulletins/{bulletin_id}   GET /api/bulletins/{bulletin_id}/bulletin.{form}
        GET /api/bulletins/{bulletin_id}/sheets   GET /api/bulletins/{bulletin_id}/sheets/{number}.{form}
        GET /api/bulletins/{bulletin_id}/editions   POST /api/bulletins/{bulletin_id}/editions
        GET /api/records   GET /api/records/standing   GET /api/records/undoing   GET /api/records/room
        GET /api/records/health   GET /api/records/spreads
        GET /api/records/conclusions   GET /api/records/conclusions/{what}   GET /api/records/rulings
        GET /api/records/imports/{import_id}/rows   GET /api/records/imports/{import_id}/rejects.csv
        GET /api/records/export/{kind}.{ending}
        GET /api/layouts   GET /api/card   PUT /api/card   POST /api/card/pictures   GET /api/card/pictures/{file}
        GET /api/own-pages   POST /api/own-pages   DELETE /api/own-pages/{page}   POST /api/own-pages/written
        PUT /api/own-pages/{page}   GET /api/own-pages/{page}/{number}
        GET /api/kept-layouts   POST /api/kept-layouts   DELETE /api/kept-layouts/{layout_id}
        GET /api/clients   POST /api/clients   PUT /api/clients/{client_id}   DELETE /api/clients/{client_id}
        POST /api/clients/{client_id}/erase
        POST /api/clients/file   GET /api/deliveries
        GET /api/due-work   PUT /api/due-work/{work_id}   POST /api/due-work/{work_id}/{act}   DELETE /api/due-work/{work_id}
        DELETE /api/links/{link_id}
    """,
    Right.READ_WORKUP: """
        GET /api/workups/{workup_id}   GET /api/workups/{workup_id}/revision   GET /api/workups/{workup_id}/history
         POST /api/workups/{workup_id}/counts
        GET /api/workups/{workup_id}/proposals   GET /api/workups/{workup_id}/spread   GET /api/workups/{workup_id}/candidates
        GET /api/workups/{workup_id}/summaries   GET /api/workups/{workup_id}/of-home
        GET /api/workups/{workup_id}/likeness/{listing_id}   GET /api/workups/{workup_id}/worth
        GET /api/workups/{workup_id}/worked-out/{figure}   GET /api/workups/{workup_id}/records/{listing_id}
        GET /api/workups/{workup_id}/rates/{field}   GET /api/workups/{workup_id}/index   GET /api/workups/{workup_id}/spots   GET /api/workups/{workup_id}/around
        GET /api/workups/{workup_id}/photos/{file}   GET /api/workups/{workup_id}/asking   GET /api/workups/{workup_id}/proceeds
        GET /api/workups/{workup_id}/standing   GET /api/workups/{workup_id}/since   GET /api/workups/{workup_id}/backtest
        GET /api/workups/{workup_id}/pages   GET /api/workups/{workup_id}/pages/{number}
        GET /api/workups/{workup_id}/pages/{number}.{form}   GET /api/workups/{workup_id}/report.{form}   GET /api/workups/{workup_id}/appointment.ics
        POST /api/workups/{workup_id}/copy
        POST /api/workups/{workup_id}/searches   GET /api/workups/{workup_id}/searches/{search_id}
        GET /api/workups/{workup_id}/shares   GET /api/workups/{workup_id}/deliveries
    """,
    Right.EDIT_WORKUP: """
        POST /api/workups/{workup_id}/changes   POST /api/workups/{workup_id}/undo   POST /api/workups/{workup_id}/photos
        POST /api/workups/{workup_id}/backtest   DELETE /api/workups/{workup_id}/backtest
    """,
    Right.OWN_WORKUP: """
        DELETE /api/workups/{workup_id}   POST /api/workups/{workup_id}/deliveries   PUT /api/workups/{workup_id}/archived
        DELETE /api/workups/{workup_id}/photos/{file}
        PUT /api/workups/{workup_id}/shares/{account_id}   DELETE /api/workups/{workup_id}/shares/{account_id}
        POST /api/workups/{workup_id}/owner
    """,
    Right.OWN_DELIVERY: """
        POST /api/deliveries/{delivery_id}/again   POST /api/deliveries/{delivery_id}/copy
        GET /api/deliveries/{delivery_id}/changes/{other_id}   GET /api/deliveries/{delivery_id}/paper.{form}
        GET /api/deliveries/{delivery_id}/links   POST /api/deliveries/{delivery_id}/links
    """,
    Right.RECORDS: """
        POST /api/records/imports/{import_id}/undo   DELETE /api/records/imports/{import_id}/undo
        POST /api/records/feed   POST /api/records/inbox   POST /api/records/rulings
        GET /api/records/incoming   POST /api/records/incoming   GET /api/records/incoming/{file_id}
        DELETE /api/records/incoming/{file_id}   GET /api/records/incoming/{file_id}/preview
        POST /api/records/incoming/{file_id}/plan   POST /api/records/incoming/{file_id}/accept
        POST /api/records/imports/{import_id}/mend   GET /api/records/mappings   PUT /api/records/mappings/{name}
        DELETE /api/records/mappings/{name}   PUT /api/records/word-orders/{field}
    """,
    Right.MANAGER: """
        GET /api/accounts   POST /api/accounts   PUT /api/accounts/{account_id}   PUT /api/accounts/{account_id}/password
        GET /api/acts   POST /api/due-work
    """,
}


def _read(table: dict[Right, str]) -> dict[tuple[str, str], Right]:
    out: dict[tuple[str, str], Right] = {}
    for right, text in table.items():
        words = text.split()
        out |= dict.fromkeys(zip(words[::2], words[1::2], strict=True), right)
    return out


def path_of_route(scope: Mapping[str, Any]) -> str:
    """The path of the route that a request has reached, as it is described: /api/workups/{workup_id}; "none" for no route."""
    path = re.sub(r":\w+}", "}", str(getattr(scope.get("route"), "path", "none")))
    return path if path.startswith(("/api", "none")) else f"/api{path}"


RIGHTS = _read(_TABLE)  # (method, path of the route) → who may
