"""Copies of the database: made, put back, looked through."""

from __future__ import annotations

import shutil
from pathlib import Path

from fastapi import APIRouter, Request, Response

from tabrel.api.deps import DATABASE_HEADER, Seen, service_of
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sample.sent_sheets import SentSheets
from tabrel.api.upkeep.models import BackupsOut, CopyNamedIn, CopyOut, DayOut, VerificationIn, VerificationOut
from tabrel.api.wire import NothingIn
from tabrel.api.workers import Workers
from tabrel.store.connection import Access
from tabrel.store.errors import NotStoredError, OtherDatabaseError
from tabrel.store.service import Service
from tabrel.store.upkeep.kept import (
    KEPT,
    Copy,
    Occasion,
    changes_by_day,
    copies_of,
    folder_looked_through,
    folder_of,
    keep_copy,
    missing_from,
)
from tabrel.store.upkeep.verify import counts_of, faults_of

router = APIRouter(prefix="/api/backups", tags=["backups"], responses=PROBLEM_RESPONSES)


@router.get("")
def get_backups(request: Request) -> BackupsOut:
    """Return the copies kept beside the database, newest first, with what each lacks."""
    return _backups(service_of(request))


@router.post("", status_code=201)
async def post_backup(_: NothingIn, request: Request) -> BackupsOut:
    """Copy the database while it is in use, verify the copy, and return all of them."""
    service = service_of(request)
    workers: Workers = request.app.state.workers
    await workers.run(keep_copy, service.database, "asked")
    return _backups(service)


@router.post("/restoration")
def post_restoration(given: CopyNamedIn, request: Request, response: Response, seen: Seen = None) -> BackupsOut:
    """Put a copy in the database's place; what was there is kept beside it, and windows that have seen it learn of it."""
    service = service_of(request)
    if seen is not None and seen != service.identity:
        raise OtherDatabaseError
    restored = service.put_back(_named(service, given.copy_name).path)
    request.app.state.sheets = SentSheets()
    response.headers[DATABASE_HEADER] = service.identity
    return _backups(service, f"{given.copy_name} was put back{restored.words}")


@router.post("/verification")
async def post_verification(given: VerificationIn, request: Request) -> VerificationOut:
    """Look the database, or a copy of it, through for faults."""
    service = service_of(request)
    workers: Workers = request.app.state.workers
    if given.copy_name is None:
        return await workers.run(_looked_through, service.database, False)
    return await workers.run(_looked_through, _named(service, given.copy_name).path, True)


OCCASIONS: dict[Occasion, str] = {
    "daily": "on a day of use",
    "before_migration": "before an update of Tabrel",
    "asked": "asked for",
}
"""Occasion of a copy, in words."""
FUTURE = "; its date lies in the future: the clock was wrong when it was made, or is now"


def _looked_through(path: Path, frozen: bool) -> VerificationOut:
    access: Access = "frozen" if frozen else "read"
    return VerificationOut(faults=faults_of(path, access=access), **counts_of(path, access=access))


def _named(service: Service, name: str) -> Copy:
    for copy in copies_of(service.database):
        if copy.path.name == name:
            return copy
    raise NotStoredError(f"there is no copy {name!r} any more: look at the list again")


def _backups(service: Service, text: str = "") -> BackupsOut:
    database = service.database
    copies = []
    kept, strays = folder_looked_through(database)
    for copy in kept:
        missing = missing_from(copy, database)
        copies.append(
            CopyOut(
                name=copy.path.name,
                occasion=copy.occasion,
                words=OCCASIONS[copy.occasion] + (FUTURE if copy.is_of_future else ""),
                made=copy.made.isoformat(timespec="seconds"),
                bytes=copy.path.stat().st_size,
                changes_missing=missing.changes if missing else None,
                last_missing=[*missing.last] if missing else [],
                studies_missing=[*missing.studies] if missing else [],
                reports_missing=[*missing.reports] if missing else [],
            )
        )
    return BackupsOut(
        database=str(database.absolute()),
        folder=str(folder_of(database).absolute()),
        kept=KEPT,
        bytes=database.stat().st_size if database.is_file() else 0,
        bytes_free=shutil.disk_usage(database.parent).free,
        copies=copies,
        days=[DayOut(day=day, changes=changes) for day, changes in changes_by_day(database)],
        notes="; ".join(part for part in (text or service.left_out or service.opened.note, *strays) if part),
    )
