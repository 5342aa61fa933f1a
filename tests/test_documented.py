"""Everything public is documented, and the words match the code."""

from __future__ import annotations

import dataclasses
import importlib
import inspect
import pkgutil
import re
from pathlib import Path

import tabrel
import tabrel.api
import tabrel.core
import tabrel.store
from tabrel.api.openapi import glossary_page, openapi_document
from tabrel.core.catalogue.glossary import GLOSSARY
from tabrel.core.catalogue.observations import OBSERVATIONS

SEEN_IN_THE_BROWSER = {
    "AboutView": "notice=numpy",
    "BackupsView": ".pin.safe",
    "StudiesView": '".list li"',
    "StudyView": 'name="Stations"',
    "IntakeView": '"Intake"',
    "BenchView": ".chip",
    "ShortSheetView": '".ways"',
    "BeforeCutView": "Cut: record it now",
    "WorkingView": ".working tr.last",
    "EngineView": '[data-hot="leftover"]',
    "OperatingMapView": '[data-crosshair="state"]',
    "ComparisonView": '[data-answer="restricts"]',
    "ReadingTableView": '[data-ask="units"]',
    "ReportView": "data-report-part",
    "PreferencesView": '[data-preference="',
    "SumsView": '[data-part="summary"]',
    "SheetView": '[data-row="',
    "VerdictView": '[data-part="first"]',
    "SamePartView": '[data-part="verdict"]',
    "StartView": "[data-life=",
    "EfficiencyView": '[data-efficiency="result"]',
}
"""Requirements that interface tests check in each view."""


def public(kind):
    for module in (
        importlib.import_module(package.name)
        for package in pkgutil.walk_packages(tabrel.__path__, "tabrel.")
        if not package.ispkg
    ):
        for name, thing in vars(module).items():
            if kind(thing) and not name.startswith("_") and thing.__module__ == module.__name__:
                yield f"{module.__name__}.{name}", thing


def section_of(docstring, section):
    """Return the text of a numpydoc section, or None where there is no such section."""
    match = re.search(rf"{section}\n-+\n(.*?)(?:\n\n[A-Z]\w+\n-+\n|\Z)", docstring, re.DOTALL)
    return match and match[1]


def listed(docstring, section):
    """Return the names a numpydoc section lists, or None where there is no such section."""
    text = section_of(docstring, section)
    if text is None:
        return None
    heads = re.findall(r"^(\w[\w, \n]*?) : ", text, re.MULTILINE)
    return {name for head in heads for name in re.split(r"[,\s]+", head)}


def public_functions():
    """Yield every public function, and every public method of a public class."""
    yield from public(inspect.isfunction)
    for path, owner in public(inspect.isclass):
        for name, method in vars(owner).items():
            if inspect.isfunction(method) and not name.startswith("_"):
                yield f"{path}.{name}", method


def test_parameters_are_the_signatures():
    for path, function in public_functions():
        docstring = inspect.getdoc(function)
        assert docstring, path
        names = listed(docstring, "Parameters")
        if names is not None:
            assert names == set(inspect.signature(function).parameters) - {"self"}, path


def test_no_section_repeats_the_signature():
    """It gives a shape, a unit, a limit, or more than names and annotations tell."""
    for path, function in public_functions():
        for section in ("Parameters", "Returns"):
            text = section_of(inspect.getdoc(function), section)
            if text is not None:
                described = re.findall(r"^    +(.+(?:\n    +.+)*)", text, re.MULTILINE)
                says_more = any(len(words.split()) > 4 for words in described)
                assert says_more or re.search(r"\[|shape|\d|[Nn]one\b|`", text), (path, section)


def test_attributes_are_fields():
    """What its name and its annotated unit tell need not be listed."""
    for path, model in public(dataclasses.is_dataclass):
        names = listed(inspect.getdoc(model), "Attributes")
        if names is not None:
            assert names <= {field.name for field in dataclasses.fields(model) if not field.name.startswith("_")}, path


def test_every_route_says_what_it_does():
    for path, methods in openapi_document()["paths"].items():
        for method, operation in methods.items():
            assert operation.get("description"), (method, path)


def test_a_package_says_what_lives_in_it():
    layers = (tabrel.core, tabrel.store, tabrel.api)
    chosen_layers = (
        module for layer in layers for module in pkgutil.iter_modules(layer.__path__, f"{layer.__name__}.") if module.ispkg
    )
    for package in (importlib.import_module(item.name) for item in chosen_layers):
        heads = {name for line in package.__doc__.splitlines() if line.startswith("`") for name in re.findall(r"`(\w+)`", line)}
        assert {entry.name for entry in pkgutil.iter_modules(package.__path__)} <= heads, package.__name__


def test_every_choice_of_an_attribute_has_its_picture():
    drawn = (Path(__file__).parents[1] / "web/src/catalogue/observationPictures.ts").read_text()
    for observation in OBSERVATIONS.values():
        block = re.search(rf"'{re.escape(observation.key)}': \{{(.*?)\n  \}},", drawn, re.DOTALL)
        assert block, observation.key
        for choice in observation.choices:
            assert re.search(rf"^\s*'?{re.escape(choice.value)}'?: \[", block[1], re.MULTILINE), (observation.key, choice.value)


def test_the_glossary_page_is_what_the_catalogue_says():
    page = (Path(__file__).parents[1] / "docs/glossary.md").read_text()
    assert page == glossary_page(), "docs/glossary.md is stale: run 'make glossary' and commit it"
    terms = [item.term for item in GLOSSARY]
    assert terms == sorted(set(terms), key=str.casefold)
    for item in GLOSSARY:
        assert item.meaning.endswith("."), item.term


def test_every_view_is_driven_in_the_browser():
    views = {path.stem for path in (Path(__file__).parents[1] / "web/src").rglob("*View.vue")}
    driven = "".join(path.read_text() for path in (Path(__file__).parent / "interface").glob("*.py"))
    assert views == set(SEEN_IN_THE_BROWSER)
    for view, sign in SEEN_IN_THE_BROWSER.items():
        assert sign in driven, view


def test_every_place_that_the_architecture_names_exists():
    """Paths between backticks, from the root or from the package."""
    root = Path(__file__).parents[1]
    named = set(re.findall(r"`((?:[\w.-]+/)+[\w-]+\.(?:py|ts|vue|json|sql))`", (root / "docs" / "architecture.md").read_text()))
    assert len(named) > 20
    absent = {path for path in named if not (root / path).exists() and not (root / "src" / "tabrel" / path).exists()}
    assert not absent
