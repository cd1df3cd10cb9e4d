# make demo   sets everything up and starts the application on the demo records, http://127.0.0.1:8040
# make test   sets everything up and runs all tests
# make fuzz   the properties on cases never seen before, with the seed that makes them again
# make late   the journeys with every answer late by chance
# make check  linters and types     make bench  benchmarks     make shots  docs/screenshots     make wheel  one file to install
PY := .venv/bin/python
STAMPS := .stamps
INSTALL := scripts/install_packages.sh $(PY)
WEB_SOURCES := $(shell find web/src docs/guide docs/screenshots web/index.html web/*.ts web/*.js web/*.json -type f 2>/dev/null | grep -v -e schema.d.ts -e openapi.json)
API_SOURCES := $(shell find src/rain_porch -name '*.py')

# what Python compiles is kept beside its modules, also where the machine would have it otherwise: tests start many processes
export PYTHONDONTWRITEBYTECODE :=

.PHONY: demo test fuzz late check check-python check-web bench shots wheel types installed clean

demo: $(STAMPS)/python $(STAMPS)/web
	.venv/bin/rain-porch demo

# two processes of tests share the processors: each computes on one; a third takes longer than it saves
test: export OPENBLAS_NUM_THREADS = 1
test: export RAIN_PORCH_TEST_DEMO = $(abspath $(STAMPS)/demo)
test: $(STAMPS)/python-dev $(STAMPS)/web $(STAMPS)/browser $(STAMPS)/demo
	$(PY) -m pytest -n 2 --dist loadfile --no-loadscope-reorder --ignore tests/e2e
	$(PY) -m pytest tests/e2e -n 2 --dist worksteal

# the demo's records, made once for all tests, and anew where the program has changed
$(STAMPS)/demo: $(STAMPS)/python-dev $(API_SOURCES)
	rm -rf $@
	$(PY) -m tests.conftest $@
	@touch $@

# the properties with cases of their own, not those of every day; a failure is made again with the seed that is printed
fuzz: $(STAMPS)/python-dev
	@seed=$$(od -An -N4 -tu4 /dev/urandom | tr -d ' '); echo "seed $$seed"; \
	HYPOTHESIS_PROFILE=fuzz $(PY) -m pytest tests/core tests/records tests/app/workup/test_changes.py tests/app/workup/test_merging.py tests/api/test_stateful.py -n 2 -q --hypothesis-seed=$$seed || { echo "seed $$seed"; exit 1; }

# the journeys with every question up to 600 ms late, by chance: a service far away, and answers in another order
late: export RAIN_PORCH_TEST_LATE = 600
late: export RAIN_PORCH_TEST_DEMO = $(abspath $(STAMPS)/demo)
late: $(STAMPS)/python-dev $(STAMPS)/web $(STAMPS)/browser $(STAMPS)/demo
	$(PY) -m pytest tests/e2e -n 2 --dist worksteal

check: check-python check-web

check-python: $(STAMPS)/python-dev
	.venv/bin/ruff check src tests bench scripts
	.venv/bin/ruff format --check src tests bench scripts
	.venv/bin/mypy
	.venv/bin/lint-imports

check-web: $(STAMPS)/npm web/src/shared/api/schema.d.ts
	cd web && npm run --silent lint && npm run --silent types

bench: $(STAMPS)/python-dev
	$(PY) -m bench

# everything but Python and its packages in one file
wheel: $(STAMPS)/python-dev $(STAMPS)/web
	$(PY) -m pip wheel -q --no-deps -w dist .

shots: $(STAMPS)/python-dev $(STAMPS)/web $(STAMPS)/browser
	$(PY) scripts/make_screenshots.py

$(STAMPS)/python: requirements.lock pyproject.toml
	@mkdir -p $(STAMPS)
	test -x $(PY) || python3.11 -m venv .venv || python3 -m venv .venv
	$(INSTALL) -r requirements.lock
	$(INSTALL) --no-deps -e .
	@touch $@

$(STAMPS)/python-dev: $(STAMPS)/python requirements-dev.lock
	$(INSTALL) -r requirements-dev.lock
	@touch $@

$(STAMPS)/npm: web/package.json web/package-lock.json
	@mkdir -p $(STAMPS)
	cd web && npm ci --no-audit --no-fund --silent
	@touch $@

$(STAMPS)/web: $(STAMPS)/npm $(WEB_SOURCES)
	cd web && npm run --silent build
	@touch $@

# every package of Python and of the front end
installed: $(STAMPS)/python-dev $(STAMPS)/npm

# the browser of the interface's tests, and a proxy to stand behind
$(STAMPS)/browser:
	scripts/install_browser.sh
	@mkdir -p $(STAMPS)
	@touch $@

# the front end's types come from the service's own description
types: web/src/shared/api/schema.d.ts

web/openapi.json: $(STAMPS)/python $(API_SOURCES)
	$(PY) -m rain_porch.api.openapi > $@

web/src/shared/api/schema.d.ts: web/openapi.json $(STAMPS)/npm
	cd web && npm run --silent api

clean:
	rm -rf .venv .stamps .demo web/node_modules src/rain_porch/web web/openapi.json web/src/shared/api/schema.d.ts
