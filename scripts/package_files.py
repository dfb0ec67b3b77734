"""Puts what a desktop needs into a package's tree: menu entry, icons, file types, manual page, AppStream, licences.

package_files.py ROOT LIB: ROOT is the tree, LIB where the libraries lie in it.
"""

import gzip
import sys
from importlib import metadata
from pathlib import Path

from ventrix.records.files.desktop_files import desktop_files

OVERRIDES = """\
# The environment is Ventrix's own: it is not to meet other programs' libraries, so it lies in /opt.
ventrix: dir-or-file-in-opt *
# Libraries come as their makers built them.
ventrix: embedded-library *
ventrix: binary-or-shlib-defines-rpath *
ventrix: custom-library-search-path *
ventrix: shared-library-is-executable *
ventrix: unstripped-binary-or-object *
ventrix: library-not-linked-against-libc *
ventrix: missing-dependency-on-libc *
# Compiled beforehand, and removed with the package: nothing is written under /opt when it runs.
ventrix: package-installs-python-bytecode *
ventrix: package-installs-python-pycache-dir *
# The terms of what it brings along stand there word for word, as those terms ask.
ventrix: copyright-file-contains-full-apache-2-license
ventrix: copyright-file-contains-full-gpl-license
ventrix: python3-script-but-no-python3-dep *
ventrix: no-changelog
ventrix: no-copyright-file
"""


def licences(lib: Path) -> str:
    """A paragraph for each package that is brought along, with its licence's own text."""
    said = ["Ventrix is under the MIT licence. What it brings along, each with its own terms:\n"]
    for found in sorted(metadata.distributions(path=[str(lib)]), key=lambda d: d.name.lower()):
        texts = [
            f for f in found.files or () if any(w in f.name.upper() for w in ("LICEN", "COPYING", "NOTICE", "OFL"))
        ]
        terms = found.metadata.get("License-Expression") or found.metadata.get("License") or "see its text"
        said.append(f"\n==== {found.name} {found.version}: {terms.splitlines()[0] if terms else 'see its text'}\n")
        for text in texts:
            path = Path(str(found.locate_file(text)))
            if path.is_file() and path.suffix.lower() not in (".py", ".pyc"):
                said.append(path.read_text(errors="replace"))
    return "\n".join(said)


def main(root: Path, lib: Path) -> None:
    share = root / "usr/share"
    for path, data in desktop_files(share).items():
        if path.suffix == ".1":
            path, data = path.with_name(f"{path.name}.gz"), gzip.compress(data, 9, mtime=0)
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(data)
    doc = share / "doc/ventrix"
    doc.mkdir(parents=True)
    (doc / "copyright").write_text(licences(lib))
    changes = Path(__file__).parents[1] / "CHANGELOG.md"
    (doc / "changelog.gz").write_bytes(gzip.compress(changes.read_bytes(), 9, mtime=0))
    overrides = share / "lintian/overrides"
    overrides.mkdir(parents=True)
    (overrides / "ventrix").write_text(OVERRIDES)


if __name__ == "__main__":
    main(Path(sys.argv[1]), Path(sys.argv[2]))
