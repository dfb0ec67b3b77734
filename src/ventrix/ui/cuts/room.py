"""The Cuts room: the unrolled port and the memory of what was done to the metal."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QBoxLayout, QFileDialog, QHBoxLayout, QInputDialog, QLabel, QVBoxLayout

from ventrix.core.edits.cuts import edit_cut
from ventrix.core.edits.valves import open_after_valve_job
from ventrix.core.judging.pieces import piece_loss, piece_sentence
from ventrix.core.metal.walls import limit_for, wall_sentence, walls_at
from ventrix.core.model.cut import Cut, Photo, Port, Trial, trial_as_cut
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.files.photos import keep_photo
from ventrix.rooms.cuts.card import (
    CardLine,
    chamber_lines,
    fault_lines,
    operation_lines,
    outcome_lines,
    scan_lines,
    seat_lines,
    slip_lines,
    trial_verdict,
    volume_lines,
    zone_history,
)
from ventrix.rooms.cuts.depth_left import depths_left
from ventrix.rooms.shared.shape_words import cone_words, shape_sentences, taper_words
from ventrix.rooms.shared.unrolled_map import map_picture
from ventrix.ui.cuts.card import CutCard
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.far_page import FarLine
from ventrix.ui.widgets.room import QWIDGETSIZE_MAX, Room
from ventrix.ui.widgets.unrolled_map import UnrolledMap
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text
from ventrix.workspace.workspace import Workspace

CAUTION = tr(
    "Eye protection, respirator, hearing protection; no gloves near a spinning burr. What is shown is what was "
    "measured: it never means that a wall is safe."
)
PICTURES = tr("Pictures (*.jpg *.jpeg *.png);;All files (*)")


CARD, NARROW_CARD = 384, 340  # px
WIDE = 1000  # px, of the room
LEAST_BESIDE = 830  # px: below, map and card do not stand beside one another
FOLDED_CARD = 240  # px, of its height


class CutsRoom(Room):
    """Map left, card right. Click a zone to log, measure or read its history."""

    name = tr("Cuts")
    has_far_view = True
    manual = "cuts"

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.zone = ""
        self._lines_want = 0  # px of width that they are folded to; nought beside one another
        self.map = UnrolledMap()
        self.map.zone_chosen.connect(self.choose_zone)
        self.caption = QLabel()
        self.caption.setWordWrap(True)
        self.caption.setObjectName("quiet")
        self.card = CutCard()
        self.card.setFixedWidth(CARD)
        self.commands = (
            Command("cuts.operation", tr("operation"), lambda: self.ways.sheet("cut", self.zone, operation=True), "O"),
            Command("cuts.wall", tr("wall"), lambda: self.ways.sheet("wall", self.zone), "W"),
            Command("cuts.pour", tr("pour"), lambda: self.ways.sheet("pour"), "V"),
            Command("cuts.seat", tr("valve job"), lambda: self.ways.sheet("seat"), "J"),
            Command("cuts.trial", tr("trial"), lambda: self.ways.sheet("trial", self.zone), "T"),
            Command("cuts.fault", tr("fault"), lambda: self.ways.sheet("fault", self.zone), "F"),
            Command("cuts.tube", tr("tube"), lambda: self.ways.sheet("tube", self.zone), "U"),
            Command("cuts.clock", tr("clock"), self.toggle_clock, "S"),
            Command("cuts.photo.before", tr("photo before"), lambda: self.choose_photo("before"), "P"),
            Command("cuts.photo.after", tr("photo after"), lambda: self.choose_photo("after"), "Shift+P"),
            Command("cuts.new", tr("new cut"), lambda: self.ways.sheet("cut", self.zone), "N"),
            Command("cuts.leave", tr("leave the zone"), lambda: self.choose_zone(self.zone), "Esc", able=self._on_zone),
        )
        self.keys = ActionBar()
        self.keys.show_actions(self.commands)
        left = QVBoxLayout()
        left.setSpacing(4)
        left.addWidget(self.caption)
        left.addWidget(self.map, 1)
        left.addWidget(self.keys)
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(16, 8, 16, 8)
        self._row.setSpacing(16)
        self._row.addLayout(left, 1)
        self._row.addWidget(self.card)

    # -- showing

    def fit(self, there: QSize) -> None:
        """Beside a sheet in a small window the card folds under the map."""
        folded = there.width() < LEAST_BESIDE
        self._row.setDirection(QBoxLayout.Direction.TopToBottom if folded else QBoxLayout.Direction.LeftToRight)
        self._lines_want = max(there.width() - 48, 200) if folded else 0
        self._give_lines()
        if folded:
            self.card.setMinimumSize(0, FOLDED_CARD)
            self.card.setMaximumWidth(QWIDGETSIZE_MAX)
        else:
            self.card.setMinimumHeight(0)
            self.card.setFixedWidth(CARD if there.width() >= WIDE else NARROW_CARD)

    def _give_lines(self) -> None:
        """The frame asks for least heights and knows no lines: folded, words and actions say what theirs take."""
        for part in (self.caption, self.keys):
            lines = part.heightForWidth(self._lines_want) if self._lines_want else 0
            part.setMinimumHeight(max(lines, 0))

    def refresh(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        port, cut, units = space.port, space.real_cut, self.open_book.units
        self.keys.follow()
        try:
            picture = map_picture(space.job, port, cut, space.against, self.zone, units, space.shop.castings())
        except Refused as error:
            self.caption.setText(tr("The map cannot be drawn: {}. The Head room is where that is put right.", error))
            return
        self.map.show_picture(picture, units, still=self.open_book.reduced_motion)
        valves = tr(", {} valves", port.valves) if port.valves > 1 else ""
        self.caption.setText(
            tr(
                "{}{}, unrolled: air goes left to right, walls folded flat, sizes as at cut {}. {} {}",
                port.name,
                valves,
                cut.number,
                taper_words(picture.port),
                cone_words(picture.port),
            )
        )
        self._give_lines()
        self._fill_card(space, port, cut)

    def far_lines(self) -> Sequence[FarLine]:
        """How deep each place may still go; the chosen one first and large."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return ()
        left = depths_left(space.job, space.port, space.real_cut, self.open_book.units)
        first = [d for d in left if d.place == self.zone]
        rest = [d for d in left if d.place != self.zone]
        lines = [FarLine(f"{d.place}: {d.words}", 2.0, "worse" if d.stops else "better") for d in first]
        lines += [FarLine(f"{d.place}: {d.words}", 1.0, "worse" if d.stops else "text") for d in rest]
        return (FarLine(tr("{}, cut {}", space.port.name, space.real_cut.number), 0.8, "brass"), *lines)

    def _fill_card(self, space: Workspace, port: Port, cut: Cut) -> None:
        units, findings = self.open_book.units, space.findings
        date = f"   {cut.date[:10]}" if cut.date else ""
        self.card.heading.setText(f"{cut.number}  {cut.name or tr('no name')}{date}")
        sections = {}
        if self.zone:
            history = zone_history(port, cut, self.zone, units)
            sections[f"Zone: {self.zone}"] = history or [CardLine("", tr("nothing done, read or tried here yet"))]
        sections[tr("Operations")] = operation_lines(cut, units)
        sections["Metal taken"] = scan_lines(cut, units)
        sections["Expected"] = outcome_lines(findings.outcome(port, cut), units)
        sections[tr("Volume and time")] = volume_lines(findings, port, cut, space.against, units)
        sections["Seat"] = seat_lines(space.job, port, cut, units)
        runs = findings.runs_of(cut, port)
        shape = shape_sentences(space.job, port, cut, runs[-1] if runs else None, units)
        sections[tr("Shape")] = [CardLine("", said) for said in shape[:2]]
        sections["After the valve job"] = [CardLine(tr("to do"), s) for s in open_after_valve_job(port, cut)]
        sections[tr("Chambers")] = chamber_lines(space.job, units)
        sections["Went wrong"] = slip_lines(port, units)
        sections[tr("Faults of the casting")] = fault_lines(port, cut, units)
        sections["Trials"] = self._trial_lines(space, port, cut)
        sections[tr("Your results against your predictions")] = self._factor_lines(space)
        self.card.show_sections(sections)
        walls = walls_at(space.job, port, cut)
        bare = [w for w in walls if w.tube is None]
        worked = next((w for w in bare if w.unknown), None)
        thinnest = min(bare, key=lambda w: w.left - w.limit, default=None)
        if worked is not None:
            thinnest = None
        limit = thinnest.limit if thinnest is not None else limit_for(space.job, "", port.kind)
        asks = tr("No wall of this port has been read. Castings shift: read it where metal comes off (W).")
        if worked is not None:
            asks = wall_sentence(space.job, worked, units.length.unit)
        self.card.metal.show_wall(thinnest, limit, units, asks)
        self.card.caution.setText(CAUTION)
        folder = space.book.photo_folder
        before = next((folder / p.file for p in reversed(cut.photos) if p.moment == "before"), None)
        after = next((folder / p.file for p in reversed(cut.photos) if p.moment == "after"), None)
        self.card.photos.show_files(before, after)

    def _trial_lines(self, space: Workspace, port: Port, cut: Cut) -> list[CardLine]:
        lines, shares = [], []
        for trial in cut.trials:
            verdict = trial_verdict(space.findings, port, cut, trial)
            if verdict is None:
                lines.append(
                    CardLine(trial.kind, f"{trial.name or trial.place}: " + self._trial_state(space, port, cut, trial))
                )
                continue
            lines.append(CardLine(tr("clay, {}", trial.place), verdict.sentence))
            if verdict.share is not None and verdict.share_uncertainty is not None:
                shares.append((trial.place, verdict.share, verdict.share_uncertainty))
        if len(shares) > 1:
            told = ", ".join(f"{p} {percent_text(s, 0)} ± {percent_text(2 * u, 0)}" for p, s, u in shares)
            lines.append(CardLine(tr("loss map"), tr("measured shares of the loss: {}", told)))
        return lines

    def _trial_state(self, space: Workspace, port: Port, cut: Cut, trial: Trial) -> str:
        if not trial.runs or not cut.runs:
            return tr("not flowed yet")
        loss = piece_loss(space.findings, port, cut, trial)
        if loss is not None and len(loss.lift):
            return piece_sentence(loss, port, trial.name, self.open_book.units.wording)
        pair = space.findings.pair(port, cut, trial_as_cut(cut, trial))
        verdict = space.findings.verdict(pair, self.open_book.units.wording)
        return pair.missing if verdict is None else f"{verdict.headline} {verdict.sentence}"

    def _factor_lines(self, space: Workspace) -> list[CardLine]:
        places: dict[str, list[str]] = {}  # those that one cut taught the same of stand together
        for f in space.shop.factors()[:4]:
            gain = tr("gain × {:.2f} ± {:.2f}", f.gain, f.gain_doubt) if f.gain is not None else ""
            time = tr("time × {:.2f}", f.time) if f.time is not None else ""
            cuts = tr("over {} cut{}", f.cuts, "s" * (f.cuts > 1))
            places.setdefault(", ".join(x for x in (gain, time, cuts) if x), []).append(f.place)
        return [CardLine(", ".join(named), words) for words, named in places.items()]

    # -- what hands and keys do

    def choose_zone(self, zone: str) -> None:
        """Stand on a zone: its history stands on the card, and work is logged there."""
        self.zone = "" if zone == self.zone else zone
        self.refresh()

    def _on_zone(self) -> bool:
        return bool(self.zone)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and not event.modifiers():
            self.map.keyPressEvent(event)
        else:
            super().keyPressEvent(event)

    def toggle_clock(self) -> None:
        """Start the clock on work at the zone chosen, or stop it."""
        space = self.open_book.workspace
        if space is None:
            return
        try:
            seconds = space.clock.stop()
        except Refused as error:
            seconds = self._ask_minutes(sentence_of(error))
            if seconds is None:
                return
            space.clock.stop(seconds)
        if seconds is None:
            space.clock.start(self.zone)
            self.open_book.say(tr("The clock runs: S stops it. It goes on through a crash."))
        else:
            self.open_book.say(tr("The clock stopped after {}.", self.open_book.units.duration.with_unit(seconds)))

    def _ask_minutes(self, question: str) -> float | None:
        """How long the work took, where the computer's clock cannot say; None where nobody knows [s]."""
        minutes, ok = QInputDialog.getDouble(self, tr("The clock"), question, 30.0, 0.1, 960.0, 1)
        return minutes * 60 if ok else None

    def choose_photo(self, moment: str) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("Photo {}", moment), "", PICTURES)
        if name:
            self.keep_photo(Path(name), moment)

    def keep_photo(self, path: Path, moment: str) -> bool:
        """Copy a picture into the book's folder and hang it from the cut looked at."""
        space = self.open_book.workspace
        if space is None or space.real_cut is None:
            return False
        try:
            file = keep_photo(space.book.photo_folder, path)
        except InputError as error:
            self.open_book.say(str(error))
            return False
        photo = Photo(id=new_id(), file=file, moment=moment, date=now_text())
        job = edit_cut(space.job, space.real_cut.id, lambda c: replace(c, photos=(*c.photos, photo)))
        space.apply(tr("photo {}", moment), job)
        return True
