"""How often the 95 % intervals hold the truth: invented filters, measured by stand-ins, analysed as any other."""

from __future__ import annotations

import json
import sys
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from functools import partial

import numpy as np
from scipy.stats import beta

from tabrel.core.parts.flow_area import inlet_hole_area, plate_flow_area, plate_sections
from tabrel.core.parts.media import effective_media_area
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.document.study_document import read_study
from tabrel.stand_ins.workshop import WAYS, Session, counted_document, measured_document, specimen, true_inlet_area

FORECAST_OUT = ("media.strip_length", "media.strip_width", "media.seam_overlap", "element.potting_depth", "media.blocked_pleats")
UNMEASURED = ("media.seam_overlap", "element.potting_depth")
FORCE_OUT, SPRING_OUT = WAYS[:1], WAYS

COLUMNS = ("inlet", "plate", "media", "forecast", "unmeasured", "gauge", "force", "spring", "counted")

HOLES = 1e-4
ROWS: dict[str, Session] = {
    "honest": Session(),
    "5 readings of everything": Session(repeats=5),
    "every bias at its limit": Session(bias=1.0),
    "hand 3 × less repeatable": Session(hand=3.0),
    "hand 3 × less repeatable, 5 readings": Session(hand=3.0, repeats=5),
    "holes differ by 0.1 mm, 3 of them read": Session(hole_spread=HOLES),
    "holes differ by 0.1 mm, all read": Session(hole_spread=HOLES, repeats=16),
    "holes differ by 0.1 mm, one read 3 times": Session(hole_spread=HOLES, one_hole=True),
    "strip width varies 0.5 %, read once": Session(width_spread=0.005),
    "strip width varies 0.5 %, at three places": Session(width_spread=0.005, repeats=3),
    "material not told": Session(told={"spring_material": None}),
    "stainless, told music wire": Session(traps=("other_material",), told={"spring_material": "music_wire"}),
    "seal on the inner edge, marked": Session(traps=("inner_edge",), told={"seat_mark": "inner"}),
    "seal on the inner edge, not seen": Session(traps=("inner_edge",)),
    "seal on the outer edge, not seen": Session(traps=("outer_edge",)),
    "open ends, told": Session(traps=("open_ends",), told={"spring_ends": "open"}),
    "open ends, ends not told": Session(traps=("open_ends",), told={"spring_ends": None}),
    "first drip 5 to 20 % early, told": Session(traps=("first_drip",), told={"opening_at": "first_drip"}),
    "first drip 5 to 20 % early, not told": Session(traps=("first_drip",), told={"opening_at": None}),
    "trap: burr in the holes": Session(traps=("burr",)),
    "trap: caliper not zeroed, 0.1 mm": Session(traps=("caliper_zero",)),
    "trap: strip pulled hard": Session(traps=("hard_pull",)),
    "trap: tape on its inch side": Session(traps=("tape_inches",)),
    "trap: one coil more": Session(traps=("coil_more",)),
    "trap: force off centre": Session(traps=("force_off_centre",)),
}
"""What is true, in the order of the table; a trap is a blunder, which no interval can hold."""

WARNED: dict[str, tuple[str, ...]] = {
    "holes differ by 0.1 mm, 3 of them read": ("holes_differ",),
    "holes differ by 0.1 mm, one read 3 times": ("one_hole_for_all",),
    "open ends, ends not told": ("spring_ends_not_told",),
    "seal on the inner edge, not seen": ("seat_mark_not_told",),
    "first drip 5 to 20 % early, not told": ("opening_flow_not_stated",),
    "hand 3 × less repeatable, 5 readings": ("spread",),
}


def measured_of(document):
    """Return the only sample of a document as it was measured."""
    study = read_study(json.dumps(document))
    return measure_sample(study.samples[0], study.circuit)


def asked_of(measured):
    """Return the codes of the warnings of a sample."""
    return {warning.code for warning in analyse_measured(measured).warnings}


def holds(result, truth):
    """Return whether the 95 % interval of a result holds the truth."""
    if not result.is_known:
        return False
    if result.value is None or result.low is not None:
        return (result.low is None or result.low <= truth) and (result.high is None or truth <= result.high)
    return abs(result.value - truth) <= result.expanded_uncertainty + 1e-9 * abs(truth)


def one(session, seed, with_warnings=True):
    """Return for one specimen which intervals hold the truth, by column, and what was asked about."""
    made = specimen(seed)
    full = measured_of(measured_document(made, session))
    inlet = true_inlet_area(made, session) if session.hole_spread else made.inlet_hole_area

    def without(keys):
        return measured_of(measured_document(made, replace(session, left_out=keys)))

    def media(measured):
        return holds(effective_media_area(measured.strip, measured.variables), made.media_effective_area)

    def opening(measured):
        return holds(measured.bypass.opening, made.opening_pressure)

    held = {
        "inlet": holds(inlet_hole_area(full.inlet, full.variables), inlet),
        "media": media(full),
        "forecast": media(without(FORECAST_OUT)),
        "unmeasured": media(without(UNMEASURED)),
        "gauge": opening(full),
        "force": opening(without(FORCE_OUT)),
        "spring": opening(without(SPRING_OUT)),
    }
    if not session.hole_spread:
        sections, missing = plate_sections(full.inlet, full.outlet, full.adapter, full.known)
        held["plate"] = holds(plate_flow_area(sections, missing, full.variables, full.outlet), made.plate_flow_area)
    if session == Session():
        document = measured_document(made, session)
        document["samples"][0]["counts"] = counted_document(made)
        counted = measured_of(document).counted.efficiency(20.0)
        if counted.low is not None or counted.high is not None:
            held["counted"] = holds(counted, made.efficiency(20.0))
    return held, asked_of(full) if with_warnings else set()


def covered(session, count, workers=1, with_warnings=True):
    """Return how many of how many hold the truth, by column, and how many specimens were asked about, by code."""
    run = partial(one, session, with_warnings=with_warnings)
    seeds = range(count)
    if workers > 1:
        with ProcessPoolExecutor(workers) as pool:
            pairs = list(pool.map(run, seeds, chunksize=8))
    else:
        pairs = [run(seed) for seed in seeds]
    shares = {column: [held[column] for held, _ in pairs if column in held] for column in COLUMNS}
    asked: dict[str, int] = {}
    for _, codes in pairs:
        for code in codes:
            asked[code] = asked.get(code, 0) + 1
    return {column: (sum(held), len(held)) for column, held in shares.items() if held}, asked


def interval(held, count):
    """Return the exact 95 % binomial interval of a share, in per cent."""
    low = 0.0 if held == 0 else beta.ppf(0.025, held, count - held + 1)
    high = 1.0 if held == count else beta.ppf(0.975, held + 1, count - held)
    return 100 * low, 100 * high


def cell(held, count):
    """Return per cent with its interval; bold outside 93 to 99 %."""
    low, high = interval(held, count)
    share = 100 * held / count
    words = f"{share:.1f}"
    return f"{words if 93 <= share <= 99 else f'**{words}**'} ({low:.0f}–{high:.0f})"


def table(count, workers):
    """Yield the lines of the table of the method."""
    yield f"| what is true | {' | '.join(COLUMNS)} |"
    yield f"| --- |{' --- |' * len(COLUMNS)}"
    usual = None
    for name, session in ROWS.items():
        counts, asked = covered(session, count if name == "honest" else count * 3 // 10, workers=workers)
        usual = usual or {code: number / count for code, number in asked.items()}
        cells = " | ".join(cell(*counts[column]) if column in counts else "" for column in COLUMNS)
        total = max(number for _, number in counts.values())
        more = [code for code, number in asked.items() if number / total > usual.get(code, 0.0) + 0.1]
        told = f"; asked: {', '.join(sorted(more))}" if more else ""
        yield f"| {name}{told} | {cells} |"


if __name__ == "__main__":
    np.seterr(all="ignore")
    for line in table(int(sys.argv[1]) if len(sys.argv) > 1 else 200, 2):
        print(line, flush=True)
