"""The catalogues of the core, for fields, pictures, words and search."""

from __future__ import annotations

from functools import lru_cache
from platform import python_version
from sqlite3 import sqlite_version

from fastapi import APIRouter, Request

from tabrel import __version__
from tabrel.api.body_limit import COUNT_TABLE_BYTES, DUTY_CYCLE_BYTES, PACKAGE_BYTES, WORKBOOK_BYTES
from tabrel.api.catalogue.models import (
    CatalogueOut,
    CircuitPartOut,
    DetailOut,
    FieldColourOut,
    PartTitleOut,
    QuantityOut,
    ResultRowOut,
    ServiceOut,
    TermsOut,
    UnitOut,
)
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.core.catalogue.glossary import GLOSSARY
from tabrel.core.catalogue.hole_dimensions import SHAPE_DIMENSIONS
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import HOLE_PLACEMENTS, PART_SYNONYMS, PART_TITLES, QUANTITIES
from tabrel.core.catalogue.results import RESULTS, WIRE_UNITS
from tabrel.core.catalogue.stations import STATIONS
from tabrel.core.catalogue.terms import ENGINE_SIDE, INPUTS, TERMS
from tabrel.core.catalogue.units import unit_in
from tabrel.core.details.circuit_details import CIRCUIT_PARTS, MAP_NEEDS
from tabrel.core.details.details import DETAILS
from tabrel.core.details.kinds import detail_text
from tabrel.core.entry.claim_text import CLAIMABLE_RESULTS
from tabrel.core.entry.date_codes import DATE_TOKENS
from tabrel.core.hydraulics.threshold_curve import HOTTEST
from tabrel.core.maps.quantities import MAP_QUANTITIES
from tabrel.core.oil.grades import GRADES
from tabrel.core.results.working_chains import CHAINS
from tabrel.core.review.before_cut import CAUTIONS, CUT_METHODS
from tabrel.core.review.copies import PARTS_TO_COPY
from tabrel.core.review.needs import SHORT_SHEET
from tabrel.document.plain_json import MOST_BYTES
from tabrel.report.figures.palette import FIELD, SAMPLES

router = APIRouter(prefix="/api", tags=["catalogue"], responses=PROBLEM_RESPONSES)


@router.get("/catalogue")
def get_catalogue() -> CatalogueOut:
    """Return the catalogues: fetched once, they do not change while the program runs."""
    return catalogue_out()


@router.get("/service")
def get_service(request: Request) -> ServiceOut:
    """Return what serves, and whether what is entered can be kept; looked at when a window is opened."""
    warning = request.app.state.service.opened.warning
    return ServiceOut(version=__version__, python=python_version(), sqlite=sqlite_version, warning=warning)


@lru_cache
def catalogue_out() -> CatalogueOut:
    """Return the catalogues of the core."""
    return CatalogueOut(
        stations=list(STATIONS),
        hole_shapes=list(SHAPE_DIMENSIONS),
        parts=[
            *(
                PartTitleOut(key=key, title=title, stage=stage, synonyms=list(PART_SYNONYMS.get(key, ())))
                for key, title in PART_TITLES.items()
                if (stage := next((quantity.stage for quantity in QUANTITIES.values() if quantity.part == key), None))
            ),
            *(
                PartTitleOut(key=f"holes.{key}", title=placement.title, stage=placement.stage, synonyms=list(placement.synonyms))
                for key, placement in HOLE_PLACEMENTS.items()
            ),
        ],
        part_titles=dict(PART_TITLES),
        quantities=[
            QuantityOut(
                key=q.key,
                title=q.title,
                part=PART_TITLES[q.part],
                stage=q.stage,
                synonyms=list(q.synonyms),
                views=list(q.views),
            )
            for q in QUANTITIES.values()
        ],
        observations=list(OBSERVATIONS.values()),
        details=[
            DetailOut(
                key=detail.key,
                title=detail.title,
                kind=detail.kind,
                help=detail.help,
                choices=list(detail.choices),
                whole_only=detail.whole_only,
                stage=detail.stage,
                synonyms=list(detail.synonyms),
                usual=detail_text(detail, detail.usual) or "",
                usual_inch=detail_text(detail, detail.usual, "inch") or "",
                views=list(detail.views),
            )
            for detail in DETAILS.values()
        ],
        terms=TermsOut(**TERMS),
        input_fields={key: item.field for key, item in INPUTS.items() if item.field},
        units={suffix: _unit(symbol) for suffix, symbol in WIRE_UNITS.items() if symbol},
        results=[
            ResultRowOut(
                name=row.name,
                key=row.key,
                title=row.title,
                unit=row.unit,
                is_headline=row.is_headline,
                has_working=row.name in CHAINS,
            )
            for row in RESULTS.values()
        ],
        claimable_results=list(CLAIMABLE_RESULTS),
        map_quantities=list(MAP_QUANTITIES.values()),
        circuit_parts=[
            CircuitPartOut(
                name=name,
                title=title,
                details=[item.key for item in DETAILS.values() if item.part == name],
                in_drawing=[item.key for item in DETAILS.values() if item.part == name and item.in_drawing],
            )
            for name, title in CIRCUIT_PARTS.items()
        ],
        map_needs=list(MAP_NEEDS),
        engine_side=list(ENGINE_SIDE),
        never_closes_c=HOTTEST,
        cut_methods=dict(CUT_METHODS),
        cautions=list(CAUTIONS),
        short_sheet=list(SHORT_SHEET),
        parts_to_copy=dict(PARTS_TO_COPY),
        oil_grades=list(GRADES),
        date_tokens={f"{{{name}}}": token.means for name, token in DATE_TOKENS.items()},
        study_bytes=MOST_BYTES,
        package_bytes=PACKAGE_BYTES,
        workbook_bytes=WORKBOOK_BYTES,
        duty_cycle_bytes=DUTY_CYCLE_BYTES,
        count_table_bytes=COUNT_TABLE_BYTES,
        glossary=list(GLOSSARY),
        sample_colours=list(SAMPLES),
        field_colours=[FieldColourOut(share=share, colour=colour) for share, colour in FIELD],
    )


def _unit(symbol: str) -> UnitOut:
    return UnitOut(metric=unit_in(symbol, "metric"), inch=unit_in(symbol, "inch"))
