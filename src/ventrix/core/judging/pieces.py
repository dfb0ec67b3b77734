"""What a piece costs that is bolted to a port: a manifold's runner, a spacer, a header's primary."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.wording import Wording
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port, Trial, trial_as_cut
from ventrix.core.model.kinds import TrialKind
from ventrix.core.quantity.arrays import Array
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class PieceLoss:
    """Flow with the piece on less without it, and U(0.05) of it, at lifts tested both ways [m, m3/s or share], shape
    (n,); `by_itself` is what its own test says it costs there, in series; None where it was not flowed alone."""

    lift: Array
    change: Array
    expanded: Array
    before: Array
    by_itself: Array | None
    is_share: bool


def piece_loss(findings: Findings, port: Port, cut: Cut, trial: Trial) -> PieceLoss | None:
    """Hold a cut with a piece on against the cut without it, by the rules every comparison has.

    .. math:: \\frac{1}{Q^2} = \\frac{1}{Q_h^2} + \\frac{1}{Q_p^2}

    Parameters
    ----------
    findings : Findings
        Of the job.
    port, cut, trial : Port, Cut, Trial
        An entry's or pipe's trial on the cut.

    Returns
    -------
    PieceLoss or None
        None for other trials, and where the two were not flowed or may not be compared.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Losses in series at one pressure drop (Idelchik, ch. 1): a piece's own exit loss is in its test and not in the
    series, so that its own test overstates it.
    """
    if trial.kind not in (TrialKind.ENTRY, TrialKind.PIPE) or not trial.runs:
        return None
    comparison = findings.pair(port, cut, trial_as_cut(cut, trial)).comparison
    if comparison is None or not comparison.allowed:
        return None
    told = comparison.tested
    alone = _alone(findings, trial, comparison.pressure) if comparison.kind == FlowKind.FLOW else None
    before = comparison.before[told]
    series = None if alone is None else before / np.sqrt(1 + (before / alone) ** 2) - before
    return PieceLoss(
        comparison.lift[told], comparison.change[told], comparison.expanded[told], before, series,
        comparison.kind == FlowKind.INDEX,
    )  # fmt: skip


def _alone(findings: Findings, trial: Trial, pressure: float) -> float | None:
    """Flow of the piece alone at a pressure: its last run's, which has no lift to speak of."""
    piece = next((p for p in findings.job.ports if p.piece and p.id == trial.piece_id), None)
    runs = (
        [] if piece is None else [r for c in piece.cuts for r in findings.runs_of(c, piece) if r.kind == FlowKind.FLOW]
    )
    return float(np.max(runs[-1].at_pressure(pressure).flow)) if runs else None


def piece_sentence(loss: PieceLoss, port: Port, name: str, words: Wording) -> str:
    """What the piece costs at the highest lift tested both ways."""
    change, expanded, before = (float(v[-1]) for v in (loss.change, loss.expanded, loss.before))
    at = f"{words.lift(float(loss.lift[-1]))} {words.lift_unit}"

    def amount(value: float) -> str:
        return f"{100 * value / before:.1f} %" if loss.is_share else f"{words.flow(value)} {words.flow_name}"

    doubt = amount(expanded)
    if abs(change) <= expanded:
        return tr("With {} on, {} loses nothing that is proven at {} (± {}).", name, port.name, at, doubt)
    verb = "loses" if change < 0 else "gains"
    said = tr("With {} on, {} {} {} ± {} at {}", name, port.name, verb, amount(abs(change)), doubt, at)
    said += "" if loss.is_share else f", {100 * abs(change) / before:.1f} %"
    if loss.by_itself is not None and not loss.is_share:
        said += tr("; by its own test alone it would cost {}, its exit counted", amount(-float(loss.by_itself[-1])))
    return f"{said}."
