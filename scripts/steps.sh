# Shared by start.sh and test.sh: steps with progress, and what the project needs installed. Sourced, not run.

say() { printf '%s\n' "$*"; }

fail() {
    printf '\n%s\n' "$*" >&2
    exit 1
}

# step "what it does" "what to do when it fails" command…
step() {
    local what=$1 remedy=$2
    shift 2
    local log="$LOGS/$(printf '%s' "$what" | tr -c 'a-zA-Z0-9\n' '-').log"
    local began=$SECONDS
    printf '%s … ' "$what"
    ("$@") >"$log" 2>&1 9>&- &
    local worker=$! code=0
    while kill -0 "$worker" 2>/dev/null; do
        sleep 0.2
        if ((SECONDS - began >= 10 && (SECONDS - began) % 10 == 0)); then
            printf '%ss ' "$((SECONDS - began))"
            sleep 0.9
        fi
    done
    wait "$worker" || code=$?
    if ((code == 0)); then
        say "done, $((SECONDS - began)) s"
        return
    fi
    say "failed"
    tail -n 40 "$log" >&2
    fail "\"$what\" failed (all of its output: $log). $remedy"
}

as_root() {
    if [ "$(id -u)" = 0 ]; then "$@"; elif command -v sudo >/dev/null; then sudo "$@"; else
        say "This needs root: $*"
        return 1
    fi
}

postgres_bin() {
    local found
    if found=$(pg_config --bindir 2>/dev/null) && [ -x "$found/initdb" ]; then
        printf '%s' "$found"
        return
    fi
    for found in /usr/lib/postgresql/*/bin; do
        if [ -x "$found/initdb" ]; then
            printf '%s' "$found"
            return
        fi
    done
    return 1
}

install_debian() {
    export DEBIAN_FRONTEND=noninteractive
    # the package's own cluster is not wanted: the project brings its own
    as_root mkdir -p /etc/postgresql-common
    [ -e /etc/postgresql-common/createcluster.conf ] ||
        printf 'create_main_cluster = false\n' | as_root tee /etc/postgresql-common/createcluster.conf >/dev/null
    as_root apt-get update
    as_root apt-get install -y --no-install-recommends "$@"
}

need_tools() {
    command -v dotnet >/dev/null || fail "The .NET SDK 10 is missing. Install it and run this again."
    command -v node >/dev/null || fail "Node.js 20 or later is missing. Install it and run this again."
    local node_major
    node_major=$(node -p 'process.versions.node.split(".")[0]')
    ((node_major >= 20)) || fail "Node.js $node_major is too old; 20 or later is needed."
}

need_postgres() {
    postgres_bin >/dev/null && return
    step "Installing PostgreSQL from Debian's packages" \
        "Install the package postgresql by hand and run this again." install_debian postgresql
}

need_npm_packages() {
    if [ node_modules/.package-lock.json -nt package-lock.json ] ||
        [ node_modules/.package-lock.json -ef package-lock.json ]; then return; fi
    step "Fetching npm packages" "Check that the npm registry can be reached and run this again." npm ci --no-audit --no-fund
}
