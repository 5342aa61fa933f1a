"""The plate as the drawing shows it, in millimetres."""

from __future__ import annotations

from tabrel.api.sample.models import HoleProductOut, OutletOut, PlacedHoleOut, PlateCircleOut, PlateOut, SectionOut
from tabrel.core.figures.plate_summary import plate_summary
from tabrel.core.oil.model import OilModel
from tabrel.core.sample.measured_sample import MeasuredSample


def plate_out(measured: MeasuredSample, oil: OilModel | None) -> PlateOut:
    """Return the plate from below and the figures beside its areas."""
    layout = measured.plate
    summary = plate_summary(measured, oil)
    ratio = summary.multi_hole_loss_ratio
    return PlateOut(
        circles=[
            PlateCircleOut(key=circle.key, diameter_mm=circle.diameter * 1e3, measured=circle.measured)
            for circle in layout.circles
        ],
        holes=[
            PlacedHoleOut(
                group=hole.group,
                points_mm=[[round(x * 1e3, 3), round(y * 1e3, 3)] for x, y in hole.outline],
                wrong=hole.wrong,
            )
            for hole in layout.holes
        ],
        hole_circles_measured=all(measured for _, _, measured in layout.hole_circles),
        problems=[problem.message for problem in layout.problems],
        products=[
            HoleProductOut(count=count, one_mm2=value * 1e6, open_fraction=share) for count, value, share in summary.products
        ],
        perimeter_mm=summary.perimeter * 1e3,
        equivalent_diameter_mm=None if summary.equivalent_diameter is None else summary.equivalent_diameter * 1e3,
        loss_ratio_viscous=ratio.viscous if ratio else None,
        loss_ratio_hot=ratio.hot if ratio else None,
        sections=[SectionOut(name=name, area_mm2=area * 1e6) for name, area in summary.sections.items()],
        outlets=[
            OutletOut(
                name=outlet.name,
                bore_mm=outlet.bore * 1e3,
                area_mm2=outlet.area * 1e6,
                flow_area_mm2=None if outlet.flow_area is None else outlet.flow_area * 1e6,
                controlled_by=outlet.controlled_by,
                adapter_ratio=outlet.adapter_ratio,
            )
            for outlet in summary.outlets
        ],
    )
