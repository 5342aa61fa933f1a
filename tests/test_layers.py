"""The folder tells what a file may import."""

from __future__ import annotations

import ast
import importlib
import re
import sys
from functools import cache
from pathlib import Path

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
    "report": {"numpy", "fontTools", "matplotlib", "typst", "xlsxwriter", "jinja2", "markdown_it", "pypdfium2"},
    "cli": {"numpy", "uvicorn"},
}
ORDERED = {layer: importlib.import_module(f"tabrel.{layer}") for layer in ("core", "store", "report", "api")}
"""Layers made of subject packages; the docstring of each lists them in reading order."""

FILES = sorted(path for layer in OURS for path in (SOURCE / layer).rglob("*.py"))


@cache
def nodes(path):
    """Return what a file is made of."""
    return list(ast.walk(ast.parse(path.read_text())))


def imported(path):
    for node in nodes(path):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            yield node.module
            if node.module == "tabrel":
                yield from (f"tabrel.{alias.name}" for alias in node.names)


def test_imports_stay_inside_the_layer():
    for path in FILES:
        layer = path.relative_to(SOURCE).parts[0]
        for name in imported(path):
            first, _, rest = name.partition(".")
            if first == "tabrel":
                assert not rest or rest == "__version__" or rest.split(".")[0] in OURS[layer], (path, name)
            else:
                assert first in sys.stdlib_module_names or first in THEIRS[layer], (path, name)


def packages_in_order(layer):
    """Return the packages of a layer as its docstring lists them: those with an `__init__` of their own."""
    listed = re.findall(r"^`(\w+)`", ORDERED[layer].__doc__, flags=re.MULTILINE)
    return [name for name in listed if (SOURCE / layer / name / "__init__.py").is_file()]


def test_a_layer_lists_what_is_in_it():
    for layer, package in ORDERED.items():
        heads = re.findall(r"`(\w+)`", " ".join(re.findall(r"^`.*?`  ", package.__doc__, flags=re.MULTILINE)))
        there = {path.stem for path in (SOURCE / layer).glob("*.py")} | {
            path.parent.name for path in (SOURCE / layer).glob("*/__init__.py")
        }
        assert sorted(heads) == sorted(there - {"__init__"}), layer


def test_a_package_imports_only_packages_above_it():
    for path in (path for layer in ORDERED for path in (SOURCE / layer).glob("*/*.py")):
        layer, package, _ = path.relative_to(SOURCE).parts
        order = packages_in_order(layer)
        below = order[order.index(package) + 1 :]
        for name in imported(path):
            if name.startswith(f"tabrel.{layer}."):
                assert name.split(".")[2] not in below, (path, name)


WEB = SOURCE.parents[1] / "web/src"
WEB_ORDER = re.findall(r"^- `(\w+)`", (WEB / "README.md").read_text(), flags=re.MULTILINE)


def test_the_front_end_lists_its_folders():
    assert sorted(WEB_ORDER) == sorted(path.name for path in WEB.iterdir() if path.is_dir())


def test_a_folder_of_the_front_end_imports_only_folders_above_it():
    for i, folder in enumerate(WEB_ORDER):
        for path in [*(WEB / folder).rglob("*.ts"), *(WEB / folder).rglob("*.vue")]:
            for name in re.findall(r"""(?:from |import\()['"]@/(\w+)/""", path.read_text()):
                assert name not in WEB_ORDER[i + 1 :], (path, name)
            assert "from '../" not in path.read_text(), path


def test_small_text_has_two_sizes():
    for path in [*WEB.rglob("*.vue"), WEB / "app/styles.css"]:
        assert not re.findall(r"font-size: 0\.\d+rem", path.read_text()), f"{path}: var(--small) or var(--fine)"


def test_sql_stays_in_the_store():
    for path in (path for path in FILES if "store" not in path.parts):
        assert "sqlite3.connect" not in path.read_text(), path
        for node in nodes(path):
            if isinstance(node, ast.Constant) and isinstance(node.value, str):
                assert not node.value.lstrip().startswith(("SELECT ", "INSERT ", "UPDATE ", "DELETE ")), (path, node.value)


def test_the_core_opens_no_file_and_reads_no_environment():
    for path in (SOURCE / "core").rglob("*.py"):
        names = {node.id for node in nodes(path) if isinstance(node, ast.Name)}
        assert not names & {"open", "Path", "environ", "print"}, path


def test_the_project_names_no_package_host():
    root = SOURCE.parents[1]
    assert '"resolved"' not in (root / "web/package-lock.json").read_text()
    for path in [*root.glob("requirements/*"), root / "Makefile", root / "web/.npmrc"]:
        assert "https://" not in path.read_text(), path


def test_no_file_is_longer_than_can_be_kept_in_mind():
    root = SOURCE.parents[1]
    folders = [root / name for name in ("src", "tests", "bench", "docs", "web/src")]
    files = [path for folder in folders for path in folder.rglob("*.*") if path.suffix in (".py", ".ts", ".vue", ".css")]
    built = [root / "src/tabrel/static", root / "web/src/api/schema.d.ts"]
    for path in files:
        if not any(path.is_relative_to(item) for item in built):
            assert len(path.read_text().splitlines()) <= 400, path
