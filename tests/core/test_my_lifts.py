"""The porter's own lifts and swirl wishes, worked by hand."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from tests.core.builders import BASE, FULL, SHARP, run
from ventrix.core.formulas.knowledge import Known
from ventrix.core.judging.comparing import compare_runs
from ventrix.core.judging.my_lifts import at_my_lifts, swirl_wish_sentences
from ventrix.core.judging.schools import own_weights, school_weights
from ventrix.core.judging.verdict import judge
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import MyLift, SwirlWish
from ventrix.core.model.kinds import Result, School
from ventrix.core.quantity.units import to_si


def mine(*lifts: float) -> tuple[MyLift, ...]:
    return tuple(MyLift(id=str(x), kind="intake", lift=x * 1e-3, name="") for x in lifts)


def test_own_lifts_count_equally_and_lie_on_straight_lines_between() -> None:
    lift = np.array([0.001, 0.002, 0.004])
    assert own_weights(lift, (0.002,)).tolist() == [0, 1, 0]
    # a quarter of the way from 2 to 4 mm
    assert own_weights(lift, (0.0025,)) == pytest.approx([0, 0.75, 0.25])
    assert own_weights(lift, (0.001, 0.004)) == pytest.approx([0.5, 0, 0.5])
    assert own_weights(lift, (0.0005, 0.009)).tolist() == [0, 0, 0], "not reached: counts nothing"
    assert school_weights(School.MINE, lift, lift, None) == pytest.approx([1 / 3] * 3)


MORE = BASE + np.array([0, 0, 0, 0, 0, 0, 8.0, 10.0, 11.0, 11.0])


def test_a_pair_at_my_lifts() -> None:
    c = compare_runs([run(BASE)], [run(MORE)], known=Known(SHARP), own_lifts=(0.002, 0.009))
    lifts = [round(float(x) * 1e3, 3) for x in c.lift]
    low, high, between = at_my_lifts(c, mine(lifts[1], lifts[8], (lifts[3] + lifts[4]) / 2))
    assert low.result is Result.NOT_PROVEN and low.change == pytest.approx(0, abs=1e-6)
    assert high.result is Result.BETTER and high.change == pytest.approx(to_si(11, "cfm"), rel=0.02)
    assert between.interpolated and between.result is Result.NOT_PROVEN
    assert between.before == pytest.approx((c.before[3] + c.before[4]) / 2)
    assert at_my_lifts(c, mine(90)) == ()


def test_my_lifts_as_a_fourth_school_see_what_they_look_at() -> None:
    lifts = [float(x) for x in compare_runs([run(BASE)], [run(MORE)]).lift]
    low, high = (lifts[0], lifts[1]), (lifts[8], lifts[9])

    def result(own: tuple[float, ...]) -> str:
        c = compare_runs([run(BASE)], [run(MORE)], known=Known(SHARP), school=School.MINE, own_lifts=own)
        return judge(c).result

    assert result(high) == Result.BETTER and result(low) != Result.BETTER
    c = compare_runs([run(BASE)], [run(MORE)], known=Known(SHARP))
    assert not any(d.startswith("my lifts") for d in judge(c).dissent), "nobody chose any"


def test_a_gain_that_costs_swirl_says_so() -> None:
    wish = SwirlWish(id="w", kind="intake", low=0.001, high=0.02, swirl=to_si(300, "rpm"))
    job = Job(id="j", title="t", swirl_wishes=(wish,))
    plain = compare_runs([run(BASE)], [run(MORE)]).after_runs[0]
    had, has = (replace(plain, swirl=np.full(len(plain.lift), to_si(v, "rpm"))) for v in (400, 250))
    (said,) = swirl_wish_sentences(job, "intake", had, has)
    assert "250 of the 300 rpm wished, 150 less than before: the flow was bought with it" in said
    assert swirl_wish_sentences(job, "intake", had, had) == ()
    assert swirl_wish_sentences(job, "exhaust", had, has) == ()
    (kept,) = swirl_wish_sentences(job, "intake", had, replace(has, swirl=has.swirl * 1.3))
    assert "still has what is wished" in kept
    assert swirl_wish_sentences(job, "intake", plain, plain) == (), "no swirl was read"
    assert FULL.direction == "intake"
