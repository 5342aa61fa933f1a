"""The catalogue of observations: what is seen, stage by stage."""

from __future__ import annotations

from tabrel.core.catalogue.observation import Observation
from tabrel.core.catalogue.observed_inside import INSIDE
from tabrel.core.catalogue.observed_outside import OUTSIDE

OBSERVATIONS: dict[str, Observation] = {observation.key: observation for observation in (*OUTSIDE, *INSIDE)}
"""By key, in the order of the bench."""
