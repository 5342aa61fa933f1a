"""Samples begun as copies, the templates they are begun with, and confirming what was copied."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable
from typing import cast

from fastapi import APIRouter, Response

from tabrel.api import stale
from tabrel.api.change.bench import Bench, BenchChange
from tabrel.api.change.models import ChangedOut
from tabrel.api.deps import Connection, SampleId, StudyId, TemplateId
from tabrel.api.entry.models import ConfirmationIn, DuplicateIn, TemplateIn, TemplateOut
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.wire import NothingIn
from tabrel.core.errors import StudyError
from tabrel.core.review.copies import copied_sample, is_empty
from tabrel.core.rules.study import check_sample
from tabrel.core.study.model import Sample
from tabrel.document.template import gone_keys, read_template, write_template
from tabrel.store.connection import transaction
from tabrel.store.entry.copies import CopiedRow, confirm_row, copied_facts, origin_of_row, unmark_copied
from tabrel.store.entry.holes import place_of_hole_group
from tabrel.store.entry.readings import place_of_reading
from tabrel.store.errors import ChangedMeanwhileError, ConflictError, NotStoredError
from tabrel.store.journal import belongs_to_sample, recorded
from tabrel.store.sample.samples import insert_sample, load_sample, names_of_samples, next_position, study_of_sample
from tabrel.store.sample.templates import (
    StoredTemplate,
    list_templates,
    load_template,
    put_back_template,
    remove_template,
    save_template,
    template_named,
)
from tabrel.store.study.studies import load_study_frame
from tabrel.store.study.uses import relabel_in_uses

router = APIRouter(prefix="/api", tags=["copies"], responses=PROBLEM_RESPONSES)


@router.post("/studies/{study_id}/duplicates", status_code=201)
def post_duplicate(study_id: StudyId, given: DuplicateIn, bench: Bench) -> ChangedOut:
    """Add a sample begun with parts of another one, or of a template; what is copied is marked, and counts as assumed."""
    conn = bench.conn
    with transaction(conn):
        load_study_frame(conn, study_id)
        source, origin = _source(conn, given)
        labels = [other.label for other in names_of_samples(conn, study_id)]
        label = " ".join(given.label.split()) or free_label(origin, labels)
        if label in labels:
            raise StudyError("label", f"{label!r} names a sample of this study already: give each its own label")
        copy = copied_sample(source, label, given.parts, origin)
        if is_empty(copy):
            raise StudyError("parts", f"{origin!r} has nothing in these parts: choose others, or add an empty sample")
        check_sample("sample", copy)
        with recorded(conn, study_id, None, f"sample {label} added, copied from {origin}", "sample.label") as change_id:
            relabel_in_uses(conn, study_id, label, None)  # of one of that label that was deleted
            sample_id = insert_sample(conn, study_id, next_position(conn, study_id), copy)
            belongs_to_sample(conn, change_id, sample_id)
    return bench.answer(sample_id)


def _source(conn: Connection, given: DuplicateIn) -> tuple[Sample, str]:
    """Return what is copied and what it is called, or refuse a template that holds what nobody knows any more."""
    if (given.sample_id is None) == (given.template_id is None):
        raise StudyError("sample_id", "name either a sample or a template to copy from")
    if given.sample_id is not None:
        source = load_sample(conn, given.sample_id).sample
        return source, source.label
    template = load_template(conn, cast("int", given.template_id))
    gone = gone_keys(template.document)
    if gone and not given.without_gone:
        raise StudyError(
            "template_id",
            f"the template {template.name!r} holds {', '.join(gone)}, which this Tabrel does not know: "
            "use it without, or save it anew from a sample",
        )
    return read_template(template.document), template.name


def free_label(base: str, taken: Collection[str]) -> str:
    """Return a label made of another one that is not taken yet.

    Examples
    --------
    >>> free_label("Korvath 2", ["Korvath", "Korvath 2"]), free_label("Korvath", ["Korvath"])
    ('Korvath 3', 'Korvath 2')
    """
    stem, number = re.sub(r" \d+$", "", base), 2
    while f"{stem} {number}" in taken:
        number += 1
    return f"{stem} {number}"


@router.post("/samples/{sample_id}/confirmations", status_code=201)
def post_confirmations(sample_id: SampleId, given: ConfirmationIn, bench: Bench) -> ChangedOut:
    """Record that copied things hold for this sample too; nothing else of them changes."""
    with transaction(bench.conn):
        study_of_sample(bench.conn, sample_id)
        if not confirm_copied(bench, sample_id, given.things):
            raise ChangedMeanwhileError("this is not copied any more: it was confirmed or said anew meanwhile, look at it again")
    return bench.answer(sample_id)


_ROW = re.compile(r"(?P<kind>readings|holes|claims)/(?P<id>\d{1,18})")


def confirm_copied(bench: BenchChange, sample_id: int, things: Iterable[str]) -> bool:
    """Take the marks of copied things of a sample away, as one change; False where none of them is copied.

    The caller opens the transaction. What is marked is as it was copied: whoever says it anew takes the mark away.
    """
    conn = bench.conn
    copied, facts, rows, origins = copied_facts(conn, sample_id), [], [], set()
    for thing in dict.fromkeys(things):
        match = _ROW.fullmatch(thing)
        if match:
            kind, row_id = cast("CopiedRow", match["kind"]), int(match["id"])
            origin = origin_of_row(conn, sample_id, kind, row_id)
            if origin is not None:
                rows.append((kind, row_id))
                origins.add(origin)
        elif thing in copied:
            facts.append(thing)
            origins.add(copied[thing])
    count = len(facts) + len(rows)
    if not count:
        return False
    words = f"confirmed {'one thing' if count == 1 else f'{count} things'} copied from {' and '.join(sorted(origins))}"
    place = facts[0].partition("/")[2] if facts else _place_of(conn, *rows[0])
    with bench.recorded(sample_id, words, place):
        unmark_copied(conn, sample_id, facts)
        for kind, row_id in rows:
            confirm_row(conn, kind, row_id)
    return True


def _place_of(conn: Connection, kind: CopiedRow, row_id: int) -> str:
    """Return the field a copied row is confirmed at, where undo leads back to."""
    if kind == "readings":
        return place_of_reading(conn, row_id).key
    if kind == "claims":
        return "claims"
    place = place_of_hole_group(conn, row_id)
    return f"holes.{place.placement}[{place.position}]"


@router.get("/templates")
def get_templates(conn: Connection) -> list[TemplateOut]:
    """Return the templates, by name."""
    return [_template_out(template) for template in list_templates(conn)]


def _template_out(stored: StoredTemplate) -> TemplateOut:
    return TemplateOut(
        id=stored.id,
        name=stored.name,
        parts=list(stored.parts),
        saved_at=stored.saved_at,
        gone=list(gone_keys(stored.document)),
    )


@router.post("/templates", status_code=201, responses=stale.naming(201))
def post_template(given: TemplateIn, conn: Connection, response: Response) -> TemplateOut:
    """Save parts of a sample under a name, to begin others with."""
    with transaction(conn):
        name = " ".join(given.name.split())
        if not name:
            raise StudyError("name", "is empty: type a short name for the template")
        if template_named(conn, name) is not None and not given.replace:
            raise ConflictError(f"there is a template {name!r} already: replace it, or choose another name")
        source = load_sample(conn, given.sample_id).sample
        copy = copied_sample(source, name, given.parts, name)
        if is_empty(copy):
            raise StudyError("parts", f"{source.label!r} has nothing in these parts: choose others")
        template_id = save_template(conn, name, given.parts, write_template(copy))
        stored = load_template(conn, template_id)
    stale.name_stale(response, [stale.TEMPLATES])
    return _template_out(stored)


@router.delete("/templates/{template_id}", responses=stale.naming(200))
def delete_template(template_id: TemplateId, _: NothingIn, conn: Connection, response: Response) -> list[TemplateOut]:
    """Offer a template no longer; it can be put back."""
    with transaction(conn):
        load_template(conn, template_id)
        remove_template(conn, template_id)
    stale.name_stale(response, [stale.TEMPLATES])
    return get_templates(conn)


@router.post("/templates/{template_id}/put-back", responses=stale.naming(200))
def post_put_back(template_id: TemplateId, _: NothingIn, conn: Connection, response: Response) -> list[TemplateOut]:
    """Offer a template again that was removed."""
    with transaction(conn):
        if not put_back_template(conn, template_id):
            raise NotStoredError("there is no such template: choose another")
    stale.name_stale(response, [stale.TEMPLATES])
    return get_templates(conn)
