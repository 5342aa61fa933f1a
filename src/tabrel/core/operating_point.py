"""From a study to the circuit problem of one of its samples."""

from __future__ import annotations

from tabrel.core.circuit import CIRCUIT_KEYS, Condition, circuit_model
from tabrel.core.errors import MissingInputsError
from tabrel.core.filter_model import filter_model
from tabrel.core.measured import measure_sample
from tabrel.core.oil import oil_model
from tabrel.core.operating_map import OperatingPoint
from tabrel.core.study import Circuit, Sample, Study


def operating_point(study: Study, sample: Sample, *, condition: Condition = "steady", loading: float = 1.0) -> OperatingPoint:
    """Return the circuit problem of a sample in its study.

    Parameters
    ----------
    study : Study
        Gives oil and circuit.
    sample : Sample
        The filter.
    condition : str
        ``steady`` or ``filling``.
    loading : float
        Multiplies the media's resistance.

    Returns
    -------
    OperatingPoint

    Raises
    ------
    MissingInputsError
        Names everything that is missing: of the oil, the circuit and the filter.
    StudyError
        If what is there cannot work together.
    """
    stated = study.circuit or Circuit()
    missing = [] if study.oil else ["oil"]
    missing += [f"circuit.{key}" for key in CIRCUIT_KEYS if getattr(stated, key) is None]
    try:
        model = filter_model(measure_sample(sample, study.circuit))
    except MissingInputsError as error:
        raise MissingInputsError([*missing, *error.keys]) from error
    if study.oil is None or missing:
        raise MissingInputsError(missing)
    oil = oil_model(study.oil)
    return OperatingPoint(model, circuit_model(study.circuit, oil), oil, condition, loading)
