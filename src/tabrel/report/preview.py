"""Reports that are looked at before they are issued: set once, kept for a while, shown page by page."""

from __future__ import annotations

from collections import OrderedDict
from dataclasses import dataclass, replace
from hashlib import sha256
from io import BytesIO
from threading import Lock

from tabrel.core.judge.knowledge_cache import KnowledgeCache
from tabrel.core.study.model import Study
from tabrel.core.study.report_plan import ReportPlan, chosen_parts, chosen_sections
from tabrel.report.blocks import Block
from tabrel.report.contents import PartMaker, report_of
from tabrel.report.inputs import ReportInputs
from tabrel.report.pdf import pdf_of

MOST_KEPT = 6
MOST_PARTS_KEPT = 60
SCREEN_SCALE = 1.5
"""Dots a point: 108 to the inch."""


@dataclass(frozen=True)
class Preview:
    """Pages that are looked at.

    Attributes
    ----------
    key : str
        Digest of the study they are of.
    pdf : bytes
    sizes : tuple of (float, float)
        Width and height of each page. [pt]
    """

    key: str
    pdf: bytes
    sizes: tuple[tuple[float, float], ...]


def study_key(study: Study) -> str:
    """Return a digest of everything a report is made of."""
    return sha256(repr(study).encode()).hexdigest()[:32]


class Previews:
    """Reports set lately, and their parts, so that another order or another own text draws nothing again.

    Parameters
    ----------
    known : KnowledgeCache
        What filters do, as far as it has been computed.
    """

    def __init__(self, known: KnowledgeCache) -> None:
        self._known = known
        self._kept: OrderedDict[tuple[str, str], Preview] = OrderedDict()
        self._parts: OrderedDict[str, tuple[Block, ...]] = OrderedDict()
        self._lock, self._setting = Lock(), Lock()

    def inputs(self, study: Study) -> ReportInputs:
        """Return a study with what has been computed of it already."""
        return ReportInputs(study, kept=self._known)

    def draft(self, study: Study, dated: str) -> Preview:
        """Return the draft of a study's report."""
        return self._set(study, dated, None)

    def issued(self, study: Study, dated: str, number: str) -> Preview:
        """Return the report of a study under its number."""
        return self._set(study, dated, number)

    def _set(self, study: Study, dated: str, number: str | None) -> Preview:
        key = study_key(study)
        with self._setting:  # one after the other: each takes a second of everything
            with self._lock:
                result = self._kept.get((key, f"{number} {dated}"))
            if result is None:
                pdf = pdf_of(report_of(self.inputs(study), dated=dated, number=number, part=self._part))
                result = Preview(key, pdf, page_sizes(pdf))
            with self._lock:
                self._kept[(key, f"{number} {dated}")] = result
                self._kept.move_to_end((key, f"{number} {dated}"))
                while len(self._kept) > MOST_KEPT:
                    self._kept.popitem(last=False)
        return result

    def _part(self, inputs: ReportInputs, key: str, make: PartMaker) -> tuple[Block, ...]:
        """Return the blocks of a part, made anew only where what they rest on has changed."""
        of_filters = tuple(part for part in chosen_parts(inputs.plan) if part.part == "filters")
        sections = chosen_sections(inputs.plan)
        plan = ReportPlan(units=inputs.plan.units, size=inputs.plan.size, sections=sections, parts=of_filters)
        digest = f"{key} {study_key(replace(inputs.study, report=plan))}"
        with self._lock:
            headings = self._parts.get(digest)
        if headings is None:
            headings = tuple(make(inputs))
        with self._lock:
            self._parts[digest] = headings
            self._parts.move_to_end(digest)
            while len(self._parts) > MOST_PARTS_KEPT:
                self._parts.popitem(last=False)
        return headings

    def kept(self, key: str) -> Preview | None:
        """Return the draft of a key as it was set last, or None where it is forgotten."""
        with self._lock:
            return next((preview for (of, _), preview in reversed(self._kept.items()) if of == key), None)


_DRAWING = Lock()
"""The library that draws pages is not made for threads."""


def page_sizes(pdf: bytes) -> tuple[tuple[float, float], ...]:
    """Return width and height of each page of a PDF. [pt]"""
    import pypdfium2

    with _DRAWING, pypdfium2.PdfDocument(pdf) as document:
        return tuple(tuple(page.get_size()) for page in document)


def page_picture(pdf: bytes, page: int, scale: float = SCREEN_SCALE) -> bytes:
    """Return one page of a PDF, counted from 1, as PNG: exactly as it will print."""
    import pypdfium2

    with _DRAWING, pypdfium2.PdfDocument(pdf) as document:
        out = BytesIO()
        document[page - 1].render(scale=scale).to_pil().convert("RGB").save(out, "PNG", optimize=False, compress_level=3)
        return out.getvalue()
