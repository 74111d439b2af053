"""`python -m tidy_trunk`: the command line."""

import sys

from tidy_trunk.cli.main import run

if __name__ == "__main__":
    sys.exit(run())
