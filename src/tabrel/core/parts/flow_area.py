"""Inlet hole area and tapping plate flow area."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi

from tabrel.core.parts.holes import MeasuredHoles
from tabrel.core.study.defaults import stud_length_mm
from tabrel.core.study.model import Stud
from tabrel.core.uncertainty.propagation import Result, Uncertain, Variables, missing_result
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
    """

    diameter: Uncertain
    length: FloatOrArray | None
    is_upper_bound: bool

    @property
    def area(self) -> Uncertain:
        """Flow area. [m²]"""
        return pi * self.diameter**2 / 4


def outlet_bore(stud: Stud | None, known: Mapping[str, Uncertain]) -> Outlet | None:
    """Return the outlet: the engine's stud, else the thread's minor diameter as an upper bound.

    Parameters
    ----------
    stud : Stud or None
        Of the engine; exact.
    known : mapping
        Measured quantities by key.

    Returns
    -------
    Outlet or None
        None where neither is known.
    """
    if stud is not None:
        return Outlet(stud.bore_mm * 1e-3, stud_length_mm(stud) * 1e-3, False)
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
    sections: Mapping[str, Uncertain], missing: tuple[str, ...], variables: Variables, *, outlet_is_bound: bool
) -> Result:
    """Return the smallest section, and which one controls. [m²]

    With the thread in place of the stud the result is an upper bound whichever section is smallest,
    since an unknown stud may be smaller still.
    """
    if missing:
        return missing_result(*missing)
    name = min(sections, key=lambda section: float(nominal_value(sections[section])))
    return _plate_result(sections[name], variables, outlet_is_bound, controlled_by=name)


def plate_series_area(
    sections: Mapping[str, Uncertain], missing: tuple[str, ...], variables: Variables, *, outlet_is_bound: bool
) -> Result:
    """Return the one area with the inertial loss of all sections in series, (Σ 1/Aᵢ²)^−½. [m²]"""
    if missing:
        return missing_result(*missing)
    series = 1 / square_root(sum(1 / area**2 for area in sections.values()))
    return _plate_result(series, variables, outlet_is_bound)


def _plate_result(number: Uncertain, variables: Variables, outlet_is_bound: bool, controlled_by: str | None = None) -> Result:
    return variables.result(
        number,
        basis="measured",
        relation="<=" if outlet_is_bound else "=",
        assumed=("circuit.stud",) if outlet_is_bound else (),
        controlled_by=controlled_by,
    )
