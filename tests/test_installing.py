"""The wheel holds everything, the steps of the container file work in a bare folder, and systemd takes the unit."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import sysconfig
import zipfile
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
WEB = ROOT / "src/rain_porch/web/index.html"


@pytest.fixture(scope="module")
def dist(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A copy of what a wheel is made from, with the wheel in its `dist`."""
    source = tmp_path_factory.mktemp("source")
    for name in ("pyproject.toml", "README.md"):
        shutil.copy(ROOT / name, source / name)
    shutil.copytree(ROOT / "src", source / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    command = [
        sys.executable,
        "-m",
        "pip",
        "wheel",
        "-q",
        "--no-deps",
        "-w",
        source / "dist",
        source,
    ]
    subprocess.run(command, check=True, capture_output=True)
    return source / "dist"


def test_the_wheel_holds_every_file_that_is_read_at_work(dist):
    (wheel,) = dist.glob("*.whl")
    held = set(zipfile.ZipFile(wheel).namelist())
    package = ROOT / "src/rain_porch"
    wanted = [
        f.relative_to(ROOT / "src").as_posix()
        for f in package.rglob("*")
        if f.is_file() and "__pycache__" not in f.parts
    ]
    assert not [f for f in wanted if f not in held]
    assert any(f.endswith(".sql") for f in held) and any(f.endswith(".typ") for f in held)


@pytest.mark.skipif(not WEB.is_file(), reason="the interface is not built")
def test_the_steps_of_the_container_file_give_a_service_in_a_bare_folder(dist, tmp_path):
    """Each RUN and COPY as it stands, with /opt and /var beneath the folder; packages are those of this environment."""
    root = tmp_path / "root"
    (root / "opt").mkdir(parents=True)
    env = {**os.environ, "PIP_NO_DEPS": "1", "PIP_DISABLE_PIP_VERSION_CHECK": "1"}
    env["PATH"] = f"{Path(sys.executable).parent}{os.pathsep}{env['PATH']}"  # the Python of these packages
    env.pop("PYTHONPATH", None)

    def here(text: str) -> str:
        return re.sub(r"(?<![\w.])/(opt|var)/", rf"{root}/\1/", text)

    steps = [
        line.split(" ", 1) for line in (ROOT / "deploy/Containerfile").read_text().splitlines() if line[:1].isupper()
    ]
    for word, rest in steps:
        if word == "COPY":
            source, target = rest.split()
            for file in dist.parent.glob(source):
                shutil.copy(file, here(target))
        elif word == "RUN":
            subprocess.run(["bash", "-c", here(rest)], check=True, env=env, capture_output=True)
        elif word == "ENV":
            env |= dict(pair.split("=", 1) for pair in here(rest).split())
    site = root / f"opt/rain-porch/lib/python{sys.version_info.major}.{sys.version_info.minor}/site-packages"
    (site / "packages.pth").write_text(sysconfig.get_path("purelib") + "\n")
    (command,) = (rest for word, rest in steps if word == "CMD")
    program, _serve = re.findall(r'"([^"]+)"', here(command))
    at = ["--data", env["RAIN_PORCH_DATA"]]
    bring = [program, "import", str(ROOT / "tests/reference/data/ames.csv"), *at]
    done = subprocess.run(bring, check=True, env=env, cwd=tmp_path, capture_output=True, text=True)
    assert "2,930 new" in done.stdout
    checked = subprocess.run([program, "check", *at], check=True, env=env, cwd=tmp_path, capture_output=True, text=True)
    assert "all is well" in checked.stdout
    told = [str(root / "opt/rain-porch/bin/python"), "-c", "import rain_porch; print(rain_porch.__file__)"]
    file = subprocess.run(told, check=True, env=env, cwd=tmp_path, capture_output=True, text=True).stdout.strip()
    assert file.startswith(str(site)), "what was installed is what ran"
    assert (Path(file).parent / "web/index.html").is_file()


@pytest.mark.skipif(shutil.which("systemd-analyze") is None, reason="there is no systemd here")
def test_systemd_takes_the_unit(tmp_path):
    unit = tmp_path / "rain-porch.service"
    text = (ROOT / "deploy/rain-porch.service").read_text()
    unit.write_text(
        text.replace("/opt/rain-porch/bin/rain-porch", sys.executable).replace("User=rain-porch", "User=root")
    )
    done = subprocess.run(["systemd-analyze", "verify", unit], capture_output=True, text=True)
    assert done.returncode == 0 and "rain-porch.service" not in done.stderr, done.stderr
