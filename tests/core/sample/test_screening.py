"""The screening estimate of a medium from its dimensions."""

from __future__ import annotations

from math import exp, log, pi

import pytest

from builders import reading, study
from tabrel.core.parts.efficiency import ScreeningMedium, screening_efficiency
from tabrel.core.results.analysis import analyse_sample


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


def test_the_band_of_the_estimate_is_widened_by_what_thickness_and_solidity_are_uncertain_by():
    """A micrometer's 2 µm of a thin medium of 20 µm is 10 %: the band is then more than twice in size either way."""

    def factors(thickness):
        result = results(reading("media.thickness", thickness), reading("media.fibre_diameter", "20 um"))
        medium = ScreeningMedium(20.0, 0.17, float(thickness.split()[0]) * 1000, 0.094)
        low, high = result.efficiency_at_20_um.low, result.efficiency_at_20_um.high
        assert low < screening_efficiency(medium, 10.0)
        assert high > screening_efficiency(medium, 40.0)
        return [
            log(1 - low) / log(1 - screening_efficiency(medium, 10.0)),
            log(1 - high) / log(1 - screening_efficiency(medium, 40.0)),
        ]

    thick, thin = factors("0.82 mm"), factors("0.02 mm")
    assert thick == pytest.approx([1, 1], rel=0.01)
    assert thin[0] < thick[0] < 1 < thick[1] < thin[1]


def test_without_family_or_thickness_the_estimate_names_them():
    result_17 = results(("samples/0/media_family", None), reading("media.thickness")).efficiency_at_20_um
    assert result_17.missing == ("media_family", "media.thickness")
