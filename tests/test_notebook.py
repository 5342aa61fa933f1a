"""Tabrel in a notebook: stable names, the numbers of the command line, and a document whose examples hold."""

from __future__ import annotations

import doctest
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest

import tabrel
from tabrel.core.errors import StudyError

DOCS = Path(__file__).parents[1] / "docs"


@pytest.fixture(scope="module")
def study():
    return tabrel.read_study(tabrel.demo_study())


def test_what_the_document_shows_is_what_comes_out():
    failed, tried = doctest.testfile(str(DOCS / "notebook.md"), module_relative=False, encoding="utf-8")
    assert tried > 10
    assert failed == 0


def test_results_have_the_names_of_the_command_line_without_their_units(study):
    assert {"inlet_hole_area", "plate_flow_area", "media_effective_area", "bypass_opening", "efficiency_at_20_um"} <= set(
        study["Korvath"].results
    )
    for result in study["Brennig"].results.values():
        assert result.unit or result.title == "Slope of the efficiency curve"


def test_a_map_is_that_of_the_command_line(study, capsys):
    from tabrel.cli.main import main

    asked = ["map", str(tabrel.demo_study()), "--sample", "Korvath", "--temperatures", "-20,100", "--speeds", "800,3000"]
    assert main(asked) == 0
    import json

    printed = json.loads(capsys.readouterr().out)
    grid = study["Korvath"].operating_map([-20, 100], [800, 3000])
    for name in grid:
        assert np.array(printed[name], dtype=float) == pytest.approx(grid[name], nan_ok=True), name
    assert list(grid.temperature_c) == [-20, 100]


def test_the_efficiency_rises_with_size_and_a_size_at_beta_has_that_efficiency(study):
    counted = study["Brennig"].efficiency
    values = [counted(size).value for size in (6, 10, 15, 20)]
    assert values == sorted(values)
    size = counted.size_at(10).value
    assert counted(size).value == pytest.approx(90, abs=0.01)


def test_a_label_that_is_none_and_a_file_that_is_none_are_told_in_a_sentence(study, tmp_path):
    with pytest.raises(StudyError, match="there is no sample 'Korvat'"):
        study["Korvat"]
    with pytest.raises(StudyError, match="cannot be read"):
        tabrel.read_study(tmp_path / "nothing.json")
    with pytest.raises(StudyError, match="is no use of this study"):
        study.compare("towing")


def test_a_report_is_written_by_its_ending(study, tmp_path):
    study.write_report(tmp_path / "results.csv")
    assert (tmp_path / "results.csv").read_text().startswith("Filter,Inlet hole area [mm²]")


def test_importing_tabrel_loads_nothing_of_it():
    code = "import sys, tabrel; print([m for m in sys.modules if m.startswith(('tabrel.', 'numpy', 'matplotlib', 'typst'))])"
    assert subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout.strip() == "[]"


def test_the_server_loads_what_writes_reports_only_when_one_is_written():
    late = ("matplotlib", "typst", "xlsxwriter", "jinja2", "openpyxl", "markdown_it", "pypdfium2")
    code = f"import sys, tabrel.api.app; print([m for m in sys.modules if m in {late}])"
    assert (
        subprocess.run([sys.executable, "-W", "ignore", "-c", code], capture_output=True, text=True, check=True).stdout.strip()
        == "[]"
    )
