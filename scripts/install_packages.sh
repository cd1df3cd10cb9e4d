#!/usr/bin/env bash
# install_packages.sh PYTHON WHAT…  Packages into an environment by uv, in a tenth of pip's time; where uv cannot be had or refuses,
# by pip itself.
set -euo pipefail
python=$1
shift
if "$python" -m pip install -q uv==0.13.9 && "$python" -m uv pip install -q -p "$python" "$@"; then exit 0; fi
echo "By pip, since uv did not."
"$python" -m pip install -q "$@"
