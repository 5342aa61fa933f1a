"""HTML, XLSX, CSV and the package: nothing is fetched, numbers are numbers, and what went out comes back."""

from __future__ import annotations

import csv
import io
import json
import re
import zipfile
from hashlib import sha256
from html.parser import HTMLParser
from xml.etree import ElementTree

import frictionless
import openpyxl
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import changed, everything, plain_document
from tabrel.cli.demo import demo_documents
from tabrel.core.errors import StudyError
from tabrel.document.full_study import FullStudy
from tabrel.document.study_document import read_study
from tabrel.report.blocks import Report
from tabrel.report.contents import report_of
from tabrel.report.csv_tables import csv_of
from tabrel.report.data_table import DataTable, Field
from tabrel.report.figures.svg import Drawing
from tabrel.report.html import html_of, own_ids
from tabrel.report.inputs import ReportInputs
from tabrel.report.package import DOCUMENT, SUMS, package_of, study_in_package
from tabrel.report.tables import data_tables
from tabrel.report.xlsx import xlsx_of

DATED = "2026-11-27"
HEAD = Report("T", None, DATED, "a4")


def inputs(document):
    return ReportInputs(read_study(json.dumps(document)), draws=1)


def package(document):
    here = inputs(document)
    return package_of(FullStudy(here.study), report_of(here, dated=DATED), data_tables(here))


@pytest.fixture(scope="module")
def plain():
    return package(plain_document())


class Seen(HTMLParser):
    def __init__(self):
        super().__init__()
        self.tags, self.ids, self.addresses = [], [], []

    def handle_starttag(self, tag, attrs):
        self.tags.append(tag)
        for name, value in attrs:
            if name == "id":
                self.ids.append(value)
            if name in ("src", "href", "xlink:href", "action", "srcset"):
                self.addresses.append(value)


def test_html_is_one_file_without_script_that_fetches_nothing():
    document = changed(("name", "<script>alert(1)</script>"), ("samples/0/label", "<img src=x onerror=alert(1)>"))
    page = html_of(report_of(inputs(document), dated=DATED))
    seen = Seen()
    seen.feed(page)
    assert "script" not in seen.tags
    assert "&lt;script&gt;alert(1)&lt;/script&gt;" in page
    assert all(address.startswith(("#", "data:")) for address in seen.addresses)
    assert not re.search(r"url\((?!#|data:)", page)
    assert len(seen.ids) == len(set(seen.ids))
    assert set(re.findall(r"url\(#([^)]+)\)", page)) <= set(seen.ids)
    assert "Draft, not issued" in page


def test_a_label_that_looks_like_an_id_prints_as_typed():
    label = 'x id="x" href="#y" url(#z)'
    drawing = Drawing(0, 0, 10, 10, 'a title of id="t"')
    drawing.text((1, 1), label, size=3, ink="black")
    drawing.add("rect", id="own", fill="url(#own)")
    for svg in (drawing.svg(), f'<svg xmlns="http://www.w3.org/2000/svg"><text id="own">{label}</text></svg>'):
        root = ElementTree.fromstring(own_ids(svg, 3))
        assert label in [element.text for element in root.iter()]
        assert [element.get("id") for element in root.iter() if element.get("id")] == ["f3-own"]


def test_a_workbook_holds_numbers_as_numbers_text_as_text_and_units_in_its_headings():
    here = inputs(changed(("samples/0/label", "=HYPERLINK(1)"), ("samples/0/readings/can.height", ["98.40 mm", "3.875 in"])))
    book = openpyxl.load_workbook(io.BytesIO(xlsx_of(HEAD, data_tables(here))))
    assert book.sheetnames[:2] == ["About", "Results"]
    sheet = book["Results"]
    headings = [cell.value for cell in sheet[1]]
    assert "Inlet hole area [mm²]" in headings
    area = sheet.cell(2, headings.index("Inlet hole area [mm²]") + 1)
    assert area.data_type == "n"
    assert area.value == pytest.approx(here.analyses["=HYPERLINK(1)"].results.inlet_hole_area.value * 1e6)
    assert headings[headings.index("Inlet hole area [mm²]") + 1] == "Inlet hole area: U, 95 % [mm²]"
    assert sheet.cell(2, 1).data_type == "s"
    assert sheet.freeze_panes == "B2"
    readings = [row for row in book["Readings as typed"].iter_rows(values_only=True) if row[1] == "can.height"]
    assert [row[3:6] for row in readings] == [("98.40 mm", 98.4, "mm"), ("3.875 in", pytest.approx(98.425), "mm")]


def test_a_bound_is_no_value_in_any_table():
    here = inputs(changed(("samples/0/readings/filter.mass", ["over 420 g", "431 g"])))
    (table,) = data_tables(here, only=("readings",))
    values = {row[3]: row[4] for row in table.rows if row[1] == "filter.mass"}
    assert values == {"over 420 g": None, "431 g": 431.0}


def test_csv_has_units_in_its_headings_and_no_cell_that_a_spreadsheet_would_compute():
    table = DataTable("t", "T", (Field("a", "string", "A"), Field("b", "number", "B", "mm")), (("=1+1", 0.1), ("@x", None)))
    rows = list(csv.reader(io.StringIO(csv_of(table))))
    assert rows == [["A", "B [mm]"], ["'=1+1", "0.1"], ["'@x", ""]]


def test_the_tables_of_the_demo_hold_plain_numbers_that_a_validator_reads(tmp_path):
    here = ReportInputs(read_study(demo_documents()[0]), draws=1)
    content = package_of(FullStudy(here.study), Report("T", None, DATED, "a4"), data_tables(here))
    with zipfile.ZipFile(io.BytesIO(content)) as archive:
        archive.extractall(tmp_path)
    validated = frictionless.validate(str(tmp_path / "datapackage.json"))
    assert validated.valid, validated.flatten(["type", "note"])
    ranks = list(csv.DictReader((tmp_path / "tables" / "ranking.csv").read_text().splitlines()))
    assert {row["Use"] for row in ranks} >= {"long interval"}


def test_the_descriptor_is_valid_and_says_of_every_file_what_it_holds(plain, tmp_path):
    with zipfile.ZipFile(io.BytesIO(plain)) as archive:
        archive.extractall(tmp_path)
        names = archive.namelist()
    validated = frictionless.validate(str(tmp_path / "datapackage.json"))
    assert validated.valid, validated.flatten(["type", "note"])
    descriptor = json.loads((tmp_path / "datapackage.json").read_text())
    described = {item["path"]: item for item in descriptor["resources"]}
    assert set(names) - set(described) == {"datapackage.json", SUMS}
    for path, item in described.items():
        assert item["hash"] == f"sha256:{sha256((tmp_path / path).read_bytes()).hexdigest()}"
    fields = described["tables/results.csv"]["schema"]["fields"]
    assert {"name": "Inlet hole area [mm²]", "type": "number", "key": "inlet_hole_area", "unit": "mm²"} in fields
    assert any(name.startswith("figures/") and name.endswith(".svg") for name in names)
    words = dict(reversed(line.split("  ")) for line in (tmp_path / SUMS).read_text().splitlines())
    assert set(words) == set(names) - {SUMS}


@pytest.mark.parametrize("document", [plain_document(), everything()], ids=["plain", "everything"])
def test_what_is_packed_reads_back_equal(document):
    assert study_in_package(package(document)).study == read_study(json.dumps(document))


def zipped(files, **more):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in files:
            archive.writestr(name, content)
    return out.getvalue()


GOOD = json.dumps(plain_document())
STATED = f"{sha256(GOOD.encode()).hexdigest()}  {DOCUMENT}\n"


@pytest.mark.parametrize(
    ("content", "sentence"),
    [
        (b"not a zip", "is no zip file"),
        (zipped([("../study.json", GOOD), (DOCUMENT, GOOD)]), "leads out of it"),
        (zipped([("/etc/study.json", GOOD), (DOCUMENT, GOOD)]), "leads out of it"),
        (zipped([("a\\..\\b", GOOD), (DOCUMENT, GOOD)]), "leads out of it"),
        (zipped([("C:x", GOOD), (DOCUMENT, GOOD)]), "leads out of it"),
        (zipped([(f"figures/{i}.svg", "") for i in range(2001)]), "holds 2001 files"),
        (zipped([("other.json", GOOD)]), "holds no study.json"),
        (zipped([(DOCUMENT, "0" * (65 * 2**20))]), "is larger than 64 MB"),
        (zipped([(DOCUMENT, GOOD.replace("Pellin", "Pellen")), (SUMS, STATED)]), "not what its checksum says"),
        (zipped([(DOCUMENT, b"\xff\xfe")]), "UTF-8"),
        (zipped([(DOCUMENT, '{"format": "other"}')]), "tabrel-study"),
    ],
)  # fmt: skip
def test_a_zip_that_is_none_of_ours_is_refused_in_one_sentence(content, sentence):
    with pytest.raises(StudyError, match=re.escape(sentence)) as refused:
        study_in_package(content)
    assert "\n" not in str(refused.value)


def test_a_bomb_is_refused_before_it_is_unpacked_though_its_size_is_a_lie():
    bomb = bytearray(zipped([(DOCUMENT, "0" * 10_000_000)]))
    for at in (m.start() for m in re.finditer(re.escape((10_000_000).to_bytes(4, "little")), bytes(bomb))):
        bomb[at : at + 4] = (100).to_bytes(4, "little")
    with pytest.raises(StudyError):
        study_in_package(bytes(bomb))


@settings(max_examples=30)
@given(st.binary(max_size=300), st.integers(0, 2_000))
def test_a_package_that_was_damaged_on_its_way_is_refused_or_still_whole(damage, at):
    whole = zipped([(DOCUMENT, GOOD), (SUMS, STATED)])
    damaged = whole[:at] + damage + whole[at + len(damage) :]
    try:
        result = study_in_package(damaged)
    except StudyError:
        return
    assert result.study == read_study(GOOD)


def test_every_table_says_what_it_is_and_numbers_are_finite(plain):
    for table in data_tables(inputs(everything())):
        assert len({field.heading for field in table.fields}) == len(table.fields)
        for row in table.rows:
            assert len(row) == len(table.fields)
            for field, value in zip(table.fields, row, strict=True):
                if value is not None and field.type in ("number", "integer"):
                    assert isinstance(value, float | int), (table.name, field.name, value)
                    assert abs(value) < float("inf"), (table.name, field.name, value)
