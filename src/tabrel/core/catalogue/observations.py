"""The catalogue of attributes: what is seen, stage by stage."""

from __future__ import annotations

from tabrel.core.catalogue.observation import Attribute
from tabrel.core.catalogue.observed_inside import INSIDE
from tabrel.core.catalogue.observed_outside import OUTSIDE

ATTRIBUTES: dict[str, Attribute] = {attribute.key: attribute for attribute in (*OUTSIDE, *INSIDE)}
"""By key, in the order of the bench."""
