# A PostgreSQL cluster of the project's own, on loopback. Sourced, not run.
# Expects CLUSTER, its folder, to be set; sets CONNECTION, what the server connects with.

DATABASE_LOG_BYTES=5242880

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

# Made beside its place and moved there when it is complete: whatever ends this in between, the next start begins anew.
make_cluster() {
    local bin making secret
    bin=$(postgres_bin)
    making=$CLUSTER.making.$$
    rm -rf "$CLUSTER".making.*
    mkdir -p "$making"
    secret=$making.password
    (umask 077 && head -c 24 /dev/urandom | base64 | tr -d '/+=' >"$secret")
    if [ "$(id -u)" = 0 ]; then chown postgres "$making" "$secret"; fi
    as_owner "$bin/initdb" -D "$making" -U app -E UTF8 --locale=C.UTF-8 --auth-host=scram-sha-256 --auth-local=reject --pwfile="$secret"
    mv -T "$secret" "$CLUSTER.password"
    rm -rf "$CLUSTER"
    mv -T "$making" "$CLUSTER"
    sync "$CLUSTER" "$CLUSTER.password"
}

# Whether a process is the server of this cluster: a number in a file may be another program's by now.
is_postmaster() {
    local pid=$1
    case $pid in '' | *[!0-9]*) return 1 ;; esac
    [ -r "/proc/$pid/cmdline" ] || return 1
    tr '\0' '\n' <"/proc/$pid/cmdline" | grep -qxF -- "$CLUSTER" && tr '\0' '\n' <"/proc/$pid/cmdline" | head -1 | grep -q 'postgres$'
}

cluster_pid() {
    local pid
    pid=$(as_owner head -1 "$CLUSTER/postmaster.pid" 2>/dev/null) || return 1
    is_postmaster "$pid" && printf '%s' "$pid"
}

# Refuses data that the installed PostgreSQL cannot read.
check_cluster_version() {
    local made installed
    made=$(as_owner cat "$CLUSTER/PG_VERSION")
    installed=$("$(postgres_bin)/postgres" --version | sed 's/[^0-9]*\([0-9]*\).*/\1/')
    [ "$made" = "$installed" ] && return
    fail "The data in $CLUSTER was made by PostgreSQL $made; PostgreSQL $installed is installed here.
Install the package postgresql-$made, or take a backup where it still runs (./mill-card backup FILE)
and restore it into an empty folder here (./mill-card restore FILE)."
}

# Starts the cluster on a free port, or finds it running.
start_cluster() {
    local bin port password
    bin=$(postgres_bin)
    check_cluster_version
    if ! cluster_pid >/dev/null; then
        as_owner rm -f "$CLUSTER/postmaster.pid"
        port=$(free_port)
        as_owner "$bin/pg_ctl" -w -t 120 -D "$CLUSTER" -l "$CLUSTER/server.log" \
            -o "-c listen_addresses=127.0.0.1 -p $port -c unix_socket_directories= -c max_connections=60 $*" start >/dev/null 9>&- ||
            fail "The database did not start. Its log: $CLUSTER/server.log"
    fi
    port=$(as_owner sed -n 4p "$CLUSTER/postmaster.pid")
    password=$(cat "$CLUSTER.password")
    CONNECTION="Host=127.0.0.1;Port=$port;Username=app;Password=$password;Database=postgres"
    export CONNECTION PGHOST=127.0.0.1 PGPORT=$port PGUSER=app PGPASSWORD=$password PGDATABASE=postgres
}

stop_cluster() {
    as_owner "$(postgres_bin)/pg_ctl" -m fast -w -D "$CLUSTER" stop >/dev/null 2>&1 || true
}

# Keeps a log that others append to within bounds: the last part of it, and the part before.
rotate_log() {
    local log=$1
    [ "$(stat -c %s "$log" 2>/dev/null || echo 0)" -gt "$DATABASE_LOG_BYTES" ] || return 0
    cp "$log" "$log.1" && : >"$log"
}
