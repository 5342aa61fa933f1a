"""Base of the request models."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, field_validator

from tabrel.core.errors import StudyError
from tabrel.core.rules.limits import check_size, hidden_letter

UnitFamilyIn = Literal["metric", "inch"]


def _held_as_in_a_document(value: Any) -> Any:
    """Hold what is nested to the rule of documents, so that whatever is taken here can be exported and imported."""
    if isinstance(value, dict | list):
        try:
            check_size(value)
        except StudyError as error:
            raise ValueError(str(error)) from error
    return value


AS_IN_A_DOCUMENT = BeforeValidator(_held_as_in_a_document)
"""Of a body that is a part of a document and no request model."""


class RequestModel(BaseModel):
    """A model that comes in: unknown keys and numbers that are not finite are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, str_max_length=400, use_attribute_docstrings=True)

    @field_validator("*", mode="after")
    @classmethod
    def _shown(cls, value: Any) -> Any:
        if isinstance(value, str) and (hidden := hidden_letter(value)):
            raise ValueError(f"it holds a letter that does not show ({hidden}): take it out")
        return value

    _held = field_validator("*", mode="before")(_held_as_in_a_document)


def _without_mark(text: Any) -> Any:
    """Return a file's text without the mark of its encoding."""
    return text.removeprefix("\ufeff") if isinstance(text, str) else text


FileText = Annotated[str, BeforeValidator(_without_mark)]
"""The text of a file, which may begin with the mark of its encoding."""


class NothingIn(RequestModel):
    """The body of a change that needs no words: every change carries JSON, which no page elsewhere can send unasked."""


class TextIn(RequestModel):
    """A few words."""

    text: str
