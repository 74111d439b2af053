"""`python -m tidy_trunk`: the command line."""

from tidy_trunk.cli.main import run

if __name__ == "__main__":
    run()
