"""From the gross media area to the effective one, line by line, and where on the strip each part is lost."""

from __future__ import annotations

from dataclasses import dataclass

from tabrel.core.field_units import Grammage, Length, MediaArea, Share
from tabrel.core.parts.media import FORECAST
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.sampled_number import nominal_value


@dataclass(frozen=True)
class Deduction:
    """A part of the gross area that no oil passes.

    Attributes
    ----------
    key : str
        Reading it comes from.
    measured : bool
        Whether it was measured; of what was not, the usual loss is taken.
    """

    key: str
    area: MediaArea
    measured: bool


@dataclass(frozen=True)
class StripAreas:
    """The strip laid flat.

    Attributes
    ----------
    potting : float
        Lost at each long edge.
    overlap : float
        Lost at the seam.
    blocked_length : float
        Length of strip in blocked pleats.
    gross, effective : float
        Area of one face.
    deductions : tuple of Deduction
        In the order they are taken.
    is_forecast : bool
        Whether length and width are what the element promises before it is cut.
    pulled_length : float or None
        Of the strip pulled flat.
    pleats_length : float or None
        2·pleats·depth, to hold against the length.
    length_off : float or None
        How much longer the strip is than that, as a share.
    grammage : float or None
        Dry mass over gross area.
    """

    length: Length
    width: Length
    potting: Length
    overlap: Length
    blocked_length: Length
    gross: MediaArea
    effective: MediaArea
    deductions: tuple[Deduction, ...]
    is_forecast: bool
    pulled_length: Length | None
    pleats_length: Length | None
    length_off: Share | None
    grammage: Grammage | None


def strip_areas(measured: MeasuredSample) -> StripAreas | None:
    """Return the strip with what is lost of it, or None while neither strip nor element is known.

    Potting is taken from the whole length, the overlap from what lies between the potting, then the
    blocked pleats, then the other blocked area: the lines add up to the effective area exactly.

    """
    known = {key: float(nominal_value(number)) for key, number in measured.known.items()}
    depth_number = measured.strip.pleat_depth()
    depth = None if depth_number is None else float(nominal_value(depth_number))
    pleats_number = measured.strip.pleats_length()
    pleats_length = None if pleats_number is None else float(nominal_value(pleats_number))
    is_forecast = measured.media_is_forecast
    length = pleats_length if is_forecast else known["media.strip_length"]
    width = known.get("element.height") if is_forecast else known["media.strip_width"]
    if length is None or width is None:
        return None
    potting, overlap = (
        0.0 if is_forecast else float(nominal_value(measured.strip.or_usual(key)))
        for key in ("element.potting_depth", "media.seam_overlap")
    )
    overlap = min(overlap, length)
    open_width = max(0.0, width - 2 * potting)
    blocked_pleats = 0.0 if is_forecast else known.get("media.blocked_pleats", 0.0)
    blocked_length = min(2 * blocked_pleats * (depth or 0.0), length - overlap)
    lost: tuple[tuple[str, float], ...] = (
        ("element.potting_depth", length * (width - open_width)),
        ("media.seam_overlap", overlap * open_width),
        ("media.blocked_pleats", blocked_length * open_width),
        ("media.blocked_area", 0.0 if is_forecast else known.get("media.blocked_area", 0.0)),
    )
    if is_forecast:  # the losses have no place on the strip yet
        lost = ((FORECAST, length * width * (1 - 1 / float(nominal_value(measured.strip.usual[FORECAST])))),)
    effective = max(0.0, length * width - sum(area for _, area in lost))
    deductions = tuple(Deduction(key, area, key in known) for key, area in lost)
    return StripAreas(
        length=length,
        width=width,
        potting=min(potting, width / 2),
        overlap=overlap,
        blocked_length=blocked_length,
        gross=length * width,
        effective=effective,
        deductions=deductions,
        is_forecast=is_forecast,
        pulled_length=known.get("media.pulled_length"),
        pleats_length=pleats_length,
        length_off=None if is_forecast else measured.strip.length_off(),
        grammage=known["media.dry_mass"] / (length * width) if "media.dry_mass" in known and not is_forecast else None,
    )
