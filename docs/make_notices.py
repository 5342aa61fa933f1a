"""Write the notices of everything that is shipped: fonts, scripts and wheels of the lock files, with the texts of their licences.

It runs after each build of the front end, which leaves `shipped.json`: the packages whose code is in it.
"""

from __future__ import annotations

import json
import re
from importlib.metadata import distribution
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
STATIC = ROOT / "src/tabrel/static"
ONLY_BUILDS = {"setuptools"}
_IS_NOTICE = re.compile(r"licen[cs]e|copying|notice|authors", re.IGNORECASE)


def of_wheels() -> list[dict[str, str]]:
    """Return the notices of the wheels that are installed beside Tabrel."""
    locked = re.findall(r"^([\w.-]+)==([\w.]+)", (ROOT / "requirements/run.txt").read_text(), flags=re.MULTILINE)
    return [_of_wheel(name, version) for name, version in locked if name not in ONLY_BUILDS]


def _of_wheel(name: str, version: str) -> dict[str, str]:
    about = distribution(name).metadata
    files = [file for file in distribution(name).files or [] if file.parts[0].endswith(".dist-info")]
    texts = [file.read_binary() for file in files if _IS_NOTICE.search("/".join(file.parts[1:]))]
    said = about.get("License-Expression") or about.get("License") or ""
    classified = [words.rpartition(" :: ")[2] for words in about.get_all("Classifier") or [] if words.startswith("License")]
    licence = said if 0 < len(said) < 80 else ", ".join(classified)
    return _notice("wheel", about["Name"], version, licence, texts)


def of_front_end() -> list[dict[str, str]]:
    """Return the notices of the fonts, scripts and styles that are in the front end as it was built."""
    locked = json.loads((ROOT / "web/package-lock.json").read_text())["packages"]
    return [_of_package(place, locked[place]) for place in json.loads((STATIC / "shipped.json").read_text())]


def _of_package(place: str, locked: dict[str, str]) -> dict[str, str]:
    name = place.rpartition("node_modules/")[2]
    texts = [path.read_bytes() for path in sorted((ROOT / "web" / place).iterdir()) if _IS_NOTICE.search(path.name)]
    return _notice("font" if name.startswith("@fontsource") else "script", name, locked["version"], locked["license"], texts)


def _notice(kind: str, name: str, version: str, licence: str, texts: list[bytes]) -> dict[str, str]:
    text = "\n\n".join(_decoded(text).strip() for text in texts)
    return {"kind": kind, "name": name, "version": version, "licence": licence, "text": text}


def _decoded(text: bytes) -> str:
    try:
        return text.decode("utf-8")
    except UnicodeDecodeError:
        return text.decode("latin-1")


if __name__ == "__main__":
    notices = sorted([*of_wheels(), *of_front_end()], key=lambda notice: (notice["kind"], notice["name"].lower()))
    (STATIC / "notices.json").write_text(json.dumps(notices, ensure_ascii=False, indent=1), encoding="utf-8")
