"""Lessons of what the bench does to numbers: each of its lies as a puzzle."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.bench.simulator.lies import DIAL_ERROR
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
from ventrix.core.quantity.units import to_si
from ventrix.words import tr

ASKED: Final = tr("Nothing else is said to have changed. Where does the difference come from?")
CUT: Final = tr("The bowl was blended a little and the port flowed again.")


def _dial(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    low = 100 * (float(flow(LIFTS[:1] + DIAL_ERROR)[0]) / float(flow(LIFTS[:1])[0]) - 1)
    return Puzzle(
        tr("{} It gained most at the lowest lifts, and nothing at the top. {}", CUT, ASKED),
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS + DIAL_ERROR), random)),
        (
            Look(tr("Close the valve on its seat and look at the dial"), 1,
                tr("It rests at three thousandths, not at zero.")),
            Look(tr("Bolt the head down again and flow it"), 12, tr("The same gain, at the same lifts.")),
            Look(tr("Close the valve and read the leak"), 2, tr("As small as before.")),
            Look(tr("Pour the port"), 8, tr("A third of a cc more.")),
        ),
        shuffled(
            random,
            Choice(tr("The dial's zero: the valve stood further open than it said"), BEST,
                   tr("Right: three thousandths are a large share of a small lift and none of a large one.")),
            Choice(tr("The blend: the low lifts live from the bowl and the seat"), 1,
                   tr("It could be; but a blend that small does not gain more the nearer the valve is to its seat.")),
            Choice(tr("A leak at the head's seal"), 1,
                tr("A leak adds the same flow at every lift, the top ones too.")),
            Choice(tr("Warmer air"), 0, tr("That moves every lift by the same share.")),
        ),
        tr("Three thousandths of lift read as {:.1f} % at the first lift and as nothing at the last. A gain that dies "
        "away with lift is the dial until its zero was looked at again; setting it takes a minute.", low),
    )  # fmt: skip


def _off_centre(random: np.random.Generator) -> Puzzle:
    flow, valve = port_flow(random)
    factor = 1 + 0.03 * np.clip(LIFTS / valve / 0.25, 0.2, 1.0)
    return Puzzle(
        tr("{} It gained more the further the valve was open, up to three in a hundred. {}", CUT, ASKED),
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) * factor, random)),
        (
            Look(tr("Feel round the chamber's edge against the sleeve"), 2,
                 tr("A step of twenty thousandths on the side of the other valve, none here.")),
            Look(tr("Bolt the head down again, in the sleeve's middle, and flow it"), 12, tr("The gain is gone.")),
            Look(tr("Check the dial's zero"), 1, "Zero."),
            Look(tr("Pour the port"), 8, tr("The same cc as before.")),
        ),
        shuffled(
            random,
            Choice(tr("The head sat off the sleeve's middle and unshrouded the valve"), BEST,
                   tr("Right: the wall stood further from this valve than it does in the engine.")),
            Choice(tr("The blend: high lifts live from the bowl"), 1,
                   tr("The pour says no metal to speak of is gone, and a second mounting says the rest.")),
            Choice(tr("The dial's zero"), 0, tr("That gains at the lowest lifts, and dies away with lift.")),
            Choice(tr("A leak"), 0, tr("A leak adds the same flow everywhere: most, by share, where the flow is "
                                       "least.")),
        ),
        tr("A head that sits off its sleeve changes the shroud. It looks like a good high-lift gain, and in the "
           "engine it is not there. Locate it by pins or by feel, and mount again before you believe a gain you "
           "like."),
    )  # fmt: skip


def _bare(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    return Puzzle(
        tr("The pinch was opened by eye and the port flowed again: it lost nearly five in a hundred at every lift. {}",
           ASKED),
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) * 0.955, random)),
        (
            Look(tr("Read what the set-up of both tests says of the entry"), 1,
                 tr("Before: radius plate. After: nothing is noted.")),
            Look(tr("Look into the port's opening"), 1, tr("The clay radius lies on the shelf, not on the port.")),
            Look(tr("Close the valve and read the leak"), 2, tr("As small as before.")),
            Look(tr("Bolt the head down again and flow it"), 12, tr("The same loss.")),
        ),
        shuffled(
            random,
            Choice(tr("The second test was flowed with a bare opening"), BEST,
                   tr("Right: air that turns over a sharp edge loses there, whatever the port does.")),
            Choice(tr("The pinch was opened too far: the air is too slow"), 1,
                   tr("A section that grows costs air speed, not five in a hundred of the flow at every lift.")),
            Choice(tr("The bench was cold"), 1, tr("It reads low while it is cold, but the plate would say so too.")),
            Choice(tr("The valve did not open as far"), 0, tr("That costs at the low lifts and nothing at the top.")),
        ),
        tr("Entries are part of the port as far as the bench knows. Two tests with different entries are no pair: fit "
           "the radius to both, or bridge them by flowing one state both ways."),
    )  # fmt: skip


def _leak(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    leak = to_si(float(random.uniform(1.8, 2.8)), "cfm")
    return Puzzle(
        tr("The seat was cut again. The port gained the same few CFM at every lift. {}", ASKED),
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) + leak, random)),
        (
            Look(tr("Close the valve and read the bench"), 2,
                tr("{:.1f} CFM run through with the valve shut.", cfm(leak))),
            Look(tr("Lap the valve in, close it, and read again"), 8,
                tr("Next to nothing: it was the seat that leaked.")),
            Look(tr("Check the dial's zero"), 1, "Zero."),
            Look(tr("Bolt the head down again and flow it"), 12, tr("The same gain.")),
        ),
        shuffled(
            random,
            Choice(tr("The valve does not seal on the new seat, and that is counted as flow"), BEST,
                   tr("Right: what passes a shut valve is added to every lift alike.")),
            Choice(tr("The new seat flows better"), 1,
                   tr("A better seat gains most at the low lifts; it does not add the same CFM at the highest.")),
            Choice(tr("The head is off center"), 0, tr("That gains at high lift, not the same CFM everywhere.")),
            Choice(tr("The bench had warmed up"), 1,
                tr("That moves all lifts by the same share, not by the same CFM.")),
        ),
        tr("Read the leak with the valve shut before every test, and take it off, or lap the valve and be rid of it. "
           "A gain that is the same number of CFM at every lift is a leak until it was read."),
    )  # fmt: skip


def _range(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    low = read(flow(LIFTS), random)
    high = low.copy()
    high[3:] = read(flow(LIFTS[3:]) * 1.018, random)
    return Puzzle(
        tr("The guide boss was thinned. The first three lifts stand as they were, and from the fourth on there is a "
           "gain all at once. {}", ASKED),
        Exhibit(low, high),
        (
            Look(tr("Read on which range each lift was flowed"), 1,
                 tr("Before: all on range 5. After: range 4 up to the third lift, range 5 with its scale nearly full "
                 "after.")),
            Look(tr("Flow the fourth lift on both ranges"), 3, tr("They differ by nearly two in a hundred.")),
            Look(tr("Close the valve and read the leak"), 2, tr("As small as before.")),
            Look(tr("Bolt the head down again and flow it"), 12, tr("The same step at the same place.")),
        ),
        shuffled(
            random,
            Choice(tr("The ranges of the bench do not agree where one takes over"), BEST,
                   tr("Right: a step in a curve stands where the range was changed, not where the port did "
                      "something.")),
            Choice(tr("The boss: a guide in the air's way counts at high lift"), 1,
                   tr("It does, but it starts little by little; no port makes a step between two lifts.")),
            Choice(tr("The port separates from the fourth lift on"), 0, tr("Then it would lose there, and hiss.")),
            Choice(tr("The dial slipped"), 1,
                tr("That would shift the whole curve from there on sideways, and stay visible.")),
        ),
        tr("Flow both states on the same ranges, and know by how much yours disagree: one lift read on both tells it "
           "in three minutes."),
    )  # fmt: skip


def _cold(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    return Puzzle(
        tr("As cast it was flowed first thing in the morning. The wall was cleaned, and after lunch it was flowed "
           "again: two in a hundred more at every lift. {}", ASKED),
        Exhibit(read(flow(LIFTS) * 0.978, random), read(flow(LIFTS), random), ("morning", tr("after lunch"))),
        (
            Look(tr("Flow the plate now and look up what it read in the morning"), 5,
                 tr("Now 152.1, in the morning 148.8: it was not the port that rose.")),
            Look(tr("Read the log of temperatures"), 1, tr("Bench and room were nine degrees apart in the morning.")),
            Look(tr("Check the dial's zero"), 1, "Zero."),
            Look(tr("Bolt the head down again and flow it"), 12, tr("As after lunch.")),
        ),
        shuffled(
            random,
            Choice(tr("The bench was cold in the morning and read low"), BEST,
                   tr("Right: the plate rose as much as the port, and no burr was at the plate.")),
            Choice(tr("Cleaning the wall brought it"), 1, tr("Finish moves next to nothing, and never the plate.")),
            Choice(tr("A leak in the morning"), 0, tr("A leak makes the morning read high, not low.")),
            Choice(tr("The head sat better after lunch"), 1,
                tr("That moves the high lifts, and a mount again would show it.")),
        ),
        tr("Let the bench run until the plate stands still, and flow the plate before and after. A shift of the same "
           "share at every lift is the bench or the air, before it is the port."),
    )  # fmt: skip


def _sleeve(random: np.random.Generator) -> Puzzle:
    flow, valve = port_flow(random)
    factor = 1 + 0.022 * np.clip((LIFTS / valve - 0.08) / 0.2, 0.0, 1.0)
    return Puzzle(
        tr("The head came back from its owner and was flowed again: two in a hundred more from the middle lifts on. He "
        "swears that nothing was touched. {}", ASKED),
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) * factor, random)),
        (
            Look(tr("Read the set-ups of both tests"), 1,
                tr("Before: the job's bore. After: the next sleeve up, off the shelf.")),
            Look(tr("Put the job's own sleeve on and flow it"), 12, tr("As it was before.")),
            Look(tr("Pour the port"), 8, tr("The same cc.")),
            Look(tr("Check the dial's zero"), 1, "Zero."),
        ),
        shuffled(
            random,
            Choice(tr("The sleeve: a larger bore stands further from the valve"), BEST,
                   tr("Right: shroud counts from the middle lifts on, and it belongs to the engine's own bore.")),
            Choice(tr("He had it ported elsewhere"), 1, tr("The same cc and the same walls: no metal is gone.")),
            Choice(tr("The bench drifted"), 1, tr("That moves all lifts, the low ones as much.")),
            Choice(tr("The valve leaks"), 0, tr("That adds the same CFM everywhere.")),
        ),
        tr("Use a sleeve of the engine's own bore, and write it down. Another sleeve is another test."),
    )  # fmt: skip


def _converted(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    bent = 1 + np.array([0.0, 0.0, 0.002, 0.008, 0.018, 0.026])
    return Puzzle(
        tr("Last year it was flowed at 10 inches of water and the sheet was converted to 28 by the square root. Today "
           "it is flowed at 28: the top lifts have lost nearly three in a hundred. The port was not touched. Which to "
           "believe?"),
        Exhibit(read(flow(LIFTS) * bent, random), read(flow(LIFTS), random), ("converted", tr("at 28"))),
        (
            Look(tr("Flow it at 10 inches again"), 10, tr("Converted, it gives last year's sheet, lift by lift.")),
            Look(tr("Listen at the top lifts, at 10 and at 28"), 3,
                tr("At 28 it hisses and the column dances; at 10 it is calm.")),
            Look(tr("Close the valve and read the leak"), 2, tr("As small as last year.")),
            Look(tr("Check the dial's zero"), 1, "Zero."),
        ),
        shuffled(
            random,
            Choice(tr("Both: the port separates at 28 and not at 10, so the square root does not carry over"), BEST,
                   tr("Right: conversion holds while the air keeps to the wall. Where it separates, only a test at the "
                   "pressure tells.")),
            Choice(tr("The converted sheet: pressure makes no difference to a port"), 0,
                   tr("It does where air separates from the wall, and that is what it does here at the top lifts.")),
            Choice(tr("Today's: last year's bench was wrong"), 1,
                   tr("It reads the same again today at 10 inches: that bench was right.")),
            Choice(tr("Neither: the blower is tired"), 1, tr("A tired blower does not hold 28; this one does.")),
        ),
        tr("Square-root conversion is for looking something up, not for judging. Ventrix shows converted figures with "
           "a mark and refuses to call a gain from them proven."),
    )  # fmt: skip


def _wild(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    after = read(flow(LIFTS), random)
    at = int(random.integers(2, 5))
    after[at] = float(read(flow(LIFTS[at : at + 1]) * 1.06, random)[0])
    return Puzzle(
        tr("The seat was back-cut. One lift gained six in a hundred, and its neighbours nothing. What next?"),
        Exhibit(read(flow(LIFTS), random), after),
        (
            Look(tr("Look at the spread of that reading"), 1,
                tr("Four times that of its neighbours: it was not steady.")),
            Look(tr("Flow that lift again, coming from below and from above"), 3,
                tr("As its neighbours: no gain, twice.")),
            Look(tr("Close the valve and read the leak"), 2, tr("As small as before.")),
            Look(tr("Pour the port"), 8, tr("The same cc.")),
        ),
        shuffled(
            random,
            Choice(tr("Repeat that lift; strike the wild reading with its reason if it does not come again"), BEST,
                   tr("Right: it stays on paper as it was read, with why it does not count.")),
            Choice(tr("Keep it: the back cut works at that lift"), 0,
                tr("Neighbours move together; one lift alone is a mistake.")),
            Choice(tr("Take it out and say nothing"), 1,
                tr("It was read. Strike it, and say why: the next one may be real.")),
            Choice(tr("Average it with its neighbours"), 0,
                tr("Then half of the mistake stays, and nobody sees it any more.")),
        ),
        tr("Air does not gain at one lift alone. Repeat it before anything else: three minutes, while the head is "
           "still bolted down."),
    )  # fmt: skip


AT_THE_BENCH: Final = (
    Lesson("dial-zero", tr("The dial's zero"), True, _dial),
    Lesson("off-centre", tr("The head off center"), True, _off_centre),
    Lesson("bare-entry", tr("The bare entry"), True, _bare),
    Lesson("leak", tr("The leak and the lapped valve"), True, _leak),
    Lesson("range-change", tr("Where the range changes"), True, _range),
    Lesson("cold-bench", tr("The cold bench"), True, _cold),
    Lesson("another-sleeve", tr("Another sleeve"), False, _sleeve),
    Lesson("converted", tr("The converted pressure"), False, _converted),
    Lesson("one-wild", tr("One wild reading"), False, _wild),
)
