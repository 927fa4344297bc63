#!/usr/bin/env bash
# Installs what is missing, builds, and runs Mill Card with a database of its own; starts again what dies.
# PORT: where it answers on 127.0.0.1 (7420); the stand-in printer of the demo answers one port higher where that is free.
# MILLCARD_DATA: folder of the database and logs (.data here).
set -euo pipefail
cd "$(dirname "$0")"
PORT=${PORT:-7420}
. scripts/steps.sh
. scripts/cluster.sh
. scripts/data.sh
readonly LONGEST_PAUSE=60 HEALTHY_AFTER=300 NEWER_DATA=78

lock_data
need_tools

# what an earlier start left behind when it was ended the hard way
end_left() {
    local left what=$2
    left=$(cat "$1" 2>/dev/null || true)
    [ -n "$left" ] && tr '\0' ' ' <"/proc/$left/cmdline" 2>/dev/null | grep -qF "$what" || return 0
    say "Ending process $left, which an earlier start left behind."
    kill -TERM "$left" 2>/dev/null || true
    for ((i = 0; i < 300; i++)); do kill -0 "$left" 2>/dev/null || return 0; sleep 0.2; done
    kill -KILL "$left" 2>/dev/null || true
}
end_left "$DATA/server.pid" "MillCard.Web.dll --data $DATA "
end_left "$DATA/printer.pid" "MillCard.StandIn.dll --data $DATA "

owner=$(node scripts/who-has-port.mjs "$PORT")
[ -z "$owner" ] || fail "Port $PORT is taken by $owner. Stop that, or set PORT to another."
STAND_IN_PORT=$((PORT + 1))
[ -z "$(node scripts/who-has-port.mjs "$STAND_IN_PORT")" ] || STAND_IN_PORT=$(free_port)

need_postgres
need_npm_packages
build_server
build_pages
find_cluster
if [ ! -e "$CLUSTER/PG_VERSION" ]; then
    step "Making the database" "Run this again." make_cluster
fi

server='' printer='' ending='' code=0
stop() {
    trap '' INT TERM
    trap - EXIT
    if [ -n "$server" ] && kill -0 "$server" 2>/dev/null; then
        kill -TERM "$server" 2>/dev/null || true
        wait "$server" 2>/dev/null || true
    fi
    # the server may have had to switch it off
    if [ -n "$printer" ]; then kill -TERM "$printer" 2>/dev/null || true; fi
    [ -z "${CLUSTER:-}" ] || stop_cluster
    rm -f "$DATA/server.pid" "$DATA/printer.pid"
    say "Stopped."
}
# Ctrl+C is the server's to answer: while a print is out it asks once
trap 'ending=1; [ -n "$server" ] && kill -INT "$server" 2>/dev/null || exit 130' INT
trap 'stop; exit 0' TERM HUP
trap stop EXIT

run_printer() {
    set -m
    dotnet "$STAND_IN" --data "$DATA" --cards demo/cards --card dunlin --port "$STAND_IN_PORT" --speed 20 >>"$LOGS/stand-in.log" 2>&1 9>&- &
    printer=$!
    set +m
    echo "$printer" >"$DATA/printer.pid"
}

# in a process group of its own, so that Ctrl+C reaches it through this script alone
run_server() {
    set -m
    ConnectionStrings__MillCard=$CONNECTION Demo=demo DemoProofs=${MILLCARD_DEMO_PROOFS:-true} Pages=web/dist Logs=$LOGS \
        StandIn__Port=$STAND_IN_PORT Patterns__Folders__0=$DATA/patterns DOTNET_ENVIRONMENT=Production \
        dotnet "$SERVER" --data "$DATA" --urls "http://127.0.0.1:$PORT" 9>&- &
    server=$!
    set +m
    echo "$server" >"$DATA/server.pid"
}

answers() {
    node -e "fetch('http://127.0.0.1:$PORT/api/health').then(r => process.exit(r.ok ? 0 : 1), () => process.exit(1))" 2>/dev/null
}

alive() { kill -0 "$1" 2>/dev/null; }

start_cluster
run_printer
run_server
for ((i = 0; i < 600; i++)); do
    if ! alive "$server"; then
        wait "$server" || code=$?
        ((code == NEWER_DATA)) && exit "$code"
        fail "The server ended at once; the message above says why."
    fi
    if answers; then break; fi
    sleep 0.2
done
((i < 600)) || fail "The server did not answer within two minutes."
say ""
say "Mill Card is at http://127.0.0.1:$PORT   (Ctrl+C stops it)"

pause=1 since=$SECONDS
again() {
    say "$(date '+%H:%M:%S') $1; starting it again in $pause s."
    sleep "$pause"
    pause=$((pause * 2 > LONGEST_PAUSE ? LONGEST_PAUSE : pause * 2))
    since=$SECONDS
}
for ((round = 0; ; round++)); do
    sleep 1 &
    wait $! || true
    if ((SECONDS - since > HEALTHY_AFTER)); then pause=1; fi
    if ((round % 60 == 0)); then
        rotate_log "$CLUSTER/server.log"
        rotate_log "$LOGS/stand-in.log"
    fi
    if ! cluster_pid >/dev/null; then
        again "The database has ended"
        until (start_cluster); do again "The database does not start"; done
        start_cluster
        # its port may be another now: the server learns it by a start of its own
        if alive "$server"; then kill -TERM "$server" 2>/dev/null || true; wait "$server" 2>/dev/null || true; fi
        run_server
    elif ! alive "$server"; then
        code=0
        wait "$server" || code=$?
        if [ -n "$ending" ] && ((code == 0)); then exit 0; fi
        again "The server has ended, with $code"
        run_server
    elif ! alive "$printer"; then
        run_printer
    fi
done
