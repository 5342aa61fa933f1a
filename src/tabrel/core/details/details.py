"""All details of a study and of a sample: one value at a time each; changing one is recorded in the journal.

Details of the engine (stud, adapter) belong to the study, not to a filter.
"""

from __future__ import annotations

from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.details.circuit_details import CIRCUIT_DETAILS
from tabrel.core.details.detail import Detail, detail_text, understood_detail
from tabrel.core.details.places import value_at, with_value
from tabrel.core.details.sample_details import SAMPLE_DETAILS
from tabrel.core.errors import ReadingTextError
from tabrel.core.study.model import Sample, Study

DETAILS: dict[str, Detail] = {detail.key: detail for detail in (*SAMPLE_DETAILS, *CIRCUIT_DETAILS)}


def detail_texts(study: Study, sample: Sample) -> dict[str, str]:
    """Return the details known of a study and one of its samples, as text, by key."""
    owners = {"study": study, "sample": sample}
    texts = {key: detail_text(one, value_at(owners[one.owner], one.place)) for key, one in DETAILS.items()}
    return {key: text for key, text in texts.items() if text is not None}


def with_sample_detail(sample: Sample, key: str, text: str) -> Sample:
    """Return a sample with one detail set from its text; an empty text removes it.

    Raises
    ------
    ReadingTextError
        If the text is not what the detail takes, with the correction.
    """
    changed: Sample = with_value(sample, DETAILS[key], understood_detail(DETAILS[key], text, "metric"))
    return changed


def with_study_detail(study: Study, key: str, text: str, family: UnitFamily) -> Study:
    """Return a study with one detail of it or of its engine set from its text; an empty text removes it.

    Raises
    ------
    ReadingTextError
        If the text is not what the detail takes, with the correction.
    """
    value = understood_detail(DETAILS[key], text, family)
    labels = [sample.label for sample in study.samples]
    if key == "study.reference" and value and value not in labels:
        raise ReadingTextError(f"{value!r} is no sample of this study: type one of {', '.join(labels)}")
    changed: Study = with_value(study, DETAILS[key], value)
    return changed
