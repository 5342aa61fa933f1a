"""Tabrel in a notebook: a study document read, its results, maps and comparisons as plain numbers and arrays.

Names are stable; every number says its unit, in its name or beside it.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from importlib.resources import files
from pathlib import Path
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from tabrel.core.catalogue.results import RESULTS
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.counts.counted_test import CountedTest
from tabrel.core.judge.judged_use import judge_use, use_named
from tabrel.core.maps.monte_carlo import DRAWS
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.sample.efficiency import efficiency_at_size
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import Study
from tabrel.core.study.report_plan import Size
from tabrel.core.uncertainty.propagation import Result
from tabrel.document.full_study import FullStudy
from tabrel.document.judged_use import judged_use_out
from tabrel.document.results import MAP_SCALES
from tabrel.document.study_document import read_study_file
from tabrel.report.words import result_unit, result_words

FloatArray = NDArray[np.float64]
Condition = Literal["steady", "filling"]


@dataclass(frozen=True)
class KnownResult:
    """A result in the unit beside it.

    Attributes
    ----------
    title, unit : str
    value : float or None
        None while an input is missing, or where only a bound is known.
    expanded_uncertainty : float or None
        95 %.
    low, high : float or None
        Bound, range or interval.
    basis : str or None
        The kind of evidence.
    missing, assumed : tuple of str
        Keys of inputs.
    words : str
        The result as it is told, with unit and uncertainty.
    """

    title: str
    unit: str
    value: float | None
    expanded_uncertainty: float | None
    low: float | None
    high: float | None
    basis: str | None
    missing: tuple[str, ...]
    assumed: tuple[str, ...]
    words: str

    def __str__(self) -> str:
        return self.words


def _known(name: str, result: Result) -> KnownResult:
    unit, factor = result_unit(name, "metric")

    def told(number: float | None) -> float | None:
        return None if number is None else float(number / factor)

    return KnownResult(
        title=RESULTS[name].title,
        unit=unit,
        value=told(result.value),
        expanded_uncertainty=told(result.expanded_uncertainty),
        low=told(result.low),
        high=told(result.high),
        basis=result.basis,
        missing=result.missing,
        assumed=result.assumed,
        words=result_words(name, result, "metric"),
    )


@dataclass(frozen=True)
class MapArrays(Mapping[str, FloatArray]):
    """The operating map of a filter: best estimates, NaN where the oil does not pump.

    Attributes
    ----------
    temperature_c : ndarray, shape (m,)
    speed_rpm : ndarray, shape (n,)
    onset_c : ndarray, shape (n,)
        Bypass onset at each speed; NaN where the valve stays shut.
    grids : mapping
        Arrays of shape (m, n) by name; each name ends in its unit, shares are of 1.
    """

    temperature_c: FloatArray
    speed_rpm: FloatArray
    onset_c: FloatArray
    grids: Mapping[str, FloatArray]

    def __getitem__(self, name: str) -> FloatArray:
        return self.grids[name]

    def __iter__(self) -> Iterator[str]:
        return iter(self.grids)

    def __len__(self) -> int:
        return len(self.grids)


@dataclass(frozen=True)
class Efficiency:
    """Micron efficiency of a filter, as far as it is known.

    Attributes
    ----------
    measured : MeasuredSample
    """

    measured: MeasuredSample

    def __call__(self, size_um: float) -> KnownResult:
        """Return the efficiency at a particle size [µm(c)], in per cent.

        Examples
        --------
        >>> import tabrel
        >>> str(tabrel.read_study(tabrel.demo_study())["Halvene"].efficiency(20))
        '98.81 (98.19 to 99.24) %'
        """
        return _known("efficiency_at_20_um", efficiency_at_size(self.measured, float(size_um)))

    def size_at(self, beta: float) -> KnownResult:
        """Return the size at which a filtration ratio is reached, by counts. [µm(c)]

        Examples
        --------
        >>> import tabrel
        >>> tabrel.read_study(tabrel.demo_study())["Korvath"].efficiency.size_at(75).missing
        ('counts',)
        """
        test = self.measured.counted
        if isinstance(test, CountedTest):
            return _known("size_at_beta_75", test.size_at(beta))
        return _known("size_at_beta_75", test if test is not None else Result(None, missing=("counts",)))


class Filter:
    """One filter of a study."""

    def __init__(self, study: Study, label: str) -> None:
        self._study, self.label = study, label
        self._sample = study.sample(label)

    @cached_property
    def measured(self) -> MeasuredSample:
        """The filter with its readings as uncertain numbers, in SI."""
        return measure_sample(self._sample, self._study.circuit)

    @cached_property
    def results(self) -> dict[str, KnownResult]:
        """Every result by its name.

        Examples
        --------
        >>> import tabrel
        >>> korvath = tabrel.read_study(tabrel.demo_study())["Korvath"]
        >>> print(korvath.results["inlet_hole_area"])
        231.2 ± 7.2 mm²
        >>> korvath.results["media_effective_area"].unit
        'cm²'
        """
        results = analyse_measured(self.measured).results
        return {name: _known(name, getattr(results, name)) for name in RESULTS}

    @cached_property
    def warnings(self) -> tuple[str, ...]:
        """Questions about its readings."""
        return tuple(warning.message for warning in analyse_measured(self.measured).warnings)

    @property
    def efficiency(self) -> Efficiency:
        """Its micron efficiency at any size, as far as it is known."""
        return Efficiency(self.measured)

    def operating_map(
        self, temperatures: Sequence[float], speeds: Sequence[float], *, condition: Condition = "steady", loading: float = 1.0
    ) -> MapArrays:
        """Return the oil circuit with this filter in it, solved over a grid.

        Parameters
        ----------
        temperatures : sequence of float, shape (m,)
            Oil temperatures. [°C]
        speeds : sequence of float, shape (n,)
            Engine speeds. [rpm]
        condition : str
            ``steady``, or ``filling`` while the galleries fill.
        loading : float
            Multiplies the resistance of the media.

        Raises
        ------
        MissingInputsError
            If filter, oil or engine lack something.
        OutOfRangeError
            If an axis or the loading is outside the model.

        Examples
        --------
        >>> import tabrel
        >>> korvath = tabrel.read_study(tabrel.demo_study())["Korvath"]
        >>> grid = korvath.operating_map([0, 100], [1000, 2000, 3000])
        >>> grid["element_kpa"].shape
        (2, 3)
        >>> bool((grid["element_kpa"][0] > grid["element_kpa"][1]).all())
        True
        """
        point = operating_point(self._study, self._sample, condition=condition, loading=loading, measured=self.measured)
        with np.errstate(all="ignore"):
            solved = operating_map(point, temperatures, speeds)
            onset = bypass_onset(point, speeds, solved)
        grids = {key: solved.quantity(name) * factor for key, (name, factor) in MAP_SCALES.items()}
        return MapArrays(solved.temperature, solved.speed, onset.temperature, grids)

    def __repr__(self) -> str:
        return f"<filter {self.label}>"


class NotebookStudy(Mapping[str, Filter]):
    """A study: its filters by their labels."""

    def __init__(self, study: Study) -> None:
        self.study = study
        self._filters = {sample.label: Filter(study, sample.label) for sample in study.samples}

    @property
    def name(self) -> str:
        """Name of the study."""
        return self.study.name

    @property
    def uses(self) -> tuple[str, ...]:
        """Names of its uses."""
        return tuple(use.name for use in self.study.uses)

    def __getitem__(self, label: str) -> Filter:
        if label not in self._filters:
            self.study.sample(label)  # says which labels there are
        return self._filters[label]

    def __iter__(self) -> Iterator[str]:
        return iter(self._filters)

    def __len__(self) -> int:
        return len(self._filters)

    def compare(self, use: str, *, specimens: bool = False, any_weights: bool = False, draws: int = DRAWS) -> dict[str, Any]:
        """Return a use judged for every filter, as plain values: what ``tabrel compare`` prints.

        Parameters
        ----------
        use : str
            Its name.
        specimens : bool
            Whether the specimens are judged, not their part numbers.
        any_weights : bool
            Whether the chances are over all weights there can be.
        draws : int
            Of the model.

        Examples
        --------
        >>> import tabrel
        >>> study = tabrel.read_study(tabrel.demo_study())
        >>> judged = study.compare("vans, daily", draws=1)
        >>> judged["verdicts"]["Ysmere"]["proposed"]
        'fails'
        """
        with np.errstate(all="ignore"):
            judged = judge_use(
                self.study, use_named(self.study, use), specimens=specimens, any_weights=any_weights, model_draws=draws
            )
        return judged_use_out(judged)

    def write_report(self, path: str | Path, size: Size | None = None) -> None:
        """Write the report of the study, a draft, by the file's ending: .pdf, .html, .xlsx, .csv or .zip.

        Parameters
        ----------
        path : str or Path
        size : str or None
            ``card``, ``short`` or ``full``; None for the study's own, else short.
        """
        from datetime import UTC, datetime

        from tabrel.report.inputs import ReportInputs
        from tabrel.report.written import written_as

        target = Path(path)
        dated = datetime.now(UTC).date().isoformat()
        target.write_bytes(written_as(target.suffix, ReportInputs(self.study).in_size(size), FullStudy(self.study), dated))

    def __repr__(self) -> str:
        return f"<study {self.name!r}: {', '.join(self)}>"


def read_study(path: str | Path) -> NotebookStudy:
    """Return the study in a document.

    Raises
    ------
    StudyError
        If it is not acceptable, with its place.

    Examples
    --------
    >>> import tabrel
    >>> tabrel.read_study(tabrel.demo_study())
    <study 'Mountain road service, winter filters': Korvath, Ysmere, Halvene, Brennig, Dunmor>
    """
    return NotebookStudy(read_study_file(Path(path)))


def demo_study() -> Path:
    """Return the path of the study that ships as demo data."""
    return Path(str(files("tabrel"))) / "demo" / "mountain_road_service.study.json"
