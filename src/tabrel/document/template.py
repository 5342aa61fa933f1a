"""A template: a sample of the study document that others are begun with, kept through versions of the program."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from pydantic import TypeAdapter, ValidationError

from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.details.details import DETAILS
from tabrel.core.errors import StudyError
from tabrel.core.study.model import Sample, field_names
from tabrel.document.plain_json import without_empty

_ADAPTER: TypeAdapter[Sample] = TypeAdapter(Sample)
_KNOWN: dict[str, Mapping[str, object]] = {"readings": QUANTITIES, "states": QUANTITIES, "observations": OBSERVATIONS}


def write_template(sample: Sample) -> str:
    """Return a template's sample as JSON."""
    return json.dumps(
        without_empty(_ADAPTER.dump_python(sample, mode="json", exclude_none=True, by_alias=True)), ensure_ascii=False
    )


def gone_keys(document: str) -> tuple[str, ...]:
    """Return the keys in a template that no catalogue knows any more."""
    held = json.loads(document)
    result = [key for key in held if key not in field_names(Sample)]
    for name, known in _KNOWN.items():
        result += [key for key in held.get(name, {}) if key not in known]
    return tuple(dict.fromkeys(result))


def read_template(document: str) -> Sample:
    """Return a template's sample without what no catalogue knows any more; see `gone_keys`.

    Raises
    ------
    StudyError
        If what is left is not understood.
    """
    held: dict[str, Any] = {key: value for key, value in json.loads(document).items() if key in field_names(Sample)}
    for name, known in _KNOWN.items():
        held[name] = {key: value for key, value in held.get(name, {}).items() if key in known}
    things: dict[str, Mapping[str, object]] = {"details": DETAILS, **_KNOWN}
    held["copied"] = {
        thing: origin
        for thing, origin in held.get("copied", {}).items()
        if thing.partition("/")[2] in things.get(thing.partition("/")[0], {})
    }
    try:
        return _ADAPTER.validate_json(json.dumps(held), strict=True)
    except ValidationError as error:
        place = ".".join(str(step) for step in error.errors()[0]["loc"])
        raise StudyError(
            "template_id", f"the template is not understood any more, at {place}: save it anew from a sample"
        ) from error
