"""Draws the pictures of the manual's page on figures, with the program's own plot and the demo's figures."""

import os
from pathlib import Path

os.environ["QT_QPA_PLATFORM"] = "offscreen"

import numpy as np
from PySide6.QtWidgets import QApplication, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from ventrix.core.formulas.port import energy_density, mean_port_velocity
from ventrix.core.formulas.valve import curtain_area, lift_ratio, throat_area, valve_head_area
from ventrix.core.judging.comparing import compare_runs
from ventrix.core.judging.findings import Findings
from ventrix.core.planning.next_moves import Plan, plan_port
from ventrix.core.quantity.units import from_si_array
from ventrix.demo.job import demo_job
from ventrix.rooms.display_units import US
from ventrix.rooms.plan.shows import segments
from ventrix.rooms.shared.plot_values import Band, Bars, Line, Picture
from ventrix.ui.look import theme
from ventrix.ui.plan.limit_bar import LimitBar
from ventrix.ui.widgets.plot import Plot

TARGET = Path(__file__).parents[1] / "src/ventrix/manual/pictures"


def main() -> None:
    app = QApplication([])
    app.setStyle("Fusion")
    theme.load_fonts()
    theme.apply(app, "paper")
    job = demo_job()
    port, findings = job.ports[0], Findings(job)
    runs = [findings.runs_of(cut, port)[-1] for cut in port.cuts]
    run, valve = runs[0], job.valves[0]
    assert valve.head_diameter is not None
    lift = from_si_array(run.lift, "in")

    def draw(name: str, lines: list[Line], top: float, **more: object) -> None:
        plot = Plot(name)
        plot.resize(560, 300)
        plot.show()
        plot.show_picture(Picture(lines, x_range=(0.0, 0.70), y_range=(more.pop("low", 0.0), top), **more))  # type: ignore[arg-type]
        app.processEvents()
        plot.grab().save(str(TARGET / f"{name}.png"))
        plot.close()

    d = run.derived
    curves = ((d.cd_curtain, "curtain", "solid"), (d.cd_least, "least", "dashed"), (d.cd_valve, "valve", "dotted"))
    draw("cd", [Line(lift, y, "intake", 2.5, style, label=name) for y, name, style in curves], 1.2)
    ratio = lift_ratio(run.lift, valve.head_diameter)
    areas = (
        (curtain_area(valve.head_diameter, run.lift), "curtain", "solid"),
        (np.full(len(lift), valve_head_area(valve.head_diameter)), "valve", "dashed"),
        (np.full(len(lift), throat_area(0.0395, 0.007)), "throat", "dotted"),
    )
    quarter = float(lift[np.argmin(np.abs(ratio - 0.25))])
    lines = [Line(lift, from_si_array(a, "in2"), "intake", 2.5, style, label=name) for a, name, style in areas]
    draw("lift-ratio", lines, 4.0, verticals=[(quarter, "L/D 0.25")])
    speeds = [mean_port_velocity(run.flow, volume, 0.104) for volume in (118e-6, 130e-6)]
    lines = [
        Line(lift, from_si_array(v, "ft/s"), "intake", 2.5, style, label=name)
        for v, name, style in zip(speeds, ("118 cc", "130 cc"), ("solid", "dashed"), strict=True)
    ]
    draw("speed", lines, 280.0)
    lines = [
        Line(lift, energy_density(v), "intake", 2.5, style, label=name)
        for v, name, style in zip(speeds, ("118 cc", "130 cc"), ("solid", "dashed"), strict=True)
    ]
    draw("energy", lines, 4500.0)
    c = compare_runs([runs[1]], [runs[2]], known=findings.known("back-room"))
    change, u = (from_si_array(v, "cfm") for v in (c.change, c.expanded))
    shades = [theme.current().result(r) for r in c.results]
    bars = Bars(lift, change, shades, [f"{v:+.1f}" for v in change], 0.012)
    band = Band(np.r_[0.0, lift], -np.r_[0.0, u], np.r_[0.0, u], "unproven", 0.32)
    draw("not-proven", [], 36.0, low=-12.0, bands=[band], bars=bars)
    draw_limits(app, plan_port(findings, port), port.kind)


def draw_limits(app: QApplication, plan: Plan, kind: str) -> None:
    """What eats the test pressure at a low and at the highest lift, side by side."""
    units, both = US, QWidget()
    row = QHBoxLayout(both)
    for lift in plan.planned.lift[[1, -1]]:
        column, bar = QVBoxLayout(), LimitBar()
        bar.show_segments(segments(plan, float(lift), units), "", kind, units.pressure.label)
        column.addWidget(QLabel(f"{units.lift.with_unit(float(lift))}: {units.pressure.label} left, and eaten"))
        column.addWidget(bar, 1)
        row.addLayout(column)
    both.resize(620, 400)
    both.show()
    app.processEvents()
    both.grab().save(str(TARGET / "limits.png"))
    both.close()


if __name__ == "__main__":
    main()
