"""``tabrel simulate``: tests as a laboratory would send them, written by a simulated stand-in."""

from __future__ import annotations

import argparse
import io
from dataclasses import replace
from math import isfinite
from pathlib import Path

from tabrel.cli.output import put, write_file
from tabrel.core.errors import OutOfRangeError
from tabrel.stand_ins.counter import SimulatedTest, simulated_counts, write_csv

SMALLEST, LARGEST = 0.5, 200.0  # µm(c)
LEAST_SLOPE, STEEPEST_SLOPE = 0.2, 12.0
MOST_INTERVALS = 20_000
USUAL = SimulatedTest()


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    devices = parser.add_subparsers(dest="device", required=True, metavar="DEVICE")
    counter = devices.add_parser("counter", help="particle counts of a filter test, as a table")
    counter.add_argument(
        "--size-at-beta-2", type=float, default=USUAL.size_at_beta_2, metavar="UM", help="of the true curve, in um(c)"
    )
    counter.add_argument(
        "--slope", type=float, default=USUAL.slope, metavar="M", help="of the true curve, ln(beta - 1) over ln x"
    )
    counter.add_argument("--intervals", type=int, default=USUAL.intervals, metavar="N", help="how many are counted")
    counter.add_argument("--volume-error", type=float, default=100 * USUAL.volume_error, metavar="PERCENT")
    counter.add_argument("--size-error", type=float, default=100 * USUAL.size_error, metavar="PERCENT")
    counter.add_argument("--seed", type=int, default=1, help="of all that is drawn: the same seed gives the same test")
    counter.add_argument("-o", "--output", type=Path, metavar="FILE", help="written there; printed without it")
    counter.set_defaults(run=run_counter)


def run_counter(arguments: argparse.Namespace) -> int:
    """Write a simulated counted test."""
    _require("--size-at-beta-2", arguments.size_at_beta_2, SMALLEST, LARGEST)
    _require("--slope", arguments.slope, LEAST_SLOPE, STEEPEST_SLOPE)
    _require("--intervals", arguments.intervals, 1, MOST_INTERVALS)
    _require("--volume-error", arguments.volume_error, 0, 50)
    _require("--size-error", arguments.size_error, 0, 50)
    _require("--seed", arguments.seed, 0, 2**63)
    test = replace(
        USUAL,
        size_at_beta_2=arguments.size_at_beta_2,
        slope=arguments.slope,
        intervals=arguments.intervals,
        volume_error=arguments.volume_error / 100,
        size_error=arguments.size_error / 100,
    )
    text = io.StringIO()
    write_csv(test, simulated_counts(test, arguments.seed), text)
    if arguments.output is None:
        put(text.getvalue(), end="")
        return 0
    write_file(arguments.output, text.getvalue().encode())
    return 0


def _require(option: str, value: float, low: float, high: float) -> None:
    if not (isfinite(value) and low <= value <= high):
        raise OutOfRangeError(f"{option} {value:g} must lie between {low:g} and {high:g}")
