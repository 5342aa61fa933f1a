"""One operating point in plain floats, solved with brentq: the yardstick for speed and for correctness.

Written straight from the formulas, one number at a time and without derivatives, so that it shares
no line of computation with the vectorised solver.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import cosh, exp, log10, pi, sinh, sqrt, tanh

from scipy.optimize import brentq

from tabrel.core.circuit.state import OperatingPoint


@dataclass(frozen=True)
class PointResult:
    """Pressures [Pa], flows [m³/s] and lift [m] at one temperature and speed."""

    element: float
    filter: float
    gallery: float
    filter_inlet: float
    pump: float
    flow: float
    bypass: float
    leak: float
    relief_flow: float
    balance: float
    valve_sees: float


def density(point: OperatingPoint, t: float) -> float:
    rho15 = point.oil.density_15c
    alpha = 0.6278 / rho15
    return rho15 * exp(-alpha * (t - 15) * (1 + 0.8 * alpha * (t - 15)))


def viscosity(point: OperatingPoint, t: float) -> float:
    xs, ys = point.oil.log_temperature, point.oil.log_log_viscosity
    x = log10(t + 273.15)
    i = 0
    while i < len(xs) - 2 and x > xs[i + 1]:
        i += 1
    y = float(ys[i]) + (float(ys[i + 1]) - float(ys[i])) / (float(xs[i + 1]) - float(xs[i])) * (x - float(xs[i]))
    return (10 ** (10**y) - 0.7) * 1e-6 * density(point, t)


def quadratic_flow(a: float, b: float, p: float) -> float:
    """Return Q of a·Q + b·Q² = p."""
    return 0.0 if p <= 0 else 2 * p / (a + sqrt(a * a + 4 * b * p))


class PlainPoint:
    """The circuit at one temperature [°C] and speed [rpm] as a function of the filter's unknown x [Pa]."""

    def __init__(self, point: OperatingPoint, t: float, n: float) -> None:
        self.model, self.circuit = point.filter, point.circuit
        self.filling = point.condition == "filling"
        self.mu, self.rho = viscosity(point, t), density(point, t)
        scale = 1 - 0.0003 * (t - 20)
        valve = self.model.valve
        if valve:
            self.p0, self.k = valve.opening_pressure * scale, valve.spring_rate * scale
        element = point.loading * self.model.media + self.model.pleats + self.model.tube.a
        self.element = element
        self.f = sqrt(self.model.can_annulus / element) if self.model.can_annulus is not None else 0.0
        self.ac = sqrt(self.model.can_annulus * element) if self.model.can_annulus is not None else 0.0
        parts = (self.model.inlet, self.model.anti_drain, self.model.outlet, self.model.adapter)
        self.hw_a = sum(part.a for part in parts)
        self.hw_b = sum(part.b for part in parts) + self.model.tube.b
        self.geometric = self.circuit.displacement * n / 60
        self.rb_mu = 0.0 if self.filling else self.circuit.bearings * self._bearing_viscosity(point, t, n)

    def _bearing_viscosity(self, point: OperatingPoint, t: float, n: float) -> float:
        c = self.circuit
        s2 = 2 * c.bearing_heating
        if s2 == 0 or c.bearing_rise == 0:
            return viscosity(point, t + c.bearing_rise)
        hot = c.hot_viscosity

        def off(theta: float) -> float:
            return c.bearing_rise * (viscosity(point, t + theta) / hot * n / c.hot_speed) ** s2 - theta

        return viscosity(point, t + brentq(off, 1e-6, 400.0, xtol=1e-11))

    def valve_flow(self, p: float) -> float:
        valve = self.model.valve
        if valve is None or p <= self.p0:
            return 0.0
        x = min((p - self.p0) * valve.seat_area / self.k, valve.lift_limit)
        d = valve.seat_diameter
        a = 12 * (valve.land + 0.85 * x) / (pi * d * x**3) + valve.port.a
        b = 1 / (2 * (0.62 * pi * d * x) ** 2) + valve.port.b
        return quadratic_flow(a * self.mu, b * self.rho, p)

    def leak_flow(self, p: float) -> float:
        leak = self.model.leak
        return quadratic_flow(leak.a * self.mu, leak.b * self.rho, p) if leak else 0.0

    def hardware(self, q: float) -> float:
        return self.hw_a * self.mu * q + self.hw_b * self.rho * q * q + self.model.anti_drain_pressure

    def filter(self, x: float) -> tuple[float, float, float, float, float, float]:
        """Return element and filter pressure, flow, bypass, leak, and what the valve sees."""
        mu, f, ac = self.mu, self.f, self.ac
        slope = tanh(f) / ac if f else 1 / self.element
        if self.model.location in ("block", "adapter"):
            if x < 0:  # the anti-drainback valve stays shut, and all passes beside the filter
                whole = self.model.anti_drain_pressure + x
                through = self.valve_flow(whole)
                return 0.0, whole, through, through, 0.0, whole
            leak = self.leak_flow(x)
            inner = x * slope / mu + leak
            whole = x + self.hardware(inner)
            through = self.valve_flow(whole)
            return x, whole, inner + through, through, leak, whole
        through = self.valve_flow(x)
        if self.model.location == "thread_end":
            p, q = x, x * slope / mu + through
        elif f:
            p = x * cosh(f) + ac * mu * through * sinh(f)
            q = through * cosh(f) + x * sinh(f) / (ac * mu)
        else:
            p, q = x, through + x / (self.element * mu)
        leak = self.leak_flow(p)
        q += leak
        return p, p + self.hardware(q), q, through, leak, x

    def limited(self, part: object, q: float) -> float:
        r, limit = part.restriction, part.limit  # type: ignore[attr-defined]
        return min(r.a * self.mu * q + r.b * self.rho * q * q, limit)

    def gallery(self, q: float) -> float:
        if self.filling:
            return 0.0
        jets, opening = self.circuit.jets, self.circuit.jet_opening
        p = q * self.rb_mu
        if jets is None or p <= opening:
            return p
        # the bearings' line meets the jets' parabola: (A + C)·q + B·q² = C·Q − p_j
        jet = quadratic_flow(jets.a * self.mu + self.rb_mu, jets.b * self.rho, p - opening)
        return self.rb_mu * (q - jet)

    def result(self, x: float) -> PointResult:
        c = self.circuit
        p0, whole, q, through, leak, sees = self.filter(x)
        gallery = self.gallery(q)
        inlet = gallery + whole + self.limited(c.head, q)
        pump = inlet + self.limited(c.cooler, q)
        sensed = pump if c.sense == "pump" else gallery
        relief_flow = c.regulator_conductance * (max(sensed - c.regulator_opening, 0.0) + max(pump - c.safety, 0.0))
        balance = self.geometric - c.slip * pump / self.mu - relief_flow - q
        return PointResult(p0, whole, gallery, inlet, pump, q, through, leak, relief_flow, balance, sees)

    def balance(self, x: float) -> float:
        return self.result(x).balance

    def solve(self) -> PointResult:
        highest = self.circuit.safety + self.geometric / self.circuit.regulator_conductance
        beside = self.model.location in ("block", "adapter") and self.model.valve is not None
        lowest = -self.model.anti_drain_pressure if beside else 0.0
        return self.result(brentq(self.balance, lowest, highest, xtol=1e-6, rtol=1e-12))


def onset_temperature(point: OperatingPoint, n: float, low: float, high: float) -> float:
    """Return where between two temperatures the valve of the solved circuit just opens. [°C]"""

    def over(t: float) -> float:
        plain = PlainPoint(point, t, n)
        return plain.solve().valve_sees - plain.p0

    return float(brentq(over, low, high, xtol=1e-6))
