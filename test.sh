#!/usr/bin/env bash
# Installs what the tests need and runs all of them: build, format, lint, core, API on a real PostgreSQL, pages in a real browser.
# Ends with one line "N passed, N failed".
set -euo pipefail
cd "$(dirname "$0")"
LOGS=$PWD/artifacts/test-logs
mkdir -p "$LOGS"
. scripts/steps.sh
. scripts/cluster.sh

need_tools
need_postgres
command -v chromium >/dev/null || step "Installing Chromium from Debian's packages" "Install the package chromium by hand and run this again." install_debian chromium
need_npm_packages

step "Fetching NuGet packages" "Check that the NuGet registry can be reached and run this again." dotnet restore MillCard.slnx --locked-mode
step "Building everything, warnings as errors" "The message above says why." dotnet build MillCard.slnx -c Release --no-restore --nologo -v quiet
step "Holding the API's description against the committed one" "Commit src/MillCard.Web/openapi/v1.json as the build wrote it, and run npm run types -w web." git diff --exit-code --stat -- src/MillCard.Web/openapi
step "Checking the format of C#" "Run: dotnet format MillCard.slnx" dotnet format MillCard.slnx --no-restore --verify-no-changes
step "Checking the format of the rest" "Run: npm run format:fix" npm run format
step "Linting the pages" "The message above says where." npm run lint
step "Building the pages, types held against the API" "If the types drifted: npm run types -w web." npm run build -w web

PASSED=0 FAILED=0
# suite "name" "command that prints passed and failed" — a suite that ran nothing counts as failed
suite() {
    local name=$1 began=$SECONDS log passed failed
    shift
    log="$LOGS/$(printf '%s' "$name" | tr -c 'a-zA-Z0-9\n' '-').log"
    printf '%s … ' "$name"
    read -r passed failed < <("$@" "$log") || true
    passed=${passed:-0} failed=${failed:-1}
    if ((passed + failed == 0)); then failed=1; fi
    say "$passed passed, $failed failed, $((SECONDS - began)) s"
    if ((failed > 0)); then tail -n 60 "$log" >&2; fi
    PASSED=$((PASSED + passed)) FAILED=$((FAILED + failed))
}

xunit() {
    local project=$1 log=$2 total failed
    dotnet run --project "$project" -c Release --no-build -- -noColor >"$log" 2>&1 || true
    total=$(sed -n 's/.*Total: \([0-9]*\), Errors.*/\1/p' "$log")
    failed=$(sed -n 's/.*Errors: \([0-9]*\), Failed: \([0-9]*\).*/\1 + \2/p' "$log")
    [ -n "$total" ] && echo "$((total - (failed))) $((failed))"
}

vitest() {
    npm run test -w web -- --reporter=default --reporter=json --outputFile.json="$LOGS/vitest.json" >"$1" 2>&1 || true
    node -p "const r = JSON.parse(require('fs').readFileSync('$LOGS/vitest.json')); r.numPassedTests + ' ' + r.numFailedTests"
}

playwright() {
    rm -f artifacts/e2e.json
    (cd tests/e2e && npx --no-install playwright test) >"$1" 2>&1 || true
    node -p "const s = JSON.parse(require('fs').readFileSync('artifacts/e2e.json')).stats; s.expected + ' ' + (s.unexpected + s.flaky + s.skipped)"
}

# start.sh and mill-card as their owner calls them, killed, stopped and restored
life() {
    env -u CONNECTION node --test --test-timeout=600000 --test-reporter=tap tests/life/ >"$1" 2>&1 || true
    echo "$(sed -n 's/^# pass //p' "$1") $(($(sed -n 's/^# tests //p' "$1") - $(sed -n 's/^# pass //p' "$1")))"
}

CLUSTER=$(reachable_folder "$(mktemp -d "${TMPDIR:-/tmp}/mill-card-test.XXXXXX")")/cluster
chmod 755 "$(dirname "$CLUSTER")"
trap 'stop_cluster; rm -rf "$(dirname "$CLUSTER")"' EXIT
step "Making a database for the tests" "The message above says why." make_cluster
start_cluster -c fsync=off

suite "Pages' units" vitest
suite "Core" xunit tests/MillCard.Core.Tests
suite "API on PostgreSQL" xunit tests/MillCard.Web.Tests
suite "Pages in Chromium" playwright
suite "Starting, stopping, restoring" life

say ""
say "$PASSED passed, $FAILED failed"
((FAILED == 0))
