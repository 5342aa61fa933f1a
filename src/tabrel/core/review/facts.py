"""The facts of a sample and its study: what is stated or seen once, each a thing that two windows may change apart."""

from __future__ import annotations

from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.details.details import DETAILS, detail_values
from tabrel.core.study.model import Sample, Study


def facts_of(study: Study, sample: Sample) -> dict[str, object]:
    """Return what the facts of a sample and its study say, by thing.

    Parameters
    ----------
    study : Study
        Its samples do not matter.
    sample : Sample

    Returns
    -------
    dict
        By ``details/KEY``, ``observations/KEY``, ``states/KEY``, ``oil`` (the viscosity points), ``cut`` and ``counts`` (the
        table); what is not known, or came along with another number and was stated by nobody, is not in it. The values are
        for comparing only.
    """
    stated = {
        key: value for key, value in detail_values(study, sample).items() if value.is_typed or value.provenance != "assumed"
    }
    fields: dict[str, object] = {f"details/{key}": value for key, value in stated.items()}
    for key, observation in OBSERVATIONS.items():
        value = observed(sample, observation)
        if value is not None:
            fields[f"observations/{key}"] = value
    fields |= {f"states/{key}": state for key, state in sample.states.items()}
    if study.oil:
        typed = {key: text for key, text in study.as_typed.items() if key.startswith("oil.viscosity")}
        fields["oil"] = (study.oil.viscosity, tuple(sorted(typed)), tuple(str(typed[key]) for key in sorted(typed)))
    if sample.cut:
        fields["cut"] = sample.cut
    if sample.counts and (sample.counts.intervals or sample.counts.rows):
        fields["counts"] = (sample.counts.sizes_um, sample.counts.intervals, sample.counts.blank, sample.counts.rows)
    for thing in sample.copied.keys() & fields.keys():  # confirming it changes it
        fields[thing] = (fields[thing], sample.copied[thing])
    return fields


def changed_facts(before: dict[str, object], after: dict[str, object]) -> set[str]:
    """Return the things that one of two states knows and the other does not, or says otherwise."""
    return {thing for thing in before.keys() | after.keys() if before.get(thing) != after.get(thing)}


def is_of_study(thing: str) -> bool:
    """Return whether a fact belongs to the whole study rather than to one sample."""
    key = thing.removeprefix("details/")
    return thing == "oil" or (key in DETAILS and DETAILS[key].owner == "study")
