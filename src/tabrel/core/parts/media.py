"""The filter medium: strip, effective area, solidity, pleat opening, permeability."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, replace
from math import pi

from tabrel.core.errors import require_positive
from tabrel.core.uncertainty.estimate import Estimate
from tabrel.core.uncertainty.propagation import Result, Uncertain, Variables, missing_result
from tabrel.core.uncertainty.sampled_number import at_least_zero, nominal_value

AIR_VISCOSITY = 1.81e-5
"""Dynamic viscosity of air at 20 °C. [Pa s]"""

AIR_DROP_METRIC = 200.0
AIR_DROP_INCH = 125.0
"""Differential pressure of an air permeability test unless stated: ISO 9237, and the cfm/ft² habit. [Pa]"""

FAMILY_PERMEABILITY_FACTOR = 1.5
"""A family's permeability is good to this factor either way."""

USUAL_LOSSES: dict[str, tuple[str, float, float]] = {
    "element.potting_depth": ("model.potting_depth", 2.2e-3, 0.9e-3),
    "media.seam_overlap": ("model.seam_overlap", 10e-3, 4e-3),
}
"""What counts for a loss of area that was not measured: its assumption, value and standard uncertainty [m]; gross over effective
area is 1.04 to 1.26 in typical filters, so that nothing would be wrong and look certain."""

FORECAST_OVER_EFFECTIVE = (1.11, 0.06)
"""2·pleats·depth·height over the effective area, median and standard uncertainty of its logarithm; typical are 1.03 to 1.31."""

FORECAST_RELATIVE = 0.02
"""Standard uncertainty of 2·pleats·depth·height as the gross area, relative."""

FORECAST, GROSS_FORECAST = "model.forecast_area", "media.folded_area"
"""Names of the two factors."""

AIR_TO_OIL_FACTOR = 1.2
"""Factor, either way, within which the permeability to air gives the one to oil; our own figure."""


@dataclass(frozen=True)
class FamilyDefaults:
    """Typical media of one family.

    Attributes
    ----------
    fibre_diameter : float
        [m]
    fibre_density : float
        [kg/m³]
    solidity : float
        Share of the volume that is fibre.
    inhomogeneity : float
        γ of the screening estimate: how much less a real medium captures than an ordered one.
    permeability : float
        Darcy permeability, good to a factor of about 1.5. [m²]
    """

    fibre_diameter: float
    fibre_density: float
    solidity: float
    inhomogeneity: float
    permeability: float


FAMILY_DEFAULTS: dict[str, FamilyDefaults] = {
    "cellulose": FamilyDefaults(22e-6, 1500.0, 0.17, 0.094, 1.2e-11),
    "blend": FamilyDefaults(14e-6, 1600.0, 0.13, 0.076, 1.5e-11),
    "synthetic": FamilyDefaults(7e-6, 2000.0, 0.08, 0.084, 1.8e-11),
}


@dataclass(frozen=True)
class MediaStrip:
    """Media strip and pleats as uncertain numbers by reading key, and the usual value of losses that were not measured."""

    known: Mapping[str, Uncertain]
    usual: Mapping[str, Uncertain]

    def needed(self, *keys: str) -> tuple[str, ...]:
        """Return those of the keys that were not measured."""
        return tuple(key for key in keys if key not in self.known)

    def or_usual(self, key: str) -> Uncertain:
        """Return a deduction: measured, else what is usual, which is 0 where nothing is."""
        return self.known.get(key, self.usual.get(key, 0.0))

    def pleat_depth(self) -> Uncertain | None:
        """Return the pleat depth: measured, else half the difference of the element's diameters. [m]"""
        if "element.pleat_depth" in self.known:
            return self.known["element.pleat_depth"]
        if self.needed("element.outside_diameter", "element.inside_diameter"):
            return None
        return (self.known["element.outside_diameter"] - self.known["element.inside_diameter"]) / 2

    def pleats_length(self) -> Uncertain | None:
        """Return 2·pleats·depth, the length that the pleats explain. [m]"""
        depth = self.pleat_depth()
        if depth is None or self.needed("element.pleat_count"):
            return None
        return 2 * self.known["element.pleat_count"] * depth

    def length_off(self) -> float | None:
        """Return how much longer the strip is than its pleats explain, as a share, or None. [-]"""
        pleats = self.pleats_length()
        if pleats is None or nominal_value(pleats) <= 0 or self.needed("media.strip_length"):
            return None
        return float(nominal_value(self.known["media.strip_length"] / pleats)) - 1

    def depth_keys(self) -> tuple[str, ...]:
        """Return the readings that the pleat depth still needs."""
        if self.pleat_depth() is not None:
            return ()
        return self.needed("element.outside_diameter", "element.inside_diameter")

    def lacking(self) -> tuple[str, ...]:
        """Return what a measured area still needs."""
        keys = self.needed("media.strip_length", "media.strip_width")
        if not keys and "media.blocked_pleats" in self.known:
            keys = self.depth_keys()
        return keys

    def pack_thickness(self) -> Uncertain | None:
        """Return the thickness of media and backing. [m]"""
        if "media.thickness" not in self.known:
            return None
        return self.known["media.thickness"] + self.or_usual("media.backing_thickness")

    def folded_area(self) -> Uncertain | None:
        """Return 2·N·depth·height, the gross area that the element promises before it is cut. [m²]"""
        length = self.pleats_length()
        return None if length is None or self.needed("element.height") else length * self.known["element.height"]

    def forecast_area(self, over: str = FORECAST) -> Uncertain | None:
        """Return the area expected before the element is cut: of the folds, over what it usually is of the effective one. [m²]"""
        folded = self.folded_area()
        return None if folded is None else folded / self.usual[over]

    def face_width(self) -> Uncertain | None:
        """Return the width of the strip that is open to flow, between the potting. [m]"""
        for key in ("media.strip_width", "element.height"):
            if key in self.known:
                return self.known[key] - 2 * self.or_usual("element.potting_depth")
        return None


def media_strip(known: Mapping[str, Uncertain], absent: Collection[str], variables: Variables) -> MediaStrip:
    """Return the strip of a sample with the usual value of what was not measured; `absent` is what it has not."""
    usual = {
        key: variables.with_usual(name, value, uncertainty)
        for key, (name, value, uncertainty) in USUAL_LOSSES.items()
        if key not in known and key not in absent
    }
    if MediaStrip(known, usual).lacking():
        factor, log_uncertainty = FORECAST_OVER_EFFECTIVE
        usual[FORECAST] = variables.with_usual(FORECAST, factor, factor * log_uncertainty)
        usual[GROSS_FORECAST] = variables.with_type_b(GROSS_FORECAST, 1.0, FORECAST_RELATIVE)
    return MediaStrip(known, usual)


def gross_media_area(strip: MediaStrip, variables: Variables) -> Result:
    """Return length × width of the strip (one face), or the forecast before it is cut. [m²]"""
    return _measured_or_forecast(strip, variables, _gross_area, GROSS_FORECAST, assumed=())


def effective_media_area(strip: MediaStrip, variables: Variables) -> Result:
    """Return the area of one face that oil can pass, or the forecast before it is cut. [m²]

    (L − seam overlap)·(W − 2·potting) − blocked pleats·2·depth·(W − 2·potting) − other blocked area.
    Overlap and potting that were not measured count as usual (`USUAL_LOSSES`), backing as none; all are listed as assumed.
    The forecast is 2·pleats·depth·height less what is usual (`FORECAST_OVER_EFFECTIVE`).
    """
    keys = ("media.seam_overlap", "element.potting_depth", "media.backing_thickness")
    assumed = tuple(key for key in keys if key not in strip.known)
    return _measured_or_forecast(strip, variables, _effective_area, FORECAST, assumed=assumed)


def media_area_number(strip: MediaStrip) -> Uncertain | None:
    """Return the effective area as an uncertain number, measured or forecast, or None. [m²]"""
    return strip.forecast_area() if strip.lacking() else _effective_area(strip)


def _measured_or_forecast(
    strip: MediaStrip,
    variables: Variables,
    formula: Callable[[MediaStrip], Uncertain],
    over: str,
    *,
    assumed: tuple[str, ...],
) -> Result:
    lacking = strip.lacking()
    if lacking:
        forecast = strip.forecast_area(over)
        if forecast is not None:
            return variables.result(forecast, basis="forecast")
        return missing_result(*lacking, assumed=assumed)
    return variables.result(formula(strip), basis="measured", assumed=assumed)


def _gross_area(strip: MediaStrip) -> Uncertain:
    return strip.known["media.strip_length"] * strip.known["media.strip_width"]


def _effective_area(strip: MediaStrip) -> Uncertain:
    width = strip.known["media.strip_width"] - 2 * strip.or_usual("element.potting_depth")
    length = strip.known["media.strip_length"] - strip.or_usual("media.seam_overlap")
    if "media.blocked_pleats" in strip.known:
        length = length - strip.known["media.blocked_pleats"] * 2 * strip.pleat_depth()
    # deductions that leave nothing leave zero: two of them below zero must not make an area
    return at_least_zero(at_least_zero(length) * at_least_zero(width) - strip.or_usual("media.blocked_area"))


def pleat_opening_at_inside(strip: MediaStrip, variables: Variables) -> Result:
    """Return the open share of the circumference at the inside diameter, 1 − 2·N·pack/(π·ID). [-]

    Below 0.1 the pleat loss is unreliable; at or below 0 the pack is crushed or a reading slipped.
    """
    lacking = strip.needed("element.pleat_count", "element.inside_diameter", "media.thickness")
    pack = strip.pack_thickness()
    if lacking or pack is None:
        return missing_result(*lacking)
    inside = strip.known["element.inside_diameter"]
    opening = 1 - 2 * strip.known["element.pleat_count"] * pack / (pi * inside)
    return variables.result(opening, basis="measured", assumed=strip.needed("media.backing_thickness"))


def solidity(strip: MediaStrip, fibre_density: float) -> Uncertain | None:
    """Return the share of the media's volume that is fibre, from its dry mass, or None. [-]"""
    if strip.needed("media.dry_mass", "media.strip_length", "media.strip_width", "media.thickness"):
        return None
    require_positive(fibre_density=fibre_density)
    volume = _gross_area(strip) * strip.known["media.thickness"]
    return strip.known["media.dry_mass"] / (volume * fibre_density)


@dataclass(frozen=True)
class Permeability:
    """The medium's permeability.

    Attributes
    ----------
    number : uncertain number or None
        None while something is missing. [m²]
    result : Result
        The same, with its basis ``air_permeability`` or ``family`` and what is missing. [m²]
    """

    number: Uncertain | None
    result: Result


def media_permeability(
    strip: MediaStrip,
    variables: Variables,
    *,
    family: str | None,
    air_permeability: Estimate | None,
    air_drop: float | None,
) -> Permeability:
    """Return the Darcy permeability of the medium from the best evidence there is.

    From air permeability q at a differential pressure: κ = μ_air·q·t/Δp; else the family's default.

    Parameters
    ----------
    strip : MediaStrip
        Holds the thickness.
    variables : Variables
        For the uncertainty.
    family : str or None
        Media family.
    air_permeability : Estimate or None
        As measured; its unit decides the differential pressure unless stated.
    air_drop : float or None
        Stated differential pressure of that test. [Pa]

    References
    ----------
    .. [1] ISO 9237, Textiles: Determination of the permeability of fabrics to air.
    """
    if air_permeability is not None and "media.thickness" in strip.known:
        usual_drop = AIR_DROP_INCH if air_permeability.unit == "cfm/ft2" else AIR_DROP_METRIC
        q = strip.known["media.air_permeability"]
        number = AIR_VISCOSITY * q * strip.known["media.thickness"] / (air_drop or usual_drop)
        number = variables.with_model_factor("model.permeability", number, AIR_TO_OIL_FACTOR)
        assumed = () if air_drop else ("media_air_drop_pa",)
        return Permeability(number, variables.result(number, basis="air_permeability", assumed=assumed))
    if family is not None:
        default = FAMILY_DEFAULTS[family].permeability
        number = variables.with_model_factor("model.permeability", default, FAMILY_PERMEABILITY_FACTOR)
        result = variables.result(default, basis="family", assumed=("media.air_permeability",))
        # no reading says anything of it: the factor is the interval
        result = replace(result, low=default / FAMILY_PERMEABILITY_FACTOR, high=default * FAMILY_PERMEABILITY_FACTOR)
        return Permeability(number, result)
    lacking = ("media.thickness",) if air_permeability is not None else ("media.air_permeability",)
    return Permeability(None, missing_result(*lacking))
