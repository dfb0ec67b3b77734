"""The port: lengths, sections, mean speed and energy of the air in it.

All SI: lengths [m], areas [m2], volumes [m3], flow [m3/s]. Sources as in ``docs/sources.md``.
"""

from __future__ import annotations

from typing import Final, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.atmosphere import REFERENCE_DENSITY
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import not_negative, positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr


def centreline_length(floor_length: ArrayLike, roof_length: ArrayLike) -> Array:
    """Port length: mean of the wire laid along the floor and the wire along the roof.

    Parameters
    ----------
    floor_length, roof_length : array_like
        [m].

    Returns
    -------
    ndarray
        [m].

    Raises
    ------
    ValueError
        A length not above zero.

    References
    ----------
    Common practice, no source.
    """
    return np.asarray((positive(floor_length, tr("floor length")) + positive(roof_length, tr("roof length"))) / 2)


def section_area(width: ArrayLike, height: ArrayLike, corner_radius: ArrayLike = 0.0) -> Array:
    """Area of a rectangle with rounded corners, w h - (4 - pi) r^2.

    Parameters
    ----------
    width, height, corner_radius : array_like
        [m].

    Returns
    -------
    ndarray
        Area [m2].

    Raises
    ------
    ValueError
        A corner radius larger than half the smaller side, or sides not above zero.

    References
    ----------
    Geometry.
    """
    w, h = positive(width, "width"), positive(height, "height")
    r = np.asarray(corner_radius, dtype=float)
    if np.any(r < 0):
        raise Refused("corner radius cannot be negative")
    if np.any(2 * r > np.minimum(w, h) * (1 + 1e-12)):
        raise Refused("the corner radius is larger than half the smaller side")
    return np.asarray(w * h - (4 - np.pi) * r**2)


def mean_section(volume: ArrayLike, length: ArrayLike) -> Array:
    """Mean section of a port, V / Lc.

    Parameters
    ----------
    volume : array_like
        Poured volume [m3].
    length : array_like
        Centreline length [m].

    Returns
    -------
    ndarray
        Area [m2].

    Raises
    ------
    ValueError
        Volume or length not above zero.

    References
    ----------
    Geometry.
    """
    return np.asarray(positive(volume, "volume") / positive(length, "length"))


def mean_port_velocity(flow: ArrayLike, volume: ArrayLike, length: ArrayLike) -> Array:
    """Mean air speed in the port, Q Lc / V.

    Parameters
    ----------
    flow : array_like
        [m3/s].
    volume, length : array_like
        [m3], [m].

    Returns
    -------
    ndarray
        Speed [m/s].

    Raises
    ------
    ValueError
        Volume or length not above zero, flow negative.

    References
    ----------
    Continuity.
    """
    return np.asarray(not_negative(flow, "flow") / mean_section(volume, length))


def station_velocity(flow: ArrayLike, area: ArrayLike) -> Array:
    """Mean air speed through one section, Q / A.

    Parameters
    ----------
    flow, area : array_like
        [m3/s], [m2].

    Returns
    -------
    ndarray
        Speed [m/s].

    Raises
    ------
    ValueError
        Area not above zero, flow negative.

    References
    ----------
    Continuity.
    """
    return np.asarray(not_negative(flow, "flow") / positive(area, "area"))


def energy_density(velocity: ArrayLike, density: ArrayLike = REFERENCE_DENSITY) -> Array:
    """Kinetic energy of moving air per volume, rho v^2 / 2.

    Parameters
    ----------
    velocity : array_like
        [m/s].
    density : array_like
        [kg/m3].

    Returns
    -------
    ndarray
        [J/m3].

    Raises
    ------
    ValueError
        Density not above zero.

    References
    ----------
    Definition of kinetic energy.
    """
    return np.asarray(0.5 * positive(density, "density") * np.asarray(velocity, dtype=float) ** 2)


class PortEnergy(NamedTuple):
    """Kinetic energy of the air moving in a port: per volume [J/m3] and in all [J]."""

    density: Array
    total: Array


def port_energy(
    flow: ArrayLike, volume: ArrayLike, length: ArrayLike, density: ArrayLike = REFERENCE_DENSITY
) -> PortEnergy:
    """Energy of the air in the port at its mean speed, rho v^2 / 2 and that times V.

    Parameters
    ----------
    flow, volume, length : array_like
        [m3/s], [m3], [m].
    density : array_like
        [kg/m3].

    Returns
    -------
    PortEnergy
        Energy density [J/m3] and energy [J].

    Raises
    ------
    ValueError
        Volume, length or density not above zero.

    References
    ----------
    Definition of kinetic energy.
    """
    per_volume = energy_density(mean_port_velocity(flow, volume, length), density)
    return PortEnergy(np.asarray(per_volume), np.asarray(per_volume * np.asarray(volume, dtype=float)))


def break_even_flow(flow: ArrayLike, volume_before: ArrayLike, volume_after: ArrayLike) -> Array:
    """Flow that a port of the new volume needs to keep its mean speed, Q V2 / V1.

    Parameters
    ----------
    flow : array_like
        Flow before [m3/s].
    volume_before, volume_after : array_like
        [m3].

    Returns
    -------
    ndarray
        Flow [m3/s].

    Raises
    ------
    ValueError
        Volumes not above zero.

    References
    ----------
    Common practice, no source: 300 CFM, 200 to 205 cc, about 8 more.
    """
    ratio = positive(volume_after, tr("volume after")) / positive(volume_before, tr("volume before"))
    return np.asarray(not_negative(flow, "flow") * ratio)


def hole_wall(hole_spacing: ArrayLike, port_width: ArrayLike) -> Array:
    """Wall beside a hole, (spacing - width) / 2: the mean of the two sides.

    Core shift makes one side thinner, so this never answers a wall limit.

    Parameters
    ----------
    hole_spacing : array_like
        Metal and port between the two holes, edge to edge [m].
    port_width : array_like
        [m].

    Returns
    -------
    ndarray
        Wall [m].

    Raises
    ------
    ValueError
        A port as wide as the room between the holes.

    References
    ----------
    Common practice, no source.
    """
    spacing, width = positive(hole_spacing, tr("hole spacing")), positive(port_width, tr("port width"))
    if np.any(width >= spacing):
        raise Refused("the port is wider than the room between the holes: it has broken through")
    return np.asarray((spacing - width) / 2)


def cone_angle(area_before: ArrayLike, area_after: ArrayLike, distance: ArrayLike) -> Array:
    """Total angle of the round cone that two sections are the ends of.

    .. math:: 2 \\arctan\\frac{d_2 - d_1}{2 l}, \\quad d = \\sqrt{4 A / \\pi}

    Parameters
    ----------
    area_before, area_after : array_like
        In the air's order [m2].
    distance : array_like
        From one to the other [m].

    Returns
    -------
    ndarray
        [rad], positive where the port widens.

    Raises
    ------
    ValueError
        Figures not above zero.

    References
    ----------
    Geometry.
    """
    near, far = (np.sqrt(4 / np.pi * positive(a, "area")) for a in (area_before, area_after))
    return np.asarray(2 * np.arctan((far - near) / (2 * positive(distance, "distance"))))


VOLUME_FLAG: Final = 0.03  # difference of two ways to the same volume that is worth a sentence


def volume_from_stations(distance: ArrayLike, area: ArrayLike) -> float:
    """Volume from areas along the centreline, by Simpson's rule.

    Parameters
    ----------
    distance : array_like
        Along the centreline from the opening [m], rising, shape (n,).
    area : array_like
        Section there [m2], shape (n,).

    Returns
    -------
    float
        Volume [m3].

    Raises
    ------
    ValueError
        Fewer than two stations, distances that do not rise, or areas not above zero.

    References
    ----------
    Simpson's rule for uneven steps, via SciPy.
    """
    x = np.asarray(distance, dtype=float)
    if len(x) < 2 or np.any(np.diff(x) <= 0):
        raise Refused("at least two stations at rising distances are needed")
    from scipy.integrate import simpson  # late: slow to load

    return float(simpson(positive(area, "area"), x=x))


def volume_note(poured: float, from_stations: float) -> str | None:
    """A sentence where poured and integrated volume [m3] are over 3 % apart, else None."""
    apart = from_stations / poured - 1
    if abs(apart) <= VOLUME_FLAG:
        return None
    return tr("volume from stations is {} off the poured one: over 3 %, check both", percent_text(apart, sign=True))
