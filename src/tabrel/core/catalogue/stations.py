"""The stations of the work, in its order."""

from __future__ import annotations

from dataclasses import dataclass

from tabrel.core.catalogue.quantities import STAGE_TITLES


@dataclass(frozen=True)
class Station:
    """One station.

    Attributes
    ----------
    name : str
        In addresses.
    title : str
        On screen.
    synonyms : tuple of str
        Other words for what is done there.
    is_stage : bool
        Whether readings of a stage are typed there.
    has_tape : bool
        Whether the results stand below; pictures need the space.
    """

    name: str
    title: str
    synonyms: tuple[str, ...] = ()
    is_stage: bool = False
    has_tape: bool = True


_STAGES = {name: Station(name, title, is_stage=True) for name, title in STAGE_TITLES.items()}

STATIONS: tuple[Station, ...] = (
    Station("intake", "Intake", ("offers", "shops", "price", "date code", "warranty", "claims")),
    Station("short", "Short sheet"),
    _STAGES["outside"],
    Station("cut", "Cut"),
    *(station for name, station in _STAGES.items() if name != "outside"),
    Station("efficiency", "Efficiency"),
    Station("engine", "Oil, engine", ("oil", "viscosity", "library", "circuit", "drag a point"), has_tape=False),
    Station(
        "map",
        "Operating map",
        ("export", "csv", "png", "svg", "restriction", "loss breakdown", "pressure profile", "onset"),
        has_tape=False,
    ),
    Station("comparison", "Comparison", ("export", "side by side", "bands", "compare", "csv", "png", "svg"), has_tape=False),
    Station("start", "Warm-up, life", ("cold start", "interval", "life", "warm-up", "duty cycle"), has_tape=False),
    Station("report", "Report", has_tape=False),
)
