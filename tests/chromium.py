"""Debian's Chromium, as the interface tests and the pictures of the docs start it."""

EXECUTABLE = "/usr/bin/chromium"
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
]
