#!/usr/bin/env bash
# Installs what is missing, builds, and runs Mill Card with a database of its own.
# PORT: where it answers on 127.0.0.1 (7420); the stand-in printer of the demo answers one port higher. MILLCARD_DATA: folder of the database and logs (.data here).
set -euo pipefail
cd "$(dirname "$0")"
PORT=${PORT:-7420}
mkdir -p "${MILLCARD_DATA:=.data}"
DATA=$(cd "$MILLCARD_DATA" && pwd)
LOGS=$DATA/logs
mkdir -p "$LOGS"
. scripts/steps.sh
. scripts/cluster.sh

exec 9>"$DATA/lock"
flock -n 9 || fail "Mill Card already runs on the data in $DATA. Stop it, or set MILLCARD_DATA and PORT for a second copy."

need_tools
need_postgres
need_npm_packages

SERVER=src/MillCard.Web/bin/Release/net10.0/MillCard.Web.dll
if [ ! -e "$SERVER" ] || [ -n "$(find src demo Directory.Build.props Directory.Packages.props -name bin -prune -o -name obj -prune -o -name openapi -prune -o -type f -newer "$SERVER" -print -quit)" ]; then
    step "Building the server" "The message above says why." dotnet build src/MillCard.Web -c Release --nologo -v quiet
    step "Building the stand-in printer" "The message above says why." dotnet build src/MillCard.StandIn -c Release --nologo -v quiet
    touch "$SERVER"
fi
PAGES=web/dist/index.html
if [ ! -e "$PAGES" ] || [ -n "$(find web src/MillCard.Web/openapi -name node_modules -prune -o -name dist -prune -o -type f -newer "$PAGES" -print -quit)" ]; then
    step "Building the pages" "The message above says why." npm run build -w web
    touch "$PAGES"
fi

HOME_OF_CLUSTER=$(reachable_folder "$DATA/db")
CLUSTER=$HOME_OF_CLUSTER/cluster
if [ ! -e "$CLUSTER/PG_VERSION" ]; then
    step "Making the database" "Delete $CLUSTER and run this again." make_cluster
fi

server= printer=
stop() {
    trap - INT TERM EXIT
    if [ -n "$printer" ] && kill -0 "$printer" 2>/dev/null; then kill -TERM "$printer" 2>/dev/null || true; wait "$printer" 2>/dev/null || true; fi
    if [ -n "$server" ] && kill -0 "$server" 2>/dev/null; then
        kill -TERM "$server" 2>/dev/null || true
        wait "$server" 2>/dev/null || true
    fi
    stop_cluster
    say "Stopped."
}
trap 'stop; exit 0' INT TERM
trap stop EXIT

start_cluster
dotnet src/MillCard.StandIn/bin/Release/net10.0/MillCard.StandIn.dll --cards demo/cards --card dunlin --port $((PORT + 1)) --speed 20 >"$LOGS/stand-in.log" 2>&1 9>&- &
printer=$!
ConnectionStrings__MillCard=$CONNECTION Demo=demo Pages=web/dist DOTNET_ENVIRONMENT=Production \
    dotnet "$SERVER" --urls "http://127.0.0.1:$PORT" 9>&- &
server=$!
for ((i = 0; i < 300; i++)); do
    kill -0 "$server" 2>/dev/null || fail "The server ended at once. If the message above speaks of the address, port $PORT is taken: set PORT to another."
    if node -e "fetch('http://127.0.0.1:$PORT/api/health').then(r => process.exit(r.ok ? 0 : 1), () => process.exit(1))" 2>/dev/null; then break; fi
    sleep 0.2
done
((i < 300)) || fail "The server did not answer within a minute."
say ""
say "Mill Card is at http://127.0.0.1:$PORT   (Ctrl+C stops it)"
wait "$server" || true
