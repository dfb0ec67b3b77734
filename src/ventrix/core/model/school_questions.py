"""What schools of porting differ on, asked of the job."""

from __future__ import annotations

from typing import Final

# PRACTICE.md: each question with its sides; the first is the default.
SCHOOLS: Final = (
    ("lifts", "Which lifts count", ("cam-weighted", "low lift first", "peak and near-peak")),
    ("throat", "Throat, of the valve", ("88-90 %", "85-88 %, for speed", "90-93 %, for peak")),
    ("seat", "Seat angle", ("45", "30", "39", "50", "55")),
    ("boss", "Guide boss", ("shape it to a fin", "cut it away")),
    ("bumps", "Cast bumps, exhaust", ("remove", "shape into a vane")),
    ("surface", "Surface, intake", ("60 grit or cutter texture", "80-120 grit", "mirror, for looks")),
    ("floor", "Floor", ("leave it", "worked")),
    ("gasket", "Opening and gasket", ("keep the port smaller", "open to the gasket")),
    ("pipe", "Exhaust flowed", ("without a pipe", "with a stub pipe")),
    ("ratio", "Exhaust over intake", ("75 %", "70 %", "80 %")),
)
