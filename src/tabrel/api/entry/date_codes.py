"""Date codes of samples, read by rules that the analyst states; a date is offered and never taken unasked."""

from __future__ import annotations

import sqlite3
from datetime import date

from fastapi import APIRouter, Response

from tabrel.api import stale
from tabrel.api.deps import Connection, RuleId, SampleId
from tabrel.api.entry.models import DateCodeOut, DateCodeReadingOut, DateCodeRuleIn, DateCodeRuleOut
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.wire import NothingIn
from tabrel.core.entry.date_codes import check_rule, decoded, pattern_words
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.rules.refusals import is_date
from tabrel.core.study.library import DateCodeRule
from tabrel.core.study.model import Sample
from tabrel.store.connection import snapshot, transaction
from tabrel.store.entry.date_codes import date_code_rules, insert_rule, remove_rule
from tabrel.store.sample.samples import load_stated

router = APIRouter(prefix="/api", tags=["date codes"], responses=PROBLEM_RESPONSES)

EVERY_CODE = "/api/samples/*/date-code"
"""Addresses that a changed rule makes stale."""


@router.get("/samples/{sample_id}/date-code")
def get_date_code(sample_id: SampleId, conn: Connection) -> DateCodeOut:
    """Return what the rules make of a sample's date code, and what is to be said of that."""
    with snapshot(conn):
        return _date_code(conn, load_stated(conn, sample_id).sample)


def _date_code(conn: sqlite3.Connection, sample: Sample) -> DateCodeOut:
    rules = date_code_rules(conn)
    latest = _latest(sample)
    readings = [
        DateCodeReadingOut(
            rule=rule.name, iso=decoded_date.iso, words=decoded_date.words, decade_before=decoded_date.decade_before
        )
        for _, rule in rules
        if sample.date_code and rule.reads(sample.maker) and (decoded_date := decoded(rule, sample.date_code, latest))
    ]
    return DateCodeOut(
        code=sample.date_code,
        readings=readings,
        says=_says(sample, readings, any(rule.reads(sample.maker) for _, rule in rules)),
        rules=[
            DateCodeRuleOut(id=rule_id, name=rule.name, pattern=rule.pattern, maker=rule.maker, words=pattern_words(rule.pattern))
            for rule_id, rule in rules
        ],
    )


def _latest(sample: Sample) -> date:
    """Return the last day on which the filter can have been made."""
    if sample.bought and len(sample.bought) == 10 and is_date(sample.bought):
        return date.fromisoformat(sample.bought)
    return date.today()


def _says(sample: Sample, readings: list[DateCodeReadingOut], has_rules: bool) -> str | None:
    """Return what is to be looked at, or None."""
    if sample.date_code is None or not has_rules:
        return None
    if not readings:
        return f"no rule fits {sample.date_code!r}: correct the code, or state how its maker writes it"
    dates = {reading.iso for reading in readings}
    if len(dates) > 1:
        return f"the rules read {sample.date_code!r} in {len(dates)} ways: take the one that is right"
    [iso] = dates
    made, possible = sample.made, {iso, *(reading.decade_before for reading in readings if reading.decade_before)}
    if made and not any(text.startswith(made) or made.startswith(text) for text in possible):
        return f"made on says {made}, and the code {iso}: check both"
    return None


@router.post("/samples/{sample_id}/date-code/rules", status_code=201, responses=stale.naming(201))
def post_rule(sample_id: SampleId, given: DateCodeRuleIn, conn: Connection, response: Response) -> DateCodeOut:
    """State how codes such as a sample's are read; a rule that does not fit that code is refused."""
    with transaction(conn):
        sample = load_stated(conn, sample_id).sample
        if not sample.date_code:
            raise StudyError("date_code", "there is no date code yet: type it as stamped, then say how it is read")
        name, pattern = " ".join(given.name.split()), " ".join(given.pattern.split())
        rule = DateCodeRule(name, pattern, " ".join((given.maker or "").split()) or None)
        if not name:
            raise StudyError("name", "is empty: type a short name for the rule")
        try:
            check_rule(rule)
        except ReadingTextError as error:
            raise StudyError("pattern", str(error)) from error
        if not rule.reads(sample.maker):
            raise StudyError("maker", f"this filter is of {sample.maker or 'no maker yet'}: leave the maker empty, or correct it")
        if decoded(rule, sample.date_code, _latest(sample)) is None:
            wants = pattern_words(pattern)
            raise StudyError("pattern", f"fits {sample.date_code!r} in no way; it wants: {wants}. Correct the rule or the code")
        insert_rule(conn, rule)
        stale.name_stale(response, [EVERY_CODE])
        return _date_code(conn, sample)


@router.delete("/date-code-rules/{rule_id}", responses=stale.naming(200))
def delete_rule(rule_id: RuleId, _: NothingIn, conn: Connection, response: Response) -> list[DateCodeRuleOut]:
    """Remove a rule; dates that were taken by it stay."""
    with transaction(conn):
        remove_rule(conn, rule_id)
    stale.name_stale(response, [EVERY_CODE])
    return [
        DateCodeRuleOut(id=number, name=rule.name, pattern=rule.pattern, maker=rule.maker, words=pattern_words(rule.pattern))
        for number, rule in date_code_rules(conn)
    ]
