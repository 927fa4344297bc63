# A PostgreSQL cluster of the project's own, on loopback. Sourced, not run.
# Expects CLUSTER, its folder, to be set; sets CONNECTION, what the server connects with.

# initdb and postgres refuse to run as root: root lends them the account of Debian's package
as_owner() {
    if [ "$(id -u)" = 0 ]; then runuser -u postgres -- "$@"; else "$@"; fi
}

free_port() {
    node -e 'const s = require("net").createServer().listen(0, "127.0.0.1", () => { console.log(s.address().port); s.close() })'
}

# A folder that the cluster's account can reach: the wished one, or another where a parent is closed to it.
reachable_folder() {
    local wished=$1 parent
    mkdir -p "$wished"
    if [ "$(id -u)" = 0 ] && ! runuser -u postgres -- test -x "$wished"; then
        parent="/var/lib/mill-card/$(printf '%s' "$wished" | sha256sum | cut -c1-12)"
        mkdir -p "$parent"
        say "PostgreSQL's account cannot reach $wished; the database is kept in $parent." >&2
        wished=$parent
    fi
    printf '%s' "$wished"
}

make_cluster() {
    local bin secret
    bin=$(postgres_bin)
    mkdir -p "$CLUSTER"
    secret=$CLUSTER.password
    (umask 077 && head -c 24 /dev/urandom | base64 | tr -d '/+=' >"$secret")
    if [ "$(id -u)" = 0 ]; then chown postgres "$CLUSTER" "$secret"; fi
    as_owner "$bin/initdb" -D "$CLUSTER" -U app -E UTF8 --locale=C.UTF-8 --auth-host=scram-sha-256 --auth-local=reject --pwfile="$secret"
}

# Starts the cluster on a free port, or finds it running.
start_cluster() {
    local bin port password
    bin=$(postgres_bin)
    if ! as_owner "$bin/pg_ctl" -D "$CLUSTER" status >/dev/null 2>&1; then
        port=$(free_port)
        as_owner "$bin/pg_ctl" -w -D "$CLUSTER" -l "$CLUSTER/server.log" \
            -o "-c listen_addresses=127.0.0.1 -p $port -c unix_socket_directories= -c max_connections=60 $*" start >/dev/null ||
            fail "The database did not start. Its log: $CLUSTER/server.log"
    fi
    port=$(as_owner sed -n 4p "$CLUSTER/postmaster.pid")
    password=$(cat "$CLUSTER.password")
    CONNECTION="Host=127.0.0.1;Port=$port;Username=app;Password=$password;Database=postgres"
    export CONNECTION
}

stop_cluster() {
    as_owner "$(postgres_bin)/pg_ctl" -m fast -w -D "$CLUSTER" stop >/dev/null 2>&1 || true
}
