"""The entry point. Exit 0 done; 2 bad input, with one line on standard error; never a traceback."""

from __future__ import annotations

import os
import sys
from importlib import import_module
from typing import Any, Final

# Small matrices only are solved here: threads of the linear algebra wait for each other longer than they work.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import typer

from ventrix.cli.app import app
from ventrix.records.bad_input import BookError, InputError
from ventrix.words import tr

# Where each command lives: only the module of the one that is asked for is imported.
COMMANDS: Final = {
    "calc": "calc",
    "reduce": "flow",
    "compare": "flow",
    "walls": "job",
    "sheet": "job",
    "plan": "plan",
    "engine": "engine",
    "route": "route",
    "work": "work",
    "suits": "suits",
    "casting": "casting",
    "match": "match",
    "lineup": "lineup",
    "scan": "scan",
    "practice": "practice",
    "book": "book",
    "import": "book",
    "export": "book",
    "simbench": "window",
    "window": "window",
    "install-desktop": "window",
}

# Typer carries its own copy of click in some versions, click's in others; this base is in both.
_UsageError: Any = typer.BadParameter.__mro__[1]


def main(argv: list[str] | None = None) -> None:
    """Entry point. Anything that is no command opens the window."""
    args = list(sys.argv[1:] if argv is None else argv)
    if args[:1] == ["--version"]:
        from ventrix.records.about import version_words

        print(version_words())
        sys.exit(0)
    if not args or (args[0] not in COMMANDS and args[0] not in ("--help", "-h")):
        args.insert(0, "window")
    asked = COMMANDS.get(args[0])
    for module in dict.fromkeys(COMMANDS.values() if asked is None else (asked,)):
        import_module(f"ventrix.cli.{module}")
    try:
        code = app(args, prog_name="ventrix", standalone_mode=False)
        sys.stdout.flush()
    except (InputError, BookError) as error:
        sys.exit(_refuse(str(error)))
    except _UsageError as error:
        sys.exit(_refuse(error.format_message()))
    except (KeyboardInterrupt, typer.Abort):
        code = 130
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())  # whoever read us has left
        code = 0
    except OSError as error:
        # What was printed could not be written, a full device say; and what is left in the buffer never can be.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        sys.exit(
            _refuse(tr("standard output: cannot be written: {}", (error.strerror or tr("unknown reason")).lower()))
        )
    sys.exit(code or 0)


def _refuse(sentence: str) -> int:
    line = "ventrix: " + " ".join(sentence.split())
    print(line.encode("utf-8", "replace").decode(), file=sys.stderr)
    return 2


if __name__ == "__main__":
    main()
