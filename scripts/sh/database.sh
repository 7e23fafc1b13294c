# The database of this instance: made, started on its own port, migrated, dumped, stopped. Sourced by ./surrik.

# Set for a cluster that goes when it was looked at: it is not written through to the disk.
DB_FLEETING=""
pg_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1; }
# initdb and the server refuse root: as root they run as the postgres user.
as_pg() { if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else (cd / && "$@"); fi; }
pg_user() { if [ "$(id -u)" = 0 ]; then echo postgres; else id -un; fi; }
pg_running() { [ -n "${DB_PORT:-}" ] && "$BIN/pg_isready" -q -t 3 -h "$RUN" -p "$DB_PORT"; }
port_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
secret() { sed -n "s/^$1=//p" "$BASE/secrets"; }
boot_psql() { as_pg "$BIN/psql" -X -q -h "$RUN" -p "$DB_PORT" -U surrik_boot -v ON_ERROR_STOP=1 "$@"; }
# The process that its own file names, if it still is one.
postmaster() { local pid; pid=$(head -1 "$DATA/postmaster.pid" 2>/dev/null) && kill -0 "$pid" 2>/dev/null && echo "$pid"; }

db_lock() { exec 9>"$BASE/lock"; flock -w 120 9 || die "another surrik command has held $BASE/lock for two minutes" "wait for it, or end it"; }
db_unlock() { flock -u 9; }

# Starts it where it ran before: a server that is up knows its database by that port. Another port only where a
# stranger holds this one. After a crash the old backends end first; that takes them seconds, and is waited for.
db_start() {
  local tries=0 from="${SURRIK_DB_PORT_FROM:-54310}" pid
  [ "$(id -u)" = 0 ] && { touch "$LOG"; chown postgres "$LOG"; }
  if pid=$(postmaster); then # there, and does not answer: stopped, or hung
    kill -CONT "$pid" 2>/dev/null || true
    for _ in 1 2 3 4; do pg_running && return 0; sleep 0.5; done
    as_pg "$BIN/pg_ctl" -D "$DATA" -m immediate -w -t 20 stop >/dev/null 2>&1 || kill -KILL "$pid" 2>/dev/null || true
  fi
  while :; do
    if [ -z "$DB_PORT" ]; then DB_PORT=$from; while ! port_free "$DB_PORT"; do DB_PORT=$((DB_PORT + 1)); done; fi
    if as_pg "$BIN/pg_ctl" -D "$DATA" -w -t 60 -l "$LOG" -o "-p $DB_PORT ${DB_FLEETING:+-F}" start >/dev/null 2>&1 9>&- </dev/null; then break; fi
    tries=$((tries + 1))
    [ $tries -lt 60 ] || return 1
    if [ $tries -ge 6 ] && ! port_free "$DB_PORT"; then from=$((DB_PORT + 1)); DB_PORT=""; fi
    sleep 0.5
  done
  echo "$DB_PORT" > "$BASE/db-port"
}

db_up() {
  apt_need '/usr/lib/postgresql/*/bin/initdb' postgresql
  BIN=$(pg_bin)
  mkdir -p "$BASE" || die "cannot write $BASE" "make it writable for $(id -un), or set SURRIK_INSTANCE"
  if [ "$(id -u)" = 0 ]; then as_pg test -x "$BASE" || die "the postgres user cannot reach $BASE" "allow it: chmod o+x on every folder above it"; fi
  db_lock
  room "$BASE" 300 "the database"
  if [ ! -f "$BASE/secrets" ]; then
    ( umask 077; for name in OWNER_PASSWORD APP_PASSWORD COOKIE_SECRET; do echo "$name=$(head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n')"; done
      echo "DEMO_PASSWORD=$(head -c 5 /dev/urandom | od -An -tx1 | tr -d ' \n')" ) > "$BASE/secrets"
    chmod 600 "$BASE/secrets"
  fi
  mkdir -p "$RUN"; chmod 700 "$RUN"; [ "$(id -u)" = 0 ] && chown postgres "$RUN"
  [ -f "$DATA/PG_VERSION" ] || db_make
  DB_PORT=$(cat "$BASE/db-port" 2>/dev/null || true)
  if ! pg_running; then
    db_start || { tail -5 "$LOG" >&2; die "PostgreSQL did not start" "the lines above are the end of $LOG"; }
    DB_STARTED=1
  fi
  export SURRIK_DB_PORT="$DB_PORT"
  db_roles
  db_unlock
}

db_make() {
  step "making a database in $BASE"
  rm -rf "$DATA"; mkdir -p "$DATA"; chmod 700 "$DATA"; [ "$(id -u)" = 0 ] && chown postgres "$DATA"
  as_pg "$BIN/initdb" ${DB_FLEETING:+--no-sync} -D "$DATA" -U surrik_boot --auth-local=peer --auth-host=scram-sha-256 -E UTF8 --locale=C.UTF-8 >/tmp/surrik-initdb.$$ 2>&1 \
    || { tail -3 /tmp/surrik-initdb.$$ >&2; rm -rf "$DATA"; die "initdb failed" "the lines above say why"; }
  rm -f /tmp/surrik-initdb.$$
  # The superuser exists on the socket only; over loopback only the two named roles may come in.
  printf 'local all surrik_boot peer map=boot\nhost all surrik_owner,surrik_app 127.0.0.1/32 scram-sha-256\n' | as_pg tee "$DATA/pg_hba.conf" >/dev/null
  printf 'boot %s surrik_boot\n' "$(pg_user)" | as_pg tee "$DATA/pg_ident.conf" >/dev/null
  printf "listen_addresses='127.0.0.1'\nunix_socket_directories='%s'\ntimezone='UTC'\nmax_connections=60\nlog_min_messages=warning\n" "$RUN" | as_pg tee -a "$DATA/postgresql.conf" >/dev/null
}

db_roles() {
  if [ "$(boot_psql -d postgres -Atc "SELECT count(*) FROM pg_roles WHERE rolname IN ('surrik_owner','surrik_app')")" != 2 ]; then
    boot_psql -d postgres >/dev/null <<SQL
DO \$\$ BEGIN
  IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname='surrik_owner') THEN CREATE ROLE surrik_owner LOGIN CREATEDB NOSUPERUSER PASSWORD '$(secret OWNER_PASSWORD)'; END IF;
  IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname='surrik_app') THEN CREATE ROLE surrik_app LOGIN NOSUPERUSER NOBYPASSRLS NOCREATEDB PASSWORD '$(secret APP_PASSWORD)'; END IF;
END \$\$;
SQL
  fi
  [ "$(boot_psql -d postgres -Atc "SELECT count(*) FROM pg_database WHERE datname='surrik'")" = 1 ] \
    || boot_psql -d postgres -c "CREATE DATABASE surrik OWNER surrik_owner" >/dev/null
}

db_migrate() {
  # A dump goes before any change to the shape of somebody's data, and the change is tried on it first.
  local pending dump; pending=$(node .build/maintain.mjs pending)
  if [ "$pending" != 0 ] && [ "$(boot_psql -d surrik -Atc "SELECT to_regclass('public.jobs') IS NOT NULL")" = t ]; then
    dump="$BASE/before-migration/$(date -u +%Y%m%dT%H%M%SZ).dump"
    mkdir -p "$BASE/before-migration"; step "dumping the data before $pending migration(s), and trying them on a copy"
    dump_to "$dump"
    in_scratch "$dump" node .build/maintain.mjs migrate >/dev/null \
      || die "the migration failed on a copy of your data" "nothing was changed; go back to the Surrik you had, and keep $dump"
  fi
  node .build/maintain.mjs migrate
}

# Whether there was anything to stop.
db_down() {
  local pid
  BIN=$(pg_bin); DB_PORT=$(cat "$BASE/db-port" 2>/dev/null || true)
  [ -n "$BIN" ] && pid=$(postmaster) || return 1
  kill -CONT "$pid" 2>/dev/null || true
  as_pg "$BIN/pg_ctl" -D "$DATA" -m fast -w -t 30 stop >/dev/null 2>&1 \
    || as_pg "$BIN/pg_ctl" -D "$DATA" -m immediate -w -t 20 stop >/dev/null 2>&1 || true
}
