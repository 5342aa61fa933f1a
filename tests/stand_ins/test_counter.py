"""The simulated counter, and what it is for: whether a 95 % interval holds the true efficiency as often as it says."""

from __future__ import annotations

import ast
import io
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

import tabrel.stand_ins
from tabrel.core.counts.counted_test import counted_test
from tabrel.core.entry.count_table import read_count_table
from tabrel.stand_ins.counter import SimulatedTest, simulated_counts, write_csv

TESTS = 400
STAND = SimulatedTest()


def written(test, seed):
    text = io.StringIO()
    write_csv(test, simulated_counts(test, seed), text)
    return text.getvalue()


def taken(test, seed):
    """Return a simulated test as it comes in: through its table."""
    result = read_count_table(written(test, seed))
    assert (result.faults, result.questions) == ((), ())
    return result.counts


@pytest.fixture(scope="module")
def tests():
    return [taken(STAND, seed) for seed in range(TESTS)]


def covered(tests, size=20.0):
    """Return in how many tests the interval holds the true efficiency."""
    true = 1 - 1 / float(STAND.beta(np.array(size)))
    held = 0
    for counts in tests:
        computed = counted_test(counts).efficiency(size)
        held += computed.low <= true <= computed.high
    return held / len(tests)


def test_the_interval_holds_the_truth_as_often_as_it_says(tests):
    assert 0.93 <= covered(tests) <= 0.997


def test_counting_alone_would_hold_it_far_less_often(tests):
    blind = [replace(counts, ratio_uncertainty_percent=0.0, size_uncertainty_percent=0.0) for counts in tests]
    assert covered(blind) < 0.9


def test_without_errors_of_volume_and_size_counting_alone_holds_it():
    clean = replace(STAND, volume_error=0.0, size_error=0.0)
    few = [taken(clean, seed) for seed in range(200)]
    assert all(counts.ratio_uncertainty_percent == 0 for counts in few)
    assert 0.9 <= covered(few) <= 1.0


def test_the_same_seed_gives_the_same_test_and_another_another():
    assert written(STAND, 7) == written(STAND, 7)
    assert written(STAND, 7) != written(STAND, 8)


def test_counts_fall_with_size_and_dust_raises_the_differential_pressure():
    collected = simulated_counts(STAND, 3)
    for counted in (collected.upstream, collected.downstream, collected.blank_upstream[None]):
        assert (np.diff(counted, axis=1) <= 0).all()
    assert (np.diff(collected.differential_pressure_kpa) > 0).all()


def test_it_knows_nothing_of_the_analysis():
    for path in Path(tabrel.stand_ins.__file__).parent.glob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            names = [node.module or ""] if isinstance(node, ast.ImportFrom) else [a.name for a in getattr(node, "names", [])]
            assert not any(name.startswith("tabrel.") and "stand_ins" not in name for name in names), path
