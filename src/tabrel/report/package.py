"""The whole study as one zip: document, tables as CSV, figures as SVG, a descriptor (Frictionless Data Package) and checksums."""

from __future__ import annotations

import json
import re
from hashlib import sha256
from io import BytesIO
from pathlib import PurePosixPath
from typing import Any
from zipfile import ZIP_DEFLATED, ZipFile, ZipInfo

from tabrel.core.errors import StudyError
from tabrel.document.archive import opened_archive
from tabrel.document.full_study import FullStudy, full_study_to_json, read_full_study
from tabrel.report.blocks import Report
from tabrel.report.csv_tables import csv_of
from tabrel.report.data_table import DataTable

DOCUMENT, DESCRIPTOR, SUMS = "study.json", "datapackage.json", "SHA256SUMS"
MOST_FILES = 2000
MOST_BYTES = 64_000_000
"""Of all files of a package unpacked; a study takes about one."""

_MOMENT = (1980, 1, 1, 0, 0, 0)
"""Of every file in it, so that the same study gives the same bytes."""


def package_of(full: FullStudy, report: Report, tables: tuple[DataTable, ...]) -> bytes:
    """Return a study as a zip from which `study_in_package` reads an equal study.

    Parameters
    ----------
    full : FullStudy
        The study, and what its document carries besides.
    report : Report
        For its title and figures.
    tables : tuple of DataTable
    """
    study = full.study
    document = json.dumps(full_study_to_json(full), ensure_ascii=False, indent=1)
    files: dict[str, bytes] = {DOCUMENT: document.encode()}
    resources: list[dict[str, Any]] = [
        {"name": "study", "path": DOCUMENT, "format": "json", "mediatype": "application/json", "title": "The study document"}
    ]
    for table in tables:
        path = f"tables/{table.name}.csv"
        files[path] = csv_of(table).encode()
        resources.append(_tabular(table, path))
    for key, picture in report.pictures().items():
        name = _file_name(key)
        path = f"figures/{name}.svg"
        files[path] = picture.svg.encode()
        resources.append(
            {
                "name": f"figure-{name}",
                "path": path,
                "format": "svg",
                "mediatype": "image/svg+xml",
                "title": picture.caption,
                "description": picture.alt,
            }
        )
    for resource in resources:
        content = files[resource["path"]]
        resource |= {"bytes": len(content), "hash": f"sha256:{sha256(content).hexdigest()}", "encoding": "utf-8"}
    descriptor = {
        "profile": "data-package",
        "name": _file_name(study.name),
        "title": report.title,
        "description": study.question or "",
        "version": report.number or "draft",
        "created": f"{report.dated}T00:00:00Z",
        "resources": resources,
    }
    files[DESCRIPTOR] = json.dumps(descriptor, ensure_ascii=False, indent=2).encode()
    files[SUMS] = "".join(f"{sha256(content).hexdigest()}  {path}\n" for path, content in sorted(files.items())).encode()
    out = BytesIO()
    with ZipFile(out, "w", ZIP_DEFLATED) as archive:
        for path, content in files.items():
            archive.writestr(ZipInfo(path, _MOMENT), content, ZIP_DEFLATED)
    return out.getvalue()


def _tabular(table: DataTable, path: str) -> dict[str, Any]:
    fields = [
        {"name": field.heading, "type": field.type, "key": field.name, **({"unit": field.unit} if field.unit else {})}
        for field in table.fields
    ]
    return {
        "profile": "tabular-data-resource",
        "name": table.name.replace("_", "-"),
        "path": path,
        "title": table.title,
        "format": "csv",
        "mediatype": "text/csv",
        "dialect": {"delimiter": ",", "lineTerminator": "\n", "quoteChar": '"', "doubleQuote": True},
        "schema": {"fields": fields, "missingValues": [""]},
    }


def _file_name(words: str) -> str:
    """Return words as a name that every file system takes.

    Examples
    --------
    >>> _file_name("../Größe: <b>")
    'gr-e-b'
    """
    return re.sub(r"[^a-z0-9]+", "-", words.lower()).strip("-")[:60] or "study"


def study_in_package(content: bytes) -> FullStudy:
    """Return the study that a package holds; nothing of it is written anywhere.

    Raises
    ------
    StudyError
        If it is no such package, names a path outside of it, is larger than a study can be, or was changed on its way.
    """
    damaged = "is no zip file, or a damaged one: export the study again"
    with opened_archive(content, "zip", most_bytes=MOST_BYTES, damaged=damaged) as archive:
        document = _document(archive)
    return read_full_study(_text(document))


def _document(archive: ZipFile) -> bytes:
    entries = archive.infolist()
    if len(entries) > MOST_FILES:
        raise StudyError("zip", f"holds {len(entries)} files, and a study at most {MOST_FILES}: it is something else")
    for entry in entries:
        path = PurePosixPath(entry.filename)
        if path.is_absolute() or ".." in path.parts or "\\" in entry.filename or ":" in entry.filename or "\0" in entry.filename:
            raise StudyError(
                "zip", f"names the path {entry.filename[:80]!r}, which leads out of it: do not trust where it comes from"
            )
    names = [entry.filename for entry in entries]
    if len(set(names)) < len(names):
        raise StudyError("zip", "holds two files of one name: export the study again")
    if DOCUMENT not in names:
        raise StudyError("zip", f"holds no {DOCUMENT}: choose a package that Tabrel wrote, or a study document")
    document = _content(archive, DOCUMENT)
    if SUMS in names:
        lines = (line.partition("  ") for line in _content(archive, SUMS).decode(errors="replace").splitlines())
        texts = {path: digest for digest, _, path in lines}
        if texts.get(DOCUMENT) not in (None, sha256(document).hexdigest()):
            raise StudyError(
                "zip", f"{DOCUMENT} is not what its checksum says: it was changed or damaged on its way, export it again"
            )
    return document


def _content(archive: ZipFile, name: str) -> bytes:
    """Return a file of an archive, read no further than its size is said to be: what is longer is refused before it is held."""
    size = archive.getinfo(name).file_size
    with archive.open(name) as file:
        content = file.read(size + 1)
    if len(content) > size:
        raise StudyError("zip", f"{name} is longer than the zip says: it was made to mislead")
    return content


def _text(document: bytes) -> str:
    try:
        return document.decode("utf-8")
    except UnicodeDecodeError as error:
        raise StudyError("zip", f"{DOCUMENT} is not UTF-8 text: export the study again") from error
