"""The sheets that were sent last: a change answers with what is different from the one that the window has."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock

from tabrel.api.sample.models import SheetOut

KEPT_SHEETS = 32
"""So many are remembered; who has another one is sent it whole."""


class SentSheets:
    """Sheets by sample and revision; shared by the threads of one server."""

    def __init__(self) -> None:
        self._sheets: OrderedDict[tuple[int, int], SheetOut] = OrderedDict()
        self._lock = Lock()

    def keep(self, sheet: SheetOut) -> SheetOut:
        """Remember a sheet that is sent, and return it."""
        with self._lock:
            self._sheets[sheet.id, sheet.revision] = sheet
            self._sheets.move_to_end((sheet.id, sheet.revision))
            while len(self._sheets) > KEPT_SHEETS:
                self._sheets.popitem(last=False)
        return sheet

    def sent(self, sample_id: int, revision: int | None) -> SheetOut | None:
        """Return the sheet of a revision, if it is remembered."""
        with self._lock:
            return None if revision is None else self._sheets.get((sample_id, revision))
