"""What is public is documented, and the words match the code."""

from __future__ import annotations

import dataclasses
import importlib
import inspect
import pkgutil
import re
from pathlib import Path

import pytest

import tabrel.core
from tabrel.api.app import create_app
from tabrel.core.catalogue.observations import OBSERVATIONS

PACKAGES = [
    importlib.import_module(entry.name) for entry in pkgutil.iter_modules(tabrel.core.__path__, "tabrel.core.") if entry.ispkg
]
MODULES = [
    importlib.import_module(entry.name)
    for entry in pkgutil.walk_packages(tabrel.core.__path__, "tabrel.core.")
    if not entry.ispkg
]


def public(kind):
    for module in MODULES:
        for name, thing in vars(module).items():
            if kind(thing) and not name.startswith("_") and thing.__module__ == module.__name__:
                yield pytest.param(thing, id=f"{module.__name__.removeprefix('tabrel.core.')}.{name}")


def listed(docstring, section):
    """Return the names a numpydoc section lists, or None where there is no such section."""
    match = re.search(rf"{section}\n-+\n(.*?)(?:\n\n[A-Z]\w+\n-+\n|\Z)", docstring, re.DOTALL)
    if not match:
        return None
    heads = re.findall(r"^(\w[\w, \n]*?) : ", match[1], re.MULTILINE)
    return {name for head in heads for name in re.split(r"[,\s]+", head)}


@pytest.mark.parametrize("function", list(public(inspect.isfunction)))
def test_parameters_are_the_signatures(function):
    docstring = inspect.getdoc(function)
    assert docstring, "no docstring"
    names = listed(docstring, "Parameters")
    if names is not None:
        assert names == set(inspect.signature(function).parameters)


@pytest.mark.parametrize("model", list(public(dataclasses.is_dataclass)))
def test_attributes_are_the_fields(model):
    names = listed(inspect.getdoc(model), "Attributes")
    if names is not None:
        assert names == {field.name for field in dataclasses.fields(model) if not field.name.startswith("_")}


def test_every_route_says_what_it_does(tmp_path):
    schema = create_app(tmp_path / "study.db", static=tmp_path).openapi()
    for path, methods in schema["paths"].items():
        for method, operation in methods.items():
            assert operation.get("description"), (method, path)


@pytest.mark.parametrize("package", PACKAGES, ids=lambda package: package.__name__.rpartition(".")[2])
def test_a_package_says_what_lives_in_it(package):
    heads = {name for line in package.__doc__.splitlines() if line.startswith("`") for name in re.findall(r"`(\w+)`", line)}
    assert {entry.name for entry in pkgutil.iter_modules(package.__path__)} <= heads


def test_every_choice_of_an_attribute_has_its_picture():
    drawn = (Path(__file__).parents[1] / "web/src/catalogue/observationPictures.ts").read_text()
    for observation in OBSERVATIONS.values():
        block = re.search(rf"'{re.escape(observation.key)}': \{{(.*?)\n  \}},", drawn, re.DOTALL)
        assert block, observation.key
        for choice in observation.choices:
            assert re.search(rf"^\s*'?{re.escape(choice.value)}'?: \[", block[1], re.MULTILINE), (observation.key, choice.value)
