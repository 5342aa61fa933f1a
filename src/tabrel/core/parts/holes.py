"""Groups of real holes: from their readings to areas, perimeters and a restriction."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from tabrel.core.catalogue.hole_dimensions import LAYOUT_DIMENSIONS, SHAPE_DIMENSIONS
from tabrel.core.catalogue.physical_limits import MOST_HOLES
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES
from tabrel.core.hydraulics.restrictions import Restriction, hole_restriction, parallel
from tabrel.core.parts.hole_shapes import SHAPES, HoleGeometry, outline_area, outline_perimeter
from tabrel.core.study.model import HoleGroup, Provenance, used_readings
from tabrel.core.uncertainty.estimate import INSTRUMENT_ERRORS, Estimate, estimate_quantity
from tabrel.core.uncertainty.propagation import Uncertain, Variables
from tabrel.core.uncertainty.sampled_number import FloatOrArray, values_of


@dataclass(frozen=True)
class MeasuredHoles:
    """The open groups of one place, with what is missing of them.

    Attributes
    ----------
    groups : tuple of (int, float, HoleGeometry)
        Count, open fraction and geometry of one hole; groups with open fraction 0 are left out.
    missing : tuple of str
        Keys of readings that are missing.
    sizes : tuple of dict
        Of each group: uncertain number by dimension. [m]
    provenances : tuple of dict
        Of each group: where the size comes from, by dimension.
    estimates : dict
        Estimate of each size by the key of its readings.
    """

    groups: tuple[tuple[int, float, HoleGeometry], ...]
    missing: tuple[str, ...]
    sizes: tuple[dict[str, Uncertain], ...] = ()
    provenances: tuple[dict[str, Provenance], ...] = ()
    estimates: dict[str, Estimate] = field(default_factory=dict)

    @property
    def area(self) -> Uncertain:
        """Open area of all holes. [m²]"""
        return sum(count * open_fraction * hole.area for count, open_fraction, hole in self.groups)

    def restriction(self, thickness: FloatOrArray) -> Restriction:
        """Return the restriction of all groups side by side in a plate of a thickness [m]."""
        return parallel(
            [
                hole_restriction(
                    count=count,
                    area=values_of(hole.area) * open_fraction,
                    perimeter=values_of(hole.perimeter),
                    thickness=thickness,
                )
                for count, open_fraction, hole in self.groups
            ]
        )


def measure_holes(path: str, groups: Sequence[HoleGroup], variables: Variables) -> MeasuredHoles:
    """Return the geometry of hole groups from their readings.

    Parameters
    ----------
    path : str
        Key of the place, such as ``holes.inlet``.
    groups : sequence of HoleGroup
        As typed.
    variables : Variables
        Takes up each measured dimension.
    """
    geometries: list[tuple[int, float, HoleGeometry]] = []
    sizes: list[dict[str, Uncertain]] = []
    provenances: list[dict[str, Provenance]] = []
    estimates: dict[str, Estimate] = {}
    missing: list[str] = [] if groups else [path]
    for i, group in enumerate(groups):
        open_fraction = 1.0 if group.open_fraction is None else group.open_fraction
        if open_fraction == 0:
            continue
        if group.count > MOST_HOLES:  # of a database that was changed from outside: nothing is made of it
            missing.append(f"{path}[{i}].count")
            continue
        of_group = _estimates(f"{path}[{i}]", group)
        estimates |= of_group
        of_hole = {key: estimate for key, estimate in of_group.items() if key.rpartition(".")[2] not in LAYOUT_DIMENSIONS}
        measured = {key.rpartition(".")[2]: variables.add(key, estimate) for key, estimate in of_hole.items()}
        where_from = {key.rpartition(".")[2]: estimate.provenance for key, estimate in of_group.items()}
        geometry, lacking = _geometry(f"{path}[{i}]", group, measured, variables)
        missing += lacking
        if geometry is not None:
            geometries.append((group.count, open_fraction, geometry))
            sizes.append(measured)
            provenances.append(where_from)
    if groups and not geometries and not missing:
        missing.append(path)  # every group is covered: there is no opening to compute with
    return MeasuredHoles(tuple(geometries), tuple(missing), tuple(sizes), tuple(provenances), estimates)


def _estimates(path: str, group: HoleGroup) -> dict[str, Estimate]:
    """Return the estimates of the sizes of one hole of a group and of where they lie, by the key of their readings.

    A bound alone is no size.
    """
    takes = SHAPE_DIMENSIONS[group.shape]
    return {
        f"{path}.{dimension}": estimate
        for dimension in takes.required + takes.optional + LAYOUT_DIMENSIONS
        if (readings := used_readings(getattr(group.readings, dimension)))
        and (estimate := estimate_quantity(HOLE_QUANTITIES[dimension], readings, group.count)) is not None
    }


def _geometry(
    path: str, group: HoleGroup, sizes: dict[str, Uncertain], variables: Variables
) -> tuple[HoleGeometry | None, list[str]]:
    if group.shape == "outline":
        return _outline_geometry(path, group, variables)
    lacking = [f"{path}.{dimension}" for dimension in SHAPE_DIMENSIONS[group.shape].required if dimension not in sizes]
    return (None, lacking) if lacking else (SHAPES[group.shape].geometry(**sizes), [])


def _outline_geometry(path: str, group: HoleGroup, variables: Variables) -> tuple[HoleGeometry | None, list[str]]:
    """Return area and perimeter of an outline.

    The edge may lie off by as much as a caliper would be on a diameter (half of it on each side), so
    that a round hole given as an outline carries the same uncertainty as one given by its diameter.
    """
    points = [(x * 1e-3, y * 1e-3) for x, y in group.readings.points_mm]
    if not points:
        return None, [f"{path}.points_mm"]
    caliper = INSTRUMENT_ERRORS["caliper"]
    edge = (caliper.type_b.variance + caliper.repeatability**2) ** 0.5 / 2
    perimeter = outline_perimeter(points)
    area = variables.with_type_b(f"{path}.points_mm", outline_area(points), perimeter * edge)
    return HoleGeometry(area, perimeter), []
