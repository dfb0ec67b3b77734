"""What a shop's own finished ports of one casting and kind tell of the next: where its losses stand, and by how much
they spread."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import replace
from typing import Final

import numpy as np

from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Port
from ventrix.core.model.job_parts import plain_casting
from ventrix.core.model.kinds import Direction
from ventrix.core.planning import priors
from ventrix.core.planning.learned import RESIDUAL_AT, CastingPrior
from ventrix.core.planning.loss_chain import ChainFit, fit_chain
from ventrix.core.planning.of_job import planned_port
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused

BETWEEN: Final = 1 - 0.5**2  # of the book's variance: from casting to casting
WITHIN: Final = 0.5**2  # from port to port of one casting
WITHIN_DEGREES: Final = 8.0  # of the inverse Wishart that this is the mean of
ROUNDS: Final = 30
REMOVAL_SPREAD: Final = 0.6  # of the book's spread of what a pass takes: how far a casting may lie off it
RESIDUAL_SMOOTH: Final = 0.06  # L/D


def casting_prior(fits: Sequence[ChainFit]) -> CastingPrior | None:
    """The prior of the next port of a casting and kind.

    Every finished port enters by what its data add to the book: with z its standardised parameters, S their posterior
    covariance and u their posterior mean, the information is S^-1 - 1 about S^-1 u. With m the casting's mean and L its
    spread,

    .. math:: z_j \\sim N(m, L), \\quad m \\sim N(0, 0.75), \\quad L \\sim W^{-1}(8, 0.25)

    thirty rounds of expectation and maximisation give m with its doubt, and L; the next port has N(m, L + doubt). What
    passes took is read off the same ports, fitted again from that.

    Parameters
    ----------
    fits : sequence of ChainFit
        Of finished ports, each fitted from the book's own prior.

    Returns
    -------
    CastingPrior or None
        None without any.

    References
    ----------
    Dempster, Laird & Rubin (1977); the variances are PLANNING's, tried on virtual castings, no source.
    """
    if not fits:
        return None
    informed = [_information(fit) for fit in fits]
    m = len(informed[0][1])
    eye, count = np.eye(m), len(informed)
    mean: Array = np.zeros(m)
    spread: Array = WITHIN * eye
    for _ in range(ROUNDS):
        tight = np.linalg.inv(spread)
        covs = [np.linalg.inv(tight + inform) for inform, _ in informed]
        means = [cov @ (tight @ mean + about) for cov, (_, about) in zip(covs, informed, strict=True)]
        mean = np.asarray(np.linalg.inv(count * tight + eye / BETWEEN) @ tight @ np.sum(means, axis=0))
        scatter = sum(cov + np.outer(z - mean, z - mean) for cov, z in zip(covs, means, strict=True))
        spread = np.asarray((WITHIN_DEGREES * WITHIN * eye + scatter) / (WITHIN_DEGREES + count))
    # What m itself is not known by: each port speaks of it through its own doubt.
    speaks = sum(inform - inform @ cov @ inform for (inform, _), cov in zip(informed, covs, strict=True))
    doubt = np.linalg.inv(speaks + eye / BETWEEN)
    first = CastingPrior(count, mean, np.asarray(spread + doubt), {}, _residual(fits))
    # What a pass took and what was there hang together: asked again once the casting's losses are known.
    again = [fit_chain(replace(fit.chain, learned=first)) for fit in fits]
    return replace(first, removal=_removal(again))


def _information(fit: ChainFit) -> tuple[Array, Array]:
    """What a port's data add to the book: information and information times mean, standardised."""
    layout = fit.layout
    shared = layout.shared
    root = np.linalg.cholesky(layout.prior[np.ix_(shared, shared)])
    back = np.linalg.inv(root)
    z = back @ (fit.best[shared] - layout.mean[shared])
    precision = np.linalg.inv(back @ fit.covariance[np.ix_(shared, shared)] @ back.T)
    values, vectors = np.linalg.eigh(precision - np.eye(len(z)))
    inform = (vectors * np.maximum(values, 0.0)) @ vectors.T
    return np.asarray(inform), np.asarray(precision @ z)


def _removal(fits: Sequence[ChainFit]) -> dict[str, float]:
    """By place, the precision-weighted mean of what passes took over what the book says, in logits."""
    weight: dict[str, float] = {}
    total: dict[str, float] = {}
    for fit in fits:
        for _, work, i in fit.layout.works:
            gained = 1 / fit.covariance[i, i] - 1 / priors.TAKES_SPREAD**2
            if gained <= 0:
                continue
            # The data's own estimate: the posterior with the book's part taken out.
            shift = (fit.best[i] - fit.layout.mean[i]) / fit.covariance[i, i] / gained
            weight[work.place] = weight.get(work.place, 0.0) + gained
            total[work.place] = total.get(work.place, 0.0) + gained * shift
    book = 1 / (REMOVAL_SPREAD * priors.TAKES_SPREAD) ** 2
    return {place: total[place] / (weight[place] + book) for place in weight}


def _residual(fits: Sequence[ChainFit]) -> Array:
    """The mean of what the chain could not say of each port's first state, smoothed over L/D."""
    whole = np.zeros(len(RESIDUAL_AT))
    for fit in fits:
        state = fit.chain.states[0]
        x = state.lift / state.valve.diameter
        left = np.log(state.flow) - fit.layout.log_flow(fit.best[None, :], fit.layout.at(state.lift, 0))[0]
        near = np.exp(-0.5 * ((RESIDUAL_AT[:, None] - x[None, :]) / RESIDUAL_SMOOTH) ** 2)
        whole += near @ left / (near.sum(axis=1) + 0.5)
    return np.asarray(whole / (len(fits) + 1))


def learn(jobs: Sequence[Findings], castings: Collection[str], kind: Direction) -> CastingPrior | None:
    """What finished ports of these casting numbers and this kind tell of the next one.

    Parameters
    ----------
    jobs : sequence of Findings
        Of other heads.
    castings : collection of str
        Casting numbers, as `plain_casting` has them.
    kind : str
        "intake" or "exhaust".

    Returns
    -------
    CastingPrior or None
        Of every port that was flowed on the shop's own bench, worked, and flowed again; None without any.
    """
    fits = []
    for findings in jobs:
        heads = [h.id for h in findings.job.heads if plain_casting(h.casting) in castings]
        for port in (p for p in findings.job.ports if p.kind == kind and p.of_head):
            if (port.head_id in heads or len(heads) == len(findings.job.heads) == 1) and _is_finished(findings, port):
                try:
                    fits.append(fit_chain(planned_port(findings, port).chain))
                except (Refused, np.linalg.LinAlgError):
                    continue
    return casting_prior(fits)


def _is_finished(findings: Findings, port: Port) -> bool:
    """Flowed, worked and flowed again, here: what another shop's sheet says teaches nothing."""
    flowed = [c for c in port.cuts if findings.runs_of(c, port)]
    worked = any(c.operations for c in port.cuts if flowed and flowed[0].number < c.number <= flowed[-1].number)
    return worked and not any(r.house for c in flowed for r in findings.runs_of(c, port))
