"""How a porter names ports: in full, in short, or all of a kind. One reader for every field and command."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from typing import Final

from ventrix.core.model.cut import Port
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

_KINDS: Final = {
    "all": ("intake", "exhaust"),
    "all ports": ("intake", "exhaust"),
    "all intakes": ("intake",),
    "all exhausts": ("exhaust",),
}
_SHORT: Final = re.compile(r"(?P<letter>[ie])\s*(?P<rest>\d+)")


def port_named(ports: Iterable[Port], text: str) -> Port:
    """The port of a name, or of its short form: "Intake 3", "i3". Case and spaces around it do not count.

    Refused, with the names there are, where it is none of them.
    """
    wanted = text.strip().lower()
    there = list(ports)
    short = _SHORT.fullmatch(wanted)
    words = {wanted}
    if short is not None:
        words.add(f"{'intake' if short['letter'] == 'i' else 'exhaust'} {short['rest']}")
    found = next((p for p in there if p.name.strip().lower() in words), None)
    if found is None:
        names = ", ".join(p.name for p in there) or tr("no other port yet")
        raise Refused("'{}' is not one of {}", text.strip()[:40], names)
    return found


def ports_named(ports: Sequence[Port], text: str, but: Port | None = None) -> list[Port]:
    """Ports as they are typed, with commas between: names, short names, "all", "all intakes", "all exhausts".

    All of a kind leaves out the witness, which nobody touches. Each port comes once; `but` is not among them.
    Refused for a name that is none.
    """
    others = [p for p in ports if but is None or p.id != but.id]
    found: list[Port] = []
    for name in (" ".join(t.split()) for t in text.replace(";", ",").split(",") if t.strip()):
        kinds = _KINDS.get(name.lower().replace("every ", "all "))
        if kinds is None:
            found.append(port_named(others, name))
        else:
            found += [p for p in others if p.kind in kinds and p.of_head]
    return list({p.id: p for p in found}.values())
