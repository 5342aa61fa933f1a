"""An invented filter measured by hand: instruments with their errors, a session, slips drawn on purpose.

It stands in for a workshop and knows nothing of how readings are worked out: the truth's own formulas are written here apart.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field, replace
from math import exp, log, log10, pi, sqrt
from typing import Any

import numpy as np

from tabrel.stand_ins.counter import SimulatedTest, simulated_counts
from tabrel.stand_ins.typical import SHEAR_MODULUS, Truth, invented_truth, seat_area

# permissible error, step of the display, repeatability; shares of the reading where the unit is none
INSTRUMENTS: dict[str, tuple[float, float, float, str]] = {
    "caliper": (0.03e-3, 0.01e-3, 0.03e-3, "mm"),
    "micrometer": (0.004e-3, 0.001e-3, 0.01e-3, "mm"),
    "tape": (0.5e-3, 1e-3, 1.5e-3, "mm"),
    "balance": (1e-3, 1e-3, 0.5e-3, "g"),
    "force_gauge": (0.05, 0.0, 0.02, "N"),
    "pressure_gauge": (0.05, 0.0, 0.02, "kPa"),
    "permeability_tester": (0.05, 0.0, 0.02, "L/m2/s"),
    "microscope": (0.05, 0.0, 0.02, "um"),
    "count": (0.0, 0.0, 0.0, ""),
}
UNITS = {"mm": 1e-3, "g": 1e-3, "N": 1.0, "kPa": 1e3, "L/m2/s": 1e-3, "um": 1e-6, "": 1.0}

MEASURED_WITH: dict[str, str] = {
    "plate.thickness": "caliper",
    "anti_drain.lip_diameter": "caliper",
    "anti_drain.lift": "caliper",
    "element.outside_diameter": "caliper",
    "element.inside_diameter": "caliper",
    "element.height": "caliper",
    "element.pleat_depth": "caliper",
    "element.pleat_count": "count",
    "element.potting_depth": "caliper",
    "media.strip_length": "tape",
    "media.strip_width": "caliper",
    "media.seam_overlap": "caliper",
    "media.blocked_pleats": "count",
    "media.thickness": "micrometer",
    "media.dry_mass": "balance",
    "media.fibre_diameter": "microscope",
    "bypass.seat_inside_diameter": "caliper",
    "bypass.seat_outside_diameter": "caliper",
    "bypass.spring_wire_diameter": "micrometer",
    "bypass.spring_outside_diameter": "caliper",
    "bypass.spring_total_coils": "count",
    "bypass.spring_free_length": "caliper",
    "bypass.spring_installed_length": "caliper",
    "bypass.opening_force": "force_gauge",
    "bypass.opening_pressure": "pressure_gauge",
}
WAYS = ("bypass.opening_pressure", "bypass.opening_force")
"""Evidence of the opening pressure that goes before the spring."""

COIL_COUNTING = 0.25
"""Coils that a count leaves out or has too many, even either way."""

STRETCH = 0.01
"""How hard a strip is pulled, even either way."""


@dataclass(frozen=True)
class Session:
    """Settings of a measuring session.

    Attributes
    ----------
    repeats : int or None
        Readings of every size; None: three of holes, thickness and one of everything else.
    hand : float
        Repeatability over that of the instruments.
    bias : float or None
        Share of the permissible error that every instrument is off by; None: even between both ends, one a session.
    left_out : collection of str
        Readings that are not taken.
    hole_spread, width_spread : float
        Standard deviation of the holes [m], and relative one of the strip's width along it.
    one_hole : bool
        Whether one hole is read again and again.
    traps : collection of str
        Slips: ``burr``, ``caliper_zero``, ``hard_pull``, ``tape_inches``, ``coil_more``, ``force_off_centre``, ``first_drip``,
        ``open_ends``, ``other_material``, ``inner_edge``, ``outer_edge``.
    told : mapping
        What is noted of the valve besides: ``spring_material``, ``spring_ends``, ``seat_mark``, ``opening_at``.
    """

    repeats: int | None = None
    hand: float = 1.0
    bias: float | None = None
    left_out: Collection[str] = ()
    hole_spread: float = 0.0
    width_spread: float = 0.0
    one_hole: bool = False
    traps: Collection[str] = ()
    told: Mapping[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class Specimen:
    """An invented filter: its sizes in SI by reading key, and what they come to."""

    seed: int
    truth: Truth

    def size(self, key: str) -> float:
        """Return a true size. [SI]"""
        return float(self.truth[key])

    @property
    def inlet_hole_area(self) -> float:
        """[m²]."""
        return self.size("holes.inlet.count") * pi / 4 * self.size("holes.inlet.diameter") ** 2

    @property
    def plate_flow_area(self) -> float:
        """Smallest of inlet holes, anti-drainback gap and stud. [m²]"""
        curtain = pi * self.size("anti_drain.lip_diameter") * self.size("anti_drain.lift")
        return min(self.inlet_hole_area, curtain, pi / 4 * (1e-3 * self.size("circuit.stud.bore_mm")) ** 2)

    @property
    def media_effective_area(self) -> float:
        """One face. [m²]"""
        width = self.size("media.strip_width") - 2 * self.size("element.potting_depth")
        lost = self.size("media.seam_overlap") + 2 * self.size("media.blocked_pleats") * self.size("element.pleat_depth")
        return (self.size("media.strip_length") - lost) * width

    @property
    def opening_pressure(self) -> float:
        """[Pa]."""
        return self.size("bypass.opening_pressure")

    @property
    def size_at_beta_2(self) -> float:
        """Where half the particles pass: the screening curve's, off by its own factor. [µm(c)]"""
        low, high = 0.1, 500.0
        while high / low > 1 + 1e-9:
            middle = sqrt(low * high)
            low, high = (low, middle) if self._screened(middle) > 0.5 else (middle, high)
        return low * self.size("model.screening_size")

    def efficiency(self, size: float) -> float:
        """Return the true efficiency of a counted test. [-]"""
        return float(1 - 1 / (1 + (size / self.size_at_beta_2) ** self.size("model.efficiency_slope")))

    def screened_efficiency(self, size: float) -> float:
        """Return the true efficiency where the screening curve is the truth, off in size by its own factor. [-]"""
        return self._screened(size / self.size("model.screening_size"))

    def _screened(self, size: float) -> float:
        alpha, fibre = self.size("media.solidity"), 1e6 * self.size("media.fibre_diameter")
        gamma = {"cellulose": 0.094, "blend": 0.076, "synthetic": 0.084}[str(self.truth["media_family"])]
        ratio = size / fibre
        ku = -0.5 * log(alpha) - 0.75 + alpha - alpha**2 / 4
        single = (2 * (1 + ratio) * log(1 + ratio) - (1 + ratio) + 1 / (1 + ratio)) / (2 * ku)
        thickness = 1e6 * self.size("media.thickness")
        return 1 - exp(-4 * alpha * single * gamma * thickness / (pi * fibre * (1 - alpha)))


def specimen(seed: int) -> Specimen:
    """Return the invented filter of a seed."""
    return Specimen(seed, invented_truth(seed))


def measured_document(made: Specimen, session: Session = Session()) -> dict[str, Any]:
    """Return the study document of a filter measured in one session, its engine's stud written in full."""
    return _Hand(made, session).document()


class _Hand:
    """One session: a bias an instrument, repeatability and rounding of every reading."""

    def __init__(self, made: Specimen, session: Session) -> None:
        self.made, self.session = made, session
        self.random = np.random.default_rng([made.seed, 4711])
        off = self.random.uniform(-1, 1, len(INSTRUMENTS))
        if session.bias is not None:
            off = np.full(len(INSTRUMENTS), session.bias)
        self.bias = dict(zip(INSTRUMENTS, off, strict=True))
        self.stretch = 1 + self.random.uniform(-STRETCH, STRETCH)
        self.slip = self.random.uniform(0, 1)
        self.part_of_a_coil = self.random.uniform(-COIL_COUNTING, COIL_COUNTING)
        if "hard_pull" in session.traps:
            self.stretch *= 1.015 + 0.015 * self.slip

    def one(self, key: str, true: float, instrument: str) -> str:
        """Return one reading as typed."""
        error, step, repeat, unit = INSTRUMENTS[instrument]
        if instrument == "count":
            return f"{true:g}"
        relative = true if step == 0 else 1.0
        value = true + relative * (self.bias[instrument] * error + self.session.hand * repeat * self.random.standard_normal())
        if instrument == "caliper" and "caliper_zero" in self.session.traps:
            value += 1e-4
        if key == "bypass.opening_force" and "force_off_centre" in self.session.traps:
            value *= 0.9 - 0.15 * self.slip
        if key == "bypass.opening_pressure" and "first_drip" in self.session.traps:
            value *= 0.95 - 0.15 * self.slip
        if step:
            digits = max(0, round(-log10(step / UNITS[unit])))
            return f"{round(value / step) * step / UNITS[unit]:.{digits}f} {unit}"
        return f"{value / UNITS[unit]:.4g} {unit}"

    def several(self, key: str, true: float, instrument: str, usual: int = 1) -> list[str]:
        """Return the readings of one size."""
        return [self.one(key, true, instrument) for _ in range(self.session.repeats or usual)]

    def document(self) -> dict[str, Any]:
        """Return the whole study."""
        truth, session = self.made.truth, self.session
        readings = {}
        for key, instrument in MEASURED_WITH.items():
            true = self._true(key)
            if key in session.left_out or true is None:
                continue
            if key == "media.strip_width":
                true_widths = true * (1 + session.width_spread * self.random.standard_normal(session.repeats or 1))
                readings[key] = [self.one(key, float(width), instrument) for width in np.atleast_1d(true_widths)]
            else:
                readings[key] = self.several(key, true, instrument, 3 if key == "media.thickness" else 1)
        valve = {
            "location": truth["bypass.location"],
            "kind": "coil_spring",
            "spring_material": truth["bypass.spring_material"],
            "spring_ends": "closed_ground",
            "opening_at": 1.0,
        } | dict(session.told)
        sample = {
            "label": f"specimen {self.made.seed}",
            "media_family": truth["media_family"],
            "readings": readings,
            "observations": {"media.backing": "none"},
            "holes": {"inlet": [self._holes()]},
            "bypass": {key: value for key, value in valve.items() if value is not None},
        }
        stud = {"bore_mm": self.made.size("circuit.stud.bore_mm"), "length_mm": self.made.size("circuit.stud.length_mm")}
        return {
            "format": "tabrel-study",
            "version": 3,
            "name": f"specimen {self.made.seed}",
            "circuit": {"stud": stud},
            "samples": [sample],
        }

    def _true(self, key: str) -> float | None:
        """Return what there is to read, with the slips that are drawn."""
        true, traps = self.made.size(key), self.session.traps
        if key == "media.strip_length":
            return true * self.stretch / (2.54 if "tape_inches" in traps else 1.0)
        if key == "bypass.spring_total_coils":
            return true + ("coil_more" in traps)
        if key == "media.blocked_pleats" and true == 0:
            return None
        if key == "bypass.spring_wire_diameter":
            return self._wire(true)
        if key == "bypass.opening_force":
            return self.made.opening_pressure * self._seat_area()
        return true

    def _seat_area(self) -> float:
        traps, inside, outside = self.session.traps, *(self.made.size(f"bypass.seat_{n}_diameter") for n in ("inside", "outside"))
        if "inner_edge" in traps:
            return pi / 4 * inside**2
        return pi / 4 * outside**2 if "outer_edge" in traps else seat_area(self.made.truth)

    def _wire(self, usual: float) -> float:
        """Return the wire that holds the opening pressure with the seat, coils, ends and material there really are."""
        traps = self.session.traps
        outside = self.made.size("bypass.spring_outside_diameter")
        dead = 0.5 if "open_ends" in traps else self.made.size("model.dead_coils")
        coils = self.made.size("bypass.spring_total_coils") + self.part_of_a_coil - dead
        material = "stainless_302" if "other_material" in traps else str(self.made.truth["bypass.spring_material"])
        stiffness = self.made.opening_pressure * self._seat_area() / self.made.size("model.preload")
        wire = usual
        for _ in range(60):
            wire = (8 * stiffness * coils * (outside - wire) ** 3 / SHEAR_MODULUS[material]) ** 0.25
        return wire

    def _holes(self) -> dict[str, Any]:
        count, true = round(self.made.size("holes.inlet.count")), self.made.size("holes.inlet.diameter")
        if "burr" in self.session.traps:
            true -= 1e-4 + 2e-4 * self.slip
        holes = true + self.session.hole_spread * self.random.standard_normal(count)
        read = min(self.session.repeats or 3, count)
        places = [0] * read if self.session.one_hole else self.random.permutation(count)[:read].tolist()
        entries = [
            {"text": self.one("holes.inlet.diameter", float(holes[place]), "caliper"), "hole": place + 1} for place in places
        ]
        self.holes = holes
        return {"shape": "round", "count": count, "readings": {"diameter": entries}}


def true_inlet_area(made: Specimen, session: Session) -> float:
    """Return the inlet hole area of a filter whose holes differ as the session has them. [m²]"""
    hand = _Hand(made, replace(session, traps=()))
    hand.document()
    return float(np.sum(pi / 4 * hand.holes**2))


def counted_document(made: Specimen) -> dict[str, Any]:
    """Return the counts of a test of a filter, as a study document holds them."""
    test = SimulatedTest(size_at_beta_2=made.size_at_beta_2, slope=made.size("model.efficiency_slope"))
    counts = simulated_counts(test, made.seed)
    return {
        "scale": "um(c)",
        "test_kind": "multi_pass",
        "sizes_um": list(test.sizes),
        "upstream_ml": test.upstream_ml,
        "upstream_dilution": test.upstream_dilution,
        "downstream_ml": test.downstream_ml,
        "downstream_dilution": test.downstream_dilution,
        "ratio_uncertainty_percent": 100 * test.volume_error,
        "size_uncertainty_percent": 100 * test.size_error,
        "blank": {"upstream": counts.blank_upstream.tolist(), "downstream": counts.blank_downstream.tolist()},
        "intervals": [
            {
                "time_min": test.minutes * (i + 1),
                "upstream": counts.upstream[i].tolist(),
                "downstream": counts.downstream[i].tolist(),
            }
            for i in range(test.intervals)
        ],
    }
