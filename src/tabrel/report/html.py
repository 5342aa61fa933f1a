"""A report as one HTML file: no script, nothing fetched, its fonts and drawings inside."""

from __future__ import annotations

from base64 import b64encode
from functools import lru_cache
from itertools import count
from re import Match, sub
from typing import Any

from tabrel.report.blocks import Report
from tabrel.report.columns import FONTS
from tabrel.report.pdf import TEMPLATE

_CUTS = (("Regular", 400, "normal"), ("Italic", 400, "italic"), ("SemiBold", 600, "normal"))


@lru_cache
def _template() -> Any:
    """Return the template; text is escaped wherever it is put."""
    from jinja2 import Environment, FileSystemLoader, StrictUndefined

    environment = Environment(
        loader=FileSystemLoader(TEMPLATE.parent), autoescape=True, undefined=StrictUndefined, trim_blocks=True
    )
    environment.filters["own_ids"] = own_ids
    return environment.get_template("report.html")


def html_of(report: Report) -> str:
    """Return a report as HTML."""
    fonts = [
        (cut, weight, style, b64encode((FONTS / f"IBMPlexSans-{cut}.woff2").read_bytes()).decode())
        for cut, weight, style in _CUTS
    ]
    kinds = [type(block).__name__ for block in report.blocks]
    page: str = _template().render(report=report, kinds=kinds, fonts=fonts, next_number=count(1).__next__)
    return page


def own_ids(svg: str, number: int) -> str:
    """Return a drawing whose ids are its own within a page of many; words between its elements stay as they are."""

    def of_its_own(tag: Match[str]) -> str:
        return sub(r'(\sid="|href="#|url\(#)([^)"]+)', rf"\g<1>f{number}-\2", tag[0])

    return sub(r"<[^>]*>", of_its_own, svg)
