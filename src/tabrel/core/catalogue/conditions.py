"""The conditions of a counted test: what each is called, its unit, and the words people use for it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

ConditionKind = Literal["words", "date", "choice", "one_of", "quantity"]


@dataclass(frozen=True)
class Condition:
    """One condition.

    Attributes
    ----------
    field : str
        Of `study.evidence.Counts`.
    title : str
        What a person calls it.
    kind : str
        How its text is understood, as of a detail.
    unit : str
        Of the document, for quantities.
    help : str
        One line beside the field.
    synonyms : tuple of str
        Other words for it, in lower case.
    choices : tuple of str
        For ``choice``, where other words are allowed, and ``one_of``, where they are not.
    """

    field: str
    title: str
    kind: ConditionKind
    unit: str = ""
    help: str = ""
    synonyms: tuple[str, ...] = ()
    choices: tuple[str, ...] = ()


SCALES = ("um(c)", "um(b)", "um", "unnamed")

CONDITIONS: tuple[Condition, ...] = (
    Condition(
        "scale",
        "size scale",
        "one_of",
        help="as the counter was calibrated: um(c) by ISO 11171, um by ISO 4402",
        synonyms=("scale",),
        choices=SCALES,
    ),
    Condition(
        "test_kind",
        "kind of test",
        "choice",
        help="only tests of one kind compare",
        synonyms=("test kind", "test type"),
        choices=("multi_pass", "single_pass"),
    ),
    Condition("standard", "test standard", "words", help="such as ISO 4548-12", synonyms=("standard", "method")),
    Condition(
        "source", "laboratory", "words", help="who tested, and its report", synonyms=("test house", "laboratory", "lab", "report")
    ),
    Condition(
        "tested", "tested on", "date", help="a claim and a test years apart may be of two designs", synonyms=("date", "test date")
    ),
    Condition("dust", "test dust", "words", help="such as ISO 12103-1 A3", synonyms=("contaminant", "dust")),
    Condition("dust_lot", "lot of the dust", "words", help="as on its certificate", synonyms=("dust lot", "lot", "batch")),
    Condition("fluid", "test fluid", "words", synonyms=("fluid", "test oil")),
    Condition(
        "kinematic_mm2_s",
        "viscosity of the fluid",
        "quantity",
        "mm²/s",
        "at the test's temperature",
        ("viscosity", "kinematic viscosity"),
    ),
    Condition("temperature_c", "test temperature", "quantity", "°C", "of the fluid", ("temperature",)),
    Condition("flow_l_min", "test flow", "quantity", "L/min", "through the filter", ("flow", "flow rate")),
    Condition(
        "base_level_mg_l",
        "base level",
        "quantity",
        "mg/L",
        "dust upstream that is kept up",
        ("base upstream gravimetric level", "gravimetric level"),
    ),
    Condition(
        "system_volume_l", "system volume", "quantity", "L", "of fluid that circulates", ("volume of the system", "fluid volume")
    ),
    Condition(
        "clean_hardware_kpa",
        "clean hardware",
        "quantity",
        "kPa",
        "differential pressure of the housing without an element",
        ("housing differential pressure", "hardware"),
    ),
    Condition(
        "clean_element_kpa",
        "clean element",
        "quantity",
        "kPa",
        "its own clean differential pressure, hardware taken off",
        ("clean differential pressure", "element differential pressure"),
    ),
    Condition(
        "terminal_kpa",
        "terminal differential pressure",
        "quantity",
        "kPa",
        "at which the test was ended",
        ("terminal pressure", "final differential pressure"),
    ),
    Condition(
        "terminal_ratio",
        "terminal ratio",
        "quantity",
        "",
        "of the media's own differential pressure to its clean value, for the capacity",
        ("terminal loading",),
    ),
    Condition(
        "upstream_ml",
        "volume counted upstream",
        "quantity",
        "mL",
        "that the counter saw",
        ("upstream volume", "sample volume upstream"),
    ),
    Condition(
        "upstream_dilution",
        "dilution upstream",
        "quantity",
        "",
        "20 for 1 in 20",
        ("upstream dilution", "dilution ratio upstream"),
    ),
    Condition(
        "downstream_ml",
        "volume counted downstream",
        "quantity",
        "mL",
        "that the counter saw",
        ("downstream volume", "sample volume downstream"),
    ),
    Condition(
        "downstream_dilution",
        "dilution downstream",
        "quantity",
        "",
        "20 for 1 in 20",
        ("downstream dilution", "dilution ratio downstream"),
    ),
    Condition(
        "coincidence_per_ml",
        "coincidence limit",
        "quantity",
        "",
        "particles in 1 mL that the counter itself may see",
        ("coincidence",),
    ),
    Condition(
        "ratio_uncertainty_percent",
        "uncertainty of volumes",
        "quantity",
        "%",
        "standard uncertainty of the ratio of the two volumes and dilutions",
        ("volume uncertainty",),
    ),
    Condition(
        "size_uncertainty_percent",
        "uncertainty of sizes",
        "quantity",
        "%",
        "standard uncertainty of the counter's size scale",
        ("size uncertainty",),
    ),
)
"""In the order of the form."""

CONDITIONS_BY_FIELD: dict[str, Condition] = {row.field: row for row in CONDITIONS}
