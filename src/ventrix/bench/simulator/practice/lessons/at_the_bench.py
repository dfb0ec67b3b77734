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

ASKED: Final = "Nothing else is said to have changed. Where does the difference come from?"
CUT: Final = "The bowl was blended a little and the port flowed again."


def _dial(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    low = 100 * (float(flow(LIFTS[:1] + DIAL_ERROR)[0]) / float(flow(LIFTS[:1])[0]) - 1)
    return Puzzle(
        f"{CUT} It gained most at the lowest lifts, and nothing at the top. {ASKED}",
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS + DIAL_ERROR), random)),
        (
            Look("Close the valve on its seat and look at the dial", 1, "It rests at three thousandths, not at zero."),
            Look("Bolt the head down again and flow it", 12, "The same gain, at the same lifts."),
            Look("Close the valve and read the leak", 2, "As small as before."),
            Look("Pour the port", 8, "A third of a cc more."),
        ),
        shuffled(
            random,
            Choice("The dial's zero: the valve stood further open than it said", BEST,
                   "Right: three thousandths are a large share of a small lift and none of a large one."),
            Choice("The blend: the low lifts live from the bowl and the seat", 1,
                   "It could be; but a blend that small does not gain more the nearer the valve is to its seat."),
            Choice("A leak at the head's seal", 1, "A leak adds the same flow at every lift, the top ones too."),
            Choice("Warmer air", 0, "That moves every lift by the same share."),
        ),
        f"Three thousandths of lift read as {low:.1f} % at the first lift and as nothing at the last. A gain that dies "
        "away with lift is the dial until its zero was looked at again; setting it takes a minute.",
    )  # fmt: skip


def _off_centre(random: np.random.Generator) -> Puzzle:
    flow, valve = port_flow(random)
    factor = 1 + 0.03 * np.clip(LIFTS / valve / 0.25, 0.2, 1.0)
    return Puzzle(
        f"{CUT} It gained more the further the valve was open, up to three in a hundred. {ASKED}",
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) * factor, random)),
        (
            Look("Feel round the chamber's edge against the sleeve", 2,
                 "A step of twenty thousandths on the side of the other valve, none here."),
            Look("Bolt the head down again, in the sleeve's middle, and flow it", 12, "The gain is gone."),
            Look("Check the dial's zero", 1, "Zero."),
            Look("Pour the port", 8, "The same cc as before."),
        ),
        shuffled(
            random,
            Choice("The head sat off the sleeve's middle and unshrouded the valve", BEST,
                   "Right: the wall stood further from this valve than it does in the engine."),
            Choice("The blend: high lifts live from the bowl", 1,
                   "The pour says no metal to speak of is gone, and a second mounting says the rest."),
            Choice("The dial's zero", 0, "That gains at the lowest lifts, and dies away with lift."),
            Choice("A leak", 0, "A leak adds the same flow everywhere: most, by share, where the flow is least."),
        ),
        "A head that sits off its sleeve changes the shroud. It looks like a good high-lift gain, and in the engine "
        "it is "
        "not there. Locate it by pins or by feel, and mount again before you believe a gain you like.",
    )  # fmt: skip


def _bare(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    return Puzzle(
        "The pinch was opened by eye and the port flowed again: it lost nearly five in a hundred at every lift. "
        f"{ASKED}",
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) * 0.955, random)),
        (
            Look("Read what the set-up of both tests says of the entry", 1,
                 "Before: radius plate. After: nothing is noted."),
            Look("Look into the port's opening", 1, "The clay radius lies on the shelf, not on the port."),
            Look("Close the valve and read the leak", 2, "As small as before."),
            Look("Bolt the head down again and flow it", 12, "The same loss."),
        ),
        shuffled(
            random,
            Choice("The second test was flowed with a bare opening", BEST,
                   "Right: air that turns over a sharp edge loses there, whatever the port does."),
            Choice("The pinch was opened too far: the air is too slow", 1,
                   "A section that grows costs air speed, not five in a hundred of the flow at every lift."),
            Choice("The bench was cold", 1, "It reads low while it is cold, but the plate would say so too."),
            Choice("The valve did not open as far", 0, "That costs at the low lifts and nothing at the top."),
        ),
        "Entries are part of the port as far as the bench knows. Two tests with different entries are no pair: fit the "
        "radius to both, or bridge them by flowing one state both ways.",
    )  # fmt: skip


def _leak(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    leak = to_si(float(random.uniform(1.8, 2.8)), "cfm")
    return Puzzle(
        f"The seat was cut again. The port gained the same few CFM at every lift. {ASKED}",
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) + leak, random)),
        (
            Look("Close the valve and read the bench", 2, f"{cfm(leak):.1f} CFM run through with the valve shut."),
            Look("Lap the valve in, close it, and read again", 8, "Next to nothing: it was the seat that leaked."),
            Look("Check the dial's zero", 1, "Zero."),
            Look("Bolt the head down again and flow it", 12, "The same gain."),
        ),
        shuffled(
            random,
            Choice("The valve does not seal on the new seat, and that is counted as flow", BEST,
                   "Right: what passes a shut valve is added to every lift alike."),
            Choice("The new seat flows better", 1,
                   "A better seat gains most at the low lifts; it does not add the same CFM at the highest."),
            Choice("The head is off centre", 0, "That gains at high lift, not the same CFM everywhere."),
            Choice("The bench had warmed up", 1, "That moves all lifts by the same share, not by the same CFM."),
        ),
        "Read the leak with the valve shut before every test, and take it off, or lap the valve and be rid of it. A "
        "gain "
        "that is the same number of CFM at every lift is a leak until it was read.",
    )  # fmt: skip


def _range(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    low = read(flow(LIFTS), random)
    high = low.copy()
    high[3:] = read(flow(LIFTS[3:]) * 1.018, random)
    return Puzzle(
        "The guide boss was thinned. The first three lifts stand as they were, and from the fourth on there is a gain "
        f"all at once. {ASKED}",
        Exhibit(low, high),
        (
            Look("Read on which range each lift was flowed", 1,
                 "Before: all on range 5. After: range 4 up to the third lift, range 5 with its scale nearly full "
                 "after."),
            Look("Flow the fourth lift on both ranges", 3, "They differ by nearly two in a hundred."),
            Look("Close the valve and read the leak", 2, "As small as before."),
            Look("Bolt the head down again and flow it", 12, "The same step at the same place."),
        ),
        shuffled(
            random,
            Choice("The ranges of the bench do not agree where one takes over", BEST,
                   "Right: a step in a curve stands where the range was changed, not where the port did something."),
            Choice("The boss: a guide in the air's way counts at high lift", 1,
                   "It does, but it starts little by little; no port makes a step between two lifts."),
            Choice("The port separates from the fourth lift on", 0, "Then it would lose there, and hiss."),
            Choice("The dial slipped", 1, "That would shift the whole curve from there on sideways, and stay visible."),
        ),
        "Flow both states on the same ranges, and know by how much yours disagree: one lift read on both tells it in "
        "three minutes.",
    )  # fmt: skip


def _cold(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    return Puzzle(
        "As cast it was flowed first thing in the morning. The wall was cleaned, and after lunch it was flowed "
        "again: two "
        f"in a hundred more at every lift. {ASKED}",
        Exhibit(read(flow(LIFTS) * 0.978, random), read(flow(LIFTS), random), ("morning", "after lunch")),
        (
            Look("Flow the plate now and look up what it read in the morning", 5,
                 "Now 152.1, in the morning 148.8: it was not the port that rose."),
            Look("Read the log of temperatures", 1, "Bench and room were nine degrees apart in the morning."),
            Look("Check the dial's zero", 1, "Zero."),
            Look("Bolt the head down again and flow it", 12, "As after lunch."),
        ),
        shuffled(
            random,
            Choice("The bench was cold in the morning and read low", BEST,
                   "Right: the plate rose as much as the port, and no burr was at the plate."),
            Choice("Cleaning the wall brought it", 1, "Finish moves next to nothing, and never the plate."),
            Choice("A leak in the morning", 0, "A leak makes the morning read high, not low."),
            Choice("The head sat better after lunch", 1, "That moves the high lifts, and a mount again would show it."),
        ),
        "Let the bench run until the plate stands still, and flow the plate before and after. A shift of the same "
        "share "
        "at every lift is the bench or the air, before it is the port.",
    )  # fmt: skip


def _sleeve(random: np.random.Generator) -> Puzzle:
    flow, valve = port_flow(random)
    factor = 1 + 0.022 * np.clip((LIFTS / valve - 0.08) / 0.2, 0.0, 1.0)
    return Puzzle(
        "The head came back from its owner and was flowed again: two in a hundred more from the middle lifts on. He "
        f"swears that nothing was touched. {ASKED}",
        Exhibit(read(flow(LIFTS), random), read(flow(LIFTS) * factor, random)),
        (
            Look("Read the set-ups of both tests", 1, "Before: the job's bore. After: the next sleeve up, off the "
                                                      "shelf."),
            Look("Put the job's own sleeve on and flow it", 12, "As it was before."),
            Look("Pour the port", 8, "The same cc."),
            Look("Check the dial's zero", 1, "Zero."),
        ),
        shuffled(
            random,
            Choice("The sleeve: a larger bore stands further from the valve", BEST,
                   "Right: shroud counts from the middle lifts on, and it belongs to the engine's own bore."),
            Choice("He had it ported elsewhere", 1, "The same cc and the same walls: no metal is gone."),
            Choice("The bench drifted", 1, "That moves all lifts, the low ones as much."),
            Choice("The valve leaks", 0, "That adds the same CFM everywhere."),
        ),
        "Use a sleeve of the engine's own bore, and write it down. Another sleeve is another test.",
    )  # fmt: skip


def _converted(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    bent = 1 + np.array([0.0, 0.0, 0.002, 0.008, 0.018, 0.026])
    return Puzzle(
        "Last year it was flowed at 10 inches of water and the sheet was converted to 28 by the square root. Today "
        "it is "
        "flowed at 28: the top lifts have lost nearly three in a hundred. The port was not touched. Which to believe?",
        Exhibit(read(flow(LIFTS) * bent, random), read(flow(LIFTS), random), ("converted", "at 28")),
        (
            Look("Flow it at 10 inches again", 10, "Converted, it gives last year's sheet, lift by lift."),
            Look("Listen at the top lifts, at 10 and at 28", 3, "At 28 it hisses and the column dances; at 10 it is "
                                                                "calm."),
            Look("Close the valve and read the leak", 2, "As small as last year."),
            Look("Check the dial's zero", 1, "Zero."),
        ),
        shuffled(
            random,
            Choice("Both: the port separates at 28 and not at 10, so the square root does not carry over", BEST,
                   "Right: conversion holds while the air keeps to the wall. Where it separates, only a test at the "
                   "pressure tells."),
            Choice("The converted sheet: pressure makes no difference to a port", 0,
                   "It does where air separates from the wall, and that is what it does here at the top lifts."),
            Choice("Today's: last year's bench was wrong", 1,
                   "It reads the same again today at 10 inches: that bench was right."),
            Choice("Neither: the blower is tired", 1, "A tired blower does not hold 28; this one does."),
        ),
        "Square-root conversion is for looking something up, not for judging. Ventrix shows converted figures with a "
        "mark and refuses to call a gain from them proven.",
    )  # fmt: skip


def _wild(random: np.random.Generator) -> Puzzle:
    flow, _ = port_flow(random)
    after = read(flow(LIFTS), random)
    at = int(random.integers(2, 5))
    after[at] = float(read(flow(LIFTS[at : at + 1]) * 1.06, random)[0])
    return Puzzle(
        "The seat was back-cut. One lift gained six in a hundred, and its neighbours nothing. What next?",
        Exhibit(read(flow(LIFTS), random), after),
        (
            Look("Look at the spread of that reading", 1, "Four times that of its neighbours: it was not steady."),
            Look("Flow that lift again, coming from below and from above", 3, "As its neighbours: no gain, twice."),
            Look("Close the valve and read the leak", 2, "As small as before."),
            Look("Pour the port", 8, "The same cc."),
        ),
        shuffled(
            random,
            Choice("Repeat that lift; strike the wild reading with its reason if it does not come again", BEST,
                   "Right: it stays on paper as it was read, with why it does not count."),
            Choice("Keep it: the back cut works at that lift", 0, "Neighbours move together; one lift alone is a "
                                                                  "mistake."),
            Choice("Take it out and say nothing", 1, "It was read. Strike it, and say why: the next one may be real."),
            Choice("Average it with its neighbours", 0, "Then half of the mistake stays, and nobody sees it any more."),
        ),
        "Air does not gain at one lift alone. Repeat it before anything else: three minutes, while the head is still "
        "bolted down.",
    )  # fmt: skip


AT_THE_BENCH: Final = (
    Lesson("dial-zero", "The dial's zero", True, _dial),
    Lesson("off-centre", "The head off centre", True, _off_centre),
    Lesson("bare-entry", "The bare entry", True, _bare),
    Lesson("leak", "The leak and the lapped valve", True, _leak),
    Lesson("range-change", "Where the range changes", True, _range),
    Lesson("cold-bench", "The cold bench", True, _cold),
    Lesson("another-sleeve", "Another sleeve", False, _sleeve),
    Lesson("converted", "The converted pressure", False, _converted),
    Lesson("one-wild", "One wild reading", False, _wild),
)
