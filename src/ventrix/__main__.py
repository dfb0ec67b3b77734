"""`python -m ventrix`."""

from ventrix.cli.main import main

main()
