"""What is imported before the window shows: the frame, and the room that it opens with. Whoever adds to it says why."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path
from typing import Final

from tests.ui.stand_in import DEMO_WINDOW

# Packages of ours, with all that is in them, and single modules of others.
MAY: Final = (
    "ventrix.bench.drivers",
    "ventrix.bench.links",
    "ventrix.bench.sampler",
    "ventrix.bench.simulator",  # what the demo's metal is like
    "ventrix.core.air",
    "ventrix.core.benches",
    "ventrix.core.calculators",
    "ventrix.core.edits",
    "ventrix.core.formulas",
    "ventrix.core.judging",
    "ventrix.core.metal",
    "ventrix.core.model",
    "ventrix.core.planning.own_record",
    "ventrix.core.planning.priors",
    "ventrix.core.planning.reflow",  # what the book's index keeps of runs
    "ventrix.core.quantity",
    "ventrix.core.runs",
    "ventrix.demo",
    "ventrix.records",
    "ventrix.reports.run_tables",
    "ventrix.rooms.compare",
    "ventrix.rooms.display_units",
    "ventrix.rooms.shared",
    "ventrix.ui.aside",
    "ventrix.ui.bench_bridge",
    "ventrix.ui.book.indexer",
    "ventrix.ui.compare",
    "ventrix.ui.launch",
    "ventrix.ui.log_file",
    "ventrix.ui.look",
    "ventrix.ui.open_book",
    "ventrix.ui.places",
    "ventrix.ui.ways",
    "ventrix.ui.widgets",
    "ventrix.ui.window",
    "ventrix.words",
    "ventrix.workspace",
)
NOT_BEFORE: Final = ("shapely", "reportlab", "PIL", "typer", "openpyxl", "scipy", "pypdfium2", "alembic")
SCRIPT: Final = f'{DEMO_WINDOW}print("\\n".join(sorted(sys.modules)))'


def test_only_what_the_first_picture_needs_is_imported(tmp_path: Path) -> None:
    done = subprocess.run([sys.executable, "-c", SCRIPT, str(tmp_path)], capture_output=True, text=True, check=True)
    loaded = done.stdout.splitlines()
    ours = [m for m in loaded if m.count(".") > 1 and m.startswith("ventrix.")]
    assert len(ours) > 100
    strange = [m for m in ours if not m.startswith(MAY) and not any(may.startswith(f"{m}.") for may in MAY)]
    assert not strange
    assert not [m for m in NOT_BEFORE if m in loaded]
