"""The study of a report: everything it shows, computed once from the study, in the core's own objects."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property

from tabrel.core.answer.answer import Answer, answer_use
from tabrel.core.answer.known_use import measures_of_answer
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.circuit.dirt_loading import terminal_ratio, with_capacity_corrections
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.errors import MissingInputsError, TabrelError
from tabrel.core.judge.comparison_sheet import SheetRow, comparison_sheet, sheet_measures
from tabrel.core.judge.judged_use import JudgedUse, judge_use
from tabrel.core.judge.knowledge_cache import AT_NO_POINT, KnowledgeCache
from tabrel.core.judge.known import Known
from tabrel.core.judge.known_filter import measures_of_use, of_part_numbers
from tabrel.core.maps.monte_carlo import DRAWS
from tabrel.core.results.analysis import SampleAnalysis, analyse_measured
from tabrel.core.review.needs import open_needs
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.starts.duty_cycle import cycle_of
from tabrel.core.starts.warm_up import WarmUp, completed_plan, warm_up
from tabrel.core.study.model import Sample, Study
from tabrel.core.study.report_plan import ReportPlan, Size, resized
from tabrel.core.study.uses import Use
from tabrel.report.figures.palette import sample_colour


@dataclass
class ReportInputs:
    """A study, its plan of the report, and what follows from them; each is computed when it is first asked for.

    Attributes
    ----------
    study : Study
        Checked.
    kept : KnowledgeCache
        What filters do at the points of uses, as far as it has been computed already.
    draws : int
        Of the model.
    """

    study: Study
    kept: KnowledgeCache = field(default_factory=KnowledgeCache)
    draws: int = DRAWS

    @property
    def plan(self) -> ReportPlan:
        """The plan of the report."""
        return self.study.report or ReportPlan()

    def in_size(self, size: Size | None, first_use: str | None = None) -> ReportInputs:
        """Return the same study for a report of another size, or with another use first; None leaves it as it is."""
        uses = tuple(sorted(self.study.uses, key=lambda use: use.name != first_use)) if first_use else self.study.uses
        plan = self.plan if size is None else resized(self.plan, size)
        return ReportInputs(replace(self.study, report=plan, uses=uses), self.kept, self.draws)

    @property
    def family(self) -> UnitFamily:
        """Units of the numbers."""
        return self.plan.units or "metric"

    @cached_property
    def samples(self) -> tuple[Sample, ...]:
        """The filters that are in use."""
        return tuple(sample for sample in self.study.samples if not sample.archived)

    @cached_property
    def colours(self) -> dict[str, str]:
        """Colour by label."""
        return {sample.label: sample_colour(i) for i, sample in enumerate(self.samples)}

    @cached_property
    def measured(self) -> dict[str, MeasuredSample]:
        """The filters as measured, by label."""
        return {sample.label: measure_sample(sample, self.study.circuit) for sample in self.samples}

    @cached_property
    def analyses(self) -> dict[str, SampleAnalysis]:
        """Results and warnings by label."""
        return {label: analyse_measured(measured) for label, measured in self.measured.items()}

    @cached_property
    def points(self) -> dict[str, OperatingPoint | str]:
        """The circuit with each filter in it, or why there is none, by label."""
        points: dict[str, OperatingPoint | str] = {}
        for sample in self.samples:
            try:
                points[sample.label] = operating_point(self.study, sample, measured=self.measured[sample.label])
            except MissingInputsError as error:
                needs = open_needs(self.study, sample, error.keys)
                points[sample.label] = f"it needs {', '.join(need.title for need in needs)}."
            except TabrelError as error:
                points[sample.label] = str(error)
        return points

    @cached_property
    def starts(self) -> dict[str, WarmUp | str]:
        """The start of each filter from cold, or why there is none, by label."""
        starts: dict[str, WarmUp | str] = {}
        plan, _ = completed_plan(self.study.warm_up)
        for label, point in self.points.items():
            if isinstance(point, str):
                starts[label] = point
                continue
            try:
                starts[label] = warm_up(point, cycle_of(self.study, plan), plan)
            except TabrelError as error:
                starts[label] = str(error)
        return starts

    @cached_property
    def judged(self) -> tuple[JudgedUse | tuple[str, str], ...]:
        """Every use judged, or its name and why it cannot be."""
        judged_uses: list[JudgedUse | tuple[str, str]] = []
        for use in self.study.uses:
            try:
                judged_uses.append(judge_use(self.study, use, model_draws=self.draws, known_of=self._known_at(use)))
            except TabrelError as error:
                judged_uses.append((use.name, str(error)))
        return tuple(judged_uses)

    @property
    def judged_uses(self) -> list[JudgedUse]:
        """The uses that can be judged."""
        return [judged for judged in self.judged if isinstance(judged, JudgedUse)]

    @cached_property
    def answers(self) -> tuple[Answer, ...]:
        """The answer of every use that can be judged, in sentences."""
        answers = []
        for judged in self.judged_uses:
            wanted = measures_of_answer(judged.use)
            known = {
                label: self.kept.of(self.study, measured, judged.use, wanted, self.draws)
                for label, measured in self.corrected.items()
                if label in judged.labels
            }
            answers.append(answer_use(self.study, judged, known, family=self.family))
        return tuple(answers)

    @cached_property
    def corrected(self) -> dict[str, MeasuredSample]:
        """The filters as measured, with what a capacity measured on one says of others."""
        return with_capacity_corrections(self.measured, terminal_ratio(self.study))

    def _known_at(self, use: Use) -> Callable[[MeasuredSample], Mapping[str, Known]]:
        wanted = measures_of_use(use)
        return lambda measured: self.kept.of(self.study, measured, use, wanted, self.draws)

    @cached_property
    def short_sheets(self) -> tuple[tuple[Use | None, tuple[SheetRow, ...]], ...]:
        """The rows of the sheet that matter to each use, at its points; without a use the headline results and the price."""
        reference = self.study.reference if self.study.reference in self.measured else None
        samples = {sample.label: sample for sample in self.samples}
        sheets = []
        for use in self.study.uses or (None,):
            wanted = measures_of_use(use) if use else (*(RESULTS[name].key for name in HEADLINES), "price")
            known = {
                label: self.kept.of(self.study, measured, use or AT_NO_POINT, wanted, self.draws)
                for label, measured in self.corrected.items()
            }
            rows = comparison_sheet(samples, of_part_numbers(self.samples, known), use, reference, measures=wanted)
            sheets.append((use, rows))
        return tuple(sheets)

    @cached_property
    def sheet(self) -> tuple[SheetRow, ...]:
        """The comparison sheet at the points of the first use; without one, without behaviour."""
        use = self.study.uses[0] if self.study.uses else None
        measures = sheet_measures(use)
        known = {
            label: self.kept.of(self.study, measured, use or AT_NO_POINT, measures, self.draws)
            for label, measured in self.measured.items()
        }
        reference = self.study.reference if self.study.reference in self.measured else None
        samples = {sample.label: sample for sample in self.samples}
        return comparison_sheet(samples, of_part_numbers(self.samples, known), use, reference)


def filling(point: OperatingPoint) -> OperatingPoint:
    """Return the same filter while the galleries fill."""
    return replace(point, condition="filling")
