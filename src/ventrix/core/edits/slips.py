"""Edits of slips: recorded, decided about, told to the customer."""

from __future__ import annotations

from dataclasses import replace

from ventrix.core.edits.cuts import edit_port
from ventrix.core.model.cut import Port, Slip
from ventrix.core.model.job import Job


def record_slip(job: Job, port_id: str, slip: Slip) -> Job:
    """The job with a slip on a port; in place of the one with its id, where there is one. KeyError if no such port."""
    job.port(port_id)

    def with_it(port: Port) -> Port:
        known = any(s.id == slip.id for s in port.slips)
        slips = tuple(slip if s.id == slip.id else s for s in port.slips) if known else (*port.slips, slip)
        return replace(port, slips=slips)

    return edit_port(job, port_id, with_it)
