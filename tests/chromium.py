"""Debian's headless Chromium, as the interface tests and the pictures of the docs start it."""

from __future__ import annotations

import shutil

EXECUTABLE = shutil.which("chromium-headless-shell") or "/usr/bin/chromium"
"""The headless one draws no window of its own: a page costs it a third less processor time."""
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--renderer-process-limit=1",
]
