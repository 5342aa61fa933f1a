"""Results of a filter of which some sizes are known only as bounds: bounds themselves, found by moving each size."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.units import UNITS
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import Sample
from tabrel.core.uncertainty.estimate import Limits
from tabrel.core.uncertainty.propagation import Result

STEP = 1e-3
"""By so much of itself a size is moved to see which way a result goes."""


def sample_at_limits(measured: MeasuredSample, moved: str | None = None) -> Sample:
    """Return the sample with every bound taken as a value, one of them moved a little into what it allows."""
    readings = dict(measured.sample.readings)
    for key, limits in measured.limits.items():
        value = _end(limits) * (1.0 if key != moved else 1 + STEP if limits.low is not None else 1 - STEP)
        unit = QUANTITIES[key].metric_unit
        readings[key] = (f"{value / UNITS[unit].factor:.12g} {unit}" if unit else f"{value:.12g}",)
    return replace(measured.sample, readings=readings)


def measured_at_limits(measured: MeasuredSample) -> MeasuredSample:
    """Return a measured sample with every bound taken as a value, for the working of a bound; itself where there is none."""
    return measure_sample(sample_at_limits(measured), measured.circuit) if measured.limits else measured


def _end(limits: Limits) -> float:
    return limits.low if limits.low is not None else limits.high or 0.0


def bounded_results(
    results: Mapping[str, Result], at_limits: Mapping[str, Result], moved: Mapping[str, Mapping[str, Result]]
) -> dict[str, Result]:
    """Return the results, bounded where they depend on a size of which only a bound is known.

    Parameters
    ----------
    results : mapping
        Result by name, with the bounded sizes unknown.
    at_limits : mapping
        The same with every bound taken as a value.
    moved : mapping
        The same with one size moved into what its bound allows, by the size's key.

    Returns
    -------
    dict
        A bound where every bounded size moves the result the same way; where they pull it both ways, the
        result as it was, and the sizes among what is missing.
    """
    result = dict(results)
    for name, at in at_limits.items():
        if at.value is None:
            continue
        changes = {key: _change(at, there[name]) for key, there in moved.items()}
        ups, downs = ([key for key, change in changes.items() if sign * change > 0] for sign in (1, -1))
        if ups and downs:
            missing = dict.fromkeys((*results[name].missing, *ups, *downs))
            result[name] = Result(None, basis=at.basis, missing=tuple(missing), assumed=at.assumed)
        elif ups or downs:
            low, high = (at.value, None) if ups else (None, at.value)
            relation = ">=" if ups else "<="
            if at.relation not in ("=", relation):  # itself a bound the other way
                missing = dict.fromkeys((*results[name].missing, *ups, *downs))
                result[name] = Result(None, basis=at.basis, missing=tuple(missing), assumed=at.assumed)
            else:
                result[name] = replace(
                    at, value=None, standard_uncertainty=None, expanded_uncertainty=None, low=low, high=high, relation=relation
                )
        elif results[name].value is None:
            result[name] = at
    return result


def _change(at: Result, there: Result) -> float:
    if at.value is None or there.value is None or at.controlled_by != there.controlled_by:
        return 0.0
    change = there.value - at.value
    return change if abs(change) > 1e-9 * abs(at.value) else 0.0
