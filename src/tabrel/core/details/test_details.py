"""The conditions of a counted test as details of a sample."""

from __future__ import annotations

from tabrel.core.catalogue.test_conditions import TEST_CONDITIONS
from tabrel.core.circuit.dirt_loading import TERMINAL_RATIO
from tabrel.core.counts.counted_test import RATIO_UNCERTAINTY, SIZE_UNCERTAINTY
from tabrel.core.details.detail import Detail

USUAL = {
    "ratio_uncertainty_percent": 100 * RATIO_UNCERTAINTY,
    "size_uncertainty_percent": 100 * SIZE_UNCERTAINTY,
    "terminal_ratio": TERMINAL_RATIO,
}

TEST_DETAILS: tuple[Detail, ...] = tuple(
    Detail(
        f"test.{row.field}",
        row.title,
        row.kind,
        ("counts", row.field),
        row.help,
        choices=row.choices,
        synonyms=row.synonyms,
        stage="efficiency",
        unit=row.unit,
        usual=USUAL.get(row.field),
        needed="say unnamed if nobody knows it" if row.field == "scale" else "",
    )
    for row in TEST_CONDITIONS
)
