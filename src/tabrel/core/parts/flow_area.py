"""Inlet hole area and tapping plate flow area."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from math import pi

from tabrel.core.parts.holes import MeasuredHoles
from tabrel.core.study.defaults import stud_length_mm
from tabrel.core.study.model import Provenance, Stud
from tabrel.core.uncertainty.propagation import Result, Uncertain, Variables, missing_result, rectangular
from tabrel.core.uncertainty.sampled_number import FloatOrArray, nominal_value, square_root, values_of

MINOR_DIAMETER_FACTOR = 1.0825
"""Minor diameter of a 60° internal thread = major diameter − 1.0825·pitch (ISO 68-1: 5/8·√3)."""


@dataclass(frozen=True)
class Outlet:
    """The bore through which oil leaves.

    Attributes
    ----------
    diameter : uncertain number
        [m]
    length : float or None, or draws of it
        None where the plate's thickness, which stands for it, was not measured. [m]
    is_upper_bound : bool
        True where the thread stands in for an unknown stud: a stud's bore is smaller.
    provenance : str or None
        Where the bore of the stud comes from; None where nobody said.
    range : tuple of float
        Least and greatest bore of the engine's studs, as far as they are known. [m]
    """

    diameter: Uncertain
    length: FloatOrArray | None
    is_upper_bound: bool
    provenance: Provenance | None = None
    range: tuple[float | None, float | None] = (None, None)

    @property
    def is_measured(self) -> bool:
        """Whether the analyst measured it, as far as anybody said."""
        return not self.is_upper_bound and self.provenance in (None, "measured", "derived")

    @property
    def area(self) -> Uncertain:
        """Flow area. [m²]"""
        return pi * self.diameter**2 / 4


def outlet_bore(
    stud: Stud | None, known: Mapping[str, Uncertain], variables: Variables, provenance: Provenance | None = None
) -> Outlet | None:
    """Return the outlet: the engine's stud, else the thread's minor diameter as an upper bound.

    Parameters
    ----------
    stud : Stud or None
        Of the engine. A printed bore is good to half of its last digit, one of which nothing is said is exact.
    known : mapping
        Measured quantities by key.
    variables : Variables
        For the uncertainty.
    provenance : str or None
        Where the engine's numbers come from.

    Returns
    -------
    Outlet or None
        None where neither is known.
    """
    if stud is not None:
        bore: Uncertain = stud.bore_mm * 1e-3
        if provenance not in (None, "measured", "derived"):
            digits = f"{stud.bore_mm:.10g}".partition(".")[2]
            bore = variables.with_rectangular("circuit.stud", bore, rectangular(10.0 ** -len(digits) * 1e-3))
        ends = tuple(None if end is None else end * 1e-3 for end in (stud.least_bore_mm, stud.greatest_bore_mm))
        return Outlet(bore, stud_length_mm(stud) * 1e-3, False, provenance, (ends[0], ends[1]))
    if "thread.major_diameter" in known and "thread.pitch" in known:
        minor = known["thread.major_diameter"] - MINOR_DIAMETER_FACTOR * known["thread.pitch"]
        thickness = known.get("plate.thickness")
        return Outlet(minor, None if thickness is None else values_of(thickness), True)
    return None


OUTLET_KEYS = ("circuit.stud", "thread.major_diameter", "thread.pitch")
"""Either the stud, or both thread readings."""


def inlet_hole_area(inlet: MeasuredHoles, variables: Variables) -> Result:
    """Return Σ count·area·open of the inlet holes. [m²]"""
    if inlet.missing:
        return missing_result(*inlet.missing)
    return variables.result(inlet.area, basis="measured")


def plate_sections(
    inlet: MeasuredHoles,
    outlet: Outlet | None,
    adapter: MeasuredHoles | None,
    known: Mapping[str, Uncertain],
) -> tuple[dict[str, Uncertain], tuple[str, ...]]:
    """Return the flow areas the oil passes one after the other at the plate, and what is missing.

    Parameters
    ----------
    inlet, adapter : MeasuredHoles
        The adapter is None where the engine has none.
    outlet : Outlet or None
        None while unknown.
    known : mapping
        Measured quantities by key; an anti-drainback curtain counts once its lift is measured.

    Returns
    -------
    sections : dict
        Area [m²] by ``inlet``, ``anti_drain``, ``outlet``, ``adapter``.
    missing : tuple of str
        Keys without which the sections are not complete.
    """
    sections: dict[str, Uncertain] = {}
    missing = list(inlet.missing)
    if not inlet.missing:
        sections["inlet"] = inlet.area
    if "anti_drain.lift" in known:
        if "anti_drain.lip_diameter" in known:
            sections["anti_drain"] = pi * known["anti_drain.lip_diameter"] * known["anti_drain.lift"]
        else:
            missing.append("anti_drain.lip_diameter")
    if outlet is None:
        missing += OUTLET_KEYS
    else:
        sections["outlet"] = outlet.area
    if adapter is not None:
        missing += adapter.missing
        if not adapter.missing:
            sections["adapter"] = adapter.area
    return sections, tuple(missing)


def plate_flow_area(
    sections: Mapping[str, Uncertain], missing: tuple[str, ...], variables: Variables, outlet: Outlet | None
) -> Result:
    """Return the smallest section, and which one controls. [m²]

    With the thread in place of the stud the result is an upper bound whichever section is smallest,
    since an unknown stud may be smaller still. Where another section may as well be the smaller one, the interval is
    that of the minimum. What it is with the least and the greatest stud of the engine stands beside it.
    """
    if missing or outlet is None:
        return missing_result(*missing)
    plain = {name: float(nominal_value(area)) for name, area in sections.items()}
    name = min(plain, key=lambda section: plain[section])
    result = _plate_result(sections[name], variables, outlet, controlled_by=name)
    others = {key: area for key, area in plain.items() if key != "outlet"}
    least, greatest = (None if bore is None else min([pi * bore**2 / 4, *others.values()]) for bore in outlet.range)
    result = replace(result, least_stud=least, greatest_stud=greatest)
    if result.expanded_uncertainty is None or outlet.is_upper_bound:
        return result
    lows, highs = zip(
        *((plain[key] - u, plain[key] + u) for key, u in ((key, variables.expanded_uncertainty(sections[key])) for key in plain)),
        strict=True,
    )
    if min(lows) < result_low(result) - 1e-12:
        return replace(result, low=max(min(lows), 0.0), high=min(highs))
    return result


def result_low(result: Result) -> float:
    """Return the low end of a result's symmetric interval."""
    return (result.value or 0.0) - (result.expanded_uncertainty or 0.0)


def plate_series_area(
    sections: Mapping[str, Uncertain], missing: tuple[str, ...], variables: Variables, outlet: Outlet | None
) -> Result:
    """Return the one area with the inertial loss of all sections in series, (Σ 1/Aᵢ²)^−½. [m²]"""
    if missing or outlet is None:
        return missing_result(*missing)
    series = 1 / square_root(sum(1 / area**2 for area in sections.values()))
    return _plate_result(series, variables, outlet)


def _plate_result(number: Uncertain, variables: Variables, outlet: Outlet, controlled_by: str | None = None) -> Result:
    return variables.result(
        number,
        basis="measured",
        relation="<=" if outlet.is_upper_bound else "=",
        assumed=() if outlet.is_measured else ("circuit.stud",),
        controlled_by=controlled_by,
    )
