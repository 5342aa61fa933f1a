"""The report of a study: its plan, its pages, issuing it, what has changed since, and every file that leaves."""

from __future__ import annotations

import json
import sqlite3
from datetime import UTC, datetime
from hashlib import sha256
from typing import Annotated, Any

from fastapi import APIRouter, Path, Query, Request, Response

from tabrel.api import stale
from tabrel.api.deps import Connection, Content, ReportId, StudyId, content_of
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.report.models import (
    DifferenceOut,
    IssuedReportOut,
    IssueIn,
    OfferedPartOut,
    PageOut,
    ReportOut,
    ReportPlanIn,
    ReportPreviewOut,
    SizeOut,
)
from tabrel.api.study.models import StudyOut
from tabrel.api.study.studies import stored_study
from tabrel.api.turns import HEAVY
from tabrel.api.wire import NothingIn, UnitFamilyIn
from tabrel.api.workers import Workers
from tabrel.core.errors import StudyError
from tabrel.core.judge.judged_use import use_named
from tabrel.core.rules.report import check_report_plan
from tabrel.core.study.model import Study
from tabrel.core.study.report_plan import PARTS, SECTIONS, SIZES, ReportPlan, Size, resized
from tabrel.document.differences import Difference, study_differences
from tabrel.document.full_study import FullStudy
from tabrel.document.study_document import study_to_json
from tabrel.report.bench_sheet import bench_sheets, part_labels
from tabrel.report.blocks import Paper
from tabrel.report.package import study_in_package
from tabrel.report.pdf import pdf_of
from tabrel.report.preview import Preview, Previews, page_picture, study_key
from tabrel.report.written import WRITERS, written_as
from tabrel.store.connection import snapshot, transaction
from tabrel.store.errors import ChangedMeanwhileError, NotStoredError
from tabrel.store.journal import recorded
from tabrel.store.parts import OF_STUDY
from tabrel.store.sample.samples import names_of_samples
from tabrel.store.study.report_numbers import next_number
from tabrel.store.study.reports import (
    IssuedReport,
    insert_issued,
    issued_of_study,
    load_issued,
    pdf_of_issued,
)
from tabrel.store.study.studies import load_study, load_study_frame

router = APIRouter(prefix="/api", tags=["report"], responses=PROBLEM_RESPONSES)

PLACE = "report"
"""Where the journal says the plan was changed."""

POINT_MM = 25.4 / 72
MEDIA_TYPES = {
    ".pdf": "application/pdf",
    ".html": "text/html; charset=utf-8",
    ".xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    ".csv": "text/csv; charset=utf-8",
    ".zip": "application/zip",
}

PreviewKey = Annotated[
    str, Path(description="Key of a preview, as its answer names it.", pattern="^[0-9a-f]{32}$", examples=["0" * 32])
]
PageNumber = Annotated[int, Path(description="Which page, from 1.", ge=1, le=2000, examples=[1])]
Ending = Annotated[
    str, Path(description="What is written, by the file's ending without its point.", max_length=8, examples=["csv"])
]


_OfSize = Annotated[Size | None, Query(description="Of the pages; without it that of the plan.", examples=["card"])]
_FirstUse = Annotated[str | None, Query(description="Name of the use that stands first.", max_length=200, examples=["vans"])]


def _binary(words: str, *media_types: str) -> dict[int | str, dict[str, Any]]:
    schema = {"schema": {"type": "string", "format": "binary"}}
    return {200: {"description": words, "content": {kind.partition(";")[0]: schema for kind in media_types}}}


@router.get("/studies/{study_id}/report")
def get_report(study_id: StudyId, conn: Connection) -> ReportOut:
    """Return the plan of a study's report, what it can hold, and the reports that were issued."""
    with snapshot(conn):
        study = load_study(conn, study_id)
        issued = issued_of_study(conn, study_id)
    return ReportOut(
        plan=study.report or ReportPlan(),
        sizes=[SizeOut(key=key, title=title, parts=list(parts)) for key, (title, parts) in SIZES.items()],
        parts=[OfferedPartOut(key=key, title=title) for key, title in PARTS.items()],
        sections=[OfferedPartOut(key=key, title=title) for key, title in SECTIONS.items()],
        endings=[ending.removeprefix(".") for ending in WRITERS],
        issued=[_issued_out(report, study) for report in issued],
    )


@router.put("/studies/{study_id}/report", responses=stale.naming(200))
def put_report(study_id: StudyId, given: ReportPlanIn, conn: Connection, response: Response) -> ReportOut:
    """Change the plan of a study's report; refused where it is no longer as it was seen. Another size brings its annexes."""
    with transaction(conn):
        now = load_study_frame(conn, study_id).report or ReportPlan()
        if given.plan != now:
            if given.seen != now:
                raise ChangedMeanwhileError("another window has changed the plan of the report meanwhile: look, then do it again")
            plan = given.plan
            if (size := plan.size or "short") != (now.size or "short"):
                plan = resized(plan, size)
            check_report_plan("plan", plan)
            with recorded(conn, study_id, None, "plan of the report", PLACE):
                OF_STUDY.set(conn, study_id, "report", plan)
    stale.name_stale(response, stale.whole_study(study_id, (sample.id for sample in names_of_samples(conn, study_id))))
    return get_report(study_id, conn)


@router.post("/studies/{study_id}/report/preview", dependencies=HEAVY)
def post_report_preview(study_id: StudyId, _: NothingIn, conn: Connection, request: Request) -> ReportPreviewOut:
    """Set the draft of a study's report and return its pages; what was set already is not set again."""
    with snapshot(conn):
        study = load_study(conn, study_id)
    dated = _today()
    preview = _previews(request).draft(study, dated)
    return ReportPreviewOut(
        key=preview.key,
        title=(study.report.title if study.report else None) or study.name,
        dated=dated,
        size_bytes=len(preview.pdf),
        pages=[PageOut(width_mm=width * POINT_MM, height_mm=height * POINT_MM) for width, height in preview.sizes],
    )


@router.get(
    "/report-previews/{preview_key}/pages/{page}",
    response_class=Response,
    responses=_binary("The page as it will print.", "image/png"),
)
async def get_report_page(preview_key: PreviewKey, page: PageNumber, request: Request) -> Response:
    """Return a page of a draft as a picture, drawn in a process of its own."""
    preview = _kept(request, preview_key)
    if page > len(preview.sizes):
        raise NotStoredError(f"this report has {len(preview.sizes)} pages, no page {page}: choose one of them")
    workers: Workers = request.app.state.workers
    picture = await workers.run(page_picture, preview.pdf, page)
    return Response(picture, media_type="image/png", headers={"Cache-Control": "private, max-age=3600"})


@router.post("/studies/{study_id}/report/issue", status_code=201, dependencies=HEAVY, responses=stale.naming(201))
def post_issue(study_id: StudyId, given: IssueIn, conn: Connection, request: Request, response: Response) -> IssuedReportOut:
    """Issue the report that was looked at, under the next number of the year; from then on nothing changes it.

    The same pages asked for again on the same day are the report that was issued of them: no second one.
    """
    stale.name_stale(response, [f"{stale.STUDIES}/{study_id}/report"])
    previews = _previews(request)
    for _ in range(3):
        with snapshot(conn):
            study, number = load_study(conn, study_id), next_number(conn, datetime.now(UTC).year)
            again = _issued_today(conn, study_id, study)
        if study_key(study) != given.preview_key:
            raise ChangedMeanwhileError("the study has changed since these pages were set: look at them again, then issue them")
        if not study.samples:
            raise StudyError("samples", "there is no filter to report on: add one first")
        if again:
            return again
        pdf = previews.issued(study, _today(), number).pdf  # outside of the transaction: setting pages takes a second
        with transaction(conn):
            now = load_study(conn, study_id)
            if study_key(now) != given.preview_key or next_number(conn, datetime.now(UTC).year) != number:
                continue
            if again := _issued_today(conn, study_id, now):
                return again
            report_id = insert_issued(
                conn,
                study_id,
                number=number,
                issued_at=datetime.now(UTC).replace(microsecond=0).isoformat(),
                title=(study.report.title if study.report else None) or study.name,
                document=_document(study),
                pdf=pdf,
                sha256=sha256(pdf).hexdigest(),
            )
        return _issued_out(load_issued(conn, report_id), study)
    raise ChangedMeanwhileError(
        "others issue reports or change this study at the same moment: look at the pages again, then issue them"
    )


@router.get(
    "/issued-reports/{report_id}/pdf",
    response_class=Response,
    responses=_binary("The report as it was issued, byte by byte.", MEDIA_TYPES[".pdf"]),
)
def get_issued_pdf(report_id: ReportId, conn: Connection) -> Response:
    """Return a report as it was issued, byte by byte."""
    report = load_issued(conn, report_id)
    return _file(pdf_of_issued(conn, report_id), f"report {report.number}.pdf", MEDIA_TYPES[".pdf"])


@router.get("/issued-reports/{report_id}/document")
def get_issued_document(report_id: ReportId, conn: Connection) -> dict[str, Any]:
    """Return the study document that a report was issued from."""
    document: dict[str, Any] = json.loads(load_issued(conn, report_id).document)
    return document


@router.get("/issued-reports/{report_id}/differences")
def get_differences(report_id: ReportId, conn: Connection) -> list[DifferenceOut]:
    """Return what of the study is otherwise than when a report was issued."""
    report = load_issued(conn, report_id)
    return [DifferenceOut(**vars(difference)) for difference in _differences(report, load_study(conn, report.study_id))]


@router.get(
    "/studies/{study_id}/report/files/{ending}",
    dependencies=HEAVY,
    response_class=Response,
    responses=_binary("The file; a draft.", *MEDIA_TYPES.values()),
)
def get_report_file(
    study_id: StudyId,
    ending: Ending,
    conn: Connection,
    request: Request,
    size: _OfSize = None,
    use: _FirstUse = None,
) -> Response:
    """Return the report of a study as a file: a draft, as pages, one page, a workbook, the results, or the whole study."""
    with snapshot(conn):
        study = load_study(conn, study_id)
        first = use_named(study, use).name if use else None
    suffix = f".{ending.lower()}"
    inputs = _previews(request).inputs(study).in_size(size, first)
    content = written_as(suffix, inputs, FullStudy(study), _today())
    kind = "card" if size == "card" else "draft"
    return _file(content, f"{study.name} {kind}{suffix}", MEDIA_TYPES[suffix])


PACKAGE = content_of(MEDIA_TYPES[".zip"], {"type": "string", "format": "binary"})


@router.post("/packages", status_code=201, dependencies=HEAVY, openapi_extra=PACKAGE, responses=stale.naming(201))
def post_package(content: Content, conn: Connection, response: Response) -> StudyOut:
    """Import a study from a zip that Tabrel wrote, whole or not at all."""
    return stored_study(study_in_package(content), conn, response)


_ForBench = Annotated[
    list[int], Query(description="Samples it is printed for; none: all that are in use.", max_length=100, examples=[[1]])
]
_Family = Annotated[UnitFamilyIn, Query(description="Units the readings are asked for in.", examples=["metric"])]
_PDF = _binary("Pages to print.", MEDIA_TYPES[".pdf"])


@router.get("/studies/{study_id}/bench-sheets", response_class=Response, responses=_PDF, dependencies=HEAVY)
def get_bench_sheets(
    study_id: StudyId,
    conn: Connection,
    sample: _ForBench = [],  # noqa: B006
    family: _Family = "metric",
) -> Response:
    """Return blank measuring sheets to print: by stage, with drawings, room for three readings, tools and cautions."""
    study, labels, paper = _for_bench(conn, study_id, sample)
    report = bench_sheets(study, labels, family=family, paper=paper, dated=_today())
    return _file(pdf_of(report), f"{study.name} measuring sheets.pdf", MEDIA_TYPES[".pdf"])


@router.get("/studies/{study_id}/part-labels", response_class=Response, responses=_PDF, dependencies=HEAVY)
def get_part_labels(study_id: StudyId, conn: Connection, sample: _ForBench = []) -> Response:  # noqa: B006
    """Return labels to cut out and lay beside the pieces: sample, part and date."""
    study, labels, paper = _for_bench(conn, study_id, sample)
    report = part_labels(study, labels, paper=paper, dated=_today())
    return _file(pdf_of(report), f"{study.name} part labels.pdf", MEDIA_TYPES[".pdf"])


def _for_bench(conn: sqlite3.Connection, study_id: int, sample_ids: list[int]) -> tuple[Study, list[str], Paper]:
    with snapshot(conn):
        study = load_study(conn, study_id)
        names = {sample.id: sample.label for sample in names_of_samples(conn, study_id)}
    for sample_id in sample_ids:
        if sample_id not in names:
            raise NotStoredError(f"there is no sample {sample_id} in this study: choose one of its rack")
    paper: Paper = (study.report.paper if study.report else None) or "a4"
    return study, [names[number] for number in sample_ids], paper


def _previews(request: Request) -> Previews:
    previews: Previews = request.app.state.previews
    return previews


def _kept(request: Request, key: str) -> Preview:
    preview = _previews(request).kept(key)
    if preview is None:
        raise NotStoredError("these pages are no longer kept: set them again")
    return preview


def _today() -> str:
    return datetime.now(UTC).date().isoformat()


def _differences(report: IssuedReport, study: Study) -> tuple[Difference, ...]:
    return study_differences(json.loads(report.document), study_to_json(study))


def _issued_today(conn: sqlite3.Connection, study_id: int, study: Study) -> IssuedReportOut | None:
    """Return the last report of a study where it was issued today of the study as it is."""
    last = next(iter(issued_of_study(conn, study_id)), None)
    is_same = last and last.document == _document(study) and last.issued_at.startswith(_today())
    return _issued_out(last, study) if last and is_same else None


def _document(study: Study) -> str:
    return json.dumps(study_to_json(study), ensure_ascii=False)


def _issued_out(report: IssuedReport, study: Study) -> IssuedReportOut:
    return IssuedReportOut(
        id=report.id,
        number=report.number,
        issued_at=report.issued_at,
        title=report.title,
        sha256=report.sha256,
        size_bytes=report.size,
        difference_count=len(_differences(report, study)),
    )


def _file(content: bytes, name: str, media_type: str) -> Response:
    plain = "".join(letter if letter.isascii() and (letter.isalnum() or letter in " .-_") else "-" for letter in name)[-80:]
    return Response(content, media_type=media_type, headers={"Content-Disposition": f'attachment; filename="{plain.strip()}"'})
