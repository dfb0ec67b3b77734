"""Which jobs were opened lately, and which cut one looked at in each: kept at once, so that a crash loses nothing."""

from __future__ import annotations

import json
import math
from typing import Any, Final, TypeVar

from PySide6.QtCore import QSettings

from ventrix.workspace.selection import Selection
from ventrix.workspace.workspace import Workspace

MOST: Final = 12  # jobs that are remembered
_KEY: Final = "places"


def _places(settings: QSettings) -> dict[str, Any]:
    try:
        found = json.loads(str(settings.value(_KEY, "")) or "{}")
    except ValueError:
        return {}
    return found if isinstance(found, dict) else {}


def recent_jobs(settings: QSettings) -> list[str]:
    """Ids of the jobs opened lately, the last one first."""
    return list(reversed(_places(settings)))


def keep_place(settings: QSettings, space: Workspace) -> None:
    """Remember what is looked at in a job."""
    places = _places(settings)
    places.pop(space.job.id, None)
    chosen = space.selection
    at = None if chosen is None else [chosen.port_id, chosen.cut_id, chosen.against_id, chosen.trial_id]
    places[space.job.id] = at
    settings.setValue(_KEY, json.dumps(dict(list(places.items())[-MOST:])))


def recall_place(settings: QSettings, space: Workspace) -> None:
    """Look at what was looked at last in a job, as far as it is still there; and remember that it was opened."""
    at = _places(settings).get(space.job.id)
    if isinstance(at, list) and len(at) == 4:
        port = next((p for p in space.job.ports if p.id == at[0]), None)
        cuts = {c.id for c in port.cuts} if port is not None else set()
        if port is not None and at[1] in cuts:
            against = at[2] if at[2] in cuts else None
            trial = at[3] if isinstance(at[3], str) and space.job.is_trial(at[3]) else None
            space.selection = Selection(port.id, at[1], against, trial)
    keep_place(settings, space)


Usual = TypeVar("Usual", float, None)


def kept_number(settings: QSettings, key: str, usual: Usual) -> float | Usual:
    """A number of the settings; the usual one where none is kept, or what stands there is none."""
    try:
        found = float(str(settings.value(key, usual)))
    except ValueError:
        return usual
    return found if math.isfinite(found) and found > 0 else usual
