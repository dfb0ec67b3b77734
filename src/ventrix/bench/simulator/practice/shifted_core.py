"""A strong shift of the core: bowl and pinch thin on this port."""

from ventrix.bench.simulator.heads.contractions import contractions
from ventrix.bench.simulator.heads.virtual import VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead, engine, with_walls
from ventrix.core.model.kinds import Place
from ventrix.words import tr


def _make(seed: int) -> VirtualPort:
    before = contractions(seed).work(Place.GUIDE, 0.4e-3)  # somebody was here
    return with_walls(before, {Place.BOWL: 1.7e-3, Place.PINCH: 1.5e-3})


HEAD = PracticeHead(
    "shifted-core",
    tr("A core that slipped"),
    tr("Every port of one head differs: another port's wall says nothing about this one's."),
    tr("An oval engine: middle lifts, and no weld."),
    8.0,
    _make,
    history=tr("Somebody has been at the guide: burr marks, and no paper."),
    engine=engine(98, 88, 2500, 6500, 0.48, 226),
)
