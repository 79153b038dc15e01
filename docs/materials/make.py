"""What is shipped, and under which licenses: a bill of materials (CycloneDX 1.6) and a list to read.

`./dolmetsch licenses` writes both. Only what runs: what tests and builds need is left out.
"""

import json
import os
import re
import tomllib
from importlib import metadata
from pathlib import Path

from packaging.requirements import Requirement

ROOT = Path(__file__).resolve().parents[2]
#: Where both go: here, unless a folder is named.
PAGES = Path(os.environ.get("DOLMETSCH_PAGES", Path(__file__).resolve().parent))
#: Shipped with the application besides packages.
FONTS = [("Archivo", "5.3.0", "OFL-1.1")]
#: Run beside it, from Debian's packages.
DEBIAN = [
    ("mariadb-server", "10.11", "GPL-2.0"),
    ("pango", "1.50", "LGPL-2.0"),
    ("harfbuzz", "6.0", "MIT"),
    ("fontconfig", "2.14", "HPND"),
]


def list_python():
    """The packages that run, with what they need in turn."""
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    waiting, found = [Requirement(one) for one in project["dependencies"]], {}
    while waiting:
        wanted = waiting.pop()
        name = wanted.name.lower().replace("_", "-")
        if name in found:
            continue
        try:
            about = metadata.distribution(wanted.name)
        except metadata.PackageNotFoundError:
            continue
        found[name] = (name, about.version, say_license(about))
        extras = {"extra": ""}, *({"extra": extra} for extra in wanted.extras)
        for line in about.requires or []:
            needed = Requirement(line)
            if needed.marker is None or any(needed.marker.evaluate(dict(extra)) for extra in extras):
                waiting.append(needed)
    return sorted(found.values())


def say_license(about):
    """A package's license: its expression, else its classifier, else the first line it says."""
    facts = about.metadata
    if facts.get("License-Expression"):
        return facts["License-Expression"]
    classes = [
        one.rsplit(" :: ", 1)[1] for one in facts.get_all("Classifier", []) if one.startswith("License ::")
    ]
    words = (facts.get("License") or "").strip().splitlines()
    return ", ".join(classes) or (words[0][:60] if words else "not said")


def list_web():
    """The packages that go into the built client: those the lock does not mark as for building alone."""
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text())
    found = set()
    for path, facts in lock["packages"].items():
        name = path.rpartition("node_modules/")[2]
        if name and not facts.get("dev") and not facts.get("optional"):
            found.add((name, facts["version"], facts.get("license", "not said")))
    return sorted(found)


def component(sort, name, version, license_name):
    """One part of the bill."""
    # an expression of SPDX names, or a name as the package says it
    is_spdx = re.fullmatch(r"[A-Za-z0-9.+-]+( (OR|AND) [A-Za-z0-9.+-]+)*", license_name)
    known = {"expression": license_name} if is_spdx else {"license": {"name": license_name}}
    purl = name.replace("@", "%40")
    return {
        "type": "library",
        "name": name,
        "version": version,
        "licenses": [known],
        "purl": f"pkg:{sort}/{purl}@{version}",
    }


def main():
    """Write the bill and the list."""
    kinds = {"pypi": list_python(), "npm": list_web(), "deb": DEBIAN, "generic": FONTS}
    parts = [component(sort, *one) for sort, rows in kinds.items() for one in rows]
    about = {"type": "application", "name": "dolmetsch", "version": "0.2.0"}
    bill = {"bomFormat": "CycloneDX", "specVersion": "1.6", "version": 1, "metadata": {"component": about}}
    (PAGES / "bill.json").write_text(json.dumps({**bill, "components": parts}, indent=1) + "\n")
    words = {"pypi": "Python", "npm": "Web client", "deb": "Debian's packages", "generic": "Fonts"}
    lines = ["# What is shipped, and under which licenses", "", "Written by `./dolmetsch licenses`.", ""]
    for sort, rows in kinds.items():
        lines += [f"## {words[sort]}", "| name | version | license |", "|---|---|---|"]
        lines += [f"| {name} | {version} | {said} |" for name, version, said in rows]
        lines.append("")
    (PAGES / "licenses.md").write_text("\n".join(lines))
    print(f"{len(parts)} parts written: bill.json and licenses.md")


if __name__ == "__main__":
    main()
