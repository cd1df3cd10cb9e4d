#!/usr/bin/env bash
# The browser of the interface's tests and a proxy to stand behind, from Debian, where they are missing. The browser without windows
# of its own is quicker; the other does as well.
set -euo pipefail
has_browser() { test -x /usr/bin/chromium-headless-shell; }
if has_browser && test -x /usr/sbin/nginx -a -x /usr/bin/openssl; then exit 0; fi
export DEBIAN_FRONTEND=noninteractive
apt-get update -qq
apt-get install -y -qq nginx-light openssl
has_browser || apt-get install -y -qq chromium-headless-shell || test -x /usr/bin/chromium || apt-get install -y -qq chromium
