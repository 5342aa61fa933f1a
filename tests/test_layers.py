"""The folder tells what a file may import."""

from __future__ import annotations

import ast
import importlib
import re
import sys
from pathlib import Path

import pytest

SOURCE = Path(__file__).parents[1] / "src" / "tabrel"
OURS: dict[str, set[str]] = {
    "core": {"core"},
    "document": {"core", "document"},
    "store": {"core", "store"},
    "api": {"core", "document", "store", "report", "api"},
    "stand_ins": {"stand_ins"},
    "report": {"core", "document", "report"},
    "cli": {"core", "document", "store", "report", "api", "stand_ins", "cli"},
}
THEIRS: dict[str, set[str]] = {
    "core": {"numpy", "scipy", "uncertainties"},
    "document": {"numpy", "pydantic", "openpyxl"},
    "store": {"pydantic"},
    "api": {"numpy", "pydantic", "fastapi", "starlette"},
    "stand_ins": {"numpy"},
    "report": {"numpy", "matplotlib", "typst", "xlsxwriter", "jinja2", "markdown_it", "pypdfium2"},
    "cli": {"numpy", "uvicorn"},
}
ORDERED = {layer: importlib.import_module(f"tabrel.{layer}") for layer in ("core", "store", "report", "api")}
"""Layers made of subject packages; the docstring of each lists them in reading order."""

FILES = sorted(path for layer in OURS for path in (SOURCE / layer).rglob("*.py"))


def imported(path):
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            yield node.module
            if node.module == "tabrel":
                yield from (f"tabrel.{alias.name}" for alias in node.names)


@pytest.mark.parametrize("path", FILES, ids=lambda path: str(path.relative_to(SOURCE)))
def test_imports_stay_inside_the_layer(path):
    layer = path.relative_to(SOURCE).parts[0]
    for name in imported(path):
        first, _, rest = name.partition(".")
        if first == "tabrel":
            assert not rest or rest == "__version__" or rest.split(".")[0] in OURS[layer], name
        else:
            assert first in sys.stdlib_module_names or first in THEIRS[layer], name


def packages_in_order(layer):
    """Return the packages of a layer as its docstring lists them: those with an `__init__` of their own."""
    listed = re.findall(r"^`(\w+)`", ORDERED[layer].__doc__, flags=re.MULTILINE)
    return [name for name in listed if (SOURCE / layer / name / "__init__.py").is_file()]


@pytest.mark.parametrize("layer", ORDERED)
def test_a_layer_lists_what_is_in_it(layer):
    heads = re.findall(r"`(\w+)`", " ".join(re.findall(r"^`.*?`  ", ORDERED[layer].__doc__, flags=re.MULTILINE)))
    there = {path.stem for path in (SOURCE / layer).glob("*.py")} | {
        path.parent.name for path in (SOURCE / layer).glob("*/__init__.py")
    }
    assert sorted(heads) == sorted(there - {"__init__"})


@pytest.mark.parametrize(
    "path",
    sorted(path for layer in ORDERED for path in (SOURCE / layer).glob("*/*.py")),
    ids=lambda path: str(path.relative_to(SOURCE).with_suffix("")),
)
def test_a_package_imports_only_packages_above_it(path):
    layer, package, _ = path.relative_to(SOURCE).parts
    order = packages_in_order(layer)
    below = order[order.index(package) + 1 :]
    for name in imported(path):
        if name.startswith(f"tabrel.{layer}."):
            assert name.split(".")[2] not in below, name


WEB = SOURCE.parents[1] / "web/src"
WEB_ORDER = re.findall(r"^- `(\w+)`", (WEB / "README.md").read_text(), flags=re.MULTILINE)


def test_the_front_end_lists_its_folders():
    assert sorted(WEB_ORDER) == sorted(path.name for path in WEB.iterdir() if path.is_dir())


@pytest.mark.parametrize("folder", WEB_ORDER)
def test_a_folder_of_the_front_end_imports_only_folders_above_it(folder):
    below = WEB_ORDER[WEB_ORDER.index(folder) + 1 :]
    for path in [*(WEB / folder).rglob("*.ts"), *(WEB / folder).rglob("*.vue")]:
        for name in re.findall(r"""from ['"]@/(\w+)/""", path.read_text()):
            assert name not in below, (path, name)
        assert "from '../" not in path.read_text(), path


@pytest.mark.parametrize("path", [p for p in FILES if "store" not in p.parts], ids=lambda path: path.name)
def test_sql_stays_in_the_store(path):
    assert "sqlite3.connect" not in path.read_text()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Constant) and isinstance(node.value, str):
            assert not node.value.lstrip().startswith(("SELECT ", "INSERT ", "UPDATE ", "DELETE ")), node.value


def test_the_core_opens_no_file_and_reads_no_environment():
    for path in (SOURCE / "core").rglob("*.py"):
        names = {node.id for node in ast.walk(ast.parse(path.read_text())) if isinstance(node, ast.Name)}
        assert not names & {"open", "Path", "environ", "print"}, path


def test_the_project_names_no_package_host():
    root = SOURCE.parents[1]
    assert '"resolved"' not in (root / "web/package-lock.json").read_text()
    for path in [*root.glob("requirements/*"), root / "Makefile", root / "web/.npmrc"]:
        assert "https://" not in path.read_text(), path
