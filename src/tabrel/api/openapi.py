"""Print what is made from the code: the OpenAPI document, the catalogues, or the glossary as a page."""

from __future__ import annotations

import json
import sys
import tempfile
from functools import cache
from pathlib import Path
from typing import Any

from tabrel.api.app import create_app
from tabrel.api.catalogue.routes import catalogue_out
from tabrel.core.catalogue.glossary import GLOSSARY


@cache
def openapi_document() -> dict[str, Any]:
    """Return the OpenAPI document of the application: one and the same, to be read only."""
    with tempfile.TemporaryDirectory() as folder:
        return create_app(Path(folder) / "empty.db", static=Path(folder)).openapi()


def glossary_page() -> str:
    """Return the page of the documentation with every term of the glossary."""
    rows = [f"| {term.term} | {term.meaning} | {term.unit} | {term.standard} |" for term in GLOSSARY]
    head = ["# Glossary", "", "Made from `core/catalogue/glossary.py` by `make glossary`; it also feeds the help on screen.", ""]
    return "\n".join([*head, "| term | meaning | unit | standard |", "|---|---|---|---|", *rows, ""])


def main() -> None:
    """Print the document, or the catalogues, as JSON, or the glossary as a page."""
    if sys.argv[1:] == ["glossary"]:
        print(glossary_page(), end="")
        return
    if sys.argv[1:] == ["catalogue"]:
        print(catalogue_out().model_dump_json(indent=1))
        return
    print(json.dumps(openapi_document(), indent=1, sort_keys=True))


if __name__ == "__main__":
    main()
