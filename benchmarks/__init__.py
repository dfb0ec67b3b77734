"""Figures printed as ratios, side by side; none of them is a test."""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")  # as the program has it; read once, when NumPy is imported
