"""Print what the front end is built and tested against: the OpenAPI document, or with ``catalogue`` the catalogues."""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path
from typing import Any

from tabrel.api.app import create_app
from tabrel.api.catalogue.routes import catalogue_out


def openapi_document() -> dict[str, Any]:
    """Return the OpenAPI document of the application."""
    with tempfile.TemporaryDirectory() as folder:
        return create_app(Path(folder) / "empty.db", static=Path(folder)).openapi()


def main() -> None:
    """Print the document, or the catalogues, as JSON."""
    if sys.argv[1:] == ["catalogue"]:
        print(catalogue_out().model_dump_json(indent=1))
        return
    print(json.dumps(openapi_document(), indent=1, sort_keys=True))


if __name__ == "__main__":
    main()
