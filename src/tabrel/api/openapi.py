"""Print the OpenAPI document, from which the front end's types are generated."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path

from tabrel.api.app import create_app


def main() -> None:
    """Print the document as JSON."""
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "empty.db", static=Path(folder))
        print(json.dumps(app.openapi(), indent=1, sort_keys=True))


if __name__ == "__main__":
    main()
