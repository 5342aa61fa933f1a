"""Observations that the computation depends on are fields of the sample."""

from __future__ import annotations

import pytest

from tabrel.core.catalogue.observation import observed, with_field_observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.errors import StudyError
from tabrel.core.review.claims import check_claim
from tabrel.core.study.model import Bypass, Claim, Sample

FIELDS = [observation for observation in OBSERVATIONS.values() if observation.field]


@pytest.mark.parametrize(("observation", "choice"), [(field, choice) for field in FIELDS for choice in field.choices])
def test_a_field_holds_what_was_chosen_and_gives_the_words_back(observation, choice):
    sample = with_field_observed(Sample("A", bypass=Bypass(stated_kpa=100)), observation, choice.value)
    assert observed(sample, observation) == choice.value
    assert sample.bypass.stated_kpa == 100  # what is beside it stays
    assert observed(with_field_observed(sample, observation, None), observation) is None


def test_fields_carry_the_words_of_the_study_document():
    sample = Sample("A", media_family="blend", bypass=Bypass(location="thread_end", kind="a ball on a spring"))
    seen = {observation.key: observed(sample, observation) for observation in FIELDS}
    assert seen["media.family"] == "blend"
    assert seen["bypass.location"] == "at the thread end"
    assert seen["bypass.kind"] == "a ball on a spring"  # own words stay
    assert seen["bypass.spring_material"] is None


def test_what_the_computation_rests_on_takes_its_choices_only():
    assert with_field_observed(Sample("A"), OBSERVATIONS["bypass.kind"], "a ball").bypass.kind == "a ball"
    for key in ("bypass.location", "bypass.spring_material", "media.family"):
        with pytest.raises(StudyError, match=r"none of the choices.*take one of"):
            with_field_observed(Sample("A"), OBSERVATIONS[key], "something else")


def test_a_claim_on_a_field_is_checked_too():
    claim = Claim("observation", "box", key="media.family", value="Synthetic")
    assert check_claim(claim, Sample("A", media_family="blend"), {}).verdict == "refuted"
    assert check_claim(claim, Sample("A", media_family="synthetic"), {}).verdict == "confirmed"
    assert check_claim(claim, Sample("A"), {}).verdict == "waits"
