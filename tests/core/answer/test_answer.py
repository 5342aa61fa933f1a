"""The answer in sentences: each situation has its own, none is empty, contradictory or surer than its numbers."""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import date
from importlib.resources import files
from itertools import product

import numpy as np
import pytest

from builders import COLD_USE, made
from tabrel.core.answer.adapter import adapter_sentences
from tabrel.core.answer.answer import answer_use
from tabrel.core.answer.decision import decision
from tabrel.core.answer.known_use import KnownUse, measures_of_answer
from tabrel.core.circuit.dirt_loading import terminal_ratio, with_capacity_corrections
from tabrel.core.judge.judged_use import judge_use
from tabrel.core.judge.knowledge_cache import KnowledgeCache
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.frame import Mount
from tabrel.core.study.plans import WarmUpPlan
from tabrel.document.study_document import read_study

TODAY = date(2026, 12, 1)
KEPT = KnowledgeCache()
AREA = {"measure": "media_effective_area_cm2", "weight": 2, "best": 2000, "worst": 100}
PRICE = {"measure": "price", "weight": 1, "best": 1, "worst": 30}
MAY = "if the vehicle maker allows it"
BURR = {"measure": "tube.burr_side", "one_of": ["none", "away from the media"]}


def sold(price, **more):
    """Return the changes of a filter in which nothing is left open, offered by the piece."""
    return {
        "offers": [{"shop": "Shop", "amount": price, "currency": "EUR"}],
        "stated_collapse_kpa": 5000,
        "observations/tube.burr_side": "none",
        "observations/media.condition": "none",
        "observations/element.damage": "none",
        **{path.replace("__", "/"): value for path, value in more.items()},
    }


def strip(centimetres):
    """Return the change that gives a filter another length of media, and so another area."""
    return {"readings__media.strip_length": [f"{centimetres} cm"], "part_number": f"N{centimetres}", "maker": "Maker"}


def answered(study, use, draws=1, family="metric"):
    filters = [sample for sample in study.samples if not sample.archived]
    plain = {sample.label: measure_sample(sample, study.circuit) for sample in filters}
    measured = with_capacity_corrections(plain, terminal_ratio(study))
    known = {
        label: KEPT.of(study, one, use, measures_of_answer(use), draws)
        for label, one in measured.items()
    }  # fmt: skip
    judged = judge_use(study, use, draws=2000, model_draws=draws, known_of=lambda one: known[one.sample.label])
    return answer_use(study, judged, known, family=family, today=TODAY)


def answer_of(*criteria, **more):
    return answered(*made(*criteria, **more))


def text_of(answer, name=None):
    return " ".join(text for block in answer.blocks for text in block.sentences if name in (None, block.name))


def observed(key, words):
    return {f"observations__{key}": words}


TWO = (sold(10, **strip(180)), sold(12, **strip(90)))


def test_the_first_sentence_names_the_filter_its_price_the_vehicle_maker_and_how_sure():
    answer = answer_of(AREA, PRICE, samples=TWO, requirements=[BURR])
    assert answer.named == ("A",)
    begin = "Buy A (10.00 EUR plus delivery), if the vehicle maker allows it. First by your weights, sure (chance over 99 of 100)"
    assert text_of(answer).startswith(begin)
    assert "model, not a test to a standard" in text_of(answer, "mind")
    assert answer.order == ("A", "B")


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        (observed("tube.burr_side", "towards the media"), "burrs of its tube face the media"),
        (observed("media.condition", "torn"), "its media is torn"),
        (observed("element.damage", "in service"), "its element was damaged in service"),
        ({"restriction": "racing only"}, "“racing only” is printed on it"),
        ({"stated_collapse_kpa": 1}, "its element may be pressed beyond its collapse pressure"),
        ({"bypass__location": "none"}, "it has no bypass valve"),
        ({"remarks": [{"part": "can", "text": "swollen at the seam", "severity": "hazard"}]}, "can: swollen at the seam"),
    ],
)
def test_no_filter_with_a_hazard_is_named_to_buy(changes, words):
    answer = answer_of(AREA, samples=(sold(10, **strip(180), **changes), sold(12, **strip(90))))
    assert "A" not in answer.named
    assert words in text_of(answer)
    assert "Buy A" not in text_of(answer)
    alone = answer_of(AREA, samples=(sold(10, **changes),))
    assert alone.named == ()
    assert words in text_of(alone)


def test_a_thread_that_is_not_that_of_the_engine_is_a_hazard():
    samples = (sold(10, **strip(180), **{"readings__thread.major_diameter": ["26 mm"]}), TWO[1])
    study, use = made(AREA, samples=samples)
    mounted = replace(study, circuit=replace(study.circuit, mount=Mount(thread_diameter_mm=20.0)))
    answer = answered(mounted, use)
    assert "its thread is not that of the engine" in text_of(answer)
    assert answer.named == ("B",)


@pytest.mark.parametrize(
    ("criteria", "more", "begins"),
    [
        ((AREA, PRICE), {"samples": TWO, "use": COLD_USE | {"temperature_c": -80}}, "At −80 °C this oil does not pump"),
        (
            (AREA,),
            {"samples": TWO, "requirements": [{"measure": "media_effective_area_cm2", "at_least": 9000}]},
            "None of these 2 filters does what this use asks.",
        ),
        (
            (AREA,),
            {"samples": TWO[:1], "requirements": [BURR]},
            f"Buy A (10.00 EUR plus delivery), {MAY}. The only one opened, and it meets what you ask.",
        ),
        (
            (),
            {"samples": TWO, "requirements": [BURR]},
            "You weigh nothing, so nothing is ranked: 2 do",
        ),
        (
            (AREA,),
            {"samples": (sold(10, **strip(180), offers=[]), TWO[1])},
            "Buy A (price not known), if the vehicle maker allows it",
        ),
        (
            (AREA,),
            {"samples": ({**TWO[0], "stated_collapse_kpa": None}, TWO[1])},
            f"Buy A (10.00 EUR plus delivery), {MAY} and the filter's maker states a collapse pressure above",
        ),
        (
            (AREA,),
            {"samples": ({**TWO[0], "observations/tube.burr_side": None}, TWO[1]), "requirements": [BURR]},
            "Buy today B (12.00 EUR plus delivery), if the vehicle maker allows it. The only one that is judged in full",
        ),
        (
            (AREA,),
            {"samples": tuple({**one, "observations/tube.burr_side": None} for one in TWO), "requirements": [BURR]},
            "A (10.00 EUR plus delivery) is first by pair wins as far as is known, but not judged in full: look at",
        ),
        (
            (AREA, PRICE),
            {"samples": tuple(sold(price, part_number="N", maker="Maker") for price in (9, 7))},
            "Buy B (7.00 EUR plus delivery), if the vehicle maker allows it",
        ),
    ],
)
def test_every_situation_has_its_sentence(criteria, more, begins):
    changes = [{path: value for path, value in sample.items() if value is not None} for sample in more["samples"]]
    answer = answer_of(*criteria, **{**more, "samples": tuple(changes)})
    assert text_of(answer).startswith(begins)


def test_of_filters_of_which_nothing_that_weighs_is_known_none_is_first():
    document = json.loads(_demo())
    use = {"name": "u", "criteria": [PRICE, AREA]}
    document |= {"samples": [{"label": label} for label in "AB"], "uses": [use], "reference": None}
    study = read_study(json.dumps({key: value for key, value in document.items() if value is not None}))
    answer = answered(study, study.uses[0])
    assert answer.named == ()
    begin = "Nothing that you weigh is known of these filters yet: none is first, and none is named to buy."
    assert text_of(answer, "decision") == f"{begin} First wanted: effective media area and price."
    assert "first by" not in text_of(answer)


def test_filters_of_one_part_are_counted_once():
    """Two names of one part and a better one: the chance of the better is not halved by the twins."""
    twins = [sold(price, **strip(90)) for price in (12, 11)]
    answer = answer_of(AREA, samples=(sold(10, **strip(180)), *twins))
    assert answer.named == ("A",)
    answer = answer_of(AREA, samples=(*(sold(price, **strip(180)) for price in (12, 11)), sold(10, **strip(90))))
    assert "Buy B (11.00 EUR plus delivery)" in text_of(answer)
    assert "counted with A, which nothing tells from it" in text_of(answer)


def test_what_the_weights_do_not_tell_apart_is_not_decided():
    level = {"measure": "media_effective_area_cm2", "weight": 1, "best": 2000, "worst": 100}
    caps = observed("element.end_caps", "metal"), observed("element.end_caps", "fibre")
    study, use = made(level, samples=(sold(10, **strip(180), **caps[0]), sold(12, **strip(181), **caps[1])))
    answer = answered(study, use)
    assert "What you weigh does not tell them apart" in text_of(answer)
    assert set(answer.named) == {"A", "B"}
    assert "The cheapest is A." in text_of(answer)
    assert "sure" not in text_of(answer, "decision")


def test_the_analysts_verdict_stands_and_is_told():
    verdicts = [{"sample": "A", "verdict": "fails", "reason": "too dear to fit"}, {"sample": "B", "verdict": "meets"}]
    study, use = made(AREA, samples=TWO, requirements=[BURR], use=COLD_USE | {"verdicts": verdicts})
    answer = answered(study, use)
    assert answer.named == ("B",)
    assert "Do not buy A: too dear to fit." in text_of(answer, "not")


def test_a_verdict_set_against_what_follows_is_told_with_what_speaks_against_it():
    dear = {"measure": "price", "at_most": 5}
    verdicts = [{"sample": "A", "verdict": "meets", "reason": "the budget was raised"}]
    study, use = made(AREA, samples=TWO, requirements=[dear], use=COLD_USE | {"verdicts": verdicts})
    answer = answered(study, use)
    assert answer.named == ("A",)
    told = "A stands at “meets” because you set it so (the budget was raised); against it: Price is 10; asked for is at most 5."
    assert told in text_of(answer, "mind")


def test_the_method_that_a_use_chooses_gives_the_order():
    """A has more media, which weighs 2; B costs less, which weighs 1, and is ahead in two of three by pair wins."""
    mass = {"measure": "can.mass", "better": "low", "weight": 0.1, "best": 0, "worst": 1000}
    area = {**AREA, "best": 1000, "worst": 500}
    samples = (
        sold(12, **strip(180), **{"readings__can.mass": ["400 g"]}),
        sold(10, **strip(90), **{"readings__can.mass": ["300 g"]}),
    )
    study, use = made(area, PRICE, mass, samples=samples)
    assert text_of(answered(study, use)).startswith(f"Buy A (12.00 EUR plus delivery), {MAY}. First by your weights")
    by_pairs = text_of(answered(study, replace(use, ranked_by="pair_wins")))
    assert "By the best estimates B is first by pair wins, A in more of the draws" in by_pairs
    assert "Your weights put A first." in by_pairs


def test_names_of_one_part_stay_as_they_are_written():
    named = tuple(sold(price, part_number="N", maker="Maker", label=name) for price, name in ((9, "kv"), (7, "dm")))
    answer = answered(*made(AREA, samples=named))
    assert text_of(answer).startswith(f"Buy dm (7.00 EUR plus delivery), {MAY}. Nothing tells dm and kv apart")


@pytest.mark.parametrize(("cold", "is_shown"), [(-25.0, True), (-21.0, True), (-10.0, False)])
def test_litres_of_a_start_are_compared_only_near_the_cold_point(cold, is_shown):
    """The start begins at −25 °C: five kelvin away it speaks of another use."""
    study, use = made(AREA, samples=TWO, use=COLD_USE | {"temperature_c": cold})
    study = replace(study, warm_up=WarmUpPlan(start_c=-25.0))
    computed = answered(study, use).compared
    assert [one.label for one in computed] == ["A", "B"]
    assert [one.price for one in computed] == [(10.0, "EUR"), (12.0, "EUR")]
    assert all((one.litres is not None) == is_shown for one in computed)


def test_the_likelier_filter_does_not_push_the_first_one_aside():
    """A leads by its best estimate, B in more draws: both are named, in their order of chance."""
    study, use = made(AREA, samples=TWO)
    filters = {sample.label: measure_sample(sample, study.circuit) for sample in study.samples}
    known = {label: KEPT.of(study, one, use, measures_of_answer(use), 1) for label, one in filters.items()}
    judged = judge_use(study, use, draws=200, model_draws=1, known_of=lambda one: known[one.sample.label])
    known_use = KnownUse(study, judged, filters, known, "metric")
    first, second = known_use.standing.candidates
    candidates = (replace(first, chance=0.15), replace(second, chance=0.85))
    known_use.__dict__["standing"] = replace(known_use.standing, candidates=candidates, sure="not sure")
    sentences, named = decision(known_use)
    assert named == ("B", "A")
    assert sentences[1] == (
        "By the best estimates A is first by pair wins, B in more of the draws (chances to be first: 85 of 100 and 15 of 100)."
    )


def test_dirt_that_is_not_weighed_is_told_with_its_evidence():
    claim = {"kind": "efficiency", "source": "box", "efficiency_percent": 99, "size_um": 20, "scale": "um(c)", "relation": ">="}
    answer = answer_of(AREA, samples=(sold(10, **strip(180), claims=[claim]), TWO[1]))
    assert "Dirt (you do not weigh it): A lets at most 10 of 1,000 particles of 20 µm through, by a claim." in text_of(answer)


def test_dirt_that_is_weighed_and_not_known_alike_is_not_called_unweighed():
    claim = {"kind": "efficiency", "source": "box", "efficiency_percent": 99, "size_um": 20, "scale": "um(c)", "relation": ">="}
    dirt = {"measure": "efficiency_at_20_um_percent", "weight": 1, "best": 100, "worst": 0}
    answer = answer_of(AREA, dirt, samples=(sold(10, **strip(180), claims=[claim]), TWO[1]))
    told = text_of(answer, "left_out")
    assert "you weigh it, but of no two filters is it known in the same way" in told
    assert "you do not weigh it" not in told


def test_the_demo_is_answered_in_its_first_sixty_words():
    """The demo's groomers: Korvath first, its twin's count told, Halvene named if dirt counts, Ysmere not to be bought."""
    study = read_study((files("tabrel") / "demo" / "mountain_road_service.study.json").read_bytes())
    answer = answered(study, study.uses[0], draws=200)
    first = " ".join(text_of(answer).split()[:60])
    buy = "Buy Korvath (11.40 EUR plus delivery), if the vehicle maker allows it"
    assert first.startswith(f"{buy}. First by your weights, fairly sure (chance about 8 of 10)")
    assert "Dunmor, which nothing tells from it" in first
    assert "buy Halvene (22.80 EUR delivered)" in text_of(answer, "left_out")
    assert "Korvath itself was not counted." in text_of(answer, "left_out")
    burrs = "Do not buy Ysmere: burrs of its tube face the media, its media is worn and its element was damaged in service."
    assert text_of(answer, "not") == burrs
    assert answer.words <= 250
    assert "°F" in text_of(answered(study, study.uses[0], draws=200, family="inch"))


def test_an_adapter_is_answered_by_its_own_run():
    study = read_study((files("tabrel") / "demo" / "snow_groomer_adapter.study.json").read_bytes())
    first, second = adapter_sentences(study, draws=60)
    assert first.startswith("At 100 °C and 3000 rpm the adapter costs")
    assert "more than the filter Korvath on adapter itself" in first
    assert second.startswith("Filter and adapter together lose")
    assert adapter_sentences(read_study(json.dumps({**json.loads(_demo()), "circuit": None})), draws=2) == []


def _demo():
    return (files("tabrel") / "demo" / "mountain_road_service.study.json").read_text()


@pytest.mark.parametrize("number", range(40))
def test_varied_studies_give_no_empty_contradictory_or_too_certain_answer(number):
    """Readings, prices, requirements and verdicts are dropped and ties made, at random."""
    random = np.random.default_rng(number)
    samples = []
    for _ in range(random.integers(1, 5)):
        one = sold(round(float(random.uniform(4, 20)), 2), **strip(int(random.choice([90, 120, 180, 181]))))
        for path in ("stated_collapse_kpa", "observations/tube.burr_side", "readings/media.strip_length", "offers"):
            if random.random() < 0.2:
                one.pop(path)
        if random.random() < 0.15:
            one["observations/media.condition"] = "worn at the tube"
        samples.append(one)
    criteria = [item for item in (AREA, PRICE) if random.random() < 0.8]
    requirements = [item for item in (BURR, {"measure": "price", "at_most": 15}) if random.random() < 0.6]
    study, use = made(*criteria, samples=tuple(samples), requirements=requirements)
    answer = answered(study, use)
    text = text_of(answer)
    assert text
    assert answer.blocks[0].name == "decision"
    assert answer.words <= 250
    for label, one in zip("ABCD", samples, strict=False):
        if "worn" in one.get("observations/media.condition", ""):
            assert label not in answer.named
        assert not (label in answer.named and f"Do not buy {label}" in text)
    assert not ("not sure" in text and "fairly sure" in text)
    for word in ("safe", "approved", "None ", "nan", "inf "):
        assert word not in text.replace("None of these", "")
    assert set(answer.order) == set("ABCD"[: len(samples)])
    if answer.named:
        assert "if the vehicle maker allows it" in text


def test_every_pair_of_families_and_uses_is_told_without_raw_keys():
    study = read_study(_demo())
    for use, family in product(study.uses, ("metric", "inch")):
        text = text_of(answered(study, use, draws=2, family=family))
        assert "_" not in text
        assert "  " not in text
