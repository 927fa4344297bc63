#!/usr/bin/env bash
# Times the core and general-purpose libraries on the same files in one run and prints both with their ratio.
# Arguments go to BenchmarkDotNet, such as --filter '*Sections*'.
set -euo pipefail
cd "$(dirname "$0")/.."
OUT=$PWD/artifacts/bench
export BENCH_FILES=$OUT/files
mkdir -p "$OUT"
dotnet build bench/MillCard.Bench -c Release --nologo -v quiet
run() { dotnet run --project bench/MillCard.Bench -c Release --no-build -- "$@"; }
run files
node bench/reference/measure.mjs "$BENCH_FILES" "$OUT/reference.json"
run --filter '*' --job short --exporters briefjson --artifacts "$OUT" "$@" >"$OUT/run.log"
node bench/reference/table.mjs "$OUT/reference.json" "$OUT/results"
run growth
run memory
run threads
