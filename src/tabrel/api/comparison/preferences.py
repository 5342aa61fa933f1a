"""The analyst's own preferences: which choice of an observation is better, for every study."""

from __future__ import annotations

from fastapi import APIRouter, Response

from tabrel.api import stale
from tabrel.api.comparison.use_models import PreferenceIn, PreferenceOut
from tabrel.api.deps import Connection, FactKey
from tabrel.api.entry.details import known_observation
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES
from tabrel.core.errors import StudyError
from tabrel.store.connection import transaction
from tabrel.store.errors import ChangedMeanwhileError
from tabrel.store.preferences import load_preferences, set_preference

router = APIRouter(prefix="/api", tags=["preferences"], responses=PROBLEM_RESPONSES)


@router.get("/preferences")
def get_preferences(conn: Connection) -> list[PreferenceOut]:
    """Return every observation of which one choice can be preferred, with the order the analyst has given it."""
    orders = load_preferences(conn)
    return [
        PreferenceOut(
            key=observation.key,
            title=observation.title,
            part=PART_TITLES[observation.part],
            choices=[choice.value for choice in observation.choices],
            order=[list(tied) for tied in orders.get(observation.key, ())],
        )
        for observation in OBSERVATIONS.values()
        if not observation.several
    ]


@router.put("/preferences/{key}", responses=stale.naming(200))
def put_preference(key: FactKey, given: PreferenceIn, conn: Connection, response: Response) -> list[PreferenceOut]:
    """Set which choices of an observation are better; an empty order is no preference."""
    observation = known_observation(key)
    choices = {choice.value for choice in observation.choices}
    placed = [choice for tied in given.order for choice in tied]
    for choice in placed:
        if choice not in choices:
            raise StudyError(
                "order", f"{choice!r} is no choice of the {observation.title}: use one of {', '.join(sorted(choices))}"
            )
    if len(placed) != len(set(placed)):
        raise StudyError("order", "has a choice twice: give each one place")
    order = tuple(tuple(tied) for tied in given.order if tied)
    with transaction(conn):
        now = load_preferences(conn).get(key, ())
        if now != tuple(tuple(tied) for tied in given.seen):
            raise ChangedMeanwhileError(
                f"another window has changed what you prefer of the {observation.title}: look, then do it again"
            )
        set_preference(conn, key, order)
    stale.name_stale(response, ["/api/preferences"])
    return get_preferences(conn)
