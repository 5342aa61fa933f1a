"""Claims: read out of their wording, and checked by readings, results and what is seen."""

from __future__ import annotations

from dataclasses import replace

import pytest

from builders import study
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.entry.claim_text import check_from_text, claim_from_wording
from tabrel.core.errors import ReadingTextError
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.review.claims import check_claim, contradictions
from tabrel.core.rules.study import check_sample
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.sample.stated_setting import stated_setting
from tabrel.core.study.model import (
    Bypass,
    Claim,
    Reading,
    Sample,
)


def verdict(claim, *, readings=None, observations=None):
    sample = Sample("A", readings=readings or {}, observations=observations or {})
    return check_claim(claim, sample, measure_sample(sample, None).estimates).verdict


@pytest.mark.parametrize(
    ("claimed", "readings", "expected"),
    [
        ("1.76 m", ["1.762 m"], "confirmed"),
        ("1.6 m", ["1.762 m"], "refuted"),
        (">= 1.5 m", ["1.762 m"], "confirmed"),
        (">= 1.9 m", ["1.762 m"], "refuted"),
        (">= 1.77 m", ["1.762 m"], "cannot_tell"),
        ("1.76 m", [], "waits"),
        ("1.76 m", [{"text": "1.76 m", "provenance": "published"}], "waits"),
    ],
)
def test_a_claim_on_a_reading_waits_and_is_confirmed_or_refuted(claimed, readings, expected):
    """The strip's U is about 21 mm: 1 % rectangular for the pull is 10.2 mm standard at 1.76 m."""
    entries = tuple(Reading(**reading) if isinstance(reading, dict) else reading for reading in readings)
    claim = check_from_text("media.strip_length", claimed, "box")
    assert verdict(claim, readings={"media.strip_length": entries} if entries else {}) == expected


def test_other_claims_are_checked_by_what_is_seen_or_kept():
    text = Claim("observation", "box", key="anti_drain.material", value="Silicone")
    assert verdict(text) == "waits"
    assert verdict(text, observations={"anti_drain.material": "silicone"}) == "confirmed"
    assert verdict(text, observations={"anti_drain.material": "nitrile"}) == "refuted"
    assert verdict(replace(text, stale="the part was redrawn")) == "stale"
    assert verdict(claim_from_wording("99 % at 20 µm", "box")) == "no_check"
    assert verdict(claim_from_wording("best of all", "page")) == "no_check"
    unknown = check_claim(claim_from_wording("holds 25 g of dirt", "page"), Sample("A"), {})
    assert unknown.words.startswith("no number in it is understood as one to check")


@pytest.mark.parametrize(
    ("wording", "relation", "percent", "size", "scale"),
    [
        ("99+ % at 20 µm(c), ISO 4548-12", ">=", 99, 20, "um(c)"),
        ("≥ 98.7% @ 22 um(c)", ">=", 98.7, 22, "um(c)"),
        ("> 95 % at 15 µm(b)", ">", 95, 15, "um(b)"),
        ("99,5 % of 25 microns", "=", 99.5, 25, "unnamed"),
        ("98.7 percent, 22 micron", "=", 98.7, 22, "unnamed"),
        ("up to 99 % at 30 µm", "<=", 99, 30, "unnamed"),
        ("at least 97 % at 25 µm, ISO 4402", ">=", 97, 25, "um"),
        ("95 % of particles from 20 to 40 µm(c)", "=", 95, None, None),
        ("beta 75 at 20", "=", 100 * (1 - 1 / 75), 20, "unnamed"),
        ("β20(c) ≥ 200", ">=", 99.5, 20, "um(c)"),
        ("beta ratio of 1000 @ 12 µm(c)", "=", 99.9, 12, "um(c)"),
        ("99% efficient at 20 micron and larger", "=", 99, 20, "unnamed"),
        ("97 % efficient", "=", 97, None, None),
        ("95 % at 20-40 microns", "=", 95, None, None),  # a size range stays in the words
    ],
)
def test_an_efficiency_is_read_out_of_its_wording(wording, relation, percent, size, scale):
    claim = claim_from_wording(wording, "box")
    assert (claim.kind, claim.relation, claim.size_um, claim.scale) == ("efficiency", relation, size, scale)
    assert claim.efficiency_percent == pytest.approx(percent)
    assert claim.wording == wording


@pytest.mark.parametrize(
    ("wording", "kind", "key", "relation", "value"),
    [
        ("Bypass valve 15 psi", "result", "bypass_opening_kpa", "=", "15 psi"),
        ("bypass opens at 8-11 psi", "result", "bypass_opening_kpa", "=", "8 to 11 psi"),
        ("relief valve setting 1.2 bar", "result", "bypass_opening_kpa", "=", "1.2 bar"),
        ("Bypass: 15 pounds", "result", "bypass_opening_kpa", "=", "15 pounds"),
        ("over 420 grams", "reading", "filter.mass", ">", "420 grams"),
        ("weighs 14.5 oz", "reading", "filter.mass", "=", "14.5 oz"),
        ("5 to 5.5 threads", "reading", "thread.turns", "=", "5 to 5.5"),
        ("over 1.7 m of paper", "reading", "media.strip_length", ">", "1.7 m"),
        ("54 pleats", "reading", "element.pleat_count", "=", "54"),
        ("media area 200 sq in", "result", "media_gross_area_cm2", "=", "200 in2"),
        ("up to 1500 cm² of media", "result", "media_gross_area_cm2", "<=", "1500 cm²"),
        ("inlet holes 230 mm2", "result", "inlet_hole_area_mm2", "=", "230 mm2"),
        ("0.5 mm steel can", "reading", "can.wall_thickness", "=", "0.5 mm"),
    ],
)
def test_a_number_that_can_be_checked_is_read_out_of_its_wording(wording, kind, key, relation, value):
    claim = claim_from_wording(wording, "box")
    assert (claim.kind, claim.key, claim.relation, claim.value) == (kind, key, relation, value)
    check_sample("sample", Sample("A", claims=(claim,)))


@pytest.mark.parametrize(
    "wording",
    [
        "lasts longer",
        "100 % synthetic",
        "0 % loss",
        "twice the capacity",
        "holds 25 g of dirt",
        "up to 20,000 km",
        "3x more media",
        "holes of 30 mm² each",
    ],
)
def test_words_without_an_efficiency_stay_words(wording):
    assert claim_from_wording(wording, "box").kind == "words"


def test_a_check_that_is_no_reading_is_refused():
    with pytest.raises(ReadingTextError, match="cannot be claimed of the strip length"):
        check_from_text("media.strip_length", "long", "box")


@pytest.mark.parametrize(
    ("key", "claimed", "expected"),
    [
        ("media_effective_area_cm2", "1011 cm2", "confirmed"),
        ("media_effective_area_cm2", "at least 1500 cm2", "refuted"),
        ("media_effective_area_cm2", "up to 1500 cm2", "confirmed"),
        ("bypass_opening_kpa", "21 psi", "confirmed"),
        ("bypass_opening_kpa", "35 to 40 psi", "refuted"),
        ("efficiency_at_20_um_percent", "99 %", "waits"),
    ],
)
def test_a_claim_on_a_result_is_checked_by_the_result(key, claimed, expected):
    """The plain filter: 1.608 m x 63 mm of media are 1013 cm², and its spring opens at 146 kPa, 21.2 psi."""
    sample = study().samples[0]
    measured = measure_sample(sample, study().circuit)
    results = {row.key: getattr(analyse_measured(measured).results, name) for name, row in RESULTS.items()}
    result = check_claim(check_from_text(key, claimed, "box"), sample, measured.estimates, results=results)
    assert result.verdict == expected


def test_a_claim_on_the_setting_serves_as_the_stated_setting():
    claims = (claim_from_wording("Bypass valve 15 psi", "box"),)
    sentence = stated_setting(Sample("A", claims=claims))
    assert (sentence.value, sentence.key) == (pytest.approx(103.421, abs=1e-3), "claims")
    own = Sample("A", claims=claims, bypass=Bypass(stated_kpa=110.0))
    assert stated_setting(own).value == 110.0
    assert stated_setting(Sample("A", claims=(replace(claims[0], stale="old"),))).value is None
    opening = analyse_measured(measure_sample(Sample("A", claims=claims), None)).results.bypass_opening
    assert (opening.value, opening.basis) == (pytest.approx(103421, abs=1), "stated")


def test_sources_that_contradict_each_other_are_set_beside_each_other():
    box = claim_from_wording("Bypass valve 15 psi", "box")
    page = claim_from_wording("bypass opens at 8 to 11 psi", "page")
    both = contradictions(Sample("A", claims=(box, page)))
    assert [item.words for item in both] == [
        "box says “Bypass valve 15 psi”, page says “bypass opens at 8 to 11 psi”: both cannot hold"
    ]
    wide = claim_from_wording("bypass opens at 8 to 16 psi", "page")
    assert contradictions(Sample("A", claims=(box, wide))) == ()
    assert contradictions(Sample("A", claims=(box, replace(page, stale="an older part")))) == ()
    field = contradictions(Sample("A", claims=(box,), bypass=Bypass(stated_kpa=150.0)))
    assert "the stated setting says 150 kPa" in field[0].words
    claimed = [
        claim_from_wording(words, source) for words, source in (("98 % at 20 µm(c)", "box"), ("99.5 % at 20 µm(c)", "page"))
    ]
    assert len(contradictions(Sample("A", claims=tuple(claimed)))) == 1
    rounded = claim_from_wording("beta 75 at 20 µm(c)", "flyer")  # 98.67 %, which is 99 % as printed
    assert contradictions(Sample("A", claims=(rounded, claim_from_wording("99 % at 20 µm(c)", "page")))) == ()
    assert len(contradictions(Sample("A", claims=(rounded, claim_from_wording("99.5+ % at 20 µm(c)", "page"))))) == 1
    other_size = claim_from_wording("99.5 % at 25 µm(c)", "page")
    assert contradictions(Sample("A", claims=(claimed[0], other_size))) == ()
    printed = {"thread.turns": (Reading("6.5", provenance="published"),)}
    assert (
        "the part as published says 6.5"
        in contradictions(Sample("A", claims=(claim_from_wording("5 to 5.5 threads", "page"),), readings=printed))[0].words
    )
