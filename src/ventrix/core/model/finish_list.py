"""What is checked before a head goes out."""

from __future__ import annotations

from typing import Final

CHECKS: Final = (
    "guides deburred",
    "chamber edges softened",
    "oil and water passages clear",
    "threads chased",
    "washed",
    "flatness checked again",
    "gasket land wide enough",
    "manifold lines up",
    "assembled, springs and locks seated",
)
