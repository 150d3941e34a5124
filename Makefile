# Two workers share two cores: one thread each for the linear algebra is twice as fast as two.
export OPENBLAS_NUM_THREADS := 1

# make demo    install, build, seed and serve the demo; prints its address
# make test    everything: checks, tests of the core, the API and the interface in real Chromium
# make quick   under a minute: checks of the Python, and the tests that need no browser, no store on disk, no dictionary
# make check   ruff, mypy, import contracts, biome, tsc
# make harsh   attacks at full size: kills, full disks, damaged and hostile files, twenty technicians
# make bench   speed, side by side with a bare store in the same run
# make shots   the pictures in docs/screenshots
# make dev     API and interface with live reload
PYTHON ?= $(shell command -v python3.11 || command -v python3)
UV := .venv/bin/uv
UV_VERSION := 0.13.9
PORT ?= 4740
STATIC := src/ohmcensus/web/static/index.html
UI_SOURCES := $(shell find ui/src ui/build -type f) ui/index.html ui/vite.config.ts ui/package.json
SYSTEM := chromium ngspice pdftotext

.PHONY: demo test quick check check-python check-ui unit bench harsh shots dev types lock system clean
.DELETE_ON_ERROR:

demo: .make/run $(STATIC)
	.venv/bin/ohmcensus demo --port $(PORT)

# What needs one core goes two by two, then pytest has both.
test:
	$(MAKE) --no-print-directory --jobs=2 --output-sync=target .make/dev $(STATIC) system check unit
	.venv/bin/pytest -n 2 $(if $(SKIP_SYSTEM),-m "not system")

quick: .make/dev
	.venv/bin/ruff check .
	.venv/bin/mypy
	.venv/bin/lint-imports
	.venv/bin/pytest -n 2 -m "not slow and not system" tests/core tests/exchange tests/services

check: check-python check-ui

check-python: .make/dev
	.venv/bin/ruff check .
	.venv/bin/ruff format --check .
	.venv/bin/mypy
	.venv/bin/lint-imports

check-ui: .make/ui
	cd ui && npm run --silent check

unit: .make/ui
	cd ui && npm run --silent test

bench: .make/dev $(STATIC)
	.venv/bin/python -m benchmarks

harsh: .make/dev $(STATIC)
	.venv/bin/python -m benchmarks.harsh

shots: .make/dev $(STATIC)
	.venv/bin/python -m scripts.shots docs/screenshots

dev: .make/run .make/ui
	.venv/bin/ohmcensus demo & cd ui && npm run dev

# The API's description and, from it, the types of the interface.
types: .make/dev .make/ui
	.venv/bin/python -m ohmcensus.web.describe docs/formats
	.venv/bin/python -m tests.examples ui/tests/examples
	cd ui && npm run --silent types

lock: .venv/bin/uv
	$(UV) pip compile pyproject.toml --generate-hashes --no-header --no-annotate -q -o requirements.lock
	$(UV) pip compile pyproject.toml --extra dev --extra outside -c requirements.lock --generate-hashes --no-header --no-annotate -q -o requirements-dev.lock

# Chromium, ngspice and pdftotext (of poppler-utils) come from the system; where apt may not run, say what to do.
system:
ifdef SKIP_SYSTEM
	@test -z "$$CI" || { echo "SKIP_SYSTEM is not for CI: its tests must run"; exit 1; }
	@echo "SKIP_SYSTEM: the tests that need $(SYSTEM) are left out"
else
	@missing=""; for name in $(SYSTEM); do \
	  command -v $$name >/dev/null || missing="$$missing $$(echo $$name | sed s/pdftotext/poppler-utils/)"; done; \
	if [ -n "$$missing" ]; then \
	  if [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null; then \
	    apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq $$missing >/dev/null; \
	  else \
	    echo "missing:$$missing. Install with: sudo apt-get install$$missing (or make test SKIP_SYSTEM=1 to leave their tests out)"; exit 1; \
	  fi; \
	fi
endif

.venv/bin/uv:
	$(PYTHON) -m venv .venv
	.venv/bin/python -m pip install --quiet --disable-pip-version-check uv==$(UV_VERSION)

.make/run: requirements.lock pyproject.toml | .venv/bin/uv
	@test -e .make/dev || $(UV) pip install --quiet --python .venv --compile-bytecode --require-hashes -r requirements.lock
	$(UV) pip install --quiet --python .venv --no-deps -e .
	.venv/bin/python -m compileall -q src
	@mkdir -p .make && touch $@

.make/dev: requirements-dev.lock .make/run
	$(UV) pip install --quiet --python .venv --compile-bytecode --require-hashes -r requirements-dev.lock
	@touch $@

.make/ui: ui/package-lock.json ui/package.json ui/.npmrc
	cd ui && npm ci --silent --no-progress
	@mkdir -p .make && touch $@

$(STATIC): .make/ui $(UI_SOURCES)
	cd ui && npm run --silent build

clean:
	rm -rf .venv .make ui/node_modules src/ohmcensus/web/static
