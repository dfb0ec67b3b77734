"""Start-up and memory, as ratios in one run.

Start of `ventrix --demo` to the window's frame, and to the first paint of the Compare room, against a bare PySide6
window holding one pyqtgraph plot; and the demo's peak memory. Each in a process of its own, best of five, by turns.
"""

from __future__ import annotations

import os
import subprocess
import sys
import time

BARE = """
import sys, time
import numpy as np
from PySide6.QtWidgets import QApplication, QMainWindow
import pyqtgraph as pg
app = QApplication([])
window = QMainWindow()
plot = pg.PlotWidget()
plot.plot(np.arange(12.0), np.arange(12.0))
window.setCentralWidget(plot)
window.resize(1280, 800)
window.show()
window.grab()
print(time.time())
"""

FRAME = """
import time
from ventrix.ui import launch
from ventrix.ui.launch import Start

shown = launch._frame

def frame(settings):
    shown(settings)
    print(time.time(), flush=True)
    raise SystemExit

launch._frame = frame
launch.run(Start(demo=True))
"""

DEMO = """
import resource, time
from ventrix.ui import launch
from ventrix.ui.launch import Start

def stay(app):
    next(w for w in app.topLevelWidgets() if w.isVisible() and w.objectName() != "frame").grab()
    print(time.time())
    print(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024)
    return 0

launch._stay = stay
launch.run(Start(demo=True))
"""


def seconds(code: str) -> tuple[float, list[str]]:
    """From the start of a fresh interpreter to the time it printed."""
    began = time.time()
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    lines = done.stdout.split()
    return float(lines[0]) - began, lines


def main() -> None:
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    os.environ.pop("PYTHONDONTWRITEBYTECODE", None)  # as an installed program starts: from its compiled files
    bare, frame, demo, memory = [], [], [], 0.0
    for _ in range(5):
        bare.append(seconds(BARE)[0])
        frame.append(seconds(FRAME)[0])
        took, lines = seconds(DEMO)
        demo.append(took)
        memory = max(memory, float(lines[1]))
    print(f"bare window with one plot: {min(bare):.2f} s; demo to Compare painted: {min(demo):.2f} s")
    print(f"ratio {min(demo) / min(bare):.2f} (aim 2.2); of the frame alone {min(frame) / min(bare):.2f} (aim 1.3)")
    print(f"peak memory of the demo: {memory:.0f} MiB (aim 170)")


if __name__ == "__main__":
    main()
