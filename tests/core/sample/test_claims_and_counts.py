"""Claims beside counts: only like with like, by the interval; and the fibres that a claim would need."""

from __future__ import annotations

from dataclasses import replace
from math import exp, log, pi
from pathlib import Path

import pytest

from builders import reading, study
from tabrel.core.counts.counted_test import counted_test
from tabrel.core.entry.claim_text import claim_from_wording
from tabrel.core.figures.efficiency_evidence import efficiency_evidence
from tabrel.core.parts.efficiency import ScreeningMedium, fibre_for_efficiency, screening_efficiency
from tabrel.core.review.claims import check_claim
from tabrel.core.sample.claims_and_counts import compare_with_counts
from tabrel.core.sample.efficiency import efficiency_at_size
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.model import CountInterval, Counts
from tabrel.document.study_document import read_study_file

DATA = Path(__file__).parents[2] / "data" / "counted" / "multi_pass.study.json"
SAMPLE = read_study_file(DATA).samples[0]
TEST = counted_test(SAMPLE.counts)  # 88.7 to 91.1 % at 20 µm(c)


@pytest.mark.parametrize(
    ("wording", "verdict"),
    [
        ("90 % at 20 µm(c)", "agree"),
        ("92 % at 20 µm(c)", "claim_higher"),
        ("91.4 % at 20 µm(c)", "claim_higher"),
        ("91 % at 20 µm(c)", "agree"),
        ("91.1 % at 20 µm(c)", "agree"),
        ("80 % at 20 µm(c)", "claim_lower"),
        (">= 80 % at 20 µm(c)", "agree"),
        (">= 91 % at 20 µm(c)", "agree"),
        (">= 95 % at 20 µm(c)", "claim_higher"),
        ("90 % at 20 µm(b)", "cannot_be_compared"),
        ("90 % at 20 microns", "cannot_be_compared"),
        ("99 % at 40 µm(c)", "cannot_be_compared"),
        ("filters 95 % of 15 to 40 microns", "cannot_be_compared"),
    ],
)
def test_a_claim_compares_at_its_size_and_scale_only(wording, verdict):
    claim = claim_from_wording(wording, "box")
    assert compare_with_counts(claim, TEST).verdict == verdict
    assert compare_with_counts(claim, TEST).words


def test_a_stale_claim_is_not_compared_and_neither_is_a_test_without_a_named_scale():
    claim = claim_from_wording("90 % at 20 µm(c)", "box")
    assert compare_with_counts(replace(claim, stale="another design"), TEST).verdict == "cannot_be_compared"
    unnamed = counted_test(replace(SAMPLE.counts, scale="unnamed"))
    assert "test's sizes is not named" in compare_with_counts(claim, unnamed).words


def test_without_a_curve_a_counted_size_still_compares():
    few = Counts(
        scale="um(c)", sizes_um=(10.0, 15.0, 25.0), intervals=(CountInterval((5000, 2000, 400), (0, 0, 0)),), upstream_ml=10,
        downstream_ml=10, upstream_dilution=1, downstream_dilution=1,
    )  # fmt: skip
    test = counted_test(few)
    assert compare_with_counts(claim_from_wording(">= 99.8 % at 10 µm(c)", "box"), test).verdict == "agree"
    assert compare_with_counts(claim_from_wording("99 % at 15 µm(c)", "box"), test).verdict == "claim_lower"
    assert compare_with_counts(claim_from_wording("99 % at 12 µm(c)", "box"), test).verdict == "cannot_be_compared"


def test_the_list_of_claims_says_the_same():
    assert check_claim(claim_from_wording("92 % at 20 µm(c)", "box"), SAMPLE, {}).verdict == "refuted"
    assert check_claim(claim_from_wording("90 % at 20 µm(c)", "box"), SAMPLE, {}).verdict == "confirmed"
    assert check_claim(claim_from_wording("90 % at 20 µm(b)", "box"), SAMPLE, {}).verdict == "cannot_tell"


def test_counts_stand_above_claims_and_claims_above_the_estimate():
    made = study(("samples/0/media_family", "cellulose"))
    estimated = made.samples[0]
    claimed = replace(estimated, claims=(claim_from_wording("99 % at 20 µm(c)", "box"),))
    counted = replace(claimed, counts=SAMPLE.counts)
    bases = [efficiency_at_size(measure_sample(item, made.circuit), 20.0).basis for item in (estimated, claimed, counted)]
    assert bases == ["estimate", "claim", "counts"]
    evidence = efficiency_evidence(measure_sample(counted, made.circuit))
    assert [claim.is_used for claim in evidence.claims] == [False]
    assert evidence.claims[0].compared.verdict == "claim_higher"


def test_the_fibres_a_claim_needs_give_it_back_by_the_formula_of_the_estimate():
    medium = ScreeningMedium(fibre_diameter=20.0, solidity=0.2, thickness=800.0, inhomogeneity=0.5)
    fibre = fibre_for_efficiency(medium, 20.0, 0.99)
    # Brown's interception with Kuwabara's field, worked out here once more
    ku = -0.5 * log(0.2) - 0.75 + 0.2 - 0.2**2 / 4
    r = 20.0 / fibre
    eta = (2 * (1 + r) * log(1 + r) - (1 + r) + 1 / (1 + r)) / (2 * ku)
    assert 1 - exp(-4 * 0.2 * eta * 0.5 * 800 / (pi * fibre * 0.8)) == pytest.approx(0.99, rel=1e-9)
    assert screening_efficiency(replace(medium, fibre_diameter=fibre), 20.0) == pytest.approx(0.99)
    assert fibre_for_efficiency(medium, 20.0, 0.5) > fibre  # coarser for less
    assert fibre_for_efficiency(medium, 20.0, 1.0) is None


@pytest.mark.parametrize(("wording", "words"), [("99.9 % at 10 µm(c)", "not plausible"), ("85 % at 20 µm(c)", "plausible")])
def test_a_claim_is_told_what_fibres_it_needs(wording, words):
    made = study(("samples/0/media_family", "cellulose"), reading("media.fibre_diameter", "22 um"))
    sample = replace(made.samples[0], claims=(claim_from_wording(wording, "box"),))
    (claim,) = efficiency_evidence(measure_sample(sample, made.circuit)).claims
    assert words in claim.fibre_words
    assert "22 µm are measured" in claim.fibre_words


DEMO = Path(__file__).parents[3] / "src" / "tabrel" / "demo" / "mountain_road_service.study.json"


def test_the_demo_holds_each_kind_of_evidence():
    samples = {sample.label: sample for sample in read_study_file(DEMO).samples}
    assert len(samples["Brennig"].counts.intervals) == 6
    assert len(samples["Dunmor"].counts.intervals) == 1
    assert samples["Korvath"].counts is None
    claim = next(item for item in samples["Halvene"].claims if item.kind == "efficiency")
    assert compare_with_counts(claim, counted_test(samples["Halvene"].counts)).verdict == "agree"
