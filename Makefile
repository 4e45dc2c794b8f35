# Pendrum: `make demo` installs and serves the demo, `make test` installs and runs every check.
PY := .venv/bin/python
MANAGE := $(PY) server/manage.py
BIND ?= 127.0.0.1:8734
CHROMIUM := /usr/bin/chromium
WEB_SOURCES := $(shell find web/src web/public -type f 2>/dev/null) web/vite.config.ts web/package-lock.json

# What the print engine of reports needs of the system, where it is not there; everything else works without.
PRINT_LIBRARIES = { command -v apt-get >/dev/null && S= && { [ "$$(id -u)" = 0 ] || S=sudo; } && $$S apt-get update -qq \
  && $$S apt-get install -yqq --no-install-recommends libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0; } \
  || echo "Reports as PDF need libpango-1.0-0, libpangoft2-1.0-0 and libharfbuzz-subset0: install them."

.PHONY: demo test check quick format lint types contracts generated-check generated core-tests server-tests browser build serve bench pictures

demo: .venv/.run web/dist/.built
	@PENDRUM_DEMO=1 $(MANAGE) migrate -v0
	@PENDRUM_DEMO=1 $(MANAGE) load_demo
	@cd server && PENDRUM_DEMO=1 PENDRUM_BIND=$(BIND) PYTHONPATH=..:. ../.venv/bin/python -m config.serve

# The server's tests keep one core busy and the browser's the other: they run beside each other.
test: quick core-tests
	@$(MAKE) --no-print-directory -j2 server-tests browser

check: quick core-tests server-tests

quick: format lint types contracts generated-check

.venv/bin/python:
	python3.11 -m venv .venv || python3 -m venv .venv

.venv/.run: requirements.lock core/pyproject.toml | .venv/bin/python
	$(PY) -m pip install -q --disable-pip-version-check -r requirements.lock
	$(PY) -m pip install -q --disable-pip-version-check --no-deps -e core
	@$(PY) -c "import weasyprint" 2>/dev/null || $(PRINT_LIBRARIES)
	@touch $@

.venv/.dev: requirements-dev.lock .venv/.run
	$(PY) -m pip install -q --disable-pip-version-check -r requirements-dev.lock
	@touch $@

web/node_modules/.installed: web/package-lock.json
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

web/dist/.built: web/node_modules/.installed $(WEB_SOURCES)
	cd web && npm run -s build
	@touch $@

build: web/dist/.built

# What a machine needs for the browser tests, where it is not there.
$(CHROMIUM):
	@if command -v apt-get >/dev/null; then \
	  S=; [ "$$(id -u)" = 0 ] || S=sudo; \
	  $$S apt-get update -qq && $$S apt-get install -yqq --no-install-recommends chromium; \
	else echo "Install Chromium at $(CHROMIUM)." && exit 1; fi

format: .venv/.dev web/node_modules/.installed
	.venv/bin/ruff format --check .
	cd web && npm run -s format

lint: .venv/.dev web/node_modules/.installed
	.venv/bin/ruff check .
	cd web && npm run -s lint

types: .venv/.dev web/node_modules/.installed
	.venv/bin/mypy
	cd web && npm run -s types

contracts: .venv/.dev
	PYTHONPATH=server:core .venv/bin/lint-imports

generated: .venv/.dev web/node_modules/.installed
	$(MANAGE) write_generated
	cd web && npm run -s api && npx vitest run tests/words.spec.ts --config vitest.config.ts --update

generated-check: .venv/.dev web/node_modules/.installed
	$(MANAGE) write_generated --check
	$(MANAGE) makemigrations --check --dry-run -v0
	cd web && npx openapi-typescript ../server/openapi.json -o ../var/schema.d.ts >/dev/null && cmp ../var/schema.d.ts src/api/schema.d.ts

core-tests: .venv/.dev
	$(MANAGE) test core --parallel 2

server-tests: .venv/.dev web/node_modules/.installed
	$(MANAGE) test server docs

browser: .venv/.dev web/dist/.built $(CHROMIUM)
	DJANGO_ALLOW_ASYNC_UNSAFE=true $(MANAGE) test e2e

bench: .venv/.dev
	$(PY) bench/run.py

# The pictures of docs/screenshots anew, from the demo.
pictures: .venv/.dev web/dist/.built $(CHROMIUM)
	$(PY) bench/pictures.py
