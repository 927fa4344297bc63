# Where the data stands and who may use it. Sourced, not run; after steps.sh and cluster.sh.
# MILLCARD_DATA: folder of the database and logs (.data here). Sets DATA, LOGS, CLUSTER.

mkdir -p "${MILLCARD_DATA:=.data}"
DATA=$(cd "$MILLCARD_DATA" && pwd)
LOGS=$DATA/logs
mkdir -p "$LOGS"

# One user of the data at a time; children do not inherit the lock, so that it ends with this script.
lock_data() {
    exec 9>"$DATA/lock"
    flock -n 9 || fail "Mill Card already runs on the data in $DATA. Stop it, or set MILLCARD_DATA and PORT for a second copy."
}

find_cluster() {
    CLUSTER=$(reachable_folder "$DATA/db")/cluster
}

SERVER=src/MillCard.Web/bin/Release/net10.0/MillCard.Web.dll
STAND_IN=src/MillCard.StandIn/bin/Release/net10.0/MillCard.StandIn.dll

# Whether anything that a build is made of is newer than it.
older_than_sources() {
    local built=$1
    shift
    [ ! -e "$built" ] || [ -n "$(find "$@" -newer "$built" -print -quit)" ]
}

build_server() {
    older_than_sources "$SERVER" src demo patterns Directory.Build.props Directory.Packages.props \
        -name bin -prune -o -name obj -prune -o -name openapi -prune -o -type f || return 0
    step "Building the server" "The message above says why." dotnet build src/MillCard.Web -c Release --nologo -v quiet
    step "Building the stand-in printer" "The message above says why." dotnet build src/MillCard.StandIn -c Release --nologo -v quiet
    touch "$SERVER"
}

build_pages() {
    older_than_sources web/dist/index.html web src/MillCard.Web/openapi \
        -name node_modules -prune -o -name dist -prune -o -type f || return 0
    step "Building the pages" "The message above says why." npm run build -w web
    touch web/dist/index.html
}
