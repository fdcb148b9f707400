#!/usr/bin/env bash
# Installs the front end's packages if the lock file changed since the last time.
set -eu
cd "$(dirname "$0")"
if [ ! -d node_modules ] || ! cmp -s package-lock.json node_modules/.lock-used; then
  npm ci --no-audit --no-fund
  cp package-lock.json node_modules/.lock-used
fi
