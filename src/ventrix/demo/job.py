"""The demo head that ships in the package, and the invented shop's benches."""

from __future__ import annotations

from functools import cache
from importlib import resources
from pathlib import Path
from typing import Final

import numpy as np

from ventrix.core.model.bench import Bench, PlateCheck, ScatterStudy, StudyReading, Transfer, TransferPart
from ventrix.core.model.bench_kinds import ElementKind, LinkKind
from ventrix.core.model.job import Job
from ventrix.core.quantity.units import to_si
from ventrix.records.files.job_document import loads_document
from ventrix.records.files.photos import keep_file

FILE: Final = "corvane_22h.json"
SEED: Final = 22
TEST_PRESSURE: Final = to_si(28, "inH2O")


@cache
def demo_job() -> Job:
    """The demo job that ships in the package."""
    return loads_document(resources.files("ventrix.demo").joinpath(FILE).read_bytes(), FILE, own=True).job


def keep_demo_scans(folder: Path) -> None:
    """Put the demo job's scans into a book's own folder."""
    for scan in resources.files("ventrix.demo").joinpath("scans").iterdir():
        keep_file(folder, scan.read_bytes(), ".stl", scan.name)


def demo_benches() -> tuple[Bench, ...]:
    """The invented shop's benches, made anew from the simulator: one with a history, one at a friend's."""
    random = np.random.default_rng(SEED)
    nominal = to_si(152, "cfm")
    plates = tuple(
        PlateCheck(
            id=f"plate-{i}",
            nominal=nominal,
            flow=to_si(round(152 * (1 + 0.0018 * float(random.standard_normal())), 1), "cfm"),
            pressure=TEST_PRESSURE,
            date=f"2026-05-{4 + i:02d}",
        )
        for i in range(9)
    )
    lifts = {0.2: 110.0, 0.4: 176.0, 0.5: 198.0}
    readings = []
    for mount in range(1, 6):
        moved = 1 + 0.003 * float(random.standard_normal())
        for lift, flow in lifts.items():
            for again in range(2):
                seen = flow * moved * (1 + 0.0025 * float(random.standard_normal()))
                name = f"study-{mount}-{lift}-{again}"
                value = to_si(round(seen, 1), "cfm")
                readings.append(StudyReading(id=name, mount=mount, lift=to_si(lift, "in"), flow=value))
    parts = tuple(
        TransferPart(id=f"part-{i}", name=name, here=to_si(here, "cfm"), there=to_si(there, "cfm"))
        for i, (name, here, there) in enumerate(
            (("plate", 151.9, 156.8), ("spare head, 0.300", 148.2, 152.7), ("spare head, 0.500", 203.0, 210.1))
        )
    )
    return (
        Bench(
            id="bench-back-room",
            name="back-room",
            link=LinkKind.SIMULATED,
            leak_taken_off=False,
            blower_limit=to_si(245, "cfm"),
            test_pressure=TEST_PRESSURE,
            dial_resolution=to_si(0.001, "in"),
            plate_name="brass plate",
            plate_flow=nominal,
            plates=plates,
            studies=(ScatterStudy(id="study", date="2026-05-03", head="spare head", readings=tuple(readings)),),
            transfers=(Transfer(id="transfer", other="the barn", date="2026-05-02", parts=parts),),
        ),
        Bench(
            id="bench-barn",
            name="the barn",
            element=ElementKind.PERCENT,
            ranges=tuple(to_si(r, "cfm") for r in (75, 150, 300)),
            corrected=False,
            leak_taken_off=False,
            scale_density=1.2014,
            test_pressure=TEST_PRESSURE,
        ),
    )
