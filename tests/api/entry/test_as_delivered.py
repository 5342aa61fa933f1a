"""The filter as delivered: several faults at once, offers, the mount; the cut in words of one's own."""

from __future__ import annotations

import json

import pytest

from api_steps import detail, details, done, imported, look, overwrite, refused, undo
from tabrel.cli.demo import demo_documents
from tabrel.core.study.model import Offer


def offer(client, sample, **typed):
    return client.post(f"/api/samples/{sample}/offers", json={"shop": "Corner Parts", "price": "9.50 EUR", **typed})


def seen(sheet, key):
    return next(item["value"] for part in sheet["parts"] for item in part["observations"] if item["key"] == key)


def test_several_faults_are_kept_in_one_order_and_own_words_behind(client, blank):
    sheet = done(look(client, blank, "can.delivered", "a scratch; rust;dents; rust"))
    assert seen(sheet, "can.delivered") == "dents; rust; a scratch"
    refused(
        look(client, blank, "can.delivered", "sound; rust"), 422, "can.delivered", "exclude each other: take one of them away"
    )
    assert seen(done(look(client, blank, "can.delivered", "  ")), "can.delivered") is None


def test_one_piece_costs_its_share_of_pack_and_delivery(client, blank):
    """(80 + 4.90) / 10 = 8.49."""
    sheet = done(offer(client, blank, price="80 EUR", pack_of="10", delivery="4.90", seen="3 Oct 2026"))
    [kept] = sheet["offers"]
    assert (kept["price"], kept["pack_of"], kept["delivery"], kept["seen"]) == ("80.00 EUR", 10, "4.90 EUR", "2026-10-03")
    assert kept["each"] == "8.49 EUR"
    assert Offer("x", 80.0, "EUR", 10, 4.9).each == pytest.approx(8.49)
    assert Offer("x", 80.0, "EUR").each == 80.0
    removed = overwrite(client, "DELETE", f"/api/offers/{kept['id']}", {})
    assert done(removed)["offers"] == []
    undo(client, blank)
    assert client.get(f"/api/samples/{blank}").json()["offers"] == [kept]


@pytest.mark.parametrize(
    ("typed", "where", "says"),
    [
        ({"shop": " "}, "shop", "say who offers it"),
        ({"price": ""}, "price", "with its currency"),
        ({"price": "9.50"}, "price", "is no price with its currency"),
        ({"pack_of": "ten"}, "pack_of", "is no number of pieces"),
        ({"pack_of": "0"}, "pack_of", "is no number of pieces"),
        ({"delivery": "4 USD"}, "delivery", "type both in one currency"),
        ({"seen": "31 Feb 2026"}, "seen", "2026"),
    ],
)
def test_an_offer_that_cannot_be_is_refused_at_its_place(client, blank, typed, where, says):
    refused(offer(client, blank, **typed), 422, where, says)
    assert client.get(f"/api/samples/{blank}").json()["offers"] == []


def test_the_mount_is_typed_warned_of_and_emptied(client, blank):
    for key, text in (("engine.thread_diameter", "3/4 in"), ("engine.thread_pitch", "1.5 mm"), ("engine.seat_diameter", "70 mm")):
        done(detail(client, blank, key, text))
    study = client.get(f"/api/samples/{blank}").json()["study_id"]
    assert client.get(f"/api/studies/{study}/document").json()["circuit"]["mount"]["thread_diameter_mm"] == pytest.approx(19.05)
    client.post(
        f"/api/samples/{blank}/readings", json={"key": "thread.major_diameter", "text": "20.0 mm"}, headers={"If-Match": "*"}
    )
    warnings = client.get(f"/api/samples/{blank}").json()["analysis"]["warnings"]
    assert "fit_thread" in {warning["code"] for warning in warnings}
    for key in ("engine.thread_diameter", "engine.thread_pitch", "engine.seat_diameter"):
        done(detail(client, blank, key, ""))
    assert "mount" not in client.get(f"/api/studies/{study}/document").json().get("circuit", {})


def test_tier_restriction_and_warranty_are_kept_as_words_of_ones_own_too(client, blank):
    detail(client, blank, "sample.tier", "Premium")
    detail(client, blank, "sample.restriction", "for mowers only")
    detail(client, blank, "sample.warranty", "one season, with the receipt")
    kept = details(client, blank)
    assert (kept["sample.tier"], kept["sample.restriction"]) == ("premium", "for mowers only")


def test_a_cut_in_own_words_is_taken(client, blank):
    sheet = done(client.post(f"/api/samples/{blank}/cut", json={"method": "a chisel along the seam"}))
    assert sheet["before_cut"]["cut"]["method"] == "a chisel along the seam"


def test_the_first_study_says_what_each_shop_asks(client):
    study = imported(client, json.loads(demo_documents()[0]))
    offers = client.get(f"/api/samples/{study['samples'][0]['id']}").json()["offers"]
    assert [item["each"] for item in offers] == ["11.40 EUR", "10.29 EUR"]
