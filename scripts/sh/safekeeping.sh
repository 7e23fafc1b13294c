# Dumps of this instance's data: made, looked through in a cluster of their own, kept for weeks, put back. Sourced by
# ./surrik. A dump is worth what its reading back has shown: none is trusted, or laid over anything, before that.

KEEP_EVERY_HOURS="${SURRIK_KEEP_EVERY_HOURS:-24}" KEEP_DAYS=7 KEEP_WEEKS=5

dump_to() {
  PGPASSWORD=$(secret OWNER_PASSWORD) "$BIN/pg_dump" -h 127.0.0.1 -p "$DB_PORT" -U surrik_owner -Fc surrik > "$1.part"
  mv "$1.part" "$1"; (cd "$(dirname "$1")" && sha256sum "$(basename "$1")" > "$(basename "$1").sha256"); chmod 600 "$1"
}

sum_fits() { # of a dump that has one
  [ ! -f "$1.sha256" ] || (cd "$(dirname "$1")" && sha256sum -c --quiet "$(basename "$1").sha256" >/dev/null 2>&1)
}

read_back() { # read_back DUMP: into the database that is up
  PGPASSWORD=$(secret OWNER_PASSWORD) "$BIN/pg_restore" -h 127.0.0.1 -p "$DB_PORT" -U surrik_owner -d surrik --no-owner --exit-on-error --single-transaction "$1" 2>/tmp/surrik-restore.$$ \
    || { tail -1 /tmp/surrik-restore.$$ >&2; rm -f /tmp/surrik-restore.$$; return 1; }
  rm -f /tmp/surrik-restore.$$
}

# Runs a command where the database is what the dump holds, in a cluster that is made for it and goes with it.
in_scratch() { # in_scratch DUMP COMMAND...
  local dump="$1" secrets="$BASE/secrets" here="$BASE/scratch.$$"; shift
  (
    trap 'db_down || true; rm -rf "$here"' EXIT
    # It goes with the look: nothing of it has to outlive a power cut.
    BASE="$here" SURRIK_DB_PORT_FROM=57310 DB_STARTED="" DB_FLEETING=1; use_base
    mkdir -p "$BASE"; cp "$secrets" "$BASE/secrets"
    db_up >/dev/null
    read_back "$dump" || exit 3
    "$@"
  )
}

# What is in a dump, if it can be read back and this Surrik knows all of it.
looked_through() { # looked_through DUMP
  local rc=0
  in_scratch "$1" node .build/maintain.mjs holds || rc=$?
  case $rc in
    0) ;;
    3) die "the dump could not be read back" "nothing was changed; use another copy" ;;
    4) die "the dump was made by a newer Surrik" "nothing was changed; bring this one up to date first" ;;
    *) die "the dump could not be looked through" "nothing was changed; the lines above say why" ;;
  esac
}

cmd_backup() {
  case "${1:-}" in keep) need_bundle; db_up; keep_backup; return ;; verify) shift; cmd_verify "$@"; return ;; esac
  [ $# = 1 ] || die "backup wants a file to write" "./surrik backup shop.dump, ./surrik backup verify shop.dump, ./surrik backup keep"
  case "$1" in /*) local out="$1" ;; *) local out="$PWD/$1" ;; esac
  [ ! -e "$out" ] || die "$1 exists already" "name another file: a backup is never overwritten"
  need_node; need_packages; need_bundle
  trap '[ -n "$DB_STARTED" ] && db_down' EXIT
  db_up; dump_to "$out"; say "written: $out and its checksum"
}

cmd_verify() {
  [ $# = 1 ] && [ -f "$1" ] || die "backup verify wants the dump to look through" "./surrik backup verify shop.dump"
  local in; in=$(readlink -f "$1")
  sum_fits "$in" || die "$1 is not what its checksum says" "use another copy"
  need_node; need_packages; need_bundle
  trap '[ -n "$DB_STARTED" ] && db_down' EXIT
  db_up; say "read back into a cluster of its own: $(looked_through "$in")"
}

cmd_restore() {
  [ $# = 1 ] && [ -f "$1" ] || die "restore wants the dump to read" "./surrik restore shop.dump"
  local in; in=$(readlink -f "$1")
  sum_fits "$in" || die "$1 is not what its checksum says" "use another copy"
  need_node; need_packages; need_bundle
  trap '[ -n "$DB_STARTED" ] && db_down' EXIT
  db_up
  [ "$(boot_psql -d surrik -Atc "SELECT to_regclass('public.shops') IS NULL")" = t ] \
    || die "this instance holds data already" "restore into a new one: SURRIK_INSTANCE=restored ./surrik restore $1"
  local holds; holds=$(looked_through "$in")
  read_back "$in" || die "the dump could not be read back" "nothing was changed; use another copy"
  # This instance prints a password of its own for the demo people.
  db_migrate; node .build/maintain.mjs demo-password
  say "restored into $BASE: $holds. Start it with ./surrik up"
}

# ---------- kept by itself ----------
newest_kept() { ls -1 "$BASE/backups"/*.dump 2>/dev/null | tail -1; }

# Whether the last one that was kept is older than it should be.
keep_is_due() {
  local last; last=$(newest_kept)
  [ -n "$last" ] || return 0
  [ $(($(date +%s) - $(stat -c %Y "$last"))) -ge $((KEEP_EVERY_HOURS * 3600)) ]
}

# A dump, kept only if it can be read back; of the older ones each of a week, and one a week for five.
keep_backup() {
  local at file holds; at=$(date -u +%Y%m%dT%H%M%SZ); file="$BASE/backups/$at.dump"
  mkdir -p "$BASE/backups"; chmod 700 "$BASE/backups"
  dump_to "$file"
  if ! holds=$(looked_through "$file"); then
    mv "$file" "$file.bad"; rm -f "$file.sha256"
    die "today's backup could not be read back" "it is at $file.bad; the ones before are untouched"
  fi
  thin_out
  say "kept: $file, read back ($holds)"
}

thin_out() {
  local f day age week kept=""
  for f in $(ls -1r "$BASE/backups"/*.dump 2>/dev/null); do
    day=$(basename "$f" | cut -c1-8)
    age=$((($(date -u +%s) - $(date -u -d "$day" +%s)) / 86400))
    [ $age -lt $KEEP_DAYS ] && continue
    week=$(date -u -d "$day" +%G%V)
    if [ $age -ge $((KEEP_WEEKS * 7)) ] || [[ " $kept " == *" $week "* ]]; then rm -f "$f" "$f.sha256"; else kept="$kept $week"; fi
  done
}
