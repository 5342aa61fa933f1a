"""A page of a second origin, in a real browser: it changes nothing and reads nothing."""

from __future__ import annotations

import functools
import http.server
import json
import threading

import pytest
from playwright.sync_api import expect

from builders import plain_document

TRIED = """
async ([address, document]) => {
  const said = {}
  const attempt = async (name, work) => { try { said[name] = await work() } catch (error) { said[name] = 'refused' } }
  const json = { 'Content-Type': 'application/json' }
  const post = (path, options) => fetch(address + path, { method: 'POST', ...options })
  await attempt('read', async () => (await fetch(address + '/api/studies')).text())
  await attempt('read with credentials', async () => (await fetch(address + '/api/studies', { credentials: 'include' })).text())
  await attempt('import as JSON', async () => (await post('/api/studies', { body: document, headers: json })).status)
  await attempt('import as text', async () => (await post('/api/studies', { body: document })).status)
  await attempt('import unseen', async () => (await post('/api/studies', { body: document, mode: 'no-cors' })).type)
  await attempt('undo', async () => (await post('/api/samples/1/undo', { mode: 'no-cors' })).type)
  await attempt('undo with a body', async () => (await post('/api/samples/1/undo', { mode: 'no-cors', body: '{}' })).type)
  await attempt('beacon', async () => navigator.sendBeacon(address + '/api/studies', document))
  const remove = { method: 'DELETE', body: '{}', headers: json }
  await attempt('delete', async () => (await fetch(address + '/api/claims/1', remove)).status)
  await attempt('image', () => new Promise((done, fail) => {
    const image = new Image(); image.onload = () => done(image.width); image.onerror = fail; image.src = address + '/mark.svg'
  }))
  await attempt('script', () => new Promise((done, fail) => {
    const script = window.document.createElement('script'); script.onload = () => done('ran'); script.onerror = fail
    script.src = address + '/api/studies/1/document'; window.document.head.append(script)
  }))
  await attempt('socket', () => new Promise((done, fail) => {
    const socket = new WebSocket(address.replace('http', 'ws') + '/api/studies')
    socket.onopen = () => done('open'); socket.onerror = fail
  }))
  return said
}
"""


class Quiet(http.server.SimpleHTTPRequestHandler):
    def log_message(self, *_):
        pass


@pytest.fixture
def elsewhere(tmp_path, server):
    """A page on another port of this machine, with a form that posts to the application and a frame of it."""
    (tmp_path / "www").mkdir()
    document = json.dumps({**plain_document(), "name": "planted"})
    (tmp_path / "www" / "index.html").write_text(
        f"""<form method=post enctype=text/plain action="{server.address}/api/studies">
        <input name='{document[:-1]}, "x' value='": 1}}'><button>post</button></form>
        <form id=undo method=post action="{server.address}/api/samples/1/undo"><button>undo</button></form>
        <iframe src="{server.address}/" title=frame></iframe><a href="{server.address}/">open</a>"""
    )
    serving = http.server.ThreadingHTTPServer(("127.0.0.1", 0), functools.partial(Quiet, directory=tmp_path / "www"))
    threading.Thread(target=serving.serve_forever, daemon=True).start()
    yield f"http://localhost:{serving.server_port}"
    serving.shutdown()
    serving.server_close()


def everything_stored(page, server):
    """Return what the application holds, asked as its own page does."""
    studies = page.request.get(f"{server.address}/api/studies").json()
    return studies, [page.request.get(f"{server.address}/api/studies/{study['id']}/document").json() for study in studies]


@pytest.mark.parametrize("host", ["localhost", "127.0.0.1"])
def test_a_page_of_another_origin_changes_nothing_and_reads_nothing(page, server, elsewhere, own_rules, host):
    """Once of another site (localhost beside 127.0.0.1), once of the same site on another port."""
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    page.locator('[data-key="can.height"] input').first.fill("98.5")
    page.keyboard.press("Enter")  # something to undo
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    before = everything_stored(page, server)
    page.goto(elsewhere.replace("localhost", host))
    words = page.evaluate(TRIED, [server.address, json.dumps({**plain_document(), "name": "planted"})])
    unseen = ("import unseen", "undo", "undo with a body")
    assert {words.pop(name) for name in unseen} <= {"opaque", "refused"}
    words.pop("beacon")  # says only that it was queued
    assert set(words.values()) == {"refused"}, words
    assert page.frames[1].locator("#app").count() == 0  # the frame stays empty
    for button in ("post", "undo"):
        page.goto(elsewhere.replace("localhost", host))
        page.get_by_role("button", name=button).click()
        page.wait_for_url(f"{server.address}/**")
        expect(page.locator("body")).to_contain_text("another page")
    assert everything_stored(page, server) == before
    page.goto(elsewhere.replace("localhost", host))
    page.get_by_role("link", name="open").click()  # a link opens the application
    expect(page.get_by_text("Mountain road service").first).to_be_visible()
    assert {"frame-ancestors" in rule for rule in own_rules} == {True}  # the page was kept from framing it
    own_rules.clear()


def test_a_picture_is_saved_within_the_rules_and_what_is_not_within_them_is_heard(page, server, own_rules):
    with page.expect_download() as download:
        page.goto(f"{server.address}/studies/1/samples/2/map")
        page.get_by_role("button", name="PNG").click()
    assert download.value.suggested_filename.endswith(".png")
    assert own_rules == []
    page.evaluate("document.head.append(Object.assign(document.createElement('script'), { textContent: '0' }))")
    page.wait_for_timeout(100)
    assert own_rules
    own_rules.clear()
