"""Whether a filter and the engine's mount contradict each other: it only warns, and never says that a filter fits."""

from __future__ import annotations

from collections.abc import Iterator

from uncertainties import std_dev

from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.review.reading_warnings import SampleWarning
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.sampled_number import nominal_value

THREAD_PLAY_MM = 0.4
"""By so much the crests of two threads that go together may differ: an internal thread is measured at its roots or crests."""
PITCH_SHARE = 0.03
"""So far apart two pitches are no longer the same one: 1.5 mm and 16 to the inch (1.5875 mm) are 6 % apart."""
ALONE = "This check only warns: the vehicle maker's instruction says which part belongs on the engine."


def fit_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    """Yield a warning for each size of the filter that the engine's thread or sealing face contradicts.

    A difference counts where it is larger than the play of a thread, or than twice the standard uncertainty of the reading.
    """
    mount, known = measured.circuit.mount, measured.known
    if mount is None:
        return
    if mount.thread_diameter_mm is not None and "thread.major_diameter" in known:
        own, spread = _both(measured, "thread.major_diameter")
        if abs(own - mount.thread_diameter_mm) > max(THREAD_PLAY_MM, 2 * spread):
            yield SampleWarning(
                "fit_thread",
                f"the filter's thread measures {_mm(own)}, the engine's {_mm(mount.thread_diameter_mm)}: "
                f"check both, and do not force it. {ALONE}",
                "thread.major_diameter",
            )
    if mount.thread_pitch_mm is not None and "thread.pitch" in known:
        own, spread = _both(measured, "thread.pitch")
        if abs(own - mount.thread_pitch_mm) > max(PITCH_SHARE * mount.thread_pitch_mm, 2 * spread):
            yield SampleWarning(
                "fit_pitch",
                f"the filter's thread has a pitch of {_mm(own)}, the engine's {_mm(mount.thread_pitch_mm)}: "
                f"a turn or two may catch, and no more; check both. {ALONE}",
                "thread.pitch",
            )
    if mount.seat_diameter_mm is not None and "gasket.outside_diameter" in known:
        own, spread = _both(measured, "gasket.outside_diameter")
        if own - mount.seat_diameter_mm > 2 * spread:
            yield SampleWarning(
                "fit_seat",
                f"the gasket is {_mm(own)} across and the engine's sealing face {_mm(mount.seat_diameter_mm)}: "
                f"part of the gasket has nothing to seal on; check both. {ALONE}",
                "gasket.outside_diameter",
            )


def _both(measured: MeasuredSample, key: str) -> tuple[float, float]:
    """Return value and standard uncertainty of a reading. [mm]"""
    number = measured.known[key]
    return float(nominal_value(number)) * 1e3, float(std_dev(number)) * 1e3


def _mm(value: float) -> str:
    return shown_in_both(value * 1e-3, "mm", 4)
