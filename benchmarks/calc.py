"""`ventrix calc` cold, against `python -c "import numpy"`; best of eight by turns."""

from __future__ import annotations

import subprocess
import sys
import time

CALC = [sys.executable, "-m", "ventrix", "calc", "valve_flow_area", "valve_diameter=46mm", "seat_width=1.6mm"]
CALC += ["throat_diameter=39.5mm", "stem_diameter=7mm", "lift=8mm", "--json"]
NUMPY = [sys.executable, "-c", "import numpy"]


def seconds(command: list[str]) -> float:
    began = time.perf_counter()
    subprocess.run(command, check=True, capture_output=True)
    return time.perf_counter() - began


def main() -> None:
    calc, numpy = [], []
    for _ in range(8):
        numpy.append(seconds(NUMPY))
        calc.append(seconds(CALC))
    print(f"ventrix calc cold: {min(calc):.2f} s; import numpy: {min(numpy):.2f} s")
    print(f"ratio {min(calc) / min(numpy):.2f} (aim under 3)")


if __name__ == "__main__":
    main()
