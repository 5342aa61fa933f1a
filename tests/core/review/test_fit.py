"""The fit check: it warns where filter and engine contradict each other, is silent where they do not, and approves nothing."""

from __future__ import annotations

import pytest

from tabrel.core.results.analysis import analyse_sample
from tabrel.core.study.model import Circuit, Mount, Reading, Sample

FILTER = {"thread.major_diameter": ("3/4 in",), "thread.pitch": ("16 tpi",), "gasket.outside_diameter": ("71.6 mm",)}


def codes(mount, **more):
    readings = FILTER | {key.replace("__", "."): (entry,) for key, entry in more.items()}
    warnings = analyse_sample(Sample("A", readings=readings), Circuit(mount=mount)).warnings
    return {warning.code for warning in warnings if warning.code.startswith("fit_")}


@pytest.mark.parametrize(
    ("mount", "expected"),
    [
        (Mount(19.05, 25.4 / 16, 74.0), set()),  # 3/4 in, 16 to the inch
        (Mount(20.0, 1.5, 74.0), {"fit_thread", "fit_pitch"}),  # M20 x 1.5
        (Mount(seat_diameter_mm=70.0), {"fit_seat"}),
        (Mount(seat_diameter_mm=71.6), set()),
        (Mount(), set()),
        (None, set()),
    ],
)
def test_what_the_mount_contradicts_is_warned_of(mount, expected):
    assert codes(mount) == expected


def test_an_uncertain_reading_contradicts_nothing():
    assert codes(Mount(seat_diameter_mm=70.0), gasket__outside_diameter=Reading("71.6 mm", provenance="by_eye")) == set()


def test_a_reading_that_is_not_there_is_not_warned_of():
    warnings = analyse_sample(Sample("A"), Circuit(mount=Mount(19.05, 1.5, 70.0))).warnings
    assert not any(warning.code.startswith("fit_") for warning in warnings)


def test_a_restriction_of_use_is_repeated_as_a_caution():
    for printed, expected in (("racing only", 1), ("none printed", 0), (None, 0)):
        warnings = analyse_sample(Sample("A", restriction=printed), None).warnings
        assert sum(warning.code == "restricted_use" for warning in warnings) == expected
