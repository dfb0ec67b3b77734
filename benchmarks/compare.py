"""40 curves of 20 points while the lift range is dragged, against pyqtgraph alone; verdicts of 1,000 pairs."""

from __future__ import annotations

import os
import statistics
import time
from collections.abc import Callable

from ventrix.rooms.shared.plot_values import Picture

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import numpy as np
import pyqtgraph as pg
from PySide6.QtWidgets import QApplication

from ventrix.core.formulas.cam import Cam
from ventrix.core.judging.comparing import compare_runs
from ventrix.core.judging.verdict import judge
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import CFM, to_si
from ventrix.core.runs.geometry import Geometry
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.reduction import reduce_run
from ventrix.rooms.shared.plot_values import Line
from ventrix.ui.look import theme
from ventrix.ui.widgets.plot import Plot

CURVES, POINTS, PAIRS = 40, 20, 1000


def frames(work: Callable[[int], object], count: int = 40) -> float:
    """Median seconds of a frame."""
    took = []
    for i in range(count):
        began = time.perf_counter()
        work(i)
        took.append(time.perf_counter() - began)
    return statistics.median(took)


def run_of(seed: int, factor: float, setup: SetUp) -> ReducedRun:
    """A run of twenty lifts with a little noise."""
    random = np.random.default_rng(seed)
    lift = np.arange(1, POINTS + 1) * 0.65e-3
    flow = 200 * np.tanh(lift / 7e-3) * factor * (1 + 0.003 * random.standard_normal(POINTS)) * CFM
    readings = tuple(
        Reading(id=str(i), lift=float(x), flow=float(q)) for i, (x, q) in enumerate(zip(lift, flow, strict=True))
    )
    return reduce_run(FlowRun(id=str(seed), setup_id="s", readings=readings), setup, Geometry(), str(seed))


def main() -> None:
    app = QApplication([])
    theme.load_fonts()
    theme.apply(app, "dye")
    x = np.linspace(0.05, 0.6, POINTS)
    ys = [x * (300 + 3 * i) for i in range(CURVES)]
    plot = Plot("many", selects=True)
    plot.resize(760, 420)
    plot.show()
    lines = [Line(x, y, "quiet", 1, label=str(i)) for i, y in enumerate(ys)]
    plot.show_picture(Picture(lines, x_range=(0, 0.63), y_range=(0, 260)))
    bare = pg.PlotWidget()
    bare.resize(760, 420)
    bare.show()
    for y in ys:
        bare.addItem(pg.PlotCurveItem(x, y, antialias=True))
    region = pg.LinearRegionItem((0.1, 0.2))
    bare.addItem(region)
    app.processEvents()

    def drag_ours(i: int) -> None:
        plot._select(0.1, 0.2 + 0.008 * i)
        plot.plot.viewport().repaint()

    def drag_bare(i: int) -> None:
        region.setRegion((0.1, 0.2 + 0.008 * i))
        bare.viewport().repaint()

    ours, alone = frames(drag_ours), frames(drag_bare)
    print(f"{CURVES} curves of {POINTS} points, a frame of the drag: {ours * 1e3:.1f} ms ({1 / ours:.0f} a second)")
    print(f"pyqtgraph alone {alone * 1e3:.1f} ms; ratio {ours / alone:.2f}")
    setup = SetUp(id="s", direction="intake", test_pressure=to_si(28, "inH2O"), bench="b", bore=0.089, centred=True,
                  entry="radius", valve="job", plug="in")  # fmt: skip
    cam = Cam(0.0117, to_si(220, "deg"))
    base, after = run_of(1, 1.0, setup), run_of(2, 1.02, setup)
    began = time.perf_counter()
    for _ in range(PAIRS):
        judge(compare_runs([base], [after], cam=cam))
    whole = time.perf_counter() - began
    began = time.perf_counter()
    for _ in range(PAIRS):
        compare_runs([base], [after], cam=cam).weighted_expanded  # noqa: B018
    compared = time.perf_counter() - began
    print(
        f"{PAIRS} verdicts: {whole:.2f} s, of which the comparison alone {compared:.2f} s; ratio {whole / compared:.2f}"
    )


if __name__ == "__main__":
    main()
