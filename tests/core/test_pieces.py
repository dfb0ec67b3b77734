"""A piece bolted to a port: what it costs, by the rules every comparison has."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.pieces import PieceLoss, piece_loss, piece_sentence
from ventrix.core.judging.wording import Wording
from ventrix.core.model.cut import Cut, Port, Trial
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import TrialKind
from ventrix.core.model.run import FlowRun, Reading
from ventrix.core.planning.next_moves import plan_port
from ventrix.core.quantity.units import to_si
from ventrix.core.work.route import route
from ventrix.demo.job import demo_benches, demo_job


def with_runner(share: float, alone_cfm: float | None = None, entry: str = "manifold") -> tuple[Job, Trial]:
    """The demo with a runner on Intake 1 that lets a share of the flow pass at every lift."""
    job = demo_job()
    port = job.ports[0]
    cut = port.cuts[-1]
    base = cut.runs[-1]
    setup = replace(job.setup(base.setup_id), id="with-runner", entry=entry)
    readings = tuple(
        replace(r, id=f"t{i}", flow=None if r.flow is None else r.flow * share) for i, r in enumerate(base.readings)
    )
    run = replace(base, id="runner-on", setup_id=setup.id, readings=readings)
    trial = Trial(id="t", kind=TrialKind.ENTRY, name="Runner 1", piece_id="runner", runs=(run,))
    runs: tuple[FlowRun, ...] = ()
    if alone_cfm is not None:
        reading = Reading(id="alone", lift=0.001, flow=to_si(alone_cfm, "cfm"))
        runs = (FlowRun(id="alone", setup_id=base.setup_id, readings=(reading,)),)
    piece = Port(id="runner", name="Runner 1", kind="intake", piece="runner", cuts=(Cut(id="r0", number=0, runs=runs),))
    held = replace(port, cuts=(*port.cuts[:-1], replace(cut, trials=(*cut.trials, trial))))
    return replace(job, setups=(*job.setups, setup), ports=(held, *job.ports[1:], piece)), trial


def lost(job: Job, trial: Trial) -> PieceLoss | None:
    return piece_loss(Findings(job, benches=demo_benches()), job.ports[0], job.ports[0].cuts[-1], trial)


def test_a_tenth_lost_is_told_with_its_doubt() -> None:
    job, trial = with_runner(0.9)
    loss = lost(job, trial)
    assert loss is not None
    assert loss.change == pytest.approx(-0.1 * loss.before, rel=0.02)
    words = piece_sentence(loss, job.ports[0], "Runner 1", Wording())
    assert words.startswith("With Runner 1 on, Intake 1 loses ")
    assert words.endswith(" at 0.600 in, 10.0 %.")


def test_what_chance_may_do_is_no_loss() -> None:
    job, trial = with_runner(0.999)
    loss = lost(job, trial)
    assert loss is not None
    assert "loses nothing that is proven" in piece_sentence(loss, job.ports[0], "Runner 1", Wording())


def test_losses_in_series_add_as_squares() -> None:
    """Two equal restrictions in series pass 1/sqrt(2) of one (Idelchik, ch. 1)."""
    job, trial = with_runner(0.9, alone_cfm=200)
    loss = lost(job, trial)
    assert loss is not None
    assert loss.by_itself is not None
    same = float(np.interp(to_si(200, "cfm"), loss.before, loss.by_itself / loss.before))
    assert 1 + same == pytest.approx(1 / np.sqrt(2), abs=0.02)
    assert "by its own test alone it would cost" in piece_sentence(loss, job.ports[0], "Runner 1", Wording())


def test_clay_is_no_piece_and_a_piece_is_no_port() -> None:
    job, trial = with_runner(0.9)
    assert lost(job, replace(trial, kind=TrialKind.CLAY)) is None
    assert lost(job, replace(trial, runs=())) is None
    assert "Runner 1" not in {c.port for c in route(Findings(job))}
    with pytest.raises(ValueError, match="is a piece, not a port of the head"):
        plan_port(Findings(job), job.ports[-1])
    assert job.ports_beside(job.ports[0]) == demo_job().ports_beside(demo_job().ports[0])
