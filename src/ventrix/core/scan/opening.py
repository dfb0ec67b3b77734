"""A port's opening as its scan has it: an outline in the face's own axes."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.scan.measure import Measured, inward_of
from ventrix.core.scan.sections import section

INSIDE: Final = 0.8  # mm behind the face: its very edge is ragged
CORNERS: Final = 72  # of the outline


def opening_outline(found: Measured) -> Array:
    """The opening, met with the air, about its own middle.

    Parameters
    ----------
    found : Measured
        Of a scan [mm].

    Returns
    -------
    ndarray
        Corners in order, counter-clockwise, x to the right and y towards the roof [mm], shape (72, 2).

    Raises
    ------
    ValueError
        The scan does not close behind its face.

    References
    ----------
    Geometry: the section of the surface parallel to the face, the roof opposite the inside of the bend.
    """
    into = -found.face.normal
    ring = section(found.mesh, np.arange(len(found.mesh.faces)), found.face.centre + INSIDE * into, into)
    if ring is None:
        raise Refused("The scan does not close behind its face.")
    up = -inward_of(found.stations)[0]
    up = up - (up @ into) * into
    up = up / np.linalg.norm(up)
    right = np.cross(into, up)
    flat = np.stack([(ring.ring - ring.centre) @ right, (ring.ring - ring.centre) @ up], axis=1)
    return _even(flat)


def _even(ring: Array) -> Array:
    """The same outline at even steps along it, counter-clockwise, noise between them averaged away."""
    closed = np.vstack([ring, ring[:1]])
    along = np.r_[0.0, np.cumsum(np.linalg.norm(np.diff(closed, axis=0), axis=1))]
    fine = np.linspace(0.0, along[-1], 8 * CORNERS, endpoint=False)
    x, y = (np.interp(fine, along, closed[:, i]) for i in (0, 1))
    if float(np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y)) < 0:
        x, y = x[::-1], y[::-1]
    return np.stack([x.reshape(CORNERS, 8).mean(axis=1), y.reshape(CORNERS, 8).mean(axis=1)], axis=1)
