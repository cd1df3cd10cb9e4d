"""What an import, or one that was undone, has come to, as documents."""

from __future__ import annotations

import dataclasses

from ...documents import imports as d
from ...records.import_result import ImportResult
from ...records.places import FAR, SWAPPED
from ...store.records.incoming.undo import Undone


def undo_doc(undone: Undone) -> d.UndoneDoc:
    kept = [d.KeptDoc(key=key, changed_by=number) for key, number in undone.kept]
    return d.UndoneDoc(import_id=undone.import_id, removed=undone.removed, restored=undone.restored, kept=kept)


def import_doc(result: ImportResult) -> d.ImportDoc:
    of = result.reasons.get
    return d.ImportDoc(**dataclasses.asdict(result), swapped=of(SWAPPED, 0), far=of(FAR, 0))
