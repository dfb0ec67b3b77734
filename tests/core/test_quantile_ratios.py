"""The special functions under the quantiles, against SciPy's over what the program ever asks of them, and where they
end."""

from __future__ import annotations

import math

import numpy as np
import pytest
from scipy import special, stats

from ventrix.core.formulas.quantiles import (
    LARGE,
    LARGE_T,
    beta_ratio,
    chi_squared_quantile,
    f_quantile,
    gamma_ratio,
    normal_cdf,
    normal_quantile,
    t_quantile,
)


@pytest.mark.parametrize("x", [-38.0, -8.0, -1.96, -1e-9, 0.0, 0.5, 1.2815515655446004, 6.0, 40.0])
def test_the_normal_is_scipys(x: float) -> None:
    assert normal_cdf(x) == pytest.approx(float(stats.norm.cdf(x)), rel=1e-12, abs=1e-300)
    assert normal_cdf(x) + normal_cdf(-x) == pytest.approx(1.0)


@pytest.mark.parametrize("a", [0.5, 1.0, 2.5, 7.0, 40.0, 900.0])
@pytest.mark.parametrize("b", [0.5, 1.0, 3.0, 25.0, 400.0])
def test_the_beta_ratio_is_scipys(a: float, b: float) -> None:
    for x in (0.0, 1e-6, 0.05, 0.3, a / (a + b), 0.7, 0.95, 1 - 1e-6, 1.0):
        assert beta_ratio(a, b, x) == pytest.approx(float(special.betainc(a, b, x)), rel=1e-8, abs=1e-15)
        assert beta_ratio(a, b, x) + beta_ratio(b, a, 1 - x) == pytest.approx(1.0, abs=1e-9)


@pytest.mark.parametrize("a", [0.5, 1.0, 1.5, 6.0, 50.0, 2000.0])
def test_the_gamma_ratio_is_scipys(a: float) -> None:
    for x in (0.0, 1e-8, 0.1 * a, 0.9 * a, a, 1.1 * a, 3 * a, 50 * a):
        assert gamma_ratio(a, x) == pytest.approx(float(special.gammainc(a, x)), rel=1e-8, abs=1e-15)


@pytest.mark.parametrize(("nu", "one_sided", "two_sided"), [(1, 6.314, 12.706), (4, 2.132, 2.776), (10, 1.812, 2.228),
                                                            (30, 1.697, 2.042), (math.inf, 1.645, 1.960)])  # fmt: skip
def test_students_t_is_the_handbooks(nu: float, one_sided: float, two_sided: float) -> None:
    """NIST/SEMATECH e-Handbook, 1.3.6.7.2, critical values of Student's t."""
    assert t_quantile(0.95, nu) == pytest.approx(one_sided, abs=6e-4)
    assert t_quantile(0.975, nu) == pytest.approx(two_sided, abs=6e-4)
    assert t_quantile(0.025, nu) == pytest.approx(-two_sided, abs=6e-4)


@pytest.mark.parametrize(("nu", "low", "high"), [(1, 0.004, 3.841), (5, 1.145, 11.070), (10, 3.940, 18.307),
                                                 (30, 18.493, 43.773)])  # fmt: skip
def test_chi_squared_is_the_handbooks(nu: float, low: float, high: float) -> None:
    """NIST/SEMATECH e-Handbook, 1.3.6.7.4, critical values of chi-square."""
    assert chi_squared_quantile(0.05, nu) == pytest.approx(low, abs=6e-4)
    assert chi_squared_quantile(0.95, nu) == pytest.approx(high, abs=6e-4)


@pytest.mark.parametrize(("d1", "d2", "value"), [(1, 10, 4.965), (3, 8, 4.066), (5, 20, 2.711), (10, 10, 2.978)])
def test_f_is_the_handbooks(d1: float, d2: float, value: float) -> None:
    """NIST/SEMATECH e-Handbook, 1.3.6.7.3, upper critical values of F at 5 %."""
    assert f_quantile(0.95, d1, d2) == pytest.approx(value, abs=6e-4)


def test_the_limit_of_many_degrees_of_freedom_is_met_without_a_step() -> None:
    for p in (0.6, 0.9, 0.975, 0.999):
        for nu in (0.999 * LARGE_T, 1.001 * LARGE_T, LARGE):
            assert t_quantile(p, nu) == pytest.approx(float(stats.t.ppf(p, nu)), rel=1e-9)
        above = t_quantile(p, LARGE)
        assert above == pytest.approx(normal_quantile(p), rel=1e-6)
        assert f_quantile(p, 3.0, 10 * LARGE) == pytest.approx(float(stats.f.ppf(p, 3, 1e12)), rel=1e-5)


def test_quantiles_are_turned_round_chances() -> None:
    random = np.random.default_rng(3)
    for _ in range(60):
        p = float(random.uniform(0.001, 0.999))
        nu = float(np.exp(random.uniform(np.log(0.6), np.log(500))))
        assert float(stats.t.cdf(t_quantile(p, nu), nu)) == pytest.approx(p, abs=1e-8)
        assert float(stats.chi2.cdf(chi_squared_quantile(p, nu), nu)) == pytest.approx(p, abs=1e-8)
        assert normal_cdf(normal_quantile(p)) == pytest.approx(p, abs=1e-10)


@pytest.mark.parametrize("p", [0.0, 1.0, -0.1, 1.1, math.nan])
def test_a_chance_lies_between_nought_and_one(p: float) -> None:
    for ask in (normal_quantile, lambda q: t_quantile(q, 5), lambda q: chi_squared_quantile(q, 5)):
        with pytest.raises(ValueError, match="a chance lies between 0 and 1"):
            ask(p)


@pytest.mark.parametrize("nu", [0.0, -1.0, math.nan])
def test_degrees_of_freedom_are_above_nought(nu: float) -> None:
    for ask in (lambda n: t_quantile(0.9, n), lambda n: chi_squared_quantile(0.9, n), lambda n: f_quantile(0.9, n, 5)):
        with pytest.raises(ValueError, match="degrees of freedom"):
            ask(nu)
