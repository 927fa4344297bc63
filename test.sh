#!/usr/bin/env bash
# Installs what the tests need and runs all of them: build, format, lint, core, API on a real PostgreSQL, pages in a real browser.
# Ends with one line "N passed, N failed". With --quick, for the daily round: build, and the tests that need neither database nor browser.
set -euo pipefail
cd "$(dirname "$0")"
LOGS=$PWD/artifacts/test-logs
mkdir -p "$LOGS"
. scripts/steps.sh
. scripts/cluster.sh

QUICK=no
[ "${1:-}" = --quick ] && QUICK=yes

need_tools
need_npm_packages
if [ "$QUICK" = no ]; then
    need_postgres
    command -v chromium >/dev/null || step "Installing Chromium from Debian's packages" \
        "Install the package chromium by hand and run this again." install_debian chromium
fi

# what needs no build of the server runs beside it; its outcome is told behind it
look_at_pages() {
    (npm run format && npm run lint) >"$LOGS/pages.log" 2>&1 && echo 0 >"$LOGS/pages.code"
}
pages_outcome() {
    cat "$LOGS/pages.log"
    return "$(cat "$LOGS/pages.code")"
}

step "Fetching NuGet packages" "Check that the NuGet registry can be reached and run this again." dotnet restore MillCard.slnx --locked-mode
if [ "$QUICK" = no ]; then
    echo 1 >"$LOGS/pages.code"
    look_at_pages &
    PAGES=$!
fi
step "Building everything, warnings as errors" "The message above says why." \
    dotnet build MillCard.slnx -c Release --no-restore --nologo -v quiet
step "Holding the API's description against the committed one" \
    "Commit src/MillCard.Web/openapi/v1.json as the build wrote it, and run npm run types -w web." \
    git diff --exit-code --stat -- src/MillCard.Web/openapi
step "Checking the format of C#" "Run: dotnet format MillCard.slnx" \
    dotnet format whitespace . --folder --verify-no-changes --exclude node_modules web artifacts
step "Holding the notices against the lock files" "Run: node scripts/notices.mjs" node scripts/notices.mjs --check
if [ "$QUICK" = no ]; then
    step "Building the pages, types held against the API" "If the types drifted: npm run types -w web." npm run build -w web
    step "Holding the pages to their size" \
        "Load what is not wanted at once in a chunk of its own, or raise the budget in scripts/sizes.mjs." \
        npm run sizes -w web
    wait "$PAGES" || true
    step "Formatting and linting the rest" "Formatting: npm run format:fix. Lint: the message above says where." pages_outcome
fi

PASSED=0 FAILED=0 FAILING=
# suite "name" "command that prints passed and failed" — a suite that ran nothing counts as failed
suite() {
    local name=$1
    shift
    printf '%s … ' "$name"
    outcome "$name" "$@" >"$LOGS/outcome"
    told "$name" "$LOGS/outcome"
}

# prints passed, failed and seconds
outcome() {
    local name=$1 began=$SECONDS passed failed
    shift
    read -r passed failed < <("$@" "$(log_of "$name")") || true
    echo "${passed:-0} ${failed:-1} $((SECONDS - began))"
}

log_of() { printf '%s/%s.log' "$LOGS" "$(printf '%s' "$1" | tr -c 'a-zA-Z0-9\n' '-')"; }

# the names of a suite's failed tests, as xunit, vitest, Playwright and node each write them
failing() {
    sed 's/\x1b\[[0-9;]*m//g' "$(log_of "$1")" | grep -E '\[FAIL\]|^ *[0-9]+\) .*›|^ *not ok |^ *FAIL  ' | sort -u | head -n 40 ||
        echo "$1: its log names no test"
}

told() {
    local name=$1 passed failed took
    read -r passed failed took <"$2"
    if ((passed + failed == 0)); then failed=1; fi
    say "$passed passed, $failed failed, $took s"
    if ((failed > 0)); then
        tail -n 200 "$(log_of "$name")" >&2
        FAILING+=$(failing "$name")$'\n'
    fi
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
    node -p "const s = JSON.parse(require('fs').readFileSync('artifacts/e2e.json')).stats
        s.expected + ' ' + (s.unexpected + s.flaky + s.skipped)"
}

# start.sh and mill-card as their owner calls them, killed, stopped and restored
life() {
    env -u CONNECTION DOTNET_TieredCompilation=1 node --test --test-timeout=1800000 --test-reporter=tap tests/life/ >"$1" 2>&1 || true
    echo "$(sed -n 's/^# pass //p' "$1") $(($(sed -n 's/^# tests //p' "$1") - $(sed -n 's/^# pass //p' "$1")))"
}

# once more at the end, where a cut report still has it
result() {
    say ""
    [ -z "$FAILING" ] || printf '%s' "$FAILING"
    say "$PASSED passed, $FAILED failed"
}

if [ "$QUICK" = yes ]; then
    suite "Pages' units" vitest
    suite "Core" xunit tests/MillCard.Core.Tests
    result
    exit $((FAILED > 0))
fi

CLUSTER=$(reachable_folder "$(mktemp -d "${TMPDIR:-/tmp}/mill-card-test.XXXXXX")")/cluster
chmod 755 "$(dirname "$CLUSTER")"
trap 'stop_cluster; rm -rf "$(dirname "$CLUSTER")"' EXIT
step "Making a database for the tests" "The message above says why." make_cluster
start_cluster -c fsync=off

# computes all the time and waits for nothing: it takes the time that the others leave, so that nothing in them is silent for too long
core() {
    renice -n 10 -p "$BASHPID" >"$1"
    xunit tests/MillCard.Core.Tests "$1"
}

# the others mostly wait, for pages, a database and processes of their own: they run beside it and one another
beside() {
    local name=$1
    shift
    outcome "$name" "$@" >"$(log_of "$name").outcome" &
    BESIDE["$name"]=$!
}
await() {
    printf '%s … ' "$1"
    wait "${BESIDE[$1]}"
    told "$1" "$(log_of "$1").outcome"
}

declare -A BESIDE
beside "Starting, stopping, restoring" life
beside "Pages in Chromium" playwright
beside "Core" core
suite "Pages' units" vitest
suite "API on PostgreSQL" xunit tests/MillCard.Web.Tests
await "Pages in Chromium"
await "Starting, stopping, restoring"
await "Core"

result
((FAILED == 0))
