"""What a window keeps of its rooms and sheets: an entry each, made when it is first asked for."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from importlib import import_module
from typing import Any, Generic, Protocol, TypeVar, cast

from PySide6.QtWidgets import QWidget

Kept = TypeVar("Kept", bound=QWidget)
Known = TypeVar("Known")


class Entry(Protocol):
    """A key, and the module and class behind it: known by name, so that nothing is imported before it is wanted."""

    @property
    def key(self) -> str: ...

    @property
    def lives(self) -> str: ...


@dataclass(frozen=True, slots=True)
class Named(Generic[Known]):
    """The key of one whose own class is needed, as only the window's own commands need it."""

    key: str


class Registry(Mapping[str, Kept]):
    """Rooms or sheets by key, in their order."""

    def __init__(
        self, entries: Iterable[Entry], make: Callable[[type[Any]], Kept], settle: Callable[[Kept], None]
    ) -> None:
        self._lives = {entry.key: entry.lives for entry in entries}
        self._make, self._settle = make, settle
        self._made: dict[str, Kept] = {}

    def __getitem__(self, key: str) -> Kept:
        """The one of a key, made where it was never asked for; KeyError where there is no such entry."""
        if key not in self._made:
            module, _, name = self._lives[key].partition(":")
            made = self._make(vars(import_module(module))[name])
            self._made[key] = made
            self._settle(made)
        return self._made[key]

    def of(self, named: Named[Known]) -> Known:
        """As by key, known by its own class."""
        return cast("Known", self[named.key])

    def made(self) -> tuple[Kept, ...]:
        """Those that were asked for, in the order they were."""
        return tuple(self._made.values())

    def if_made(self, key: str) -> Kept | None:
        """The one of a key where it was asked for before."""
        return self._made.get(key)

    def __iter__(self) -> Iterator[str]:
        return iter(self._lives)

    def __len__(self) -> int:
        return len(self._lives)
