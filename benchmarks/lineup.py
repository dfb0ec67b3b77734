"""32 outlines of 200 points: ``python -m benchmarks.lineup`` prints how long one moved face takes to the table of its
edges, beside the bare shapely intersections of the same polygons; and a DXF of 5 MB to its outlines, beside ezdxf
reading it alone."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from statistics import median

import ezdxf
import numpy as np

from ventrix.core.lineup.fitting import Fit
from ventrix.core.lineup.of_job import line_up
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Face, Outline
from ventrix.records.files.outline_files import read_outlines
from ventrix.rooms.display_units import US
from ventrix.rooms.lineup.shows import shown_of


def face(part: str, off: float) -> Face:
    t = np.linspace(0, 2 * np.pi, 201)[:-1]
    outlines = []
    for n in range(32):
        x, y = 0.016 * np.cos(t) + 0.05 * n + off, 0.021 * np.sin(t)
        points = tuple(float(v) for v in np.column_stack([x, y]).ravel())
        outlines.append(Outline(id=f"{part}{n}", port=f"Intake {n + 1}", shape="polygon", points=points))
    return Face(id=part, name=part, part=part, outlines=tuple(outlines))


def timed(act: Callable[[], object], times: int = 7) -> float:
    spent = []
    for _ in range(times):
        begun = time.perf_counter()
        act()
        spent.append(time.perf_counter() - begun)
    return 1e3 * median(spent)


def main() -> None:
    ports = tuple(
        Port(id=f"p{n}", name=f"Intake {n}", kind="intake", cuts=(Cut(id=f"c{n}", number=0),)) for n in range(1, 33)
    )
    job = Job(id="j", title="j", ports=ports, faces=(face("head", 0.0), face("manifold", 0.0003)))
    moved = Fit((0.0001, 0.0), 0.0)
    ours = timed(lambda: shown_of(job, line_up(job, moved=moved), US))
    mine, theirs = ([polygon_of(o) for o in f.outlines] for f in job.faces)
    bare = timed(lambda: [a.intersection(b).area for a, b in zip(mine, theirs, strict=True)])
    print(f"32 outlines of 200 points, one face moved: {ours:.0f} ms to the edge table; shapely alone {bare:.1f} ms: "
          f"{ours / bare:.1f} times")  # fmt: skip
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "large.dxf"
        document = ezdxf.new(units=4)
        space = document.modelspace()
        for n in range(400):
            t = np.linspace(0, 2 * np.pi, 220)[:-1]
            curve = [(50.0 * n + 16 * c, 21 * s) for c, s in zip(np.cos(t), np.sin(t), strict=True)]
            space.add_lwpolyline(curve, close=True)
        document.saveas(path)
        size = path.stat().st_size / 1e6
        whole, alone = timed(lambda: read_outlines(path), 3), timed(lambda: ezdxf.readfile(path), 3)
        beside = f"ezdxf alone {alone:.0f} ms: {whole / alone:.1f} times"
        print(f"a DXF of {size:.1f} MB: {whole:.0f} ms to its outlines; {beside}")


if __name__ == "__main__":
    main()
