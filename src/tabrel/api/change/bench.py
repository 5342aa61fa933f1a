"""A change of a sample on its way: it names the revision it has seen, is recorded, and answers with what it made."""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Annotated, Any

from fastapi import Depends, Header, Query, Request, Response

from tabrel.api import stale
from tabrel.api.change.models import ChangedOut, SheetChangesOut
from tabrel.api.deps import Connection
from tabrel.api.figures.routes import figures_of
from tabrel.api.sample.models import SheetOut
from tabrel.api.sample.sent_sheets import SentSheets
from tabrel.api.sample.sheet import opened_sample, sheet_of
from tabrel.api.study.studies import RACK_FACTS, RACK_SIZES, get_study
from tabrel.core.review.facts import changed_facts, facts_of, is_of_study
from tabrel.store.connection import snapshot, transaction, window_of
from tabrel.store.entry.copies import copied_facts, unmark_copied
from tabrel.store.errors import ChangedMeanwhileError, NotStoredError, RevisionNeededError
from tabrel.store.journal import recorded
from tabrel.store.revisions import OF_STUDY, raise_facts, revision_of, study_revision
from tabrel.store.sample.samples import load_stated, names_of_samples, study_of_sample
from tabrel.store.study.studies import load_study_frame

IfMatch = Annotated[
    str | None,
    Header(
        alias="If-Match",
        description="Revision of what is changed, as it was seen: in double quotes, from `revisions` "
        "of the sheet, 0 where it is not there. Another revision is refused with 412, none with 428.",
        max_length=200,
        examples=['"17"'],
    ),
]
Since = Annotated[
    int | None,
    Query(
        description="Revision of the sheet that the window has: the answer brings what is different. None: the whole sheet.",
        ge=0,
        lt=2**63,
        examples=[17],
    ),
]
WithFigures = Annotated[
    bool, Query(alias="figures", description="Whether the answer brings the figures of the opened filter too.", examples=[False])
]


ETAG = {"ETag": {"description": "Its revision, for If-Match.", "schema": {"type": "string"}, "example": '"17"'}}
"""Header of an answer that is one thing, for the interface description."""


def etag(revision: int) -> str:
    """Return a revision as an entity tag."""
    return f'"{revision}"'


class BenchChange:
    """One change of a sample: opens the transaction, checks what was seen, records, raises revisions, answers."""

    def __init__(
        self,
        conn: Connection,
        request: Request,
        response: Response,
        if_match: IfMatch = None,
        since: Since = None,
        with_figures: WithFigures = False,
    ) -> None:
        self.conn: sqlite3.Connection = conn
        self._sheets: SentSheets = request.app.state.sheets
        self._response = response
        self._if_match = if_match
        self._since = since
        self._with_figures = with_figures
        self._changed: set[str] = set()
        self._place = ""
        self._is_of_study = False
        self._moves = 0
        self._made = 0

    def require_seen(self, sample_id: int, thing: str, says: str) -> None:
        """Refuse to change a thing that is no longer as the window has seen it.

        Parameters
        ----------
        sample_id : int
        thing : str
            As in `SheetOut.revisions`; with ``*`` for several, whose last revision counts.
        says : str
            What to say if it is another.

        Raises
        ------
        RevisionNeededError
            If no revision is named.
        ChangedMeanwhileError
            If it is another.
        """
        if self._if_match is None:
            raise RevisionNeededError
        seen = re.findall(r'(?<!W/)"(\d+)"', self._if_match)
        now = revision_of(self.conn, study_of_sample(self.conn, sample_id), sample_id, thing)
        if self._if_match.strip() != "*" and str(now) not in seen:
            raise ChangedMeanwhileError(says)

    @contextmanager
    def recorded(self, sample_id: int, words: str, place: str, *, of_study: bool = False) -> Iterator[int]:
        """Record what the block changes of a sample, or of its whole study, as one change, and raise what it touches."""
        study_id = study_of_sample(self.conn, sample_id)
        with (
            transaction(self.conn),
            self.raising(study_id, sample_id, place, of_study=of_study) as changed,
            recorded(self.conn, study_id, None if of_study else sample_id, words, place) as change_id,
        ):
            yield change_id
            if copied := copied_facts(self.conn, sample_id):  # what is said anew is no longer copied
                unmark_copied(self.conn, sample_id, copied.keys() & changed())

    @contextmanager
    def raising(self, study_id: int, sample_id: int, place: str, *, of_study: bool) -> Iterator[Callable[[], set[str]]]:
        """Raise the revisions of the facts that the block changes, which raises the study's itself; yield what tells them."""
        before = self._facts(study_id, sample_id)

        def changed_so_far() -> set[str]:
            return changed_facts(before, self._facts(study_id, sample_id))

        yield changed_so_far
        changed = changed_so_far()
        raise_facts(self.conn, study_id, [(OF_STUDY if is_of_study(text) else sample_id, text) for text in changed])
        self._changed |= changed
        self._place = place
        self._is_of_study |= of_study
        self._moves += 1
        self._made = study_revision(self.conn, study_id)

    def _facts(self, study_id: int, sample_id: int) -> dict[str, object]:
        try:
            stored = load_stated(self.conn, sample_id)
        except NotStoredError:  # taken back with all that was said of it
            return {}
        return facts_of(load_study_frame(self.conn, study_id), stored.sample)

    def answer(self, sample_id: int, thing: str | None = None) -> ChangedOut:
        """Return what a change made of a sample, and name what it made stale.

        Parameters
        ----------
        sample_id : int
        thing : str, optional
            What was changed: its new revision is the answer's ETag.
        """
        with snapshot(self.conn):
            opened = opened_sample(self.conn, sample_id)
            sheet = sheet_of(opened, window_of(self.conn))
            figures = figures_of(opened) if self._with_figures else None
            shown_in_rack = self._place in RACK_SIZES.values() or bool(self._changed & RACK_FACTS)
            study = get_study(sheet.study_id, self.conn) if shown_in_rack else None
            others = [sample.id for sample in names_of_samples(self.conn, sheet.study_id) if sample.id != sample_id]
            if thing is not None:
                self._response.headers["ETag"] = etag(self._made or revision_of(self.conn, sheet.study_id, sample_id, thing))
        self._name_stale(sheet, others, brings_study=study is not None)
        before = self._sheets.sent(sample_id, self._since)
        self._sheets.keep(sheet)
        return ChangedOut(
            sample_id=sample_id,
            study_id=sheet.study_id,
            sheet=None if before else sheet,
            changes=changes_between(before, sheet) if before else None,
            figures=figures,
            study=study,
        )

    def gone(self, study_id: int, sample_id: int) -> ChangedOut:
        """Return that a sample is no longer there, and the study as the rack shows it without it."""
        all_of_it = [sample_id, *(sample.id for sample in names_of_samples(self.conn, study_id))]
        stale.name_stale(self._response, [f"{stale.STUDIES}/{study_id}", *stale.whole_study(study_id, all_of_it)])
        with snapshot(self.conn):
            study = get_study(study_id, self.conn)
        return ChangedOut(sample_id=sample_id, study_id=study_id, sheet=None, changes=None, figures=None, study=study)

    def _name_stale(self, sheet: SheetOut, others: list[int], *, brings_study: bool) -> None:
        """Name what is stale; where others have changed the study since the window looked, that is everything of it."""
        study = f"{stale.STUDIES}/{sheet.study_id}"
        elsewhere = self._since is None or sheet.revision - self._moves != self._since
        if not self._moves and not elsewhere:
            return
        names = [stale.STUDIES, *stale.of_sample(sheet.id, figures=not self._with_figures), *stale.of_study(sheet.study_id)]
        if elsewhere or (self._is_of_study and not brings_study):  # a sample may have come back
            names.append(study)
        if elsewhere or self._place == "scenarios":
            names.append(f"{study}/scenarios")
        if elsewhere or self._is_of_study:  # at least what they would undo is another
            names += stale.whole_samples(others)
        stale.name_stale(self._response, names)


Bench = Annotated[BenchChange, Depends()]


ALWAYS = ("undo", "redo")
"""Members that differ from window to window."""


def changes_between(before: SheetOut, after: SheetOut) -> SheetChangesOut:
    """Return what makes one sheet of a sample of another."""
    changed: dict[str, Any] = {
        name: getattr(after, name)
        for name in SheetOut.model_fields.keys() & SheetChangesOut.model_fields.keys() - {"revision", "parts"}
        if name in ALWAYS or getattr(before, name) != getattr(after, name)
    }
    fields = {field.key: field for part in before.parts for field in part.fields}
    seen = {value.key: value for part in before.parts for value in part.observations}
    if [(part.key, part.hole_group) for part in before.parts] != [(part.key, part.hole_group) for part in after.parts]:
        return SheetChangesOut(revision=after.revision, fields=[], observations=[], parts=after.parts, **changed)
    return SheetChangesOut(
        revision=after.revision,
        fields=[field for part in after.parts for field in part.fields if fields.get(field.key) != field],
        observations=[value for part in after.parts for value in part.observations if seen.get(value.key) != value],
        **changed,
    )
