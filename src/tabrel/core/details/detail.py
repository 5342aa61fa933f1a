"""One detail of a study or a sample: where it is held and how it is asked for."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

DetailKind = Literal[
    "words",
    "long_words",
    "date",
    "choice",
    "length",
    "number",
    "price",
    "pressure",
    "pressure_band",
    "cross_holes",
    "defect_holes",
    "round_holes",
    "quantity",
    "count",
    "one_of",
    "flow_or_drip",
]
DetailStage = Literal["intake", "element", "media", "efficiency", "engine", "warm_up"]
DetailOwner = Literal["study", "sample"]


@dataclass(frozen=True)
class Detail:
    """One detail.

    Attributes
    ----------
    key : str
        ``study.…``, ``engine.…``, ``sample.…``, or the part it is learned at.
    title : str
        What a person calls it.
    kind : str
        How its text is understood.
    place : tuple of str
        Fields of the study, or of the sample, that lead to it.
    help : str
        One line beside the field.
    choices : tuple of str
        For the kinds ``choice``, where other words are allowed, and ``one_of``, where they are not.
    whole_only : bool
        Whether it must be written down before the filter is opened.
    synonyms : tuple of str
        Other words people use for it.
    stage : str
        When in the work it is learned.
    unit : str
        Of the document, for the kinds that are numbers.
    usual : object
        Value of the document that is taken while it is empty; None for nothing.
    needed : str
        What is said where it is emptied and cannot be.
    part : str
        Part of the circuit's drawing it belongs to.
    in_drawing : bool
        Whether it is written beside that part.
    views : tuple of str
        What practitioners make of it, the default first; empty where they agree.
    """

    key: str
    title: str
    kind: DetailKind
    place: tuple[str, ...]
    help: str = ""
    choices: tuple[str, ...] = ()
    whole_only: bool = False
    synonyms: tuple[str, ...] = ()
    stage: DetailStage = "intake"
    unit: str = ""
    usual: Any = None
    needed: str = ""
    part: str = ""
    in_drawing: bool = False
    views: tuple[str, ...] = ()

    @property
    def owner(self) -> DetailOwner:
        """Whether the detail belongs to the study or to a sample."""
        return "study" if self.key.startswith(("study.", "engine.", "oil.", "plan.")) else "sample"
