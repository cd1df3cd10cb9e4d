"""Writes docs/licences.md: every part that is shipped with the application or runs with it, with its licence.

Python packages as requirements.lock pins them, packages of the interface as web/package-lock.json has them for production,
fonts as they lie in report/fonts. Run it after a dependency has changed: .venv/bin/python scripts/list_licences.py
"""

from __future__ import annotations

import json
from importlib import metadata
from pathlib import Path

ROOT = Path(__file__).parents[1]


def of_python() -> list[tuple[str, str, str]]:
    out = []
    for line in (ROOT / "requirements.lock").read_text().splitlines():
        if "==" not in line:
            continue
        name, version = line.split(";")[0].strip().split("==")
        about = metadata.metadata(name)
        told = about.get("License-Expression") or about.get("License") or ""
        classified = [c.rsplit(" :: ", 1)[-1] for c in about.get_all("Classifier", []) if c.startswith("License ::")]
        out.append((name, version, told if told and len(told) < 60 else ", ".join(classified) or "see the package"))
    return out


def of_interface() -> list[tuple[str, str, str]]:
    held = json.loads((ROOT / "web/package-lock.json").read_text())["packages"]
    return [
        (path.removeprefix("node_modules/"), p["version"], p.get("license", "see the package"))
        for path, p in held.items()
        if path.startswith("node_modules/") and not p.get("dev") and "/node_modules/" not in path[13:]
    ]


def fonts() -> list[str]:
    return sorted(p.name for p in (ROOT / "src/rain_porch/report/fonts").iterdir())


def listed() -> str:
    def table(rows: list[tuple[str, str, str]]) -> str:
        return "\n".join(f"| {n} | {v} | {lic} |" for n, v, lic in sorted(rows, key=lambda r: r[0].lower()))

    head = "| part | version | licence |\n|---|---|---|\n"
    return (
        "# Licences of all parts\n\nMade by `scripts/list_licences.py` from the lock files.\n\n"
        f"## Python\n\n{head}{table(of_python())}\n\n## Interface\n\n{head}{table(of_interface())}\n\n"
        "## Fonts on paper\n\nFigtree and Source Serif 4, SIL Open Font License 1.1; static cuts made from the Fontsource "
        f"packages, with their licences beside them: {', '.join(fonts())}.\n"
    )


if __name__ == "__main__":
    (ROOT / "docs/licences.md").write_text(listed(), encoding="utf-8")
