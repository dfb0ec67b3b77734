"""Quantiles against SciPy's and against printed tables."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from ventrix.core.formulas import quantiles as q


def test_printed_tables() -> None:
    # JCGM 100:2008, table G.2: t for 95 % is 12.71 at 1, 2.57 at 5, 2.31 at 8 degrees of freedom
    for nu, printed in ((1, 12.71), (5, 2.57), (8, 2.31)):
        assert q.t_quantile(0.975, nu) == pytest.approx(printed, abs=0.005)
    # NIST/SEMATECH e-Handbook, tables 1.3.6.7.3 and 1.3.6.7.4 (numbers from memory): F 0.99 of 3 and 10 is 6.552,
    # chi-squared 0.99 of 10 is 23.209
    assert q.f_quantile(0.99, 3, 10) == pytest.approx(6.552, abs=0.0005)
    assert q.chi_squared_quantile(0.99, 10) == pytest.approx(23.209, abs=0.0005)


chances = st.floats(0.001, 0.999)
freedoms = st.one_of(st.floats(2.0, 400.0), st.sampled_from([2.0, 3.0, 1e3, 1e4]))


@given(chances, freedoms)
def test_t_is_scipy_s_to_nine_digits(p: float, nu: float) -> None:
    assert q.t_quantile(p, nu) == pytest.approx(stats.t.ppf(p, nu), rel=1e-9, abs=1e-9)


@given(chances, st.floats(1, 200), freedoms)
def test_f_is_scipy_s_to_nine_digits(p: float, d1: float, d2: float) -> None:
    assert q.f_quantile(p, d1, d2) == pytest.approx(stats.f.ppf(p, d1, d2), rel=1e-9, abs=1e-12)


@given(chances, st.floats(1, 400))
def test_chi_squared_is_scipy_s_to_nine_digits(p: float, nu: float) -> None:
    assert q.chi_squared_quantile(p, nu) == pytest.approx(stats.chi2.ppf(p, nu), rel=1e-9, abs=1e-12)


def test_a_million_degrees_of_freedom_still_carry_eight_digits() -> None:
    for p in (0.01, 0.3, 0.975, 0.999):
        assert q.t_quantile(p, 1e6) == pytest.approx(stats.t.ppf(p, 1e6), rel=1e-8)
        assert q.f_quantile(p, 4, 1e6) == pytest.approx(stats.f.ppf(p, 4, 1e6), rel=1e-8)


def test_the_normal_and_the_limits() -> None:
    assert q.normal_quantile(0.975) == pytest.approx(stats.norm.ppf(0.975), rel=1e-12)
    assert q.t_quantile(0.975, np.inf) == q.normal_quantile(0.975)
    assert q.t_quantile(0.975, 1e9) == pytest.approx(stats.t.ppf(0.975, 1e9), rel=1e-9)
    assert q.t_quantile(0.5, 3.0) == pytest.approx(0.0, abs=1e-12)
    for bad in ((0.0, 3.0), (1.0, 3.0), (0.5, 0.0), (0.5, float("nan"))):
        with pytest.raises(ValueError):
            q.t_quantile(*bad)
