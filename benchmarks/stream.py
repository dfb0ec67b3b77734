"""How old what is read from a streaming bench is, at 10, 50 and 200 lines a second. ``python -m benchmarks.stream``.

``python -m benchmarks.stream 30`` reads 50 lines a second for so many minutes through the window's own bridge, and
prints what the program holds in memory, threads and open files on the way (aim: flat).
"""

from __future__ import annotations

import os
import queue
import sys
import threading
import time

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.drivers.text_lines import TextColumn, TextFormat, open_serial
from ventrix.bench.sampler import Event, Sampler

SHAPE = TextFormat(
    columns=(TextColumn("flow", 1, "cfm"), TextColumn("pressure", 2, "inH2O"), TextColumn("lift", 3, "mm"))
)
DRAIN = 0.05  # s between looks at the queue, as the window does


def age_of_what_is_read(rate: float, seconds: float) -> list[float]:
    """Age [s] of the newest sample at each look, when lines come at a rate; each line carries when it was sent."""
    leader, follower = os.openpty()
    device, started = os.ttyname(follower), time.monotonic()
    stop = threading.Event()

    def talk() -> None:
        due = time.monotonic()
        while not stop.is_set():
            sent = time.monotonic() - started
            os.write(leader, f"{100 + sent:.4f},28.0,5.0\n".encode())
            due += 1 / rate
            time.sleep(max(0.0, due - time.monotonic()))

    talker = threading.Thread(target=talk, daemon=True)
    events: queue.Queue[Event] = queue.Queue()
    sampler = Sampler(lambda: open_serial(device, SHAPE), DRAIN, events)
    talker.start()
    sampler.start()
    ages: list[float] = []
    try:
        until = time.monotonic() + seconds
        while time.monotonic() < until:
            time.sleep(DRAIN)
            newest: Sample | None = None
            while not events.empty():
                event = events.get_nowait()
                newest = event if isinstance(event, Sample) else newest
            if newest is not None:
                sent = newest.flow / 4.719474432e-4 - 100
                ages.append(time.monotonic() - started - sent)
    finally:
        stop.set()
        talker.join()
        sampler.stop()
        for end in (leader, follower):
            os.close(end)
    return ages


def read_on(minutes: float, looks: int = 6) -> None:
    """Read a stream for a while as a window does, and print what is held at the start, and at each look."""
    from PySide6.QtCore import QCoreApplication, QEventLoop, QTimer

    from benchmarks.soak import resident
    from ventrix.ui.bench_bridge import BenchBridge

    app = QCoreApplication.instance() or QCoreApplication([])
    leader, follower = os.openpty()
    device, stop = os.ttyname(follower), threading.Event()
    os.close(follower)

    def talk() -> None:
        due, n = time.monotonic(), 0
        while not stop.is_set():
            n += 1
            os.write(leader, f"{100 + n % 7:.2f},28.0,5.0\n".encode())
            due += 1 / 50
            time.sleep(max(0.0, due - time.monotonic()))

    bridge, samples = BenchBridge(), [0]
    bridge.sampled.connect(lambda found: samples.__setitem__(0, samples[0] + len(found)))
    talker = threading.Thread(target=talk, daemon=True)
    bridge.connect_serial(device, SHAPE)
    talker.start()
    print(f"{'min':>6}{'samples':>9}{'MiB':>8}{'threads':>9}{'files':>7}{'connected':>11}")
    for look in range(looks + 1):
        loop = QEventLoop()
        QTimer.singleShot(int(60_000 * minutes / looks) if look else 3000, loop.quit)
        loop.exec()
        files = len(os.listdir("/proc/self/fd"))
        print(f"{minutes * look / looks:6.1f}{samples[0]:9d}{resident():8.1f}{threading.active_count():9d}{files:7d}"
              f"{bridge.connected!s:>11}", flush=True)  # fmt: skip
    stop.set()
    talker.join()
    bridge.disconnect_bench()
    os.close(leader)
    app.processEvents()


if __name__ == "__main__" and len(sys.argv) > 1:
    read_on(float(sys.argv[1]))
elif __name__ == "__main__":
    for rate in (10, 50, 200):
        found = sorted(age_of_what_is_read(rate, 5.0))
        median, worst = found[len(found) // 2], found[-1]
        print(f"{rate:4d} lines/s: what is shown is {1000 * median:.0f} ms old, at worst {1000 * worst:.0f} ms")
