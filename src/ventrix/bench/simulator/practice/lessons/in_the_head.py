"""Lessons of what one does to oneself: believing, adding up, and cutting where nobody looked."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.bench.simulator.practice.lessons.lesson import (
    BEST,
    LIFTS,
    Choice,
    Exhibit,
    Lesson,
    Look,
    Puzzle,
    cfm,
    port_flow,
    read,
    shuffled,
)
from ventrix.words import tr

BOLTED: Final = 0.004  # scatter of a bolting-down
TWELVE: Final = 12


def _best_of_twelve(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    level = cfm(float(flow(LIFTS[-1:])[0]))
    most = float(np.mean(np.max(np.random.default_rng(12).standard_normal((4000, TWELVE)), axis=1)))
    gain = most * BOLTED * level
    return Puzzle(
        tr("A port reads {:.0f} CFM, and each bolting-down moves it by {:.1f} CFM either way. It was "
        "bolted down twelve times after the last cut, and the best, {:+z.1f} CFM, went on the sheet. The cut did "
        "nothing at all. What would the best of twelve have been expected to read?", level, BOLTED * level, gain),
        None,
        (
            Look(tr("The mean of all twelve"), 1, f"{0.1 * BOLTED * level:+z.1f} CFM."),
            Look(tr("The worst of the twelve"), 1, f"{-most * BOLTED * level:+z.1f} CFM."),
        ),
        shuffled(
            random,
            Choice(tr("About {:+z.1f} CFM: just what it read", gain), BEST,
                   tr("Right: the best of twelve tries stands 1.6 times the scatter above the truth, by luck alone.")),
            Choice(tr("Nothing: the cut did nothing"), 0,
                tr("The mean would; whoever takes the best of many takes the luck.")),
            Choice(f"{0.3 * gain:+z.1f} CFM", 1, tr("More: the more tries, the better the best one looks.")),
            Choice(f"{3 * gain:+z.1f} CFM", 1, tr("That is far more than luck brings in twelve tries.")),
        ),
        tr("Say before you bolt it down how often you will, and take the mean. The best of many is a record of luck."),
    )  # fmt: skip


def _adding_up(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    level = cfm(float(flow(LIFTS[-1:])[0]))
    doubt = 1.96 * 2**0.5 * BOLTED * level
    small = [round(float(random.uniform(0.25, 0.6)) * doubt, 1) for _ in range(6)]
    total = sum(small)
    return Puzzle(
        tr("Six small cuts in a row read {} CFM, each test bolted down once: +{:.1f} in all, it is said. Two tests of "
           "the same port differ by {:.1f} here. What is known?",
        ', '.join(f'+{g:.1f}' for g in small), total, doubt),
        None,
        (
            Look(tr("As cast and now, each bolted down three times"), 72,
                 tr("+{:.1f} CFM, give or take {:.1f}.", 0.35 * total, doubt / 3**0.5)),
            Look(tr("How many small losses were taken out again as mistakes"), 1,
                tr("Three: they were cut further at once.")),
        ),
        shuffled(
            random,
            Choice(tr("Only what as cast against now says; each step by itself is not proven"), BEST,
                   tr("Right: hold the last against the first. Steps that were kept because they read well lean "
                      "upwards.")),
            Choice(tr("+{:.1f} CFM: six readings can't all be wrong", total), 0,
                   tr("They can, where only the ones that read well were kept.")),
            Choice(tr("Nothing: every step is smaller than the bench repeats"), 1,
                   tr("Together they may be there: the first against the last tells.")),
            Choice(tr("Half of it"), 1, tr("It may be so, and nobody can know without a test of the first against "
                                           "the last.")),
        ),
        tr("Small gains do not add up by adding readings: the uncertainty adds up too, and choosing what to keep adds "
        "luck. Compare the end with the beginning, both mounted more than once."),
    )  # fmt: skip


def _volume(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    grown = float(random.uniform(0.09, 0.13))
    return Puzzle(
        tr("For an engine that pulls a trailer at 1,500 to 4,000 rpm: the pinch and the roof were opened, the port "
           "holds {:.0f} % more and flows two in a hundred more. Keep it?", 100 * grown),
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) * 1.02, random)),
        (
            Look(tr("Mean air speed in the smallest section, at his top speed"), 1,
                 tr("{:+z.0f} % against before, and it was low to begin with.", 100 * (1.02 / (1 + grown) - 1))),
            Look(tr("What the owner uses: his speeds"), 1,
                tr("He never turns past 4,000; the flow was enough for 5,200.")),
            Look(tr("Bolt the head down again and flow it"), 12, tr("The gain is real.")),
        ),
        shuffled(
            random,
            Choice(tr("No: the air got slower and the flow was not what limited him"), BEST,
                   tr("Right: he pays with speed, swirl and torque for CFM that his engine never asks for.")),
            Choice(tr("Yes: more flow is more power"), 0, tr("At speeds he does not turn.")),
            Choice(tr("Yes, if the gain is proven"), 1, tr("It is proven, and still the wrong one for him.")),
            Choice(tr("No: ports must never grow"), 1, tr("They may, where flow is what limits. It was not, here.")),
        ),
        tr("Ask what limits the owner's engine before the port. A real gain can be the wrong gain: hold flow against "
           "volume and air speed, at his speeds."),
    )  # fmt: skip


def _clay(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    return Puzzle(
        tr("Clay was put on the floor before the short side, a tenth of the section, and the flow did not change. "
           "What does that say?"),
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) * 0.999, random), ("without", tr("with clay"))),
        (
            Look(tr("Air speed along the floor there, by probe"), 10,
                tr("A third of that at the roof: little goes by there.")),
            Look(tr("Clay on the roof instead"), 20, tr("It loses four in a hundred.")),
        ),
        shuffled(
            random,
            Choice(tr("Little air goes there: cutting there brings little. It may be filled, and gains speed"), BEST,
                   tr("Right: clay that costs nothing shows a place the air does not use.")),
            Choice(tr("There is too much metal there: cut it"), 0,
                tr("The other way round: the room there is not used as it is.")),
            Choice(tr("Nothing: clay proves nothing"), 1, tr("It proves where room is not missed. That is one way, and "
                                                      "worth it.")),
            Choice(tr("The bench is too coarse"), 1, tr("It saw the roof's four in a hundred well enough.")),
        ),
        tr("Clay proves one way only. Where it costs flow, that room counts; that cutting more room there gains, it "
           "does not say. Where it costs nothing, room is not what is missing."),
    )  # fmt: skip


def _wall(random: np.random.Generator) -> Puzzle:
    here = float(random.uniform(0.105, 0.118))
    return Puzzle(
        tr("Port 1 had 0.190 in of wall over the water at its short side and was cut 0.060 in, with 0.130 left. Port "
           "4 is next, the same cut. It was not read. What now?"),
        None,
        (
            Look(tr("Read the wall of port 4"), 5, tr("{:.3f} in: the core has slipped.", here)),
            Look(tr("Look at the openings from the manifold's side"), 2,
                tr("Port 4 stands lower to its bolts than port 1.")),
        ),
        shuffled(
            random,
            Choice(tr("Read it first, and cut what its own wall allows"), BEST,
                   tr("Right: with {:.3f} in there is next to nothing to take before the limit of 0.100.", here)),
            Choice(tr("Cut the same: castings of one head are alike"), 0,
                   tr("{:.3f} in would be left over water. The first hot day finds it.", here - 0.060)),
            Choice(tr("Cut half of it, to be safe"), 1, tr("{:.3f} in: past the limit, and nobody knew.",
                here - 0.030)),
            Choice(tr("Cut until it rings differently"), 0, tr("That is heard once.")),
        ),
        tr("A core slips, tilts and floats. What was read at one port is a bound for no other: five minutes with the "
           "gauge, every port, every place, before the burr."),
    )  # fmt: skip


def _finish(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    polished = read(flow(LIFTS) * (1 + 0.0005), random)
    return Puzzle(
        tr("An intake was finished with 80 grit and flowed, then polished for two hours and flowed again. What did "
           "the two hours bring?"),
        Exhibit(read(flow(LIFTS), random), polished, ("80 grit", "polished")),
        (
            Look(tr("Bolt it down again, polished"), 12, tr("The same within the bench's repeats.")),
            Look(tr("What two tests of the same port differ by here"), 1, tr("About one in a hundred.")),
        ),
        shuffled(
            random,
            Choice(tr("Nothing that the bench can tell; and a wet wall likes some grit"), BEST,
                   tr("Right: shape makes flow. Finish is for fuel, carbon and the eye.")),
            Choice(tr("A little flow: a smooth wall rubs less"), 1,
                   tr("Less than can be measured: in a port this short friction is a small part.")),
            Choice(tr("It flows less"), 0, tr("The bench says neither.")),
            Choice(tr("More power at the top"), 0, tr("There is no flow for it to come from.")),
        ),
        tr("Hours go where they bring most. Intakes are left with the last grit, exhausts may be smooth because carbon "
        "holds on less (common practice)."),
    )  # fmt: skip


IN_THE_HEAD: Final = (
    Lesson("best-of-twelve", tr("Believing the best of twelve"), False, _best_of_twelve),
    Lesson("adding-up", tr("Adding up small gains"), False, _adding_up),
    Lesson("volume", tr("Volume against flow"), False, _volume),
    Lesson("clay", tr("Clay proves one way only"), False, _clay),
    Lesson("wall", tr("The wall that was not read"), False, _wall),
    Lesson("finish", tr("Finish"), False, _finish),
)
