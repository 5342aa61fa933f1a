"""Offers of a part: what shops ask for it, and what one piece costs."""

from __future__ import annotations

from fastapi import APIRouter

from tabrel.api.change.bench import Bench
from tabrel.api.change.models import ChangedOut
from tabrel.api.deps import OfferId, SampleId
from tabrel.api.entry.dates import dated
from tabrel.api.entry.models import OfferIn
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.wire import NothingIn
from tabrel.core.details.details import DETAILS
from tabrel.core.details.kinds import understood_detail
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.study.model import Offer, Price
from tabrel.store.connection import transaction
from tabrel.store.sample.offers import insert_offer, remove_offer, sample_of_offer
from tabrel.store.sample.samples import study_of_sample

router = APIRouter(prefix="/api", tags=["offers"], responses=PROBLEM_RESPONSES)


@router.post("/samples/{sample_id}/offers", status_code=201)
def post_offer(sample_id: SampleId, given: OfferIn, bench: Bench) -> ChangedOut:
    """Record what a shop asks for the part."""
    with transaction(bench.conn):
        study_of_sample(bench.conn, sample_id)
        offer = _understood(given)
        with bench.recorded(sample_id, f"offer: {offer.shop}, {given.price.strip()}", "offers"):
            insert_offer(bench.conn, sample_id, offer)
    return bench.answer(sample_id)


def _understood(given: OfferIn) -> Offer:
    shop = " ".join(given.shop.split())
    if not shop:
        raise StudyError("shop", "is empty: say who offers it")
    price = _price("price", given.price)
    if price is None:
        raise StudyError("price", "is empty: type it with its currency, such as 9.50 EUR")
    delivery = _price("delivery", f"{given.delivery} {price.currency}" if _is_bare(given.delivery) else given.delivery)
    if delivery is not None and delivery.currency != price.currency:
        raise StudyError("delivery", f"is in {delivery.currency} and the price in {price.currency}: type both in one currency")
    pack = given.pack_of.strip()
    if pack and not (pack.isascii() and pack.isdigit() and 1 <= int(pack) <= 10_000):
        raise StudyError("pack_of", f"{pack!r} is no number of pieces: type how many are in the pack, such as 10")
    return Offer(
        shop,
        price.amount,
        price.currency,
        pack_of=int(pack) if pack and int(pack) > 1 else None,
        delivery=delivery.amount if delivery else None,
        seen=dated("seen", given.seen),
    )


def _is_bare(text: str) -> bool:
    return bool(text.strip()) and not any(letter.isalpha() or letter in "€$£" for letter in text)


def _price(where: str, text: str) -> Price | None:
    try:
        understood: Price | None = understood_detail(DETAILS["sample.price"], text, "metric")
    except ReadingTextError as error:
        raise StudyError(where, str(error)) from error
    return understood


@router.delete("/offers/{offer_id}")
def delete_offer(offer_id: OfferId, _: NothingIn, bench: Bench) -> ChangedOut:
    """Remove an offer that was typed wrongly; undo brings it back."""
    with transaction(bench.conn):
        sample_id = sample_of_offer(bench.conn, offer_id)
        bench.require_seen(
            sample_id, f"offers/{offer_id}", "another window has changed this offer meanwhile: look, then remove it"
        )
        with bench.recorded(sample_id, "offer removed", "offers"):
            remove_offer(bench.conn, offer_id)
    return bench.answer(sample_id)
