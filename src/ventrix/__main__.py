"""`python -m ventrix`."""

from ventrix.cli import main

main()
