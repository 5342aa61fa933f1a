# Tabrel. `make demo` sets up and starts with demo data; `make test` sets up and runs every test.

SHELL := /bin/bash
.SHELLFLAGS := -eu -o pipefail -c
.DELETE_ON_ERROR:
.PHONY: setup demo serve wheel test tests checks web-checks bench torture types glossary fonts screenshots check-python check-node chromium clean

PYTHON ?= $(shell command -v python3.11 || command -v python3)
VENV := .venv
BIN := $(VENV)/bin
UV := $(BIN)/uv
STATIC := src/tabrel/static/index.html
INSTALL := $(UV) pip install --quiet --require-hashes --compile-bytecode -r

setup: $(VENV)/run.stamp $(STATIC)

demo: setup
	@exec $(BIN)/tabrel demo

serve: setup
	@exec $(BIN)/tabrel serve

test:
	@$(MAKE) --no-print-directory -j3 tests checks web-checks

tests: setup $(VENV)/test.stamp chromium
	$(BIN)/pytest -n auto --dist worksteal

checks: $(VENV)/test.stamp
	$(BIN)/ruff check src tests bench docs
	$(BIN)/mypy

web-checks: web/node_modules/.stamp build/openapi.json build/catalogue.json
	cd web && npx openapi-typescript ../build/openapi.json -o ../build/schema.d.ts >/dev/null
	@cmp --silent build/schema.d.ts web/src/api/schema.d.ts \
	  || { echo "web/src/api/schema.d.ts is stale: run 'make types' and commit it"; exit 1; }
	cd web && npm run --silent check && npm run --silent lint && npm run --silent test

bench: setup $(VENV)/test.stamp chromium
	PYTHONPATH=tests $(BIN)/python bench/run.py

torture: setup $(VENV)/test.stamp
	PYTHONPATH=tests:tests/reliability $(BIN)/python -W ignore tests/reliability/run.py

types: $(VENV)/run.stamp web/node_modules/.stamp build/openapi.json build/catalogue.json
	cd web && npm run --silent types

glossary: $(VENV)/run.stamp
	$(BIN)/python -m tabrel.api.openapi glossary > docs/glossary.md

fonts: setup $(VENV)/test.stamp
	$(BIN)/python docs/make_report_fonts.py

screenshots: setup $(VENV)/test.stamp chromium
	PYTHONPATH=tests $(BIN)/python docs/take_screenshots.py

.PHONY: build/openapi.json build/catalogue.json
build/openapi.json: $(VENV)/run.stamp
	@mkdir -p build
	@$(BIN)/python -m tabrel.api.openapi > $@

build/catalogue.json: $(VENV)/run.stamp
	@mkdir -p build
	@$(BIN)/python -m tabrel.api.openapi catalogue > $@

$(VENV)/uv.stamp: requirements/uv.txt | check-python
	test -x $(BIN)/python || $(PYTHON) -m venv $(VENV)
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements/uv.txt
	@touch $@

$(VENV)/run.stamp: $(VENV)/uv.stamp requirements/run.txt pyproject.toml
	$(INSTALL) requirements/run.txt
	$(UV) pip install --quiet --no-deps --no-build-isolation -e .
	@touch $@

$(VENV)/test.stamp: $(VENV)/run.stamp requirements/test.txt
	$(INSTALL) requirements/test.txt
	@touch $@

web/node_modules/.stamp: web/package-lock.json web/package.json | check-node
	cd web && npm ci --silent --no-audit --no-fund
	@touch $@

$(STATIC): web/node_modules/.stamp web/index.html web/vite.config.ts docs/make_notices.py $(shell find web/src -type f 2>/dev/null) | $(VENV)/run.stamp
	cd web && npm run --silent build
	$(BIN)/python docs/make_notices.py
	@touch $@

# A wheel with the front end in it, from a copy without what earlier builds left.
DIST ?= build/dist
wheel: setup
	@rm -rf build/wheel && mkdir -p build/wheel $(DIST)
	@cp -r pyproject.toml README.md src build/wheel && rm -rf build/wheel/src/*.egg-info
	@find build/wheel -name __pycache__ -prune -exec rm -rf {} +
	@$(UV) build --quiet --wheel --no-build-isolation --python $(BIN)/python --out-dir $(DIST) build/wheel
	@ls $(DIST)/*.whl

check-python:
	@$(PYTHON) -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null \
	  || { echo "Tabrel needs Python 3.11 or newer as '$(PYTHON)': install it, or name it with make PYTHON=..."; exit 1; }
	@$(PYTHON) -c 'import venv, ensurepip' 2>/dev/null \
	  || { echo "This Python lacks venv: install it (on Debian: apt-get install python3-venv)"; exit 1; }

check-node:
	@node -e 'process.exit(Number(process.versions.node.split(".")[0]) < 20 ? 1 : 0)' 2>/dev/null \
	  || { echo "Tabrel needs Node 20 or newer, with npm: install it and run make again"; exit 1; }

chromium:
	@command -v chromium-headless-shell >/dev/null || command -v chromium >/dev/null \
	  || { echo "installing Debian's Chromium for the interface tests"; apt-get update -qq && apt-get install -y -qq chromium-headless-shell >/dev/null; } \
	  || { echo "The interface tests need Chromium, and it may not be installed from here: install the package 'chromium-headless-shell' as an administrator"; exit 1; }

clean:
	rm -rf $(VENV) web/node_modules src/tabrel/static build
