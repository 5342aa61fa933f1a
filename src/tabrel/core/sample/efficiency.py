"""The efficiency of a measured sample from the best evidence there is."""

from __future__ import annotations

from dataclasses import replace

from tabrel.core.counts.counted_test import CountedTest
from tabrel.core.parts.efficiency import (
    REFERENCE_BETA,
    REFERENCE_SIZE,
    ScreeningMedium,
    efficiency_from_claim,
    screening_estimate,
    screening_size,
    size_from_claim,
    slope_of_solidity,
    usable_claim,
)
from tabrel.core.parts.media import FAMILY_DEFAULTS, solidity
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.propagation import Result, missing_result
from tabrel.core.uncertainty.sampled_number import nominal_value


def efficiency_results(measured: MeasuredSample) -> tuple[Result, Result]:
    """Return the efficiency at 20 µm(c) and the size at β = 75 from the best evidence there is."""
    at_size = efficiency_at_size(measured, REFERENCE_SIZE)
    if isinstance(measured.counted, CountedTest):
        return at_size, measured.counted.size_at(REFERENCE_BETA)
    claim = usable_claim(measured.sample.claims)
    if claim is not None:
        return at_size, size_from_claim(claim)
    medium = screening_medium(measured)
    return at_size, missing_result(*at_size.missing) if medium is None else screening_size(medium)


def efficiency_at_size(measured: MeasuredSample, size: float) -> Result:
    """Return the efficiency at a size [µm(c)] from the best evidence there is: counts, a claim, the screening estimate. [-]"""
    if isinstance(measured.counted, CountedTest):
        return measured.counted.efficiency(size)
    claim = usable_claim(measured.sample.claims)
    if claim is not None:
        return efficiency_from_claim(claim, size)
    medium = screening_medium(measured)
    if medium is not None:
        return screening_estimate(medium, size)
    lacking = measured.strip.needed("media.thickness")
    return missing_result(*lacking) if measured.sample.media_family else missing_result("media_family", *lacking)


def screening_medium(measured: MeasuredSample) -> ScreeningMedium | None:
    """Return the medium's dimensions for the screening estimate, or None while they are missing.

    The family decides γ, which no reading gives; fibre diameter and solidity replace its defaults
    where they were measured, solidity only while it is one (0 to 1).
    """
    family = measured.sample.media_family
    if family is None or "media.thickness" not in measured.known:
        return None
    defaults, assumed = FAMILY_DEFAULTS[family], []
    fibre = measured.known.get("media.fibre_diameter")
    if fibre is None:
        assumed.append("media.fibre_diameter")
    measured_solidity = solidity(measured.strip, defaults.fibre_density)
    alpha = defaults.solidity if measured_solidity is None else float(nominal_value(measured_solidity))
    if measured_solidity is None or not 0 < alpha < 1:
        alpha = defaults.solidity
        assumed.append("media.dry_mass")
    medium = ScreeningMedium(
        fibre_diameter=(defaults.fibre_diameter if fibre is None else float(nominal_value(fibre))) * 1e6,
        solidity=alpha,
        thickness=float(nominal_value(measured.known["media.thickness"])) * 1e6,
        inhomogeneity=defaults.inhomogeneity,
        assumed=tuple(assumed),
    )
    thickness = measured.known["media.thickness"]
    depth = thickness / float(nominal_value(thickness))
    if measured_solidity is not None and "media.dry_mass" not in assumed:
        depth = depth + slope_of_solidity(medium) * measured_solidity / alpha
    return replace(medium, depth_uncertainty=measured.variables.expanded_uncertainty(depth))
