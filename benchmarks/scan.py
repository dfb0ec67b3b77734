"""A scan measured: how long against a bare NumPy pass over the same triangles, and how true.

``python -m benchmarks.scan`` prints, for some 20,000 and 300,000 triangles with 0.05 mm of noise, seconds of CPU beside
one pass that makes areas and normals, then a table of errors beside what was aimed at, over six ports.
"""

from __future__ import annotations

import time
from dataclasses import replace

import numpy as np

from ventrix.bench.simulator.scans import ScannedPort, Worked, scanned, surface
from ventrix.core.quantity.arrays import Array, Ints
from ventrix.core.scan.compare import compare
from ventrix.core.scan.measure import measure

PORT = ScannedPort()


def bare(points: Array, faces: Ints) -> float:
    a, b, c = (points[faces[:, i]] for i in range(3))
    cross = np.cross(b - a, c - a)
    return float(np.linalg.norm(cross, axis=1).sum())


def spent(work: object, *args: object) -> float:
    begun = time.process_time()
    work(*args)  # type: ignore[operator]
    return time.process_time() - begun


def main() -> None:
    for rows, columns in ((110, 92), (420, 357)):
        body = scanned(*surface(PORT, rows, columns), seed=1)
        one, pass_ = spent(measure, *body), min(spent(bare, *body) for _ in range(5))
        ratio = one / max(pass_, 1e-9)
        print(f"{len(body[1]):7d} triangles: {one:5.1f} s of CPU, a bare pass {1e3 * pass_:6.1f} ms: {ratio:.0f} times")
    clean = measure(*surface(PORT))
    errors: dict[str, list[float]] = {}
    for seed in range(6):
        found = measure(*scanned(*surface(PORT), seed=seed, noise=0.05, holes=3))
        at, there = ([s.along for s in m.stations] for m in (clean, found))
        areas = (
            np.array([s.flow_area for s in found.stations])
            / np.interp(there, at, [s.flow_area for s in clean.stations])
            - 1
        )
        for name, value in (
            ("area rms, %", 100 * float(np.sqrt(np.mean(areas**2)))),
            ("area worst, %", 100 * float(np.abs(areas).max())),
            ("pinch, %", 100 * (found.picks["pinch"].area / clean.picks["pinch"].area - 1)),
            ("throat, mm", (found.picks["throat"].diameter or 0) - (clean.picks["throat"].diameter or 0)),
            ("length, %", 100 * (found.length / clean.length - 1)),
            ("volume, %", 100 * (found.volume / clean.volume - 1)),
            ("roof, %", 100 * (found.roof / clean.roof - 1)),
            ("floor, %", 100 * (found.floor / clean.floor - 1)),
            ("turning, deg", float(np.degrees(found.turning - clean.turning))),
        ):
            errors.setdefault(name, []).append(value)
    aims = (0.2, 0.5, 0.13, 0.04, 0.04, 0.07, 0.2, 0.55, 0.12)
    print("figure             error (rms of six ports)   aim")
    for (name, values), aim in zip(errors.items(), aims, strict=True):
        rms = float(np.sqrt(np.mean(np.square(values))))
        print(f"{name:18} {rms:8.3f}                   {aim:5.2f}{'' if rms <= aim else '  missed'}")
    for depth in (0.5, 0.2, 0.1, 0.05):
        after = replace(PORT, worked=(Worked(0.72, 0.95, 0.0, 0.9, depth),))
        taken = compare(measure(*scanned(*surface(PORT), seed=1)), measure(*scanned(*surface(after), seed=2)))
        place = next(p for p in taken.places if (p.place, p.side) == ("short side", "floor"))
        volume = f"volume {taken.volume:.0f} +-{taken.u_volume:.0f} mm3"
        print(f"cut of {depth:4.2f} mm read {place.depth:.3f} +-{place.u:.3f}, {volume}")


if __name__ == "__main__":
    main()
