# Golden Pivot. `make help` lists what there is.

PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
STAMPS := .stamps
export PIP_DISABLE_PIP_VERSION_CHECK = 1

.DEFAULT_GOAL := help
.PHONY: help setup demo test check check-python check-web unit browser-tests bench shots mutate defects random size generated fix clean

help: ## this list
	@grep -E '^[a-z-]+:.*## ' $(MAKEFILE_LIST) | sed -E 's/^([a-z-]+):.*## /\1\t/' | expand -t 14

setup: $(STAMPS)/python $(STAMPS)/web ## install everything and build the front end

demo: setup ## serve the application with its demo shelf, on this machine only
	$(BIN)/golden-pivot serve --demo --data var/demo.sqlite3

# What does not wait for each other is done side by side.
test: ## set up, then run every check
	@$(MAKE) --no-print-directory -j3 setup $(STAMPS)/chromium check
	@$(MAKE) --no-print-directory unit
	@$(MAKE) --no-print-directory browser-tests

check: check-python check-web ## formatting, types and lint of both halves

check-python: $(STAMPS)/python
	$(BIN)/ruff format --check src tests scripts
	$(BIN)/ruff check src tests scripts
	$(BIN)/mypy src/golden_pivot

check-web: check-web-format check-web-types check-web-lint check-web-test

check-web-%: $(STAMPS)/node
	cd web && npm run --silent $*

unit: setup ## core, store, API and command line
	$(BIN)/python -m pytest tests --ignore=tests/browser -n 2 --dist worksteal

browser-tests: setup $(STAMPS)/chromium ## the real interface in headless Chromium
	$(BIN)/python -m pytest tests/browser -p no:schemathesis -p no:hypothesispytest -n 2 --dist worksteal

bench: setup $(STAMPS)/chromium ## how fast, as ratios; from the core to the verdict on the screen; BEFORE=commit beside an earlier one
	BENCH_BROWSER=1 $(BIN)/python -m scripts.bench

shots: setup $(STAMPS)/chromium ## retake docs/screenshots from the demo shelf
	$(BIN)/python -m scripts.shots

mutate: setup ## perturb the meaning of every step; fails if the tests let one pass
	$(BIN)/python -m scripts.mutate

defects: setup ## put defects into a copy, one at a time; fails if the tests against the reference let one pass
	$(BIN)/python -m scripts.defects

random: setup ## random routines that were not tried before, against the reference; pairs of kinds first, then again and again until one disagrees
	$(BIN)/python -m scripts.pairs
	@while RANDOM_ROUTINES=200 $(BIN)/python -m pytest tests/core/test_three_ways.py tests/core/test_looks.py tests/core/test_faces_forgotten.py tests/core/test_around_the_proof.py tests/core/desks/test_odds.py -n 2; do :; done

size: ## share of tests in the code
	@$(PYTHON) scripts/size.py

generated: $(STAMPS)/python ## rewrite what follows from the code: language reference, API description and its types
	$(BIN)/python -m scripts.generate
	cd web && npm run --silent schema

fix: setup ## put the formatting right
	$(BIN)/ruff format src tests scripts
	$(BIN)/ruff check --fix src tests scripts
	cd web && npx --no-install prettier --write "src/**/*.{ts,tsx}"

clean: ## remove everything that setup made
	rm -rf $(VENV) $(STAMPS) web/node_modules web/dist

$(STAMPS)/python: requirements.lock pyproject.toml
	@mkdir -p $(STAMPS)
	test -x $(BIN)/python || $(PYTHON) -m venv $(VENV)
	$(BIN)/pip install --quiet --require-hashes -r requirements.lock
	$(BIN)/pip install --quiet --no-build-isolation --no-deps -e .
	@touch $@

$(STAMPS)/node: web/package-lock.json web/package.json
	@mkdir -p $(STAMPS)
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

$(STAMPS)/web: $(STAMPS)/node web/index.html web/vite.config.ts $(shell find web/src web/public -type f 2>/dev/null)
	cd web && npm run --silent build
	@touch $@

# Debian's Chromium; a browser download of its own would not be pinned by the distribution.
$(STAMPS)/chromium:
	@mkdir -p $(STAMPS)
	test -x /usr/bin/chromium || { \
	  SUDO=$$(test "$$(id -u)" = 0 || echo sudo); \
	  $$SUDO apt-get update -qq && $$SUDO apt-get install -y -qq --no-install-recommends chromium; }
	@touch $@
