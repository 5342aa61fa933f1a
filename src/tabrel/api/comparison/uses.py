"""The uses of a study: what its filters are to be good for."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache

from fastapi import APIRouter, Response

from tabrel.api import stale
from tabrel.api.comparison.use_models import (
    ComparedNameOut,
    MeasureNumberIn,
    MeasureNumberOut,
    MeasureOut,
    NewUseIn,
    PresetOut,
    StoredUseOut,
    UseChangeIn,
    UsesOut,
)
from tabrel.api.deps import Connection, StudyId, UseId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.wire import NothingIn
from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES, MEASURE_ROWS, USE_NUMBERS, better_of, measure_unit
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.catalogue.units import ShownUnit
from tabrel.core.entry.stated_number import number_text, understood_number
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.judge.presets import preset_named, presets_for
from tabrel.core.rules.limits import MOST_USES
from tabrel.core.rules.uses import check_use
from tabrel.core.study.uses import Use, labels_in
from tabrel.store.connection import transaction
from tabrel.store.errors import ChangedMeanwhileError
from tabrel.store.journal import recorded
from tabrel.store.sample.samples import load_samples, names_of_samples
from tabrel.store.study.studies import load_study_frame
from tabrel.store.study.uses import StoredUse, add_use, change_use, load_stored_uses, remove_use, study_of_use

router = APIRouter(prefix="/api", tags=["uses"], responses=PROBLEM_RESPONSES)

PLACE = "uses"
"""Where the journal says a use was changed."""


@router.get("/studies/{study_id}/uses")
def get_uses(study_id: StudyId, conn: Connection) -> UsesOut:
    """Return the uses of a study, and what is there to make one."""
    study = load_study_frame(conn, study_id)
    samples = [
        (i, stored_sample) for i, stored_sample in enumerate(load_samples(conn, study_id)) if not stored_sample.sample.archived
    ]
    return UsesOut(
        uses=[StoredUseOut(id=stored.id, use=stored.use) for stored in load_stored_uses(conn, study_id)],
        presets=[PresetOut(name=preset.use.name, about=preset.about) for preset in presets_for(study)],
        measures=list(_measures()),
        filters=[
            ComparedNameOut(sample_id=stored_sample.id, label=stored_sample.sample.label, rack_place=i)
            for i, stored_sample in samples
        ],
        shops=sorted({offer.shop for _, stored_sample in samples for offer in stored_sample.sample.offers}),
        tiers=sorted({stored_sample.sample.tier for _, stored_sample in samples if stored_sample.sample.tier}),
    )


@router.post("/studies/{study_id}/uses", status_code=201, responses=stale.naming(201))
def post_use(study_id: StudyId, given: NewUseIn, conn: Connection, response: Response) -> StoredUseOut:
    """Add a use that begins with a preset."""
    with transaction(conn):
        study = load_study_frame(conn, study_id)
        preset = preset_named(study, given.preset)
        if preset is None:
            names = [item.use.name for item in presets_for(study)]
            hint = nearest_hint(given.preset, names)
            raise StudyError("preset", f"{given.preset!r} is no use to begin with{hint}: choose one of {', '.join(names)}")
        if len(study.uses) >= MOST_USES:
            raise StudyError("preset", f"there are {MOST_USES} uses, as many as a study holds: remove one that nobody needs")
        use = replace(preset, name=_free_name(preset.name, [item.name for item in study.uses]))
        with recorded(conn, study_id, None, f"use {use.name} added", PLACE):
            use_id = add_use(conn, study_id, use)
    _say_stale(response, conn, study_id)
    return StoredUseOut(id=use_id, use=use)


@router.put("/uses/{use_id}", responses=stale.naming(200))
def put_use(use_id: UseId, given: UseChangeIn, conn: Connection, response: Response) -> StoredUseOut:
    """Change a use; refused where it is no longer as it was seen."""
    with transaction(conn):
        study_id = study_of_use(conn, use_id)
        load_study_frame(conn, study_id)
        stored = load_stored_uses(conn, study_id)
        now = next(stored_use.use for stored_use in stored if stored_use.id == use_id)
        if given.use == now:
            return StoredUseOut(id=use_id, use=now)
        if given.seen != now:
            raise ChangedMeanwhileError(f"another window has changed the use {now.name!r} meanwhile: look, then do it again")
        _check(given.use, use_id, stored, [sample.label for sample in names_of_samples(conn, study_id)])
        with recorded(conn, study_id, None, f"use {given.use.name}: {_what_changed(now, given.use)}", PLACE):
            change_use(conn, use_id, given.use)
    _say_stale(response, conn, study_id)
    return StoredUseOut(id=use_id, use=given.use)


@router.delete("/uses/{use_id}", responses=stale.naming(200))
def delete_use(use_id: UseId, _: NothingIn, conn: Connection, response: Response) -> UsesOut:
    """Remove a use; undo brings it back."""
    with transaction(conn):
        study_id = study_of_use(conn, use_id)
        load_study_frame(conn, study_id)
        name = next(stored.use.name for stored in load_stored_uses(conn, study_id) if stored.id == use_id)
        with recorded(conn, study_id, None, f"use {name} removed", PLACE):
            remove_use(conn, use_id)
    _say_stale(response, conn, study_id)
    return get_uses(study_id, conn)


@router.post("/measure-number")
def post_measure_number(given: MeasureNumberIn) -> MeasureNumberOut:
    """Return what a number typed for a measure, a point or a weight means, in the measure's unit and as shown in each family."""
    row = MEASURE_ROWS.get(given.measure) or USE_NUMBERS.get(given.measure)
    if row is None:
        hint = nearest_hint(given.measure, MEASURE_ROWS)
        raise StudyError("measure", f"{given.measure!r} is no measure that is a number{hint}: choose one of the list")
    is_permeability = measure_unit(given.measure, "metric").symbol == "µm²"
    try:
        value = understood_number(given.text, "um2" if is_permeability else row.symbol, row.title, given.family)
    except ReadingTextError as error:
        raise StudyError("text", str(error)) from error
    unit = "µm²" if is_permeability else row.unit
    shown = {family: number_text(value, unit, family) or "" for family in ("metric", "inch")}
    return MeasureNumberOut(value=value * 1e-12 if is_permeability else value, metric=shown["metric"], inch=shown["inch"])


def _check(use: Use, use_id: int, stored: Iterable[StoredUse], labels: list[str]) -> None:
    """Refuse a use that cannot be, or has the name of another; what it says of a deleted sample stays for its return."""
    kept = labels_in(next(stored_use.use for stored_use in stored if stored_use.id == use_id))
    check_use("use", use, [*labels, *(label for label in kept if label not in labels)])
    if any(stored_use.use.name == use.name for stored_use in stored if stored_use.id != use_id):
        raise StudyError("use.name", f"{use.name!r} names another use of this study: give each its own name")


_CHANGED: dict[str, tuple[str, ...]] = {
    "points": ("temperature_c", "speed_rpm", "hot_temperature_c", "hot_speed_rpm"),
    "criteria": ("criteria",),
    "requirements": ("requirements", "bypass_not_asked"),
    "ranking method": ("ranked_by",),
    "verdicts": ("verdicts",),
    "filters compared": ("tier",),
    "what a filter costs": ("shop", "interval_km", "interval_h"),
}


def _what_changed(before: Use, after: Use) -> str:
    changed = [words for words, names in _CHANGED.items() if any(getattr(before, n) != getattr(after, n) for n in names)]
    renamed = [f"called {before.name} before"] if before.name != after.name else []
    return ", ".join(renamed + changed)


def _free_name(name: str, taken: list[str]) -> str:
    number, free = 1, name
    while free in taken:
        number += 1
        free = f"{name} {number}"
    return free


def _say_stale(response: Response, conn: sqlite3.Connection, study_id: int) -> None:
    stale.name_stale(response, stale.whole_study(study_id, (sample.id for sample in names_of_samples(conn, study_id))))


@lru_cache
def _measures() -> tuple[MeasureOut, ...]:
    numbers = [_number(key) for key in MEASURE_ROWS]
    bare = ShownUnit(symbol="")
    seen = [
        MeasureOut(
            key=observation.key,
            title=observation.title,
            group=PART_TITLES[observation.part],
            is_number=False,
            better=None,
            metric=bare,
            inch=bare,
            choices=[choice.value for choice in observation.choices],
        )
        for observation in OBSERVATIONS.values()
    ]
    return (*numbers, *seen)


_RESULT_KEYS = {row.key for row in RESULTS.values()}


def _number(key: str) -> MeasureOut:
    row = MEASURE_ROWS[key]
    if key in QUANTITIES:
        group = PART_TITLES[QUANTITIES[key].part]
    elif key in BEHAVIOUR_MEASURES:
        group = "Behaviour at the points of the use"
    else:
        group = "Results" if key in _RESULT_KEYS else "Price and construction"
    metric, inch = shown_units(key)
    return MeasureOut(
        key=key,
        title=row.title,
        group=group,
        is_number=True,
        better=better_of(key),
        metric=metric,
        inch=inch,
        choices=[],
    )


def shown_units(measure: str) -> tuple[ShownUnit, ShownUnit]:
    """Return the unit of a measure in each family; of what is no number, or has no unit, an empty one."""
    return measure_unit(measure, "metric"), measure_unit(measure, "inch")
