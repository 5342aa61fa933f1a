"""The catalogues of the core, for fields, pictures and search."""

from __future__ import annotations

from fastapi import APIRouter

from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_SYNONYMS, PART_TITLES, QUANTITIES, STAGE_TITLES
from tabrel.core.details.details import DETAILS
from tabrel.core.entry.field_line import PROVENANCE_WORDS, STATE_WORDS
from tabrel.core.review.before_cut import CAUTIONS, CUT_METHODS
from tabrel.document.results import WireModel

router = APIRouter(prefix="/api", tags=["catalogue"])


class QuantityOut(WireModel):
    """A quantity, as search finds it."""

    key: str
    title: str
    part: str
    stage: str
    synonyms: list[str]


class ChoiceOut(WireModel):
    """A choice of an observation."""

    value: str
    meaning: str


class ObservationOut(WireModel):
    """Something seen, with its choices and the schools' views, the default first."""

    key: str
    title: str
    part: str
    stage: str
    choices: list[ChoiceOut]
    schools: list[str]
    whole_only: bool
    closed: bool
    synonyms: list[str]


class DetailOut(WireModel):
    """A detail of study, engine or sample."""

    key: str
    title: str
    kind: str
    help: str
    choices: list[str]
    whole_only: bool
    stage: str
    synonyms: list[str]
    usual: str


class PartTitleOut(WireModel):
    """A part with the words people use for it."""

    key: str
    title: str
    stage: str
    synonyms: list[str]


class CatalogueOut(WireModel):
    """Everything that can be measured, seen or typed, and the words for it."""

    stages: dict[str, str]
    parts: list[PartTitleOut]
    quantities: list[QuantityOut]
    observations: list[ObservationOut]
    details: list[DetailOut]
    states: dict[str, str]
    provenances: dict[str, str]
    cut_methods: dict[str, str]
    cautions: list[str]


@router.get("/catalogue")
def get_catalogue() -> CatalogueOut:
    """Return the catalogues."""
    return CatalogueOut(
        stages=dict(STAGE_TITLES),
        parts=[
            PartTitleOut(key=key, title=title, stage=stage, synonyms=list(PART_SYNONYMS.get(key, ())))
            for key, title in (PART_TITLES | {"holes.inlet": "Inlet holes", "holes.centre_tube": "Centre tube holes"}).items()
            if (stage := _stage_of(key))
        ],
        quantities=[
            QuantityOut(key=q.key, title=q.title, part=PART_TITLES[q.part], stage=q.stage, synonyms=list(q.synonyms))
            for q in QUANTITIES.values()
        ],
        observations=[
            ObservationOut(
                key=a.key,
                title=a.title,
                part=PART_TITLES[a.part],
                stage=a.stage,
                choices=[ChoiceOut(value=choice.value, meaning=choice.meaning) for choice in a.choices],
                schools=list(a.schools),
                whole_only=a.whole_only,
                closed=a.closed,
                synonyms=list(a.synonyms),
            )
            for a in OBSERVATIONS.values()
        ],
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
                usual=detail.usual,
            )
            for detail in DETAILS.values()
        ],
        states={state: words[0] for state, words in STATE_WORDS.items()},
        provenances={provenance: words[0] for provenance, words in PROVENANCE_WORDS.items()},
        cut_methods=dict(CUT_METHODS),
        cautions=list(CAUTIONS),
    )


def _stage_of(part: str) -> str | None:
    if part == "holes.inlet":
        return "outside"
    if part == "holes.centre_tube":
        return "element"
    return next((quantity.stage for quantity in QUANTITIES.values() if quantity.part == part), None)
