"""Offers of shops for a part, as the sheet shows them."""

from __future__ import annotations

from tabrel.api.sample.models import OfferOut
from tabrel.core.study.model import Offer


def offer_out(offer_id: int, offer: Offer) -> OfferOut:
    """Return an offer with what one piece costs."""
    return OfferOut(
        id=offer_id,
        shop=offer.shop,
        price=f"{offer.amount:.2f} {offer.currency}",
        pack_of=offer.pack_of or 1,
        delivery=None if offer.delivery is None else f"{offer.delivery:.2f} {offer.currency}",
        seen=offer.seen,
        each=f"{offer.each:.2f} {offer.currency}",
        each_amount=offer.each,
        currency=offer.currency,
    )
