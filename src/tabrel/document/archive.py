"""A zip that comes in, a package or a workbook: opened with care, and whatever is damaged in it is one sentence."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from io import BytesIO
from zipfile import ZIP_DEFLATED, ZIP_STORED, ZipFile

from tabrel.core.errors import StudyError, TabrelError
from tabrel.core.stopping import StoppedError

_ENCRYPTED = 0x1


@contextmanager
def opened_archive(content: bytes, path: str, *, most_bytes: int, damaged: str) -> Iterator[ZipFile]:
    """Open a zip; what fails while it is open is said in one sentence.

    Parameters
    ----------
    content : bytes
    path : str
        Place named in errors.
    most_bytes : int
        Of all its files together when they are unpacked.
    damaged : str
        Sentence where it is no zip, or a damaged one.

    Raises
    ------
    StudyError
        If it is damaged, encrypted, packed in a way that is not read, or too large.
    """
    try:
        with ZipFile(BytesIO(content)) as archive:
            entries = archive.infolist()
            if any(entry.flag_bits & _ENCRYPTED for entry in entries):
                raise StudyError(path, "is protected by a password: save it without one, then choose it again")
            if any(entry.compress_type not in (ZIP_STORED, ZIP_DEFLATED) for entry in entries):
                raise StudyError(
                    path, "is packed in a way that is not read here: pack it as an ordinary zip, then choose it again"
                )
            if sum(entry.file_size for entry in entries) > most_bytes:
                raise StudyError(path, f"is larger than {most_bytes / 1e6:g} MB when it is unpacked: choose a smaller one")
            yield archive
    except (TabrelError, StoppedError):
        raise
    except Exception as error:  # a damaged file may fail anywhere in the library that reads it, with any error
        raise StudyError(path, damaged) from error
