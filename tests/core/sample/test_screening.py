"""The screening estimate of a medium from its dimensions."""

from __future__ import annotations

from math import exp, hypot, log, pi

import pytest

from builders import reading, study
from tabrel.core.parts.efficiency import ScreeningMedium, screening_efficiency
from tabrel.core.results.analysis import analyse_sample
from tabrel.core.sample.measured_sample import measure_sample


def results(*changes):
    made = study(*changes)
    return analyse_sample(made.samples[0], made.circuit).results


def test_screening_estimate_by_hand():
    """R. C. Brown's interception efficiency, one fibre radius ratio R = 1, computed by hand."""
    alpha, gamma, t, d = 0.10, 0.08, 800.0, 20.0
    kuwabara = -0.5 * log(alpha) - 0.75 + alpha - alpha**2 / 4
    single = (2 * 2 * log(2) - 2 + 0.5) / (2 * kuwabara)
    expected = 1 - exp(-4 * alpha * single * gamma * t / (pi * d * (1 - alpha)))
    assert screening_efficiency(ScreeningMedium(d, alpha, t, gamma), 20.0) == pytest.approx(expected)


@pytest.mark.parametrize("thickness", ["0.001 mm", "80 mm"])
def test_the_screening_size_is_found_however_thin_or_thick_a_slip_makes_the_media(thickness):
    result_15 = results(reading("media.thickness", thickness)).size_at_beta_75
    medium = ScreeningMedium(22.0, 0.17, float(thickness.split()[0]) * 1000, 0.094)
    assert screening_efficiency(medium, result_15.value) == pytest.approx(1 - 1 / 75)


def test_measured_fibres_replace_the_family():
    """Dry mass 30 g over 1101.6 cm² of 0.82 mm: α = 0.030/(0.11016·0.82e-3·1500)."""
    result_16 = results(reading("media.fibre_diameter", "20 um"), reading("media.dry_mass", "30 g"))
    alpha = 0.030 / (0.11016 * 0.82e-3 * 1500)
    expected = screening_efficiency(ScreeningMedium(20.0, alpha, 820.0, 0.094), 20.0)
    assert result_16.efficiency_at_20_um.value == pytest.approx(expected)
    assert result_16.efficiency_at_20_um.assumed == ()


@pytest.mark.parametrize("thickness", ["0.82 mm", "0.02 mm"])
def test_the_band_of_the_estimate_is_widened_by_what_the_thickness_is_uncertain_by(thickness):
    """ln(1/(1 − E)) is proportional to the thickness: its relative U over the slope at 20 µm, in quadrature with ln 2."""
    made = study(reading("media.thickness", thickness), reading("media.fibre_diameter", "20 um"))
    measured = measure_sample(made.samples[0], made.circuit)
    known, value = measured.known["media.thickness"], float(thickness.split()[0]) * 1e-3
    relative = measured.variables.expanded_uncertainty(known) / value
    medium = ScreeningMedium(20.0, 0.17, value * 1e6, 0.094)
    near = [log(-log(1 - screening_efficiency(medium, 20 * exp(step)))) for step in (-1e-4, 1e-4)]
    factor = exp(hypot(log(2), relative / ((near[1] - near[0]) / 2e-4)))
    estimate = analyse_sample(made.samples[0], made.circuit).results.efficiency_at_20_um
    assert estimate.low == pytest.approx(screening_efficiency(medium, 20 / factor), rel=1e-6)
    assert estimate.high == pytest.approx(screening_efficiency(medium, 20 * factor), rel=1e-6)
    assert estimate.low < screening_efficiency(medium, 10.0)


def test_without_family_or_thickness_the_estimate_names_them():
    result_17 = results(("samples/0/media_family", None), reading("media.thickness")).efficiency_at_20_um
    assert result_17.missing == ("media_family", "media.thickness")
