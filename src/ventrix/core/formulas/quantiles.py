"""Quantiles that verdicts need: normal, Student's t, chi-squared and F.

Written out here since SciPy's special functions cost half a second at every start; a test holds them to SciPy's to
nine digits.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import lru_cache
from typing import Final

from ventrix.core.quantity.refused import Refused

MOST_STEPS: Final = 20_000  # of a continued fraction or series
TINY: Final = 1e-300
LARGE: Final = 1e7  # degrees of freedom from which F is chi-squared
LARGE_T: Final = 2e5  # from which t is the normal with its first correction, to nine digits


def normal_cdf(x: float) -> float:
    """Chance that a standard normal lies below x.

    Parameters
    ----------
    x : float
        Standard deviations above the mean [-].

    Returns
    -------
    float
        Chance [-].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    The error function.
    """
    return 0.5 * math.erfc(-x / math.sqrt(2))


def _normal_density(x: float) -> float:
    """Density of a standard normal at x standard deviations [-]."""
    return math.exp(-0.5 * x * x) / math.sqrt(2 * math.pi)


@lru_cache(maxsize=512)
def normal_quantile(p: float) -> float:
    """Where a standard normal lies below with chance p.

    Raises ValueError for a p not between 0 and 1. Source: `normal_cdf`, turned round by bisection and Newton.
    """
    _check(p)
    if p == 0.5:
        return 0.0
    return _solve(normal_cdf, _normal_density, p, 0.0, (-40.0, 40.0))


@lru_cache(maxsize=4096)
def t_quantile(p: float, nu: float) -> float:
    """Where Student's t with nu degrees of freedom lies below with chance p.

    Raises ValueError for a p not between 0 and 1, or a nu not above zero. Source: Abramowitz and Stegun, 26.7.1 and
    26.5.27; for large nu 26.7.5.
    """
    _check(p)
    if not nu > 0:
        raise Refused("degrees of freedom must be above zero")
    if p < 0.5:
        return -t_quantile(1 - p, nu)
    if p == 0.5:
        return 0.0
    z = normal_quantile(p)
    if math.isinf(nu):
        return z
    if nu > LARGE_T:
        return z + (z**3 + z) / (4 * nu)

    def cdf(t: float) -> float:
        return 0.5 + 0.5 * beta_ratio(0.5, nu / 2, t * t / (nu + t * t))

    front = math.lgamma((nu + 1) / 2) - math.lgamma(nu / 2) - 0.5 * math.log(nu * math.pi)

    def density(t: float) -> float:
        return math.exp(front - (nu + 1) / 2 * math.log1p(t * t / nu))

    start = z + (z**3 + z) / (4 * nu) + (5 * z**5 + 16 * z**3 + 3 * z) / (96 * nu * nu)
    return _solve(cdf, density, p, start, (0.0, math.inf))


@lru_cache(maxsize=1024)
def chi_squared_quantile(p: float, nu: float) -> float:
    """Where chi-squared with nu degrees of freedom lies below with chance p.

    Raises ValueError as `t_quantile`. Source: Abramowitz and Stegun, 26.4.19.
    """
    _check(p)
    if not nu > 0:
        raise Refused("degrees of freedom must be above zero")
    spread = 2 / (9 * nu)
    start = nu * (1 - spread + normal_quantile(p) * math.sqrt(spread)) ** 3  # Wilson and Hilferty

    def density(x: float) -> float:
        return math.exp((nu / 2 - 1) * math.log(x) - x / 2 - nu / 2 * math.log(2) - math.lgamma(nu / 2))

    return _solve(lambda x: gamma_ratio(nu / 2, x / 2), density, p, start, (0.0, math.inf))


@lru_cache(maxsize=4096)
def f_quantile(p: float, d1: float, d2: float) -> float:
    """Where F with d1 and d2 degrees of freedom lies below with chance p.

    Raises ValueError as `t_quantile`. Source: Abramowitz and Stegun, 26.6.2.
    """
    _check(p)
    if not (d1 > 0 and d2 > 0):
        raise Refused("degrees of freedom must be above zero")
    if d2 > LARGE:
        return chi_squared_quantile(p, d1) / d1

    def cdf(x: float) -> float:
        return beta_ratio(d1 / 2, d2 / 2, d1 * x / (d2 + d1 * x))

    ratio = d1 / d2
    front = d1 / 2 * math.log(ratio) + math.lgamma((d1 + d2) / 2) - math.lgamma(d1 / 2) - math.lgamma(d2 / 2)

    def density(x: float) -> float:
        return math.exp(front + (d1 / 2 - 1) * math.log(x) - (d1 + d2) / 2 * math.log1p(ratio * x))

    return _solve(cdf, density, p, _near_f(normal_quantile(p), d1, d2), (0.0, math.inf))


def _near_f(z: float, d1: float, d2: float) -> float:
    """About the F that corresponds to a normal z: Paulson's, after Wilson and Hilferty; one where that has none."""
    a, b = 2 / (9 * d1), 2 / (9 * d2)
    inside, below = (1 - a) ** 2 * b + (1 - b) ** 2 * a - z * z * a * b, (1 - b) ** 2 - z * z * b
    if inside <= 0 or below <= 0:
        return 1.0
    return ((1 - a) * (1 - b) + z * math.sqrt(inside)) ** 3 / below**3


def _check(p: float) -> None:
    if not 0 < p < 1:
        raise Refused("a chance lies between 0 and 1")


def _solve(
    cdf: Callable[[float], float],
    density: Callable[[float], float],
    p: float,
    start: float,
    ends: tuple[float, float],
) -> float:
    """Where a rising function is p: Newton from a start, kept between two ends that close in."""
    low, high = ends
    x = start
    for _ in range(200):
        if not low < x < high:
            x = (low + high) / 2 if math.isfinite(high) else 2 * low + 1
        off = cdf(x) - p
        if off < 0:
            low = x
        else:
            high = x
        slope = density(x)
        step = off / slope if slope > 0 else math.inf
        x -= step
        if abs(step) <= 1e-9 * abs(x) or (math.isfinite(high) and high - low <= 4e-15 * abs(high)):
            return x
    return x


def beta_ratio(a: float, b: float, x: float) -> float:
    """The regularised incomplete beta function I_x(a, b), by its continued fraction.

    Parameters
    ----------
    a : float
        Above zero [-].
    b : float
        Above zero [-].
    x : float
        From 0 to 1 [-].

    Returns
    -------
    float
        From 0 to 1 [-].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Abramowitz and Stegun, 26.5.8, by Lentz's method.
    """
    if x <= 0:
        return 0.0
    if x >= 1:
        return 1.0
    front = math.exp(math.lgamma(a + b) - math.lgamma(a) - math.lgamma(b) + a * math.log(x) + b * math.log1p(-x))
    if x < (a + 1) / (a + b + 2):
        return front * _beta_fraction(a, b, x) / a
    return 1 - front * _beta_fraction(b, a, 1 - x) / b


def _beta_fraction(a: float, b: float, x: float) -> float:
    c, d = 1.0, 1 / _away(1 - (a + b) * x / (a + 1))
    fraction = d
    for m in range(1, MOST_STEPS):
        twice = a + 2 * m
        even = m * (b - m) * x / ((twice - 1) * twice)
        odd = -(a + m) * (a + b + m) * x / (twice * (twice + 1))
        for step in (even, odd):
            d = 1 / _away(1 + step * d)
            c = _away(1 + step / c)
            fraction *= c * d
        if abs(c * d - 1) < 1e-16:
            break
    return fraction


def _away(value: float) -> float:
    """Away from nought, so that it can be divided by."""
    return value if abs(value) > TINY else TINY


def gamma_ratio(a: float, x: float) -> float:
    """The regularised incomplete gamma function P(a, x): its series below a + 1, its continued fraction above.

    Parameters
    ----------
    a : float
        Above zero [-].
    x : float
        From zero [-].

    Returns
    -------
    float
        From 0 to 1 [-].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Abramowitz and Stegun, 6.5.29 and 6.5.31.
    """
    if x <= 0:
        return 0.0
    front = math.exp(a * math.log(x) - x - math.lgamma(a))
    if x < a + 1:
        term = total = 1 / a
        for n in range(1, MOST_STEPS):
            term *= x / (a + n)
            total += term
            if term < 1e-17 * total:
                break
        return front * total
    b, c = x + 1 - a, 1 / TINY
    d = 1 / _away(b)
    found = d
    for n in range(1, MOST_STEPS):
        step = -n * (n - a)
        b += 2
        d = 1 / _away(step * d + b)
        c = _away(b + step / c)
        found *= c * d
        if abs(c * d - 1) < 1e-16:
            break
    return 1 - front * found
